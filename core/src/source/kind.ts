/** What kind of source it is, with the reason. Simple counted signs; the person can overrule it. */
import { opensOrder } from '../language/classes.ts';
import { countWords } from '../language/sentences.ts';
import type { RawBlock, RawDocument, SourceKind } from './document.ts';

interface Sign {
  kind: SourceKind;
  weight: number;
  why: string;
  holds: (input: {
    title: string;
    blocks: readonly RawBlock[];
    text: string;
    words: number;
    /** The text without what stands in quotation marks. */
    own: string;
    signed: boolean;
    boxed: boolean;
    /** Headings of what stands behind it and was left out. */
    behind: readonly string[];
    per100: (pattern: RegExp) => number;
  }) => boolean;
}

/** What may stand before the verb of an instruction: an adverb, or what orders the steps. */
const LEADS_IN =
  /^(?:(?:then|next|now|first|second(?:ly)?|finally|lastly|also|again|once more|\p{L}+ly|step \d+|\d+)\b[,.:)]? )*/iu;
/** Whether a sentence tells somebody what to do. */
export function isOrder(text: string): boolean {
  const own = text.replace(/^["“]/, '').replace(LEADS_IN, '');
  const [, first = '', second = ''] = /^([\p{L}-]+)(?: ([\p{L}\d-]+))?/u.exec(own) ?? [];
  return opensOrder(first, second);
}
const LABELS =
  /^(?:background|objectives?|aims?|introduction|methods?|materials and methods|design|results?|findings|conclusions?|discussion|limitations?|interpretation)\b\s*[:.]?/i;

/** "Bell strike of 1887, dispute in which …", "Ferry (also Old Ferry): a boat that …": an entry names its title and says what it is. */
function definesTitle(title: string, first: string): boolean {
  const key = (text: string) =>
    text
      .toLowerCase()
      .replace(/[^\p{L}\p{N} ]+/gu, '')
      .trim();
  const name = key(title.replace(/\s*[(,].*$/, ''));
  const [, head, what] = /^(?:The\s|An?\s)?([^,:;(–—]{2,80}?)\s?(?:\([^)]{0,120}\))?\s?[,:–—]\s(?:also [^,]{2,60},\s)?(\p{Ll}[^.]{10,})/u.exec(first) ?? []; // prettier-ignore
  return name.length > 3 && head !== undefined && key(head) === name && /\b(?:in|by|of|for|that|which|who|where|from|used|held|made|built)\b/.test(what); // prettier-ignore
}

/** Its first paragraph, and the first that surely is its own. */
function openings(blocks: readonly RawBlock[]): string[] {
  const paragraphs = blocks.filter((b) => b.type === 'paragraph');
  return [paragraphs[0], paragraphs.find((b) => !b.doubt)].flatMap((b) => b?.text ?? []);
}

/** Headings that entries end on (from memory: Wikipedia, Manual of Style/Layout): fewer than may stand behind any article, since papers have the others too. */
const REFERENCES =
  /^(?:references|see also|external links|further reading|bibliography|notes and references|categories)\W*$/i;

const SIGNS: readonly Sign[] = [
  { kind: 'howto', weight: 1.5, why: 'it has a numbered list', holds: ({ blocks }) => blocks.filter((b) => b.step).length >= 3 },
  { kind: 'howto', weight: 2, why: 'it has numbered steps', holds: ({ blocks }) => blocks.filter((b) => b.step).length >= 3 && blocks.filter((b) => b.step && isOrder(b.text)).length >= blocks.filter((b) => b.step).length * 0.25 },
  { kind: 'howto', weight: 2, why: 'its title says how to do something', holds: ({ title }) => /^how to\b|^(?:freeing|fixing|making|building|cleaning|removing|repairing)\b/i.test(title) },
  { kind: 'howto', weight: 2, why: 'it tells the reader what to do', holds: ({ text, words }) => (text.split(/(?<=[.!?])\s+|\n+/).filter(isOrder).length / Math.max(1, words)) * 100 > 1.6 },
  { kind: 'abstract', weight: 4, why: 'its parts are labelled as a study’s', holds: ({ blocks }) => new Set(blocks.filter((b) => LABELS.test(b.text)).map((b) => b.text.slice(0, 6).toLowerCase())).size >= 3 },
  { kind: 'abstract', weight: 2.5, why: 'it reports a study', holds: ({ per100, words }) => words < 700 && per100(/\b(?:we (?:found|measured|sampled|tested|compared|studied|tracked|recorded|show)|participants|significant(?:ly)?|95 ?%? ?CI|p\s?[<=]|controls?|sample|randomi[sz]ed|results suggest)\b/gi) > 1.2 },
  { kind: 'abstract', weight: 3, why: 'it has an abstract', holds: ({ blocks }) => blocks.some((b) => b.type === 'heading' && /^abstract$/i.test(b.text)) },
  { kind: 'forum', weight: 3, why: 'one person tells what happened to them', holds: ({ own }) => (own.match(/\b(?:I|me|my|I'm|I’m|I'd|I’d)\b/g) ?? []).length > countWords(own) * 0.03 && /\bI (?:was|had|went|said|told|asked|thought|found|worked|took|kept)\b/.test(own) },
  { kind: 'news', weight: 2, why: 'people are quoted on a recent event', holds: ({ text, per100 }) => per100(/\b(?:said|told|according to)\b/gi) > 0.5 && /\b(?:Monday|Tuesday|Wednesday|Thursday|Friday|Saturday|Sunday|yesterday|today|this week|last night)\b/.test(text) },
  { kind: 'news', weight: 1.5, why: 'it tells what was decided on a weekday', holds: ({ text, per100 }) => per100(/\b(?:I|my)\b/g) < 0.5 && /\b(?:decided|voted|announced|agreed|approved|rejected|ruled|opened|closed|died|arrested|won|resigned)\b/.test(text) && /\bon (?:Monday|Tuesday|Wednesday|Thursday|Friday|Saturday|Sunday)\b/.test(text) },
  { kind: 'news', weight: 1, why: 'it is dated and reports what was said', holds: ({ per100 }) => per100(/\b(?:said|says|spokes(?:man|woman|person))\b/gi) > 0.4 },
  { kind: 'news', weight: 1.4, why: 'it is signed and dated', holds: ({ signed }) => signed },
  { kind: 'encyclopedia', weight: 2, why: 'it begins by saying what the thing is', holds: ({ blocks }) => openings(blocks).some((t) => /^(?:The |An? )?[\p{L}\d,'’ ()-]{2,90}?\b(?:is|was|are|were) (?:an?|the|one of)\b/u.test(t)) },
  { kind: 'encyclopedia', weight: 2.5, why: 'it begins with its subject and what it is', holds: ({ title, blocks }) => openings(blocks).some((t) => definesTitle(title, t)) },
  { kind: 'encyclopedia', weight: 1.5, why: 'it has sections under headings', holds: ({ blocks, words }) => blocks.filter((b) => b.type === 'heading').length >= 3 && words > 500 },
  { kind: 'encyclopedia', weight: 2, why: 'it has a box of facts beside it', holds: ({ boxed }) => boxed },
  { kind: 'encyclopedia', weight: 1.5, why: 'it ends on references', holds: ({ behind }) => new Set(behind.filter((t) => REFERENCES.test(t)).map((t) => t.toLowerCase())).size >= 2 },
  { kind: 'interview', weight: 4, why: 'people speak in turns', holds: ({ blocks }) => blocks.filter((b) => b.type === 'turn').length >= 3 && blocks.filter((b) => b.type === 'turn').length > blocks.length / 2 },
  { kind: 'encyclopedia', weight: 0.5, why: 'it gives many years', holds: ({ per100 }) => per100(/\b1[5-9]\d\d\b/g) > 0.8 },
]; // prettier-ignore

/** Weight of the format's own word, above any sign in the words. */
const SAID_BY_FORMAT = 6;

/** `beside`: whether it says who wrote it and when, has a box of facts, and what was left out behind it. The likeliest kind, why, and how sure (its signs' share of all signs found). News when nothing speaks. */
export function detectKind(
  title: string,
  blocks: readonly RawBlock[],
  said?: RawDocument['kind'],
  beside: { signed?: boolean; boxed?: boolean; behind?: readonly string[] } = {},
): { kind: SourceKind; reason: string; sure: number } {
  // What others answered tells nothing of what the page itself is, unless it is all there is.
  const told = blocks.filter((b) => b.type !== 'reply');
  const text = (told.some((b) => b.type !== 'heading') ? told : blocks)
    .map((b) => b.text)
    .join('\n')
    .slice(0, 60_000);
  const own = text.replace(/“[^”]{0,2000}”|"[^"\n]{0,2000}"/g, '');
  const words = countWords(text);
  const per100 = (pattern: RegExp) => ((text.match(pattern) ?? []).length / Math.max(1, words)) * 100;
  const scores = new Map<SourceKind, { sum: number; why: string; best: number }>();
  if (said) scores.set(said.is, { sum: SAID_BY_FORMAT, why: said.why, best: SAID_BY_FORMAT });
  const input = {
    title,
    blocks,
    text,
    words,
    own,
    per100,
    signed: false,
    boxed: false,
    behind: [],
    ...beside,
  };
  for (const sign of SIGNS) {
    if (!sign.holds(input)) continue;
    const entry = scores.get(sign.kind) ?? { sum: 0, why: '', best: 0 };
    entry.sum += sign.weight;
    if (sign.weight > entry.best) [entry.best, entry.why] = [sign.weight, sign.why];
    scores.set(sign.kind, entry);
  }
  const [first] = [...scores].sort((a, b) => b[1].sum - a[1].sum);
  if (!first) return { kind: 'news', reason: 'nothing in it points to another kind', sure: 0 };
  const sum = [...scores.values()].reduce((n, s) => n + s.sum, 0);
  // One weak sign alone is no certainty.
  const sure = (first[1].sum / sum) * Math.min(1, first[1].sum / 3);
  return { kind: first[0], reason: first[1].why, sure: Math.round(sure * 100) / 100 };
}
