import { numbersIn } from '../../facts/extract.ts';
import { at, isQuoted, type Rule } from '../rule.ts';

/** Figures that an ear can't keep: five significant digits or more, or two places behind the point (common practice, no published source). */
const MOST_DIGITS = 4;

export const hardNumber: Rule = {
  id: 'hard-number',
  area: 'speech',
  name: 'Numbers hard to hear',
  cost: { each: 0.8, most: 6 },
  line: (line) =>
    numbersIn(line.text).flatMap((n) => {
      if (isQuoted(line, n.start, n.end)) return [];
      const digits = n.text.replace(/[^\d.,]/g, '');
      const significant = digits.replace(/[.,]/g, '').replace(/^0+|0+$/g, '').length;
      const decimals = /\.(\d+)/.exec(digits)?.[1].length ?? 0;
      if (significant <= MOST_DIGITS && decimals < 2) return [];
      return [
        at(
          line,
          n.start,
          n.end,
          `“${n.text}” has ${significant} figures to keep in mind; an ear keeps three or four.`,
        ),
      ];
    }),
};
