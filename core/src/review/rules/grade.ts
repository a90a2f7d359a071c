import type { Rule } from '../rule.ts';

/** Reading grade that narration stays under (about 7 is aimed at; common practice, no published source). */
const HIGHEST_GRADE = 10;

export const grade: Rule = {
  id: 'hard-to-follow',
  area: 'language',
  name: 'Reading grade',
  cost: { each: 6, most: 6 },
  script: ({ grade: g, style }) => {
    const limit = style ? Math.max(7, style.limits.grade) : HIGHEST_GRADE;
    return g !== null && g > limit
      ? [
          {
            line: '',
            reason: `Reading grade ${g}, ${style ? `this channel speaks at up to ${limit.toFixed(1)}` : 'about 7 is the aim'}; a listener can’t look back.`,
          },
        ]
      : [];
  },
};
