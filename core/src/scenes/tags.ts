/** Where the model's tags are surely wrong: grammar leaves one reading, and the dictionary has it. */
import { baseForm } from '../language/kin.ts';
import type { TaggedToken } from '../language/tagged.ts';
import type { Words } from './figures.ts';

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

/** The place of a verb that tells somebody to do something: the first word of a sentence, but for "first," and the like; or -1. */
export function orderAt(tokens: readonly TaggedToken[], words: Words, from = 0): number {
  let i = from;
  // "Sixth, after fifteen minutes wipe the tiles".
  while (i < tokens.length && (ORDER.test(tokens[i].text) || afterTime(tokens, i)))
    i += afterTime(tokens, i) || 1;
  const [t, next, more] = [tokens[i], tokens[i + 1], tokens[i + 2]];
  if (!t || !next || word(t) !== baseForm(word(t)) || !['VERB', 'NOUN', 'PROPN', 'ADJ'].includes(t.pos))
    return -1;
  if (!words.senses.of(word(t), 'v').length) return -1;
  const object = (x: TaggedToken | undefined) =>
    !!x && (x.pos === 'DET' || /^(?:it|them|your|its|their)$/i.test(x.text));
  // "Wear gloves": the model is right about most verbs; a noun is one only before an object.
  const bare = t.pos === 'VERB' && ['NOUN', 'ADJ', 'NUM', 'PROPN', 'ADV', 'ADP'].includes(next.pos);
  return object(next) || (PARTICLE.test(word(next)) && object(more)) || bare ? i : -1;
}

/** Starts of clauses in which an order can stand: of the text, and behind a full stop or "and". */
export function* clauseStarts(tokens: readonly TaggedToken[]): Generator<number> {
  yield 0;
  for (let i = 1; i < tokens.length; i++) if (/^[.!?;]$/.test(tokens[i - 1].text)) yield i;
}

/**
 * The model takes a noun for a name because it opens the sentence, or for a verb because no article stands before it
 * ("a web of lies"), and an order for a noun ("mix the grout").
 */
export function retagged(tokens: readonly TaggedToken[], words: Words): TaggedToken[] {
  const orders = new Set([...clauseStarts(tokens)].map((from) => orderAt(tokens, words, from)));
  return tokens.map((t, i) => {
    if (orders.has(i)) return t.pos === 'VERB' ? t : { ...t, pos: 'VERB', lemma: word(t) };
    const [before, next] = [tokens[i - 1], tokens[i + 1]];
    const bare = t.pos === 'VERB' && word(t) === t.lemma;
    const opens = i === 0 && t.pos === 'PROPN' && next?.pos !== 'PROPN';
    const behindOf = t.pos === 'VERB' && before?.text.toLowerCase() === 'of' && !/ing$/.test(word(t));
    // "the boat lift stands": a verb without its ending between a noun and a verb.
    const between =
      bare &&
      before?.pos === 'NOUN' &&
      before.text === before.lemma &&
      /^(?:VERB|AUX)$/.test(next?.pos ?? '');
    // "A buoy replaced it", "a rubber float, a bucket": one between an article and a verb or a mark.
    const article =
      bare &&
      (/^(?:an?|the)$/i.test(before?.text ?? '')
        ? /^(?:VERB|AUX|ADP)$/.test(next?.pos ?? '')
        : before?.pos === 'NOUN' &&
          /^an?$/i.test(tokens[i - 2]?.text ?? '') &&
          (!next || next.pos === 'PUNCT'));
    if (!opens && !behindOf && !between && !article) return t;
    const singular = [
      word(t),
      word(t).replace(/s$/, ''),
      word(t).replace(/es$/, ''),
      word(t).replace(/ies$/, 'y'),
    ];
    const lemma =
      singular.find((w) => words.noun(w).length > 0 && (w !== word(t) || !/[^s]s$/.test(w))) ??
      singular.find((w) => words.noun(w).length > 0);
    return lemma && words.share(lemma) !== null ? { ...t, pos: 'NOUN', lemma } : t;
  });
}
