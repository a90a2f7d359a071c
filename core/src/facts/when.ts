/** Times told from the day of a report: "on Tuesday", "last month", "22 August" → dates. Every one is marked as resolved. */
import { WEEKDAYS } from '../language/lexicon.ts';
import type { DateValue } from './extract.ts';

const DAY = 86_400_000;
const iso = (ms: number, parts: 1 | 2 | 3 = 3) => new Date(ms).toISOString().slice(0, [4, 7, 10][parts - 1]);
const day = (y: number, m: number, d: number) => Date.UTC(y, m, d);

const RELATIVE = new RegExp(
  `\\b(?:(?:(last|next|this)\\s)?(?:on\\s)?(${WEEKDAYS.join('|')})|(yesterday|today|tonight|tomorrow|last night|this morning|this evening)|(last|this|next)\\s(week|month|year|spring|summer|autumn|winter)|(\\w+)\\s(days?|weeks?|months?|years?)\\sago)\\b`,
  'giu',
);
const COUNT: Readonly<Record<string, number>> = { a: 1, an: 1, one: 1, two: 2, three: 3, four: 4, five: 5, six: 6, seven: 7, eight: 8, nine: 9, ten: 10, eleven: 11, twelve: 12, twenty: 20, thirty: 30 }; // prettier-ignore
const FUTURE =
  /\b(?:will|shall|is to|are to|due to|plans? to|planned for|expected to|until|by|next|may|might|could)\b/i;

export interface ResolvedDate extends DateValue {
  resolved: true;
}

/**
 * Dates that a sentence tells from the day of publication (ISO "YYYY-MM-DD"). A weekday is the latest one up to that
 * day, or the next one when the sentence speaks of what will be. None without a full day of publication.
 */
export function relativeDates(text: string, published: string | undefined): ResolvedDate[] {
  if (!published || !/^\d{4}-\d{2}-\d{2}$/.test(published)) return [];
  const base = Date.parse(`${published}T00:00:00Z`);
  if (Number.isNaN(base)) return [];
  const out: ResolvedDate[] = [];
  for (const m of text.matchAll(RELATIVE)) {
    const [whole, whichDay, weekday, word, which, unit, count, units] = m;
    const ahead = FUTURE.test(text.slice(0, m.index)) || /next/i.test(whichDay ?? '');
    let value: string | null = null;
    if (weekday) value = iso(weekdayFrom(base, weekday, ahead));
    else if (word)
      value = iso(base + (/yesterday|last night/i.test(word) ? -DAY : /tomorrow/i.test(word) ? DAY : 0));
    else if (unit) value = unitFrom(base, which.toLowerCase(), unit.toLowerCase());
    else if (count && units) value = agoFrom(base, count.toLowerCase(), units.toLowerCase());
    if (value)
      out.push({ text: whole, iso: value, start: m.index, end: m.index + whole.length, resolved: true });
  }
  return out;
}

function weekdayFrom(base: number, name: string, ahead: boolean): number {
  const wanted = WEEKDAYS.findIndex((w) => w.toLowerCase() === name.toLowerCase());
  // WEEKDAYS begins with Monday; getUTCDay with Sunday.
  const today = (new Date(base).getUTCDay() + 6) % 7;
  const back = (today - wanted + 7) % 7;
  return ahead ? base + ((7 - back) % 7 || 7) * DAY : base - back * DAY;
}

function unitFrom(base: number, which: string, unit: string): string | null {
  const d = new Date(base);
  const step = which === 'last' ? -1 : which === 'next' ? 1 : 0;
  if (unit === 'year') return String(d.getUTCFullYear() + step);
  if (unit === 'month') return iso(day(d.getUTCFullYear(), d.getUTCMonth() + step, 1), 2);
  // A week or a season names no one day; its year is safe only for "this" and "last" within it.
  return null;
}

function agoFrom(base: number, count: string, units: string): string | null {
  const n = COUNT[count] ?? (/^\d{1,4}$/.test(count) ? Number(count) : NaN);
  if (Number.isNaN(n)) return null;
  const d = new Date(base);
  if (units.startsWith('day')) return iso(base - n * DAY);
  // Weeks, months and years ago are said roundly: as exact as the unit.
  if (units.startsWith('week')) return iso(base - n * 7 * DAY, 2);
  if (units.startsWith('month')) return iso(day(d.getUTCFullYear(), d.getUTCMonth() - n, 1), 2);
  return String(d.getUTCFullYear() - n);
}

/** A day without its year ("--08-22") in the year that puts it last up to the report, or next when it will be. */
export function withYear(
  date: DateValue,
  text: string,
  published: string | undefined,
): DateValue & { resolved?: true } {
  const m = /^--(\d{2})-(\d{2})$/.exec(date.iso);
  if (!m || !published || !/^\d{4}-\d{2}-\d{2}$/.test(published)) return date;
  const year = Number(published.slice(0, 4));
  const same = `${year}-${m[1]}-${m[2]}`;
  const ahead = FUTURE.test(text.slice(0, date.start));
  const right = ahead ? (same >= published ? year : year + 1) : same <= published ? year : year - 1;
  return { ...date, iso: `${right}-${m[1]}-${m[2]}`, resolved: true };
}

const CLOCK =
  /\b(?:(\d{1,2})[:.](\d{2})(?:\s?([ap])\.?m\b\.?)?|(\d{1,2})\s?([ap])\.?m\b\.?|(midnight|noon|midday))/giu;

export interface TimeValue {
  text: string;
  /** "HH:MM", 24 hours. */
  iso: string;
  start: number;
  end: number;
}

const HOURS = [
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
];
const SPOKEN = new RegExp(
  `\\b(?:(half past|quarter past|quarter to)\\s)?(${HOURS.join('|')})(\\so[’']clock)?\\b`,
  'giu',
);
const MINUTES: Readonly<Record<string, number>> = { 'half past': 30, 'quarter past': 15, 'quarter to': -15 };

/** "half past two", "nine o'clock": by a clock with hands, so the half of the day is not known and the hour is taken as said. */
function spokenTimes(text: string): TimeValue[] {
  return [...text.matchAll(SPOKEN)].flatMap((m) => {
    const [whole, part, hour, clock] = m;
    if (!part && !clock) return [];
    const minutes = (HOURS.indexOf(hour.toLowerCase()) + 1) * 60 + (part ? MINUTES[part.toLowerCase()] : 0);
    return [
      {
        text: whole,
        iso: `${String(Math.floor(minutes / 60) % 24).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`,
        start: m.index,
        end: m.index + whole.length,
      },
    ];
  });
}

/** Times of day. "3.5" and scores are none: a full stop needs am or pm or the word "at" before. */
export function timesIn(text: string): TimeValue[] {
  const written = [...text.matchAll(CLOCK)].flatMap((m): TimeValue[] => {
    const [whole, h1, min, half1, h2, half2, word] = m;
    if (word)
      return [
        {
          text: whole,
          iso: /midnight/i.test(word) ? '00:00' : '12:00',
          start: m.index,
          end: m.index + whole.length,
        },
      ];
    const hour = Number(h1 ?? h2);
    const half = (half1 ?? half2)?.toLowerCase();
    const minute = Number(min ?? 0);
    if (hour > (half ? 12 : 24) || minute > 59) return [];
    const sure =
      half !== undefined ||
      whole.includes(':') ||
      /\b(?:at|by|until|from|before|after)\s$/i.test(text.slice(0, m.index));
    if (!sure || (!half && /^\s?(?:per|%|metres|km|kg|million)/.test(text.slice(m.index + whole.length))))
      return [];
    const h = half ? (hour % 12) + (half === 'p' ? 12 : 0) : hour % 24;
    return [
      {
        text: whole,
        iso: `${String(h).padStart(2, '0')}:${String(minute).padStart(2, '0')}`,
        start: m.index,
        end: m.index + whole.length,
      },
    ];
  });
  return [...written, ...spokenTimes(text)].sort((a, b) => a.start - b.start);
}
