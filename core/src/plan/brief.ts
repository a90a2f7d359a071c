/** The brief: for whom, how it sounds, what is in and out. Every setting changes something that is computed; what, stands beside it. */
import { z } from 'zod';
import { MOODS } from '../script/file.ts';
import { GENRES } from './genre.ts';
import { MOOD_RULES } from './moods.ts';

export const AUDIENCES = ['anyone', 'newcomers', 'children', 'specialists'] as const;
export type Audience = (typeof AUDIENCES)[number];
export const PERSONS = ['they', 'you', 'i'] as const;
export type Person = (typeof PERSONS)[number];
export const WORDS = ['own', 'plain', 'source'] as const;
export const AIMS = ['none', 'answer', 'next', 'follow', 'source'] as const;
export type Aim = (typeof AIMS)[number];
export const SPELLINGS = ['as written', 'British', 'American'] as const;
export const UNIT_SYSTEMS = ['as written', 'metric', 'imperial', 'both'] as const;

/** What a brief takes of the writer's own words: so many points of so many letters, a listener, a name. */
export const BRIEF_LIMITS = { points: 40, point: 200, listener: 300, whose: 80 } as const;
const points = z.array(z.string().trim().min(2).max(BRIEF_LIMITS.point)).max(BRIEF_LIMITS.points).default([]);

export const houseSchema = z.object({
  /** The longest sentence of the channel, in words. */
  longest: z.number().int().min(8).max(40).optional(),
  contractions: z.boolean().optional(),
  /** Questions and other framing lines a minute that the channel is used to. */
  framing: z.number().min(0).max(4).optional(),
});
export type House = z.infer<typeof houseSchema>;

export const briefSchema = z.object({
  /** Sets the longest sentence, and leaves out for children and newcomers what is for specialists. */
  audience: z.enum(AUDIENCES).default('anyone'),
  /** Sets rests between sections, contractions, and which framing lines are used. */
  mood: z.enum(MOODS).default('calm'),
  /** Left out, the source's own. */
  person: z.enum(PERSONS).optional(),
  /** How far from the source's words. */
  words: z.enum(WORDS).default('own'),
  /** The listener's next step: the last line. */
  aim: z.enum(AIMS).default('none'),
  /** Words that are never said, in any form. */
  avoid: z.array(z.string().trim().min(2).max(40)).max(60).default([]),
  spelling: z.enum(SPELLINGS).default('as written'),
  units: z.enum(UNIT_SYSTEMS).default('as written'),
  /** In a story: people by their initial, places unnamed. */
  veil: z.boolean().default(false),
  house: houseSchema.default({}),
  /** Points and keywords to be covered: facts that have them are told before others. */
  cover: points,
  /** Who listens, in the writer's words: stands in orders. */
  listener: z.string().trim().max(BRIEF_LIMITS.listener).default(''),
  /** What they know already, in points: told rather less. */
  known: points,
  /** What kind of piece it is: which facts are told rather than others, and the usual shape. */
  genre: z.enum(GENRES).optional(),
  /** Whose portrait or opinion. */
  whose: z.string().trim().max(BRIEF_LIMITS.whose).default(''),
});
export type Brief = z.infer<typeof briefSchema>;
export type BriefInput = z.input<typeof briefSchema>;
export const usualBrief = (): Brief => briefSchema.parse({});

/** The longest sentence an audience follows by ear, in words (common practice, no published source). */
export const LONGEST_SENTENCE: Readonly<Record<Audience, number>> = {
  anyone: 26,
  newcomers: 22,
  children: 16,
  specialists: 32,
};

/** The longest sentence that listeners follow, in words. */
export const longestBreath = (brief: Brief): number =>
  brief.house.longest ?? LONGEST_SENTENCE[brief.audience];
/** Down to this many words sentences are parted where they can be: what listeners follow, or less as the mood wants it. */
export const longestSentence = (brief: Brief): number =>
  brief.house.longest ??
  Math.min(LONGEST_SENTENCE[brief.audience], MOOD_RULES[brief.mood].longest ?? Infinity);
export const contracts = (brief: Brief): boolean =>
  brief.house.contractions ?? MOOD_RULES[brief.mood].contractions;
/** A sentence shorter than this is never taken apart, and none down to less than so many words below the longest. */
const [LEAST_WHOLE, BELOW_LONGEST] = [8, 7];
/** How sentences are told: by the listeners, the channel and the mood. */
export const manner = (brief: Brief) => ({
  contractions: contracts(brief),
  longest: longestSentence(brief),
  breath: longestBreath(brief),
  partFrom: Math.max(
    LEAST_WHOLE,
    Math.min(MOOD_RULES[brief.mood].whole, longestSentence(brief) - BELOW_LONGEST),
  ),
  timeFirst: MOOD_RULES[brief.mood].timeFirst,
});
/** Framing lines a minute, at most: the channel’s habit stands over the mood. */
export const framingLines = (brief: Brief): number => brief.house.framing ?? MOOD_RULES[brief.mood].questions;

/** What speaks against a brief, in words for the person; empty when nothing does. */
export function contradictions(
  brief: Brief,
  firstPerson: boolean,
  points: { must: readonly string[]; out: readonly string[] },
): string[] {
  const both = points.must.filter((m) => points.out.includes(m));
  return [
    ...(brief.person === 'i' && !firstPerson
      ? ['Nobody in these sources says “I”, so it can’t be told in the first person.']
      : []),
    ...(both.length
      ? [
          `${both.length === 1 ? 'One fact is' : `${both.length} facts are`} marked to be told and to be left out.`,
        ]
      : []),
    ...(brief.house.longest !== undefined && brief.house.longest < 10 && brief.audience === 'specialists'
      ? ['Sentences under ten words leave nothing that specialists came for.']
      : []),
  ];
}
