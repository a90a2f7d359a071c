import { byKind, type Shape } from './shape.ts';

export const question: Shape = {
  id: 'question',
  name: 'Question and answer',
  says: 'Each part opens with what a listener would ask, then answers it.',
  suits: (source) => byKind('question', source),
  asks: true,
  counts: false,
};
