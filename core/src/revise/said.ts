/** Lines by the words that are quoted of them. */
import type { PlainLine, PlainSection } from '../script/data.ts';
import { linesIn } from './types.ts';

/** Small letters and straight marks, place by place as in the text. */
export const plainWords = (text: string) => text.toLowerCase().replace(/[‘’]/g, "'").replace(/[“”]/g, '"');

/** Where words stand in a text from a place on, or null. */
export function spanOf(text: string, words: string, from = 0): { start: number; end: number } | null {
  const start = plainWords(text).indexOf(plainWords(words), from);
  return start < 0 ? null : { start, end: start + words.length };
}

/** The one line that has these words, by its place among all; or why there is none, and how many have them. */
export function lineSaying(
  words: string,
  sections: readonly PlainSection[],
): { line: PlainLine; at: number } | { unknown: string; times: number } {
  const hits = linesIn(sections).flatMap((line, at) => (spanOf(line.text, words) ? [{ line, at }] : []));
  if (hits.length === 1) return hits[0];
  // Of several the one that says nothing else.
  const whole = hits.filter(
    ({ line }) => plainWords(line.text).replace(/[.!?]+$/, '') === plainWords(words).replace(/[.!?]+$/, ''),
  );
  if (whole.length === 1) return whole[0];
  return {
    unknown: hits.length ? `“${words}” is said more than once.` : `No line here says “${words}”.`,
    times: hits.length,
  };
}
