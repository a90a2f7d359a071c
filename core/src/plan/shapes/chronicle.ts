import { STORY_BY_I, TODAY, place, signs, type Shape } from './shape.ts';

export const chronicle: Shape = {
  id: 'chronicle',
  name: 'Chronicle',
  says: 'One thing after another, in the order it came to be.',
  parts: [
    {
      id: 'episode',
      name: 'Opening',
      role: 'hook',
      share: 0.1,
      lines: ['pull'],
      wants: (p) => place(p.at, 0, 0.08),
    },
    {
      id: 'before',
      name: 'How things stood',
      role: 'ground',
      share: 0.2,
      lines: ['ground'],
      wants: (p) => place(p.at, 0.05, 0.3),
    },
    {
      id: 'beginning',
      name: 'How it began',
      role: 'turn',
      share: 0.2,
      lines: ['ground', 'strain'],
      wants: (p) => place(p.at, 0.2, 0.5),
    },
    {
      id: 'course',
      name: 'What came of it',
      role: 'workings',
      share: 0.2,
      lines: ['ground'],
      wants: (p) => place(p.at, 0.4, 0.7),
    },
    {
      id: 'trial',
      name: 'The hard time',
      role: 'strain',
      share: 0.2,
      lines: ['strain', 'settle'],
      wants: (p) => place(p.at, 0.6, 0.9),
    },
    {
      id: 'today',
      name: 'Today',
      role: 'close',
      share: 0.1,
      lines: ['settle'],
      wants: (p) => (TODAY.test(p.fact.text) ? 1 : 0.4) * place(p.at, 0.85, 1),
    },
  ],
  suits: ({ source, facts }) => {
    const up = signs.rising(facts);
    if (source.kind === 'howto') return { score: 0, reason: 'a guide’s steps are no events' };
    if (source.kind === 'encyclopedia')
      return {
        score: up >= 5 ? 0.8 : 0.6,
        reason: up >= 5 ? `${up} dates in rising order` : 'told in the order it came to be',
      };
    if (source.kind === 'forum' && signs.firstPerson(facts) >= STORY_BY_I)
      return { score: 0, reason: 'an “I” tells it: the confession is told in that order' };
    if (source.kind === 'forum') return { score: 0.8, reason: 'one person’s story in the order it happened' };
    if (source.kind === 'news') return { score: 0.6, reason: 'from the earliest day that it names on' };
    return source.kind === 'abstract'
      ? { score: 0.3, reason: 'a study has parts rather than a course of events' }
      : { score: 0.6, reason: 'told in the order it was said' };
  },
  order: 'time',
  asks: false,
  counts: false,
  weigh: (p) => (p.fact.dates.length || p.fact.times.length ? 5 : p.fact.type === 'event' ? 1.8 : 0.35),
};
