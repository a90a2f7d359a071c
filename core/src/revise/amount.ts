/** How much: "by half", "to 20 seconds", "under eight seconds", "a third shorter". */
import { wordsValue } from '../language/numbers.ts';
import type { Amount } from './types.ts';

const SHARES: readonly (readonly [RegExp, number])[] = [
  [/\b(?:in |by )?(?:a )?half\b|\bhalve\b/, 0.5],
  [/\b(?:by )?(?:a|one) third\b/, 1 / 3],
  [/\b(?:by )?two thirds\b/, 2 / 3],
  [/\b(?:by )?(?:a|one) quarter\b/, 0.25],
  [/\b(?:by )?(?:a|one) fifth\b/, 0.2],
  [/\b(?:a (?:tiny |little )?(?:bit|little)|slightly|a touch|somewhat)\b/, 0.15],
  [/\b(?:a lot|much|considerably|way|far)\b/, 0.4],
];
const SECONDS =
  /(\d+(?:[.,]\d+)?(?=\s*[sm])|[a-z]+(?:[- ][a-z]+)?(?=\s))\s*(s|secs?|seconds?|m|mins?|minutes?)\b/;
/** "half a second", "one and a half seconds", "a second and a half". */
const HALVES =
  /\b(half an? (?:s|sec|second))\b|\b(\d|an?|one|two|three|four|five) and a half (?:s|secs?|seconds?)\b|\b(\d|an?|one|two|three|four|five) (?:s|secs?|seconds?) and a half\b/;

/** An amount in words, or null. Shares are of what is to go. */
export function amountOf(text: string): Amount | null {
  const t = text.toLowerCase().trim();
  const percent = /(\d+(?:[.,]\d+)?)\s*(?:%|per ?cent)/.exec(t);
  const value = (n: string): number | null =>
    /^\d/.test(n)
      ? Number(n.replace(',', '.'))
      : /^an?$/.test(n)
        ? 1
        : (wordsValue(n) ?? wordsValue(n.split(/[ -]/).pop()!));
  const clock = /\b(\d+):([0-5]\d)\b/.exec(t);
  if (clock) return { type: 'to', ms: (Number(clock[1]) * 60 + Number(clock[2])) * 1000, says: clock[0] };
  const halves = HALVES.exec(t);
  if (halves) {
    const n = halves[1] ? 0.5 : value(halves[2] ?? halves[3])! + 0.5;
    return { type: 'to', ms: n * 1000, says: halves[0] };
  }
  const seconds = SECONDS.exec(t);
  if (seconds) {
    const n = value(seconds[1]);
    if (n !== null) {
      const ms = Math.round(n * (/^m/.test(seconds[2]) ? 60_000 : 1000));
      const by =
        /\bby\s+(?:about |around |some )?(?:\d|[a-z])/.test(t) ||
        /\b(?:shorter|longer|off|less|more)\b/.test(t.slice(seconds.index));
      return { type: by ? 'by' : 'to', ms, says: seconds[0] };
    }
  }
  if (percent) return { type: 'share', share: Number(percent[1].replace(',', '.')) / 100, says: percent[0] };
  for (const [pattern, share] of SHARES) {
    const m = pattern.exec(t);
    if (m)
      return {
        type: 'share',
        share: /\bto (?:a|one) (?:third|quarter|fifth)\b/.test(t) ? 1 - share : share,
        says: m[0],
      };
  }
  return null;
}
