/**
 * What kind of piece a script is: which facts it tells rather than others, and in which shapes. Common practice, no
 * published source.
 */
import { castOf } from '../facts/cast.ts';
import type { Fact } from '../facts/facts.ts';
import { CAUSE, HOW, TROUBLE } from './material.ts';
import type { RankedShape } from './shapes.ts';
import type { ShapeId } from './shapes/shape.ts';

export const GENRES = ['explainer', 'story', 'opinion', 'portrait', 'how-to'] as const;
export type Genre = (typeof GENRES)[number];

/** Whether a fact is what a genre tells; `whose` is who a portrait or an opinion is of, in any of their names. */
type Tells = (fact: Fact, whose: readonly string[]) => boolean;

const names = (fact: Fact, whose: readonly string[]) => whose.some((w) => fact.text.includes(w));
const isAct = (f: Fact) =>
  f.type === 'event' && (f.names.some((n) => n.type === 'person') || f.dates.length + f.times.length > 0);

const GENRE_RULES: Readonly<
  Record<Genre, { says: string; more: Tells; less: Tells; shapes: readonly ShapeId[] }>
> = {
  explainer: {
    says: 'how it works and why it is so; fewer quotations',
    more: (f) => ['cause', 'definition', 'comparison', 'finding'].includes(f.type) || CAUSE.test(f.text) || HOW.test(f.text),
    less: (f) => f.quotes.length > 0 || f.type === 'opinion',
    shapes: ['question', 'study'],
  },
  story: {
    says: 'who did what, when, and what went wrong; fewer figures and definitions',
    more: (f) => isAct(f) || TROUBLE.test(f.text),
    less: (f) => f.type === 'definition' || f.type === 'comparison' || (f.type === 'figure' && !isAct(f)),
    shapes: ['case', 'confession', 'journey', 'chronicle'],
  },
  opinion: {
    says: 'what is held and by whom, and what speaks for it',
    more: (f, whose) =>
      whose.length ? names(f, whose) : f.type === 'opinion' || f.quotes.length > 0 || f.attribution !== undefined,
    less: (f) => f.type === 'definition',
    shapes: [],
  },
  portrait: {
    says: 'one person: what they did and said; little of the rest',
    more: (f, whose) => names(f, whose),
    less: (f, whose) => !names(f, whose) && f.names.some((n) => n.type === 'person'),
    shapes: ['chronicle', 'confession', 'journey'],
  },
  'how-to': {
    says: 'steps, what they need, what goes wrong',
    more: (f) => f.type === 'step' || f.type === 'warning' || HOW.test(f.text),
    less: (f) => f.quotes.length > 0,
    shapes: ['steps'],
  },
}; // prettier-ignore

/** Whether a genre is of somebody: theirs. */
export const hasSubject = (genre: Genre | undefined): boolean => genre === 'portrait' || genre === 'opinion';

const [MORE, LESS] = [3, 0.35];

export const genreSays = (genre: Genre): string => GENRE_RULES[genre].says;

/** Who a portrait or an opinion is of, as the facts name them: whom the writer says, else, for a portrait, who is named most. */
export function whoseNames(genre: Genre | undefined, whose: string, facts: readonly Fact[]): string[] {
  if (!hasSubject(genre)) return [];
  const people = castOf(facts).filter((c) => c.type === 'person');
  const asked = whose.trim().toLowerCase();
  const member = asked
    ? people.find((c) => [c.name, ...c.also].some((n) => n.toLowerCase().includes(asked) || asked.includes(n.toLowerCase())))
    : genre === 'portrait'
      ? people[0]
      : undefined;
  if (!member) return asked ? [whose.trim()] : [];
  return [...new Set([member.name, ...member.also, member.name.split(' ').at(-1)!])];
} // prettier-ignore

/** How much more a fact is worth in a genre. */
export function genreWorth(genre: Genre | undefined, fact: Fact, whose: readonly string[]): number {
  if (!genre) return 1;
  const { more, less } = GENRE_RULES[genre];
  return more(fact, whose) ? MORE : less(fact, whose) ? LESS : 1;
}

/** The shape a genre is told in: the best of its own that the sources can be told in, else the best of all. */
export function shapeFor(genre: Genre | undefined, ranked: readonly RankedShape[]): ShapeId {
  const own = genre ? GENRE_RULES[genre].shapes : [];
  return (ranked.find((s) => s.score > 0 && own.includes(s.id)) ?? ranked[0]).id;
}
