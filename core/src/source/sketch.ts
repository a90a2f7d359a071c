/** Near-duplicates: how much two texts share, from small sketches of them (MinHash, Broder 1997). */
import { fnv1a } from '../language/hash.ts';

/** Hash functions in a sketch; the error of a share is about 1 / √64 = 12 %, enough to tell a copy from a related report. */
const SIZE = 64;
/** Words in a shingle. */
const SHINGLE = 4;
/** Above this share two texts are told to the person as nearly the same. */
export const NEARLY_SAME = 0.6;

/** A second hash from a first one: multiply-shift with odd constants from a fixed series. */
const mixed = (h: number, k: number) => {
  let x = Math.imul(h ^ (k * 0x9e3779b1), 0x85ebca6b);
  x ^= x >>> 13;
  x = Math.imul(x, 0xc2b2ae35);
  return (x ^ (x >>> 16)) >>> 0;
};

/** 64 numbers that stand for a text's word runs. A text without words has none. */
export function sketchOf(text: string): number[] {
  const words = text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
  if (!words.length) return [];
  const least = new Array<number>(SIZE).fill(0xffffffff);
  const seen = new Set<number>();
  for (let i = 0; i < Math.max(1, words.length - SHINGLE + 1); i++) {
    const h = fnv1a(words.slice(i, i + SHINGLE).join(' '), 0);
    if (seen.has(h)) continue;
    seen.add(h);
    for (let k = 0; k < SIZE; k++) {
      const m = mixed(h, k + 1);
      if (m < least[k]) least[k] = m;
    }
  }
  return least;
}

/** The share of word runs two texts have in common (Jaccard), estimated from their sketches, 0 to 1. */
export function sharedOf(a: readonly number[], b: readonly number[]): number {
  if (a.length !== SIZE || b.length !== SIZE) return 0;
  let same = 0;
  for (let k = 0; k < SIZE; k++) if (a[k] === b[k]) same++;
  return same / SIZE;
}
