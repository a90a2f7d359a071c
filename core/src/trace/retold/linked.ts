/** Two clauses joined by time or cause, joined the other way round: "when it tips, she moves" of "when she moves, it tips"; before for after. */
import type { Kin } from '../../language/kin.ts';
import type { Check } from './fault.ts';
import { alike, type Said, type Word } from './text.ts';

/** What opens the clause that comes first in time, or is the cause. */
const FIRST = /^(?:when|whenever|because|if|once|after|since)$/i;
const EVERY_TIME = /\b(?:every|each) time\b/i;
/** "…, so …": the cause stands before it. */
export const SO = /,\s+so(?: that)?\s+(?!far\b|much\b|many\b|long\b)/i;
const SAME = 0.6;

/** The clause that is the condition, and the one that follows from it. */
function linkedIn({ words, plain }: Said): [Word[], Word[]] | null {
  // "it tips, so she moves": the cause stands first.
  const so = SO.exec(plain);
  if (so)
    return [words.filter((w) => w.end <= so.index), words.filter((w) => w.start >= so.index + so[0].length)];
  const marked = EVERY_TIME.exec(plain);
  const at = marked
    ? words.findIndex((w) => w.start >= marked.index + marked[0].length)
    : words.findIndex(
        // "all at once", "just once, the lamp fell": no clause hangs on it.
        (w, i) =>
          FIRST.test(w.text) &&
          !(
            /^once$/i.test(w.text) &&
            (/^(?:at|only|just|all)$/i.test(words[i - 1]?.text ?? '') || words[i + 1]?.text === ',')
          ),
      );
  if (at < 0) return null;
  const open = marked ? words.findIndex((w) => w.start >= marked.index) : at;
  const comma = words.findIndex((w, i) => i > at && w.text === ',');
  const leads = words.slice(0, open).every((w) => !w.root);
  if (leads && comma < 0) return null;
  const condition = leads ? words.slice(at, comma) : words.slice(at);
  const rest = leads ? words.slice(comma + 1) : words.slice(0, open);
  return [condition, rest];
}
const rootsOf = (words: readonly Word[]) => [...new Set(words.flatMap((w) => w.root ?? []))];
const share = (a: readonly string[], b: readonly string[], kin: Kin | null) =>
  a.length ? a.filter((x) => b.some((y) => alike(x, y, kin))).length / a.length : 0;

function turnedClauses(told: Said, best: Said, kin: Kin | null): boolean {
  const [mine, theirs] = [linkedIn(told), linkedIn(best)];
  if (!mine || !theirs) return false;
  const [a, b] = mine.map(rootsOf);
  const [x, y] = theirs.map(rootsOf);
  return (
    share(a, y, kin) >= SAME && share(b, x, kin) >= SAME && share(a, x, kin) < SAME && share(b, y, kin) < SAME
  );
}

/** "before the theft" of "after the theft". */
const REACH = 4;
function turnedTime(told: Said, best: readonly Said[], kin: Kin | null): Word | null {
  const of = ({ words }: Said) =>
    words.flatMap((w, i) => {
      const word = w.text.toLowerCase();
      const next = words.slice(i + 1, i + 1 + REACH).find((x) => x.root);
      return /^(?:before|after)$/.test(word) && next ? [{ w, word, root: next.root! }] : [];
    });
  const theirs = best.flatMap(of);
  for (const m of of(told)) {
    const same = theirs.filter((t) => alike(t.root, m.root, kin));
    if (same.length && same.every((t) => t.word !== m.word)) return m.w;
  }
  return null;
}

/** "Warm it, and only then stir" where the source stirs first. */
const THEN = /,?\s+(?:and\s+)?(?:only\s+)?then\s+|\s+before\s+/i;
function turnedSteps(told: Said, best: Said, kin: Kin | null): boolean {
  const m = THEN.exec(told.plain);
  if (!m || m.index === 0 || /\b(?:before|after|until|once|when|then)\b/i.test(best.plain)) return false;
  const a = rootsOf(told.words.filter((w) => w.end <= m.index));
  const b = rootsOf(told.words.filter((w) => w.start >= m.index + m[0].length));
  if (a.length < 1 || b.length < 1) return false;
  const places = (roots: readonly string[]) => best.words.flatMap((w, i) => (w.root && roots.some((r) => alike(r, w.root!, kin)) ? [i] : [])); // prettier-ignore
  const only = (x: readonly string[], y: readonly string[]) =>
    x.filter((r) => !y.some((s) => alike(r, s, kin)));
  const [pa, pb] = [places(only(a, b)), places(only(b, a))];
  if (pa.length < Math.min(2, a.length) || pb.length < Math.min(2, b.length)) return false;
  return Math.min(...pa) > Math.max(...pb);
}

export const linked: Check = ({ told, evidence, tools: { kin } }) => {
  if (!evidence || told.question) return [];
  const [first] = evidence.best;
  const says = 'The source has it the other way round.';
  const time = turnedTime(told, evidence.best, kin);
  if (time) return [{ kind: 'order', level: 'wrong', start: time.start, end: time.end, says }];
  if (first && (turnedClauses(told, first, kin) || turnedSteps(told, first, kin)))
    return [{ kind: 'order', level: 'unsupported', start: 0, end: told.text.length, says }];
  return [];
};
