/**
 * Captions from the clock, broken by sense and chosen together by dynamic programming, so that none is hurried where its
 * neighbours have time to lend. Rows: at most two of 42 characters, 17 a second wanted, 20 the most that adults follow, a
 * cue between 5/6 s and 7 s, at least two frames between cues, breaks at phrases: Netflix, Timed Text Style Guide, General
 * Requirements and English; breaks by sense also Karamitroglou, "A Proposed Set of Subtitling Standards in Europe" (1998);
 * figures from memory.
 */
import type { PlainSection } from '../script/data.ts';
import { clockLines } from '../script/schema.ts';
import type { Clock } from '../timing/clock.ts';

export interface CaptionLimits {
  lineCharacters: number;
  lines: number;
  /** What is wanted, and above which nobody follows. */
  charactersPerSecond: number;
  mostPerSecond: number;
  leastMs: number;
  mostMs: number;
  gapMs: number;
  /** Words in one cue; 0 where the rows alone decide. */
  words: number;
}
/** Two frames at 24 a second. */
const GAP_MS = 84;
export const CAPTION_LIMITS: CaptionLimits = {
  lineCharacters: 42,
  lines: 2,
  charactersPerSecond: 17,
  mostPerSecond: 20,
  leastMs: 833,
  mostMs: 7000,
  gapMs: GAP_MS,
  words: 0,
};
/** For upright pictures: narrower rows. */
export const VERTICAL_LIMITS: CaptionLimits = { ...CAPTION_LIMITS, lineCharacters: 28 };
/** One to four words at a time, as shorts have them (common practice, no published source); nothing lingers. */
export const QUICK_LIMITS: CaptionLimits = {
  ...CAPTION_LIMITS,
  lineCharacters: 22,
  lines: 1,
  leastMs: 450,
  gapMs: 0,
  words: 4,
};
/** Children read more slowly: 13 a second wanted, 17 the most. */
export const forChildren = (limits: CaptionLimits): CaptionLimits => ({
  ...limits,
  charactersPerSecond: 13,
  mostPerSecond: 17,
});

export interface CaptionWord {
  text: string;
  startMs: number;
  endMs: number;
}
export interface Caption {
  startMs: number;
  endMs: number;
  /** One or two rows. */
  rows: string[];
  words: readonly CaptionWord[];
  /** The lines it is from, in order. */
  lines: readonly string[];
  speaker: string;
}

interface TimedWord extends CaptionWord {
  /** How good a break after this word is. */
  breakAfter: number;
  /** Whether a caption has to end here: a planned rest, another speaker, or the end of a section follows. */
  mustEnd: boolean;
  line: string;
  speaker: string;
}

const BREAK: Record<string, number> = { none: 0, comma: 2, clause: 3, sentence: 5, paragraph: 6 };
const KEEPS_WITH_NEXT =
  /^(?:a|an|the|of|to|in|on|at|by|for|from|with|and|or|but|his|her|its|their|my|our|your|this|that|is|was|were|are|not|no|very|mr|mrs|dr|el|la|los|las|un|una|de|del|en|con|y|le|les|des|du|et|der|die|das|den|dem|ein|eine|und|o|os|as|um|uma|do|da|e)$/i;

/** Written words with the times of what is said for them. */
function timedWords(sections: readonly PlainSection[], clock: Clock): TimedWord[] {
  const timed = clock.lines(clockLines(sections));
  const out: TimedWord[] = [];
  let i = 0;
  for (const section of sections)
    section.lines.forEach((line, l) => {
      const { startMs, ms } = timed[i++];
      const tokens = clock.tokens(line.text);
      // Fixed seconds are counted from the first word on.
      const lead = i === 1 && line.fixedMs === null ? clock.voice.leadMs : 0;
      // A fixed part has its own seconds: its words are laid over them evenly.
      const own = tokens.reduce((n, t) => n + t.ms + t.pauseMs, 0);
      const stretch = line.fixedMs !== null && own > 0 ? line.fixedMs / own : 1;
      let at = startMs + lead;
      let t = 0;
      const words = [...line.text.matchAll(/\S+/g)];
      const next = section.lines[l + 1];
      words.forEach((m, k) => {
        const from = Math.round(at);
        const end = m.index + m[0].length;
        let boundary = 0;
        let spokenEnd = at;
        while (t < tokens.length && tokens[t].start < end) {
          spokenEnd = at + tokens[t].ms * stretch;
          at = spokenEnd + tokens[t].pauseMs * stretch;
          boundary = BREAK[tokens[t].boundaryAfter];
          t++;
        }
        const lastOfLine = k === words.length - 1;
        out.push({
          text: m[0],
          startMs: from,
          endMs: Math.round(lastOfLine ? Math.min(spokenEnd, startMs + ms) : spokenEnd),
          breakAfter: KEEPS_WITH_NEXT.test(m[0]) ? -1 : boundary,
          mustEnd: lastOfLine && (line.restMs > 0 || !next || next.speaker !== line.speaker),
          line: line.id,
          speaker: line.speaker,
        });
      });
    });
  return out;
}

/** Rows of about equal length at the best break, or one; null when the words don't fit. */
export function rowsOf(
  words: readonly { text: string; breakAfter: number }[],
  limits: CaptionLimits = CAPTION_LIMITS,
): string[] | null {
  const text = words.map((w) => w.text).join(' ');
  const limit = limits.lineCharacters;
  if (text.length <= limit) return [text];
  if (limits.lines < 2 || text.length > limit * 2 + 1) return null;
  let best: { rows: string[]; cost: number } | null = null;
  let top = '';
  for (let k = 1; k < words.length; k++) {
    top = top ? `${top} ${words[k - 1].text}` : words[k - 1].text;
    const bottom = text.slice(top.length + 1);
    if (top.length > limit) break;
    if (bottom.length > limit) continue;
    const cost = Math.abs(top.length - bottom.length) - 6 * words[k - 1].breakAfter;
    if (!best || cost < best.cost) best = { rows: [top, bottom], cost };
  }
  return best?.rows ?? null;
}

/** A word longer than a row is cut so that nothing runs off the screen; no letter is parted from its marks. */
function shortWords(words: readonly TimedWord[], limit: number): TimedWord[] {
  return words.flatMap((w) => {
    if (w.text.length <= limit) return [w];
    const pieces: string[] = [''];
    for (const { segment } of new Intl.Segmenter().segment(w.text))
      if (pieces[pieces.length - 1].length + segment.length > limit) pieces.push(segment);
      else pieces[pieces.length - 1] += segment;
    const each = (w.endMs - w.startMs) / pieces.length;
    return pieces.map((text, i) => ({
      ...w,
      text,
      startMs: Math.round(w.startMs + each * i),
      endMs: Math.round(w.startMs + each * (i + 1)),
      mustEnd: w.mustEnd && i === pieces.length - 1,
    }));
  });
}

const lengthOf = (rows: readonly string[]) => rows.join(' ').length;
/** Characters a second of a caption while it stands. */
export const readingSpeed = (c: Pick<Caption, 'startMs' | 'endMs' | 'rows'>): number =>
  (lengthOf(c.rows) * 1000) / Math.max(1, c.endMs - c.startMs);

const COST = { cue: 12, hurried: 14, short: 40, badBreak: 50, goodBreak: 4, runOn: 9, over: 1e6 } as const;

/** Captions of a script: in order, never overlapping, with every word once. Linear in the words. */
export function captions(
  sections: readonly PlainSection[],
  clock: Clock,
  limits: CaptionLimits = CAPTION_LIMITS,
): Caption[] {
  const words = shortWords(timedWords(sections, clock), limits.lineCharacters);
  const n = words.length;
  const best = new Float64Array(n + 1).fill(Infinity);
  const to = new Int32Array(n + 1);
  best[n] = 0;
  for (let from = n - 1; from >= 0; from--) {
    let letters = 0;
    let inside = 0;
    for (let end = from + 1; end <= n; end++) {
      if (end > from + 1 && (words[end - 2].mustEnd || (limits.words > 0 && end - from > limits.words)))
        break;
      // Whether two rows hold the words is asked only where one row does not.
      letters += words[end - 1].text.length + (end > from + 1 ? 1 : 0);
      const fits = letters <= limits.lineCharacters || rowsOf(words.slice(from, end), limits) !== null;
      if (!fits && end > from + 1) break;
      const { startMs } = words[from];
      const spoken = words[end - 1].endMs - startMs;
      if (spoken > limits.mostMs && end > from + 1) break;
      const next = end < n ? words[end].startMs - limits.gapMs : words[end - 1].endMs + limits.mostMs;
      const stands = Math.max(1, Math.min(next - startMs, limits.mostMs));
      const speed = (letters * 1000) / stands;
      const over = Math.max(0, speed - limits.charactersPerSecond);
      const last = words[end - 1];
      if (end > from + 1 && words[end - 2].breakAfter >= 5) inside++;
      const cost =
        COST.cue +
        // One word at a time is seen, not read: only its time counts.
        (limits.words
          ? 0
          : COST.hurried * over * over +
            (speed > limits.mostPerSecond ? 4 * COST.hurried * (speed - limits.mostPerSecond) : 0)) +
        (stands < limits.leastMs ? COST.short * (1 - stands / limits.leastMs) * 4 : 0) +
        (last.mustEnd
          ? 0
          : last.breakAfter < 0
            ? COST.badBreak
            : last.breakAfter === 0
              ? COST.badBreak / 2
              : -COST.goodBreak * last.breakAfter) +
        // Two sentences in one cue are right only where each alone would be too short.
        inside * COST.runOn +
        best[end];
      if (cost < best[from]) {
        best[from] = cost;
        to[from] = end;
      }
    }
  }
  const out: Caption[] = [];
  for (let from = 0; from < n; from = to[from]) {
    const slice = words.slice(from, to[from]);
    out.push({
      startMs: slice[0].startMs,
      endMs: slice[slice.length - 1].endMs,
      rows: rowsOf(slice, limits) ?? [slice[0].text],
      words: slice.map(({ text, startMs, endMs }) => ({ text, startMs, endMs })),
      lines: [...new Set(slice.map((w) => w.line))],
      speaker: slice[0].speaker,
    });
  }
  return borrowed(
    out.map((c, i) => ({ ...c, endMs: linger(c, out[i + 1], limits) })),
    limits,
  );
}

/** How long before its words a hurried cue may come, in milliseconds. */
const MOST_EARLY_MS = 500;
/** A hurried cue comes a little early, out of the rest before it, where the one before has been read by then. */
function borrowed(list: readonly Caption[], limits: CaptionLimits): Caption[] {
  if (limits.words) return [...list];
  const out = [...list];
  const needs = (c: Caption) => Math.ceil((lengthOf(c.rows) * 1000) / limits.charactersPerSecond);
  for (let i = 1; i < out.length; i++) {
    const [before, c] = [out[i - 1], out[i]];
    const short = needs(c) - (c.endMs - c.startMs);
    if (short <= 0) continue;
    const spoken = before.words[before.words.length - 1].endMs;
    const free = Math.max(spoken, before.startMs + Math.max(needs(before), limits.leastMs)) + limits.gapMs;
    const startMs = Math.max(c.startMs - Math.min(short, MOST_EARLY_MS), free);
    if (startMs >= c.startMs || c.endMs - startMs > limits.mostMs) continue;
    out[i - 1] = { ...before, endMs: Math.min(before.endMs, startMs - limits.gapMs) };
    out[i] = { ...c, startMs };
  }
  return out;
}

/** A caption stays as long as reading it takes and somewhat longer than its words, up to the next one. */
function linger(caption: Caption, next: Caption | undefined, limits: CaptionLimits): number {
  const needed = Math.max(
    limits.leastMs,
    Math.ceil((lengthOf(caption.rows) * 1000) / limits.charactersPerSecond),
  );
  const wanted = Math.min(caption.startMs + limits.mostMs, Math.max(caption.endMs, caption.startMs + needed));
  const room = next ? next.startMs - limits.gapMs : wanted;
  // Less than half a second of nothing between two cues flickers: the first stays.
  const end =
    next && room - wanted < 500 && room - caption.startMs <= limits.mostMs ? room : Math.min(wanted, room);
  return Math.max(end, caption.startMs + 1);
}

export const CAPTION_FAULTS = ['hurried', 'too fast', 'row', 'short', 'long', 'overlap'] as const;
export interface CaptionFault {
  /** Which caption, from nought. */
  at: number;
  fault: (typeof CAPTION_FAULTS)[number];
  /** What it measures. */
  is: number;
  most: number;
}
/** Every rule that a caption breaks. "hurried" is marked, "too fast" is a finding; the others are defects of the captions themselves. */
export function captionFaults(
  list: readonly Caption[],
  limits: CaptionLimits = CAPTION_LIMITS,
): CaptionFault[] {
  const out: CaptionFault[] = [];
  list.forEach((c, at) => {
    const add = (fault: CaptionFault['fault'], is: number, most: number) =>
      out.push({ at, fault, is: Math.round(is * 10) / 10, most });
    const speed = readingSpeed(c);
    // A tenth of a character a second is rounding.
    if (limits.words === 0) {
      if (speed > limits.mostPerSecond + 0.1) add('too fast', speed, limits.mostPerSecond);
      else if (speed > limits.charactersPerSecond + 0.1) add('hurried', speed, limits.charactersPerSecond);
    }
    for (const row of c.rows)
      if (row.length > limits.lineCharacters) add('row', row.length, limits.lineCharacters);
    if (c.rows.length > limits.lines) add('row', c.rows.length, limits.lines);
    if (c.endMs - c.startMs < limits.leastMs) add('short', c.endMs - c.startMs, limits.leastMs);
    if (c.endMs - c.startMs > limits.mostMs) add('long', c.endMs - c.startMs, limits.mostMs);
    const next = list[at + 1];
    if (next && next.startMs - c.endMs < limits.gapMs) add('overlap', next.startMs - c.endMs, limits.gapMs);
  });
  return out;
}
