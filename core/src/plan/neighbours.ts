/**
 * Neighbouring groups joined, the nearest pair first and of equals the earlier, until at most `most` are left. `apart` says how
 * far two neighbours are from one another.
 */
export function joinedNeighbours<T>(
  groups: readonly (readonly T[])[],
  most: number,
  apart: (a: readonly T[], b: readonly T[]) => number,
): T[][] {
  const out = groups.map((g) => [...g]);
  const gaps = out.slice(1).map((g, i) => apart(out[i], g));
  while (out.length > Math.max(1, most)) {
    let at = 0;
    for (let i = 1; i < gaps.length; i++) if (gaps[i] < gaps[at]) at = i;
    out.splice(at, 2, [...out[at], ...out[at + 1]]);
    gaps.splice(at, 1);
    if (at > 0) gaps[at - 1] = apart(out[at - 1], out[at]);
    if (at < gaps.length) gaps[at] = apart(out[at], out[at + 1]);
  }
  return out;
}
