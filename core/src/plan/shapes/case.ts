import { CAUSE, TROUBLE, place, signs, type Shape } from './shape.ts';

const LOOKED = /\b(?:found|tested|measured|examined|asked|report|looked|noticed)\b/i;

/** Something went wrong; the reason is held back until it has been looked for. */
export const caseShape: Shape = {
  id: 'case',
  name: 'Case',
  says: 'Something went wrong. What was tried, what was found, and why it was so.',
  parts: [
    {
      id: 'trouble',
      name: 'What went wrong',
      role: 'hook',
      share: 0.15,
      lines: ['pull', 'strain'],
      wants: (p) => (TROUBLE.test(p.fact.text) ? 0.8 : 0.3 * place(p.at, 0, 0.3)),
    },
    {
      id: 'ground',
      name: 'How things stood',
      role: 'ground',
      share: 0.2,
      lines: ['ground'],
      wants: (p) =>
        (p.fact.type === 'definition' || p.fact.type === 'detail' ? 0.6 : 0.3) * place(p.at, 0, 0.45),
    },
    {
      id: 'search',
      name: 'What was looked at',
      role: 'workings',
      share: 0.3,
      lines: ['ground', 'strain'],
      wants: (p) => (LOOKED.test(p.fact.text) ? 0.9 : 0.3),
    },
    {
      id: 'cause',
      name: 'Why it was so',
      role: 'settle',
      share: 0.2,
      lines: ['settle'],
      wants: (p) => (CAUSE.test(p.fact.text) ? 1 : 0.2),
    },
    {
      id: 'after',
      name: 'What came of it',
      role: 'close',
      share: 0.15,
      lines: ['settle'],
      wants: (p) => place(p.at, 0.8, 1),
    },
  ],
  suits: ({ source, facts }) => {
    const causes = signs.causes(facts);
    const trouble = facts.filter((f) => TROUBLE.test(f.text)).length;
    if (source.kind === 'forum')
      return { score: 0, reason: 'a story keeps its own order, and its reason for its end' };
    if (source.kind === 'howto') return { score: 0, reason: 'nothing went wrong that could be looked into' };
    if (!facts.length) return { score: 0.3, reason: 'needs something that went wrong, and its reason' };
    if (!trouble || !causes)
      return { score: 0, reason: trouble ? 'the source gives no reason' : 'nothing goes wrong in it' };
    return {
      score: Math.min(source.kind === 'news' ? 0.84 : 0.55, 0.35 + 0.05 * trouble + 0.05 * causes),
      reason: `${trouble} facts of trouble, ${causes} that give a reason`,
    };
  },
  order: 'parts',
  asks: false,
  counts: false,
  weigh: (p) =>
    CAUSE.test(p.fact.text) || LOOKED.test(p.fact.text) ? 8 : TROUBLE.test(p.fact.text) ? 5 : 0.35,
};
