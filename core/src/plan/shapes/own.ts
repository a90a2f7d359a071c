import type { Part, Shape } from './shape.ts';
import { place } from './shape.ts';

export interface OwnPart {
  name: string;
  role: Part['role'];
  share: number;
}

/** A shape of the writer's own parts, in order; shares are evened out to 1. Facts go to parts by their place in the reading. */
export function ownShape(parts: readonly OwnPart[]): Shape {
  const total = parts.reduce((n, p) => n + Math.max(0, p.share), 0) || 1;
  let at = 0;
  return {
    ...own,
    parts: parts.map((p, i): Part => {
      const from = at;
      at += Math.max(0, p.share) / total;
      const to = at;
      return {
        id: `own${i + 1}`,
        name: p.name,
        role: p.role,
        share: to - from,
        lines: ['ground'],
        wants: (x) => place(x.at, from, to),
      };
    }),
  };
}

export const own: Shape = {
  id: 'own',
  name: 'Your own',
  says: 'Parts you name yourself, each with its share of the time.',
  parts: [
    {
      id: 'own1',
      name: 'Opening',
      role: 'hook',
      share: 0.2,
      lines: ['pull'],
      wants: (p) => place(p.at, 0, 0.2),
    },
    {
      id: 'own2',
      name: 'Middle',
      role: 'ground',
      share: 0.6,
      lines: ['ground'],
      wants: (p) => place(p.at, 0.2, 0.8),
    },
    {
      id: 'own3',
      name: 'End',
      role: 'close',
      share: 0.2,
      lines: ['settle'],
      wants: (p) => place(p.at, 0.8, 1),
    },
  ],
  suits: () => ({ score: 0.1, reason: 'when none of the others runs as you want' }),
  order: 'source',
  asks: false,
  counts: false,
  weigh: () => 1,
};
