import { FULL_FORMS, SHORT_FORMS, formFor } from '../../language/contractions.ts';
import { at, isQuoted, replaced, type Rule } from '../rule.ts';

/** Shares of contracted forms that make a habit. */
const OFTEN = 0.7;
const SELDOM = 0.1;

/** Against the channel's habit only. */
export const contraction: Rule = {
  id: 'contractions',
  area: 'language',
  name: 'Contractions unlike this channel’s',
  cost: { each: 0.3, most: 3 },
  line: (line, _tools, _sources, style) => {
    const share = style?.measures.find((m) => m.id === 'contractions')?.middle;
    if (share === undefined || share === null || (share < OFTEN && share > SELDOM)) return [];
    const pairs = share >= OFTEN ? SHORT_FORMS : FULL_FORMS;
    return pairs.flatMap(([pattern, by]) =>
      [...line.text.matchAll(pattern)].flatMap((m) => {
        const [start, end] = [m.index, m.index + m[0].length];
        if (isQuoted(line, start, end)) return [];
        const made = formFor(m, by);
        return [
          at(
            line,
            start,
            end,
            share >= OFTEN ? 'This channel says it short.' : 'This channel says it in full.',
            {
              says: `Say “${made}”`,
              safe: !line.locked,
              edits: [
                {
                  line: line.id,
                  text: replaced(line.text, start, end, made),
                },
              ],
            },
          ),
        ];
      }),
    );
  },
};
