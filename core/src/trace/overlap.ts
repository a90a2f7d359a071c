/** Overlap: unquoted words of the script inside runs of RUN or more with a source, over all unquoted words. Names count in neither and don't break a run. */
import { comparedWords, nameWords } from './words.ts';

/** The shortest run that counts. */
export const RUN = 8;

export interface SourceIndex {
  /** Every run of RUN words of the sources. */
  runs: ReadonlySet<string>;
  names: ReadonlySet<string>;
}

/** Prepares sources for comparison. Linear in their length. */
export function indexSources(texts: readonly string[]): SourceIndex {
  const names = new Set<string>();
  for (const text of texts) for (const n of nameWords(text)) names.add(n);
  const runs = new Set<string>();
  for (const text of texts) {
    const words = comparedWords(text, names).filter((w) => !w.name);
    for (let i = 0; i + RUN <= words.length; i++)
      runs.add(
        words
          .slice(i, i + RUN)
          .map((w) => w.key)
          .join(' '),
      );
  }
  return { runs, names };
}

export interface LineOverlap {
  /** Unquoted words that are no names. */
  words: number;
  /** Of these, how many stand in a shared run. */
  shared: number;
  /** Character ranges of the line that stand in shared runs. */
  ranges: { start: number; end: number }[];
}

export interface Overlap {
  /** 0 to 1; 0 for a script without words. */
  share: number;
  /** Words in the longest shared run. */
  longestRun: number;
  lines: LineOverlap[];
}

/** Stretches of lines inside a quotation that runs over several of them: to the letter, like any other. */
function speechOver(lines: readonly string[]): (readonly [number, number])[][] {
  let open = false;
  let since = 0;
  return lines.map((text) => {
    const out: (readonly [number, number])[] = [];
    let from = open ? 0 : -1;
    if (open && ++since > LONGEST_SPEECH) open = false;
    for (const m of text.matchAll(/[“”]/g))
      if (m[0] === '“') {
        // A line inside a quotation may open it again, as printers do.
        if (from < 0) from = m.index;
        open = true;
        since = 0;
      } else {
        if (from >= 0) out.push([from, m.index + 1]);
        from = -1;
        open = false;
      }
    if (open && from >= 0) out.push([from, text.length]);
    return out;
  });
}
/** A quotation that nobody closes is let go after so many lines. */
const LONGEST_SPEECH = 6;

/** Overlap of a script, line by line. A run may go on over the end of a line. Linear in the script's length. */
export function overlap(lines: readonly string[], index: SourceIndex): Overlap {
  const flat: { key: string; line: number; start: number; end: number }[] = [];
  /** Where a quotation interrupts: no run crosses it. */
  const breaks = new Set<number>();
  const speech = speechOver(lines);
  lines.forEach((text, line) => {
    for (const w of comparedWords(text, index.names)) {
      if (w.quoted || speech[line].some(([from, to]) => w.start >= from && w.end <= to))
        breaks.add(flat.length);
      else if (!w.name) flat.push({ key: w.key, line, start: w.start, end: w.end });
    }
  });
  const hit = new Uint8Array(flat.length);
  let longestRun = 0;
  let run = 0;
  let lastStart = -2;
  for (let i = 0; i + RUN <= flat.length; i++) {
    let crosses = false;
    for (let j = i + 1; j < i + RUN; j++) if (breaks.has(j)) crosses = true;
    if (
      crosses ||
      !index.runs.has(
        flat
          .slice(i, i + RUN)
          .map((w) => w.key)
          .join(' '),
      )
    )
      continue;
    hit.fill(1, i, i + RUN);
    run = lastStart === i - 1 ? run + 1 : RUN;
    lastStart = i;
    longestRun = Math.max(longestRun, run);
  }
  const out: LineOverlap[] = lines.map(() => ({ words: 0, shared: 0, ranges: [] }));
  flat.forEach((w, i) => {
    const entry = out[w.line];
    entry.words++;
    if (!hit[i]) return;
    entry.shared++;
    const last = entry.ranges[entry.ranges.length - 1];
    if (last && i > 0 && hit[i - 1] && flat[i - 1].line === w.line) last.end = w.end;
    else entry.ranges.push({ start: w.start, end: w.end });
  });
  const words = flat.length;
  return { share: words ? hit.reduce((a, b) => a + b, 0) / words : 0, longestRun, lines: out };
}

/** Whether a line is still in the source's words: half of its words or more stand in shared runs. */
export const isClose = (line: LineOverlap): boolean => line.shared > 0 && line.shared * 2 >= line.words;
