import { openingCheck } from '../../plan/opening.ts';
import type { Rule } from '../rule.ts';

/** Within 15 s what this is and what is at stake, by 30 s what the listener will get (common practice, no published source). */
export const latePromise: Rule = {
  id: 'late-promise',
  area: 'hold',
  name: 'Promise and stake in the opening',
  cost: { each: 3, most: 9 },
  script: ({ title, lines, pays, ms }) => {
    const first = lines[0];
    if (!first || ms < 20_000 || !title.trim()) return [];
    const { whatMs, stakeMs, getMs } = openingCheck(title, lines, pays ?? undefined);
    return [
      ...(whatMs === null
        ? [
            {
              line: first.id,
              reason:
                'After 15 s nothing of the title has been heard; who clicked it can’t tell that this is it.',
            },
          ]
        : []),
      ...(stakeMs === null
        ? [{ line: first.id, reason: 'After 15 s nothing is at stake: no question, no loss, no “but”.' }]
        : []),
      ...(getMs === null && ms > 40_000
        ? [{ line: first.id, reason: 'After 30 s a listener doesn’t know yet what they will get.' }]
        : []),
    ];
  },
};
