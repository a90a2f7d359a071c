/** What every way to part or shorten a sentence counts, closes and keeps out of. */
import { quotedSpans } from '../../language/quotes.ts';
import { writtenWords } from '../../language/sentences.ts';

/** Words as a listener counts them: what a hyphen joins are several. */
export const words = (text: string): number => writtenWords(text).length;

/** Nouns that are several, by their form. */
export const PLURAL = /(?:[^su]s|people|men|women|children|police)$/i;

/** A carried pronoun behind another word: "Then we held"; a name keeps its capital. */
export const small = (carried: string): string =>
  /^(?:It|They|He|She|We|You)$/.test(carried) ? carried.toLowerCase() : carried;

/** A part of a sentence with the full stop it lacks, instead of the mark it broke off at. */
export const closed = (text: string): string =>
  /[.!?…]["”]?$/.test(text.trim()) ? text.trim() : `${text.trim().replace(/[,;:]$/, '')}.`;

/** Whether a place stands within a quotation. */
export const inQuote = (text: string, at: number): boolean =>
  quotedSpans(text).some(([s, e]) => at > s && at < e);
