/** How facts are named on the screen: "A 6" stands in passage 6 of source A, where Sources shows it; "A yours" is one of the writer's own. An order numbers facts by itself. */
import { createContext, useContext } from 'react';
import { placeOf, refsOf } from '@ursprung/core/desk';
import type { Fact } from '@ursprung/core/facts';

export type FactName = (ref: { source: string; fact?: string }) => string;

export function factNamesOf(sources: readonly { letter: string; facts: readonly Fact[] }[]): FactName {
  const places = new Map(
    sources.flatMap((s) => s.facts.map((f) => [`${s.letter}:${f.id}`, placeOf(f)] as const)),
  );
  return ({ source, fact }) => {
    const place = places.get(`${source}:${fact ?? ''}`);
    return place ? `${source} ${place}` : source;
  };
}

/** As an order numbers them: "A23" is the 23rd fact of source A. */
export function orderNamesOf(sources: readonly { letter: string; facts: readonly Fact[] }[]): FactName {
  const refs = refsOf(sources);
  return ({ source, fact }) => refs.get(`${source}:${fact ?? ''}`) ?? source;
}

/** Several, each place once. */
export const namesOf = (name: FactName, refs: readonly { source: string; fact?: string }[]): string[] => [
  ...new Set(refs.map(name)),
];

/** The names of the sources at hand. */
export const FactNames = createContext<FactName>(({ source }) => source);
export const useFactNames = (): FactName => useContext(FactNames);
