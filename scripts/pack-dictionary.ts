// Packs the CMU Pronouncing Dictionary (npm package, BSD-2-Clause) into the file the speech clock reads.
import { mkdirSync, writeFileSync } from 'node:fs';
import { dictionary } from 'cmu-pronouncing-dictionary';
import { packDictionary } from '../core/src/language/dictionary.ts';

const target = new URL('../core/dist/pronunciations.bin', import.meta.url);
mkdirSync(new URL('.', target), { recursive: true });
const bytes = packDictionary(Object.entries(dictionary));
writeFileSync(target, bytes);
console.error(`packed ${bytes.length} bytes`);
