/** How hard a text is to read. */
import type { Pronouncer } from '../language/phones.ts';
import { syllableCount } from '../language/phones.ts';
import { sentences, writtenWords } from '../language/sentences.ts';

export interface Readability {
  sentences: number;
  words: number;
  syllables: number;
  /** Flesch-Kincaid grade level; null for a text without a sentence. */
  grade: number | null;
}

/**
 * Flesch-Kincaid grade: 0.39 words a sentence + 11.8 syllables a word − 15.59 (Kincaid, Fishburne, Rogers and Chissom,
 * Naval Technical Training Command Research Branch Report 8-75, 1975). Figures count as one word each.
 */
export function readability(text: string, pronouncer: Pronouncer): Readability {
  const count = sentences(text).length;
  let words = 0;
  let syllables = 0;
  for (const { text: word } of writtenWords(text)) {
    words++;
    syllables += /\d/.test(word) ? 1 : Math.max(1, syllableCount(pronouncer.phones(word)));
  }
  const grade = count && words ? 0.39 * (words / count) + 11.8 * (syllables / words) - 15.59 : null;
  return { sentences: count, words, syllables, grade: grade === null ? null : Math.round(grade * 10) / 10 };
}
