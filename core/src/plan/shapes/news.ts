import { TODAY, place, type Shape } from './shape.ts';

const UNKNOWN =
  /\b(?:not (?:yet )?(?:known|clear|decided|said)|unknown|unclear|has not said|nobody (?:knows|has))\b/i;

/** What is new, what is known and by whom, what is unknown, background, next. */
export const news: Shape = {
  id: 'news',
  name: 'News recap',
  says: 'What is new, who says so, what nobody knows yet, how it came about, what comes next.',
  parts: [
    {
      id: 'new',
      name: 'What is new',
      role: 'hook',
      share: 0.15,
      lines: ['pull', 'ground'],
      wants: (p) => place(p.at, 0, 0.12),
    },
    {
      id: 'known',
      name: 'What is known',
      role: 'ground',
      share: 0.35,
      lines: ['ground'],
      wants: (p) => place(p.at, 0.08, 0.5),
    },
    {
      id: 'unknown',
      name: 'What is not known',
      role: 'strain',
      share: 0.15,
      lines: ['strain'],
      wants: (p) => (UNKNOWN.test(p.fact.text) ? 1 : 0.2),
    },
    {
      id: 'background',
      name: 'Background',
      role: 'turn',
      share: 0.2,
      lines: ['ground'],
      wants: (p) => place(p.at, 0.5, 0.9),
    },
    {
      id: 'next',
      name: 'What happens now',
      role: 'close',
      share: 0.15,
      lines: ['settle'],
      wants: (p) => (TODAY.test(p.fact.text) ? 0.8 : 0.3) * place(p.at, 0.7, 1),
    },
  ],
  suits: ({ source }) =>
    source.kind === 'news'
      ? { score: 0.85, reason: 'a report, told from its newest fact on' }
      : source.published && source.kind === 'interview'
        ? { score: 0.5, reason: 'an interview with news in it' }
        : {
            score: source.kind === 'abstract' ? 0.2 : 0,
            reason:
              source.kind === 'abstract' ? 'a study is news only with its date' : 'nothing in it is news',
          },
  order: 'source',
  asks: false,
  counts: false,
  weigh: (p) =>
    UNKNOWN.test(p.fact.text) || TODAY.test(p.fact.text)
      ? 5
      : p.fact.attribution || p.fact.quotes.length
        ? 3
        : 0.6,
};
