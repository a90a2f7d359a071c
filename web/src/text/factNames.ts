/** How facts are named on the screen: "A 23" is the 23rd fact of source A, "A yours" one of the writer's own. */
import { createContext, useContext } from 'react';
import { refsOf } from '@ursprung/core/desk';
import type { Fact } from '@ursprung/core/facts';

export type FactName = (ref: { source: string; fact?: string }) => string;

export function factNamesOf(sources: readonly { letter: string; facts: readonly Fact[] }[]): FactName {
  const refs = refsOf(sources);
  const yours = new Set(
    sources.flatMap((s) => s.facts.filter((f) => f.own === 'known').map((f) => `${s.letter}:${f.id}`)),
  );
  return ({ source, fact }) => {
    const key = `${source}:${fact ?? ''}`;
    const place = yours.has(key) ? 'yours' : refs.get(key)?.slice(source.length);
    return place ? `${source} ${place}` : source;
  };
}

/** The names of the sources at hand. */
export const FactNames = createContext<FactName>(({ source }) => source);
export const useFactNames = (): FactName => useContext(FactNames);
