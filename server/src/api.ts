/** What goes over the wire, as Zod schemas: the server checks by them, the page types by them. */
import { z } from 'zod';
import { FRAMES, MOODS, TARGET_KINDS, SHORTEST_TARGET, LONGEST_TARGET } from '@ursprung/core/script';
import { SHAPE_IDS } from '@ursprung/core/plan';
import { SOURCE_KINDS } from '@ursprung/core/source';

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

export const channelSettings = z.object({
  frame: z.enum(FRAMES),
  mood: z.enum(MOODS),
  pace,
  voice: z.enum(VOICE_IDS),
  usual: z.object({ from: seconds, to: seconds }),
});
export type ChannelSettings = z.infer<typeof channelSettings>;
export const channelInput = z.object({
  name: z.string().trim().min(1, 'A channel has a name.').max(80, 'A name has at most 80 letters.'),
  settings: channelSettings,
});

export const scriptSettings = z.object({
  title,
  frame: z.enum(FRAMES),
  mood: z.enum(MOODS),
  pace,
  voice: z.enum(VOICE_IDS),
  target: targetInput,
  seed: z.number().int().min(0).max(1e9),
  shape: z.string().max(40),
});
export type ScriptRowSettings = z.infer<typeof scriptSettings>;

export const sourceInput = z
  .object({
    text: z.string().optional(),
    base64: z.string().optional(),
    kind: z.enum(SOURCE_KINDS).optional(),
  })
  .refine((s) => (s.text === undefined) !== (s.base64 === undefined), 'A source is either text or a file.');
export const sourcePatch = z.object({ kind: z.enum(SOURCE_KINDS) });

export const scriptInput = z.object({
  channelId: z.uuid(),
  sourceId: z.uuid().optional(),
  title: title.optional(),
  frame: z.enum(FRAMES),
  mood: z.enum(MOODS),
  pace,
  voice: z.enum(VOICE_IDS),
  target: targetInput,
  shape: z.enum(SHAPE_IDS).optional(),
  seed: z.number().int().min(0).max(1e9).default(1),
});
export type ScriptInput = z.input<typeof scriptInput>;
export const carriesInput = z.object({
  sourceId: z.uuid(),
  mood: z.enum(MOODS),
  pace,
  voice: z.enum(VOICE_IDS),
  shape: z.enum(SHAPE_IDS).optional(),
});
export const settingsPatch = z.object({
  revision: z.number().int().nonnegative(),
  settings: scriptSettings.omit({ seed: true, shape: true }).partial(),
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
