/** The first, the only, the largest: told where the source does not set a thing above all others. */
import { isA, looksCompared } from '../../language/classes.ts';
import type { Check } from './fault.ts';
import type { Kin } from '../../language/kin.ts';
import { alike, isIn, type Said, type Word } from './text.ts';

const OWNER = /^(?:the|its|his|her|their|our|my|your|'s|’s)$/i;
/** What the source may say of a first thing, and of an only one. */
const FIRST =
  /\b(?:first|1st|earliest|oldest|never (?:been |yet )?(?:before)?|new(?:ly)?|begins?|began|until then|no one had|nobody had|pioneer\w*|before (?:that|then|anyone|anybody)|opens?|opened|start\w*)\b/i;
const ONLY =
  /\b(?:only|sole|solely|just|single|alone|lone|no other|nobody else|no one else|nothing else|nowhere else|last (?:one|of)|one (?:of a kind|and only)|unique\w*|except|but for|none (?:of|other))\b/i;

interface Claim {
  words: readonly [Word, Word];
  held: (by: string) => boolean;
}

/** Whether a text sets something above all others in this: by the same word, or as a record. */
const setsAbove = ({ words }: Said, root: string | null, kin: Kin | null): boolean =>
  words.some(
    (w) =>
      w.root !== null &&
      root !== null &&
      /est$/i.test(w.text) &&
      w.text.toLowerCase() !== w.lemma &&
      alike(w.root, root, kin),
  ) ||
  words.some(
    (w) =>
      /^(?:most|least|greatest|highest|ever|never|record|peak|maximum|minimum|best|worst)$/i.test(w.text) ||
      w.lemma === 'beat',
  );

function claimsIn({ words }: Said, near: Said, kin: Kin | null): Claim[] {
  return words.flatMap((w, i): Claim[] => {
    const before = words[i - 1];
    const next = words[i + 1];
    if (!before || !next || !OWNER.test(before.text)) return [];
    const word = w.text.toLowerCase();
    // "the first of June", "the first two", "the first thing", "the first time": places in a row.
    if (word === 'first')
      return !/^(?:NOUN|ADJ|ADP)$/.test(next.pos) ||
        isA(next.lemma, 'time') ||
        /^(?:time|thing|half|part|one|place|step)s?$/.test(next.lemma)
        ? []
        : [{ words: [w, next], held: (by) => FIRST.test(by) }];
    if (word === 'only') return [{ words: [w, next], held: (by) => ONLY.test(by) }];
    const degree = /^(?:most|least)$/.test(word) && next.pos === 'ADJ';
    if (degree)
      return [
        {
          words: [w, next],
          held: () => setsAbove(near, next.root, kin) || isIn(next.root ?? '', near.roots, kin),
        },
      ];
    if (
      w.pos === 'ADJ' &&
      /^\p{L}{2,}est$/u.test(word) &&
      word !== w.lemma &&
      !/^(?:rest|west|east|best)$/.test(word)
    )
      // prettier-ignore
      return [{ words: [w, w], held: () => setsAbove(near, w.root, kin) }];
    return [];
  });
}

export const superlative: Check = ({ told, evidence, stock, tools }) => {
  if (told.question) return [];
  const near = evidence?.near ?? stock.page;
  return claimsIn(told, near, tools.kin)
    .filter((c) => !c.held(near.plain))
    .slice(0, 1)
    .map(({ words: [from, to] }) => ({
      kind: 'whole' as const,
      level: 'unsupported' as const,
      start: from.start,
      end: to.end,
      says: `The source does not say it is “the ${told.text.slice(from.start, to.end)}”.`,
    }));
};

/** "the only", "the first ever", "the largest" in a text that nothing was tagged of: where they stand. */
export function claimsAbove(text: string): { start: number; end: number }[] {
  const out: { start: number; end: number }[] = [];
  for (const m of text.matchAll(
    /\b(?:the|its|his|her|their|our)\s+((?:very first|first ever|only|sole|world's first|most|least)\s+\p{Ll}+|(?!(?:best|latest)\b)\p{Ll}{2,}est\b(?:\s+\p{Ll}+)?)/giu,
  ))
    if (!looksCompared(m[1]) && !looksCompared(m[1].split(/\s/)[0]))
      out.push({ start: m.index + m[0].length - m[1].length, end: m.index + m[0].length });
  return out;
}
