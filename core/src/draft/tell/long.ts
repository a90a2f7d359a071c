/**
 * Sentences too long for one breath, as reports have them: what is told of a name or a thing between commas, what hangs on
 * behind, two clauses joined by a bare "and". What is taken out becomes a sentence of its own that names what it tells of.
 * Guards as in `breath`: where one fails the sentence stays whole.
 */
import { formOf, inflect } from '../../language/inflect.ts';
import { isFiniteVerb, type TaggedToken } from '../../language/tagged.ts';
import { isA } from '../../language/classes.ts';
import { SPOKE } from '../../language/reporting.ts';
import { MONTHS, WEEKDAYS } from '../../language/lexicon.ts';
import { finiteIn, GOVERNS, timeOf, unsure } from './breath.ts';
import type { Subject } from './decompose.ts';
import { lower, upper, type Tagged } from './restructure.ts';
import { closed, inQuote, PLURAL, words } from './sentence.ts';

/** More words than a listener keeps in mind at once (common practice, no published source). */
const TOO_LONG = 24;
const LEAST = 3;
/** What was, or what nobody knows of now. */
const OF_THE_PAST = /^(?:was|were|had|died|former|late|then|ex|once|when|whose)$/i;
const MARKS = /[“”"();:?]/;
/** Plain verbs of saying and thinking, and what they open; the lexicon's “assumed” is as often a deed. */
const SAID =
  /^(?:said|says|say|told|thought|thinks|believed?|believes|claim(?:s|ed)?|reported|reports|that)$/i;

/** Words of a report: somebody says it, or a day of the week is enough to say when. */
const OF_TODAY = new RegExp(`^(?:${SPOKE}|is|are|has|have|will|${WEEKDAYS.join('|')})$`);

const long = (text: string) => words(text) > TOO_LONG && !/[?;]/.test(text);
/** What another word now stands before: a name keeps its capital. */
const within = (first: TaggedToken, rest: string) =>
  first.pos === 'PROPN' || first.text === 'I' ? rest : lower(rest);
const commaFrom = (tokens: readonly TaggedToken[], from: number, text: string) =>
  tokens.findIndex((t, i) => i >= from && t.text === ',' && !inQuote(text, t.start));
const verbAt = (tokens: readonly TaggedToken[], i: number): number => {
  let v = i;
  while (tokens[v]?.pos === 'ADV') v++;
  return tokens[v] && isFiniteVerb(tokens, v) ? v : -1;
};

/** The noun phrase that ends right before a comma: from its article, or the whole name, hyphens and all. */
function phraseBefore(tokens: readonly TaggedToken[], comma: number): readonly TaggedToken[] | null {
  let from = comma - 1;
  const named = tokens[from]?.pos === 'PROPN';
  if (!named && tokens[from]?.pos !== 'NOUN') return null;
  const belongs = (t: TaggedToken, next: TaggedToken) =>
    t.end === next.start ||
    (named
      ? t.pos === 'PROPN' || (t.pos !== 'ADP' && /^\p{Lu}/u.test(t.text) && t.pos !== 'DET')
      : ['ADJ', 'NOUN', 'NUM', 'PROPN'].includes(t.pos));
  while (from > 0 && belongs(tokens[from - 1], tokens[from])) from--;
  if (from > 0 && tokens[from - 1].pos === 'DET') from--;
  return tokens.slice(from, comma);
}
/** "a professor at the Open College, who": what stands behind a preposition may not be who is told of. */
const isGoverned = (tokens: readonly TaggedToken[], phrase: readonly TaggedToken[]) =>
  tokens.slice(0, tokens.indexOf(phrase[0])).some((t) => t.pos === 'ADP');

/** The noun that an apposition is: before its first preposition or relative. */
const headOf = (tokens: readonly TaggedToken[]) => {
  const end = tokens.findIndex(
    (t, i) => i > 0 && (t.pos === 'ADP' || /^(?:that|which|who|to)$/.test(t.text)),
  );
  return (
    tokens.slice(0, end < 0 ? tokens.length : end).findLast((t) => t.pos === 'NOUN' || t.pos === 'PROPN') ??
    tokens[0]
  );
};

/** How a phrase is spoken of again: a name as it is, a thing with "the". */
function again(phrase: readonly TaggedToken[], text: string): string | null {
  const said = text.slice(phrase[0].start, phrase.at(-1)!.end);
  if (phrase.at(-1)!.pos === 'PROPN') return upper(said);
  const det = phrase[0].pos === 'DET' ? phrase[0].text.toLowerCase() : '';
  if (det === 'the' || det === 'this' || det === 'that') return upper(said);
  if (det === 'a' || det === 'an') return `The ${text.slice(phrase[1].start, phrase.at(-1)!.end)}`;
  return null;
}

/** "The rover, which landed a year ago, sends data." → "The rover sends data. The rover landed a year ago.": also in the midst of a subject. */
export function midRelative({ text, tokens }: Tagged): string[] | null {
  if (!long(text)) return null;
  for (let i = 2; i < tokens.length - 6; i++) {
    if (
      tokens[i].text !== ',' ||
      !/^(?:which|who)$/.test(tokens[i + 1].text) ||
      inQuote(text, tokens[i].start)
    )
      continue;
    const close = commaFrom(tokens, i + 4, text);
    if (close < 0 || verbAt(tokens, close + 1) < 0) return null;
    const verb = verbAt(tokens, i + 2);
    const inner = text.slice(tokens[i + 2].start, tokens[close].start);
    if (verb < 0 || MARKS.test(inner) || words(inner) < LEAST || words(inner) > 18) return null;
    if (finiteIn(tokens, 0, i).length) return null;
    const phrase = phraseBefore(tokens, i);
    if (!phrase) return null;
    const head = phrase.at(-1)!;
    const person = tokens[i + 1].text === 'who';
    if (
      person &&
      (isGoverned(tokens, phrase) ||
        !(head.pos === 'PROPN' ? phrase.length > 1 : isA(head.lemma, 'person', 'crowd')))
    )
      return null;
    const plural = head.pos === 'NOUN' && PLURAL.test(head.text);
    if (
      (/^(?:is|was|has)$/.test(tokens[verb].text) && plural) ||
      (/^(?:are|were|have)$/.test(tokens[verb].text) && !plural)
    )
      return null;
    const lastName =
      person && head.pos === 'PROPN' && phrase[0].pos !== 'DET' && phrase.every((t) => t.end !== head.start);
    const who = lastName ? head.text : again(phrase, text);
    if (!who) return null;
    return [
      closed(`${text.slice(0, tokens[i].start)} ${text.slice(tokens[close + 1].start)}`),
      closed(`${who} ${inner}`),
    ];
  }
  return null;
}

/** "… said Marsh Locks, a maker of lamps, agreed to pay." → "… said Marsh Locks agreed to pay. Marsh Locks is a maker of lamps.": what a name is, where it still is. */
export function midApposition({ text, tokens }: Tagged, carry: Subject): string[] | null {
  if (!long(text)) return null;
  // What is told with a year may be long past, and who somebody was then.
  if (tokens.some((t) => /^1[0-9]\d\d$/.test(t.text)) || !tokens.some((t) => OF_TODAY.test(t.text)))
    return null;
  for (let i = 1; i < tokens.length - 5; i++) {
    if (
      tokens[i].text !== ',' ||
      !/^(?:an?|the|its)$/.test(tokens[i + 1].text) ||
      inQuote(text, tokens[i].start)
    )
      continue;
    if (tokens[i - 1].pos !== 'PROPN' || /^[JS]r\.?$/.test(tokens[i - 1].text)) continue;
    const close = commaFrom(tokens, i + 3, text);
    if (close < 0 || verbAt(tokens, close + 1) < 0) continue;
    const is = tokens.slice(i + 1, close);
    const inner = text.slice(is[0].start, is.at(-1)!.end);
    if (MARKS.test(inner) || words(inner) < LEAST || finiteIn(tokens, i + 1, close).length) continue;
    if (is[0].text === 'its' || is.some((t) => OF_THE_PAST.test(t.text) || t.text === 'and')) continue;
    const phrase = phraseBefore(tokens, i)!;
    // Of a list of names the last one's comma is the list's.
    const before = tokens[tokens.indexOf(phrase[0]) - 1];
    if (before && (before.text === ',' || /^(?:CCONJ|ADP)$/.test(before.pos))) continue;
    const name = text.slice(phrase[0].start, phrase.at(-1)!.end);
    const verb = PLURAL.test(phrase.at(-1)!.text) && is[0].text !== 'a' && is[0].text !== 'an' ? 'are' : 'is';
    const person = isA(headOf(is).lemma, 'person', 'kin');
    const says = closed(`${upper(name)} ${verb} ${inner}`);
    const rest = text.slice(tokens[close + 1].start);
    if (phrase[0] === tokens[0])
      return [says, closed(`${person ? phrase.at(-1)!.text : (carry(name, phrase) ?? upper(name))} ${rest}`)];
    return [closed(`${text.slice(0, tokens[i].start)} ${rest}`), says];
  }
  return null;
}

/** Participles that say how a thing is, and not what was done to it once. */
const STATIVE =
  /^(?:base|locate|know|call|name|situate|dub|nickname|own|run|use|design|intend|aim|headquarter|make|equip|price|hold)$/;
const DATED = new RegExp(`^(?:(?:1[5-9]|20)\\d\\d|${[...MONTHS, ...WEEKDAYS].join('|')}|yesterday)$`);
/** "Marsh, founded in 1987 by a smith, has denied it." → "Marsh was founded in 1987 by a smith. It has denied it." */
export function midParticiple({ text, tokens }: Tagged, carry: Subject): string[] | null {
  if (!long(text)) return null;
  const comma = commaFrom(tokens, 0, text);
  const act = tokens[comma + 1];
  if (comma < 1 || comma > 7 || act?.pos !== 'VERB' || formOf(act.text, act.lemma, true) !== 'participle')
    return null;
  const subject = tokens.slice(0, comma);
  if (
    !subject.every((t) => ['DET', 'ADJ', 'NOUN', 'PROPN', 'NUM'].includes(t.pos)) ||
    tokens[0].pos === 'ADJ'
  )
    return null;
  const close = commaFrom(tokens, comma + 3, text);
  const main = verbAt(tokens, close + 1);
  const inner = text.slice(act.start, tokens[close]?.start ?? 0);
  if (close < 0 || main < 0 || MARKS.test(inner) || finiteIn(tokens, comma + 2, close).length) return null;
  const carried = carry(text.slice(0, subject.at(-1)!.end), subject) ?? again(subject, text);
  const time = timeOf(tokens, main);
  if (!carried || !time) return null;
  const stative = STATIVE.test(act.lemma) && !tokens.slice(comma + 1, close).some((t) => DATED.test(t.text));
  if (/^(?:above|below|here)$/.test(tokens[comma + 2].text)) return null;
  const plural = PLURAL.test(subject.at(-1)!.text) && subject.at(-1)!.pos === 'NOUN';
  const be = !stative || time === 'past' ? (plural ? 'were' : 'was') : plural ? 'are' : 'is';
  return [
    closed(`${text.slice(0, subject.at(-1)!.end)} ${be} ${inner}`),
    closed(`${upper(carried)} ${text.slice(tokens[close + 1].start)}`),
  ];
}

/** "… for federal programs including Ora, Pell and Marsh." → "… for federal programs. Those programs include Ora, Pell and Marsh." */
export function includingTail({ text, tokens }: Tagged): string[] | null {
  if (!long(text)) return null;
  const at = tokens.findLastIndex((t) => t.text === 'including' && !inQuote(text, t.start));
  const head = tokens[at - 1]?.text === ',' ? at - 2 : at - 1;
  if (at < 6 || tokens[head]?.pos !== 'NOUN' || !PLURAL.test(tokens[head].text)) return null;
  const tail = text.slice(tokens[at + 1]?.start ?? text.length);
  if (words(tail) < LEAST || MARKS.test(tail) || finiteIn(tokens, at + 1, tokens.length).length) return null;
  if (!finiteIn(tokens, 0, at).length) return null;
  return [closed(text.slice(0, tokens[head].end)), closed(`Those ${tokens[head].text} include ${tail}`)];
}

/** "…, with revenues falling by a fifth." → "Revenues fell by a fifth." */
export function withTail({ text, tokens }: Tagged): string[] | null {
  if (!long(text)) return null;
  const at = tokens.findLastIndex(
    (t, i) => t.text === ',' && tokens[i + 1]?.text === 'with' && !inQuote(text, t.start),
  );
  if (at < 5) return null;
  const act = tokens.findIndex(
    (t, i) => i > at + 2 && !['DET', 'ADJ', 'NOUN', 'PROPN', 'NUM', 'PRON'].includes(t.pos),
  );
  if (act < 0 || act > at + 8 || tokens[act].pos !== 'VERB' || !/ing$/.test(tokens[act].text)) return null;
  const tail = text.slice(tokens[act].end);
  const [first] = finiteIn(tokens, 0, at);
  if (
    first === undefined ||
    MARKS.test(tail) ||
    words(tail) < 2 ||
    finiteIn(tokens, act + 1, tokens.length).length
  )
    return null;
  if (
    unsure(tokens.slice(0, at)) ||
    tokens.slice(0, at).some((t) => GOVERNS.test(t.text) || SAID.test(t.text))
  )
    return null;
  const time = timeOf(tokens, first);
  const head = tokens[act - 1];
  if (
    !time ||
    !['NOUN', 'PROPN'].includes(head.pos) ||
    (act + 1 < tokens.length && tokens.slice(act).some((t) => t.text === 'and' || t.text === ','))
  )
    return null;
  const form = time === 'past' ? 'past' : PLURAL.test(head.text) ? 'base' : 'third';
  return [
    closed(text.slice(0, tokens[at].start)),
    closed(`${upper(text.slice(tokens[at + 2].start, head.end))} ${inflect(tokens[act].lemma, form)}${tail}`),
  ];
}

/** What an apposition says a thing is for good, whatever happened to it. */
const DEFINES =
  /^(?:type|kind|sort|form|variety|class|species|breed|member|part|branch|group|measure|term|word|name|nickname|disease|infection|condition|disorder|drug|tool|device|chemical|compound|gas|metal|technique|method|system|town|city|village|province|region|state|country|district|suburb|neighbou?rhood|island|river|company|firm|charity|organi[sz]ation|party|website|app|programme?|software|magazine|newspaper)$/;
/** "…, a type of battery that is used in lamps." → "That’s a type of battery that is used in lamps." */
export function definingTail({ text, tokens }: Tagged): string[] | null {
  if (!long(text)) return null;
  const at = tokens.findLastIndex((t) => t.text === ',' && !inQuote(text, t.start));
  if (at < 6 || !/^an?$/.test(tokens[at + 1]?.text ?? '') || !['NOUN', 'PROPN'].includes(tokens[at - 1].pos))
    return null;
  const head = tokens.findIndex((t, i) => i > at + 1 && t.pos === 'NOUN' && tokens[i + 1]?.pos !== 'NOUN');
  if (head < 0 || head > at + 5 || !DEFINES.test(tokens[head].text)) return null;
  const tail = text.slice(tokens[at + 1].start);
  if (MARKS.test(tail) || words(tail) < LEAST + 1 || !finiteIn(tokens, 0, at).length) return null;
  if (/^(?:when|where|after|before)$/i.test(tokens[0].text) || GOVERNS.test(tokens[0].text)) return null;
  const told = tokens.findIndex((t, i) => i > head && /^(?:that|which|who)$/.test(t.text));
  if (finiteIn(tokens, at + 1, told < 0 ? tokens.length : told).length) return null;
  // "a dog, a cat": one of several.
  if (tokens.slice(0, at).filter((t) => t.text === ',').length > 1) return null;
  return [closed(text.slice(0, tokens[at].start)), closed(`That’s ${tail}`)];
}

/** "Winds rose to 60 miles an hour and the storm was expected to turn." → two sentences: a clause with its own subject and helper behind a bare "and". */
export function andClause({ text, tokens }: Tagged): string[] | null {
  if (!long(text)) return null;
  for (let i = 6; i < tokens.length - 5; i++) {
    if (tokens[i].text !== 'and' || inQuote(text, tokens[i].start) || tokens[i - 1].text === ',') continue;
    const left = tokens.slice(0, i);
    if (!finiteIn(tokens, 0, i).length || unsure(left)) return null;
    if (
      left.some(
        (t) =>
          GOVERNS.test(t.text) ||
          SAID.test(t.text) ||
          /^(?:who|which|where|when|what|how|why|not|both|between)$/i.test(t.text),
      )
    )
      return null;
    let v = i + 1;
    while (v < i + 8 && ['DET', 'ADJ', 'NOUN', 'PROPN', 'NUM'].includes(tokens[v]?.pos ?? '')) v++;
    const subject = tokens.slice(i + 1, v);
    const verb = tokens[v];
    if (tokens[i - 1].pos === 'PROPN' && subject.some((t) => t.pos === 'PROPN')) continue;
    if (!subject.length || !verb || verb.pos !== 'AUX' || !isFiniteVerb(tokens, v)) continue;
    // "the wind and a new storm were": one subject of two.
    if (finiteIn(tokens, 0, i).at(-1)! > i - 3 || !['DET', 'PROPN'].includes(subject[0].pos)) continue;
    const right = text.slice(tokens[i + 1].start);
    if (words(text.slice(0, tokens[i].start)) < 5 || words(right) < 5) continue;
    return [closed(text.slice(0, tokens[i].start)), closed(upper(right))];
  }
  return null;
}

/** "After tests showed that it leaked, she shut the gate." → "Tests showed that it leaked. Then she shut the gate." */
export function afterOpening({ text, tokens }: Tagged): string[] | null {
  if (!long(text) || tokens[0]?.text !== 'After') return null;
  const comma = commaFrom(tokens, 4, text);
  const clause = tokens.slice(1, comma);
  const verb = finiteIn(tokens, 1, comma)[0];
  if (
    comma < 5 ||
    verb === undefined ||
    verb > 8 ||
    !['DET', 'PRON', 'PROPN', 'NOUN', 'NUM', 'ADJ'].includes(tokens[1].pos)
  )
    return null;
  const main = finiteIn(tokens, comma + 1, Math.min(tokens.length, comma + 9))[0];
  if (main === undefined || !['DET', 'PRON', 'PROPN', 'NOUN', 'NUM'].includes(tokens[comma + 1].pos))
    return null;
  if (
    timeOf(tokens, verb) !== 'past' ||
    timeOf(tokens, main) !== 'past' ||
    /^(?:has|have)$/.test(tokens[main].text)
  )
    return null;
  if (
    MARKS.test(text.slice(0, tokens[comma].start)) ||
    words(text.slice(clause[0].start, tokens[comma].start)) < 4
  )
    return null;
  const rest = text.slice(tokens[comma + 1].start);
  return [
    closed(upper(text.slice(clause[0].start, tokens[comma].start))),
    closed(`Then ${within(tokens[comma + 1], rest)}`),
  ];
}

/** "Although the gate held, the wall gave way in two places." → "The gate held. But the wall gave way in two places." */
export function concession({ text, tokens }: Tagged): string[] | null {
  if (!long(text)) return null;
  const from = /^(?:Although|Though) /.test(text) ? 1 : /^Even though /.test(text) ? 2 : 0;
  if (!from) return null;
  // The comma behind which the main clause begins: the first with a subject and its verb, not a list's.
  const comma = tokens.findIndex(
    (t, i) => i > from + 2 && t.text === ',' && !inQuote(text, t.start) && clauseBegins(tokens, i + 1),
  );
  if (comma < 0 || !finiteIn(tokens, from, comma).length) return null;
  const granted = text.slice(tokens[from].start, tokens[comma].start);
  if (
    MARKS.test(granted) ||
    words(granted) < 4 ||
    tokens.slice(from, comma).some((t) => GOVERNS.test(t.text))
  )
    return null;
  const rest = text.slice(tokens[comma + 1].start);
  return [closed(upper(granted)), closed(`But ${within(tokens[comma + 1], rest)}`)];
}

/** A plain subject and its verb: no clause that another word opens, as `clauseOpens` has them. */
const clauseBegins = (tokens: readonly TaggedToken[], from: number): boolean => {
  if (!['DET', 'PRON', 'PROPN', 'NOUN', 'NUM', 'ADJ'].includes(tokens[from]?.pos ?? '')) return false;
  for (let i = from + 1; i < Math.min(tokens.length, from + 9); i++) {
    if (isFiniteVerb(tokens, i)) return true;
    if (/^(?:,|and|or|that|which|who)$/.test(tokens[i].text)) return false;
  }
  return false;
};
