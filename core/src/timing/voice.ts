/** A voice as data: what each sound and each rest takes. */
import { z } from 'zod';
import even from '../../data/voices/even.json';
import plain from '../../data/voices/plain.json';
import quick from '../../data/voices/quick.json';

/** Classes of phones that take about the same time; the order is that of every feature vector. */
export const PHONE_CLASSES = [
  'longVowel',
  'shortVowel',
  'weakVowel',
  'voicelessStop',
  'voicedStop',
  'voicelessFricative',
  'voicedFricative',
  'nasal',
  'approximant',
] as const;
export type PhoneClass = (typeof PHONE_CLASSES)[number];
/** Boundaries that a voice rests at. */
export const PAUSES = ['comma', 'clause', 'sentence', 'paragraph'] as const;
export type Pause = (typeof PAUSES)[number];

const ms = z.number().nonnegative().max(10_000);

/** Milliseconds throughout. `scale` multiplies sounds and rests alike, not lead and tail. */
export const voiceSchema = z.object({
  version: z.literal(1),
  id: z.string().min(1).max(60),
  name: z.string().min(1).max(120),
  phoneMs: z.object(Object.fromEntries(PHONE_CLASSES.map((c) => [c, ms])) as Record<PhoneClass, typeof ms>),
  /** Added once a spoken word. */
  wordMs: ms,
  pauseMs: z.object(Object.fromEntries(PAUSES.map((p) => [p, ms])) as Record<Pause, typeof ms>),
  leadMs: ms,
  tailMs: ms,
  scale: z.number().positive().max(20),
  /** What the voice was fitted on: number of recordings and the middle and 90th percentile error, as shares, on recordings left out. */
  calibration: z
    .object({
      recordings: z.number().int().nonnegative(),
      p50: z.number().nonnegative(),
      p90: z.number().nonnegative(),
      note: z.string(),
    })
    .readonly(),
});
export type Voice = Readonly<z.infer<typeof voiceSchema>>;

/** The voices that ship, by id. */
export const SHIPPED_VOICES: Readonly<Record<string, Voice>> = Object.freeze(
  Object.fromEntries([even, plain, quick].map((v) => [v.id, Object.freeze(voiceSchema.parse(v))])),
);
export const DEFAULT_VOICE = SHIPPED_VOICES.even;
