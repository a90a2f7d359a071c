/** Open lines: places kept for what must be said and is not written yet. */
import { isOpen, type LineSource, type PlainLine, type PlainSection } from '../script/data.ts';
import { emptyLine } from '../script/schema.ts';

/** The place of each fact in its source, for `withOpenLine`. */
export function placesIn(
  sources: readonly { letter: string; facts: readonly { id: string }[] }[],
): (ref: { source: string; fact?: string | undefined }) => number | null {
  const order = new Map(sources.flatMap((s) => s.facts.map((f, i) => [`${s.letter}:${f.id}`, i] as const)));
  return (f) => order.get(`${f.source}:${f.fact}`) ?? null;
}

/** At most one open line a minute, and together this share of the length. */
const MOST_OPEN_A_MINUTE = 1;
const MOST_OPEN_SHARE = 0.05;

export interface OpenPlace {
  /** What it must say. */
  asks: readonly LineSource[];
  /** The time it will take. */
  ms: number;
}

export const openLine = (id: string, { asks, ms }: OpenPlace): PlainLine => ({
  ...emptyLine(id),
  open: asks,
  fixedMs: Math.round(ms / 100) * 100,
});

/**
 * The sections with a place kept behind the last line that tells something before it in its source; at the end of the opening
 * when nothing before it is told. `placeOf` is the place of a fact in its source, or null.
 */
export function withOpenLine(
  sections: readonly PlainSection[],
  line: PlainLine,
  placeOf: (ref: { source: string; fact?: string | undefined }) => number | null,
): PlainSection[] {
  const at = placeOf(line.open?.[0] ?? { source: '' }) ?? 0;
  let [section, after] = [0, sections[0].lines.length - 1];
  sections.forEach((s, i) =>
    s.lines.forEach((l, k) => {
      // What opens a script was moved to its front: it says nothing of the order.
      if (i === 0) return;
      const places = [...l.from, ...(l.open ?? [])].flatMap((f) => placeOf(f) ?? []);
      if (places.length && Math.max(...places) < at) [section, after] = [i, k];
    }),
  );
  return sections.map((s, i) =>
    i === section ? { ...s, lines: [...s.lines.slice(0, after + 1), line, ...s.lines.slice(after + 1)] } : s,
  );
}

/** The first of the places that are few and short enough together for a script of so many seconds. */
export function fewEnough(places: readonly OpenPlace[], seconds: number): OpenPlace[] {
  const kept: OpenPlace[] = [];
  let ms = 0;
  for (const place of places) {
    if (kept.length + 1 > (seconds / 60) * MOST_OPEN_A_MINUTE) break;
    if (ms + place.ms > seconds * 1000 * MOST_OPEN_SHARE) continue;
    ms += place.ms;
    kept.push(place);
  }
  return kept;
}

/** How many places are open, and how long together. */
export function openIn(sections: readonly PlainSection[]): { count: number; ms: number } {
  const open = sections.flatMap((s) => s.lines).filter(isOpen);
  return { count: open.length, ms: open.reduce((n, l) => n + (l.fixedMs ?? 0), 0) };
}
