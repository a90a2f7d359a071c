/**
 * House style: what a channel's own scripts measure. Each measure is one figure a script; over several scripts it has a
 * middle and a spread, and lines of the channel that show it. Figures only, no verdicts.
 */
import type { Pronouncer } from '../language/phones.ts';
import { syllableCount } from '../language/phones.ts';
import { quotedSpans } from '../language/quotes.ts';
import { sentences, writtenWords } from '../language/sentences.ts';
import type { Tagger } from '../language/tagged.ts';
import { hasFiniteVerb } from '../language/tagged.ts';
import { numbersIn } from '../facts/extract.ts';
import type { Clock } from '../timing/clock.ts';
import type { PlainSection } from '../script/data.ts';
import { clockLines } from '../script/schema.ts';
import { readability } from './readability.ts';

export interface StyleTools {
  clock: Clock;
  pronouncer: Pronouncer;
  /** Measures of tense, voice and fragments need it. */
  tagger: Tagger | null;
  /** How often a word is met, per million words of speech; null: not known. Left out, rare words are not measured. */
  frequency?: (word: string) => number | null;
}

export interface StyleMeasure {
  id: string;
  name: string;
  /** How the figure is written: "words", "a minute", "%"… */
  unit: string;
  /** Over the channel's scripts: the median and the median distance from it. Null: not measured. */
  middle: number | null;
  spread: number | null;
  /** Two lines that show it. */
  examples: readonly string[];
}

export interface HouseStyle {
  scripts: number;
  words: number;
  measures: readonly StyleMeasure[];
  /** What the Read-through holds a script to. */
  limits: {
    /** Nine in ten sentences are no longer, in words. */
    longestSentence: number;
    grade: number;
    /** The share of the runtime by which the first turn has come. */
    firstTurn: number;
  };
  /** The longest stretch without a rest in nine of ten lines, in milliseconds. */
  breathMs: number;
}

interface Said {
  text: string;
  words: readonly string[];
  finite: boolean | null;
  past: number;
  verbs: number;
  passive: boolean;
}
interface Sample {
  sections: readonly PlainSection[];
  said: readonly Said[];
  words: readonly string[];
  text: string;
  ms: number;
  lineStarts: readonly number[];
  sectionMs: readonly number[];
  rests: number;
  grade: number | null;
}

const minutes = (s: Sample) => Math.max(s.ms, 1000) / 60_000;
const share = (part: number, of: number) => (of ? part / of : 0);
const mean = (list: readonly number[]) => (list.length ? list.reduce((a, b) => a + b, 0) / list.length : 0);
const count = (text: string, pattern: RegExp) => (text.match(pattern) ?? []).length;
const middleOf = (list: readonly number[]) => {
  const sorted = [...list].sort((a, b) => a - b);
  const half = sorted.length >> 1;
  return sorted.length % 2 ? sorted[half] : (sorted[half - 1] + sorted[half]) / 2;
};
const quantile = (list: readonly number[], q: number) => {
  const sorted = [...list].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * q))] ?? 0;
};

const CONTRACTED = /\b\w+(?:n[’']t|[’'](?:re|ve|ll|m|d))\b|\b(?:it|that|there|he|she|what|here|who)[’']s\b/gi;
const OPEN_FORM =
  /\b(?:do|does|did|is|are|was|were|has|have|had|would|could|should|will|can) not\b|\bcannot\b|\b(?:they|we|you|I) (?:are|am|will|have)\b|\b(?:it|that|he|she) is\b/gi;
const TURN = /^(?:but|yet|then|until|instead|except|only|however|suddenly)\b|\?["”]?$/i;
const OPENS = /^(?:and|but|so|then|because|yet|still|now)\b/i;
const first = (s: Said) => s.words[0]?.toLowerCase() ?? '';

type Shows = (said: Said, index: number, all: readonly Said[]) => number;
interface Measure {
  id: string;
  name: string;
  unit: string;
  of: (s: Sample, tools: StyleTools) => number | null;
  /** How well a sentence shows it: the best two are the examples. */
  shows: Shows;
}

const perMinute = (id: string, name: string, of: (s: Sample) => number, shows: Shows): Measure => ({
  id,
  name,
  unit: 'a minute',
  of: (s) => of(s) / minutes(s),
  shows,
});
const perHundred = (id: string, name: string, pattern: RegExp): Measure => ({
  id,
  name,
  unit: 'in 100 words',
  of: (s) => 100 * share(count(s.text, pattern), s.words.length),
  shows: (x) => count(x.text, pattern) / Math.sqrt(Math.max(4, x.words.length)),
});
const shareOf = (id: string, name: string, test: (x: Said, i: number) => boolean | null): Measure => ({
  id,
  name,
  unit: '%',
  of: (s) => {
    const known = s.said.filter((x, i) => test(x, i) !== null);
    return known.length ? 100 * share(known.filter((x, i) => test(x, i)).length, known.length) : null;
  },
  shows: (x, i) => (test(x, i) ? 1 : 0),
});

export const MEASURES: readonly Measure[] = [
  {
    id: 'sentence',
    name: 'Sentence length',
    unit: 'words',
    of: (s) => mean(s.said.map((x) => x.words.length)),
    shows: (x, _i, all) => -Math.abs(x.words.length - mean(all.map((y) => y.words.length))),
  },
  {
    id: 'variation',
    name: 'Variation of sentence length',
    unit: '% of the mean',
    of: (s) => {
      const l = s.said.map((x) => x.words.length);
      const m = mean(l);
      return m ? (100 * Math.sqrt(mean(l.map((x) => (x - m) ** 2)))) / m : 0;
    },
    shows: (x, i, all) => Math.abs(x.words.length - (all[i - 1]?.words.length ?? x.words.length)),
  },
  {
    id: 'longest',
    name: 'Nine in ten sentences have at most',
    unit: 'words',
    of: (s) =>
      quantile(
        s.said.map((x) => x.words.length),
        0.9,
      ),
    shows: (x) => x.words.length,
  },
  shareOf('short', 'Sentences of six words or fewer', (x) => x.words.length <= 6),
  {
    id: 'grade',
    name: 'Reading grade',
    unit: '',
    of: (s) => s.grade,
    shows: (x) => x.words.filter((w) => w.length > 8).length,
  },
  {
    id: 'pace',
    name: 'Words a minute',
    unit: 'wpm',
    of: (s) => s.words.length / minutes(s),
    shows: (x) => x.words.length,
  },
  {
    id: 'syllables',
    name: 'Syllables a word',
    unit: '',
    of: (s, { pronouncer }) =>
      mean(s.words.map((w) => (/\d/.test(w) ? 1 : Math.max(1, syllableCount(pronouncer.phones(w)))))),
    shows: (x) => mean(x.words.map((w) => w.length)),
  },
  {
    id: 'long-words',
    name: 'Words of three syllables or more',
    unit: '%',
    of: (s, { pronouncer }) =>
      100 *
      share(
        s.words.filter((w) => !/\d/.test(w) && syllableCount(pronouncer.phones(w)) > 2).length,
        s.words.length,
      ),
    shows: (x) => x.words.filter((w) => w.length > 8).length,
  },
  {
    id: 'rare',
    name: 'Rare words',
    unit: '%',
    of: (s, { frequency }) =>
      frequency
        ? 100 *
          share(
            s.words.filter((w) => /^\p{Ll}/u.test(w) && (frequency(w.toLowerCase()) ?? 0) < 3).length,
            s.words.filter((w) => /^\p{Ll}/u.test(w)).length,
          )
        : null,
    shows: (x) => Math.max(0, ...x.words.map((w) => w.length)),
  },
  // Mean type-token ratio over a moving window of 50 words (MATTR, Covington and McFall 2010).
  {
    id: 'variety',
    name: 'Variety of words',
    unit: '% new in 50',
    of: (s) => {
      const w = s.words.map((x) => x.toLowerCase());
      const window = Math.min(50, w.length);
      if (!window) return null;
      let sum = 0;
      let n = 0;
      for (let i = 0; i + window <= w.length; i += 10) {
        sum += new Set(w.slice(i, i + window)).size / window;
        n++;
      }
      return n ? (100 * sum) / n : null;
    },
    shows: (x) => new Set(x.words).size,
  },
  perHundred('you', 'Address: you', /\b(?:you|your|yours|yourself|you[’'](?:re|ve|ll|d))\b/gi),
  perHundred('we', 'Address: we', /\b(?:we|us|our|ours|let[’']s|we[’'](?:re|ve|ll|d))\b/gi),
  perHundred('i', 'Address: I', /\b(?:I|me|my|mine|I[’'](?:m|ve|ll|d))\b/g),
  perMinute(
    'questions',
    'Questions',
    (s) => count(s.text, /\?/g),
    (x) => count(x.text, /\?/g),
  ),
  perMinute(
    'exclamations',
    'Exclamations',
    (s) => count(s.text, /!/g),
    (x) => count(x.text, /!/g),
  ),
  {
    id: 'contractions',
    name: 'Contractions, of all that could be',
    unit: 'share',
    of: (s) => {
      const short = count(s.text, CONTRACTED);
      const open = count(s.text, OPEN_FORM);
      return short + open ? short / (short + open) : null;
    },
    shows: (x) => count(x.text, CONTRACTED),
  },
  shareOf('connectives', 'Sentences that open with and, but, so, then', (x) => OPENS.test(x.text)),
  shareOf('but', 'Sentences that open with but or yet', (x) => /^(?:but|yet)\b/i.test(x.text)),
  {
    id: 'openers',
    name: 'Commonest first word of a sentence',
    unit: '%',
    of: (s) => {
      const seen = new Map<string, number>();
      for (const x of s.said) seen.set(first(x), (seen.get(first(x)) ?? 0) + 1);
      return 100 * share(Math.max(0, ...seen.values()), s.said.length);
    },
    shows: (x, _i, all) => all.filter((y) => first(y) === first(x)).length,
  },
  perMinute(
    'numbers',
    'Numbers',
    (s) => numbersIn(s.text).length,
    (x) => numbersIn(x.text).length,
  ),
  {
    id: 'figures',
    name: 'Numbers written in figures',
    unit: '%',
    of: (s) => {
      const n = numbersIn(s.text);
      return n.length ? 100 * share(n.filter((v) => /\d/.test(v.text)).length, n.length) : null;
    },
    shows: (x) => count(x.text, /\d/g),
  },
  perMinute(
    'quotes',
    'Quotations',
    (s) => quotedSpans(s.text).length,
    (x) => quotedSpans(x.text).length,
  ),
  {
    id: 'past',
    name: 'Verbs in the past',
    unit: '%',
    of: (s) => {
      const verbs = s.said.reduce((n, x) => n + x.verbs, 0);
      return verbs
        ? 100 *
            share(
              s.said.reduce((n, x) => n + x.past, 0),
              verbs,
            )
        : null;
    },
    shows: (x) => x.past,
  },
  shareOf('passive', 'Sentences in the passive', (x) => (x.finite === null ? null : x.passive)),
  shareOf('fragments', 'Sentences without a verb', (x) => (x.finite === null ? null : !x.finite)),
  {
    id: 'section',
    name: 'Seconds a section',
    unit: 's',
    of: (s) => mean(s.sectionMs) / 1000,
    shows: (x) => -x.words.length,
  },
  {
    id: 'turn',
    name: 'First turn',
    unit: '% of the runtime',
    of: (s) => {
      const i = s.said.findIndex((x, k) => k > 0 && TURN.test(x.text));
      return i < 0 ? null : 100 * share(i, s.said.length);
    },
    shows: (x, i) => (i > 0 && TURN.test(x.text) ? 100 - i : -1),
  },
  {
    id: 'opening',
    name: 'Scripts that open with a question',
    unit: '%',
    of: (s) => (s.said.slice(0, 2).some((x) => /\?/.test(x.text)) ? 100 : 0),
    shows: (_x, i) => -i,
  },
  {
    id: 'opening-length',
    name: 'First sentence',
    unit: 'words',
    of: (s) => s.said[0]?.words.length ?? null,
    shows: (_x, i) => -i,
  },
  {
    id: 'ending-length',
    name: 'Last sentence',
    unit: 'words',
    of: (s) => s.said[s.said.length - 1]?.words.length ?? null,
    shows: (_x, i) => i,
  },
  {
    id: 'endings',
    name: 'Sentences that end on a word of one syllable',
    unit: '%',
    of: (s, { pronouncer }) =>
      100 *
      share(
        s.said.filter((x) => {
          const w = x.words[x.words.length - 1];
          return w && !/\d/.test(w) && syllableCount(pronouncer.phones(w)) === 1;
        }).length,
        s.said.length,
      ),
    shows: (x) => -(x.words[x.words.length - 1]?.length ?? 99),
  },
  perMinute(
    'rests',
    'Planned rests',
    (s) => s.rests,
    (x) => -x.words.length,
  ),
  {
    id: 'commas',
    name: 'Commas a sentence',
    unit: '',
    of: (s) => share(count(s.text, /,/g), s.said.length),
    shows: (x) => count(x.text, /,/g),
  },
];

const PAST_FORM =
  /ed$|^(?:was|were|had|did|went|came|took|made|said|saw|found|gave|told|knew|got|kept|left|began|stood|fell|held|ran|brought|thought|built|wrote|sat|lost|met|paid|sent|cut|put|set|let|rose|grew|broke|drew|flew|hit|shut|spent|won|became|led|felt|meant|heard|bought|sold|taught|caught|chose|drove|ate|hid|rode|shook|spoke|stole|swam|threw|woke|wore|froze|sank|sang)$/i;

function sampleOf(sections: readonly PlainSection[], tools: StyleTools): Sample {
  const spoken = sections
    .map((s) => ({ ...s, lines: s.lines.filter((l) => l.text.trim() && !l.fixed) }))
    .filter((s) => s.lines.length);
  const lines = spoken.flatMap((s) => s.lines);
  const times = tools.clock.lines(clockLines(spoken));
  const said = lines
    .flatMap((l) => sentences(l.text))
    .map(({ text }): Said => {
      const tags = tools.tagger ? tools.tagger(text) : null;
      const verbs = tags?.filter((t) => t.pos === 'VERB' || t.pos === 'AUX') ?? [];
      return {
        text,
        words: writtenWords(text).map((w) => w.text),
        finite: tags ? hasFiniteVerb(tags) : null,
        verbs: verbs.length,
        past: verbs.filter((t) => PAST_FORM.test(t.text)).length,
        passive: Boolean(
          tags?.some(
            (t, i) =>
              t.lemma === 'be' &&
              tags
                .slice(i + 1, i + 3)
                .some((n) => n.pos === 'VERB' && /(?:ed|en|wn|ilt|ade|uilt|old|eld|ent|ept)$/i.test(n.text)),
          ),
        ),
      };
    });
  let at = 0;
  const sectionMs = spoken.map((s) => s.lines.reduce((n) => n + times[at++].ms, 0));
  const text = lines.map((l) => l.text).join('\n');
  return {
    sections: spoken,
    said,
    words: said.flatMap((x) => x.words),
    text,
    ms: times.reduce((n, t) => n + t.ms, 0),
    lineStarts: times.map((t) => t.startMs),
    sectionMs,
    rests: lines.filter((l) => l.restMs > 0).length,
    grade: readability(text, tools.pronouncer).grade,
  };
}

const rounded = (value: number) => Math.round(value * 100) / 100;

/** The figures of one script, by measure; null where nothing could be measured. */
export function styleFigures(
  sections: readonly PlainSection[],
  tools: StyleTools,
): Record<string, number | null> {
  const sample = sampleOf(sections, tools);
  return Object.fromEntries(
    MEASURES.map((m) => {
      const value = sample.said.length ? m.of(sample, tools) : null;
      return [m.id, value === null || !Number.isFinite(value) ? null : rounded(value)];
    }),
  );
}

/** The style of a channel from its scripts. Three are enough to begin. Throws RangeError when none has a sentence. */
export function houseStyle(scripts: readonly (readonly PlainSection[])[], tools: StyleTools): HouseStyle {
  const samples = scripts.map((s) => sampleOf(s, tools)).filter((s) => s.said.length);
  if (!samples.length) throw new RangeError('A style is measured from at least one script with words.');
  const said = samples.flatMap((s) => s.said);
  const breaths = samples.flatMap((s) =>
    s.sections.flatMap((x) => x.lines.map((l) => longestStretch(l.text, tools.clock))),
  );
  const measures = MEASURES.map((m): StyleMeasure => {
    const values = samples.flatMap((s) => {
      const v = m.of(s, tools);
      return v === null || !Number.isFinite(v) ? [] : [v];
    });
    const middle = values.length ? middleOf(values) : null;
    const ranked = samples
      .flatMap((s) => s.said.map((x, i) => ({ text: x.text, score: m.shows(x, i, s.said) })))
      .filter((x) => x.text.length <= 160)
      .sort((a, b) => b.score - a.score || a.text.localeCompare(b.text));
    return {
      id: m.id,
      name: m.name,
      unit: m.unit,
      middle: middle === null ? null : rounded(middle),
      spread: middle === null ? null : rounded(middleOf(values.map((v) => Math.abs(v - middle)))),
      examples: [...new Set(ranked.map((r) => r.text))].slice(0, 2),
    };
  });
  const figure = (id: string, otherwise: number) => measures.find((m) => m.id === id)?.middle ?? otherwise;
  return {
    scripts: samples.length,
    words: said.reduce((n, s) => n + s.words.length, 0),
    measures,
    limits: {
      longestSentence: Math.max(
        8,
        Math.round(
          quantile(
            said.map((s) => s.words.length),
            0.9,
          ),
        ),
      ),
      grade: rounded(figure('grade', 7) + 2),
      firstTurn: Math.max(0.1, Math.min(0.6, (figure('turn', 25) / 100) * 1.5)),
    },
    breathMs: Math.max(4000, Math.round(quantile(breaths, 0.95))),
  };
}

/** The longest stretch of a text without any rest, in milliseconds. */
export function longestStretch(text: string, clock: Clock): number {
  let longest = 0;
  let ms = 0;
  for (const token of clock.tokens(text)) {
    ms += token.ms;
    longest = Math.max(longest, ms);
    if (token.pauseMs) ms = 0;
  }
  return longest;
}

export interface StyleDifference {
  id: string;
  name: string;
  unit: string;
  house: number;
  here: number;
  /** How many spreads away; the spread is at least a tenth of the middle. */
  far: number;
}

/** Where a script differs from the channel, farthest first. */
export function againstStyle(
  figures: Readonly<Record<string, number | null>>,
  style: HouseStyle,
): StyleDifference[] {
  return style.measures
    .flatMap((m) => {
      const here = figures[m.id];
      if (m.middle === null || here === null || here === undefined) return [];
      const spread = Math.max(m.spread ?? 0, Math.abs(m.middle) * 0.1, LEAST_SPREAD[m.unit] ?? 0.2);
      return [
        {
          id: m.id,
          name: m.name,
          unit: m.unit,
          house: m.middle,
          here,
          far: rounded((here - m.middle) / spread),
        },
      ];
    })
    .sort((a, b) => Math.abs(b.far) - Math.abs(a.far));
}

/** Below this a difference can't be heard, by unit. */
const LEAST_SPREAD: Readonly<Record<string, number>> = {
  '%': 3,
  words: 0.8,
  'a minute': 0.4,
  'in 100 words': 0.3,
  wpm: 3,
  s: 3,
  share: 0.08,
  '% of the mean': 4,
  '% of the runtime': 4,
  '% new in 50': 1.5,
};

/** Which of several channels a script sounds like: the nearest by mean distance in spreads (nearest centroid). */
export function soundsLike<T extends { style: HouseStyle }>(
  figures: Readonly<Record<string, number | null>>,
  channels: readonly T[],
): T | null {
  const distance = ({ style }: T) => {
    const list = againstStyle(figures, style);
    return list.length ? list.reduce((n, d) => n + Math.min(4, Math.abs(d.far)), 0) / list.length : Infinity;
  };
  return [...channels].sort((a, b) => distance(a) - distance(b))[0] ?? null;
}
