/**
 * What a mood does to a draft, as rules that a listener can hear and a writer can follow: how long sentences run, how often
 * the listener is asked, how long it rests, what is told rather than left out, what opens. Common practice, no published source.
 */
import type { Fact } from '../facts/facts.ts';
import type { Mood } from '../script/file.ts';
import type { HookKind } from './hooks.ts';
import { CAUSE, TROUBLE, UNKNOWN } from './material.ts';

/** What facts hold, as moods ask for it. */
const HOLDS = {
  quotations: (f) => f.quotes.length > 0,
  figures: (f) => f.numbers.length > 0,
  people: (f) => f.names.some((n) => n.type === 'person'),
  moments: (f) => f.times.length > 0 || f.dates.length > 0,
  trouble: (f) => TROUBLE.test(f.text),
  reasons: (f) => CAUSE.test(f.text) || f.type === 'cause',
  doubts: (f) => UNKNOWN.test(f.text) || f.modality !== 'plain' || /\?["”]?$/.test(f.text),
  oddities: (f) => f.parts.surprising >= 0.25,
} as const satisfies Record<string, (fact: Fact) => boolean>;
export type Held = keyof typeof HOLDS;

export interface MoodRules {
  /** How it sounds, in a few words. */
  says: string;
  /** Sentences over so many words are parted where they can be; null as the listeners allow. */
  longest: number | null;
  /** Shorter sentences stay whole, in words. */
  whole: number;
  /** Whether a time at a sentence's end goes to its front. */
  timeFirst: boolean;
  contractions: boolean;
  /** Questions and other framing lines a minute, at most. */
  questions: number;
  /** The rest between sections, in milliseconds. */
  restMs: number;
  /** How much more, or less, facts that hold these are worth. */
  worth: Readonly<Partial<Record<Held, number>>>;
  /** Kinds of hooks that open it, the first that the source carries; none: as the source opens. */
  opens: readonly HookKind[];
}

export const MOOD_RULES: Readonly<Record<Mood, MoodRules>> = {
  calm: {
    says: 'even and unhurried',
    longest: null,
    whole: 13,
    timeFirst: true,
    contractions: true,
    questions: 1.2,
    restMs: 700,
    worth: {},
    opens: [],
  },
  brisk: {
    says: 'quick, one thing after another',
    longest: 16,
    whole: 8,
    timeFirst: true,
    contractions: true,
    questions: 0.6,
    restMs: 200,
    worth: { moments: 2.5, trouble: 2, quotations: 0.3, reasons: 0.7 },
    opens: ['stakes', 'figure', 'contradiction'],
  },
  warm: {
    says: 'close to people and what they say',
    longest: null,
    whole: 19,
    timeFirst: false,
    contractions: true,
    questions: 1.2,
    restMs: 550,
    worth: { quotations: 3, people: 2.2, figures: 0.3 },
    opens: ['scene', 'confession', 'promise'],
  },
  dry: {
    says: 'plain figures, little said around them',
    longest: 22,
    whole: 15,
    timeFirst: true,
    contractions: false,
    questions: 0,
    restMs: 450,
    worth: { figures: 3, reasons: 1.6, quotations: 0.3, people: 0.7 },
    opens: ['figure', 'contradiction'],
  },
  grave: {
    says: 'slow and in full words',
    longest: 20,
    whole: 19,
    timeFirst: true,
    contractions: false,
    questions: 0,
    restMs: 900,
    worth: { trouble: 3, moments: 1.6, oddities: 0.6, quotations: 0.7 },
    opens: ['stakes'],
  },
  light: {
    says: 'easy, with an eye for small things',
    longest: 20,
    whole: 12,
    timeFirst: false,
    contractions: true,
    questions: 1.2,
    restMs: 350,
    worth: { oddities: 2.5, people: 1.6, trouble: 0.4, figures: 0.7 },
    opens: ['contradiction', 'scene'],
  },
  suspense: {
    says: 'short, drawn to what is not known',
    longest: 14,
    whole: 8,
    timeFirst: false,
    contractions: true,
    questions: 2,
    restMs: 800,
    worth: { doubts: 3, trouble: 2.2, moments: 1.4, figures: 0.5 },
    opens: ['question', 'contradiction', 'stakes'],
  },
  playful: {
    says: 'short, drawn to what is odd, asking along the way',
    longest: 18,
    whole: 10,
    timeFirst: true,
    contractions: true,
    questions: 2.4,
    restMs: 300,
    worth: { oddities: 3, quotations: 2.2, moments: 0.4, reasons: 1.6 },
    opens: ['contradiction', 'question', 'confession'],
  },
};

/** How much more a fact is worth in a mood than in an even telling. */
export const moodWorth = (mood: Mood, fact: Fact): number =>
  Object.entries(MOOD_RULES[mood].worth).reduce(
    (worth, [held, factor]) => (HOLDS[held as Held](fact) ? worth * factor : worth),
    1,
  );

const and = new Intl.ListFormat('en-GB', { type: 'conjunction' });
const or = new Intl.ListFormat('en-GB', { type: 'disjunction' });

/** What a mood tells rather than leaves out, in a sentence; empty when it tells all alike. */
export function moodTells(mood: Mood): string {
  const held = Object.entries(MOOD_RULES[mood].worth);
  const more = held.filter(([, w]) => w > 1).map(([h]) => h);
  const less = held.filter(([, w]) => w < 1).map(([h]) => h);
  if (!more.length) return '';
  return `More ${and.format(more)}${less.length ? `, fewer ${and.format(less)}` : ''}.`;
}

/** A mood's rules as rows that a person can read and follow. */
export function moodRows(mood: Mood): string[] {
  const { longest, contractions, questions, restMs, opens } = MOOD_RULES[mood];
  const tells = moodTells(mood);
  return [
    longest === null
      ? 'Sentences as long as the listeners follow.'
      : `Sentences of ${longest} words at most, where they can be parted.`,
    contractions ? 'Contractions.' : 'No contractions.',
    questions ? `Up to ${questions} questions a minute to the listener.` : 'No questions to the listener.',
    `${restMs / 1000} s of rest between sections.`,
    opens.length
      ? `Opens with ${or.format(opens.map((o) => `${/^[aeiou]/.test(o) ? 'an' : 'a'} ${o}`))}.`
      : 'Opens as its source does.',
    ...(tells ? [tells] : []),
  ];
}
