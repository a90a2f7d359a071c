/** From print to the ear: what a listener can't hear is taken out or said in words. Values stay as they are. */
import { CLOSED } from '../language/closed.ts';
import { PATTERNS, SCALES, UNITS } from '../language/lexicon.ts';
import { quotedSpans } from '../language/quotes.ts';

/** Applies a change to the text outside quotation marks only. */
export function outsideQuotes(text: string, change: (part: string) => string): string {
  let out = '';
  let at = 0;
  for (const [start, end] of quotedSpans(text)) {
    out += change(text.slice(at, start)) + text.slice(start, end);
    at = end;
  }
  return out + change(text.slice(at));
}

/** The word behind a sum that may be what it measures. */
const MEASURES = /^[ -](?!(?:more|less|each|apiece|per)\b)(\p{L}[\p{L}’'-]*)/u;
/** Whether a sum stands before what it measures, and is said in the singular: "a $5 million fine", by what is before and behind it. */
export const isMeasured = (before: string, after: string): boolean => {
  const word = MEASURES.exec(after)?.[1];
  if (!word || CLOSED.has(word.toLowerCase())) return false;
  if (/\ban?\s(?:(?:about|approximately|roughly|nearly|almost|estimated|additional|extra|further)\s)?$/i.test(before)) return true; // prettier-ignore
  return (
    /(?:\b(?:the|its|his|her|their|this|that|another)|\p{L}[’']s)\s$/iu.test(before) &&
    !/(?:ed|aid|eld|old|ing|t|n)$/.test(word)
  );
};

const N = PATTERNS.number;
const UNIT = new RegExp(`(${N})(?:\\s|-|\\u00a0)?(${PATTERNS.unit})(?![\\p{L}\\p{N}/²³])`, 'gu');
const MONEY = new RegExp(`(${PATTERNS.currency})(${N})\\s?(${PATTERNS.scale})(?![\\p{L}\\p{N}])`, 'gu');
const WORD_UNITS = new Set(['A', 'N', 'L', 'V', 'J', 'W', 'h', 's', 'm', 't', 'g', 'l']);

/** Whether the "m" behind a figure may be a million: something is counted behind it, or behind another such figure. */
const countsMillions = (part: string, end: number) =>
  COUNTED.test(part.slice(end)) ||
  [...part.matchAll(/\dm(?![\p{L}\p{N}])/gu)].some((m) => COUNTED.test(part.slice(m.index + 2)));

/** What kind of piece it is, before its first words: "NEWS ANALYSIS:" (genres of the IPTC NewsCodes, from memory). */
const GENRE =
  /^(?:(?:NEWS|BREAKING|SPECIAL|MARKET|LIVE) )?(?:NEWS|ANALYSIS|BACKGROUND(?:ER)?|EXCLUSIVE|FEATURE|INTERVIEW|OPINION|COMMENT(?:ARY)?|EDITORIAL|REVIEW|UPDATE|SUMMARY|REPORT|PROFILE|WRAP-?UP|VIDEO|PHOTOS?|BREAKING)\s?\d?:\s+(?=\p{Lu})/u;

/** A plural behind a figure, itself or behind one more word. */
const COUNTED =
  /^\s(?!(?:and|or|of|to|in|on|at|from|long|tall|high|wide|deep|across|above|below|away)\b)(?:[\p{L}-]+\s)?(?:\p{L}+[^su]s|people|men|women|children)\b/u;

const NOT_CONTRACTIONS: readonly [RegExp, string][] = [
  ['did', 'didn’t'], ['does', 'doesn’t'], ['do', 'don’t'], ['was', 'wasn’t'], ['were', 'weren’t'], ['is', 'isn’t'], ['are', 'aren’t'], ['has', 'hasn’t'], ['have', 'haven’t'], ['had', 'hadn’t'],
  ['could', 'couldn’t'], ['would', 'wouldn’t'], ['should', 'shouldn’t'], ['will', 'won’t'],
].map(([verb, short]) => [new RegExp(`\\b(${verb}) not(?= \\p{Ll})(?! only\\b)`, 'giu'), short]); // prettier-ignore

const likeCase = (model: string, word: string) =>
  /^\p{Lu}/u.test(model) ? word[0].toUpperCase() + word.slice(1) : word;

/** Contractions where every speaker makes them: negations before another word, "it is" at the start of a clause, "cannot". */
export function contract(text: string): string {
  return outsideQuotes(text, (part) => {
    let out = part;
    for (const [pattern, short] of NOT_CONTRACTIONS)
      out = out.replace(pattern, (_, verb: string) => likeCase(verb, short));
    return out
      .replace(/\b(c)annot(?= \p{Ll})/giu, '$1an’t')
      .replace(
        /(^|[.;,] (?:and |but |so )?)(it) is(?= (?:a|an|the|not|in|on|at|about|no|only|still|\p{Ll}+ing|\p{Ll}+ed)\b)/giu,
        '$1$2’s',
      )
      .replace(/(^|[.;,] (?:and |but |so )?)(they|you|we) are(?= \p{Ll})/giu, '$1$2’re')
      .replace(/(^|[.;,] (?:and |but |so )?)(you) will(?= \p{Ll})/giu, '$1$2’ll');
  });
}

/** Signs, units and bracketed matter said or dropped. Statistics, conversions, years of life and short names in brackets go; other brackets become commas. */
export function forTheEar(text: string): string {
  return outsideQuotes(text, (part) =>
    part
      .replace(
        /^(?:Background|Objectives?|Aims?|Methods?|Results?|Findings|Limitations?|Conclusions?|Discussion|Introduction|Summary|Overview)\s*:\s*(?=\p{Lu})/u,
        '',
      )
      .replace(GENRE, '')
      .replace(
        /\s?\((?:[^()]*\b(?:CI|SD|p\s?[<=>]|n\s?=|see|fig|figure|table)\b[^()]*|[^\d()]*\d[^()]*|\p{Lu}[\p{Lu}\d.-]{0,8}|[^():]*:[^()]*|pictured|above|below)\)/gu,
        '',
      )
      .replace(
        /\s\(([^()]{3,80})\)(?=([.,;:!?])?)/g,
        (_, inner: string, mark?: string) => `, ${inner}${mark ? '' : ','}`,
      )
      // How a name is said stands between strokes, in signs of the phonetic alphabet (IPA).
      .replace(/,?\s?(?<![\p{L}\p{N}])\/[^/\s][^/]{0,40}\/,?(?=[\s.;:]|$)/gu, (said) =>
        /[ˈˌːəɪʊɛɔɑæʌɜɒθðʃʒŋ]/.test(said) ? '' : said,
      )
      .replace(/\be\.g\.,?/g, 'for example')
      .replace(/\bi\.e\.,?/g, 'that is')
      .replace(/\betc\.(?=\s\p{Ll}|,)/gu, 'and so on')
      .replace(/\bc(?:a)?\.\s?(?=\d)/g, 'about ')
      .replace(/\s?%/g, ' percent')
      .replace(/\bper cent\b/g, 'percent')
      // "They 've taken": a space that a page put before what is written together.
      .replace(/\b(I|you|he|she|it|we|they|that|there|who|what) (?=[’'](?:ve|re|ll|d|m|s)\b)/giu, '$1')
      // Behind a sign of money "m" is a million and no metre.
      .replace(MONEY, (_, sign: string, n: string, scale: string) => `${sign}${n} ${SCALES.get(scale)}`)
      .replace(UNIT, (whole, n: string, unit: string, at: number, part: string) => {
        // "iPhone 4s", "the Mark 3s": a letter behind a name's number is the name's.
        if (unit.length === 1 && !/\s/.test(whole) && /\p{Lu}[\p{L}]*\s$/u.test(part.slice(0, at)) && /^\d$/.test(n)) return whole; // prettier-ignore
        // "the 1960s" are no seconds.
        if (unit === 's' && /^(?:1[0-9]|20)\d0s$/.test(whole)) return whole;
        if (WORD_UNITS.has(unit) && !new RegExp(`${unit}$`).test(whole)) return whole;
        // "6.8m sales", "5m people": what is counted may be millions, and may be walls of so many metres.
        if (unit === 'm' && countsMillions(part, at + whole.length)) return whole;
        const [one, many] = UNITS.get(unit)!;
        return `${n} ${n === '1' || isMeasured(part.slice(0, at), part.slice(at + whole.length)) ? one : many}`;
      })
      .replace(/\s&\s/g, ' and ')
      .replace(/(\d{4})[-–](\d{4})/g, '$1 to $2')
      .replace(/\s+/g, ' ')
      .replace(/,\s*([.;!?])/g, '$1')
      // "Marsh & Co. (MRSH)." has lost what stood between two stops.
      .replace(/(?<!\.)\.\s?\.(?=\s|$)/g, '.'),
  ).trim();
}

const SPEECH =
  /^([“"])([^“”"]+)([,?!.])([”"]),?\s(said|says|wrote|writes|explained|added)\s(\p{Lu}[^“”"]{2,90}|[Tt]he [^“”"]{2,60})([.])\s*(?:([“"][^“”"]+[”"]))?$/u;

const SAYS = 'said|says|wrote|writes|explained|added';
const WHO =
  "[Hh]e|[Ss]he|[Tt]hey|I|(?:Mr|Mrs|Ms|Dr) \\p{Lu}[\\p{L}’'-]+|\\p{Lu}[\\p{L}’'-]+(?: \\p{Lu}[\\p{L}’'-]+){0,2}";
/** “One half,” she said, “and the other.” */
const INTERPOSED = new RegExp(
  `^([“"])([^“”"]+?)(,|[?!.])([”"])\\s(?:(${WHO}) (${SAYS})|(${SAYS}) (${WHO}))(?:, \\p{Ll}[^“”",]{2,40})?([,.]) [“"]([^“”"]+[”"])$`,
  'u',
);

/** A reporter who was told something: for the listener the person said it. */
export const toldTheReporter = (text: string): string =>
  outsideQuotes(text, (part) =>
    part.replace(
      /\btold (?:me|us|our (?:reporter|correspondent)|this (?:paper|newspaper|website|reporter|magazine))\b(?! (?:about|how|what|why|where|to|of|off)\b)/gu,
      'said',
    ),
  );

/** Names the speaker before the quotation, which stays whole: a listener can't see who speaks. Other forms are left as they are. */
export function speakerFirst(sentence: string): string {
  const parted = INTERPOSED.exec(sentence);
  if (parted) {
    const [, open, one, mark, , before, says, said, behind, stop, other] = parted;
    const who = (before ?? behind).replace(/^\p{Ll}/u, (c) => c.toUpperCase());
    // A full stop behind the speaker: the first part was a sentence.
    return `${who} ${says ?? said}: ${open}${one}${mark === ',' ? stop : mark} ${other}`;
  }
  const m = SPEECH.exec(sentence);
  if (!m) return sentence;
  const [, open, quote, mark, close, verb, who, , more] = m;
  // A relative clause behind the name needs its closing comma before the verb.
  const name = who.trim().replace(/,$/, '');
  // "said Ann Ware of the new ban": what she spoke of is no part of her name.
  if (
    /^\p{Lu}\S*(?: \p{Lu}\S*)* (?:of|about|on|during|after|before|in) (?:the|this|that|his|her|its|their|an?)\b/u.test(
      name,
    )
  )
    return sentence;
  const subject = /,/.test(name) ? `${name},` : name;
  const end = mark === ',' ? '.' : mark;
  const said = more ? `${open}${quote}${end} ${more.slice(1)}` : `${open}${quote}${end}${close}`;
  const first = subject[0].toUpperCase() + subject.slice(1);
  return `${first} ${verb}: ${said}`;
}
