/** Saying a line in one's own words: what the fact is in key words only, and whether what is typed still tells it. */
import { stems } from '../facts/centrality.ts';
import { datesIn, numbersIn } from '../facts/extract.ts';
import type { Fact } from '../facts/facts.ts';
import { overlap, type LineOverlap } from '../trace/overlap.ts';
import { unsupportedIn } from '../trace/support.ts';
import type { Tagger } from '../language/tagged.ts';
import { checkerOf } from './checker.ts';
import type { PreparedSources, ReviewTools } from './rule.ts';

/** A fact without its sentence: enough to tell it, too little to copy it. */
export interface FactKeys {
  who: string | null;
  did: string | null;
  what: readonly string[];
  when: readonly string[];
  howMuch: readonly string[];
  /** Who says so, and how sure. */
  says: string | null;
  sure: string | null;
  /** Words in quotation marks must be said to the letter. */
  quotes: readonly string[];
}

const LIGHT = new Set([
  'be',
  'have',
  'do',
  'will',
  'would',
  'can',
  'could',
  'may',
  'might',
  'must',
  'shall',
  'should',
]);
const MOST_WHAT = 6;
const unique = (list: readonly string[]) => [...new Set(list)];

/** The key words of a fact: nouns and names apart from one another, verbs as their base form, values with what they count. */
export function keysOf(fact: Fact, tagger: Tagger): FactKeys {
  const { statement, text } = fact;
  const tokens = tagger(text);
  const within = (s: { start: number; end: number } | undefined, at: number) =>
    s && at >= s.start && at < s.end;
  const values = [...fact.numbers, ...fact.dates, ...fact.times, ...fact.quotes];
  const inValue = (start: number) => values.some((v) => start >= v.start && start < v.end);
  const verb = tokens.filter(
    (t) => within(statement?.verb, t.start) && t.pos === 'VERB' && !LIGHT.has(t.lemma),
  );
  const nouns = tokens.filter(
    (t) =>
      (t.pos === 'NOUN' || t.pos === 'PROPN') && !inValue(t.start) && !within(statement?.subject, t.start),
  );
  const named = fact.names.filter((n) => !within(statement?.subject, n.start)).map((n) => n.text);
  const loose = nouns
    .filter((t) => !fact.names.some((n) => t.start >= n.start && t.start < n.end))
    .map((t) => t.text);
  return {
    who: statement ? plain(statement.subject.text) : null,
    did: verb.length ? verb.map((t) => t.lemma).join(' ') : null,
    what: unique([...named, ...loose]).slice(0, MOST_WHAT),
    when: unique([...fact.dates, ...fact.times].map((d) => d.text)),
    howMuch: unique(fact.numbers.map((n) => counted(n, text))),
    says: fact.attribution?.text ?? null,
    sure: fact.modality === 'plain' ? (fact.polarity === 'denied' ? 'not' : null) : fact.modality,
    quotes: fact.quotes.map((q) => q.text),
  };
}

const plain = (subject: string) => subject.replace(/^(?:the|a|an)\s+/i, '');
/** A number with the word it counts. */
const counted = (n: { text: string; end: number; unit?: string | undefined }, text: string) =>
  n.unit && n.text.includes(n.unit) ? n.text : n.text + (/^\s[\p{L}-]+/u.exec(text.slice(n.end))?.[0] ?? '');

export interface TellingCheck {
  /** Words still in runs with a source, of how many, and where. */
  shared: LineOverlap;
  close: boolean;
  /** What it claims that the passage does not, in words, with the place where there is one. */
  faults: readonly { start: number; end: number; says: string; sure: boolean }[];
  /** Values, names and quotations of the passage that are not told. */
  untold: readonly string[];
  /** Whether anything of the passage can be recognised in it: else nothing was really compared. */
  tells: boolean;
}

/** Whether a telling of a passage is one's own and true: runs shared, values, names, hedges, who says so. */
export function checkTelling(
  text: string,
  facts: readonly Fact[],
  sources: PreparedSources,
  tools: Pick<ReviewTools, 'tagger' | 'kin'>,
): TellingCheck {
  const [shared] = overlap([text], sources.index).lines;
  const passage = facts.map((f) => f.text).join(' ');
  const unsupported = unsupportedIn(text, sources.stock).map((u) => ({
    start: u.start,
    end: u.end,
    sure: true,
    says:
      u.why === 'quote'
        ? 'Not a source’s words.'
        : `No source has the ${u.why === 'number' ? 'figure' : u.why} “${u.text}”.`,
  }));
  const refs = sources.list.flatMap((s) =>
    facts.flatMap((f) => (s.facts.includes(f) ? [{ source: s.letter, fact: f.id }] : [])),
  );
  // Values, names and quotations that stand nowhere were found above.
  const claims = (
    refs.length && text.trim() ? (checkerOf(sources, tools)?.check({ text, facts: refs }) ?? []) : []
  )
    .filter((f) => f.kind !== 'quote' && !/^No source (?:has|names)/.test(f.says))
    .map((f) => ({ start: f.start, end: f.end, says: f.says, sure: f.level === 'wrong' }));
  const seen = new Set<string>();
  const own = new Set(stems(text));
  const told = new Set([
    ...numbersIn(text).map((n) => n.value),
    ...datesIn(text).flatMap((d) => d.iso.split('-').map(Number)),
  ]);
  const lower = text.toLowerCase();
  const untold = unique(
    facts.flatMap((f) => [
      ...f.numbers.filter((n) => !told.has(n.value)).map((n) => counted(n, f.text)),
      ...f.dates.filter((d) => !d.iso.split('-').some((p) => told.has(Number(p)))).map((d) => d.text),
      ...f.names
        .filter(
          (n) =>
            !n.text
              .toLowerCase()
              .split(/\s+/)
              .some((w) => lower.includes(w)),
        )
        .map((n) => n.text),
    ]),
  );
  return {
    untold,
    tells: !passage || stems(passage).some((s) => own.has(s)),
    shared,
    close: shared.shared > 0,
    faults: [...unsupported, ...claims].filter((f) => !seen.has(f.says) && seen.add(f.says)),
  };
}
