import { overMs, toleranceMs } from '../../script/file.ts';
import { clockText } from '../../timing/clockText.ts';
import type { Rule } from '../rule.ts';

export const overLength: Rule = {
  id: 'over-length',
  area: 'hold',
  name: 'Over or under its length',
  cost: { each: 8, most: 8 },
  script: ({ target, ms }) => {
    if (!target) return [];
    const over = overMs(target, ms);
    return Math.abs(over) > toleranceMs(target.seconds)
      ? [
          {
            line: '',
            reason: `${clockText(Math.abs(over))} ${over > 0 ? 'over' : 'under'} ${clockText(target.seconds * 1000, false)}.`,
          },
        ]
      : [];
  },
};
