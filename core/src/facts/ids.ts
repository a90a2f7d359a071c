/** Ids of facts that last: they come from the words, not from the place, so that nothing moves when a sentence before them is read otherwise. */
import { fnv1a } from '../language/hash.ts';

/**
 * What takes sources apart, counted: raised whenever passages, sentences, tags or values can come out otherwise than before. Null
 * in a database stands for 1, when ids were places ("f12").
 */
export const EXTRACTOR = 9;

/** Where a fact stands, for people: the number of its passage, or that it is the writer's own. */
export const placeOf = (fact: { block: string; own?: unknown }): string =>
  fact.own === 'known' ? 'yours' : fact.block.slice(1);

/** How an order names facts, by "A:f…": the source's letter and the fact's place among that source's facts. */
export const refsOf = (
  sources: readonly { letter: string; facts: readonly { id: string }[] }[],
): ReadonlyMap<string, string> =>
  new Map(
    sources.flatMap((s) => s.facts.map((f, i) => [`${s.letter}:${f.id}`, `${s.letter}${i + 1}`] as const)),
  );

const plain = (text: string) => text.normalize('NFC').replace(/\s+/g, ' ').trim();
const letters = (hash: number, count: number) => hash.toString(36).padStart(7, '0').slice(-count);

/** "f", three letters of its passage's words, seven of its own, and which of several where one passage says it twice. */
export function factIds(rows: readonly { passage: string; text: string }[]): string[] {
  const seen = new Map<string, number>();
  return rows.map(({ passage, text }) => {
    const id = `f${letters(fnv1a(plain(passage)), 3)}${letters(fnv1a(plain(text), 1), 7)}`;
    const n = (seen.get(id) ?? 0) + 1;
    seen.set(id, n);
    return n === 1 ? id : `${id}-${n}`;
  });
}
