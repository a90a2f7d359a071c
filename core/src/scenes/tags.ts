/** Where the model's tags are surely wrong: grammar leaves one reading, and the dictionary has it. */
import { baseForm } from '../language/kin.ts';
import { hasFiniteVerb, type TaggedToken } from '../language/tagged.ts';
import type { Words } from './figures.ts';

/** A token, with what the sources know for a name marked: "Kestrel left school" is about no bird. */
export interface SceneToken extends TaggedToken {
  name?: true;
}

const word = (t: TaggedToken) => t.text.toLowerCase();
const ORDER =
  /^(?:first|firstly|second|secondly|third|fourth|fifth|sixth|seventh|eighth|ninth|tenth|last|lastly|finally|then|next|now|and|also|step|number|,|:|\.|\d+|one|two|three|four|five|six|seven|eight|nine|ten)$/i;
const PARTICLE = /^(?:out|off|up|down|in|on|away|back|over)$/;

/** Words of "after fifteen minutes" at a place; nought where it does not stand there. */
const afterTime = (tokens: readonly TaggedToken[], i: number): number =>
  /^(?:after|in|within)$/i.test(tokens[i].text) &&
  tokens[i + 1]?.pos === 'NUM' &&
  tokens[i + 2]?.pos === 'NOUN'
    ? 3
    : 0;

/** A word used as a noun so many times as often is no order. */
const MOSTLY_NOUN = 12;
/** The place of a verb that tells somebody to do something: the first word of a sentence, but for "first," and the like; or -1. */
export function orderAt(tokens: readonly TaggedToken[], words: Words, from = 0): number {
  let i = from;
  // "Sixth, after fifteen minutes wipe the tiles".
  while (i < tokens.length && (ORDER.test(tokens[i].text) || afterTime(tokens, i)))
    i += afterTime(tokens, i) || 1;
  const [t, next, more] = [tokens[i], tokens[i + 1], tokens[i + 2]];
  if (!t || !next || word(t) !== baseForm(word(t)) || !['VERB', 'NOUN', 'PROPN', 'ADJ'].includes(t.pos))
    return -1;
  // "People on a deck" are no order, though one can people a land.
  const uses = (pos: 'n' | 'v') => words.senses.of(word(t), pos).reduce((n, s) => n + s.count, 0);
  if (!words.senses.of(word(t), 'v').length || uses('v') < uses('n') / MOSTLY_NOUN) return -1;
  const object = (x: TaggedToken | undefined) =>
    !!x && (x.pos === 'DET' || x.pos === 'NUM' || /^(?:it|them|your|its|their)$/i.test(x.text));
  // "Wear gloves": the model is right about most verbs; a noun is one only before an object.
  const bare = t.pos === 'VERB' && ['NOUN', 'ADJ', 'NUM', 'PROPN', 'ADV', 'ADP'].includes(next.pos);
  return object(next) || (PARTICLE.test(word(next)) && object(more)) || bare ? i : -1;
}

/** Starts of clauses in which an order can stand: of the text, and behind a full stop or "and". */
export function* clauseStarts(tokens: readonly TaggedToken[]): Generator<number> {
  yield 0;
  for (let i = 1; i < tokens.length; i++) if (/^[.!?;]$/.test(tokens[i - 1].text)) yield i;
}

/** The first token of each segment between full stops that has no finite verb: one of its nouns must be it. */
function* verbless(tokens: readonly TaggedToken[]): Generator<[from: number, to: number]> {
  let from = 0;
  for (let i = 0; i <= tokens.length; i++) {
    if (i < tokens.length && !/^[.!?;]$/.test(tokens[i].text)) continue;
    if (i - from > 3 && !hasFiniteVerb(tokens.slice(from, i))) yield [from, i];
    from = i + 1;
  }
}

/** Nouns that are verbs: the relative's ("a warehouse that ships tools"), one behind "this", one that no dictionary has as a noun. */
function isVerb(tokens: readonly TaggedToken[], i: number, words: Words): boolean {
  const [t, before] = [tokens[i], tokens[i - 1]];
  if (t.pos !== 'NOUN' || !before) return false;
  if (/ed$/.test(word(t)) && !words.noun(t.lemma).length) return verbFrom(t, words) !== null;
  if (!isThird(t) || !verbFrom(t, words)) return false;
  return (
    /^(?:it|he|she)$/i.test(before.text) ||
    (/^(?:that|which|who)$/i.test(before.text) && tokens[i - 2]?.pos === 'NOUN') ||
    /^(?:this|an?|each|every)$/i.test(before.text)
  );
}
/** The verb of a clause that has none: "cormorants nest in it", "reading delays sleep". */
function missingVerb(tokens: readonly TaggedToken[], from: number, to: number, words: Words): number {
  for (let i = from + 1; i < to - 1; i++) {
    const [before, t] = [tokens[i - 1], tokens[i]];
    if (t.pos !== 'NOUN' || before.pos !== 'NOUN' || !verbFrom(t, words)) continue;
    const plural = word(before) !== before.lemma && /s$/.test(word(before));
    if (plural ? word(t) === t.lemma : isThird(t)) return i;
  }
  return -1;
}
const isThird = (t: TaggedToken) => word(t) !== t.lemma && /s$/.test(word(t));
/** The verb that a word is a form of, or null. */
function verbFrom(t: TaggedToken, words: Words): string | null {
  const w = word(t);
  const stems = /ed$/.test(w) ? [w.slice(0, -2), w.slice(0, -1), w.slice(0, -3)] : [t.lemma];
  return stems.find((x) => words.senses.of(x, 'v').length > 0) ?? null;
}

/**
 * The model takes a noun for a name because it opens the sentence, or for a verb because no article stands before it
 * ("a web of lies"), an order for a noun ("mix the grout"), and a verb for a noun ("cormorants nest in it").
 */
export function retagged(tokens: readonly TaggedToken[], words: Words): readonly TaggedToken[] {
  const known = words.retagged.get(tokens);
  if (known) return known;
  const out = mended(tokens, words);
  words.retagged.set(tokens, out);
  return out;
}

function mended(tokens: readonly TaggedToken[], words: Words): TaggedToken[] {
  const orders = new Set([...clauseStarts(tokens)].map((from) => orderAt(tokens, words, from)));
  const asVerb = (t: TaggedToken): TaggedToken => ({
    ...t,
    pos: 'VERB',
    lemma: verbFrom(t, words) ?? t.lemma,
  });
  const nouns = tokens.map((t, i) => {
    if (orders.has(i)) return t.pos === 'VERB' ? t : { ...t, pos: 'VERB' as const, lemma: word(t) };
    return isNoun(tokens, i) ? asNoun(t, words) : t;
  });
  const out = nouns.map((t, i) => (isVerb(nouns, i, words) ? asVerb(t) : t));
  for (const [from, to] of verbless(out)) {
    const i = missingVerb(out, from, to, words);
    if (i >= 0) out[i] = asVerb(out[i]);
  }
  return out;
}

/** Verbs and names that grammar makes nouns. */
function isNoun(tokens: readonly TaggedToken[], i: number): boolean {
  const [before, t, next] = [tokens[i - 1], tokens[i], tokens[i + 1]];
  if (t.pos === 'PROPN') return i === 0 && next?.pos !== 'PROPN' && !(t as SceneToken).name;
  if (t.pos !== 'VERB' || !before) return false;
  if (before.text.toLowerCase() === 'of') return !/ing$/.test(word(t));
  if (word(t) !== t.lemma) return false;
  const ends = !next || ['PUNCT', 'CCONJ'].includes(next.pos);
  const followed = /^(?:VERB|AUX|ADP)$/.test(next?.pos ?? '');
  // "A buoy replaced it", "her fork and", "a rubber float, a bucket", "the boat lift stands".
  if (/^(?:an?|the)$/i.test(before.text)) return followed;
  if (/^(?:my|your|his|her|its|our|their)$/i.test(before.text)) return ends || followed;
  if (before.pos !== 'NOUN') return false;
  if (/^an?$/i.test(tokens[i - 2]?.text ?? '') && (!next || next.pos === 'PUNCT')) return true;
  return before.text === before.lemma && /^(?:VERB|AUX)$/.test(next?.pos ?? '');
}

/** Plurals that no ending tells. */
const IRREGULAR: Readonly<Record<string, string>> = {
  mice: 'mouse', geese: 'goose', men: 'man', women: 'woman', children: 'child', wolves: 'wolf', thieves: 'thief', knives: 'knife', loaves: 'loaf', shelves: 'shelf', calves: 'calf', oxen: 'ox',
}; // prettier-ignore
function asNoun(t: TaggedToken, words: Words): TaggedToken {
  const w = word(t);
  const singular = [
    w,
    ...(Object.hasOwn(IRREGULAR, w) ? [IRREGULAR[w]] : []),
    w.replace(/s$/, ''),
    w.replace(/es$/, ''),
    w.replace(/ies$/, 'y'),
  ];
  const lemma =
    singular.find((x) => words.noun(x).length > 0 && (x !== w || !/[^s]s$/.test(x))) ??
    singular.find((x) => words.noun(x).length > 0);
  return lemma && words.share(lemma) !== null ? { ...t, pos: 'NOUN', lemma } : t;
}
