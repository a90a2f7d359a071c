/**
 * How a word is said, for people and for synthesizers: phones of the pronouncing dictionary as letters of the International
 * Phonetic Association (ARPAbet table of the CMU dictionary's documentation) and respelled in plain letters.
 */
import { PHONES, VOWEL_COUNT } from './dictionary.ts';

const IPA: Readonly<Record<string, string>> = {
  AA: 'ɑː', AE: 'æ', AH: 'ʌ', AO: 'ɔː', AW: 'aʊ', AY: 'aɪ', EH: 'ɛ', ER: 'ɜː', EY: 'eɪ', IH: 'ɪ', IY: 'iː', OW: 'oʊ', OY: 'ɔɪ', UH: 'ʊ', UW: 'uː',
  B: 'b', CH: 'tʃ', D: 'd', DH: 'ð', F: 'f', G: 'ɡ', HH: 'h', JH: 'dʒ', K: 'k', L: 'l', M: 'm', N: 'n', NG: 'ŋ', P: 'p', R: 'ɹ', S: 's', SH: 'ʃ', T: 't', TH: 'θ', V: 'v', W: 'w', Y: 'j', Z: 'z', ZH: 'ʒ',
}; // prettier-ignore
/** Unstressed vowels that are weaker than their letter. */
const WEAK: Readonly<Record<string, string>> = { AH: 'ə', ER: 'ɚ', IY: 'i' };
/** Plain letters a reader says right without knowing any signs (common practice of broadcasters' guides). */
const RESPELLED: Readonly<Record<string, string>> = {
  AA: 'ah', AE: 'a', AH: 'uh', AO: 'aw', AW: 'ow', AY: 'eye', EH: 'e', ER: 'ur', EY: 'ay', IH: 'i', IY: 'ee', OW: 'oh', OY: 'oy', UH: 'uu', UW: 'oo',
  B: 'b', CH: 'ch', D: 'd', DH: 'th', F: 'f', G: 'g', HH: 'h', JH: 'j', K: 'k', L: 'l', M: 'm', N: 'n', NG: 'ng', P: 'p', R: 'r', S: 's', SH: 'sh', T: 't', TH: 'th', V: 'v', W: 'w', Y: 'y', Z: 'z', ZH: 'zh',
}; // prettier-ignore

interface Syllable {
  codes: number[];
  stress: number;
}
/** Consonants that may open an English syllable together (maximal onset: Kahn 1976). */
const ONSET = /^(?:[SZ]?(?:[PTK][RLWY]?|[FVTHSHBDG]{1,2}[RLWY]?|M|N|W|L)?|HH|Y|W|R|L|M|N|CH|JH|DH|ZH|TH|SH)$/;

/** Phones grouped by syllables: a consonant goes with the vowel behind it wherever English words may begin so. */
function syllables(codes: ArrayLike<number>): Syllable[] {
  const out: Syllable[] = [];
  let waiting: number[] = [];
  for (let i = 0; i < codes.length; i++) {
    const code = codes[i];
    if (code >> 2 >= VOWEL_COUNT) {
      waiting.push(code);
      continue;
    }
    let onset = out.length ? 0 : waiting.length;
    if (out.length)
      for (let n = Math.min(waiting.length, 2); n > 0; n--) {
        const names = waiting.slice(-n).map((c) => PHONES[c >> 2]);
        if (n === 1 ? names[0] !== 'NG' : ONSET.test(names.join('')) && names[0] !== 'NG') {
          onset = n;
          break;
        }
      }
    const coda = waiting.slice(0, waiting.length - onset);
    if (out.length) out[out.length - 1].codes.push(...coda);
    out.push({ codes: [...waiting.slice(waiting.length - onset), code], stress: code & 3 });
    waiting = [];
  }
  if (out.length) out[out.length - 1].codes.push(...waiting);
  return out;
}

/** Phone codes as IPA, with primary and secondary stress before their syllables where there is more than one. */
export function ipaOf(codes: ArrayLike<number>): string {
  const all = syllables(codes);
  return all
    .map(({ codes: own, stress }) => {
      const mark = all.length < 2 ? '' : stress === 2 ? 'ˈ' : stress === 3 ? 'ˌ' : '';
      return (
        mark +
        own
          .map((c) => ((c & 3) === 1 ? (WEAK[PHONES[c >> 2]] ?? IPA[PHONES[c >> 2]]) : IPA[PHONES[c >> 2]]))
          .join('')
      );
    })
    .join('');
}

/** Phone codes respelled: syllables joined by hyphens, the stressed one in capitals. "MAH-roh-gayt". */
export function respelled(codes: ArrayLike<number>): string {
  const all = syllables(codes);
  return all
    .map(({ codes: own, stress }) => {
      const text = own.map((c) => RESPELLED[PHONES[c >> 2]]).join('');
      return stress === 2 && all.length > 1 ? text.toUpperCase() : text;
    })
    .join('-');
}
