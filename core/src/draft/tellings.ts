/**
 * The exact choice among tellings of different length: one for each unit, so that together they take a time within a
 * window and are worth most. Dynamic programming over time in steps of GRAIN; exact to a grain.
 */

export interface Telling {
  ms: number;
  worth: number;
}

/** Time is counted in steps of this many milliseconds. */
export const GRAIN = 10;

/** For each unit which telling, or null when no choice falls between the bounds. Cost: units × tellings × window of times. */
export function chooseTellings(
  options: readonly (readonly Telling[])[],
  minMs: number,
  maxMs: number,
): number[] | null {
  if (!options.length) return minMs <= 0 ? [] : null;
  if (options.some((o) => !o.length)) return null;
  const least = options.map((o) => Math.min(...o.map((t) => t.ms)));
  const floor = least.reduce((a, b) => a + b, 0);
  const room = Math.floor((maxMs - floor) / GRAIN);
  if (room < 0) return null;
  // best[t]: the most worth with t grains over the shortest choice so far.
  let best = new Float64Array(room + 1).fill(-Infinity);
  best[0] = 0;
  const picks: Int16Array[] = [];
  for (let u = 0; u < options.length; u++) {
    const next = new Float64Array(room + 1).fill(-Infinity);
    const pick = new Int16Array(room + 1).fill(-1);
    options[u].forEach((t, k) => {
      const step = Math.round((t.ms - least[u]) / GRAIN);
      for (let at = 0; at + step <= room; at++)
        if (best[at] > -Infinity && best[at] + t.worth > next[at + step]) {
          next[at + step] = best[at] + t.worth;
          pick[at + step] = k;
        }
    });
    picks.push(pick);
    best = next;
  }
  let end = -1;
  for (let at = Math.max(0, Math.ceil((minMs - floor) / GRAIN)); at <= room; at++)
    if (best[at] > -Infinity && (end < 0 || best[at] > best[end])) end = at;
  if (end < 0) return null;
  const chosen: number[] = [];
  for (let u = options.length - 1, at = end; u >= 0; u--) {
    const k = picks[u][at];
    chosen.unshift(k);
    at -= Math.round((options[u][k].ms - least[u]) / GRAIN);
  }
  return chosen;
}
