/**
 * One thing, two figures, two people who give them: "Police counted 1,500. The organisers put it at 4,000." Told alone,
 * either is taken for the truth, so both are told.
 */
import { UNIT_NAMES } from '../language/lexicon.ts';
import { ASSERTS, THINKS } from '../language/reporting.ts';
import type { TaggedToken } from '../language/tagged.ts';
import { stems } from './centrality.ts';
import { numbersIn } from './extract.ts';
import { attributionOf } from './saying.ts';

export interface Figure {
  value: number;
  text: string;
  start: number;
  unit: string;
  /** The stem of what is counted, or empty. */
  thing: string;
}
export interface Claimed {
  text: string;
  tokens: readonly TaggedToken[];
}

/** The noun that is counted stands within so many words. */
const REACH = 3;
/** How a figure is given besides being said: "put it at 40", "counted 40". */
const GIVES = `(?:${ASSERTS}|${THINKS}|puts?|counts?|counted|gives?|gave|speaks? of|spoke of)`;
/** What of two sentences side by side is a verb for sure: "the union claims 40". */
const GIVES_IT = `(?:${GIVES}|claims|estimates|reckons)`;
const PUTS = new RegExp(`\\b${GIVES_IT}\\b`, 'i');
/** Who gives it, where no verb of saying does: "Police counted …", "The union puts it at …". */
const GIVER = new RegExp(
  String.raw`^((?:the|an?|its|their|his|her)?\s?[\p{L}’'-]+(?:\s[\p{L}’'-]+){0,4}?)\s${GIVES_IT}\b`,
  'iu',
);
const giverOf = ({ text, tokens }: Claimed): string | null =>
  (attributionOf(text, tokens)?.text ?? GIVER.exec(text)?.[1])?.trim().toLowerCase() ?? null;
const SETS_AGAINST =
  /^(?:But|However|Yet|Though|While|Whereas|Others?|Critics|Opponents|By contrast|On the other hand)\b|\b(?:however|by contrast|instead|only|as many as)\b/;
/** "…, organisers 4,000": what the second says stands without a verb. */
const SECOND = new RegExp(
  String.raw`[,;]\s+(?:while |but |and |though |whereas )?(?!(?:and|but|or|against|from|in|of|to|by|with|than|about|nearly)\s)(?:the |an? |its |their |his |her )?[\p{L}’'-]+(?:\s[\p{L}’'-]+){0,3}?\s(?:${GIVES}\s(?:(?:it|them|there|that|the (?:figure|number|total|cost|bill)|about|nearly|around|only|at|as|was|were)\s)*)?(?:about |nearly |around |only |at )?[£$€]?\d`,
  'u',
);
const FIRST = new RegExp(String.raw`(?:\b${GIVES}\b|according to\b)[^;“”]{0,60}\d`, 'iu');

/** The figures of a sentence with what they count; years and days are none. */
export function figuresOf({ text, tokens }: Claimed): Figure[] {
  return numbersIn(text).flatMap((n): Figure[] => {
    if (!n.unit && /^(?:1[5-9]|20)\d\d$/.test(n.text)) return [];
    const behind = tokens.filter((t) => t.start >= n.end).slice(0, REACH);
    const noun = behind.findIndex((t) => t.pos === 'NOUN');
    const reached = noun >= 0 && behind.slice(0, noun).every((t) => t.pos === 'ADJ' || t.pos === 'NUM');
    const thing = reached && behind[noun].text !== n.unit ? (stems(behind[noun].text)[0] ?? '') : '';
    // What is counted may be given as the unit: "1,500 people".
    const measure = n.unit && (UNIT_NAMES.has(n.unit) || !/^\p{L}{4,}$/u.test(n.unit)) ? n.unit : '';
    const counted = thing || (measure || !n.unit ? '' : (stems(n.unit)[0] ?? ''));
    return [{ value: n.value, text: n.text, start: n.start, unit: measure, thing: counted }];
  });
}

const rivals = (a: Figure, b: Figure) =>
  a.value !== b.value &&
  (a.unit === b.unit || !a.unit || !b.unit) &&
  (a.thing === b.thing || !a.thing || !b.thing);

/** Of two sentences side by side the figures that they set against each other, or null. */
export function disputedBetween(a: Claimed, b: Claimed): readonly [Figure, Figure] | null {
  if (!PUTS.test(b.text) || !/\d/.test(a.text)) return null;
  const [first, second] = [giverOf(a), giverOf(b)];
  // "She said … She added …", "In 1978 the survey counted": one who goes on contradicts nobody.
  if (second && /^(?:it|he|she|they|i|we|in \d.*)$/.test(second)) return null;
  const others = first && second && first !== second;
  if (!others && !(second && SETS_AGAINST.test(b.text))) return null;
  for (const x of figuresOf(a))
    for (const y of figuresOf(b)) {
      const bare = !y.thing && !y.unit;
      // Without a noun or a unit of its own it must say of itself that it is that figure: "puts it at 40".
      if (
        rivals(x, y) &&
        (!bare || /\b(?:it|them|the (?:figure|number|total))\b/.test(b.text.slice(0, y.start)))
      )
        return [x, y];
    }
  return null;
}

/** The figures that one sentence sets against each other: "Police say 1,500 marched, organisers 4,000". Null when none. */
export function disputedWithin(claimed: Claimed): readonly [Figure, Figure] | null {
  const m = SECOND.exec(claimed.text);
  if (!m || !FIRST.test(claimed.text.slice(0, m.index))) return null;
  const figures = figuresOf(claimed);
  const y = figures.find((f) => f.start >= m.index + m[0].length - 2);
  const x = figures.filter((f) => f.start < m.index).at(-1);
  return x && y && rivals(x, y) ? [x, y] : null;
}
