import { signs, type Shape } from './shape.ts';

export const countdown: Shape = {
  id: 'countdown',
  name: 'Countdown',
  says: 'A list from the last to the first, the best kept for the end.',
  parts: [
    {
      id: 'opening',
      name: 'What is counted',
      role: 'hook',
      share: 0.12,
      lines: ['pull'],
      wants: (p) => (p.at < 0.08 ? 1 : 0),
    },
    {
      id: 'items',
      name: 'The count',
      role: 'workings',
      share: 0.76,
      lines: ['lead', 'ground'],
      wants: () => 0.5,
    },
    {
      id: 'first',
      name: 'Number one',
      role: 'close',
      share: 0.12,
      lines: ['settle'],
      wants: (p) => (p.at > 0.9 ? 1 : 0),
    },
  ],
  suits: ({ source, sources }) => {
    const items = signs.list(source);
    if (items >= 3) return { score: 0.8, reason: `a list of ${items}` };
    if (sources >= 3) return { score: 0.55, reason: `${sources} sources, one for each number` };
    return { score: 0, reason: 'there is no list of three or more in it' };
  },
  order: 'down',
  asks: false,
  counts: false,
  weigh: () => 1,
};
