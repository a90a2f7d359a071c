/** Instances for tests, made once. */
import { readFileSync } from 'node:fs';
import { getClock, getPronouncer, getSolver, getTagger } from '../../server/src/tools.ts';

export const pronouncer = getPronouncer();
export const tagger = getTagger();
export const clock = getClock('even', 150);
export const solver = getSolver;
export const knows = pronouncer.knows;
export const demoFile = (name: string): Uint8Array =>
  readFileSync(new URL(`../../demo/data/sources/${name}`, import.meta.url));
