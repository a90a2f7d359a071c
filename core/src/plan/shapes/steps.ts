import { signs, type Shape } from './shape.ts';

export const steps: Shape = {
  id: 'steps',
  name: 'Steps',
  says: 'What you need, then every step in order, each warning before its step.',
  parts: [
    {
      id: 'task',
      name: 'The task',
      role: 'hook',
      share: 0.12,
      lines: ['pull', 'ground'],
      wants: (p) => (p.fact.step ? 0 : 1),
    },
    {
      id: 'steps',
      name: 'The steps',
      role: 'workings',
      share: 0.78,
      lines: ['lead', 'ground'],
      wants: (p) => (p.fact.step ? 1 : 0),
    },
    {
      id: 'after',
      name: 'Afterwards',
      role: 'close',
      share: 0.1,
      lines: ['settle'],
      wants: (p) => (!p.fact.step && p.at > 0.7 ? 1 : 0),
    },
  ],
  suits: ({ source }) => {
    const count = signs.steps(source);
    return count >= 2
      ? { score: 0.95, reason: `it has ${count} numbered steps` }
      : { score: 0, reason: 'it has no numbered steps' };
  },
  order: 'source',
  asks: false,
  counts: true,
  weigh: (p) => (p.fact.step ? 1.4 : 1),
};
