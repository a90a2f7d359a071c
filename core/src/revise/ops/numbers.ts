/** Numbers: fewer, rounder. */
import { datesIn, numbersIn } from '../../facts/extract.ts';
import { isKept, linesIn, mapLines, type Operation } from '../types.ts';
import { changedText } from './cut.ts';
import { outsideQuotes } from '../../draft/ear.ts';
import { inUnits } from '../../draft/settle.ts';
import { literal } from '../../language/literal.ts';
import { wordsValue } from '../../language/numbers.ts';
import { spokenText, spokenTokens } from '../../language/spoken/index.ts';

const SMALL = 3;
const valuesIn = (text: string) => [
  ...numbersIn(text).filter((n) => /\d/.test(n.text) || n.value > SMALL),
  ...datesIn(text),
];

/** A figure for the ear: two significant digits, "about" before it. Years, times and parts of names are left. */
export function rounded(text: string): string {
  const list = numbersIn(text).filter((n) => /\d/.test(n.text));
  const dates = datesIn(text);
  let out = text;
  for (const n of [...list].reverse()) {
    if (dates.some((d) => n.start < d.end && n.end > d.start) || /^(?:1[0-9]|20)\d\d$/.test(n.text)) continue;
    if (/[“"][^“”"]*$/.test(text.slice(0, n.start))) continue;
    // A year of an era, or the second of two.
    if (/\b(?:A\.?D\.?|B\.?C\.?(?:E\.?)?|C\.?E\.?)\s(?:\d+ (?:and|to|or|–) )?$/.test(text.slice(0, n.start)))
      continue;
    const digits = /\d[\d,.]*\d|\d/.exec(n.text);
    if (!digits) continue;
    const value = Number(digits[0].replace(/,/g, ''));
    const size = Math.floor(Math.log10(Math.abs(value) || 1));
    const step = 10 ** Math.max(0, size - 1);
    const round = value >= 100 ? Math.round(value / step) * step : Math.round(value);
    if (round === value) continue;
    const word =
      round >= 1_000_000 && round % 100_000 === 0
        ? `${round / 1_000_000} million`
        : round.toLocaleString('en-GB');
    const before = text.slice(0, n.start + digits.index);
    const hedged =
      /\b(?:about|around|almost|nearly|over|under|more than|less than|at least|up to|some|roughly)\s+[£$€]?$/i.test(
        before,
      );
    const sign = /[£$€]$/.test(before) ? before.slice(-1) : '';
    const lead = before.slice(0, before.length - sign.length);
    out = `${lead}${hedged ? '' : lead.trim() ? 'about ' : 'About '}${sign}${word}${out.slice(n.start + digits.index + digits[0].length)}`;
  }
  return out;
}

export const numberOps: readonly Operation[] = [
  {
    id: 'round',
    says: 'round numbers',
    otherwise: 'whole',
    patterns: [
      'round(?: off| up| down)?(?: the| all(?: the)?)? (?:numbers|figures|amounts)(?: in {scope})?',
      '(?:use |give )?(?:rounder|round|rounded) (?:numbers|figures)(?: in {scope})?',
      '(?:the )?(?:numbers|figures) (?:in {scope} )?are too exact',
      '(?:less exact|simpler) (?:numbers|figures)(?: in {scope})?',
    ],
    apply: ({ scope }, context) =>
      changedText(scope, context, rounded, 'The numbers there are round already.'),
  },
  {
    id: 'fewer-numbers',
    says: 'tell fewer numbers',
    otherwise: 'whole',
    patterns: [
      '(?:use |with |have |tell )?(?:fewer|less|not so many) (?:numbers|figures|statistics|stats|dates)(?: (?:in|for) {scope})?',
      '(?:there are )?too many (?:numbers|figures|statistics|dates)(?: in {scope})?',
      '{scope} has too many (?:numbers|figures|dates)',
      '(?:cut|reduce|thin out|trim) (?:down )?the (?:numbers|figures|statistics)(?: in {scope})?',
    ],
    apply: ({ scope }, context) => {
      const ids = new Set(scope.lines);
      const lines = context.sections.flatMap((s) =>
        s.lines
          .filter((l) => ids.has(l.id))
          .map((l) => ({ l, kept: isKept(l, s), n: valuesIn(l.text).length })),
      );
      const total = lines.reduce((k, x) => k + x.n, 0);
      if (total < 2)
        return { refused: `${total === 1 ? 'Only one number stands' : 'No number stands'} there.` };
      const last = linesIn(context.sections).slice(-1)[0];
      let left = total;
      const drop = new Set<string>();
      // The lines that hold most go first, later ones before earlier ones, until half are gone; a consequence stays.
      for (const x of [...lines].reverse().sort((a, b) => b.n - a.n)) {
        if (left <= Math.ceil(total / 2)) break;
        if (!x.n || x.kept || x.l === last || x.l === lines[0].l || drop.size + 1 >= lines.length) continue;
        drop.add(x.l.id);
        left -= x.n;
      }
      if (!drop.size)
        return { refused: 'The numbers stand in lines that must stay.', nearest: 'round the numbers' };
      return {
        sections: mapLines(context.sections, drop, () => null),
        notes: [`${total} numbers before, ${left} after.`],
      };
    },
  },
  {
    id: 'numbers-in-words',
    says: 'write small numbers in words',
    otherwise: 'whole',
    patterns: [
      '(?:write|spell|say|put)(?: out)?(?: the| all| small)? (?:numbers|figures)(?: out)? (?:in|as) words(?: in {scope})?',
      'spell out(?: the| all)? (?:numbers|figures)(?: in {scope})?',
      '(?:numbers|figures) in words(?: in {scope})?',
    ],
    apply: ({ scope }, context) =>
      changedText(
        scope,
        context,
        (t) =>
          t
            .replace(
              /(?<![\d.,£$€:#-])\b(\d{1,2})\b(?![\d.,:%°]|\s?(?:%|°|January|February|March|April|May|June|July|August|September|October|November|December))/g,
              (m) => (Number(m) <= 20 ? wordOf(Number(m)) : m),
            )
            .replace(/^\p{Ll}/u, (c) => c.toUpperCase()),
        'No small figures stand there.',
      ),
  },
  {
    id: 'said-in-words',
    says: 'write a figure in words',
    otherwise: 'whole',
    patterns: ['(?:write|spell|say|put)(?: out)? {text}(?: out)? (?:in|as) words(?: in {scope})?'],
    apply: ({ scope, slots }, context) => {
      const words = spokenText(spokenTokens(slots.text, { knows: () => true })).replace(/[.\s]+$/, '');
      const whole = new RegExp(
        `(?<![\\p{L}\\p{N}.,])${literal(slots.text)}(?![\\p{L}\\p{N}]|[.,:]\\d)`,
        'gu',
      );
      // A line that begins with it begins with a capital.
      const first = words.charAt(0).toUpperCase() + words.slice(1);
      const change = (t: string) => t.replace(whole, (_, at: number) => (at === 0 ? first : words));
      return changedText(scope, context, change, `“${slots.text}” does not stand there.`);
    },
  },
  {
    id: 'units',
    says: 'give measures in other units',
    otherwise: 'whole',
    patterns: [
      '(?:use|in|convert (?:it |everything |all )?(?:in)?to|switch to|give|say|make it) (?<system>metric|imperial)(?: units| measures)?(?: (?:in|throughout) {scope})?',
    ],
    apply: ({ scope, slots }, context) => {
      const to = slots.system.toLowerCase() as 'metric' | 'imperial' | 'both';
      const nothing = `No measure there can be given ${to === 'both' ? 'in both systems' : `in ${slots.unit ?? `${to} units`}`}.`;
      return changedText(scope, context, (t) => inUnits(t, to, slots.unit), nothing);
    },
  },
  {
    id: 'numbers-in-figures',
    says: 'write numbers in figures',
    otherwise: 'whole',
    patterns: [
      '(?:write |put )?(?:the |all )?(?:numbers|figures) (?:as|in) (?:figures|digits|numerals)(?: in {scope})?',
      '(?:use )?(?:digits|numerals)(?: in {scope})?',
    ],
    apply: ({ scope }, context) =>
      changedText(scope, context, (t) => outsideQuotes(t, toFigures), 'No number stands there in words.'),
  },
];

/** Number words above one to figures; "one" is as often no number. */
const toFigures = (text: string) =>
  text.replace(/(?<![\p{L}\p{N}-])(?:two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|thirteen|fourteen|fifteen|sixteen|seventeen|eighteen|nineteen|(?:twenty|thirty|forty|fifty|sixty|seventy|eighty|ninety)(?:-(?:one|two|three|four|five|six|seven|eight|nine))?)(?![\p{L}\p{N}-])(?! (?:hundred|thousand|million|billion|of (?:us|them|you)|or \p{L}))/giu, (w) => {
    const value = wordsValue(w.toLowerCase());
    return value === null ? w : String(value);
  }); // prettier-ignore

const WORDS =
  'zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen twenty'.split(
    ' ',
  );
const wordOf = (n: number) => (wordsValue(WORDS[n]) === n ? WORDS[n] : String(n));
