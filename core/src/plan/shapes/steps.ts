import { byKind, type Shape } from './shape.ts';

export const steps: Shape = {
  id: 'steps',
  name: 'Steps',
  says: 'What you need, then every step in order.',
  suits: (source) => {
    const count = source.blocks.filter((b) => b.step).length;
    return count >= 2
      ? { score: 0.95, reason: `it has ${count} numbered steps` }
      : byKind('steps', { ...source, kind: 'news' });
  },
  asks: false,
  counts: true,
};
