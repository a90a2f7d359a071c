/**
 * The pronouncing dictionary, packed. Built from the CMU Pronouncing Dictionary at build time; read in place, so that
 * loading is the reading of one file and costs no parsing.
 *
 * Layout (little endian): u32 magic, u32 number of blocks, u32 number of words, then one u32 offset a block, then the
 * blocks. A block holds BLOCK words in byte order, front-coded: u8 shared prefix length, u8 suffix length, suffix
 * (ASCII), u8 phone count, phones (one byte each: index into PHONES times 4 plus stress + 1, 0 for consonants).
 */
const MAGIC = 0x31444c55;
const BLOCK = 32;

/** ARPAbet phones in the order of their codes. */
export const PHONES = [
  'AA', 'AE', 'AH', 'AO', 'AW', 'AY', 'EH', 'ER', 'EY', 'IH', 'IY', 'OW', 'OY', 'UH', 'UW',
  'B', 'CH', 'D', 'DH', 'F', 'G', 'HH', 'JH', 'K', 'L', 'M', 'N', 'NG', 'P', 'R', 'S', 'SH', 'T', 'TH', 'V', 'W', 'Y', 'Z', 'ZH',
] as const; // prettier-ignore
export const VOWEL_COUNT = 15;

/** One phone as a byte. */
export function phoneCode(arpabet: string): number {
  const stress = /\d$/.test(arpabet) ? Number(arpabet.slice(-1)) + 1 : 0;
  const index = PHONES.indexOf(arpabet.replace(/\d$/, '') as (typeof PHONES)[number]);
  if (index < 0) throw new RangeError(`not an ARPAbet phone: ${arpabet}`);
  return index * 4 + stress;
}

/** A byte back as ARPAbet with its stress digit. */
export function phoneName(code: number): string {
  const stress = code & 3;
  return PHONES[code >> 2] + (stress ? String(stress - 1) : '');
}

/** Packs word → ARPAbet string ("HH AH0 L OW1"). Words that are not plain ASCII letters and apostrophes are left out. */
export function packDictionary(entries: Iterable<readonly [string, string]>): Uint8Array {
  const words = [...entries]
    .filter(([word]) => /^[a-z][a-z']*$/.test(word) && word.length < 64)
    .sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0));
  const body: number[] = [];
  const offsets: number[] = [];
  let previous = '';
  words.forEach(([word, phones], i) => {
    if (i % BLOCK === 0) {
      offsets.push(body.length);
      previous = '';
    }
    let shared = 0;
    while (shared < previous.length && previous[shared] === word[shared]) shared++;
    // The source marks some words with a comment behind "#".
    const codes = phones
      .replace(/\s*#.*/, '')
      .trim()
      .split(' ')
      .map(phoneCode);
    body.push(shared, word.length - shared);
    for (const c of word.slice(shared)) body.push(c.charCodeAt(0));
    body.push(codes.length, ...codes);
    previous = word;
  });
  const head = 12 + offsets.length * 4;
  const out = new Uint8Array(head + body.length);
  const view = new DataView(out.buffer);
  view.setUint32(0, MAGIC, true);
  view.setUint32(4, offsets.length, true);
  view.setUint32(8, words.length, true);
  offsets.forEach((o, i) => view.setUint32(12 + i * 4, head + o, true));
  out.set(body, head);
  return out;
}

export interface Dictionary {
  /** How many words it holds. */
  size: number;
  /** Phone codes of a lower-case word, or null. */
  phones: (word: string) => Uint8Array | null;
}

/** Opens a packed dictionary in place. Throws when the bytes are not one. */
export function openDictionary(bytes: Uint8Array): Dictionary {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.byteLength < 12 || view.getUint32(0, true) !== MAGIC)
    throw new Error('These bytes are not a packed dictionary.');
  const blocks = view.getUint32(4, true);
  const offset = (block: number) =>
    block < blocks ? view.getUint32(12 + block * 4, true) : bytes.byteLength;

  /** Whether the block's first word stands after the sought word (its prefix is never shared). */
  const startsAfter = (block: number, word: string): boolean => {
    const at = offset(block);
    const length = bytes[at + 1];
    for (let i = 0; i < length && i < word.length; i++) {
      const difference = bytes[at + 2 + i] - word.charCodeAt(i);
      if (difference) return difference > 0;
    }
    return length > word.length;
  };

  const phones = (word: string): Uint8Array | null => {
    let low = 0;
    let high = blocks - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (startsAfter(middle, word)) high = middle - 1;
      else low = middle;
    }
    let at = offset(low);
    const end = offset(low + 1);
    // `matched` is how much of the sought word the current entry's prefix is known to share.
    let matched = 0;
    while (at < end) {
      const shared = bytes[at];
      const suffix = bytes[at + 1];
      const count = bytes[at + 2 + suffix];
      if (shared <= matched) {
        matched = shared;
        let i = 0;
        while (i < suffix && matched < word.length && bytes[at + 2 + i] === word.charCodeAt(matched)) {
          i++;
          matched++;
        }
        if (i === suffix && matched === word.length && shared + suffix === word.length) {
          const from = at + 3 + suffix;
          return bytes.subarray(from, from + count);
        }
      }
      at += 3 + suffix + count;
    }
    return null;
  };
  return { size: view.getUint32(8, true), phones };
}
