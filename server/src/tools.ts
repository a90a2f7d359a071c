/** The instances that text work needs, made once a process or worker: dictionary, pronouncer, tagger, words of one meaning, solver. */
import { readFileSync } from 'node:fs';
import { openDictionary, openKin, makePronouncer, type Kin, type Pronouncer } from '@ursprung/core/language';
import { makeTagger, type Tagger } from '@ursprung/core/tagger';
import { DEFAULT_VOICE, SHIPPED_VOICES, makeClock, type Clock, type Voice } from '@ursprung/core/timing';
import type { Solver } from '@ursprung/core/draft';
import { openSenses, type Senses } from '@ursprung/core/scenes';

export { getFonts } from './fonts.ts';

const DICTIONARY = new URL('../../core/dist/pronunciations.bin', import.meta.url);
const SENSES = new URL('../../core/dist/senses.tsv', import.meta.url);
const KIN = new URL('../../core/dist/kin.tsv', import.meta.url);

let pronouncer: Pronouncer | undefined;
let tagger: Tagger | undefined;
let kin: Kin | undefined;
let senses: Senses | undefined;
let solver: Promise<Solver> | undefined;
const clocks = new Map<string, Clock>();

/** The pronouncer on the packed dictionary. Throws when the dictionary was not built. */
export const getPronouncer = (): Pronouncer =>
  (pronouncer ??= makePronouncer(openDictionary(readFileSync(DICTIONARY))));
export const getTagger = (): Tagger => (tagger ??= makeTagger());
export const getKin = (): Kin => (kin ??= openKin(readFileSync(KIN, 'utf8')));
export const getSenses = (): Senses => (senses ??= openSenses(readFileSync(SENSES, 'utf8')));
export const getSolver = (): Promise<Solver> =>
  (solver ??= import('highs').then((m) => m.default() as unknown as Promise<Solver>));

/** A clock for a voice, a pace and a channel's sayings; kept, so that its word times are shared by all that ask. */
export function getClock(
  voice: Voice | string = DEFAULT_VOICE,
  pace?: number,
  sayings: readonly { word: string; say: string }[] = [],
): Clock {
  const data = typeof voice === 'string' ? (SHIPPED_VOICES[voice] ?? DEFAULT_VOICE) : voice;
  const key = `${data.id}\0${data.calibration.recordings}\0${pace ?? ''}\0${sayings.map((x) => `${x.word}=${x.say}`).join()}`;
  const known = clocks.get(key);
  if (known && known.voice === data) return known;
  const clock = makeClock(getPronouncer(), {
    voice: data,
    ...(pace ? { pace } : {}),
    ...(sayings.length ? { sayings: new Map(sayings.map((x) => [x.word, x.say])) } : {}),
  });
  if (clocks.size > 20) clocks.clear();
  clocks.set(key, clock);
  return clock;
}
