import { SAID_BY_I, STORY_BY_I, place, signs, type Shape } from './shape.ts';

export const confession: Shape = {
  id: 'confession',
  name: 'Confession',
  says: 'One person’s own telling: what they did, what they found out, what it is to them now.',
  parts: [
    {
      id: 'owning',
      name: 'Opening',
      role: 'hook',
      share: 0.12,
      lines: ['pull'],
      wants: (p) => place(p.at, 0, 0.1),
    },
    {
      id: 'stood',
      name: 'How things stood',
      role: 'ground',
      share: 0.25,
      lines: ['ground'],
      wants: (p) => place(p.at, 0.05, 0.35),
    },
    {
      id: 'did',
      name: 'What I did',
      role: 'strain',
      share: 0.25,
      lines: ['strain'],
      wants: (p) => place(p.at, 0.3, 0.6),
    },
    {
      id: 'found',
      name: 'What I found out',
      role: 'turn',
      share: 0.25,
      lines: ['strain', 'settle'],
      wants: (p) => place(p.at, 0.55, 0.9),
    },
    {
      id: 'now',
      name: 'What it is now',
      role: 'close',
      share: 0.13,
      lines: ['settle'],
      wants: (p) => place(p.at, 0.88, 1),
    },
  ],
  suits: ({ source, facts }) => {
    const first = signs.firstPerson(facts);
    if (first < (source.kind === 'forum' ? STORY_BY_I : SAID_BY_I))
      return { score: 0, reason: 'nobody tells it of themselves' };
    const run = signs.perfectRun(facts);
    return run >= 3
      ? { score: 0.92, reason: 'told by an “I”, with a look back that explains it' }
      : { score: 0.75, reason: 'told by an “I”' };
  },
  order: 'source',
  asks: false,
  counts: false,
  weigh: () => 1,
};
