/** How many words fill a time, counted as they are spoken, as the clock that will measure them counts: by the sounds of what is told, and the rests of short sentences. */
import { REFERENCE_PASSAGE, type Clock } from '../timing/clock.ts';

/** Commas for each word as it is spoken, so that orders of the texts that were tuned on come out even (they have 0.07 to 0.12; a colon or dash counts as the rest it makes). */
const COMMAS_A_WORD = 0.08;
/** So many words of its own facts weigh as much as all that is told elsewhere: a section of one short fact says little about words. */
const ENOUGH_WORDS = 60;
/** A retelling has words as long as its source's in so great a part; the rest are everybody's, as long as the reference passage's (fitted on the same texts). */
const SOURCE_SHARE = 0.75;

export interface WordRate {
  /** Milliseconds that a word takes as it is spoken (a year is three of them), with its share of rests, in a text that tells these facts. */
  msAWord: (facts: readonly string[]) => number;
  /** What the end of a section takes more than the end of a sentence, in milliseconds. */
  sectionEndMs: number;
}

/** `all`: everything that is told; `sentence`: the usual length of a sentence, in words. */
export function wordRate(clock: Clock, all: readonly string[], sentence: number): WordRate {
  // The rests as this voice at this pace has them.
  const [stop] = clock.tokens('Yes. No.');
  const [comma] = clock.tokens('Yes, no.');
  const [end] = clock.tokens('Yes.\n\nNo.');
  const rests = stop.pauseMs / sentence + comma.pauseMs * COMMAS_A_WORD;
  const said = (texts: readonly string[]) => {
    let [ms, words] = [0, 0];
    for (const text of texts) {
      for (const t of clock.tokens(text)) ms += t.ms;
      words += clock.time(text).spokenWords;
    }
    return { ms, words };
  };
  const whole = said(all);
  const anybody = said([REFERENCE_PASSAGE]);
  const usual = anybody.ms / anybody.words;
  const theirs = whole.words ? whole.ms / whole.words : usual;
  return {
    msAWord: (facts) => {
      const own = said(facts);
      const told = (own.ms + theirs * ENOUGH_WORDS) / (own.words + ENOUGH_WORDS);
      return SOURCE_SHARE * told + (1 - SOURCE_SHARE) * usual + rests;
    },
    sectionEndMs: end.pauseMs - stop.pauseMs,
  };
}
