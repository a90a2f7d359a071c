import { signs, type Shape } from './shape.ts';

const IF = /\b(?:if|would|could|may|might|will|unless|suppose|should)\b/i;

export const whatif: Shape = {
  id: 'whatif',
  name: 'What-if chain',
  says: 'One supposition, and what follows from it, link by link.',
  parts: [
    {
      id: 'now',
      name: 'How things stand',
      role: 'hook',
      share: 0.2,
      lines: ['pull', 'ground'],
      wants: (p) => (p.fact.modality === 'plain' && !IF.test(p.fact.text) ? 0.6 : 0.2),
    },
    {
      id: 'if',
      name: 'The supposition',
      role: 'turn',
      share: 0.2,
      lines: ['strain'],
      wants: (p) => (/\bif\b/i.test(p.fact.text) ? 1 : 0.3),
    },
    {
      id: 'then',
      name: 'What would follow',
      role: 'strain',
      share: 0.4,
      lines: ['ground', 'strain'],
      wants: (p) => (IF.test(p.fact.text) ? 0.9 : 0.3),
    },
    {
      id: 'sure',
      name: 'How sure that is',
      role: 'close',
      share: 0.2,
      lines: ['settle'],
      wants: (p) => (p.fact.modality === 'plain' ? 0.2 : 0.95),
    },
  ],
  suits: ({ facts, source }) => {
    const n = signs.hypothetical(facts);
    if (!facts.length) return { score: 0, reason: 'needs a forecast' };
    if (source.kind === 'howto' || source.kind === 'forum')
      return { score: 0, reason: 'it holds no forecast' };
    const ifs = facts.filter((f) => /\b(?:if|unless|suppose)\b/i.test(f.text)).length;
    if (n >= 5 && ifs < 2) return { score: 0, reason: 'nothing in it hangs on an “if”' };
    return n >= 5
      ? { score: Math.min(0.6, 0.2 + 0.04 * n), reason: `${n} facts say what may or would be` }
      : {
          score: 0,
          reason: `only ${n === 1 ? 'one fact says' : `${n} facts say`} what would follow; it needs five`,
        };
  },
  order: 'parts',
  asks: false,
  counts: false,
  weigh: (p) => (IF.test(p.fact.text) ? 8 : p.fact.modality !== 'plain' ? 3 : 0.35),
};
