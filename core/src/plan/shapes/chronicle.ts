import { byKind, type Shape } from './shape.ts';

export const chronicle: Shape = {
  id: 'chronicle',
  name: 'Chronicle',
  says: 'One thing after another, in the order the source tells it.',
  suits: (source) => byKind('chronicle', source),
  asks: false,
  counts: false,
};
