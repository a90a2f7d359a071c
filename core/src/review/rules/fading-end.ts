import { at, type Rule } from '../rule.ts';

const FADES =
  /^(?:(?:and )?that[’']s (?:it|all)|(?:so )?(?:there you have it|in conclusion|to sum up|to conclude|in summary|all in all|overall)|thank(?:s| you) for (?:watching|listening)|i hope (?:you|this)|see you (?:next|in)|until next time|only time will tell|the rest is history|and so,? the story|stay tuned|if you (?:liked|enjoyed))\b/i;
/** An ending that points at something the listener has not got. */
const POINTS = /^(?:this|that|it|they|these|those|he|she)\b/i;

export const fadingEnd: Rule = {
  id: 'fading-end',
  area: 'hold',
  name: 'An ending that fades',
  cost: { each: 3, most: 3 },
  script: ({ lines, novelty, ms }) => {
    const spoken = lines.filter((l) => !l.fixed);
    const last = spoken[spoken.length - 1];
    if (!last || spoken.length < 4) return [];
    if (FADES.test(last.text))
      return [
        {
          ...at(
            last,
            0,
            last.text.length,
            'The last line says that it is over. End on the fact that pays the promise.',
            { says: 'Leave it out', safe: false, edits: [{ line: last.id, remove: true }] },
          ),
          line: last.id,
        },
      ];
    const end = novelty[novelty.length - 1];
    const before = novelty[novelty.length - 2];
    if (ms > 60_000 && end && before && end.share < 0.12 && before.share < 0.2 && POINTS.test(last.text))
      return [{ line: last.id, reason: 'The last twenty seconds bring almost nothing new.' }];
    return [];
  },
};
