/** How many words fill a time, as the clock that will measure them counts: by the sounds of what is told, and the rests of short sentences. */
import type { Clock } from '../timing/clock.ts';

/** Commas for each word of narration (on eight narrations and replies of other hands, those tuned on: 0.08 to 0.14, in the middle 0.11; a colon or dash counts as the rest it makes). */
const COMMAS_A_WORD = 0.11;
/** So many words of its own facts weigh as much as all that is told elsewhere: a section of one short fact says little about words. */
const ENOUGH_WORDS = 60;

export interface WordRate {
  /** Milliseconds that a written word takes with its share of rests, in a text that tells these facts. */
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
      words += clock.time(text).words;
    }
    return { ms, words };
  };
  const whole = said(all);
  const usual = whole.words ? whole.ms / whole.words : said(['It is read aloud by one voice.']).ms / 7;
  return {
    msAWord: (facts) => {
      const own = said(facts);
      return (own.ms + usual * ENOUGH_WORDS) / (own.words + ENOUGH_WORDS) + rests;
    },
    sectionEndMs: end.pauseMs - stop.pauseMs,
  };
}
