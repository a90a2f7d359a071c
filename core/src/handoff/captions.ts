/**
 * Captions from the clock. Limits: two lines of 42 characters, 17 characters a second where the pace allows it, at
 * least 1 s and at most 7 s on screen, breaks at phrases (Díaz Cintas and Remael, Subtitling: Concepts and Practices,
 * 2021; figures from memory). SubRip form: number, "hh:mm:ss,mmm --> hh:mm:ss,mmm", text, blank line.
 */
import type { PlainSection } from '../script/schema.ts';
import { clockLines } from '../script/schema.ts';
import type { Clock } from '../timing/clock.ts';

export const CAPTION_LIMITS = {
  lineCharacters: 42,
  lines: 2,
  charactersPerSecond: 17,
  leastMs: 1000,
  mostMs: 7000,
  gapMs: 0,
} as const;

export interface Caption {
  startMs: number;
  endMs: number;
  /** One or two rows. */
  rows: string[];
}

interface TimedWord {
  text: string;
  startMs: number;
  endMs: number;
  /** How good a break after this word is. */
  breakAfter: number;
  /** Whether a caption has to end here: a planned rest or the end of a section follows. */
  mustEnd: boolean;
}

const BREAK: Record<string, number> = { none: 0, comma: 2, clause: 3, sentence: 5, paragraph: 6 };
const KEEPS_WITH_NEXT =
  /^(?:a|an|the|of|to|in|on|at|by|for|from|with|and|or|but|his|her|its|their|my|our|your|this|that|is|was|were|are|not|no|very|mr|mrs|dr)$/i;

/** Written words with the times of what is said for them. */
function timedWords(sections: readonly PlainSection[], clock: Clock): TimedWord[] {
  const timed = clock.lines(clockLines(sections));
  const out: TimedWord[] = [];
  let i = 0;
  for (const section of sections)
    section.lines.forEach((line, l) => {
      const { startMs, ms } = timed[i++];
      const tokens = clock.tokens(line.text);
      const lead = i === 1 ? clock.voice.leadMs : 0;
      let at = startMs + lead;
      let t = 0;
      const words = [...line.text.matchAll(/\S+/g)];
      words.forEach((m, k) => {
        const from = at;
        const end = m.index + m[0].length;
        let boundary = 0;
        let spokenEnd = at;
        while (t < tokens.length && tokens[t].start < end) {
          spokenEnd = at + tokens[t].ms;
          at = spokenEnd + tokens[t].pauseMs;
          boundary = BREAK[tokens[t].boundaryAfter];
          t++;
        }
        const lastOfLine = k === words.length - 1;
        out.push({
          text: m[0],
          startMs: from,
          endMs: lastOfLine ? Math.min(spokenEnd, startMs + ms) : spokenEnd,
          breakAfter: KEEPS_WITH_NEXT.test(m[0]) ? -1 : boundary,
          mustEnd: lastOfLine && (line.restMs > 0 || l === section.lines.length - 1),
        });
      });
    });
  return out;
}

/** Two rows of about equal length at the best break, or one; null when the words don't fit into two rows. */
export function rowsOf(words: readonly { text: string; breakAfter: number }[]): string[] | null {
  const text = words.map((w) => w.text).join(' ');
  const limit = CAPTION_LIMITS.lineCharacters;
  if (text.length <= limit) return [text];
  let best: { rows: string[]; cost: number } | null = null;
  for (let k = 1; k < words.length; k++) {
    const top = words
      .slice(0, k)
      .map((w) => w.text)
      .join(' ');
    const bottom = words
      .slice(k)
      .map((w) => w.text)
      .join(' ');
    if (top.length > limit || bottom.length > limit) continue;
    const cost = Math.abs(top.length - bottom.length) - 6 * words[k - 1].breakAfter;
    if (!best || cost < best.cost) best = { rows: [top, bottom], cost };
  }
  return best?.rows ?? null;
}

/** A word longer than a row is cut so that nothing runs off the screen. */
function shortWords(words: readonly TimedWord[]): TimedWord[] {
  const limit = CAPTION_LIMITS.lineCharacters;
  return words.flatMap((w) => {
    if (w.text.length <= limit) return [w];
    const pieces = w.text.match(new RegExp(`.{1,${limit}}`, 'gu')) ?? [w.text];
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

/** Captions of a script: never overlapping, in order, each within the limits of rows and time. */
export function captions(sections: readonly PlainSection[], clock: Clock): Caption[] {
  const words = shortWords(timedWords(sections, clock));
  const out: Caption[] = [];
  let from = 0;
  while (from < words.length) {
    let best = from;
    let bestScore = -Infinity;
    for (let to = from; to < words.length; to++) {
      const slice = words.slice(from, to + 1);
      const span = words[to].endMs - words[from].startMs;
      if (!rowsOf(slice) || (span > CAPTION_LIMITS.mostMs && to > from)) break;
      const score =
        words[to].breakAfter * 14 +
        slice.reduce((n, w) => n + w.text.length + 1, 0) -
        (span < CAPTION_LIMITS.leastMs ? 60 : 0);
      if (score >= bestScore) [best, bestScore] = [to, score];
      if (words[to].mustEnd) {
        best = to;
        break;
      }
      if (words[to].breakAfter >= 5 && span >= CAPTION_LIMITS.leastMs * 1.5) {
        best = to;
        break;
      }
    }
    out.push({
      startMs: words[from].startMs,
      endMs: words[best].endMs,
      rows: rowsOf(words.slice(from, best + 1))!,
    });
    from = best + 1;
  }
  return out.map((c, i) => ({ ...c, endMs: linger(c, out[i + 1]) }));
}

/** A caption stays as long as reading it takes, up to the next one. */
function linger(caption: Caption, next: Caption | undefined): number {
  const characters = caption.rows.join(' ').length;
  const needed = Math.max(
    CAPTION_LIMITS.leastMs,
    Math.round((characters * 1000) / CAPTION_LIMITS.charactersPerSecond),
  );
  const wanted = Math.min(
    caption.startMs + CAPTION_LIMITS.mostMs,
    Math.max(caption.endMs, caption.startMs + needed),
  );
  const end = next ? Math.min(wanted, next.startMs - CAPTION_LIMITS.gapMs) : wanted;
  return Math.max(end, caption.startMs + 1);
}

const stamp = (ms: number) => {
  const pad = (n: number, size = 2) => String(n).padStart(size, '0');
  return `${pad(Math.floor(ms / 3_600_000))}:${pad(Math.floor(ms / 60_000) % 60)}:${pad(Math.floor(ms / 1000) % 60)},${pad(ms % 1000, 3)}`;
};

/** SubRip text. */
export function srt(list: readonly Caption[]): string {
  return list
    .map(
      (c, i) =>
        `${i + 1}\n${stamp(c.startMs)} --> ${stamp(c.endMs)}\n${c.rows.join('\n').replace(/-->/g, '→')}\n`,
    )
    .join('\n');
}
