/** Values in a sentence: numbers with units, dates, names, quotes. Spans are offsets into the sentence. */
import { MONTHS, PATTERNS, WEEKDAYS, monthNumber } from '../language/lexicon.ts';
import { numberValue, wordsValue } from '../language/numbers.ts';
import type { TaggedToken } from '../language/tagged.ts';

export interface NumberValue {
  text: string;
  value: number;
  unit?: string;
  start: number;
  end: number;
}
export interface DateValue {
  text: string;
  /** ISO 8601, as exact as the words: "1889", "1889-05", "1889-05-03". */
  iso: string;
  start: number;
  end: number;
}
export interface NameValue {
  text: string;
  start: number;
  end: number;
}
export interface QuoteValue {
  text: string;
  start: number;
  end: number;
}

const pad = (n: number) => String(n).padStart(2, '0');
const N = PATTERNS.number;
const DATE = new RegExp(
  `\\b(?:(\\d{1,2})(?:st|nd|rd|th)?\\s(?:of\\s)?(${PATTERNS.month})(?:,?\\s(\\d{4}))?|(${PATTERNS.month})\\s(\\d{1,2})(?:st|nd|rd|th)?(?![\\d:])(?:,?\\s(\\d{4}))?|(${MONTHS.join('|')})\\s(\\d{4})|(\\d{4})-(\\d{2})-(\\d{2})|(1[0-9]\\d\\d|20\\d\\d)(?:s\\b)?(?![\\d,.]\\d|\\s?(?:%|per cent|${PATTERNS.unit})(?!\\p{L})))\\b`,
  'gu',
);

/** Dates written out. A bare four-digit number counts when it can be a year. */
export function datesIn(text: string): DateValue[] {
  const out: DateValue[] = [];
  for (const m of text.matchAll(DATE)) {
    const [, d1, m1, y1, m2, d2, y2, m3, y3, isoY, isoM, isoD, bare] = m;
    let iso: string | null = null;
    if (isoY) iso = `${isoY}-${isoM}-${isoD}`;
    else if (bare) iso = yearFollows(text, m.index, bare) ? bare : null;
    else if (m3) iso = `${y3}-${pad(monthNumber(m3))}`;
    else {
      const day = Number(d1 ?? d2);
      const month = monthNumber(m1 ?? m2);
      const year = y1 ?? y2;
      if (day >= 1 && day <= 31) iso = `${year ?? '--'}${year ? '-' : ''}${pad(month)}-${pad(day)}`;
    }
    if (iso) out.push({ text: m[0], iso, start: m.index, end: m.index + m[0].length });
  }
  return out;
}

/** A four-digit number is a year unless it counts something ("1500 boats"). */
function yearFollows(text: string, at: number, digits: string): boolean {
  const before = text.slice(Math.max(0, at - 16), at);
  // "About 1500 boats": what is guessed at and followed by things is a count.
  if (
    /\b(?:about|around|nearly|over|some|almost|roughly|only)\s$/i.test(before) &&
    /^\s+[a-z]+s\b/.test(text.slice(at + digits.length))
  )
    return false;
  if (
    /\b(?:in|since|until|by|from|to|of|during|before|after|around|about|early|late|mid|and|year|circa|c\.)[\s-]$/i.test(
      before,
    ) ||
    /[(–-]$/.test(before)
  )
    return true;
  return !/^\s+[a-z]+s\b/.test(text.slice(at + digits.length, at + digits.length + 16));
}

const NUMBER = new RegExp(
  `([£$€¥])?(?<![\\p{L}\\d.,])([\\u2212-])?(${N})(?:\\s?(million|billion|trillion|thousand|bn|m|k)\\b)?(?:\\s?(%|per\\s?cent|°\\s?[CF]?|${PATTERNS.unit})(?![\\p{L}\\d]))?`,
  'gu',
);
const WORD_NUMBER =
  /\b((?:(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|thirteen|fourteen|fifteen|sixteen|seventeen|eighteen|nineteen|twenty|thirty|forty|fifty|sixty|seventy|eighty|ninety|hundred|thousand|million|billion)(?:(?:(?<=hundred|thousand|million|billion)\sand\s|[\s-])(?=(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|thirteen|fourteen|fifteen|sixteen|seventeen|eighteen|nineteen|twenty|thirty|forty|fifty|sixty|seventy|eighty|ninety|hundred|thousand|million|billion)\b))?)+)\b(?:\s(percent|per cent|metres?|kilometres?|tonnes?|miles?|feet|inches|pounds|dollars|euros|hours?|minutes?|seconds?|days?|weeks?|months?|years?|people|degrees))?/gi;
const MULTIPLE: Record<string, number> = {
  thousand: 1e3,
  k: 1e3,
  million: 1e6,
  m: 1e6,
  billion: 1e9,
  bn: 1e9,
  trillion: 1e12,
};

/** Words behind a number that count nothing. */
const NO_UNIT =
  /^(?:and|but|for|from|the|that|than|this|was|were|are|had|has|have|with|who|which|when|while|where|until|into|onto|over|under|after|before|because|since|more|less|other|others|years? ago|each|against|between|through|during|about|only|or|to|in|on|at|by|as|its|his|her|their|per|will|would|could|may)\b/;

/** Numbers written in figures or words with their unit; years and days of dates are left to `datesIn`. */
export function numbersIn(text: string): NumberValue[] {
  const dates = datesIn(text);
  const inDate = (start: number, end: number) => dates.some((d) => start < d.end && end > d.start);
  const out: NumberValue[] = [];
  for (const m of text.matchAll(NUMBER)) {
    const start = m.index;
    const end = start + m[0].length;
    if (inDate(start, end)) continue;
    const value = numberValue(m[3]);
    if (value === null) continue;
    const counted = /^\s(\p{Ll}{3,}(?:\sper\s\p{Ll}+)?)/u.exec(text.slice(end))?.[1];
    const unitWord = counted && !NO_UNIT.test(counted) ? counted : undefined;
    // "4.71m" of a river is metres; "£4.71m" and "4.71m people" are millions.
    const metres = m[4] === 'm' && !m[1] && !(unitWord && /^people\b|s$/.test(unitWord));
    const unit =
      m[1] ?? (metres ? 'm' : undefined) ?? m[5]?.replace(/per\s?cent/, '%').replace(/\s/g, '') ?? unitWord;
    out.push({
      text: m[0].trim(),
      value: (m[2] ? -1 : 1) * value * (metres ? 1 : (MULTIPLE[m[4]] ?? 1)),
      ...(unit ? { unit } : {}),
      start,
      end,
    });
  }
  for (const m of text.matchAll(WORD_NUMBER)) {
    const value = wordsValue(m[1].replace(/-(?=hundred|thousand)/g, ' '));
    if (value === null || (value === 1 && !m[2])) continue;
    out.push({
      text: m[0],
      value,
      ...(m[2] ? { unit: m[2] } : {}),
      start: m.index,
      end: m.index + m[0].length,
    });
  }
  return out.sort((a, b) => a.start - b.start);
}

const NOT_NAMES = new Set<string>([
  ...MONTHS,
  ...WEEKDAYS,
  'I',
  'The',
  'A',
  'An',
  'In',
  'On',
  'At',
  'It',
  'He',
  'She',
  'They',
  'We',
  'But',
  'And',
  'Step',
  'Background',
  'Methods',
  'Results',
  'Conclusions',
  'CI',
  'SD',
]);
/** "I’m" is nobody's name. */
const ME = /^I(?:['’]\p{Ll}+)?$/u;
const CAPITAL = /^\p{Lu}[\p{L}\p{M}'’.-]*$/u;

/** Months that are given names too: "May Corrin" is a person, "in May Corrin left" is not. */
const MONTH_NAMES = /^(?:April|May|June|August)$/;
const isGivenName = (tokens: readonly TaggedToken[], i: number) =>
  MONTH_NAMES.test(tokens[i].text) &&
  CAPITAL.test(tokens[i + 1]?.text ?? '') &&
  !NOT_NAMES.has(tokens[i + 1].text) &&
  !/^(?:in|on|of|since|until|by|from|to|during|last|next|early|late|mid|and|\d+(?:st|nd|rd|th)?)$/i.test(
    tokens[i - 1]?.text ?? '',
  );

/** Lower-case words that join parts of one name. */
const JOINERS = new Set(['of', 'de', 'van', 'von', 'der', 'la', 'du']);

/**
 * Names: runs of capitalised words. A word at the start of a sentence counts when it is capitalised in mid-sentence
 * somewhere in the source (`known`), or when a name follows it directly.
 */
export function namesIn(
  text: string,
  tokens: readonly TaggedToken[],
  known: ReadonlySet<string>,
): NameValue[] {
  const out: NameValue[] = [];
  let i = 0;
  while (i < tokens.length) {
    const opens = i === 0 || /[.!?:“"‘(]$/.test(tokens[i - 1].text);
    const token = tokens[i];
    const isName =
      CAPITAL.test(token.text) &&
      !ME.test(token.text) &&
      (!NOT_NAMES.has(token.text) || isGivenName(tokens, i)) &&
      (!opens ||
        isGivenName(tokens, i) ||
        known.has(token.text) ||
        (token.pos === 'PROPN' && CAPITAL.test(tokens[i + 1]?.text ?? '')));
    if (!isName) {
      i++;
      continue;
    }
    let j = i + 1;
    while (
      j < tokens.length &&
      ((CAPITAL.test(tokens[j].text) && !ME.test(tokens[j].text)) ||
        (JOINERS.has(tokens[j].text) && CAPITAL.test(tokens[j + 1]?.text ?? '')))
    )
      j++;
    out.push({
      text: text.slice(token.start, tokens[j - 1].end).replace(/[’']s$/, ''),
      start: token.start,
      end: tokens[j - 1].end,
    });
    i = j;
  }
  return out;
}

/** Words that are capitalised in mid-sentence anywhere: the source's names, word by word. */
export function capitalWords(sentenceTokens: readonly (readonly TaggedToken[])[]): Set<string> {
  const out = new Set<string>();
  for (const tokens of sentenceTokens)
    tokens.forEach((t, i) => {
      if (
        i > 0 &&
        CAPITAL.test(t.text) &&
        !ME.test(t.text) &&
        !NOT_NAMES.has(t.text) &&
        !/[.!?:“"‘(]$/.test(tokens[i - 1].text)
      )
        out.add(t.text);
    });
  return out;
}

const QUOTE = /[“"]([^“”"]{3,600})[”"]/g;

/** Words between quotation marks that are speech or a phrase of more than two words. */
export function quotesIn(text: string): QuoteValue[] {
  return [...text.matchAll(QUOTE)]
    .filter((m) => m[1].trim().split(/\s+/).length > 2)
    .map((m) => ({ text: m[1].trim(), start: m.index, end: m.index + m[0].length }));
}
