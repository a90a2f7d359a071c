import { clockText } from '../../timing/clockText.ts';
import type { Rule } from '../rule.ts';

/** A place kept for words to come: nothing is told there yet, and every file of a handoff is silent. */
export const openLine: Rule = {
  id: 'open-line',
  area: 'hold',
  name: 'Open lines: still to be written',
  cost: { each: 4, most: 20 },
  script: ({ sections }) =>
    sections
      .flatMap((s) => s.open)
      .map(({ startMs, ms, says }) => ({
        line: '',
        reason: `Open at ${clockText(startMs, false)}, ${(ms / 1000).toFixed(1)} s: it must say “${says}”. Write it on the Page, or order it.`,
      })),
};
