/** Chapters from the starts of the sections: first at 0:00, at least three, at least 10 s each (common practice of video hosts, no published source). */
import type { PlainSection } from '../script/data.ts';
import { clockLines } from '../script/schema.ts';
import type { Clock } from '../timing/clock.ts';

export const LEAST_CHAPTERS = 3;
export const LEAST_CHAPTER_MS = 10_000;

export interface Chapter {
  startMs: number;
  endMs: number;
  title: string;
  /** The sections it is made of, in order. */
  sections: readonly string[];
}
export type Chapters = { chapters: readonly Chapter[]; joined: readonly string[] } | { refused: string };

/**
 * Chapters of a script; a section that is too short for one goes with its neighbour, and `joined` says so. Refused, with
 * the reason, where three of ten seconds can't be made.
 */
export function chaptersOf(sections: readonly PlainSection[], clock: Clock): Chapters {
  const timed = clock.lines(clockLines(sections));
  let at = 0;
  let i = 0;
  const all: Chapter[] = [];
  for (const s of sections) {
    const ms = s.lines.reduce((n) => n + timed[i++].ms, 0);
    if (ms > 0)
      all.push({
        startMs: at,
        endMs: at + ms,
        title: s.title.trim() || `Part ${all.length + 1}`,
        sections: [s.id],
      });
    at += ms;
  }
  if (all.length < LEAST_CHAPTERS)
    return { refused: `Chapters need at least ${LEAST_CHAPTERS} sections; this script has ${all.length}.` };
  const joined: string[] = [];
  const length = (c: Chapter) => c.endMs - c.startMs;
  for (;;) {
    const k = all.findIndex((c) => length(c) < LEAST_CHAPTER_MS);
    if (k < 0) break;
    // With the shorter neighbour; the first with the second, under the longer one's title.
    const left = k > 0 && (k === all.length - 1 || length(all[k - 1]) <= length(all[k + 1])) ? k - 1 : k;
    if (left + 1 >= all.length) break;
    const [a, b] = [all[left], all[left + 1]];
    const title = length(a) >= length(b) ? a.title : b.title;
    joined.push(
      `“${title === a.title ? b.title : a.title}” is too short for a chapter and goes with “${title}”.`,
    );
    all.splice(left, 2, {
      startMs: a.startMs,
      endMs: b.endMs,
      title,
      sections: [...a.sections, ...b.sections],
    });
  }
  if (all.length < LEAST_CHAPTERS)
    return {
      refused: `Chapters of at least ${LEAST_CHAPTER_MS / 1000} s can’t be made: only ${all.length} would be left of ${sections.length} sections in ${Math.round(at / 1000)} s.`,
    };
  return { chapters: all, joined };
}

/** "0:00", from an hour on "1:02:03"; rounded down, so that no chapter starts before its first word. */
export function chapterClock(ms: number): string {
  const s = Math.floor(ms / 1000);
  const pad = (n: number) => String(n).padStart(2, '0');
  const minutes = Math.floor(s / 60);
  return minutes < 60
    ? `${minutes}:${pad(s % 60)}`
    : `${Math.floor(minutes / 60)}:${pad(minutes % 60)}:${pad(s % 60)}`;
}
