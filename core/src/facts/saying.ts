/** How a sentence says what it says: who says so, how sure, and whether it denies. Spans are offsets into the sentence. */
import { DENIAL } from '../language/closed.ts';
import { ASSERTS, FINDS, SPOKE, THINKS } from '../language/reporting.ts';
import { PATTERNS } from '../language/lexicon.ts';
import { quotedSpans } from '../language/quotes.ts';
import type { TaggedToken } from '../language/tagged.ts';

export interface Spanned {
  text: string;
  start: number;
  end: number;
}

export const MODALITIES = ['plain', 'likely', 'possible', 'ought'] as const;
export type Modality = (typeof MODALITIES)[number];

/** Words that make a claim less than plain, most cautious first (after the classes of hedges in Hyland 1998, "Hedging in Scientific Research Articles"; lists shortened). */
const HEDGES: readonly [Modality, RegExp][] = [
  [
    'possible',
    /\b(?:may|might|could|perhaps|maybe|possibl[ey]|unclear|unknown|unsure|not (?:yet )?known|whether or not|alleged(?:ly)?|reportedly|rumou?red)\b/giu,
  ],
  [
    'likely',
    /\b(?:probabl[ey]|likely|appears?|appeared|seems?|seemed|suggests?|suggested|thought to|believed to|expected to|estimated|is put at|are put at|about to|presumably)\b/giu,
  ],
  ['ought', /\b(?:should|must|ought|has to|have to|needs? to)\b/giu],
];
const DENIALS = new RegExp(`\\b${DENIAL}\\b`, 'giu');

/** Spans of a pattern outside quotation marks: what is quoted hedges for its speaker only. */
function outside(text: string, pattern: RegExp): Spanned[] {
  const found = [...text.matchAll(pattern)];
  if (!found.length) return [];
  const quotes = quotedSpans(text);
  return found
    .map((m) => ({ text: m[0], start: m.index, end: m.index + m[0].length }))
    .filter((s) => !quotes.some(([from, to]) => s.start >= from && s.end <= to));
}

/** The month is no hedge: "in May", "May 1889", "3 May". */
const isMonth = (text: string, s: Spanned) =>
  s.text === 'May' &&
  (/(?:\d|in|of|on|since|until|by|last|next|early|late|from|to|between|and|through|during)\s+$/i.test(
    text.slice(0, s.start),
  ) ||
    /^,?\s+(?:\d|\p{Lu})/u.test(text.slice(s.end)));

export function modalityOf(text: string): { modality: Modality; hedges: Spanned[] } {
  for (const [modality, pattern] of HEDGES) {
    const hedges = outside(text, pattern).filter((s) => !isMonth(text, s));
    if (hedges.length) return { modality, hedges };
  }
  return { modality: 'plain', hedges: [] };
}

/** Denied when a word of denial stands outside quotations; "not only" and "no more than" deny nothing. */
export function polarityOf(text: string): 'affirmed' | 'denied' {
  const denials = outside(text, DENIALS).filter(
    (s) => !/^not$/i.test(s.text) || !/^\s+only\b/.test(text.slice(s.end)),
  );
  return denials.some(
    (s) => !/^no$/i.test(s.text) || !/^\s+(?:more|less|later|fewer|longer) than\b/.test(text.slice(s.end)),
  )
    ? 'denied'
    : 'affirmed';
}

const SAYS = `(?:${ASSERTS}|${THINKS}|${SPOKE}|found|called|estimated|recorded|according to)`;
const WHO = `((?:(?:the|a|an|his|her|their|its|one|${PATTERNS.title}\\.?)\\s+)?[\\p{L}’'.-]+(?:\\s+(?:of|and|for|the|[\\p{L}’'.-]+)){0,6}?)`;
const FORMS: readonly RegExp[] = [
  new RegExp(`\\baccording to ${WHO}(?=[,.;]|\\s+(?:which|who|that|in|on|from)\\b|$)`, 'iu'),
  // “…,” said Hanna Brody, who … / “…,” the company said.
  new RegExp(`[”"],?\\s+${SAYS}\\s+${WHO}(?=[,.;:]|$)`, 'u'),
  new RegExp(`[”"],?\\s+${WHO}\\s+${SAYS}\\b`, 'u'),
  // …, the company said.
  new RegExp(`,\\s+${WHO}\\s+${ASSERTS}\\s*(?:$|[.,]|\\b(?:on|in|last|this)\\b)`, 'u'),
  // Dr Okafor, who teaches …, said: / The report found that …
  new RegExp(
    `^${WHO}(?:,[^,“"]{3,80},)?\\s+(?:also |later |once )?(?:(?:${ASSERTS}|${THINKS})\\b|${FINDS} that\\b)`,
    'u',
  ),
];
/** Without one of these words nobody says anything; most sentences stop here. */
const ANY_SAYING = new RegExp(`\\b(?:${SAYS}|${FINDS})\\b`);
const NOBODY = /^(?:it|there|this|that|which|what|who|nobody|everyone|one|they found)$/i;

/** Who says so, as the source names them, or null. "I", "we" and pronouns count: the words are still somebody's. */
export function attributionOf(text: string, tokens: readonly TaggedToken[]): Spanned | null {
  if (!ANY_SAYING.test(text) && !/^According/.test(text)) return null;
  for (const form of FORMS) {
    const m = form.exec(text);
    if (!m?.[1] || NOBODY.test(m[1])) continue;
    const start = m.index + m[0].indexOf(m[1]);
    const end = start + m[1].replace(/(?<!\b(?:Mr|Mrs|Ms|Dr|St|Jr|Sr|[A-Z]))\.$/, '').length;
    // Who speaks is a noun phrase: no verb stands in it, and no opening of the sentence ("After a month someone").
    if (/^(?:in|on|at|after|before|by|for|from|when|then|that|this|if|as|during|since)\s/i.test(m[1]))
      continue;
    if (tokens.some((t) => t.start >= start && t.end <= end && (t.pos === 'VERB' || t.pos === 'AUX')))
      continue;
    return { text: text.slice(start, end), start, end };
  }
  return null;
}
