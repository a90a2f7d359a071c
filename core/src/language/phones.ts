/** From a spoken word to its phones: dictionary, then endings, then compounds, then letters. */
import { phoneCode, PHONES, VOWEL_COUNT, type Dictionary } from './dictionary.ts';

/** Endings added to a known stem: [written, what the stem may need back, phones]. Longest first. */
const ENDINGS: readonly [string, readonly string[], readonly string[]][] = [
  ["'s", [''], ['Z']],
  ['ability', ['', 'e', 'able'], ['AH0', 'B', 'IH1', 'L', 'AH0', 'T', 'IY0']],
  ['iness', ['y'], ['IY0', 'N', 'AH0', 'S']],
  ['ness', [''], ['N', 'AH0', 'S']],
  ['less', [''], ['L', 'AH0', 'S']],
  ['ship', [''], ['SH', 'IH2', 'P']],
  ['ment', [''], ['M', 'AH0', 'N', 'T']],
  ['able', ['', 'e'], ['AH0', 'B', 'AH0', 'L']],
  ['like', [''], ['L', 'AY2', 'K']],
  ['wise', [''], ['W', 'AY2', 'Z']],
  ['iest', ['y'], ['IY0', 'AH0', 'S', 'T']],
  ['ers', ['', 'e'], ['ER0', 'Z']],
  ['ily', ['y'], ['AH0', 'L', 'IY0']],
  ['ism', ['', 'e', 'y'], ['IH2', 'Z', 'AH0', 'M']],
  ['ist', ['', 'e', 'y'], ['AH0', 'S', 'T']],
  ['ing', ['', 'e'], ['IH0', 'NG']],
  ['ies', ['y'], ['IY0', 'Z']],
  ['ied', ['y'], ['IY0', 'D']],
  ['ish', ['', 'e'], ['IH0', 'SH']],
  ['est', ['', 'e'], ['AH0', 'S', 'T']],
  ['ful', [''], ['F', 'AH0', 'L']],
  ['ly', ['', 'le'], ['L', 'IY0']],
  ['er', ['', 'e'], ['ER0']],
  ['ed', ['', 'e'], ['D']],
  ['es', ['', 'e'], ['AH0', 'Z']],
  ['s', [''], ['Z']],
  ['y', ['', 'e'], ['IY0']],
];
const PREFIXES: readonly [string, readonly string[]][] = [
  ['counter', ['K', 'AW1', 'N', 'T', 'ER0']], ['under', ['AH2', 'N', 'D', 'ER0']], ['inter', ['IH2', 'N', 'T', 'ER0']], ['super', ['S', 'UW2', 'P', 'ER0']],
  ['multi', ['M', 'AH1', 'L', 'T', 'IY0']], ['micro', ['M', 'AY1', 'K', 'R', 'OW0']], ['over', ['OW1', 'V', 'ER0']], ['anti', ['AE2', 'N', 'T', 'IY0']], ['semi', ['S', 'EH1', 'M', 'IY0']],
  ['fore', ['F', 'AO1', 'R']], ['pre', ['P', 'R', 'IY0']], ['sub', ['S', 'AH2', 'B']], ['non', ['N', 'AA1', 'N']], ['mis', ['M', 'IH2', 'S']], ['dis', ['D', 'IH0', 'S']],
  ['un', ['AH0', 'N']], ['re', ['R', 'IY0']],
]; // prettier-ignore

/** Letter groups of words no list knows, longest first, with the phones they most often stand for. A fallback for counting, not for speech. */
const LETTERS: readonly [string, string][] = [
  ['ought', 'AO1 T'], ['augh', 'AO1'], ['eigh', 'EY1'], ['ough', 'OW1'], ['tion', 'SH AH0 N'], ['sion', 'ZH AH0 N'], ['cian', 'SH AH0 N'],
  ['igh', 'AY1'], ['tch', 'CH'], ['sch', 'SH'], ['dge', 'JH'], ['eau', 'OW1'], ['ious', 'IY0 AH0 S'], ['eous', 'IY0 AH0 S'],
  ['air', 'EH1 R'], ['ear', 'IH1 R'], ['eer', 'IH1 R'], ['our', 'AO1 R'], ['oor', 'AO1 R'], ['ous', 'AH0 S'], ['que', 'K'], ['gue', 'G'],
  ['th', 'TH'], ['sh', 'SH'], ['ch', 'CH'], ['ph', 'F'], ['wh', 'W'], ['ck', 'K'], ['ng', 'NG'], ['gh', ''], ['kn', 'N'], ['wr', 'R'], ['qu', 'K W'], ['ps', 'P S'],
  ['ee', 'IY1'], ['ea', 'IY1'], ['oo', 'UW1'], ['ai', 'EY1'], ['ay', 'EY1'], ['ei', 'EY1'], ['ey', 'IY0'], ['oa', 'OW1'], ['oe', 'OW1'], ['ow', 'OW1'], ['ou', 'AW1'],
  ['oi', 'OY1'], ['oy', 'OY1'], ['au', 'AO1'], ['aw', 'AO1'], ['ew', 'UW1'], ['ue', 'UW1'], ['ui', 'UW1'], ['ie', 'IY1'], ['ar', 'AA1 R'], ['er', 'ER0'], ['ir', 'ER1'], ['or', 'AO1 R'], ['ur', 'ER1'],
  ['bb', 'B'], ['cc', 'K'], ['dd', 'D'], ['ff', 'F'], ['gg', 'G'], ['ll', 'L'], ['mm', 'M'], ['nn', 'N'], ['pp', 'P'], ['rr', 'R'], ['ss', 'S'], ['tt', 'T'], ['zz', 'Z'],
  ['a', 'AE1'], ['b', 'B'], ['c', 'K'], ['d', 'D'], ['e', 'EH1'], ['f', 'F'], ['g', 'G'], ['h', 'HH'], ['i', 'IH1'], ['j', 'JH'], ['k', 'K'], ['l', 'L'], ['m', 'M'], ['n', 'N'],
  ['o', 'OW1'], ['p', 'P'], ['q', 'K'], ['r', 'R'], ['s', 'S'], ['t', 'T'], ['u', 'AH1'], ['v', 'V'], ['w', 'W'], ['x', 'K S'], ['y', 'IY0'], ['z', 'Z'],
]; // prettier-ignore

const codes = (names: readonly string[]) => names.map(phoneCode);
const ENDING_CODES = ENDINGS.map(([written, back, phones]) => ({ written, back, codes: codes(phones) }));
const PREFIX_CODES = PREFIXES.map(([written, phones]) => ({ written, codes: codes(phones) }));
const LETTER_CODES = new Map(LETTERS.map(([l, p]) => [l, codes(p.split(' ').filter(Boolean))]));
const LETTER_NAMES: Record<string, string> = {
  a: 'EY1', b: 'B IY1', c: 'S IY1', d: 'D IY1', e: 'IY1', f: 'EH1 F', g: 'JH IY1', h: 'EY1 CH', i: 'AY1', j: 'JH EY1', k: 'K EY1', l: 'EH1 L', m: 'EH1 M', n: 'EH1 N', o: 'OW1',
  p: 'P IY1', q: 'K Y UW1', r: 'AA1 R', s: 'EH1 S', t: 'T IY1', u: 'Y UW1', v: 'V IY1', w: 'D AH1 B AH0 L Y UW0', x: 'EH1 K S', y: 'W AY1', z: 'Z EH1 D',
}; // prettier-ignore
const ACCENTS: Record<string, string> = {
  ß: 'ss',
  æ: 'ae',
  œ: 'oe',
  ø: 'o',
  ð: 'th',
  þ: 'th',
  ł: 'l',
  đ: 'd',
  ı: 'i',
};

/** Lower case without accents, in the letters a to z and the apostrophe where they can be had. */
export function plainLetters(word: string): string {
  const lower = word.toLowerCase().replace(/’/g, "'");
  if (/^[a-z']*$/.test(lower)) return lower;
  return lower
    .replace(/[ßæœøðþłđı]/g, (c) => ACCENTS[c])
    .normalize('NFD')
    .replace(/\p{M}/gu, '');
}

const isVowel = (code: number) => code >> 2 < VOWEL_COUNT;
const SIBILANT = new Set(['S', 'Z', 'SH', 'ZH', 'CH', 'JH']);
const VOICELESS = new Set(['P', 'T', 'K', 'F', 'TH', 'S', 'SH', 'CH']);
const nameOf = (code: number): string => PHONES[code >> 2];

/** The ending "s" or "ed" takes a vowel after some sounds and loses its voice after others. */
function ending(written: string, stem: readonly number[], added: readonly number[]): number[] {
  const last = nameOf(stem[stem.length - 1] ?? 0);
  if (written === 's' || written === "'s" || written === 'es')
    return SIBILANT.has(last)
      ? [phoneCode('AH0'), phoneCode('Z')]
      : [phoneCode(VOICELESS.has(last) ? 'S' : 'Z')];
  if (written === 'ed')
    return last === 'T' || last === 'D'
      ? [phoneCode('AH0'), phoneCode('D')]
      : [phoneCode(VOICELESS.has(last) ? 'T' : 'D')];
  return [...added];
}

/** What a silent final "e" leaves: the vowel before it is long, so "e" itself is no phone. */
function letterPhones(word: string): number[] {
  const out: number[] = [];
  const silent = /[^aeiouy]e$/.test(word) && /[aeiouy].*[^aeiouy]e$/.test(word);
  const end = silent && !/[^aeiouyrlw]le$/.test(word) ? word.length - 1 : word.length;
  for (let at = 0; at < end;) {
    let size = Math.min(5, end - at);
    while (size > 1 && !LETTER_CODES.has(word.slice(at, at + size))) size--;
    out.push(...(LETTER_CODES.get(word.slice(at, at + size)) ?? []));
    at += size;
  }
  return out;
}

export interface Pronouncer {
  /** Phone codes of one spoken word in any case; never empty for a word with a letter in it. */
  phones: (word: string) => readonly number[] | Uint8Array;
  /** Whether the dictionary itself holds the word (lower case). */
  knows: (word: string) => boolean;
}

/**
 * Makes a pronouncer on a dictionary. Words it does not hold are read as a known stem with an ending or prefix, as two
 * known words written together, and at last letter by letter.
 */
export function makePronouncer(dictionary: Dictionary): Pronouncer {
  const stemmed = (word: string, depth: number): number[] | null => {
    for (const { written, back, codes: added } of ENDING_CODES) {
      if (!word.endsWith(written) || word.length - written.length < 2) continue;
      const base = word.slice(0, -written.length);
      const doubled = /([bdfgklmnprtvz])\1$/.test(base) ? [base.slice(0, -1)] : [];
      for (const stem of [...back.map((b) => base + b), ...doubled]) {
        const found = stem.length > 1 ? lookup(stem, depth + 1) : null;
        if (found) return [...found, ...ending(written, [...found], added)];
      }
    }
    return null;
  };
  const prefixed = (word: string): number[] | null => {
    for (const { written, codes: added } of PREFIX_CODES) {
      if (!word.startsWith(written) || word.length < written.length + 3) continue;
      const found = lookup(word.slice(written.length), 1);
      if (found) return [...added, ...found];
    }
    return null;
  };
  const compound = (word: string): number[] | null => {
    // The split nearest the middle whose halves are both known.
    for (let off = 0; off <= word.length / 2 - 3; off++)
      for (const cut of [Math.ceil(word.length / 2) + off, Math.ceil(word.length / 2) - off]) {
        const left = dictionary.phones(word.slice(0, cut));
        const right = left && dictionary.phones(word.slice(cut));
        if (left && right) return [...left, ...right];
      }
    return null;
  };
  const lookup = (word: string, depth: number): Uint8Array | number[] | null =>
    dictionary.phones(word) ?? (depth < 3 ? stemmed(word, depth) : null);

  const phones = (word: string): readonly number[] | Uint8Array => {
    const plain = plainLetters(word);
    if (plain.length === 1 && LETTER_NAMES[plain] && plain !== 'a')
      return codes(LETTER_NAMES[plain].split(' '));
    if (!/[a-z]/.test(plain)) return estimate(word);
    const whole =
      plain.length < 40
        ? (lookup(plain, 0) ?? prefixed(plain) ?? (plain.length >= 6 ? compound(plain) : null))
        : null;
    if (whole) return whole;
    const spelled = letterPhones(plain.replace(/[^a-z]/g, ''));
    return spelled.some(isVowel)
      ? spelled
      : [...plain].flatMap((c) => (LETTER_NAMES[c] ? codes(LETTER_NAMES[c].split(' ')) : []));
  };
  return { phones, knows: (word) => dictionary.phones(word) !== null };
}

/** Letters of other scripts: an alphabet's letter is about one phone, every second a vowel; an unspaced script's character is a syllable of two. */
function estimate(word: string): number[] {
  const consonant = phoneCode('T');
  const vowel = phoneCode('AH1');
  if (/[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]/u.test(word))
    return [...word].flatMap(() => [consonant, vowel]);
  const letters = [...word].filter((c) => /\p{L}/u.test(c));
  return letters.map((_, i) => (i % 2 || letters.length === 1 ? vowel : consonant));
}

/** How many syllables a sequence of phones has: one a vowel. */
export function syllableCount(phones: Iterable<number>): number {
  let n = 0;
  for (const code of phones) if (isVowel(code)) n++;
  return n;
}
