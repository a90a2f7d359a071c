/** How long a picture should stay: a curve over the script, by frame, mood and what a section is there for. */
import { z } from 'zod';
import type { Frame, Mood } from '../script/file.ts';
import type { PlainSection, SectionRole } from '../script/data.ts';

/** Seconds of one picture in the middle of a script: long form, vertical short, square (common practice, no published source). */
export const USUAL_SCENE_MS: Readonly<Record<Frame, number>> = { '16:9': 5000, '9:16': 2000, '1:1': 3000 };
/** A picture held longer than this tires (common practice, no published source). */
export const LONG_SCENE_MS: Readonly<Record<Frame, number>> = { '16:9': 12_000, '9:16': 5000, '1:1': 8000 };
/** Quicker in the opening and where things are unsettled, calmer where they settle (common practice, no published source). */
const BY_ROLE: Readonly<Record<SectionRole, number>> = {
  hook: 0.7,
  ground: 1.05,
  turn: 0.85,
  workings: 1,
  strain: 0.9,
  settle: 1.1,
  close: 1.15,
};
const BY_MOOD: Readonly<Record<Mood, number>> = {
  calm: 1.05,
  brisk: 0.85,
  warm: 1,
  dry: 1,
  grave: 1.15,
  light: 0.9,
  suspense: 1.1,
  playful: 0.85,
};

/** How long a picture may be wanted, in seconds. */
export const SHORTEST_PICTURE = 0.5;
export const LONGEST_PICTURE = 30;
/** The most handles of a curve. */
export const MOST_HANDLES = 40;
/** A handle of the writer's own curve: at a share of the script's planned time, so many seconds a picture. */
export const paceHandleSchema = z.object({
  at: z.number().min(0).max(1),
  seconds: z.number().min(SHORTEST_PICTURE).max(LONGEST_PICTURE),
});
export type PaceHandle = z.infer<typeof paceHandleSchema>;

export interface PaceWanted {
  frame: Frame;
  mood?: Mood;
  /** The channel's own seconds a picture, in place of the frame's. */
  usualMs?: number;
  /** The writer's own curve; it stands in place of everything else. */
  handles?: readonly PaceHandle[];
}

/** What a channel and a script themselves want of pictures, as far as they say it. */
export const ownPace = (own: {
  usualMs?: number | undefined;
  paceCurve?: readonly PaceHandle[] | undefined;
}): Pick<PaceWanted, 'usualMs' | 'handles'> => ({
  ...(own.usualMs ? { usualMs: own.usualMs } : {}),
  ...(own.paceCurve?.length ? { handles: own.paceCurve } : {}),
});

/**
 * Wanted milliseconds of a picture for each section, in order. A section's place on the writer's curve is taken from the
 * planned seconds and not from the spoken ones, so that typing in one section moves no cut in another.
 */
export function wantedMs(
  sections: readonly Pick<PlainSection, 'role' | 'plannedMs'>[],
  wanted: PaceWanted,
): number[] {
  const usual = wanted.usualMs ?? USUAL_SCENE_MS[wanted.frame];
  const handles = [...(wanted.handles ?? [])].sort((a, b) => a.at - b.at);
  const middles = middlesOf(sections);
  return sections.map((section, i) => {
    if (handles.length) return Math.round(onCurve(handles, middles[i]) * 1000);
    const role = i === 0 ? Math.min(BY_ROLE.hook, BY_ROLE[section.role]) : BY_ROLE[section.role];
    return Math.round(usual * role * BY_MOOD[wanted.mood ?? 'warm']);
  });
}

/** Where the middle of each section stands on the curve, as a share of the planned seconds. */
export function middlesOf(sections: readonly Pick<PlainSection, 'plannedMs'>[]): number[] {
  const whole = sections.reduce((sum, s) => sum + s.plannedMs, 0);
  let before = 0;
  return sections.map((s, i) => {
    const middle = whole ? (before + s.plannedMs / 2) / whole : (i + 0.5) / sections.length;
    before += s.plannedMs;
    return middle;
  });
}

/** Straight lines between handles, level beyond the outer ones. */
function onCurve(handles: readonly PaceHandle[], at: number): number {
  const next = handles.findIndex((h) => h.at >= at);
  if (next < 0) return handles[handles.length - 1].seconds;
  if (next === 0) return handles[0].seconds;
  const [a, b] = [handles[next - 1], handles[next]];
  return a.seconds + ((b.seconds - a.seconds) * (at - a.at)) / (b.at - a.at || 1);
}
