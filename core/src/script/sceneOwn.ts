/** What a writer says of a scene in place of what is computed; every part may be left out. */
import { z } from 'zod';

/** Shot sizes from near to far, as the trade names them. */
export const SHOT_SIZES = ['extreme close-up', 'close-up', 'medium', 'wide', 'extreme wide'] as const;
export type ShotSize = (typeof SHOT_SIZES)[number];
export const SHOT_ANGLES = ['eye level', 'low', 'high', 'overhead'] as const;
export type ShotAngle = (typeof SHOT_ANGLES)[number];
export const SOUND_KINDS = ['ambience', 'effect', 'music'] as const;
export type SoundKind = (typeof SOUND_KINDS)[number];

/** How loud a cue is unless somebody says otherwise, in decibels against the speech. */
export const CUE_LEVELS: Readonly<Record<SoundKind, number>> = { ambience: -24, effect: -12, music: -15 };

/** Decibels against the speech, and by which a cue goes down while somebody speaks; so many cues a scene, of so many letters. */
export const CUE_LIMITS = { level: [-60, 6], dip: [-40, 0], cues: 8, letters: 120 } as const;

export const soundCueSchema = z.object({
  kind: z.enum(SOUND_KINDS),
  what: z.string().trim().min(1).max(CUE_LIMITS.letters),
  /** From the scene's start, in seconds. */
  at: z.number().nonnegative().max(600),
  /** Decibels against the speech. */
  level: z.number().min(CUE_LIMITS.level[0]).max(CUE_LIMITS.level[1]),
  /** Decibels it goes down by while somebody speaks; 0 where it does not. */
  dip: z.number().min(CUE_LIMITS.dip[0]).max(CUE_LIMITS.dip[1]).default(0),
});
export type SoundCue = z.infer<typeof soundCueSchema>;

export const sceneOwnSchema = z
  .object({
    search: z.array(z.string().trim().min(1).max(80)).max(12),
    description: z.string().trim().max(4000),
    size: z.enum(SHOT_SIZES),
    angle: z.enum(SHOT_ANGLES),
    light: z.string().trim().max(120),
    picture: z.string().trim().max(200),
    people: z.string().trim().max(200),
    onScreen: z.array(z.string().trim().min(1).max(120)).max(6),
    sound: z.array(soundCueSchema).max(CUE_LIMITS.cues),
    /** A picture that was chosen: where it is from and under which licence. */
    credit: z.string().trim().max(300),
  })
  .partial();
export type SceneOwn = z.infer<typeof sceneOwnSchema>;
