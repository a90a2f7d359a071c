/** Spelling and grammar by harper.js, made once a worker: its module has 16 MB and takes over a second to load. */
import type { LocalLinter } from 'harper.js';
import {
  grammarFindings,
  prepareSources,
  type Finding,
  type GrammarHit,
  type ReviewSource,
} from '@ursprung/core/review';
import type { PlainSection } from '@ursprung/core/script';
import { quotedSpans } from '@ursprung/core/language';

let linter: Promise<LocalLinter> | undefined;
const getLinter = () =>
  (linter ??= (async () => {
    const [{ Dialect, LocalLinter }, { binary }] = await Promise.all([
      import('harper.js'),
      import('harper.js/binary'),
    ]);
    const made = new LocalLinter({ binary, dialect: Dialect.British });
    await made.setup();
    return made;
  })());

/** Kinds that are right on good narration; matters of style and taste are left to our own rules. */
const KINDS = new Set([
  'Spelling',
  'Grammar',
  'Agreement',
  'Miscellaneous',
  'Typo',
  'BoundaryError',
  'WordChoice',
  'Malapropism',
  'Eggcorn',
  'Nonstandard',
]);
/** Hits of a line of script that are ours to judge or wrong by ear. */
const NOT_OURS =
  /\b(?:sentence is|words long|comma|capital|spelled-out|Oxford|dash|ellipsis|quotation mark|hyphen)\b/i;
const LONGEST = 2000;
const APART = '\n\n';
const memo = new Map<string, GrammarHit[]>();

/** What is wrong with each text, in its order. A text is looked at once. */
export async function grammarHits(texts: readonly string[]): Promise<GrammarHit[][]> {
  const checker = await getLinter();
  if (memo.size > 20_000) memo.clear();
  const fresh = [...new Set(texts)].filter((t) => !memo.has(t));
  for (const t of fresh) memo.set(t, []);
  // Many at once cost a tenth of each by itself; the blank rows between them keep sentences apart.
  const known = fresh.filter((t) => t.length <= LONGEST);
  const whole = known.join(APART);
  // The checker counts characters, not UTF-16 units.
  const units = unitsOf(whole);
  const starts: number[] = [];
  known.reduce((at, t) => (starts.push(at), at + t.length + APART.length), 0);
  for (const lint of whole ? await checker.lint(whole, { language: 'plaintext' }) : []) {
    const kind = lint.lint_kind();
    const message = lint.message();
    if (!KINDS.has(kind) || NOT_OURS.test(message)) continue;
    const span = lint.span();
    const [from, to] = [units[span.start], units[span.end]];
    const at = starts.findLastIndex((s) => s <= from);
    const [start, end] = [from - starts[at], to - starts[at]];
    if (end > known[at].length) continue;
    const by = lint.suggestions().map((x) => x.get_replacement_text());
    if (isName(known[at].slice(start, end), by)) continue;
    memo.get(known[at])!.push({
      start,
      end,
      kind,
      message: message.replace(/`([^`]*)`/g, '“$1”'),
      by: by.slice(0, 3),
    });
  }
  return texts.map((t) => memo.get(t) ?? []);
}

/** "the Upper Cut": words with capitals that would only be run together are somebody's, or some place's, name. */
const isName = (words: string, by: readonly string[]): boolean =>
  /^\p{Lu}\S*(?: \p{Lu}\S*)+$/u.test(words) &&
  by.every((b) => b.replace(/[\s-]/g, '').toLowerCase() === words.replace(/[\s-]/g, '').toLowerCase());

/** The place in UTF-16 units of every character. */
function unitsOf(text: string): number[] {
  const out: number[] = [];
  let at = 0;
  for (const c of text) {
    out.push(at);
    at += c.length;
  }
  out.push(at);
  return out;
}

/** Findings on spelling and grammar of a whole script. */
export async function grammarOf(
  sections: readonly PlainSection[],
  sources: readonly ReviewSource[],
): Promise<Finding[]> {
  const lines = sections
    .flatMap((s) => s.lines.map((l) => ({ ...l, locked: l.locked || s.locked })))
    .filter((l) => l.text.trim() && !l.fixed);
  const prepared = sources.length ? prepareSources(sources) : null;
  const hits = await grammarHits(lines.map((l) => l.text));
  return lines.flatMap((l, i) =>
    grammarFindings(
      { id: l.id, text: l.text, locked: l.locked, quotes: quotedSpans(l.text) },
      hits[i],
      prepared,
    ),
  );
}
