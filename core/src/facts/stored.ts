/** Facts with the tags of their sentences, small enough to be stored and sent: what was taken apart once is not taken apart again. */
import type { Pos, TaggedToken, Tagger } from '../language/tagged.ts';
import type { Fact, TaggedSentence } from './facts.ts';

const POS: readonly Pos[] = [
  'ADJ', 'ADP', 'ADV', 'AUX', 'CCONJ', 'DET', 'INTJ', 'NOUN', 'NUM', 'PART', 'PRON', 'PROPN', 'PUNCT', 'SCONJ', 'SYM', 'VERB', 'X', 'SPACE',
]; // prettier-ignore

/** A sentence's tokens in one row: start, end, part of speech, and the lemma, or 0 where it is the word in lower case. */
export type PackedTags = readonly (number | string)[];

export function packTags(tokens: readonly TaggedToken[]): PackedTags {
  return tokens.flatMap((t) => [
    t.start,
    t.end,
    POS.indexOf(t.pos),
    t.lemma === t.text.toLowerCase() ? 0 : t.lemma,
  ]);
}

/** The tokens of a text from their row. Throws RangeError when the row is not one of this text. */
export function unpackTags(text: string, packed: PackedTags): TaggedToken[] {
  const out: TaggedToken[] = [];
  for (let i = 0; i + 3 < packed.length; i += 4) {
    const [start, end, pos, lemma] = packed.slice(i, i + 4);
    if (typeof start !== 'number' || typeof end !== 'number' || end > text.length || !POS[Number(pos)])
      throw new RangeError('These tags are of another sentence.');
    const word = text.slice(start, end);
    out.push({
      text: word,
      lemma: lemma === 0 ? word.toLowerCase() : String(lemma),
      pos: POS[Number(pos)],
      start,
      end,
    });
  }
  return out;
}

/** Facts as they were stored. `tags` is null for those of before tags were kept: their sentences are tagged, and only that. */
export interface StoredFacts {
  facts: readonly Fact[];
  tags: readonly PackedTags[] | null;
}

export const taggedOf = ({ facts, tags }: StoredFacts, tagger: Tagger): TaggedSentence[] =>
  facts.map((fact, i) => ({ fact, tokens: keptTags(fact.text, tags?.[i]) ?? tagger(fact.text) }));

/** Tags that are of this sentence, or null: a row that was damaged costs a little time and nothing else. */
function keptTags(text: string, packed: PackedTags | undefined): TaggedToken[] | null {
  if (!packed) return null;
  try {
    return unpackTags(text, packed);
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
}

export const storedOf = (tagged: readonly TaggedSentence[]): { facts: Fact[]; tags: PackedTags[] } => ({
  facts: tagged.map((t) => t.fact),
  tags: tagged.map((t) => packTags(t.tokens)),
});
