/** Denied on one side and not on the other, of the same sentence. */
import { accuse, type Check } from './fault.ts';
import { alike, deniesAtAll, wordsOfSegment, type Said, type Segment } from './text.ts';

const SHARED = 0.6;
const FEWEST = 2;

const BOTH = /\bboth\b/i;
const NEITHER = /\b(?:neither|nor)\b/i;
const rootsOf = (s: Segment) => s.words.flatMap((w) => w.root ?? []);
const denies = (said: Said, s: Segment) =>
  s.denies || said.segments.some((x) => x.denies && Math.abs(x.index - s.index) <= 1);

export const polarity: Check = ({ told, evidence, tools }) => {
  if (!evidence || told.question) return [];
  const [there] = evidence.best;
  const pair = [BOTH.exec(told.plain), NEITHER.exec(told.plain)] as const;
  const like = (a: readonly string[], b: readonly string[]) =>
    a.filter((x) => b.some((y) => alike(x, y, tools.kin))).length;
  const all = [...told.roots];
  if (like(all, [...there.roots]) >= Math.min(FEWEST, all.length)) {
    if (pair[0] && NEITHER.test(there.plain) && !BOTH.test(there.plain) && !NEITHER.test(told.plain))
      return [{ kind: 'denial', level: 'wrong', start: pair[0].index, end: pair[0].index + pair[0][0].length, says: 'The source says “neither”, not “both”.' }]; // prettier-ignore
    if (pair[1] && BOTH.test(there.plain) && !NEITHER.test(there.plain) && !/\b(?:not|no|never|nor|nobody|none)\b|n't/i.test(there.plain))
      return [{ kind: 'denial', level: 'wrong', start: pair[1].index, end: pair[1].index + pair[1][0].length, says: 'The source says “both”, not “neither”.' }]; // prettier-ignore
  }
  if (deniesAtAll(told)) return [];
  // A word that the sentences around have only denied stands here undenied.
  const { near } = evidence;
  // "Nobody looked" and "without lemon" deny somebody and something else.
  const deniedNear = new Set(
    near.segments.flatMap((s) =>
      s.words.some((w) => /^(?:nobody|none|nothing|one|without|hardly|barely|nor)$/i.test(w.text))
        ? []
        : [...s.denied],
    ),
  );
  for (const w of told.words) {
    if (
      !w.root ||
      !/^(?:VERB|NOUN|ADJ)$/.test(w.pos) ||
      told.segments.find((s) => s.index === w.segment)?.open
    )
      continue;
    const stands = near.words.filter((x) => x.root === w.root);
    if (!stands.length || !stands.every((x) => deniedNear.has(x))) continue;
    const s = near.segments.find((x) => x.denied.has(stands[0]))!;
    if (told.roots.size > 1 && like(all, rootsOf(s)) < FEWEST && like(all, [...there.roots]) < FEWEST + 1)
      continue;
    return accuse('denial', 'wrong', w, `The source denies it: “${wordsOfSegment(near, s)}”.`);
  }
  for (const mine of told.segments) {
    const own = rootsOf(mine);
    if (own.length < FEWEST) continue;
    const ranked = there.segments.map((s) => ({ s, n: like(own, rootsOf(s)) })).sort((a, b) => b.n - a.n);
    const [top, next] = ranked;
    if (!top || top.n < FEWEST || top.n / own.length < SHARED) continue;
    if (!top.s.denies || (next && next.n === top.n && !denies(there, next.s))) continue;
    // The very word that is denied there stands here undenied.
    const denied = [...top.s.denied].find((w) => w.root && own.some((x) => alike(x, w.root!, tools.kin)));
    const here = denied && mine.words.find((w) => w.root && alike(w.root, denied.root!, tools.kin));
    if (!here) continue;
    return accuse('denial', 'wrong', here, `The source denies it: “${wordsOfSegment(there, top.s)}”.`);
  }
  return [];
};
