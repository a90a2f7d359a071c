/** A value put in another's place in a line, in the form that the line has it; null where that would have to be guessed. */
import { MONTHS, UNIT_NAMES, monthNumber } from '../../language/lexicon.ts';
import { replacedIn } from './fault.ts';
import { digitsOf, type Value } from './figures.ts';

const ORDINAL = /(\d{1,2})(?:st|nd|rd|th)\b/;
const DAY = new RegExp(
  `\\b(\\d{1,2})(?:st|nd|rd|th)?\\b|\\b(${MONTHS.join('|')}|(?:Jan|Feb|Mar|Apr|Jun|Jul|Aug|Sept?|Oct|Nov|Dec)\\b)`,
  'g',
);

const ordinal = (n: number) => {
  const tens = n % 100 >= 11 && n % 100 <= 13;
  return `${n}${tens ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th')}`;
};

/** "28th of September" with the day of "18 September": "18th of September". */
function dayIn(own: string, rival: string): string | null {
  const parts = (text: string) => {
    const all = [...text.matchAll(DAY)];
    return { day: all.find((m) => m[1])?.[1], month: all.find((m) => m[2])?.[2] };
  };
  const [mine, theirs] = [parts(own), parts(rival)];
  if (!mine.day || !mine.month || !theirs.day || !theirs.month) return null;
  const day = ORDINAL.test(own) ? ordinal(Number(theirs.day)) : theirs.day;
  return own
    .replace(ORDINAL.test(own) ? ORDINAL : mine.day, day)
    .replace(mine.month, MONTHS[monthNumber(theirs.month) - 1] ?? mine.month);
}

/** The line with `rival`'s figure where `v` stands. */
export function valuePut(text: string, v: Value, rival: Value): string | null {
  const own = text.slice(v.start, v.end);
  if (v.unit === 'day' || rival.unit === 'day') {
    const day = v.unit === rival.unit ? dayIn(own, rival.text) : null;
    return day === null ? null : replacedIn(text, v.start, v.end, day);
  }
  const [mine, theirs] = [digitsOf(own), digitsOf(rival.text)];
  // What the figure counts must be called the same on both sides: then the figure alone changes.
  const unitOf = (whole: string, figure: string) =>
    whole
      .replace(figure, '')
      .replace(/[\s£€$-]+/g, ' ')
      .trim()
      .toLowerCase();
  if (mine && theirs) {
    const [a, b] = [unitOf(own, mine), unitOf(rival.text, theirs)];
    const named = (u: string) => u.split(' ').some((w) => UNIT_NAMES.has(w));
    if (a && b && a !== b && v.unit !== rival.unit) return null;
    if (named(a) && !b && v.unit !== rival.unit) return null;
    if (v.value !== v.raw && rival.value !== rival.raw && v.raw / v.value !== rival.raw / rival.value)
      return null;
    return replacedIn(text, v.start, v.end, own.replace(mine, theirs));
  }
  return !mine && !theirs && !/\s/.test(own) === !/\s/.test(rival.text)
    ? replacedIn(text, v.start, v.end, rival.text)
    : null;
}
