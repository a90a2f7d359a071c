/** Words for others: which of the words in a note go, and which come. */
import { wordsValue } from '../../language/numbers.ts';
import { escaped } from '../ops/cut.ts';
import { ORDER_WORDS } from '../plainly.ts';
import type { ReviseContext } from '../types.ts';
import { saysWord } from './masked.ts';
import type { Quote, Roles } from './roles.ts';

/** The words that are to stand in a line, and those they stand for: what the script has is what goes. */
export function pairIn({ quotes, text }: Roles): { old: Quote; by: string } | null {
  const said = quotes.filter((q) => q.said);
  const fresh = quotes.filter((q) => !q.said);
  if (said.length === 1 && fresh.length === 1) return { old: said[0], by: fresh[0].words };
  if (said.length === 2 && !fresh.length) {
    const [a, b] = said;
    if (/^(?:and|or|)$/i.test(text.slice(a.start + 1, b.start).replace(/[\s,]+/g, ''))) return null;
    const turned = /\b(?:instead of|rather than|in place of|not|for)\b/i.test(text.slice(a.start, b.start));
    return turned ? { old: b, by: a.words } : { old: a, by: b.words };
  }
  return null;
}

const ORDERED = new RegExp(`^(?:${ORDER_WORDS})\\b`, 'i');
/** One person for another is more than a word for another. */
const PERSON = /^(?:i|we|you|he|she|they|it)$/i;
const WORDS = "(?:an? |the )?([\\p{L}\\p{N}£$€%’'.,-]+(?: [\\p{L}\\p{N}£$€%’'.,-]+){0,6}?)";
/** Words for others, neither of them quoted: "say lorry instead of truck", "truck should be lorry", "not truck but lorry". */
const UNQUOTED: readonly (readonly [RegExp, old: number])[] = [
  [
    new RegExp(
      `\\b(?:say|use|write|put|prefer|have|read|make it|call (?:it|them|him|her)) (?:only |just )?${WORDS} (?:instead of|rather than|in place of|not|and not) ${WORDS}$`,
      'iu',
    ),
    2,
  ],
  [
    new RegExp(
      `\\binstead of ${WORDS},? (?:please )?(?:say|use|write|put|have|read|make it|call (?:it|them)) ${WORDS}$`,
      'iu',
    ),
    1,
  ],
  [new RegExp(`\\bnot ${WORDS},? but ${WORDS}$`, 'iu'), 1],
  [
    new RegExp(
      `^(?:and |also )?${WORDS} (?:should|must|ought to|has to|needs to) (?:be|read|say|become) ${WORDS}$`,
      'iu',
    ),
    1,
  ],
  [
    new RegExp(
      `\\b(?:change|replace|swap|turn|correct|substitute) ${WORDS} (?:to|with|into|by|for) ${WORDS}$`,
      'iu',
    ),
    1,
  ],
  [new RegExp(`^${WORDS} (?:instead of|rather than|in place of|not) ${WORDS}$`, 'iu'), 2],
];
export function unquotedPair(text: string, context: ReviseContext): { text: string; by: string } | null {
  for (const [pattern, old] of UNQUOTED) {
    const m = pattern.exec(text.trim().replace(/[.,;!?]+$/, ''));
    if (m && saysWord(m[old], context) && !PERSON.test(m[3 - old]) && !ORDERED.test(m[3 - old])) return { text: m[old], by: m[3 - old] };
  }
  return null;
} // prettier-ignore
/** What words in a line others with the same beginning and end stand for: "would have" for "would probably have". */
export function spanFor(line: string, by: string): string | null {
  const words = by.match(/[\p{L}\p{N}’']+/gu) ?? [];
  if (words.length < 3) return null;
  const found = new RegExp(
    `(?<![\\p{L}\\p{N}])${escaped(words[0]!)}(?: [\\p{L}\\p{N}’']+){0,${words.length}} ${escaped(words.at(-1)!)}(?![\\p{L}\\p{N}])`,
    'iu',
  ).exec(line);
  return found?.[0] ?? null;
}
/** Of words for others that end in the same, said otherwise ("voted 7 to 2", "seven to two"), only what is meant. */
export function changedPart(old: string, by: string): { text: string; by: string } {
  const [a, b] = [old.split(' '), by.split(' ')];
  const tail = a.slice(-b.length);
  // "say 'about 57'" of "57 days a year": the rest stays.
  const shared = a.length > b.length && b.at(-1)!.toLowerCase() === a[0].toLowerCase();
  if (shared && b.length > 1) return { text: old, by: [by, ...a.slice(1)].join(' ') };
  const value = (w: string) => (/^\d+$/.test(w) ? Number(w) : (wordsValue(w) ?? w.toLowerCase()));
  return a.length > b.length && tail.every((w, i) => value(w) === value(b[i]!))
    ? { text: tail.join(' '), by }
    : { text: old, by };
}
