import { clockText } from '../../timing/clockText.ts';
import { WINDOW_MS } from '../../measure/novelty.ts';
import type { Rule } from '../rule.ts';

/** Never on a story told in the first person: its lowest points are its reveals. */
export const slack: Rule = {
  id: 'slack',
  area: 'hold',
  name: 'Nothing new',
  cost: { each: 2, most: 8 },
  script: ({ novelty, lines, sources }) => {
    if (sources?.list.some((s) => s.kind === 'forum')) return [];
    return novelty
      .filter((w) => w.slack)
      .flatMap((w) => {
        const line = lines.find((l) => l.startMs + l.ms > w.startMs + WINDOW_MS / 2 && !l.fixed);
        return line
          ? [
              {
                line: line.id,
                reason: `From ${clockText(w.startMs)} on, ten seconds bring nothing that was not said before.`,
              },
            ]
          : [];
      });
  },
};
