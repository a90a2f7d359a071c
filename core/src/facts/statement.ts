/** Subject, verb and rest of a sentence's first main clause, as spans: open information extraction by part-of-speech patterns (after Fader, Soderland and Etzioni 2011, ReVerb). */
import { isFiniteVerb, type TaggedToken } from '../language/tagged.ts';
import type { Spanned } from './saying.ts';

export interface Statement {
  subject: Spanned;
  verb: Spanned;
  /** What follows the verb in its clause; absent when nothing does. */
  object?: Spanned;
}

const NOMINAL = new Set(['DET', 'ADJ', 'NOUN', 'PROPN', 'PRON', 'NUM', 'ADP', 'PART', 'CCONJ']);
/** What a noun phrase opens with, and what it must hold. */
const OPENS = new Set(['DET', 'NOUN', 'PROPN', 'PRON', 'NUM', 'ADJ']);
const HEADS = new Set(['NOUN', 'PROPN', 'PRON', 'NUM', 'DET']);
const VERBAL = new Set(['AUX', 'VERB', 'ADV', 'PART']);

/** Null when no subject stands before a finite verb (an order, a fragment), or the sentence is a question. */
export function statementOf(text: string, tokens: readonly TaggedToken[]): Statement | null {
  // An order has nobody in it who does it: "Brush the inside and leave it".
  if (/\?["”]?$/.test(text) || (tokens[0]?.pos === 'VERB' && !/ing$/i.test(tokens[0].text))) return null;
  const span = (from: number, to: number): Spanned => ({
    text: text.slice(tokens[from].start, tokens[to].end),
    start: tokens[from].start,
    end: tokens[to].end,
  });
  let from = 0;
  /** Where the subject ended before a relative clause or apposition between commas. */
  let resumed: { start: number; end: number } | null = null;
  for (let i = 0; i < tokens.length; i++) {
    const t = tokens[i];
    if (
      t.text === ',' &&
      i > from &&
      /^(?:who|which|whose|whom|where|an?|the)$/i.test(tokens[i + 1]?.text ?? '')
    ) {
      const close = tokens.findIndex((x, j) => j > i && x.text === ',');
      const subjectLike = tokens.slice(from, i).every((x) => NOMINAL.has(x.pos));
      if (close > 0 && close - i < 16 && subjectLike) {
        resumed = { start: from, end: i - 1 };
        from = close + 1;
        i = close;
        continue;
      }
    }
    if (/^[,;:“”"(]$/.test(t.text) || t.pos === 'SCONJ') {
      // An opening phrase or clause before the subject: begin again behind it.
      from = i + 1;
      continue;
    }
    if (!isFiniteVerb(tokens, i)) continue;
    const subject = i === from && resumed ? resumed : subjectBefore(tokens, from, i);
    if (!subject) continue;
    let end = i;
    while (end + 1 < tokens.length && VERBAL.has(tokens[end + 1].pos)) end++;
    while (end > i && tokens[end].pos === 'ADV') end--;
    let stop = end + 1;
    while (stop < tokens.length && !/^[,;:.!?”"]$/.test(tokens[stop].text) && tokens[stop].pos !== 'SCONJ')
      stop++;
    return {
      subject: span(subject.start, subject.end),
      verb: span(i, end),
      ...(stop > end + 1 ? { object: span(end + 1, stop - 1) } : {}),
    };
  }
  return null;
}

/** The noun phrase that ends before a verb, or null when what stands there is none. */
function subjectBefore(
  tokens: readonly TaggedToken[],
  from: number,
  verb: number,
): { start: number; end: number } | null {
  let start = from;
  // "Within ninety seconds the deck was moving": behind an opening phrase without a comma the subject has its own article.
  if (tokens[from]?.pos === 'ADP') {
    for (let j = verb - 1; j > from; j--)
      if (['DET', 'PRON'].includes(tokens[j].pos) && tokens[j - 1].pos !== 'ADP') {
        start = j;
        break;
      }
    if (start === from) return null;
  }
  // "Dimming one bank only did not help".
  const gerund = tokens[from]?.pos === 'VERB' && /ing$/i.test(tokens[from].text);
  while (!gerund && start < verb && !OPENS.has(tokens[start].pos)) start++;
  let end = verb - 1;
  while (end > start && tokens[end].pos === 'ADV') end--;
  // "at his party he took me aside": a pronoun before the verb is the subject, whatever stands before it.
  if (end < start) return null;
  if (tokens[end].pos === 'PRON' && /^(?:i|he|she|it|we|they|you|who)$/i.test(tokens[end].text)) start = end;
  const phrase = tokens.slice(start, end + 1);
  return start <= end &&
    phrase.every((t, k) => NOMINAL.has(t.pos) || t.pos === 'ADV' || (gerund && k === 0)) &&
    phrase.some((t) => HEADS.has(t.pos))
    ? { start, end }
    : null;
}
