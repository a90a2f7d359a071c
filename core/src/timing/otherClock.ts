/**
 * A clock for languages that the pronouncing dictionary does not hold: syllables a second by language. Rates are those of
 * Pellegrino, Coupé and Marsico, "Across-language perspective on speech information rate", Language 87 (2011): English
 * 6.19, French 7.18, German 5.97, Spanish 7.82 syllables a second in one reading task; from memory. Portuguese and Hindi
 * are not in it: they are taken between their neighbours and say so. Only the ratio to English is used, so that a voice's
 * own pace holds in every language. Syllables are counted by each language's spelling.
 */
import { countWords } from '../language/sentences.ts';
import type { Boundary } from '../language/spoken/rule.ts';
import { ownPace, type Clock, type ClockLine, type TimedLine, type TimedToken } from './clock.ts';
import type { Pronouncer } from '../language/phones.ts';
import { PAUSES, type Voice } from './voice.ts';

export interface SpokenLanguage {
  /** ISO 639-1. */
  code: string;
  name: string;
  /** Syllables a second in the study, or between its neighbours. */
  rate: number;
  /** Whether the study holds it. */
  measured: boolean;
  rightToLeft: boolean;
  syllables: (word: string) => number;
}

/** Vowels that make one syllable together, then any vowel. */
const byVowels =
  (together: RegExp, silentEnd?: RegExp) =>
  (word: string): number => {
    const plain = word.toLowerCase().normalize('NFC');
    const cut = silentEnd ? plain.replace(silentEnd, '') : plain;
    const groups = cut.match(together)?.length ?? 0;
    return Math.max(1, groups || (silentEnd ? (plain.match(together)?.length ?? 0) : 0));
  };
// A weak i or u beside another vowel makes one syllable with it; an accent on it parts them. "qu" and "gu" before e, i are consonants.
const spanish = byVowels(/[iu]?[aeoáéó][iu]?(?![́])|[íú]|[iuü]+/g);
const ibero = (word: string) => spanish(word.toLowerCase().replace(/([qg])u(?=[eéií])/g, '$1'));
const portuguese = (word: string) =>
  Math.max(
    1,
    (
      word
        .toLowerCase()
        .replace(/([qg])u(?=[eéií])/g, '$1')
        .match(/[ãõ][eo]|[iu]?[aeoáéóâêôàãõ][iu]?|[íú]|[iuü]+/g) ?? []
    ).length,
  );
const frenchVowels = byVowels(
  /eau|oeu|œu|ou|oi|ai|au|ei|eu|ui|ieu|io|ia|ie|[aeiouyàâéèêëîïôöùûüœ]/g,
  /(?:es|ent|e)$/,
);
const french = (word: string) => frenchVowels(word.toLowerCase().replace(/qu(?=[aeiéèêo])/g, 'q'));
const german = byVowels(/äu|eu|au|ei|ai|ie|aa|ee|oo|[aeiouyäöü]/g);
/** Devanagari: a syllable a letter with a vowel; a consonant whose vowel is taken off, and the last bare one, make none. */
const hindi = (word: string): number => {
  const letters = [...word.normalize('NFC')];
  let n = 0;
  letters.forEach((c, i) => {
    if (/[\u0904-\u0914]/.test(c)) n++;
    else if (/[\u0915-\u0939\u0958-\u0961]/.test(c)) {
      const next = letters[i + 1] === '\u093c' ? letters[i + 2] : letters[i + 1];
      const bareEnd = next === undefined && n > 0;
      if (next !== '\u094d' && !bareEnd) n++;
    }
  });
  return Math.max(1, n);
};
const english = (word: string) =>
  Math.max(
    1,
    (
      word
        .toLowerCase()
        .replace(/(?:[^laeiouy]es|ed|[^l]e)$/, '')
        .match(/[aeiouy]+/g) ?? []
    ).length,
  );
/** Arabic and Hebrew write few vowels: about a syllable for two letters. */
const abjad = (word: string) => Math.max(1, Math.round([...word].filter((c) => /\p{L}/u.test(c)).length / 2));

export const LANGUAGES: readonly SpokenLanguage[] = [
  { code: 'en', name: 'English', rate: 6.19, measured: true, rightToLeft: false, syllables: english },
  { code: 'es', name: 'Spanish', rate: 7.82, measured: true, rightToLeft: false, syllables: ibero },
  { code: 'fr', name: 'French', rate: 7.18, measured: true, rightToLeft: false, syllables: french },
  { code: 'de', name: 'German', rate: 5.97, measured: true, rightToLeft: false, syllables: german },
  { code: 'pt', name: 'Portuguese', rate: 7.0, measured: false, rightToLeft: false, syllables: portuguese },
  { code: 'hi', name: 'Hindi', rate: 6.5, measured: false, rightToLeft: false, syllables: hindi },
  { code: 'ar', name: 'Arabic', rate: 6.2, measured: false, rightToLeft: true, syllables: abjad },
];
export const languageOf = (code: string): SpokenLanguage | undefined =>
  LANGUAGES.find((l) => l.code === code.slice(0, 2).toLowerCase());

const MARKS: readonly [RegExp, Boundary][] = [
  [/[.!?…।॥؟]["”»’)]*$/, 'sentence'],
  [/[;:—–؛]["”»’)]*$/, 'clause'],
  [/[,،]["”»’)]*$/, 'comma'],
];
const REFERENCE_SYLLABLES_A_WORD = 1.45;
/** A figure is said in about this many syllables a digit. */
const DIGIT_SYLLABLES = 2;

/**
 * A clock for a language with its voice's rests and the voice's pace carried over. Without a pace the voice's own holds.
 * Every figure is estimated; the error is that of syllables and pauses, 4 to 5 % in the middle.
 */
export function makeOtherClock(
  language: SpokenLanguage,
  voice: Voice,
  pronouncer: Pronouncer,
  pace?: number,
): Clock {
  const own = ownPace(pronouncer, voice);
  const wpm = pace ?? own;
  const scale = voice.scale * (own / wpm);
  // The voice's English syllables a second, without its rests, times how much quicker the language is.
  const restShare = 0.14;
  const perSecond = ((wpm * REFERENCE_SYLLABLES_A_WORD) / 60 / (1 - restShare)) * (language.rate / 6.19);
  const pauseMs = Object.fromEntries(PAUSES.map((p) => [p, Math.round(voice.pauseMs[p] * scale)]));

  const tokens = (text: string): TimedToken[] => {
    const out: TimedToken[] = [];
    for (const m of text.matchAll(/\S+/g)) {
      const word = m[0].replace(/^[^\p{L}\p{M}\p{N}]+|[^\p{L}\p{M}\p{N}]+$/gu, '');
      const boundary = MARKS.find(([mark]) => mark.test(m[0]))?.[1] ?? 'none';
      if (!word) {
        const last = out[out.length - 1];
        if (last && boundary !== 'none')
          Object.assign(last, { boundaryAfter: boundary, pauseMs: pauseMs[boundary] ?? 0 });
        continue;
      }
      const digits = word.match(/\p{N}/gu)?.length ?? 0;
      const letters = word.replace(/\p{N}/gu, '');
      const syllables =
        (letters
          ? letters
              .split(/[-’']/)
              .filter(Boolean)
              .reduce((n, w) => n + language.syllables(w), 0)
          : 0) +
        digits * DIGIT_SYLLABLES;
      const start = m.index + m[0].indexOf(word);
      out.push({
        spoken: word,
        start,
        end: start + word.length,
        kind: digits ? 'number' : 'word',
        boundaryAfter: boundary,
        ms: Math.round((syllables * 1000) / perSecond),
        pauseMs: pauseMs[boundary] ?? 0,
      });
    }
    return out;
  };
  const measure = (text: string) => {
    const timed = tokens(text);
    const ms = timed.reduce((n, t, i) => n + t.ms + (i < timed.length - 1 ? t.pauseMs : 0), 0);
    return {
      words: countWordsIn(text, language.code),
      spokenWords: timed.length,
      syllables: Math.round(timed.reduce((n, t) => n + (t.ms * perSecond) / 1000, 0)),
      ms,
      end: timed[timed.length - 1]?.boundaryAfter ?? ('none' as Boundary),
    };
  };
  return {
    voice,
    tokens,
    time: (text) => {
      const { end: _end, ...t } = measure(text);
      return { ...t, ms: t.ms + (t.spokenWords ? voice.leadMs + voice.tailMs : 0) };
    },
    lines: (lines: readonly ClockLine[]): TimedLine[] => {
      let at = 0;
      return lines.map((line, i) => {
        const { end, ...t } = measure(line.text);
        const rest = t.spokenWords ? (pauseMs[line.endsSection ? 'paragraph' : end] ?? 0) : 0;
        const speech = line.fixedMs ?? t.ms + (i === lines.length - 1 ? voice.tailMs : rest);
        const ms = (i === 0 ? voice.leadMs : 0) + speech + (line.restMs ?? 0);
        const startMs = at;
        at += ms;
        return { ...t, ms, startMs };
      });
    },
  };
}

/** Words as a reader of the language counts them (Unicode text segmentation, UAX 29). */
export function countWordsIn(text: string, code: string): number {
  if (code === 'en') return countWords(text);
  let n = 0;
  for (const s of new Intl.Segmenter(code, { granularity: 'word' }).segment(text)) if (s.isWordLike) n++;
  return n;
}
