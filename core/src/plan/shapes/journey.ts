import { place, signs, type Shape } from './shape.ts';

/** Verbs of inherently directed motion and of vehicles (Levin 1993, classes 51.1 and 51.4; from memory), said of somebody. */
const MOVES =
  /\b(?:I|we|he|she|they|who|and|\p{Lu}[\p{L}’'-]+) (?:then |later |first |at last )?(?:arrived|ascended|came|climbed|crossed|cycled|departed|descended|drove|entered|fled|flew|followed|left|marched|moved|passed|reached|returned|rode|rowed|sailed|set (?:off|out)|travelled|traveled|walked|went)\b/u;
const [LEAST_PLACES, LEAST_MOVES] = [4, 4];

export const journey: Shape = {
  id: 'journey',
  name: 'Journey',
  says: 'From place to place, with what waits at each.',
  parts: [
    {
      id: 'setout',
      name: 'Setting out',
      role: 'hook',
      share: 0.15,
      lines: ['pull', 'ground'],
      wants: (p) => place(p.at, 0, 0.15),
    },
    {
      id: 'way',
      name: 'On the way',
      role: 'ground',
      share: 0.35,
      lines: ['ground'],
      wants: (p) => (p.fact.names.some((n) => n.type === 'place') ? 0.9 : 0.4) * place(p.at, 0.1, 0.5),
    },
    {
      id: 'hard',
      name: 'The hard part',
      role: 'strain',
      share: 0.25,
      lines: ['strain'],
      wants: (p) => place(p.at, 0.45, 0.75),
    },
    {
      id: 'there',
      name: 'Where it leads',
      role: 'settle',
      share: 0.15,
      lines: ['settle'],
      wants: (p) => place(p.at, 0.7, 0.9),
    },
    {
      id: 'back',
      name: 'Looking back',
      role: 'close',
      share: 0.1,
      lines: ['settle'],
      wants: (p) => place(p.at, 0.9, 1),
    },
  ],
  suits: ({ source, facts }) => {
    const places = signs.places(facts);
    if (source.kind === 'howto' || source.kind === 'abstract')
      return { score: 0, reason: 'nobody travels in it' };
    const moves = facts.filter((f) => MOVES.test(f.text) && !f.quotes.length).length;
    if (places >= LEAST_PLACES && moves < LEAST_MOVES)
      return { score: 0, reason: `it names ${places} places, but hardly anyone goes from one to another` };
    return places >= LEAST_PLACES
      ? { score: Math.min(0.7, 0.3 + 0.05 * places), reason: `${places} places, one after another` }
      : {
          score: 0,
          reason: places
            ? `it names only ${places} ${places === 1 ? 'place' : 'places'}`
            : 'it names no place',
        };
  },
  order: 'places',
  asks: false,
  counts: false,
  weigh: (p) => (p.fact.names.some((n) => n.type === 'place') ? 6.5 : 0.35),
};
