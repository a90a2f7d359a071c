/** How long pictures must be wanted for a script to be cut into a given number of them. */
import type { PlainSection } from '../script/data.ts';
import type { Clock } from '../timing/clock.ts';
import { breakScenes } from './breaks.ts';
import {
  LONGEST_PICTURE,
  MOST_HANDLES,
  SHORTEST_PICTURE,
  middlesOf,
  wantedMs,
  type PaceHandle,
  type PaceWanted,
} from './pace.ts';

/** More pictures than any script is cut into. */
export const MOST_PICTURES = 5000;
/** The curve is made so many times longer or shorter at most. */
const MOST = 16;
const HALVINGS = 16;

export interface PaceForCount {
  handles: PaceHandle[];
  /** The pictures that the script then has: words, marks and rests may allow no nearer number. */
  count: number;
}

/**
 * The wanted curve, longer or shorter throughout, with which a script has as nearly `count` pictures as its words and
 * the writer's own cuts allow. Whole numbers from 1 on. How sections differ from each other stays.
 */
export function paceForCount(
  count: number,
  sections: readonly PlainSection[],
  clock: Clock,
  pace: PaceWanted,
): PaceForCount {
  const wanted = wantedMs(sections, pace);
  // A handle in the middle of each section, where the section's own wish is read; of very many sections each second or third.
  const each = Math.ceil(sections.length / MOST_HANDLES);
  const base = middlesOf(sections)
    .map((middle, i) => ({ at: Math.round(middle * 1e4) / 1e4, seconds: wanted[i] / 1000 }))
    .filter((_, i) => i % each === 0);
  const by = (factor: number): PaceHandle[] =>
    base.map(({ at, seconds }) => ({
      at,
      seconds: Math.round(Math.max(SHORTEST_PICTURE, Math.min(LONGEST_PICTURE, seconds * factor)) * 10) / 10,
    }));
  let best: PaceForCount | null = null;
  let [low, high] = [Math.log(1 / MOST), Math.log(MOST)];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    const handles = by(Math.exp(middle));
    const found = breakScenes(sections, clock, { ...pace, handles }).length;
    if (!best || Math.abs(found - count) < Math.abs(best.count - count)) best = { handles, count: found };
    if (found === count) break;
    // Longer pictures are fewer.
    if (found > count) low = middle;
    else high = middle;
  }
  return best!;
}
