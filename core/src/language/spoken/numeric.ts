/** Rules for everything that starts with a digit or a sign of money or measure. Order matters: longest readings first. */
import { CURRENCIES, MONTHS, PATTERNS, SCALES, UNITS, monthNumber } from '../lexicon.ts';
import {
  cardinal,
  decade,
  digitByDigit,
  fraction,
  numberValue,
  numberWords,
  ordinal,
  year,
} from '../numbers.ts';
import type { SpokenRule } from './rule.ts';

const DIGIT = /[\d.\u2212-]/;
const N = PATTERNS.number;
const DASH = String.raw`\s?[-\u2013\u2014]\s?`;
const EDGE = String.raw`(?![\p{L}\p{N}])`;
const sticky = (source: string) => new RegExp(source, 'uy');
const isYearLike = (s: string) => /^(1[0-9]|20)\d\d$/.test(s);

const VULGAR: Record<string, [number, number]> = {
  '½': [1, 2], '⅓': [1, 3], '⅔': [2, 3], '¼': [1, 4], '¾': [3, 4], '⅕': [1, 5], '⅖': [2, 5], '⅗': [3, 5], '⅘': [4, 5],
  '⅙': [1, 6], '⅚': [5, 6], '⅛': [1, 8], '⅜': [3, 8], '⅝': [5, 8], '⅞': [7, 8],
}; // prettier-ignore

/** A date's parts as a British narrator says them. */
function dateWords(day: number, month: number, yearText?: string): string | null {
  if (day < 1 || day > 31 || month < 1 || month > 12) return null;
  return `the ${ordinal(day)} of ${MONTHS[month - 1]}${yearText ? ` ${year(Number(yearText))}` : ''}`;
}

function money(symbol: string, amount: string, scale: string | undefined): string {
  const [one, many, cent, cents] = CURRENCIES.get(symbol)!;
  if (scale) return `${numberWords(amount)} ${SCALES.get(scale)} ${many}`;
  const [whole, hundredths] = amount.split('.');
  if (hundredths?.length !== 2) return `${numberWords(amount)} ${amount === '1' ? one : many}`;
  const minor = Number(hundredths);
  const major = numberValue(whole) ?? 0;
  const head = `${numberWords(whole)} ${major === 1 ? one : many}`;
  if (!minor) return head;
  return major === 0 ? `${cardinal(minor)} ${minor === 1 ? cent : cents}` : `${head} ${cardinal(minor)}`;
}

/** Words after a bare four-digit number that make it a quantity: a plural noun. */
function countsSomething(after: string): boolean {
  const next = /^\s+([a-z]+)/.exec(after)?.[1];
  return (
    next !== undefined &&
    /[^su]s$/.test(next) &&
    !/^(is|was|has|does|his|its|this|as|across|towards|besides|perhaps|always|sometimes)$/.test(next)
  );
}

/** Whether a sign before digits is a minus: the true sign always, a hyphen only where it does not join two words. */
const minusWord = (sign: string, before: string) =>
  sign === '\u2212' || (sign && !/[\p{L}\p{N})]$/u.test(before)) ? 'minus ' : '';

/** The stop of "a.m." closes the sentence before a capital or the end. */
const closes = (match: string, after: string) =>
  match.endsWith('.') && /^\s*$|^\s+["'“]?\p{Lu}/u.test(after) ? { boundary: 'sentence' as const } : {};

export const numericRules: readonly SpokenRule[] = [
  {
    id: 'currency',
    first: /[£$€¥₹₩]/u,
    pattern: sticky(
      `(${PATTERNS.currency})\\s?(${N})(?:${DASH}(?:\\1)?(${N}))?(?:[\\s-]?(${PATTERNS.scale})${EDGE})?`,
    ),
    say: (m) => {
      const [, symbol, low, high, scale] = m;
      const top = money(symbol, high ?? low, scale);
      return { say: high ? `${numberWords(low)} to ${top}` : top, kind: 'currency' };
    },
  },
  {
    id: 'iso-date',
    first: /\d/,
    pattern: sticky(`(\\d{4})-(\\d{2})-(\\d{2})${EDGE}`),
    say: (m) => {
      const say = dateWords(Number(m[3]), Number(m[2]), m[1]);
      return say ? { say, kind: 'date' } : null;
    },
  },
  {
    id: 'slashed-date',
    first: /\d/,
    pattern: sticky(`(\\d{1,2})[/.](\\d{1,2})[/.](\\d{4})${EDGE}`),
    // Day and month can't be told apart safely in either order, so the figures are said as written.
    say: (m) => ({
      say: `${cardinal(Number(m[1]))} ${cardinal(Number(m[2]))} ${year(Number(m[3]))}`,
      kind: 'date',
    }),
  },
  {
    id: 'day-month',
    first: /\d/,
    pattern: sticky(
      `(\\d{1,2})(?:st|nd|rd|th)?(?:\\s(?:of\\s)?)(${PATTERNS.month})(?:,?\\s(\\d{4}))?${EDGE}`,
    ),
    say: (m) => {
      const say = dateWords(Number(m[1]), monthNumber(m[2]), m[3]);
      return say ? { say, kind: 'date' } : null;
    },
  },
  {
    id: 'clock-time',
    first: /\d/,
    pattern: sticky(
      `(\\d{1,2})[:.](\\d{2})(?::\\d{2})?\\s?([ap])(?:\\.m\\.|m${EDGE})|(\\d{1,2}):(\\d{2})(?::(\\d{2}))?${EDGE}`,
    ),
    say: (m, c) => {
      const hour = Number(m[1] ?? m[4]);
      const minute = Number(m[2] ?? m[5]);
      if (hour > 24 || minute > 59) return null;
      const half = m[3] ? ` ${m[3]} m` : '';
      const minutes =
        minute === 0
          ? half
            ? ''
            : " o'clock"
          : ` ${minute < 10 ? `oh ${cardinal(minute)}` : cardinal(minute)}`;
      const seconds = m[6] ? ` and ${cardinal(Number(m[6]))} seconds` : '';
      return {
        say: `${cardinal(hour)}${minutes}${half}${seconds}`,
        kind: 'time',
        ...(half ? closes(m[0], c.after) : {}),
      };
    },
  },
  {
    id: 'hour-half',
    first: /\d/,
    pattern: sticky(`(\\d{1,2})\\s?([ap])(?:\\.m\\.|m${EDGE})`),
    say: (m, c) => ({
      say: `${cardinal(Number(m[1]))} ${m[2]} m`,
      kind: 'time',
      ...closes(m[0], c.after),
    }),
  },
  {
    id: 'decade',
    first: /[\d'’]/,
    pattern: sticky(`['’]?(\\d{2}|\\d{3,4})['’]?s${EDGE}`),
    say: (m) => (Number(m[1]) % 10 ? null : { say: decade(Number(m[1])), kind: 'decade' }),
  },
  {
    id: 'temperature',
    first: DIGIT,
    pattern: sticky(`([\\u2212-]?)(${N})(?:${DASH}(${N}))?\\s?°\\s?([CFK]${EDGE})?`),
    say: (m, c) => {
      const scale = m[4] ? { C: ' Celsius', F: ' Fahrenheit', K: ' Kelvin' }[m[4]] : '';
      const minus = minusWord(m[1], c.before);
      const one = m[2] === '1' && !m[3];
      return {
        say: `${minus}${numberWords(m[2])}${m[3] ? ` to ${numberWords(m[3])}` : ''} ${one ? 'degree' : 'degrees'}${scale}`,
        kind: 'unit',
      };
    },
  },
  {
    id: 'percent',
    first: DIGIT,
    pattern: sticky(`([\\u2212-]?)(${N})(?:\\s?%?${DASH}(${N}))?\\s?(%|‰|per\\s?cent${EDGE})`),
    say: (m, c) => {
      const minus = minusWord(m[1], c.before);
      const unit = m[4] === '‰' ? 'per mille' : 'percent';
      return {
        say: `${minus}${numberWords(m[2])}${m[3] ? ` to ${numberWords(m[3])}` : ''} ${unit}`,
        kind: 'percent',
      };
    },
  },
  {
    id: 'size-by-size',
    first: /\d/,
    pattern: sticky(`(${N})\\s?[x×]\\s?(${N})(?:\\s?(${PATTERNS.unit}))?${EDGE}`),
    say: (m) => ({
      say: `${numberWords(m[1])} by ${numberWords(m[2])}${m[3] ? ` ${UNITS.get(m[3])![1]}` : ''}`,
      kind: 'unit',
    }),
  },
  {
    id: 'measure',
    first: DIGIT,
    pattern: sticky(`([\\u2212-]?)(${N})(?:${DASH}(${N}))?[\\s\\u00a0\\u202f-]?(${PATTERNS.unit})${EDGE}`),
    say: (m, c) => {
      // "In 1889 A man…": a capital that opens the next words is no unit.
      if (/\s/.test(m[0]) && (m[4] === 'A' || (/^[A-Z]$/.test(m[4]) && isYearLike(m[2])))) return null;
      const [one, many] = UNITS.get(m[4])!;
      const attributive = m[0].includes('-' + m[4]);
      const minus = minusWord(m[1], c.before);
      const single = (m[2] === '1' && !m[3]) || attributive;
      return {
        say: `${minus}${numberWords(m[2])}${m[3] ? ` to ${numberWords(m[3])}` : ''} ${single ? one : many}`,
        kind: 'unit',
      };
    },
  },
  {
    id: 'mixed-fraction',
    first: /[\d½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞]/,
    pattern: sticky(`(?:(\\d+)\\s?)?([${Object.keys(VULGAR).join('')}])`),
    say: (m) => {
      const [n, d] = VULGAR[m[2]];
      if (!m[1])
        return {
          say: n === 1 ? fraction(n, d)!.replace(/^one/, d === 2 ? 'a' : 'one') : fraction(n, d)!,
          kind: 'fraction',
        };
      const part = fraction(n, d)!.replace(/^one (half|quarter)/, 'a $1');
      return { say: `${numberWords(m[1])} and ${part}`, kind: 'fraction' };
    },
  },
  {
    id: 'slash-fraction',
    first: /\d/,
    pattern: sticky(`(?:(\\d+)\\s)?(\\d{1,2})/(\\d{1,3})${EDGE}`),
    say: (m) => {
      const say = Number(m[2]) < Number(m[3]) ? fraction(Number(m[2]), Number(m[3])) : null;
      if (say === null)
        return {
          say: `${m[1] ? `${numberWords(m[1])} ` : ''}${cardinal(Number(m[2]))} ${Number(m[2]) < Number(m[3]) ? 'over' : 'slash'} ${cardinal(Number(m[3]))}`,
          kind: 'fraction',
        };
      return { say: m[1] ? `${numberWords(m[1])} and ${say}` : say, kind: 'fraction' };
    },
  },
  {
    id: 'year-range',
    first: /\d/,
    pattern: sticky(`(\\d{4})[-\\u2013\\u2014/](\\d{4}|\\d{2})${EDGE}`),
    say: (m) => {
      if (!isYearLike(m[1])) return null;
      const short = m[2].length === 2;
      if (!short && !isYearLike(m[2])) return null;
      if (short && Number(m[2]) <= Number(m[1].slice(2))) return null;
      const end = short
        ? m[2][0] === '0'
          ? `oh ${cardinal(Number(m[2]))}`
          : cardinal(Number(m[2]))
        : year(Number(m[2]));
      return { say: `${year(Number(m[1]))} to ${end}`, kind: 'range' };
    },
  },
  {
    id: 'ordinal',
    first: /\d/,
    pattern: sticky(`(\\d{1,3}(?:,\\d{3})*|\\d+)(?:st|nd|rd|th)${EDGE}`),
    say: (m) => {
      const value = numberValue(m[1]);
      return value === null || value > 1e9 ? null : { say: ordinal(value), kind: 'ordinal' };
    },
  },
  {
    id: 'number-range',
    first: /\d/,
    pattern: sticky(`(${N})\\s?[\\u2013\\u2014]\\s?(${N})${EDGE}|(\\d{1,4})-(\\d{1,4})(?!-?[\\p{L}\\p{N}])`),
    say: (m) => {
      const [low, high] = [m[1] ?? m[3], m[2] ?? m[4]];
      if (/^0\d/.test(low)) return null;
      return { say: `${numberWords(low)} to ${numberWords(high)}`, kind: 'range' };
    },
  },
  {
    id: 'number',
    first: DIGIT,
    pattern: sticky(
      `([\\u2212-]?)(${N}|\\.\\d+)(?:[\\s-]?(bn|tn|million|billion|trillion|thousand)${EDGE})?${EDGE}`,
    ),
    say: (m, c) => {
      const written = m[2].startsWith('.') ? `0${m[2]}` : m[2];
      const minus = minusWord(m[1], c.before);
      if (m[3]) return { say: `${minus}${numberWords(written)} ${SCALES.get(m[3])}`, kind: 'number' };
      if (/^0\d+$/.test(written) || /^\d{13,}$/.test(written))
        return { say: minus + digitByDigit(written), kind: 'number' };
      if (/^\d{4}$/.test(written) && isYearLike(written) && !minus && !countsSomething(c.after))
        return { say: year(Number(written)), kind: 'year' };
      return { say: minus + numberWords(written), kind: 'number' };
    },
  },
];
