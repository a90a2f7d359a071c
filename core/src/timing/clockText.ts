import { wordsValue } from '../language/numbers.ts';

/** Clock text: 134200 → "2:14.2", without tenths "2:14". */
export function clockText(ms: number, tenths = true): string {
  const unit = tenths ? 100 : 1000;
  const units = Math.round(ms / unit);
  const perMinute = tenths ? 600 : 60;
  const minutes = Math.floor(units / perMinute);
  const rest = units - minutes * perMinute;
  const text = tenths ? (rest / 10).toFixed(1) : String(rest);
  return `${minutes}:${text.padStart(tenths ? 4 : 2, '0')}`;
}

const UNIT_MS = { h: 3_600_000, m: 60_000, s: 1000 } as const;
/** One amount with its unit: "2.5 min", "two and a half minutes", "half a minute", "90". */
const AMOUNT =
  /^(?:(?<half>half (?:a |an )?)|(?<number>\d+(?:\.\d+)?|[a-z-]+?(?: [a-z-]+?)*?)(?<more> and a half| ½|½| and a quarter| and three quarters)?\s*)(?<unit>hours?|h|minutes?|mins?|m|′|'|seconds?|secs?|s|″|")?(?<after> and a half)?$/;
const MORE: Readonly<Record<string, number>> = { 'and a quarter': 0.25, 'and three quarters': 0.75 };

/** Milliseconds of one amount with its unit; the unit given where none is written. Null when it is none. */
function amountMs(text: string, usual: keyof typeof UNIT_MS): number | null {
  const found = AMOUNT.exec(text.trim())?.groups;
  if (!found) return null;
  const written = found.number ?? '';
  const number = found.half
    ? 0.5
    : /^\d/.test(written)
      ? Number(written)
      : /^(?:a|an)$/.test(written)
        ? 1
        : /^(?:a couple(?: of)?)$/.test(written)
          ? 2
          : wordsValue(written.replace(/-/g, ' '));
  if (number === null) return null;
  const more = found.more ? (MORE[found.more.trim()] ?? 0.5) : found.after ? 0.5 : 0;
  const unit = found.unit?.replace(/^[′']$/, 'm').replace(/^[″"]$/, 's')[0] as
    keyof typeof UNIT_MS | undefined;
  if (!unit && !/^\d/.test(written)) return null;
  return Math.round((number + more) * UNIT_MS[unit ?? usual]);
}

/**
 * Milliseconds of a length as people write it: "3:00", "3.5 min", "180", "90 s", "1m30s", "three minutes", "two and a half
 * minutes", "a minute and twenty seconds", "half a minute"; a bare number is seconds, after minutes too. Null when it is none.
 */
export function lengthMs(text: string): number | null {
  const t = text
    .trim()
    .toLowerCase()
    .replace(/(\d),(?=\d)/g, '$1.')
    .replace(/^(?:about|around|roughly|some|exactly|ca\.?|~)\s*/, '')
    .replace(/[.\s]+$/, '')
    .replace(/[’]/g, "'")
    .replace(/\s+/g, ' ');
  const clock = /^(?:(\d{1,2}):(?=\d\d:))?(\d{1,3}):([0-5]\d(?:\.\d+)?)$/.exec(t);
  if (clock)
    return Math.round((Number(clock[1] ?? 0) * 3600 + Number(clock[2]) * 60 + Number(clock[3])) * 1000);
  const whole = amountMs(t, 's');
  if (whole !== null) return whole;
  for (const unit of t.matchAll(/(?:hours?|minutes?|mins?|[hm′'])(?=[\s,\d])/g)) {
    const end = unit.index + unit[0].length;
    const first = amountMs(t.slice(0, end), 'm');
    const more = t.slice(end).replace(/^[\s,]*(?:and\s+)?/, '');
    const rest = /^\d+(?:\.\d+)?$/.test(more) ? Number(more) * 1000 : lengthMs(more);
    if (first !== null && rest !== null && rest < UNIT_MS.h) return first + rest;
  }
  return null;
}
