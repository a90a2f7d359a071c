/**
 * Numbers as English words. Forms follow Unicode CLDR's rule-based number formats for English
 * (spellout-cardinal-verbose with "and", spellout-ordinal-verbose, spellout-numbering-year);
 * `core/test/language/numbers.test.ts` checks them against that data.
 */
const ONES =
  'zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen'.split(
    ' ',
  );
const TENS = '- - twenty thirty forty fifty sixty seventy eighty ninety'.split(' ');
const SCALES = ['', 'thousand', 'million', 'billion', 'trillion', 'quadrillion'];
const IRREGULAR_ORDINALS: Record<string, string> = {
  one: 'first',
  two: 'second',
  three: 'third',
  five: 'fifth',
  eight: 'eighth',
  nine: 'ninth',
  twelve: 'twelfth',
};
/** The largest whole number that is said as a quantity; longer runs of digits are said digit by digit. */
export const LARGEST_CARDINAL = 999_999_999_999_999;

function belowHundred(n: number): string {
  if (n < 20) return ONES[n];
  const tens = TENS[Math.floor(n / 10)];
  return n % 10 ? `${tens}-${ONES[n % 10]}` : tens;
}

function belowThousand(n: number): string {
  if (n < 100) return belowHundred(n);
  const rest = n % 100;
  return `${ONES[Math.floor(n / 100)]} hundred${rest ? ` and ${belowHundred(rest)}` : ''}`;
}

/** A whole number in words with the British "and": 310 → "three hundred and ten". Throws RangeError outside ±LARGEST_CARDINAL. */
export function cardinal(n: number): string {
  if (!Number.isInteger(n) || Math.abs(n) > LARGEST_CARDINAL)
    throw new RangeError(`not a whole number in range: ${n}`);
  if (n < 0) return `minus ${cardinal(-n)}`;
  if (n < 1000) return belowThousand(n);
  const parts: string[] = [];
  let rest = n;
  for (let scale = 0; rest > 0; scale++) {
    const group = rest % 1000;
    if (group) parts.unshift(scale ? `${belowThousand(group)} ${SCALES[scale]}` : belowThousand(group));
    rest = Math.floor(rest / 1000);
  }
  const last = n % 1000;
  if (last > 0 && last < 100 && parts.length > 1) parts.splice(parts.length - 1, 0, 'and');
  return parts.join(' ');
}

/** A whole number's ordinal in words: 22 → "twenty-second". */
export function ordinal(n: number): string {
  const words = cardinal(n);
  const cut = Math.max(words.lastIndexOf(' '), words.lastIndexOf('-')) + 1;
  const last = words.slice(cut);
  const ending = IRREGULAR_ORDINALS[last] ?? (last.endsWith('y') ? `${last.slice(0, -1)}ieth` : `${last}th`);
  return words.slice(0, cut) + ending;
}

/** A year as it is said: 1889 → "eighteen eighty-nine", 1905 → "nineteen oh five", 2005 → "two thousand five". */
export function year(n: number): string {
  const century = Math.floor(n / 100);
  const rest = n % 100;
  if (n < 1000 || n > 9999) return cardinal(n);
  if (n % 1000 < 10) return rest ? `${ONES[(n / 1000) | 0]} thousand ${ONES[rest]}` : cardinal(n);
  if (!rest) return `${belowHundred(century)} hundred`;
  return `${belowHundred(century)} ${rest < 10 ? `oh ${ONES[rest]}` : belowHundred(rest)}`;
}

/** A decade or century as it is said: 1880 → "eighteen eighties", 80 → "eighties", 1900 → "nineteen hundreds". */
export function decade(n: number): string {
  const words = n < 100 ? belowHundred(n) : year(n);
  return words.endsWith('y') ? `${words.slice(0, -1)}ies` : `${words}s`;
}

/** Digits one by one: "007" → "zero zero seven". Characters that are not digits are passed over. */
export function digitByDigit(text: string): string {
  return [...text]
    .filter((c) => c >= '0' && c <= '9')
    .map((c) => ONES[Number(c)])
    .join(' ');
}

/** A written number (thousands separated by commas or thin spaces, a decimal point) in words: "41,200.5" → "forty-one thousand two hundred point five". */
export function numberWords(written: string): string {
  const plain = written.replace(/[,\u00a0\u2009\u202f ]/g, '').replace(/^[\u2212\u2013-]/, '-');
  const [whole, fraction] = plain.split('.');
  const value = Number(whole || '0');
  const head = Math.abs(value) > LARGEST_CARDINAL ? digitByDigit(whole) : cardinal(Math.abs(value));
  const sign = plain.startsWith('-') ? 'minus ' : '';
  return sign + head + (fraction ? ` point ${digitByDigit(fraction)}` : '');
}

/** The value of a written number, or null when it is none. */
export function numberValue(written: string): number | null {
  const plain = written.replace(/[,\u00a0\u2009\u202f ]/g, '').replace(/^[\u2212\u2013]/, '-');
  if (!/^-?\d+(\.\d+)?$/.test(plain)) return null;
  return Number(plain);
}

const ROMAN: Record<string, number> = { I: 1, V: 5, X: 10, L: 50, C: 100, D: 500, M: 1000 };

/** The value of a well-formed Roman numeral in capitals up to 3999, or null. */
export function romanValue(text: string): number | null {
  if (!/^M{0,3}(CM|CD|D?C{0,3})(XC|XL|L?X{0,3})(IX|IV|V?I{0,3})$/.test(text) || !text) return null;
  let sum = 0;
  for (let i = 0; i < text.length; i++) {
    const here = ROMAN[text[i]];
    sum += here < (ROMAN[text[i + 1]] ?? 0) ? -here : here;
  }
  return sum;
}

const DENOMINATORS: Record<number, [string, string]> = { 2: ['half', 'halves'], 4: ['quarter', 'quarters'] };

/** A fraction as it is said: (1, 2) → "one half", (3, 4) → "three quarters"; null when the denominator is 1 or over 100. */
export function fraction(numerator: number, denominator: number): string | null {
  if (denominator < 2 || denominator > 100) return null;
  const [one, many] = DENOMINATORS[denominator] ?? [ordinal(denominator), `${ordinal(denominator)}s`];
  return `${cardinal(numerator)} ${numerator === 1 ? one : many}`;
}

/** The numbers one to nineteen, and the tens, as parts of a regular expression; the longer first, as it takes the first that fits. */
const UP_TO_NINETEEN = [...ONES.slice(1)].reverse().join('|');
const FULL_TENS = TENS.slice(2).join('|');
/** A whole number below a hundred in words, as a part of a regular expression. */
export const CARDINAL_WORD = `(?:(?:${FULL_TENS})(?:[- ](?:${ONES.slice(1, 10).join('|')}))?(?![a-z])|${UP_TO_NINETEEN})`;
/** An ordinal up to "ninety-ninth" in words, as a part of a regular expression. */
export const ORDINAL_WORD = `(?:${Array.from({ length: 99 }, (_, i) => ordinal(99 - i)).join('|')})`;

const WORD_VALUES = new Map<string, number>();
for (let i = 0; i < 100; i++) WORD_VALUES.set(belowHundred(i), i);

/**
 * The value of a number in words ("three hundred and ten" → 310, "forty thousand" → 40000), or null when the
 * words are not a plain whole number. The inverse of `cardinal`.
 */
export function wordsValue(words: string): number | null {
  const parts = words
    .toLowerCase()
    .split(/\s+/)
    .filter((w) => w !== 'and');
  if (!parts.length) return null;
  let total = 0;
  let group = 0;
  let seen = false;
  for (const part of parts) {
    const small = WORD_VALUES.get(part);
    const scale = SCALES.indexOf(part);
    if (small !== undefined) group += small;
    else if (part === 'hundred' && seen) group = (group || 1) * 100;
    else if (scale > 0 && seen) {
      total += (group || 1) * 1000 ** scale;
      group = 0;
    } else return null;
    seen = true;
  }
  return total + group;
}
