/** The speech clock: how long a voice takes to say a text. Integer milliseconds, summed in text order. */
import reference from '../../data/reference-passage.json';
import { makePronouncer, type Pronouncer } from '../language/phones.ts';
import type { Dictionary } from '../language/dictionary.ts';
import { countWords } from '../language/sentences.ts';
import { spokenTokens, type Boundary, type SpokenToken } from '../language/spoken/index.ts';
import { spokenWords, wordFeatures } from './features.ts';
import { PAUSES, PHONE_CLASSES, type Voice } from './voice.ts';

/** A token with its time on the voice's clock. */
export interface TimedToken extends SpokenToken {
  /** Time to say it. */
  ms: number;
  /** Time of the rest after it. */
  pauseMs: number;
}

export interface TimedText {
  /** Words as a person counts them in the written text. */
  words: number;
  /** Words as said. */
  spokenWords: number;
  syllables: number;
  ms: number;
}

/** A line of a script as the clock sees it. */
export interface ClockLine {
  text: string;
  /** A planned rest after the line, in milliseconds, on top of the voice's own. */
  restMs?: number;
  /** Seconds that stay as they are (fixed parts), in milliseconds; the text is then not timed. */
  fixedMs?: number;
  /** Whether a new section starts after it. */
  endsSection?: boolean;
}

export interface TimedLine extends TimedText {
  /** From the start of the script. */
  startMs: number;
}

export interface Clock {
  readonly voice: Voice;
  /** Every token of a text with its time. Nothing is added for lead and tail; the last token keeps its rest. */
  tokens: (text: string) => TimedToken[];
  /** A whole recording: lead, speech, rests between, tail. */
  time: (text: string) => TimedText;
  /** Every line of a script, in order. The sum of their times is the script's. Linear in the length; unchanged lines cost a look-up. */
  lines: (lines: readonly ClockLine[]) => TimedLine[];
}

/** What a clock takes for a pace, in words a minute. */
export const SLOWEST_PACE = 40;
export const FASTEST_PACE = 400;
export const isPace = (pace: number): boolean => pace >= SLOWEST_PACE && pace <= FASTEST_PACE;

export interface ClockOptions {
  voice: Voice;
  /** Words a minute on the shipped reference passage; the voice's own pace when left out. */
  pace?: number;
  /** How the writer says words: written form → words to say. */
  sayings?: ReadonlyMap<string, string>;
}

/** A memo that forgets everything once full: bounded, and cheap to refill. */
class Memo<V> {
  private map = new Map<string, V>();
  constructor(private limit: number) {}
  get(key: string, make: () => V): V {
    const known = this.map.get(key);
    if (known !== undefined) return known;
    const value = make();
    if (this.map.size >= this.limit) this.map.clear();
    this.map.set(key, value);
    return value;
  }
}

interface LineTime extends TimedText {
  /** Without the rest at its end. */
  speechMs: number;
  endBoundary: Boundary;
}

export const REFERENCE_PASSAGE: string = reference.text;

/** Makes a clock. One pronouncer can serve many clocks. */
export function makeClock(dictionary: Dictionary | Pronouncer, options: ClockOptions): Clock {
  const pronouncer = 'knows' in dictionary ? dictionary : makePronouncer(dictionary);
  const factor = options.pace !== undefined ? paceFactor(pronouncer, options.voice, options.pace) : 1;
  const scale = options.voice.scale * factor;
  const perClass = PHONE_CLASSES.map((c) => options.voice.phoneMs[c] * scale);
  const pauseMs = Object.fromEntries(PAUSES.map((p) => [p, Math.round(options.voice.pauseMs[p] * scale)]));
  const wordMemo = new Memo<{ ms: number; syllables: number }>(30_000);
  const lineMemo = new Memo<LineTime>(4_000);

  const timeWord = (word: string) =>
    wordMemo.get(word, () => {
      const { classes, syllables } = wordFeatures(word, pronouncer);
      let ms = options.voice.wordMs * scale;
      for (let k = 0; k < classes.length; k++) ms += classes[k] * perClass[k];
      return { ms: Math.round(ms), syllables };
    });

  const tokens = (text: string): TimedToken[] =>
    spokenTokens(text, { knows: pronouncer.knows, sayings: options.sayings }).map((token) => {
      let ms = 0;
      for (const word of spokenWords(token.spoken)) ms += timeWord(word).ms;
      return { ...token, ms, pauseMs: pauseMs[token.boundaryAfter] ?? 0 };
    });

  const timeLine = (text: string): LineTime =>
    lineMemo.get(text, () => {
      let ms = 0;
      let spoken = 0;
      let syllables = 0;
      const timed = tokens(text);
      timed.forEach((token, i) => {
        const words = spokenWords(token.spoken);
        spoken += words.length;
        for (const word of words) syllables += timeWord(word).syllables;
        ms += token.ms + (i < timed.length - 1 ? token.pauseMs : 0);
      });
      const end = timed.length ? timed[timed.length - 1].boundaryAfter : 'none';
      return { words: countWords(text), spokenWords: spoken, syllables, ms, speechMs: ms, endBoundary: end };
    });

  return {
    voice: options.voice,
    tokens,
    time: (text) => {
      const { words, spokenWords: spoken, syllables, speechMs } = timeLine(text);
      return {
        words,
        spokenWords: spoken,
        syllables,
        ms: speechMs + (spoken ? options.voice.leadMs + options.voice.tailMs : 0),
      };
    },
    lines: (lines) => {
      let at = 0;
      return lines.map((line, i) => {
        const timed = timeLine(line.text);
        const first = i === 0 ? options.voice.leadMs : 0;
        const last = i === lines.length - 1;
        const own = timed.spokenWords
          ? (pauseMs[line.endsSection ? 'paragraph' : timed.endBoundary] ?? 0)
          : 0;
        const speech = line.fixedMs ?? timed.speechMs + (last ? options.voice.tailMs : own);
        const ms = first + speech + (line.restMs ?? 0);
        const startMs = at;
        at += ms;
        return {
          words: timed.words,
          spokenWords: timed.spokenWords,
          syllables: timed.syllables,
          ms,
          startMs,
        };
      });
    },
  };
}

/** The factor that makes a voice take `words / pace` minutes for the reference passage. Throws RangeError on a pace that is no pace. */
export function paceFactor(pronouncer: Pronouncer, voice: Voice, pace: number): number {
  if (!isPace(pace))
    throw new RangeError(`A pace is between ${SLOWEST_PACE} and ${FASTEST_PACE} words a minute.`);
  return ownPace(pronouncer, voice) / pace;
}

/** Words a minute a voice reads the reference passage at, lead and tail left out. */
export function ownPace(pronouncer: Pronouncer, voice: Voice): number {
  const bare = makeClock(pronouncer, { voice: { ...voice, leadMs: 0, tailMs: 0 } });
  const { words, ms } = bare.time(REFERENCE_PASSAGE);
  return (words * 60_000) / ms;
}

/** Milliseconds as seconds with three decimals, as the command line and the script file give them. */
export const seconds = (ms: number): number => Math.round(ms) / 1000;
