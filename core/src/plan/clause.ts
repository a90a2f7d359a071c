/** A fact's own clause as what follows "why", as a question, as a noun phrase: for titles, hooks and promises. */
import { AUXILIARY } from '../language/closed.ts';
import type { Fact } from '../facts/facts.ts';
import { formOf, inflect } from '../language/inflect.ts';
import { isFiniteVerb, type TaggedToken, type Tagger } from '../language/tagged.ts';
import { datesIn } from '../facts/extract.ts';

export interface PlainClause {
  subject: string;
  /** The verb group as it stands: "was closed", "has", "could not turn". */
  verb: string;
  object: string;
}

const POINTER =
  /^(?:it|they|he|she|this|that|these|those|there|we|one|some|most|many|both|all|none|each|nobody|everyone|someone|who|which|what|the (?:same|other|others|first|second|latter|former))\b/i;
const LONGEST_SUBJECT = 7;

/** A small letter at the front unless a name or "I" stands there. */
const lowerFirst = (text: string, fact: Fact) =>
  /^I\b/.test(text) ||
  fact.names.some((n) => text.startsWith(n.text) || text.startsWith(n.text.split(' ')[0]))
    ? text
    : text[0].toLowerCase() + text.slice(1);

/** The clause of a fact when its subject can be told alone; null when it points at something, or is a question or quotation. */
export function plainClause(fact: Fact): PlainClause | null {
  const { statement } = fact;
  if (!statement || fact.quotes.length) return null;
  const subject = statement.subject.text.trim();
  if (POINTER.test(subject) && !/^I\b/.test(subject)) return null;
  if (/^\d{4} |\bthat$/.test(subject)) return null;
  // "According to the data the price": a phrase taken in with its subject.
  if (/^(?:according|despite|after|before|in|on|at|for|with|by|from|during|under|over)\b/i.test(subject))
    return null;
  if (subject.split(' ').length > LONGEST_SUBJECT || /[,“”"(]/.test(subject)) return null;
  const object = (statement.object?.text ?? '').replace(/\s+(?:because|and|but|so)$/i, '').trim();
  if (/[“”"]/.test(object)) return null;
  // What points into the passage, in an object, would dangle outside it.
  if (/\b(?:it|them|him|there|this|that|these|those)\b/i.test(object)) return null;
  if (!/^[\p{L}’' -]+$/u.test(statement.verb.text) || /\b(?:and|but|or)\b/.test(statement.verb.text))
    return null;
  // What stands behind "if" or "because" is not what happened.
  if (
    /\b(?:if|whether|because|although|unless|that|than|when|while)\s+$/i.test(
      fact.text.slice(0, statement.subject.start),
    )
  )
    return null;
  return { subject: lowerFirst(subject, fact), verb: statement.verb.text, object };
}

/** "why the line was closed", from a clause: no word changes place. */
export const whyClause = (c: PlainClause): string =>
  `why ${c.subject} ${c.verb}${c.object ? ` ${c.object}` : ''}`;

const AUX = new RegExp(`^${AUXILIARY}$`, 'i');

/** "Why was the line closed?": the clause turned round; null when its verb can't be. */
export function whyQuestion(c: PlainClause, tagger: Tagger, word = 'Why'): string | null {
  const rest = c.object ? ` ${c.object}` : '';
  const [first, ...others] = c.verb.split(/\s+/);
  const opener = word ? `${word} ` : '';
  const up = (text: string) => text[0].toUpperCase() + text.slice(1);
  if (AUX.test(first)) {
    // "had a lamp" has no helper to turn round.
    if (
      /^(?:has|have|had|do|does|did)$/i.test(first) &&
      !others.some((w) => !/^(?:not|also|still|ever|never)$/.test(w))
    ) {
      if (/^(?:do|does|did)$/i.test(first)) return null;
      const helper = /^had$/i.test(first) ? 'did' : /^has$/i.test(first) ? 'does' : 'do';
      return up(`${opener}${helper} ${c.subject} have${others.length ? ` ${others.join(' ')}` : ''}${rest}?`);
    }
    return up(
      `${opener}${first.toLowerCase()} ${c.subject}${others.length ? ` ${others.join(' ')}` : ''}${rest}?`,
    );
  }
  const tokens = tagger(`${c.subject} ${c.verb} ${c.object}.`);
  const token = tokens.find((t) => t.pos === 'VERB' && c.verb.split(/\s+/).includes(t.text));
  // "needed ten years of it and picked a village": only the first verb would be turned round.
  if (secondVerb(tokens)) return null;
  if (!token || others.some((w) => /^(?:not|n['’]t|no|never)$/i.test(w))) return null;
  const form = formOf(token.text, token.lemma, false);
  if (form !== 'past' && form !== 'third' && form !== 'base') return null;
  const helper = form === 'past' ? 'did' : form === 'third' ? 'does' : 'do';
  return up(
    `${opener}${helper} ${c.subject} ${c.verb.replace(token.text, inflect(token.lemma, 'base'))}${rest}?`,
  );
}

/** Whether another finite verb of the same subject is joined to the first. */
const secondVerb = (tokens: readonly TaggedToken[]): boolean =>
  tokens.some((t, i) => {
    if (t.pos !== 'CCONJ') return false;
    let v = i + 1;
    while (tokens[v]?.pos === 'ADV') v++;
    return tokens[v]?.pos === 'VERB' && isFiniteVerb(tokens, v);
  });

/** "The lift that has no engine": the subject's noun with what is said of it; null when it reads badly. */
export function thatPhrase(c: PlainClause): string | null {
  if (!/^(?:the|an?)\s/i.test(c.subject) || / of | in | on | at /.test(c.subject) || !c.object) return null;
  if (/^(?:is|are|was|were) (?:the|an?)\b/.test(`${c.verb} ${c.object}`)) return null;
  return `The ${c.subject.replace(/^(?:the|an?)\s/i, '')} that ${c.verb} ${c.object}`;
}

/** What a date leaves open where it stood: "in the winters of", "on the evening of". */
const HOLDS_DATE =
  /\s?(?:(?:in|on|by|since|until|of|between|from|during)\s)?(?:the\s\p{L}+\sof\s)?(?:(?:in|on|by|since|until|of|between|from|during)\s)?$/iu;
const OPEN_END = /(?:^|\s)(?:and|or|to|of|in|on|by|at|the|an?|since|until|from|between|for|with)$/i;

/** A clause without its day: titles date nothing that needn't be dated. Dates that are counted up go together. */
export function undated(text: string): string {
  const groups: { start: number; end: number }[] = [];
  for (const d of datesIn(text)) {
    const before = groups.at(-1);
    if (before && /^\s*(?:and|or|to|[-–,])\s*$/.test(text.slice(before.end, d.start))) before.end = d.end;
    else groups.push({ start: d.start, end: d.end });
  }
  let out = text;
  for (const d of groups.reverse())
    out = `${out.slice(0, d.start).replace(HOLDS_DATE, ' ')}${out.slice(d.end)}`;
  out = out
    .replace(/\s+/g, ' ')
    .replace(/\s([,.])/g, '$1')
    .trim();
  return OPEN_END.test(out.replace(/[.,?!]$/, '')) ? text : out;
}
