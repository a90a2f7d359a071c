import { CAUSE, HOW, TODAY, place, type Shape } from './shape.ts';

export const question: Shape = {
  id: 'question',
  name: 'Question and answer',
  says: 'Each part opens with what a listener would ask, then answers it.',
  parts: [
    {
      id: 'asked',
      name: 'What it is',
      role: 'hook',
      share: 0.15,
      lines: ['pull', 'ground'],
      wants: (p) => (p.fact.type === 'definition' ? 0.9 : 0.4 * place(p.at, 0, 0.12)),
    },
    {
      id: 'where',
      name: 'Where it comes from',
      role: 'ground',
      share: 0.25,
      lines: ['lead', 'ground'],
      wants: (p) => (p.fact.dates.length && !TODAY.test(p.fact.text) ? 0.8 : 0.3 * place(p.at, 0.1, 0.4)),
    },
    {
      id: 'how',
      name: 'How it works',
      role: 'workings',
      share: 0.25,
      lines: ['lead', 'ground'],
      wants: (p) => (HOW.test(p.fact.text) ? 0.75 : 0.3 * place(p.at, 0.25, 0.7)),
    },
    {
      id: 'why',
      name: 'Why it is so',
      role: 'turn',
      share: 0.2,
      lines: ['lead', 'settle'],
      wants: (p) => (CAUSE.test(p.fact.text) ? 1 : 0.2),
    },
    {
      id: 'now',
      name: 'And now',
      role: 'close',
      share: 0.15,
      lines: ['settle'],
      wants: (p) => (TODAY.test(p.fact.text) ? 0.85 : 0.3 * place(p.at, 0.75, 1)),
    },
  ],
  suits: ({ source }) => {
    const [score, reason] = {
      news: [0.5, 'asks what a listener would ask'],
      encyclopedia: [0.75, 'its headings are answers to plain questions'],
      abstract: [0.7, 'a study is a question and its answer'],
      forum: [0, 'a story loses its pull when it is questioned'],
      howto: [0, 'a guide answers one question only'],
      interview: [0.65, 'it was questions and answers already'],
    }[source.kind] as [number, string];
    return { score, reason };
  },
  order: 'parts',
  asks: true,
  counts: false,
  weigh: (p) => (CAUSE.test(p.fact.text) || HOW.test(p.fact.text) || p.fact.type === 'definition' ? 5 : 0.45),
};
