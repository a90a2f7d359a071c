/** From spoken words to the counts a voice multiplies. */
import { PHONES, VOWEL_COUNT } from '../language/dictionary.ts';
import type { Pronouncer } from '../language/phones.ts';
import type { SpokenToken } from '../language/spoken/index.ts';
import { PAUSES, PHONE_CLASSES, type PhoneClass } from './voice.ts';

const LONG = new Set(['AA', 'AE', 'AO', 'AW', 'AY', 'ER', 'EY', 'IY', 'OW', 'OY', 'UW']);
const CONSONANTS: Record<string, PhoneClass> = {
  P: 'voicelessStop', T: 'voicelessStop', K: 'voicelessStop', CH: 'voicelessStop',
  B: 'voicedStop', D: 'voicedStop', G: 'voicedStop', JH: 'voicedStop',
  F: 'voicelessFricative', TH: 'voicelessFricative', S: 'voicelessFricative', SH: 'voicelessFricative', HH: 'voicelessFricative',
  V: 'voicedFricative', DH: 'voicedFricative', Z: 'voicedFricative', ZH: 'voicedFricative',
  M: 'nasal', N: 'nasal', NG: 'nasal', L: 'approximant', R: 'approximant', W: 'approximant', Y: 'approximant',
}; // prettier-ignore

/** Class index of each phone byte. */
const CLASS_OF = new Uint8Array(PHONES.length * 4);
for (let code = 0; code < CLASS_OF.length; code++) {
  const name = PHONES[code >> 2];
  const vowel = code >> 2 < VOWEL_COUNT;
  const stressed = (code & 3) > 1;
  const cls: PhoneClass = !vowel
    ? CONSONANTS[name]
    : !stressed
      ? 'weakVowel'
      : LONG.has(name)
        ? 'longVowel'
        : 'shortVowel';
  CLASS_OF[code] = PHONE_CLASSES.indexOf(cls);
}

/** What one spoken word is made of: phones by class, and syllables. */
export interface WordFeatures {
  classes: Uint8Array;
  syllables: number;
}

/** Words that carry no stress in running speech: their vowel counts as weak (a closed class, as in any handbook of English phonology). */
const UNSTRESSED = new Set(
  'a an the of to in on at by for from with and or but as than that is are was were be been am has have had do does can could would should will shall must may might he she it we you they him her them us his its our your their my me i if so not'.split(
    ' ',
  ),
);

export function wordFeatures(word: string, pronouncer: Pronouncer): WordFeatures {
  const classes = new Uint8Array(PHONE_CLASSES.length);
  let syllables = 0;
  const unstressed = UNSTRESSED.has(word);
  const weak = PHONE_CLASSES.indexOf('weakVowel');
  for (const code of pronouncer.phones(word)) {
    const vowel = code >> 2 < VOWEL_COUNT;
    if (vowel) syllables++;
    classes[unstressed && vowel ? weak : CLASS_OF[code]]++;
  }
  return { classes, syllables };
}

/** Positions in a feature vector: phone classes, then words, then rests by boundary, then 1 for lead and tail together. */
export const FEATURE_COUNT = PHONE_CLASSES.length + 1 + PAUSES.length + 1;

/** A recording's feature vector. The rest after the last token is not counted: a recording ends there. */
export function featureVector(tokens: readonly SpokenToken[], pronouncer: Pronouncer): Float64Array {
  const x = new Float64Array(FEATURE_COUNT);
  tokens.forEach((token, i) => {
    for (const word of spokenWords(token.spoken)) {
      const { classes } = wordFeatures(word, pronouncer);
      for (let k = 0; k < classes.length; k++) x[k] += classes[k];
      x[PHONE_CLASSES.length]++;
    }
    const pause = i < tokens.length - 1 ? PAUSES.indexOf(token.boundaryAfter as (typeof PAUSES)[number]) : -1;
    if (pause >= 0) x[PHONE_CLASSES.length + 1 + pause]++;
  });
  x[FEATURE_COUNT - 1] = 1;
  return x;
}

/** The single words of a token's spoken form; hyphens join nothing in speech. */
export function spokenWords(spoken: string): string[] {
  return spoken.toLowerCase().split(/[ -]+/).filter(Boolean);
}
