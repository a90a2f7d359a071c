import { at, isQuoted, replaced, type Rule } from '../rule.ts';

const PAIRS: readonly (readonly [RegExp, string])[] = [
  [/\b(do|does|did|is|are|was|were|has|have|had|would|could|should) not\b(?=\s+[a-z])/gi, '$1n’t'],
  [/\bcannot\b(?=\s+[a-z])/gi, 'can’t'],
  [/\bwill not\b(?=\s+[a-z])/gi, 'won’t'],
  [/\b(they|we|you) are\b(?=\s+[a-z])/gi, '$1’re'],
  [/\b(it|that|he|she) is\b(?=\s+[a-z])/gi, '$1’s'],
  [/\b(i|you|we|they) have\b(?=\s+(?:been|had|\w+ed|\w+en)\b)/gi, '$1’ve'],
];
const OPENED: readonly (readonly [RegExp, string])[] = [
  [/\b(do|does|did|is|are|was|were|has|have|had|would|could|should)n[’']t\b/gi, '$1 not'],
  [/\bcan[’']t\b/gi, 'cannot'],
  [/\bwon[’']t\b/gi, 'will not'],
  [/\b(they|we|you)[’']re\b/gi, '$1 are'],
];
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
    const pairs = share >= OFTEN ? PAIRS : OPENED;
    return pairs.flatMap(([pattern, by]) =>
      [...line.text.matchAll(pattern)].flatMap((m) => {
        const [start, end] = [m.index, m.index + m[0].length];
        if (isQuoted(line, start, end)) return [];
        const says = m[0].replace(
          pattern.flags.includes('g') ? new RegExp(pattern.source, 'i') : pattern,
          by,
        );
        // The look-ahead fails on the piece alone; build from the groups then.
        const made = says === m[0] ? by.replace('$1', m[1] ?? '') : says;
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
                  text: replaced(
                    line.text,
                    start,
                    end,
                    start === 0 ? made.charAt(0).toUpperCase() + made.slice(1) : made,
                  ),
                },
              ],
            },
          ),
        ];
      }),
    );
  },
};
