/** The values of a text: figures, measures in one base unit, days, years, shares and times, in figures or words. */
import { datesIn, numbersIn } from '../../facts/extract.ts';
import { timesIn } from '../../facts/when.ts';
import { MONTHS, monthNumber } from '../../language/lexicon.ts';
import { CARDINAL_WORD, ordinal, wordsValue } from '../../language/numbers.ts';
import { literal } from '../../language/literal.ts';
import type { Word } from './text.ts';

export interface Value {
  value: number;
  /** "year", "day" (of a month, as month * 100 + day), "minutes", "metres"… or empty. */
  unit: string;
  text: string;
  start: number;
  end: number;
  segment: number;
  /** The root of what is counted, or null. */
  thing: string | null;
  inWords: boolean;
  /** As it stands, before its unit was evened out. */
  raw: number;
  /** The whole of a part: the nine of "two of the nine". */
  whole: boolean;
  /** One end of a range: "between 1948 and 1953". */
  range: boolean;
}
/** The digits of a figure as they are written, or none. */
export const digitsOf = (text: string): string | undefined => /\d[\d,.]*\d|\d/.exec(text)?.[0];
/** A pattern for exactly these digits, no part of a longer figure. */
export const asDigits = (digits: string): string => `(?<![\\d.,])${literal(digits)}(?!\\d|[.,]\\d)`;

/** Units as one base unit and a factor. */
const UNITS: Readonly<Record<string, readonly [string, number]>> = {
  second: ['minutes', 1 / 60],
  minute: ['minutes', 1],
  hour: ['minutes', 60],
  day: ['days', 1],
  night: ['days', 1],
  week: ['days', 7],
  fortnight: ['days', 14],
  month: ['months', 1],
  year: ['months', 12],
  decade: ['months', 120],
  century: ['months', 1200],
  millimetre: ['metres', 0.001],
  centimetre: ['metres', 0.01],
  metre: ['metres', 1],
  kilometre: ['metres', 1000],
  meter: ['metres', 1],
  kilometer: ['metres', 1000],
  mm: ['metres', 0.001],
  cm: ['metres', 0.01],
  m: ['metres', 1],
  km: ['metres', 1000],
  gram: ['grams', 1],
  kilogram: ['grams', 1000],
  kilo: ['grams', 1000],
  tonne: ['grams', 1e6],
  g: ['grams', 1],
  kg: ['grams', 1000],
  percent: ['%', 1],
  '%': ['%', 1],
  pound: ['£', 1],
  '£': ['£', 1],
  dollar: ['$', 1],
  $: ['$', 1],
  euro: ['€', 1],
  '€': ['€', 1],
};
/** Days of a month in words. */
const ORDINALS = Array.from({ length: 31 }, (_, i) => ordinal(i + 1));
const ORDINAL_DAY = new RegExp(`\\b(${[...ORDINALS].reverse().join('|')}) of (${MONTHS.join('|')})\\b`, 'gi');
/** "two thirds": a part of a whole. */
const SHARE =
  /\b(an?|one|two|three|four|five|six|seven|eight|nine) (third|quarter|fifth|sixth|seventh|eighth|ninth|tenth)s?\b(?! of an)/gi;
const PARTS: Readonly<Record<string, number>> = {
  third: 3,
  quarter: 4,
  fifth: 5,
  sixth: 6,
  seventh: 7,
  eighth: 8,
  ninth: 9,
  tenth: 10,
};
const FRACTIONS: Readonly<Record<string, number>> = { half: 0.5, 'a quarter': 0.25, 'three quarters': 0.75 };
const PART_OF =
  /\b(half|a quarter|three quarters)(?: of)? an? (hour|mile|metre|kilometre|minute|day|year|century)\b/gi;
const AND_HALF = /\b(an?) (kilometre|mile|hour|metre|year|month|week) and a half\b/gi;
/** "four and a half centimetres". */
const HALF_MORE = /^([\p{L}\d-]+) and a half (\p{L}+)/u;
/** "eighteen eighty-one". */
const YEAR_IN_WORDS = new RegExp(
  String.raw`\b(sixteen|seventeen|eighteen|nineteen|twenty)[ -]((?!(?:one|two|three|four|five|six|seven|eight|nine)\b)${CARDINAL_WORD})\b`,
  'gi',
);
const A_HUNDRED = new RegExp(
  String.raw`\ban? (hundred|thousand|million)\b(?!(?: and)? ${CARDINAL_WORD}\b)(?: (years?|metres?|kilometres?|tonnes?|pounds?|days?|miles?|people))?`,
  'gi',
);
const HUNDREDS: Readonly<Record<string, number>> = { hundred: 100, thousand: 1000, million: 1e6 };
/** "for an hour": one of it; "30 an hour" is a rate. */
const ONE_OF =
  /\b((?:for|in|after|within|takes?|took|lasts?|lasted) (?:about |over |under |just )?)(an?) (hour|minute|day|week|fortnight|month|year|decade)\b(?! and a half)/gi;
/** "twelve years": the months of the unit, so that words and figures compare. */
const CENTURY = /\b(?:an?|one) (dozen|fortnight|century|decade)\b/gi;
const COUNTS: Readonly<Record<string, [number, string]>> = {
  dozen: [12, ''],
  fortnight: [2, 'week'],
  century: [100, 'year'],
  decade: [10, 'year'],
};

/** A measure in its base unit, so that 0.9 kilometres and 900 metres are one; a unit that is not known is none. */
export function inBase(value: number, unit: string): { value: number; unit: string } {
  const [base, factor] = UNITS[unit.toLowerCase().replace(/(?<=..)s$/, '')] ?? ['', 1];
  return { value: Math.round(Math.abs(value) * factor * 1e6) / 1e6, unit: base };
}

export function valuesOf(plain: string, words: readonly Word[]): Value[] {
  const out: Omit<Value, 'segment' | 'thing' | 'whole' | 'range'>[] = [];
  const add = (value: number, unit: string, text: string, start: number) => {
    out.push({
      ...inBase(value, unit),
      text,
      start,
      end: start + text.length,
      inWords: !/\d/.test(text),
      raw: Math.abs(value),
    });
  };
  for (const d of datesIn(plain)) {
    const parts = d.iso.replace(/^--/, '').split('-').map(Number);
    const [year, ...rest] = (/^\d{4}/.test(d.iso) ? parts : [null, ...parts]) as [number | null, ...number[]];
    const put = (value: number, unit: string) =>
      out.push({ value, unit, text: d.text, start: d.start, end: d.end, inWords: false, raw: value });
    if (year !== null) put(year, 'year');
    if (rest.length === 2) put(rest[0] * 100 + rest[1], 'day');
  }
  for (const m of plain.matchAll(PART_OF)) add(FRACTIONS[m[1].toLowerCase()], m[2], m[0], m.index);
  for (const m of plain.matchAll(AND_HALF)) add(1.5, m[2], m[0], m.index);
  for (const m of plain.matchAll(CENTURY)) if (!out.some((v) => m.index < v.end && m.index + m[0].length > v.start)) add(COUNTS[m[1].toLowerCase()][0], COUNTS[m[1].toLowerCase()][1], m[0], m.index); // prettier-ignore
  for (const n of numbersIn(plain)) {
    const m = HALF_MORE.exec(plain.slice(n.start));
    if (m) add(n.value + 0.5, m[2], m[0], n.start);
  }
  for (const m of plain.matchAll(YEAR_IN_WORDS)) {
    const value = (wordsValue(m[1].toLowerCase()) ?? 0) * 100 + (wordsValue(m[2].toLowerCase()) ?? 0);
    out.push({
      value,
      unit: 'year',
      text: m[0],
      start: m.index,
      end: m.index + m[0].length,
      inWords: true,
      raw: value,
    });
  }
  for (const m of plain.matchAll(A_HUNDRED)) add(HUNDREDS[m[1].toLowerCase()], m[2] ?? '', m[0], m.index);
  for (const m of plain.matchAll(ONE_OF)) {
    const words = m[0].slice(m[1].length);
    add(1, m[3], words.trimStart(), m.index + m[0].length - words.trimStart().length);
  }
  for (const m of plain.matchAll(ORDINAL_DAY)) {
    const day = ORDINALS.indexOf(m[1].toLowerCase()) + 1;
    const value = monthNumber(m[2]) * 100 + day;
    out.push({
      value,
      unit: 'day',
      text: m[0],
      start: m.index,
      end: m.index + m[0].length,
      inWords: true,
      raw: value,
    });
  }
  for (const m of plain.matchAll(SHARE)) {
    const value = (wordsValue(m[1]) ?? 1) / PARTS[m[2].toLowerCase()];
    out.push({
      value,
      unit: 'part',
      text: m[0],
      start: m.index,
      end: m.index + m[0].length,
      inWords: true,
      raw: value,
    });
  }
  for (const t of timesIn(plain)) {
    const [h, m] = t.iso.split(':').map(Number);
    out.push({
      value: (h % 12) * 60 + m,
      unit: 'time',
      text: t.text,
      start: t.start,
      end: t.end,
      inWords: true,
      raw: h,
    });
  }
  const taken = out.map((v) => [v.start, v.end] as const);
  for (const n of numbersIn(plain)) {
    if (taken.some(([s, e]) => n.start < e && n.end > s)) continue;
    // "twenty-fourth" is no twenty.
    if (/^-(?:first|second|third|fourth|fifth|sixth|seventh|eighth|ninth)\b/i.test(plain.slice(n.end)))
      continue;
    add(n.value, n.unit ?? '', plain.slice(n.start, n.end), n.start);
  }
  out.sort((a, b) => a.start - b.start);
  // "0.9 instead of 1.6 kilometres": the unit is said once.
  out.forEach((v, i) => {
    const next = out[i + 1];
    if (
      next &&
      !v.unit &&
      next.unit &&
      /^\s*(?:to|and|or|instead of|rather than|against|–|-)\s+$/.test(plain.slice(v.end, next.start))
    ) {
      v.unit = next.unit;
      v.value = Math.round(v.raw * (next.value / (next.raw || 1)) * 1e6) / 1e6;
    }
  });
  return out.map((v): Value => {
    const first = words.find((w) => w.end > v.start);
    const before = out.find(
      (o) =>
        o.end <= v.start &&
        /^\s+(?:times )?(?:of|out of|in)\s+(?:the |all |these |those )?$/i.test(plain.slice(o.end, v.start)),
    );
    return {
      ...v,
      segment: first?.segment ?? 0,
      thing: thingOf(v, words),
      whole: before !== undefined,
      range: inRange(v, plain),
    };
  });
}

const inRange = (v: { start: number; end: number }, plain: string): boolean =>
  (/\b(?:between|from)\s+(?:about |around )?$/i.test(plain.slice(0, v.start)) &&
    /^\s+(?:and|to|until|till|–|-)\s+/.test(plain.slice(v.end))) ||
  /\b(?:between|from)\s+[^,.;]{1,24}\s(?:and|to|until|till)\s+$/i.test(plain.slice(0, v.start));

/** What a number counts: the nearest noun close behind it, or the unit inside it. */
function thingOf(v: { start: number; end: number; unit: string }, words: readonly Word[]): string | null {
  if (v.unit) return null;
  // "fifty people": what is counted may stand in the figure itself.
  const inside = words.findLast(
    (w) => w.start >= v.start && w.end <= v.end && w.pos === 'NOUN' && w.root !== null,
  );
  if (inside) return inside.root;
  const from = words.findIndex((w) => w.start >= v.end);
  if (from < 0) return null;
  // "one cable of the 48": the whole counts what its part counts.
  const before = words.slice(0, from).filter((w) => w.end <= v.start);
  if (
    /^(?:of|in) (?:the|all|these|those) $/i.test(
      `${before
        .slice(-2)
        .map((w) => w.text)
        .join(' ')} `,
    ) &&
    before.at(-3)?.pos === 'NOUN'
  )
    // prettier-ignore
    return before.at(-3)!.root;
  for (const w of words.slice(from, from + 4)) {
    if (w.pos === 'NOUN' && w.root) return w.root;
    if (!['ADJ', 'ADP', 'DET', 'NUM', 'NOUN', 'PART', 'ADV'].includes(w.pos)) return null;
  }
  return null;
}
