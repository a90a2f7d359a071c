/**
 * Clause decomposition: a long sentence as several short ones, each with the subject it hangs on carried over. The
 * guards come from trials on real prose; where one fails the sentence stays whole.
 */
import { PATTERNS } from '../../language/lexicon.ts';
import { SPOKE } from '../../language/reporting.ts';
import { isA } from '../../language/classes.ts';
import { formOf } from '../../language/inflect.ts';
import { quotedSpans } from '../../language/quotes.ts';
import { isFiniteVerb, type TaggedToken } from '../../language/tagged.ts';
import { phraseThenClause, saidBetween, whoSpeaks, whoseClause } from './clauses.ts';
import {
  afterOpening,
  andClause,
  concession,
  definingTail,
  includingTail,
  midApposition,
  midParticiple,
  midRelative,
  withTail,
} from './long.ts';
import { agentTail, participleTail, spanTail, throughBefore, whenEvent } from './breath.ts';
import {
  afterTail,
  asTail,
  heldIn,
  showingTail,
  soThatTail,
  stepTail,
  subjectApposition,
  thenTail,
  threeVerbs,
  whereTail,
  whileTail,
} from './tails.ts';
import type { Tagged } from './restructure.ts';
import { upper } from './restructure.ts';
import { closed, inQuote, PLURAL, small, words } from './sentence.ts';

/** What stands for a subject said just before: "It", "They", "She", or its short name. */
export type Subject = (phrase: string, tokens: readonly TaggedToken[]) => string | null;

const NOMINAL = new Set(['DET', 'ADJ', 'NOUN', 'PROPN', 'NUM', 'PRON', 'PART']);
/** Titles that take the article. */
const TITLED =
  /^The (?:Rev|Hon|Right|Very|Most|King|Queen|Prince|Duke|Duchess|Earl|Count|Lord|Lady|Pope|Bishop|Archbishop|Emperor|Empress|Sultan|President|Prime|Chancellor|Mayor)/i;
const retokened = (tokens: readonly TaggedToken[], from: number): TaggedToken[] =>
  tokens.filter((t) => t.start >= from).map((t) => ({ ...t, start: t.start - from, end: t.end - from }));

export interface Persons {
  /** "he" or "she" by last name, as the source itself says. */
  pronoun: (name: string) => 'he' | 'she' | null;
}

/** The pronoun or short name that carries a subject on; null when none is safe. */
export function carrier(persons: Persons): Subject {
  return (phrase, tokens) => {
    const named = tokens.filter((t) => t.pos === 'PROPN');
    const head = [...tokens]
      .reverse()
      .find((t) => t.pos === 'NOUN' || t.pos === 'PROPN' || t.pos === 'PRON' || t.pos === 'NUM');
    if (!head) return null;
    // "the keeper of the lock": the head stands before the preposition.
    const of = tokens.findIndex((t) => t.pos === 'ADP');
    const main =
      of > 0
        ? [...tokens.slice(0, of)]
            .reverse()
            .find((t) => t.pos === 'NOUN' || t.pos === 'PROPN' || t.pos === 'NUM' || t.pos === 'PRON')
        : head;
    if (!main) return null;
    if (main.pos === 'PRON')
      return /^(?:it|they|he|she|we|i|you)$/i.test(main.text)
        ? main.text === 'I'
          ? 'I'
          : upper(main.text)
        : null;
    if (main.pos === 'PROPN') {
      // "The United States and the Union" are they, "the Sand and Gravel Board" is it: a name alone doesn't say.
      if (tokens.some((t) => t.text === 'and' || t.text === '&')) return null;
      const last = named.at(-1)!.text;
      const known = persons.pronoun(last);
      if (known) return upper(known);
      if (/^(?:Mr|Mrs|Ms|Miss|Dr|Sir)\b/.test(phrase)) return `${phrase.split(' ')[0]} ${last}`;
      // "Pellow's Folly": what bears somebody's name before its own is a thing.
      const owned = tokens.some((t, i) => /^[’']s$/.test(t.text) && tokens[i - 1]?.pos === 'PROPN' && tokens[i + 1]?.pos === 'PROPN'); // prettier-ignore
      if (owned && tokens.at(-1)!.pos === 'PROPN' && !/s$/.test(last)) return 'It';
      // "the Stone Carry": a thing's own name, unless a title or a plural.
      return /^The \p{Lu}/iu.test(phrase) && !/s$/.test(last) && !TITLED.test(phrase) ? 'It' : null;
    }
    if (
      tokens.some((t) => t.text === 'and') ||
      PLURAL.test(main.text) ||
      (tokens.some((t) => t.pos === 'NUM' && !/^(?:one|1)$/.test(t.text)) && /s$/.test(main.text))
    )
      return 'They';
    if (isA(main.lemma, 'person')) return null;
    if (
      /^(?:nobody|everyone|someone|anyone|no one|none|each|every|half|one|most|some|many|few|all)$/i.test(
        tokens[0].text,
      )
    )
      return null;
    if (isA(main.lemma, 'crowd', 'institution'))
      return /^(?:crew|staff|family|couple|crowd)$/i.test(main.text) ? 'They' : 'It';
    return 'It';
  };
}

/** A person of whom no pronoun is known, said again by the last name. */
const lastName = (relative: TaggedToken, phrase: readonly TaggedToken[]): string | null =>
  relative.text === 'who' && phrase.slice(-2).every((t) => t.pos === 'PROPN') ? phrase.at(-1)!.text : null;

/** "Samsa, which has four mills, …": a name told of with "which" is a thing, one or several as its verb says. */
function thing(
  tokens: readonly TaggedToken[],
  relative: number,
  head: readonly TaggedToken[],
): string | null {
  if (tokens[relative].text !== 'which' || head.at(-1)!.pos !== 'PROPN') return null;
  const verb = tokens.slice(relative + 1).find((t) => t.pos !== 'ADV')!;
  return /^(?:is|was|has)$/.test(verb.text) || formOf(verb.text, verb.lemma, false) === 'third'
    ? 'It'
    : /^(?:are|were|have)$/.test(verb.text)
      ? 'They'
      : null;
}

/** The simple subject of a sentence: from its start to its first finite verb, when nothing but a noun phrase stands there. */
function simpleSubject(tokens: readonly TaggedToken[]): { end: number; verb: number } | null {
  const verb = tokens.findIndex((_, i) => isFiniteVerb(tokens, i));
  if (verb < 1 || verb > 9) return null;
  let end = verb;
  while (end > 1 && tokens[end - 1].pos === 'ADV') end--;
  const subject = tokens.slice(0, end);
  return subject.every((t) => NOMINAL.has(t.pos) || t.pos === 'ADP' || /^(?:and|’s|'s)$/.test(t.text)) &&
    subject[0].pos !== 'ADP' &&
    !/^(?:there|this|that|what|which|who|if|it)$/i.test(subject[0].text === 'It' ? '' : subject[0].text)
    ? { end, verb }
    : null;
}

/** Where the subject begins behind an opening time or place phrase; 0 without one. */
function opening(tokens: readonly TaggedToken[]): number {
  if (
    tokens[0]?.pos !== 'ADP' ||
    !/^(?:In|On|At|By|From|Since|During|After|Before|Between|Within|Under)$/.test(tokens[0].text)
  )
    return 0;
  const comma = tokens.findIndex((t) => t.text === ',');
  const to =
    comma > 0 && comma <= 7
      ? comma + 1
      : tokens.findIndex(
          (t, i) =>
            i > 1 &&
            i <= 4 &&
            (t.pos === 'DET' || (t.pos === 'PRON' && tokens[i - 1].pos !== 'ADP')) &&
            (tokens[i - 1].pos === 'NUM' || tokens[i - 1].pos === 'PROPN'),
        );
  if (to <= 0 || tokens.slice(0, to).some((_, i) => isFiniteVerb(tokens, i) && i > 0)) return 0;
  return ['DET', 'PRON', 'PROPN', 'NOUN', 'NUM', 'ADJ'].includes(tokens[to]?.pos ?? '') ? to : 0;
}

const CLAUSE =
  /^(?:that|which|who|whose|whom|where|when|while|because|although|though|if|after|before|until|since|as|so|than|whether|unless|once|how|what|why|or|nor|but)$/i;

/** "It stands on a dam and was first worked in 1318." → two sentences of one subject. */
export function twoVerbs(sentence: Tagged, carry: Subject): string[] | null {
  const { text, tokens } = sentence;
  const from = opening(tokens);
  if (from > 0) {
    // "In October 2003 the boat struck a rock and sank": what stands before the subject goes with the first part.
    const at = tokens[from].start;
    const parts = twoVerbs({ text: text.slice(at), tokens: retokened(tokens, at) }, carry);
    return parts && [text.slice(0, at) + parts[0], ...parts.slice(1)];
  }
  const subject = simpleSubject(tokens);
  if (!subject || quotedSpans(text).length || /[()]/.test(text)) return null;
  const first = tokens[subject.verb];
  for (let i = subject.verb + 2; i < tokens.length - 2; i++) {
    // "since 1761", "but for 1917": no clause opens there.
    const clause = CLAUSE.test(tokens[i].text) && tokens[i].text !== 'but' && tokens[i + 1].pos !== 'NUM';
    if (clause || /^[;:]$/.test(tokens[i].text)) return null;
    const but = tokens[i].text === 'but';
    if (!but && tokens[i].text !== 'and') continue;
    let v = i + 1;
    while (tokens[v]?.pos === 'ADV') v++;
    if (!tokens[v]) continue;
    const again = helperAgain(tokens, subject.verb, v);
    if (!again && !isFiniteVerb(tokens, v)) continue;
    // "bees and flies escape dangers": the verb stands behind it.
    if (tokens[v + 1]?.pos === 'VERB' && tokens[v + 1].text === tokens[v + 1].lemma) return null;
    const left = tokens.slice(subject.verb, i);
    const rest = text.slice(tokens[i + 1].start);
    if (words(text.slice(0, tokens[i].start)) < 5 || words(rest) < 4) return null;
    // Lists, and verbs that may hang on an infinitive or on another verb's helper.
    // Years and figures counted up are no clauses.
    const counts = (k: number) => left[k - 1]?.pos === 'NUM' && left[k + 1]?.pos === 'NUM';
    if (left.filter((t, k) => t.text === ',' && !counts(k)).length > Number(tokens[i - 1].text === ','))
      return null;
    // "to a splinter" governs no verb.
    const infinitive = (k: number) => left[k].text === 'to' && !['DET', 'PROPN', 'NUM', 'PRON'].includes(left[k + 1]?.pos ?? ''); // prettier-ignore
    if (left.some((t, k) => (t.text === 'and' && !counts(k)) || infinitive(k) || t.text === 'both'))
      return null;
    const second = tokens[v];
    // A helper of its own opens a verb of its own; a bare verb must have the form of the first.
    const sameKind =
      again !== null ||
      second.pos === 'AUX' ||
      (first.pos !== 'AUX' ? sameTense(first, second) : isNoHelper(tokens, subject.verb, second));
    if (!sameKind) return null;
    const carried = carry(text.slice(0, tokens[subject.end - 1].end), tokens.slice(0, subject.end));
    if (!carried) return null;
    const who = `${but ? `But ${small(carried)}` : carried}${again ? ` ${again}` : ''}`;
    return [
      closed(text.slice(0, tokens[i - 1].text === ',' ? tokens[i - 1].start : tokens[i].start)),
      closed(`${who} ${rest}`),
    ];
  }
  return null;
}

const participleOnly = (t: TaggedToken) =>
  formOf(t.text, t.lemma, true) === 'participle' && formOf(t.text, t.lemma, false) === 'participle';

/**
 * "has fallen here but grown there", "will be shut and can be sold": the helper that a second verb shares with the first, to
 * be said again. Behind "be" only a form that is no past ("taken"): "was elected and retired" has two subjects' worth of time.
 */
function helperAgain(tokens: readonly TaggedToken[], first: number, second: number): string | null {
  const helper = tokens[first];
  const verb = tokens[second];
  if (helper.pos !== 'AUX' || verb.pos !== 'VERB' || /ing$/.test(verb.text)) return null;
  let main = first + 1;
  while (tokens[main]?.pos === 'ADV') main++;
  if (tokens[main]?.pos !== 'VERB') return null;
  if (/^(?:has|have|had)$/.test(helper.text))
    return formOf(verb.text, verb.lemma, true) === 'participle' ? helper.text : null;
  if (/^(?:is|are|was|were)$/.test(helper.text)) return participleOnly(verb) ? helper.text : null;
  if (/^(?:will|would|can|could|must|should|may|might)$/.test(helper.text))
    return verb.text === verb.lemma ? helper.text : null;
  return null;
}

/** Verbs that keep an object in the passive: "was given a prize" (Levin 1993, 13.1 to 13.4, from memory). */
const TAKES_TWO =
  /^(?:give|pay|send|sell|lend|offer|award|grant|hand|feed|lease|loan|pass|promise|refund|rent|serve|teach|tell|ask|show|deny|owe|allow|assign|allot|bring|find|get|make|call|name|elect|appoint|declare|dub|fine|charge|cost|save|spare|forgive|order|set)$/;

/** "is on a post and sends", "was a smith and kept": a form of "be" that helps no verb, and a second one in its time. */
function isNoHelper(tokens: readonly TaggedToken[], be: number, second: TaggedToken): boolean {
  let next = be + 1;
  while (tokens[next]?.pos === 'ADV') next++;
  // "was set up and played one blast": what has an object of its own is done by the subject, and not to it.
  const at = tokens.indexOf(second);
  const object = ['DET', 'NUM'].includes(tokens[at + 1]?.pos ?? '');
  if (tokens[be].text === 'was' && tokens[next]?.pos === 'VERB' && object && !TAKES_TWO.test(second.lemma))
    return formOf(second.text, second.lemma, false) === 'past';
  if (!['ADP', 'DET', 'NUM', 'PROPN', 'NOUN'].includes(tokens[next]?.pos ?? '')) return false;
  const form = formOf(second.text, second.lemma, false);
  return tokens[be].text === 'is' ? form === 'third' : tokens[be].text === 'was' && form === 'past';
}

function sameTense(a: TaggedToken, b: TaggedToken): boolean {
  const [x, y] = [formOf(a.text, a.lemma, false), formOf(b.text, b.lemma, false)];
  return x === y && x !== 'base' && x !== 'ing';
}

/** "The chain, which was made in 2016, has a flaw." → "The chain was made in 2016. It has a flaw." */
export function subjectRelative({ text, tokens }: Tagged, carry: Subject): string[] | null {
  const comma = tokens.findIndex((t) => t.text === ',');
  if (comma < 1 || comma > 8 || !/^(?:who|which)$/.test(tokens[comma + 1]?.text ?? '')) return null;
  const head = tokens.slice(0, comma);
  // Behind a preposition it may be said of the nearer noun: "the mill by the bridge, which was built …".
  if (!head.every((t) => NOMINAL.has(t.pos))) return null;
  if (
    !isFiniteVerb(tokens, comma + 2) &&
    !(tokens[comma + 2]?.pos === 'ADV' && isFiniteVerb(tokens, comma + 3))
  )
    return null;
  const close = tokens.findIndex((t, i) => i > comma + 2 && t.text === ',');
  if (close < 0 || inQuote(text, tokens[close].start)) return null;
  let v = close + 1;
  while (tokens[v]?.pos === 'ADV') v++;
  if (!tokens[v] || !isFiniteVerb(tokens, v)) return null;
  // What is said to be heard: the speaker stays with the words.
  if (SPEAKS.test(tokens[v].text) && quotedSpans(text).length) return null;
  if (tokens.slice(comma, close).some((t) => /[:;“”]/.test(t.text))) return null;
  const phrase = text.slice(0, head.at(-1)!.end);
  const carried = thing(tokens, comma + 1, head) ?? carry(phrase, head) ?? lastName(tokens[comma + 1], head);
  if (!carried) return null;
  return [
    closed(`${phrase} ${text.slice(tokens[comma + 2].start, tokens[close].start)}`),
    closed(`${carried} ${text.slice(tokens[close + 1].start)}`),
  ];
}

/** What stands before the name of a place or a house rather than of a person. */
const NAMES_PLACE = /^(?:of|at|in|from|near|on|for|outside|,)$/;

/** "… by Aron Pell, who kept the light." → "… by Aron Pell. He kept the light."; "…, which is a fifth of it." only behind a name or a plain object. */
export function tailRelative({ text, tokens }: Tagged, carry: Subject): string[] | null {
  for (let i = tokens.length - 4; i > 3; i--) {
    if (
      tokens[i].text !== ',' ||
      !/^(?:who|which)$/.test(tokens[i + 1].text) ||
      inQuote(text, tokens[i].start)
    )
      continue;
    if (!isFiniteVerb(tokens, i + 2) && !(tokens[i + 2].pos === 'ADV' && isFiniteVerb(tokens, i + 3)))
      return null;
    if (tokens.slice(i + 2).some((t) => t.text === ',' || /[;:“”]/.test(t.text))) return null;
    // The noun phrase straight before the comma.
    let from = i - 1;
    while (
      from > 0 &&
      ['DET', 'ADJ', 'NOUN', 'PROPN', 'NUM'].includes(tokens[from - 1].pos) &&
      tokens[from].pos !== 'DET'
    )
      from--;
    const phrase = tokens.slice(from, i);
    const head = phrase.at(-1)!;
    if (head.pos !== 'NOUN' && head.pos !== 'PROPN') return null;
    const before = tokens[from - 1];
    // Behind "of", "in" … the clause may belong to the noun before; a name is safe, an object or agent too.
    const safe =
      head.pos === 'PROPN' || before?.pos === 'VERB' || before?.pos === 'AUX' || before?.text === 'by';
    if (!safe) return null;
    const who = tokens[i + 1].text === 'who';
    // "Ann Ware of Marsh College, who …", "of Marsh, Kent, who …": the name of a place or a house, not of who it tells of.
    if (who && head.pos === 'PROPN' && NAMES_PLACE.test(before?.text ?? '')) return null;
    if (who !== (head.pos === 'PROPN' || isA(head.lemma, 'person') || PLURAL.test(head.text))) return null;
    const verb = tokens.slice(i + 2).find((_, k) => isFiniteVerb(tokens, i + 2 + k))!;
    const plural = PLURAL.test(head.text) && head.pos === 'NOUN';
    if ((/^(?:is|was|has)$/.test(verb.text) && plural) || (/^(?:are|were|have)$/.test(verb.text) && !plural))
      return null;
    const carried = carry(text.slice(phrase[0].start, head.end), phrase) ?? lastName(tokens[i + 1], phrase);
    if (!carried || words(text.slice(tokens[i + 2].start)) < 3) return null;
    return [closed(text.slice(0, tokens[i].start)), closed(`${carried} ${text.slice(tokens[i + 2].start)}`)];
  }
  return null;
}

/** "A bus that the county has hired takes fifty minutes." → "The county has hired a bus. It takes fifty minutes." */
export function objectRelative({ text, tokens }: Tagged, carry: Subject): string[] | null {
  if (
    !/^(?:An?|Two|Three|Four|Five|Six)$/.test(tokens[0]?.text ?? '') ||
    quotedSpans(text).length ||
    /[,;:]/.test(text)
  )
    return null;
  const that = tokens.findIndex((t) => /^(?:that|which)$/.test(t.text));
  if (that < 2 || that > 5 || tokens[that - 1].pos !== 'NOUN') return null;
  if (!['DET', 'PROPN', 'PRON', 'NOUN'].includes(tokens[that + 1]?.pos ?? '')) return null;
  const finite = tokens.flatMap((_, i) => (i > that && isFiniteVerb(tokens, i) ? [i] : []));
  if (finite.length !== 2) return null;
  const [inner, outer] = finite;
  let last = outer - 1;
  while (tokens[last].pos === 'ADV') last--;
  if (inner - that > 5 || tokens[last].pos !== 'VERB') return null;
  const phrase = text.slice(0, tokens[that - 1].end);
  const carried = carry(phrase, tokens.slice(0, that));
  if (!carried) return null;
  return [
    closed(
      `${upper(text.slice(tokens[that + 1].start, tokens[last].end))} ${phrase[0].toLowerCase()}${phrase.slice(1)}`,
    ),
    closed(`${carried} ${text.slice(tokens[last + 1].start)}`),
  ];
}

/** "X, because Y." → "X. That’s because Y.": both full clauses. */
export function becauseTail({ text, tokens }: Tagged): string[] | null {
  const at = tokens.findIndex((t, i) => i > 4 && t.text === 'because' && tokens[i + 1]?.text !== 'of');
  if (at < 0 || inQuote(text, tokens[at].start) || /\?$/.test(text)) return null;
  // "… and, because the well was dry, they left": the reason of what follows.
  if (tokens.slice(at - 2, at).some((t) => t.pos === 'CCONJ')) return null;
  const left = tokens.slice(0, at);
  const right = tokens.slice(at + 1);
  if (
    /[;:“”]/.test(text) ||
    left.filter((_, i) => isFiniteVerb(left, i)).length !== 1 ||
    !right.some((_, i) => isFiniteVerb(right, i))
  )
    return null;
  if (
    left.some(
      (t) =>
        CLAUSE.test(t.text) ||
        /^(?:not|n['’]t|only|just|simply|mainly|partly|no|nobody|never)$/i.test(t.text),
    )
  )
    return null;
  // "… because a gate had cracked, and the keeper stayed": the second clause is no reason.
  const goesOn = right.findIndex(
    (t, i) => t.text === ',' && /^(?:and|but|so|or)$/.test(right[i + 1]?.text ?? ''),
  );
  if (goesOn >= 0 && right.slice(goesOn).some((_, i) => isFiniteVerb(right, goesOn + i))) return null;
  const end = tokens[at - 1].text === ',' ? tokens[at - 1].start : tokens[at].start;
  if (words(text.slice(0, end)) < 4 || words(text.slice(tokens[at].start)) < 5) return null;
  const verb = left.find((_, i) => isFiniteVerb(left, i))!;
  // An order has no subject to explain.
  if (left[0].pos === 'VERB') return null;
  const past =
    /^(?:was|were|did|had|could|would)$/.test(verb.text) || formOf(verb.text, verb.lemma, false) === 'past';
  return [
    closed(text.slice(0, end)),
    closed(`That ${past ? 'was' : 'is'} because ${text.slice(tokens[at + 1].start)}`),
  ];
}

const SPEAKS = new RegExp(`^${SPOKE}$`);
/** What a whole event does rather than a thing: it surprises, allows, causes, shows (Levin 1993, 26 to 31 in part, from memory). */
const EVENT_DOES =
  /^(?:mean|surprise|shock|please|annoy|allow|let|make|lead|cause|show|prompt|force|help|give|bring|enable|result|leave|raise|suggest|indicate|explain|prove|add|push|drive|take|cost|put)$/;
/** Whether "which" behind the comma at `i` tells of "the motion" before it, not of an amount or of all that was said. */
function ofTheNoun(tokens: readonly TaggedToken[], i: number): boolean {
  const [noun, verb] = [tokens[i - 1], tokens[i + 2]];
  if (noun.pos !== 'NOUN' || PLURAL.test(noun.text)) return false;
  if (/^(?:can|could|will)$/.test(verb.text)) return true;
  if (
    /^(?:time|night)$/i.test(noun.text) ||
    isA(noun.text, 'time') ||
    /^(?:would|might|may|should)$/.test(verb.text)
  )
    return false;
  // "which is a …", "which was unheard of": "That" does for a thing and for all that was said.
  let main = i + 2;
  while (tokens[main + 1] && (tokens[main].pos === 'AUX' || tokens[main].pos === 'ADV')) main++;
  if (tokens[main].pos !== 'VERB') return false;
  return !EVENT_DOES.test(tokens[main].lemma);
}

/** "The company lost £19,000, which was more than it had earned." → "… That was more than it had earned.": about one thing or the whole. */
export function thatTail({ text, tokens }: Tagged): string[] | null {
  for (let i = tokens.length - 5; i > 4; i--) {
    if (tokens[i].text !== ',' || tokens[i + 1].text !== 'which' || inQuote(text, tokens[i].start)) continue;
    if (!isFiniteVerb(tokens, i + 2) || tokens.slice(i + 2).some((t) => /^[,;:“”()]$/.test(t.text)))
      return null;
    const before = tokens[i - 1];
    if (
      before.pos === 'PROPN' ||
      !/^[\p{L}\d]/u.test(before.text) ||
      (before.pos === 'NOUN' &&
        PLURAL.test(before.text) &&
        !/^(?:metres|kilometres|miles|hours|minutes|pounds|tonnes|degrees)$/.test(before.text))
    )
      return null;
    if (/^(?:are|were|have)$/.test(tokens[i + 2].text) || text.slice(0, tokens[i].start).includes('?'))
      return null;
    // An opening "if" or "when" governs what hangs on it.
    if (CLAUSE.test(tokens[0].text)) return null;
    return [
      closed(text.slice(0, tokens[i].start)),
      closed(`${ofTheNoun(tokens, i) ? 'It' : 'That'} ${text.slice(tokens[i + 2].start)}`),
    ];
  }
  return null;
}

/** Sentences of fewer words are heard in one breath, and these partings leave them whole. */
const BREATH_WORDS = 18;
const forBreath =
  (apply: (s: Tagged, carry: Subject) => string[] | null) =>
  (s: Tagged, carry: Subject): string[] | null =>
    words(s.text) < BREATH_WORDS ? null : apply(s, carry);

/** "X, although Y." → "Y. Even so, X." is another order of thought, so: "X. And that although …" is not said; the clause is left. */
export const DECOMPOSITIONS: readonly {
  id: string;
  apply: (s: Tagged, carry: Subject) => string[] | null;
}[] = [
  { id: 'subjectRelative', apply: subjectRelative },
  { id: 'twoVerbs', apply: twoVerbs },
  { id: 'tailRelative', apply: tailRelative },
  { id: 'objectRelative', apply: objectRelative },
  { id: 'thatTail', apply: (s) => thatTail(s) },
  { id: 'becauseTail', apply: (s) => becauseTail(s) },
  { id: 'whoSpeaks', apply: forBreath(whoSpeaks) },
  { id: 'whoseClause', apply: forBreath(whoseClause) },
  { id: 'saidBetween', apply: forBreath(saidBetween) },
  { id: 'phraseThenClause', apply: forBreath(phraseThenClause) },
  { id: 'throughBefore', apply: forBreath(throughBefore) },
  { id: 'whenEvent', apply: forBreath(whenEvent) },
  { id: 'agentTail', apply: forBreath(agentTail) },
  { id: 'spanTail', apply: forBreath(spanTail) },
  { id: 'participleTail', apply: forBreath(participleTail) },
  { id: 'subjectApposition', apply: forBreath(subjectApposition) },
  { id: 'whereTail', apply: forBreath(whereTail) },
  { id: 'whileTail', apply: forBreath(whileTail) },
  { id: 'asTail', apply: forBreath(asTail) },
  { id: 'afterTail', apply: forBreath(afterTail) },
  { id: 'stepTail', apply: forBreath(stepTail) },
  { id: 'showingTail', apply: forBreath(showingTail) },
  { id: 'soThatTail', apply: forBreath(soThatTail) },
  { id: 'thenTail', apply: forBreath(thenTail) },
  { id: 'heldIn', apply: forBreath(heldIn) },
  { id: 'threeVerbs', apply: forBreath(threeVerbs) },
  { id: 'midApposition', apply: midApposition },
  { id: 'midRelative', apply: midRelative },
  { id: 'midParticiple', apply: midParticiple },
  { id: 'includingTail', apply: includingTail },
  { id: 'withTail', apply: withTail },
  { id: 'definingTail', apply: definingTail },
  { id: 'afterOpening', apply: afterOpening },
  { id: 'andClause', apply: andClause },
  { id: 'concession', apply: concession },
];

/** Who says it stands last: a part told without that would be nobody's claim. */
const SAID_LAST =
  /, (?:according to [^“”"]{3,120}|(?:said|says|reported|reports) \p{Lu}[^“”"]{2,120}|[^,“”"]{2,70} (?:said|says|reported|reports|wrote|added|announced|estimates?|estimated)(?: (?:on )?\p{Lu}\p{Ll}+day| in an? [^,]{3,40})?|(?:said|says) [^“”"]{2,90})\.$/u;

/** Words from which on who says it is said in a sentence of its own. */
const LONG_CLAIM = 24;
const REPORTED =
  /^(.{40,}), ((?:an?|the|his|her|their|its|\p{Lu})[^,“”":;]{1,60}) (said|says|reported|reports|announced|confirmed)((?: (?:on )?\p{Lu}\p{Ll}+day| (?:yesterday|today|last (?:week|month|night)|this (?:week|month|morning)))?)\.$/u;
/** Who it is according to, with who that is; "…, said Ann Ware, a keeper of the lock" too. */
const ACCORDING =
  /^(.{40,}), (?:according to|(?:said|says|reported|reports) (?=\p{Lu}\p{Ll}+ \p{Lu})) ?([^“”":;]{3,120})\.$/u;
/** "…, the council confirmed on Monday." → "…. The council confirmed it on Monday.": what is certain is confirmed; what is said is so according to somebody. */
export function reportTail({ text }: Pick<Tagged, 'text'>): string[] | null {
  if (words(text) < LONG_CLAIM || /[“”"?]/.test(text)) return null;
  const [, told, source] = ACCORDING.exec(text) ?? [];
  if (told) return [closed(told), `That’s according to ${source}.`];
  const [, claim, who, verb, when] = REPORTED.exec(text) ?? [];
  if (!claim) return null;
  if (/^(?:confirmed|announced)$/.test(verb)) return [closed(claim), `${upper(who)} ${verb} it${when}.`];
  return [closed(claim), when ? `${upper(who)} ${verb} so${when}.` : `That’s according to ${who}.`];
}

/** Decomposes a sentence as far as it goes; `least` words, below which it stays whole. */
export function decompose(
  sentence: Tagged,
  carry: Subject,
  tagger: (text: string) => readonly TaggedToken[],
  least: number,
): string[] {
  if (words(sentence.text) < least) return [sentence.text];
  if (SAID_LAST.test(sentence.text) || REPORTED.test(sentence.text))
    return reportTail(sentence) ?? [sentence.text];
  for (const { apply } of DECOMPOSITIONS) {
    const parts = apply(sentence, carry);
    if (parts)
      return parts.flatMap((text) => decompose({ text, tokens: tagger(text) }, carry, tagger, least));
  }
  return [sentence.text];
}

/** Whether a name is a place's, a club's or a house's: "in South Marsh", "the Marsh Board", "FBI"; somebody may be told of behind it. */
function isNobody(name: string, text: string): boolean {
  if (/^\p{Lu}{2,}$/u.test(name) && text !== text.toUpperCase()) return true;
  const own = name.replace(/[^\p{L}\p{N}]/gu, '.');
  return new RegExp(
    `\\b(?:(?:[Ii]n|[Ii]nto|[Aa]cross|[Nn]ear|[Tt]hroughout) (?:\\p{Lu}\\p{Ll}+ )?|[Tt]he (?!${PATTERNS.title})(?:\\p{Lu}\\p{Ll}+ )?)${own}(?![\\p{L}’']|\\s\\p{Lu})`,
    'u',
  ).test(text);
}

/** Less than one "he" or two of "his" and "him" leave it open who somebody is. */
const SURE_OF_WHO = 2;
/** Who is "he" and who is "she" in a source: by title, or by the pronouns of sentences that name nobody else. */
export function personsOf(text: string): Persons {
  const votes = new Map<string, { he: number; she: number }>();
  const vote = (name: string, who: 'he' | 'she', by: number) => {
    const v = votes.get(name) ?? { he: 0, she: 0 };
    v[who] += by;
    votes.set(name, v);
  };
  for (const m of text.matchAll(
    /\b(Mr|Sir|Mrs|Ms|Miss|Lady)\.? (?:\p{Lu}[\p{L}’'-]+ )*(\p{Lu}[\p{L}’'-]+)/gu,
  ))
    vote(m[2], /^(?:Mr|Sir)$/.test(m[1]) ? 'he' : 'she', 5);
  // A full name, then the first pronoun of a person within 200 letters and before another full name.
  for (const m of text.matchAll(/\b(\p{Lu}\p{Ll}+) (?:\p{Lu}\. )?(\p{Lu}[\p{L}’'-]+)\b/gu)) {
    const after = text.slice(m.index + m[0].length, m.index + m[0].length + 200);
    const other = /\b\p{Lu}\p{Ll}+ \p{Lu}\p{Ll}+/u.exec(after)?.index ?? 200;
    const pronoun = /\b(he|him|his|she|her|hers)\b/i.exec(after.slice(0, other));
    // "Her" alone may be anybody's.
    if (pronoun) vote(m[2], /^h(?:e|im|is)$/i.test(pronoun[1]) ? 'he' : 'she', /^s?he$/i.test(pronoun[1]) ? 2 : 1); // prettier-ignore
  }
  return {
    pronoun: (name) => {
      const bare = name.replace(/[’']s$/, '');
      const v = votes.get(bare);
      if (!v || isNobody(bare, text)) return null;
      if (Math.max(v.he, v.she) < SURE_OF_WHO) return null;
      return v.he > v.she * 2 ? 'he' : v.she > v.he * 2 ? 'she' : null;
    },
  };
}
