/** What goes over the wire, as Zod schemas: the server checks by them, the page types by them. */
import { MOST_ROUNDS } from '@ursprung/core/commission/desk';
import { z } from 'zod';
import {
  FRAMES,
  MOODS,
  TARGET_KINDS,
  SHORTEST_TARGET,
  LONGEST_TARGET,
  plainSectionSchema,
} from '@ursprung/core/script';
import {
  HOOK_KINDS,
  SHAPE_IDS,
  briefSchema,
  fixedSchema,
  houseSchema,
  partSchema,
  promiseSchema,
} from '@ursprung/core/plan';
import { MOST_HANDLES, castOwnSchema, paceHandleSchema } from '@ursprung/core/scenes/desk';
import type { HouseStyle } from '@ursprung/core/measure';
import { FRAME_RATES, RECIPIENTS, type Recipient } from '@ursprung/core/handoff/desk';
import { recordingSchema, uploadOwnSchema } from '@ursprung/core/handoff/desk';
import { CHOOSE, MOST_LETTERS, SOURCE_KINDS } from '@ursprung/core/source';

/** Shipped voices by id; kept here so that the page needs no voice data to check a form. */
export const VOICE_IDS = ['even', 'quick', 'plain'] as const;
const length = (what: string) => z.number(`${what} is a number.`);
const seconds = length('A length')
  .min(SHORTEST_TARGET, `A length is at least ${SHORTEST_TARGET} seconds.`)
  .max(LONGEST_TARGET, `A length is at most ${LONGEST_TARGET / 60} minutes.`);
const pace = length('A pace')
  .min(40, 'A pace is at least 40 words a minute.')
  .max(400, 'A pace is at most 400 words a minute.');
const title = z
  .string()
  .trim()
  .min(1, 'A title has at least one letter.')
  .max(200, 'A title has at most 200 letters.');

export const targetInput = z.object({ kind: z.enum(TARGET_KINDS), seconds });

/** How a word is said: respelled, or in the letters of the IPA. */
export const sayingInput = z.object({
  word: z.string().trim().min(1, 'Say which word.').max(60),
  say: z.string().trim().min(1, 'Say how it is said.').max(80),
  ipa: z.string().trim().max(80).optional(),
});
export type Saying = z.infer<typeof sayingInput>;
/** A finding that the writer lets stand. */
export const waiverInput = z.object({
  rule: z.string().max(40),
  line: z.string().max(60),
  text: z.string().max(2000),
  reason: z.string().trim().max(300),
});

export const channelSettings = z.object({
  frame: z.enum(FRAMES),
  mood: z.enum(MOODS),
  pace,
  voice: z.enum(VOICE_IDS),
  usual: z.object({ from: seconds, to: seconds }),
  /** How the channel sounds, where it differs from what an audience needs. */
  house: houseSchema.optional(),
  /** Parts that every script of the channel has. */
  fixed: z.array(fixedSchema).max(12).optional(),
  /** Rules of the Read-through that are switched off. */
  rulesOff: z.array(z.string().max(40)).max(100).optional(),
  sayings: z.array(sayingInput).max(500).optional(),
  /** How the channel's pictures look and how long one stays. */
  pictures: z
    .object({ style: z.string().trim().max(400), usualMs: z.number().int().min(500).max(30_000).optional() })
    .optional(),
  /** What the channel's own scripts measure. */
  style: z
    .custom<HouseStyle>((v) => typeof v === 'object')
    .nullable()
    .optional(),
});
export type ChannelSettings = z.infer<typeof channelSettings>;
export const channelInput = z.object({
  name: z.string().trim().min(1, 'A channel has a name.').max(80, 'A name has at most 80 letters.'),
  settings: channelSettings,
});

export const channelPatch = z.object({
  name: z.string().trim().min(1, 'A channel has a name.').max(80).optional(),
  settings: channelSettings.partial().default({}),
});

export const handoffSettings = z.object({
  rate: z.enum(FRAME_RATES).default('25'),
  /** The most characters that the synthesizer takes at once. */
  ssmlLimit: z
    .number()
    .int()
    .min(500, 'A file for the voice has at least 500 characters.')
    .max(1_000_000)
    .default(5000),
  voiceMade: z.boolean().default(false),
  picturesMade: z.boolean().default(false),
  /** Minutes of voice that the month may cost. */
  voiceMinutes: z.number().min(0).max(100_000).nullable().default(null),
  upload: uploadOwnSchema.default({}),
  /** A recording that everything is timed by, laid against the script in the page. */
  recording: recordingSchema.nullable().default(null),
});
export type HandoffSettings = z.infer<typeof handoffSettings>;

export const scriptSettings = z.object({
  title,
  frame: z.enum(FRAMES),
  mood: z.enum(MOODS),
  pace,
  voice: z.enum(VOICE_IDS),
  target: targetInput,
  seed: z.number().int().min(0).max(1e9),
  shape: z.string().max(40),
  /** Whether the writer asked for it. */
  shapeAsked: z.boolean().optional(),
  brief: briefSchema.optional(),
  promise: promiseSchema.optional(),
  fixed: z.array(fixedSchema).max(12).optional(),
  parts: z.array(partSchema).max(20).optional(),
  waived: z.array(waiverInput).max(500).optional(),
  /** The writer's own curve of seconds a picture. */
  paceCurve: z.array(paceHandleSchema).max(MOST_HANDLES).optional(),
  /** Frame rate and size of files for the next people, what is made by machine, the uploader's own words. */
  handoff: handoffSettings.optional(),
  /** What the writer says of people and places. */
  cast: z.array(castOwnSchema).max(100).optional(),
});
export type ScriptRowSettings = z.infer<typeof scriptSettings>;

export const sourceInput = z
  .object({
    text: z.string().optional(),
    base64: z.string().optional(),
    kind: z.enum(SOURCE_KINDS).optional(),
  })
  .refine((s) => (s.text === undefined) !== (s.base64 === undefined), 'A source is either text or a file.');

/** Whether a source may be retold. */
export const RIGHTS = ['own', 'open', 'asked', 'granted', 'not asked'] as const;
export type Rights = (typeof RIGHTS)[number];
/** What the writer rules about a fact. */
export const MARKS = ['must', 'out', 'wrong', 'wait'] as const;
export const markInput = z.object({
  mark: z.enum(MARKS).nullable(),
  /** For a fact that is wrong: what is right, and why. */
  correct: z.string().trim().max(600).optional(),
  why: z.string().trim().max(300).optional(),
});
export type Mark = { mark: (typeof MARKS)[number]; correct?: string; why?: string };
export type Marks = Readonly<Record<string, Mark>>;
/** A fact from a selection of the source's words, or one that the writer knows. */
export const ownFactInput = z.union([
  z.object({ start: z.number().int().nonnegative(), end: z.number().int().positive() }),
  z.object({ text: z.string().trim().min(3, 'A fact has a few words.').max(600) }),
]);
export type { OwnFact } from '@ursprung/core/facts';
export const sourcePatch = z
  .object({
    kind: z.enum(SOURCE_KINDS),
    rights: z.enum(RIGHTS),
    marks: z.record(z.string().regex(/^[fw][0-9a-z]+(?:-\d+)?$/), markInput),
    addFact: ownFactInput,
    removeFact: z.string().regex(/^w\d+$/),
    /** A piece of the source, by its words, that belongs to its text, doesn't, or is the post that is told. */
    choose: z.object({ text: z.string().min(1).max(MOST_LETTERS), as: z.enum(CHOOSE) }),
  })
  .partial();

/** What reading a source again changes. */
export interface Renewal {
  passages: { before: number; after: number };
  facts: { before: number; after: number; same: number };
  /** Facts whose words stand in others now. */
  moved: { id: string; text: string; to: string[] }[];
  /** Facts whose words are nowhere any more, with the mark that goes with them. */
  lost: { id: string; text: string; mark: Mark['mark'] | null }[];
  /** Lines that rest on those. */
  lines: { script: string; title: string; line: string; text: string }[];
  /** Nothing comes out otherwise. */
  tidy: boolean;
}

const address = z
  .string()
  .trim()
  .max(2000, 'A link has at most 2,000 letters.')
  .regex(/^https?:\/\/\S+$/i, 'A link begins with http:// or https://.');
export const readingInput = z
  .object({ text: z.string(), base64: z.string(), address, kind: z.enum(SOURCE_KINDS) })
  .partial()
  .refine(
    (s) => [s.text, s.base64, s.address].filter((x) => x !== undefined).length === 1,
    'A source is a text, a file or a link.',
  );
export const READING_STATES = ['waiting', 'reading', 'done', 'failed', 'stopped'] as const;
export type ReadingState = (typeof READING_STATES)[number];
/** What the page hears of a reading while it goes on. */
export interface Reading {
  id: string;
  state: ReadingState;
  /** What is being done, in words. */
  stage: string;
  done: number;
  of: number;
  message: string | null;
  sourceId: string | null;
}

export const sourceSearch = z.object({
  q: z.string().trim().max(200).default(''),
  kind: z.enum(SOURCE_KINDS).optional(),
  rights: z.enum(RIGHTS).optional(),
  channel: z.uuid().optional(),
  used: z.enum(['yes', 'no']).optional(),
  publisher: z.string().max(200).optional(),
  licence: z.string().max(200).optional(),
  from: z
    .string()
    .regex(/^\d{4}(-\d{2}){0,2}$/)
    .optional(),
  to: z
    .string()
    .regex(/^\d{4}(-\d{2}){0,2}$/)
    .optional(),
});
/** A source as the library lists it. */
export interface ListedSource {
  id: string;
  title: string;
  kind: string;
  publisher: string | null;
  published: string | null;
  readAt: Date;
  /** How many there are, and how many of them a script tells. */
  passages: number;
  heard: number;
  /** Its passages one after another; in a long source some together. */
  strip: { ms: number; heard: boolean }[];
  /** How many of the library's scripts rest on it. */
  scripts: number;
}
export interface FoundSource extends ListedSource {
  licence: string | null;
  rights: Rights;
  /** Pieces of text around what was searched for, found words between two marks: U+0002 and U+0003. */
  found: string | null;
}

/** How much of the library's lists is asked for: so many of the newest. */
const listed = z.coerce.number().int().min(0).max(2000).default(60);
export const libraryQuery = z.object({
  scripts: listed,
  sources: listed,
  channel: z.uuid().optional(),
  /** Words of a script's title. */
  find: z.string().trim().max(200).default(''),
});

export const scriptInput = z.object({
  channelId: z.uuid(),
  sourceId: z.uuid().optional(),
  /** Further sources beside the first. */
  others: z.array(z.uuid()).max(11, 'A script can rest on at most 12 sources.').optional(),
  title: title.optional(),
  frame: z.enum(FRAMES),
  mood: z.enum(MOODS),
  pace,
  voice: z.enum(VOICE_IDS),
  target: targetInput,
  shape: z.enum(SHAPE_IDS).optional(),
  seed: z.number().int().min(0).max(1e9).default(1),
  brief: briefSchema.optional(),
  promise: promiseSchema.optional(),
  fixed: z.array(fixedSchema).max(12).optional(),
  parts: z.array(partSchema).max(20).optional(),
  hook: z.enum(HOOK_KINDS).optional(),
  /** A finished draft from elsewhere: cleaned instead of drafted. */
  draft: z
    .object({ text: z.string().max(2_000_000), base64: z.string() })
    .partial()
    .optional(),
});
export type ScriptInput = z.input<typeof scriptInput>;
export type ScriptOrder = z.output<typeof scriptInput>;
export const scriptSourceInput = z.object({ sourceId: z.uuid() });
export const carriesInput = z.object({
  sourceId: z.uuid(),
  others: z.array(z.uuid()).max(11).optional(),
  mood: z.enum(MOODS),
  pace,
  voice: z.enum(VOICE_IDS),
  shape: z.enum(SHAPE_IDS).optional(),
  brief: briefSchema.optional(),
});
/** What could be promised: angles, titles, pictures, hooks, shapes. */
export const promiseQuery = z.object({
  sourceId: z.uuid(),
  others: z.array(z.uuid()).max(11).optional(),
  voice: z.enum(VOICE_IDS),
  pace,
  /** Which five angles. */
  page: z.number().int().min(0).max(9).default(0),
  seed: z.number().int().min(0).max(1e9).default(1),
  /** A title to be checked. */
  title: z.string().max(300).optional(),
  /** Whether lines are wanted that show what each mood makes of them. */
  moods: z.boolean().default(false),
});

/** The script as the page has it. */
const plainSections = z
  .array(plainSectionSchema.refine((s) => s.lines.length > 0, 'A section has at least one line.'))
  .min(1)
  .max(400)
  .refine(
    (sections) => sections.every((s) => s.lines.every((l) => l.text.length <= 20_000)),
    'A line has at most 20,000 letters.',
  );
export const REDO = ['hook', 'section', 'line', 'fit', 'move', 'carry', 'shape', 'whole'] as const;
export const redoInput = z.object({
  what: z.enum(REDO),
  /** The script as the page has it: what waits to be saved counts too. */
  sections: plainSections,
  section: z.string().max(60).optional(),
  line: z.string().max(60).optional(),
  to: z.number().int().min(0).max(400).optional(),
  shape: z.enum(SHAPE_IDS).optional(),
  hook: z.enum(HOOK_KINDS).optional(),
  seed: z.number().int().min(0).max(1e9).optional(),
});
export const DERIVED = ['short', 'second', 'audience', 'person'] as const;
export const deriveInput = z.object({
  kind: z.enum(DERIVED),
  seconds: seconds.optional(),
  audience: briefSchema.shape.audience.unwrap().optional(),
  person: briefSchema.shape.person.unwrap().optional(),
});
export const settingsPatch = z.object({
  revision: z.number().int().nonnegative(),
  settings: scriptSettings.partial(),
});

export const MOST_STEPS = 500;
export const stepsInput = z.object({
  version: z.number().int().nonnegative(),
  clientId: z.string().min(4).max(60),
  origin: z.string().max(40).default('typing'),
  steps: z
    .array(z.looseObject({ stepType: z.string().max(40) }))
    .min(1)
    .max(MOST_STEPS),
});

export const reviseInput = z.object({
  note: z.string().trim().min(1, 'Say what should change.').max(600, 'A note has at most 600 letters.'),
  sections: plainSections,
  selection: z
    .object({
      section: z.string().max(60).optional(),
      lines: z.array(z.string().max(60)).max(5000),
      marked: z.boolean().optional(),
    })
    .nullish(),
});
export const figuresInput = z.object({ sections: plainSections });
export const tellingsInput = figuresInput.extend({ line: z.string().max(60) });
export const grammarInput = z.object({ texts: z.array(z.string().max(20_000)).max(4000) });
export const voiceInput = z.object({
  text: z.string().trim().min(1, 'There is nothing to say.').max(6000),
  pace,
});
export const nameInput = z.object({
  version: z.number().int().nonnegative(),
  name: z.string().trim().min(1, 'A version has a name.').max(80, 'A name has at most 80 letters.'),
});
export const styleInput = z.object({ texts: z.array(z.string().max(400_000)).max(60).default([]) });

/** What is ordered: the whole, a section, a line, or what failed of an earlier reply. */
export const commissionScope = z.object({
  section: z.string().max(60).optional(),
  line: z.string().max(60).optional(),
  /** The commission whose reply this is a follow-up to. */
  after: z.uuid().optional(),
});
export type CommissionScope = z.infer<typeof commissionScope>;
export const COMMISSION_STATES = ['waiting', 'arriving', 'arrived', 'broken', 'failed'] as const;
export type CommissionState = (typeof COMMISSION_STATES)[number];
const replyText = z
  .string()
  .max(400_000, 'A reply can have at most 400,000 letters. Paste the part you need.');
export const commissionInput = z.object({
  scope: commissionScope,
  order: z.string().min(1).max(200_000),
  to: z.object({
    kind: z.enum(['person', 'service']),
    who: z.string().trim().max(120).default(''),
  }),
  reply: replyText.default(''),
});
export const replyInput = z.object({ reply: replyText, who: z.string().trim().max(120).optional() });
export interface CommissionView {
  id: string;
  scope: CommissionScope;
  order: string;
  to: { kind: 'person' | 'service' | 'stand-in'; who: string };
  state: CommissionState;
  reply: string;
  message: string | null;
  tokensIn: number;
  tokensOut: number;
  /** In the money of the price that was given; null without one. */
  cost: number | null;
  at: string;
  endedAt: string | null;
}

/** An order told by the service in rounds: which part, and how often it is asked at most. */
export const roundsInput = z.object({
  scope: commissionScope.omit({ after: true }).default({}),
  most: z.number().int().min(1).max(MOST_ROUNDS).default(3),
});
export const ROUNDS_STATES = ['waiting', 'asking', 'done', 'stopped', 'failed'] as const;
export type RoundsState = (typeof ROUNDS_STATES)[number];
/** What came of it. */
export interface RoundsOutcome {
  /** Lines by the writer as they came and mended, by rule, places open, left out for length. */
  count: { taken: number; mended: number; byRule: number; open: number; leftOut: number };
  refused: { text: string; why: string; became: string }[];
  offMs: number;
  seconds: number;
  by: string;
  /** The version of the script that has it. */
  version: number;
}
export interface RoundsView {
  id: string;
  scriptId: string;
  scope: CommissionScope;
  state: RoundsState;
  most: number;
  /** Which round it is in, from 1, and how many orders went out. */
  round: number;
  orders: number;
  /** The order that is being answered, or was last. */
  commission: string | null;
  /** Lines that have come, of the order that is being answered. */
  came: number;
  message: string | null;
  outcome: RoundsOutcome | null;
  /** What came of it, in one sentence; null while it is not over. */
  says: string | null;
  tokensIn: number;
  tokensOut: number;
  cost: number | null;
  at: string;
  endedAt: string | null;
}

const price = z.number().min(0).max(10_000).nullable().default(null);
/** How a text service is asked. `chat`: the chat-completions shape. `text`: the order is posted as plain text, and plain text comes back. */
export const SPEAKS = ['chat', 'text'] as const;
export type Speaks = (typeof SPEAKS)[number];
export const textServiceInput = z.object({
  address: z
    .string()
    .trim()
    .max(500)
    .regex(/^https?:\/\/\S+$/i, 'An address begins with http:// or https://.'),
  speaks: z.enum(SPEAKS).default('chat'),
  model: z.string().trim().max(120).default(''),
  /** Left out, the key that is kept stays. */
  key: z.string().trim().max(500).optional(),
  /** Money for a million tokens sent, and received. */
  priceIn: price,
  priceOut: price,
  monthlyTokens: z
    .number()
    .int()
    .min(1000, 'A limit is at least 1,000 tokens.')
    .max(1e9)
    .nullable()
    .default(null),
});
export interface TextServiceView {
  host: string;
  speaks: Speaks;
  model: string;
  /** Where its address and key come from; settings can be changed in the page, the environment can't. */
  from: 'environment' | 'settings';
  address: string | null;
  hasKey: boolean;
  standIn: boolean;
  priceIn: number | null;
  priceOut: number | null;
  monthlyTokens: number | null;
  usedTokens: number;
  usedCost: number | null;
}
export interface TextServiceState {
  service: TextServiceView | null;
  /** Whether a key could be kept here. */
  canKeep: boolean;
}

export const handoffInput = z.object({
  who: z.enum(RECIPIENTS).nullable().default(null),
  without: z.array(z.string().max(20)).max(40).default([]),
  language: z.string().max(20).nullable().default(null),
});
export const HANDOFF_STATES = ['waiting', 'writing', 'done', 'failed'] as const;
export type HandoffState = (typeof HANDOFF_STATES)[number];
/** A file of a kit, and one that was left out. */
export const handedFile = z.object({
  name: z.string(),
  format: z.string(),
  bytes: z.number().int().nonnegative(),
  /** In hexadecimal. */
  sha256: z.string(),
});
export const leftOut = z.object({ format: z.string(), why: z.string() });
export interface HandoffView {
  id: string;
  who: Recipient | null;
  language: string | null;
  state: HandoffState;
  stage: string;
  done: number;
  of: number;
  message: string | null;
  files: z.infer<typeof handedFile>[];
  left: z.infer<typeof leftOut>[];
  at: string;
}
export const filmInput = figuresInput;
export const translationInput = z.object({
  xliff: z.string().max(8_000_000, 'This file is larger than any translated script.'),
});
/** One line of a translation said otherwise; empty: not translated. */
export const translatedLineInput = z.object({
  line: z.string().min(1).max(40),
  text: z.string().trim().max(4000, 'A line has at most 4,000 characters.'),
});
export const machineInput = z.object({
  language: z.literal('es', 'The stand-in translates into Spanish only.'),
});
