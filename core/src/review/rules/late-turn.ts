import type { Rule } from '../rule.ts';

const TURNS =
  /^(?:but|yet|then|until|instead|except|only|however|suddenly|and then|not)\b|\b(?:turned out|until|instead of|for the first time|never again|collapsed?|failed|broke|stopped|vanished|refused|wrong)\b|\?["”]?$/i;
/** The first thing that turns comes within this share of the whole, and within this time (common practice, no published source). */
const WITHIN_SHARE = 0.3;
const WITHIN_MS = 60_000;

export const lateTurn: Rule = {
  id: 'late-turn',
  area: 'hold',
  name: 'Too long before the first turn',
  cost: { each: 3, most: 3 },
  script: ({ lines, sections, ms, style }) => {
    if (ms < 45_000) return [];
    const bySection =
      sections.find((s, i) => i > 0 && (s.role === 'turn' || s.role === 'strain'))?.startMs ?? Infinity;
    const byWords = lines.find((l, i) => i > 0 && TURNS.test(l.text))?.startMs ?? Infinity;
    const first = Math.min(bySection, byWords);
    const limit = Math.max(15_000, Math.min(WITHIN_MS, ms * (style?.limits.firstTurn ?? WITHIN_SHARE)));
    if (first <= limit) return [];
    const place = lines.find((l) => l.startMs >= limit);
    return [
      {
        line: place?.id ?? '',
        reason:
          first === Infinity
            ? 'Nothing turns in the whole script: no “but”, no question, nothing that goes wrong.'
            : `The first turn comes after ${Math.round(first / 1000)} s; until then everything goes as expected.`,
      },
    ];
  },
};
