/** SubRip: number, "hh:mm:ss,mmm --> hh:mm:ss,mmm", rows, blank line. */
import type { Caption } from './captions.ts';

const pad = (n: number, size = 2) => String(n).padStart(size, '0');
/** "hh:mm:ss" with milliseconds behind a mark. */
export const stamp = (ms: number, mark: string): string =>
  `${pad(Math.floor(ms / 3_600_000))}:${pad(Math.floor(ms / 60_000) % 60)}:${pad(Math.floor(ms / 1000) % 60)}${mark}${pad(ms % 1000, 3)}`;

/** The arrow between times would be read as one. */
export const subRip = (list: readonly Caption[]): string =>
  list
    .map(
      (c, i) =>
        `${i + 1}\n${stamp(c.startMs, ',')} --> ${stamp(c.endMs, ',')}\n${rowsWithSpeaker(c).join('\n').replace(/-->/g, '→')}\n`,
    )
    .join('\n');
/** In dialogue a dash opens what another says. */
const rowsWithSpeaker = (c: Caption) => (c.speaker ? [`- ${c.rows[0]}`, ...c.rows.slice(1)] : c.rows);
