import { safeSplits } from '../../draft/split.ts';
import { at, type ReviewLine, type Rule } from '../rule.ts';

/** A breath longer than this is hard to speak, in milliseconds (common practice, no published source). */
export const LONG_BREATH_MS = 9000;
export const longBreath: Rule = {
  id: 'long-breath',
  area: 'speech',
  name: 'Too long for one breath',
  cost: { each: 1.5, most: 12 },
  line: (line, _tools, _sources, style) => {
    const limit = style?.breathMs ?? LONG_BREATH_MS;
    let ms = 0;
    let from = 0;
    let worst = { ms: 0, start: 0, end: 0 };
    line.tokens.forEach((t, i) => {
      if (ms === 0) from = t.start;
      ms += t.ms;
      if (ms > worst.ms) worst = { ms, start: from, end: t.end };
      if (t.pauseMs || i === line.tokens.length - 1) ms = 0;
    });
    if (worst.ms <= limit) return [];
    const stop = stopIn(line);
    return [
      at(
        line,
        worst.start,
        worst.end,
        `${(worst.ms / 1000).toFixed(1)} s without a rest; a listener breathes with the speaker.`,
        stop
          ? {
              says: `Stop after “${stop.word}”`,
              safe: !line.locked,
              edits: [{ line: line.id, text: stop.text }],
            }
          : undefined,
      ),
    ];
  },
};

/** The line cut in sentences where that is safe; null when it is nowhere. */
function stopIn(line: ReviewLine): { word: string; text: string } | null {
  if (!line.tags) return null;
  const [first, ...rest] = safeSplits(line.text, line.tags);
  if (!rest.length) return null;
  return {
    word: first
      .split(/\s+/)
      .pop()!
      .replace(/[.,;:]$/, ''),
    text: [first, ...rest].join(' '),
  };
}
