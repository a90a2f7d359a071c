/**
 * What is new when: for each ten seconds how much reaches the listener that was not said before, by the rarity of its
 * words (inverse document frequency over the script's own lines, after Spärck Jones 1972), new word pairs counted half.
 */
import { stems } from '../facts/centrality.ts';

export interface TimedText {
  text: string;
  startMs: number;
  ms: number;
}

export interface NoveltyWindow {
  startMs: number;
  /** 0: nothing new; 1: as much as the fullest ten seconds. */
  share: number;
  /** Whether nothing new reaches the listener: below a quarter of the middle. */
  slack: boolean;
}

export const WINDOW_MS = 10_000;
const SLACK_SHARE = 0.25;

export function noveltyOf(lines: readonly TimedText[]): NoveltyWindow[] {
  const whole = lines.reduce((most, l) => Math.max(most, l.startMs + l.ms), 0);
  if (!whole) return [];
  const stemmed = lines.map((l) => stems(l.text));
  const seenIn = new Map<string, number>();
  for (const list of stemmed) for (const s of new Set(list)) seenIn.set(s, (seenIn.get(s) ?? 0) + 1);
  const told = new Set<string>();
  const windows = new Float64Array(Math.ceil(whole / WINDOW_MS));
  lines.forEach((line, i) => {
    const list = stemmed[i];
    list.forEach((s, k) => {
      const pair = k > 0 ? `${list[k - 1]} ${s}` : null;
      let gain = 0;
      if (!told.has(s)) gain += Math.log((lines.length + 1) / seenIn.get(s)!) + 0.2;
      if (pair && !told.has(pair)) gain += 0.5;
      told.add(s);
      if (pair) told.add(pair);
      if (!gain) return;
      // A word is heard at its place in the line.
      const at = line.startMs + (line.ms * (k + 0.5)) / list.length;
      windows[Math.min(windows.length - 1, Math.floor(at / WINDOW_MS))] += gain;
    });
  });
  // The last window is as long as it is.
  const rest = whole % WINDOW_MS;
  if (rest >= 2000) windows[windows.length - 1] *= WINDOW_MS / rest;
  const most = Math.max(...windows);
  const sorted = [...windows].sort((a, b) => a - b);
  const middle = sorted[Math.floor(sorted.length / 2)];
  return [...windows].map((w, i) => ({
    startMs: i * WINDOW_MS,
    share: most ? Math.round((w / most) * 1000) / 1000 : 0,
    // A last breath of a few seconds is an end, no slack.
    slack: w < middle * SLACK_SHARE && (i < windows.length - 1 || rest === 0 || rest > WINDOW_MS / 2),
  }));
}
