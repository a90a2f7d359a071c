/** All of them, or some: said of what the source counts otherwise, in the sentences around. */
import type { Kin } from '../../language/kin.ts';
import type { Check, RetoldFault } from './fault.ts';
import { alike, type Said, type Word } from './text.ts';

/** Set phrases that count nothing. */
const SET_PHRASE =
  /\b(?:at all|all right|after all|all the same|all but|all over|all round|all along|above all|first of all|all at once|every (?:now|so)|once and for all|all (?:that|this|it) (?:was|is|took|takes)|not (?:all|every\w*)|by all|for all|all [\w-]+ly|all (?:in|out|up|down|about|too))\b/gi;
const ALL =
  /\b(?:(?<!\b(?:they|we|you|it|these|those|that's|is|are|was|were) )all|every|whole|entire|entirely|everybody|everyone|completely|altogether)\b/i;
const WHOLE =
  /\b(?:(?:the )?whole of|all of (?:that|this|them|the|its|his|her|their)|the (?:whole|entire))\b/i;
const HELD_WHOLE =
  /\b(?:all|whole|wholly|entire\w*|any|both|everything|everyone|everybody|neither|none|no|nobody|nothing|never|always|throughout|full\w*|complete\w*|total\w*|altogether|rest|remaining|through|over|round|across)\b/i;
/** What may be told as all of it. */
const HELD_ALL =
  /\b(?:all|every\w*|each|whole|wholly|entire\w*|any\w*|both|neither|none|no|nobody|nothing|never|always|throughout|full\w*|complete\w*|total\w*|altogether|remaining|rest|most of|through|per|a (?:day|week|month|year|night)|[A-Z][a-z]+days|\d+ of (?:the|its|their))\b/i;
const SOME = /\b(?:some|several) of\b|(?<=(?:^|[:;.,]) ?)some(?= \p{L}+)/iu;
const HELD_SOME =
  /\b(?:some\w*|several|certain|few|many|most|part\w*|half|other\w*|may|can|often|usually|sometimes|one of|two of|a number|a lot|lots|including|such as)\b|\b(?:one|two|three|four|five|six|seven|eight|nine|ten|\d+) (?:of|out of) (?:the|its|their|these|those)\b/i;

const without = (said: Said) => said.plain.replace(SET_PHRASE, (m) => ' '.repeat(m.length));

/** "two of the eight legs", "certain nights": told as all of them. */
const PARTS = /^(?:certain|some|several|few|many|most|half)$/i;
const ALL_WORD = /^(?:all|every|each|whole|entire|both)$/i;
const COUNTS: ReadonlySet<string> = new Set(['DET', 'ADJ', 'NUM', 'ADP', 'PRON', 'ADV']);
const REACH = 4;
function partTold(told: Said, best: readonly Said[], kin: Kin | null): RetoldFault | null {
  /** Words that count a noun, from the nearest on. */
  const counting = (words: readonly Word[], i: number) =>
    words.slice(Math.max(0, i - REACH), i).filter((w) => COUNTS.has(w.pos) || PARTS.test(w.text));
  for (const [i, w] of told.words.entries()) {
    if (w.pos !== 'NOUN' || !w.root) continue;
    const all = counting(told.words, i).find((x) => ALL_WORD.test(x.text));
    if (!all) continue;
    for (const said of best) {
      const { words } = said;
      const there = words.flatMap((x, k) =>
        x.root && alike(x.root, w.root!, kin) ? [counting(words, k)] : [],
      );
      if (!there.length || there.some((c) => c.some((x) => ALL_WORD.test(x.text)))) continue;
      const some = there
        .flat()
        .find(
          (x) =>
            PARTS.test(x.text) ||
            (x.pos === 'NUM' && /^\s+of (?:the|its|their|these|those)\b/i.test(said.plain.slice(x.end))),
        );
      const number = there.flat().find((x) => x.pos === 'NUM');
      const says =
        some ??
        (number && !told.words.some((x) => x.text === number.text || x.pos === 'NUM') ? number : undefined);
      if (says)
        return {
          kind: 'whole',
          level: some ? 'wrong' : 'unsupported',
          start: all.start,
          end: w.end,
          says: `The source says “${says.text}” of them, not “${all.text}”.`,
        };
    }
  }
  return null;
}

export const quantity: Check = ({ told, evidence, tools }) => {
  if (!evidence || told.question) return [];
  const own = without(told);
  const [first] = evidence.best;
  const fault = (m: RegExpExecArray, says: string) => [
    {
      kind: 'whole' as const,
      level: 'unsupported' as const,
      start: m.index,
      end: m.index + m[0].length,
      says,
    },
  ];
  const part = partTold(told, evidence.best, tools.kin);
  if (part) return [part];
  const whole = WHOLE.exec(own);
  if (whole && !evidence.best.some((s) => HELD_WHOLE.test(s.plain)))
    return fault(whole, `The source does not say “${whole[0]}” here.`);
  const all = ALL.exec(own);
  // "not all of them" says less than the source, and not more.
  const denied = (m: RegExpExecArray) =>
    told.segments.some(
      (s) => s.denies && s.words[0].start <= m.index && s.words[s.words.length - 1].end > m.index,
    );
  if (all && !denied(all) && !HELD_ALL.test(evidence.near.plain))
    return fault(all, `The source does not say “${all[0]}” here.`);
  const some = SOME.exec(own);
  if (some && first && !evidence.best.some((s) => HELD_SOME.test(s.plain)))
    return fault(some, `The source does not say “${some[0]}” here.`);
  return [];
};
