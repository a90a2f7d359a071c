import { place, type Shape } from './shape.ts';

const is = (label: string, ...parts: string[]) => (parts.some((p) => label.startsWith(p)) ? 1 : 0);

export const study: Shape = {
  id: 'study',
  name: 'Study digest',
  says: 'The question, who was studied and how, what was found, what it does not show.',
  parts: [
    {
      id: 'question',
      name: 'The question',
      role: 'hook',
      share: 0.2,
      lines: ['pull', 'ground'],
      wants: (p) => is(p.label, 'background', 'aim') || place(p.at, 0, 0.1) * 0.3,
    },
    {
      id: 'how',
      name: 'How it was looked into',
      role: 'workings',
      share: 0.25,
      lines: ['lead', 'ground'],
      wants: (p) => is(p.label, 'method'),
    },
    {
      id: 'found',
      name: 'What was found',
      role: 'settle',
      share: 0.3,
      lines: ['lead', 'settle'],
      wants: (p) => is(p.label, 'results'),
    },
    {
      id: 'limits',
      name: 'What it does not show',
      role: 'strain',
      share: 0.12,
      lines: ['lead', 'strain'],
      wants: (p) => is(p.label, 'limits'),
    },
    {
      id: 'means',
      name: 'What it means',
      role: 'close',
      share: 0.13,
      lines: ['settle'],
      wants: (p) => is(p.label, 'conclusion'),
    },
  ],
  suits: ({ source }) =>
    source.kind === 'abstract'
      ? { score: 0.92, reason: 'a study, told by its parts' }
      : { score: 0, reason: 'it is no study' },
  order: 'parts',
  asks: true,
  counts: false,
  weigh: (p) => (is(p.label, 'results') ? 1.15 : 1),
};
