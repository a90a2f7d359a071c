/** Tagged words, and what form and tags tell of a verb. Loads no model. */

/** Universal part-of-speech tags as the model gives them. */
export type Pos =
  | 'ADJ'
  | 'ADP'
  | 'ADV'
  | 'AUX'
  | 'CCONJ'
  | 'DET'
  | 'INTJ'
  | 'NOUN'
  | 'NUM'
  | 'PART'
  | 'PRON'
  | 'PROPN'
  | 'PUNCT'
  | 'SCONJ'
  | 'SYM'
  | 'VERB'
  | 'X'
  | 'SPACE';

export interface TaggedToken {
  text: string;
  /** Lower case lemma. */
  lemma: string;
  pos: Pos;
  /** Offsets into the tagged text. */
  start: number;
  end: number;
}

export type Tagger = (text: string) => TaggedToken[];

/** A sentence is looked at by many rules: its tags are kept, from `known` on, while a source is told. */
export function remembering(
  tagger: Tagger,
  known: Iterable<readonly [text: string, tokens: readonly TaggedToken[]]> = [],
): Tagger {
  const kept = new Map<string, TaggedToken[]>([...known].map(([text, tokens]) => [text, [...tokens]]));
  return (text) => {
    const tokens = kept.get(text) ?? tagger(text);
    kept.set(text, tokens);
    return tokens;
  };
}

const FINITE_AUX = new Set(
  'is are was were am has have had does do did will would can could may might must shall should isn’t aren’t wasn’t weren’t didn’t doesn’t don’t won’t can’t couldn’t wouldn’t'.split(
    ' ',
  ),
);

/**
 * Whether the token at `i` is a finite verb, as far as tags and form tell: an auxiliary, or a verb that is neither an
 * infinitive after "to" or a modal, nor a participle after a form of "be" or "have", nor an -ing form.
 */
export function isFiniteVerb(tokens: readonly TaggedToken[], i: number): boolean {
  const token = tokens[i];
  const word = token.text.toLowerCase().replace("'", '’');
  // The month within a sentence, whatever the tags say.
  if (token.text === 'May' && i > 0) return false;
  if (token.pos === 'AUX' || FINITE_AUX.has(word))
    return FINITE_AUX.has(word) || /^’(?:d|s|ve|re|ll|m)$/.test(word);
  if (token.pos !== 'VERB' || word.endsWith('ing')) return false;
  let j = i - 1;
  while (
    j >= 0 &&
    (tokens[j].pos === 'ADV' || tokens[j].pos === 'PART') &&
    tokens[j].text.toLowerCase() !== 'to'
  )
    j--;
  const before = tokens[j];
  if (!before) return !/(ed|en|n|t)$/.test(word) ? /s$/.test(word) : false;
  if (before.text.toLowerCase() === 'to' || before.pos === 'AUX') return false;
  // A participle straight behind its noun ("the cable fitted in 1931") can't be told from a past tense here;
  // followed by a preposition and with a later finite verb it is one.
  if (
    /(ed|en)$/.test(word) &&
    tokens[i + 1]?.pos === 'ADP' &&
    tokens.slice(i + 2).some((t) => t.pos === 'AUX' && FINITE_AUX.has(t.text.toLowerCase()))
  )
    return false;
  return ['NOUN', 'PROPN', 'PRON', 'ADV', 'NUM', 'PUNCT', 'CCONJ', 'DET', 'ADJ'].includes(before.pos);
}

/** Whether a stretch of tokens holds a finite verb. */
export const hasFiniteVerb = (tokens: readonly TaggedToken[]): boolean =>
  tokens.some((_, i) => isFiniteVerb(tokens, i));
