/** Word lists the language room reads, in the form its rules want. The lists and their sources are in `core/data`. */
import titles from '../../data/titles.json';
import abbreviations from '../../data/abbreviations.json';
import acronyms from '../../data/acronyms.json';
import currencies from '../../data/currencies.json';
import units from '../../data/units.json';

export interface Abbreviation {
  say: string;
  /** Whether the full stop may also close a sentence. */
  ends: boolean;
  /** Whether it is one only with a capital: "Det. Hale", not "to det.". */
  name: boolean;
}

const shortForms = (rows: Record<string, string[]>, name: boolean): [string, Abbreviation][] =>
  Object.entries(rows).map(([written, [say, ...marks]]) => [
    written,
    { say, ends: marks.includes('ends'), name: name || marks.includes('name') },
  ]);
/** Abbreviations by their lower-case written form, full stop included. */
export const ABBREVIATIONS: ReadonlyMap<string, Abbreviation> = new Map(
  shortForms(abbreviations.abbreviations, false),
);
/** States cut short behind a place's name ("Millbrook, Calif."): without one, many are other words ("Miss.", "ill."). */
export const STATES: ReadonlyMap<string, Abbreviation> = new Map(shortForms(abbreviations.states, true));
export const SAID_AS_WORD: ReadonlySet<string> = new Set(acronyms.words);
export const SAID_AS_LETTERS: ReadonlySet<string> = new Set(acronyms.letters);
/** Unit symbol → [singular, plural]. */
export const UNITS: ReadonlyMap<string, readonly string[]> = new Map(Object.entries(units.units));
/** Every word in the name of a unit or a currency, singular and plural. */
export const UNIT_NAMES: ReadonlySet<string> = new Set(
  [...Object.values(units.units), ...Object.values(currencies.symbols as Record<string, string[]>)]
    .flat()
    .flatMap((n) => n.split(' '))
    .filter((w) => w.length > 2 && !/^(?:per|square|cubic)$/.test(w))
    .concat(
      'degree',
      'degrees',
      'percent',
      'day',
      'days',
      'week',
      'weeks',
      'month',
      'months',
      'year',
      'years',
    ),
);
/** Currency symbol → [singular, plural, hundredth, hundredths]. */
export const CURRENCIES: ReadonlyMap<string, readonly string[]> = new Map(Object.entries(currencies.symbols));
export const SCALES: ReadonlyMap<string, string> = new Map(Object.entries(currencies.scales));
export const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
] as const;
export const WEEKDAYS = [
  'Monday',
  'Tuesday',
  'Wednesday',
  'Thursday',
  'Friday',
  'Saturday',
  'Sunday',
] as const;
/** Titles before names that are said of him, and of her. */
export const TITLES = { he: titles.he, she: titles.she } as const;
const longestFirst = (items: Iterable<string>) =>
  [...items].sort((a, b) => b.length - a.length || (a < b ? -1 : 1));
const escape = (s: string) => s.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&');
/** Regular-expression sources that other rules build on. */
export const PATTERNS = {
  /** A month in full, or short with or without its full stop; the stop behind a full name closes the sentence. */
  month: `(?:${MONTHS.join('|')}|(?:Jan|Feb|Mar|Apr|Jun|Jul|Aug|Sept|Sep|Oct|Nov|Dec)\\b\\.?)`,
  unit: longestFirst(UNITS.keys()).map(escape).join('|'),
  currency: `[${[...CURRENCIES.keys()].join('')}]`,
  scale: longestFirst(SCALES.keys()).join('|'),
  /** A title before a name, without its full stop. */
  title: `(?:${longestFirst([...titles.he, ...titles.she, ...titles.either]).join('|')})`,
  /** Digits with optional thousands and decimals. */
  number: String.raw`(?:\d{1,3}(?:[,\u00a0\u2009\u202f]\d{3})+|\d+)(?:\.\d+)?`,
} as const;

/** The number of a month named in full or short (1 to 12), or 0. */
export function monthNumber(name: string): number {
  const head = name.slice(0, 3).toLowerCase();
  return MONTHS.findIndex((m) => m.slice(0, 3).toLowerCase() === head) + 1;
}
