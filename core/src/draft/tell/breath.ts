/**
 * Long sentences parted for the breath, beside the clauses of `decompose`: what happened while something went on, what a
 * participle adds, whom a passive names last, what a noun was through before. Each has guards from reading what it does to
 * real prose; where one fails the sentence stays whole.
 */
import { formOf, inflect } from '../../language/inflect.ts';
import { ASSERTS } from '../../language/reporting.ts';
import { isFiniteVerb, type TaggedToken } from '../../language/tagged.ts';
import type { Subject } from './decompose.ts';
import type { Tagged } from './restructure.ts';
import { closed, inQuote, words } from './sentence.ts';

export const finiteIn = (tokens: readonly TaggedToken[], from: number, to: number) =>
  tokens.flatMap((_, i) => (i >= from && i < to && isFiniteVerb(tokens, i) ? [i] : []));

/** A clause word that governs what stands behind it: a part of such a sentence can't be told alone. */
export const GOVERNS =
  /^(?:if|unless|whether|although|though|because|since|so|than|that|until|while|whenever|once|as)$/i;

/** What hasn't happened, or may not have: "was expected to", "is said to", "hopes to"; a part told alone would be certain. */
const UNSURE =
  /^(?:expect|set|due|likely|unlikely|believe|think|suppose|schedule|plan|allege|accuse|hope|want|try|seek|aim|intend|promise|threaten|appear|seem|say|report|propose|agree|refuse|ask|tell|order|urge|need)$/;
export const unsure = (tokens: readonly TaggedToken[]): boolean =>
  tokens.some((t, i) => tokens[i + 1]?.text === 'to' && (UNSURE.test(t.lemma) || UNSURE.test(t.text)) && tokens[i + 2]?.pos !== 'DET'); // prettier-ignore

/** Words in -ing that stand before a noun like prepositions (Quirk et al. 1985, 9.8, from memory), not for an act. */
const PREPOSITIONS =
  /^(?:including|excluding|following|concerning|regarding|considering|according|depending|owing|barring|pending|given|starting|beginning|ranging|being|having|using|counting|assuming|notwithstanding|compared|judging|speaking|leading)$/i;

/** Acts of speech are done by whoever else wants or expects something, too. */
const SPEAKS = new RegExp(`^(?:${ASSERTS})$`);

type Time = 'past' | 'present';
/** The time a main clause tells in; null where a modal makes it neither. */
export function timeOf(tokens: readonly TaggedToken[], verb: number): Time | null {
  const word = tokens[verb].text.toLowerCase();
  if (/^(?:was|were|had|did|has|have)$/.test(word)) return 'past';
  if (/^(?:is|are|am|do|does)$/.test(word)) return 'present';
  if (tokens[verb].pos !== 'VERB') return null;
  const form = formOf(tokens[verb].text, tokens[verb].lemma, false);
  return form === 'past' || form === 'participle' ? 'past' : form === 'ing' ? null : 'present';
}

/** A sentence's subject, from `from` to the verb: a plain noun phrase. */
export function subjectBefore(
  tokens: readonly TaggedToken[],
  from: number,
  verb: number,
): readonly TaggedToken[] | null {
  let end = verb;
  while (end > from + 1 && tokens[end - 1].pos === 'ADV') end--;
  const own = tokens.slice(from, end);
  return own.length &&
    own.length <= 9 &&
    own[0].pos !== 'ADP' &&
    own.every((t) =>
      ['DET', 'ADJ', 'NOUN', 'PROPN', 'NUM', 'PRON', 'PART', 'ADP', 'CCONJ'].includes(t.pos),
    ) &&
    !/^(?:there|this|that|what|which|who|it)$/i.test(own[0].text)
    ? own
    : null;
}

/** Where the clause begins behind an opening phrase that a comma closes, or 0 without one. */
function behindOpening(tokens: readonly TaggedToken[]): number {
  const comma = tokens.findIndex((t) => t.text === ',');
  if (tokens[0]?.pos === 'ADP' && comma > 0 && comma < 8 && !finiteIn(tokens, 0, comma).length)
    return comma + 1;
  return 0;
}

/** "He was clearing the yard when the bucket rang." → "He was clearing the yard. Then the bucket rang.": the clause behind is the event. */
const OF_A_TIME = /^(?:refer|talk|speak|think|remember|describe|mention|recall|mean|wait|hope|dream)$/;
export function whenEvent({ text, tokens }: Tagged): string[] | null {
  const at = tokens.findIndex((t, i) => i > 4 && t.text === 'when');
  if (at < 0 || inQuote(text, tokens[at].start) || /[?:;]/.test(text)) return null;
  const left = finiteIn(tokens, 0, at);
  if (left.length !== 1 || !/^(?:was|were)$/.test(tokens[left[0]].text)) return null;
  // Only what went on is broken into: "was clearing", not "was cleared", nor "was referring to the morning when".
  let v = left[0] + 1;
  while (tokens[v]?.pos === 'ADV') v++;
  if (tokens[v]?.pos !== 'VERB' || !/ing$/.test(tokens[v].text) || OF_A_TIME.test(tokens[v].lemma)) return null; // prettier-ignore
  if (
    tokens
      .slice(0, at)
      .some((t) => GOVERNS.test(t.text) || /^(?:not|n['’]t|never|only|just|who|which)$/i.test(t.text))
  )
    return null;
  const right = finiteIn(tokens, at + 1, tokens.length);
  const first = right[0];
  if (
    first === undefined ||
    timeOf(tokens, first) !== 'past' ||
    /^(?:had|has|have)$/.test(tokens[first].text)
  )
    return null;
  const end = tokens[at - 1].text === ',' ? tokens[at - 1].start : tokens[at].start;
  if (words(text.slice(tokens[at + 1].start)) < 4) return null;
  return [closed(text.slice(0, end)), closed(`Then ${text.slice(tokens[at + 1].start)}`)];
}

/** "They got the horses out, leading them one by one." → "… out. They led them one by one." */
export function participleTail({ text, tokens }: Tagged, carry: Subject): string[] | null {
  if (/[?:;]/.test(text)) return null;
  for (let i = tokens.length - 4; i > 5; i--) {
    if (tokens[i].text !== ',' || inQuote(text, tokens[i].start)) continue;
    let v = i + 1;
    if (tokens[v].pos === 'ADV' && tokens[v].text !== 'not') v++;
    const act = tokens[v];
    if (
      act?.pos !== 'VERB' ||
      !/ing$/.test(act.text) ||
      PREPOSITIONS.test(act.text) ||
      act.lemma === act.text
    )
      continue;
    const from = behindOpening(tokens);
    const finite = finiteIn(tokens, from, i);
    if (
      !finite.length ||
      (unsure(tokens.slice(from, i)) && !SPEAKS.test(inflect(act.lemma, 'past'))) ||
      tokens.slice(from, i).some((t) => GOVERNS.test(t.text) || /^(?:who|which|where|when|,)$/i.test(t.text))
    )
      return null;
    const time = timeOf(tokens, finite[0]);
    const subject = subjectBefore(tokens, from, finite[0]);
    // What hangs behind it must be of the act: no further clause of the sentence, no list of acts.
    const behind = tokens.slice(v + 1);
    if (
      !time ||
      !subject ||
      behind.some(
        (t) =>
          t.text === ',' || (t.text === 'and' && behind.some((x) => /ing$/.test(x.text) && x.pos === 'VERB')),
      )
    )
      return null;
    if (words(text.slice(act.start)) < 4) return null;
    const carried = carry(text.slice(subject[0].start, subject.at(-1)!.end), subject);
    if (!carried) return null;
    const many = /^(?:They|We|You|I)$/.test(carried);
    const verb = inflect(act.lemma, time === 'past' ? 'past' : many ? 'base' : 'third');
    const adverb = v > i + 1 ? `${tokens[i + 1].text} ` : '';
    return [
      closed(text.slice(0, tokens[i].start)),
      closed(`${carried} ${adverb}${verb}${text.slice(act.end)}`),
    ];
  }
  return null;
}

/** "It was lowered by thieves who also took lead." → "It was lowered by thieves. The thieves also took lead." */
export function agentTail({ text, tokens }: Tagged): string[] | null {
  if (/[?:;]/.test(text)) return null;
  for (let i = tokens.length - 4; i > 4; i--) {
    if (!/^(?:who|that)$/.test(tokens[i].text) || inQuote(text, tokens[i].start)) continue;
    const head = tokens[i - 1];
    if (head.pos !== 'NOUN') return null;
    let from = i - 1;
    while (from > 0 && ['ADJ', 'NOUN', 'NUM'].includes(tokens[from - 1].pos)) from--;
    const det = tokens[from - 1];
    const plural = /s$|men$|people$/.test(head.text);
    // New to the listener: "a keeper who", "thieves who"; what is known already is told apart by its clause.
    const fresh = det && /^an?$/i.test(det.text) ? from - 1 : plural && det && det.pos === 'ADP' ? from : -1;
    if (fresh < 3 || tokens[fresh - 1].text !== 'by') return null;
    const verb = finiteIn(tokens, i + 1, Math.min(tokens.length, i + 4))[0];
    if (verb === undefined || /^(?:had|would|could|might|may)$/.test(tokens[verb].text)) return null;
    if (!finiteIn(tokens, 0, fresh).length || words(text.slice(tokens[i + 1].start)) < 4) return null;
    const name = text.slice(tokens[from].start, head.end);
    const before = text.slice(0, head.end);
    return [closed(before), closed(`The ${name} ${text.slice(tokens[i + 1].start)}`)];
  }
  return null;
}

/** "A bell stolen from a tower last year has been found." → "A bell was stolen from a tower last year. It has been found." */
export function throughBefore({ text, tokens }: Tagged, carry: Subject): string[] | null {
  const from = behindOpening(tokens);
  if (!/^(?:an?|the|two|three|four|five|six|seven|eight|nine|ten|\d+)$/i.test(tokens[from]?.text ?? ''))
    return null;
  const main = finiteIn(tokens, from, tokens.length).find((i) => tokens[i].pos === 'AUX');
  if (main === undefined || main - from < 6 || inQuote(text, tokens[main].start)) return null;
  let p = from + 1;
  while (p < main && ['ADJ', 'NOUN', 'PROPN', 'NUM'].includes(tokens[p].pos)) p++;
  const participle = tokens[p];
  if (
    participle?.pos !== 'VERB' ||
    tokens[p - 1].pos !== 'NOUN' ||
    !['ADP', 'ADV'].includes(tokens[p + 1]?.pos ?? '')
  )
    return null;
  if (formOf(participle.text, participle.lemma, true) !== 'participle' || /ing$/.test(participle.text))
    return null;
  // Nothing else may hang in between, and the noun is new or told apart by no other one.
  const between = tokens.slice(p + 1, main);
  if (
    between.length < 4 ||
    between.some(
      (t) =>
        /^[,;:“”]$/.test(t.text) || GOVERNS.test(t.text) || /^(?:who|which|and|or|not|only)$/i.test(t.text),
    )
  )
    return null;
  if (/^the$/i.test(tokens[from].text)) return null;
  const phrase = tokens.slice(from, p);
  const carried = carry(text.slice(phrase[0].start, phrase.at(-1)!.end), phrase);
  const time = timeOf(tokens, main);
  if (!carried || !time) return null;
  const plural = carried === 'They';
  const be = time === 'past' ? (plural ? 'were' : 'was') : plural ? 'are' : 'is';
  const head = text.slice(0, phrase.at(-1)!.end);
  return [
    closed(`${head} ${be} ${text.slice(participle.start, between.at(-1)!.end)}`),
    closed(`${carried} ${text.slice(tokens[main].start)}`),
  ];
}

const SPAN =
  /^(?:(?:just|only|about|almost|nearly|roughly|barely|some) |(?:less|more|little more) than )?(?:an?|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|\d+) (?:second|minute|hour|day|week|fortnight|month|year|decade)s? (?:before|after|later|earlier)\b/;

/** "…, less than a month before the new one was due." → "That was less than a month before the new one was due." */
export function spanTail({ text, tokens }: Tagged): string[] | null {
  if (/[?:;]/.test(text)) return null;
  for (let i = tokens.length - 4; i > 5; i--) {
    if (tokens[i].text !== ',' || inQuote(text, tokens[i].start)) continue;
    const tail = text.slice(tokens[i + 1].start);
    if (!SPAN.test(tail)) continue;
    const finite = finiteIn(tokens, 0, i);
    // It must be the main clause's time, not that of a clause within.
    if (
      finite.length !== 1 ||
      tokens
        .slice(0, i)
        .some((t) => GOVERNS.test(t.text) || /^(?:who|which|where|when|said|says)$/i.test(t.text))
    )
      return null;
    if (
      tokens.slice(i + 1).some((t) => t.text === ',') ||
      words(tail) < 5 ||
      timeOf(tokens, finite[0]) !== 'past'
    )
      return null;
    return [closed(text.slice(0, tokens[i].start)), closed(`That was ${tail}`)];
  }
  return null;
}
