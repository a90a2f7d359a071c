/** Spelling and grammar by harper.js, whose names of rules are ours to choose from: only those that are right on good prose. */
import type { PreparedSources } from './rule.ts';
import type { Finding } from './rule.ts';

/** What a checker says of one text. */
export interface GrammarHit {
  start: number;
  end: number;
  /** The checker's name of its kind: "Spelling", "Agreement"… */
  kind: string;
  message: string;
  /** What it would put there; empty where it has nothing. */
  by: readonly string[];
}

/** A name, a word of the sources, a term in capitals: known. */
function isKnown(word: string, sources: PreparedSources | null, known: ReadonlySet<string>): boolean {
  const lower = word.toLowerCase().replace(/[’']s$/, '');
  return (
    known.has(lower) ||
    /^\p{Lu}/u.test(word) ||
    /\d/.test(word) ||
    Boolean(sources && (lower.match(/[\p{L}\p{M}]+/gu) ?? []).every((p) => sources.stock.words.has(p)))
  );
}

/** Hits of a line as findings. Names and words of the sources are no misspellings; quotations are not judged. */
export function grammarFindings(
  line: { id: string; text: string; locked: boolean; quotes: readonly (readonly [number, number])[] },
  hits: readonly GrammarHit[],
  sources: PreparedSources | null,
  known: ReadonlySet<string> = new Set(),
): Finding[] {
  return hits.flatMap((h): Finding[] => {
    const text = line.text.slice(h.start, h.end);
    if (line.quotes.some(([s, e]) => h.start < e && h.end > s)) return [];
    const spells = h.kind === 'Spelling';
    if (spells && isKnown(text, sources, known)) return [];
    const [by] = h.by;
    return [
      {
        rule: spells ? 'spelling' : 'grammar',
        area: 'language',
        line: line.id,
        start: h.start,
        end: h.end,
        text,
        reason: spells ? `“${text}” is in no word list and in no source.` : h.message,
        ...(by === undefined
          ? {}
          : {
              mend: {
                says: by ? `Write “${by}”` : 'Leave it out',
                safe: false,
                edits: [
                  { line: line.id, text: `${line.text.slice(0, h.start)}${by}${line.text.slice(h.end)}` },
                ],
              },
            }),
      },
    ];
  });
}
