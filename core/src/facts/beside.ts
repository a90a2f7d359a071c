/** Passages that stand with a report's text and are none of its telling: a line like a headline over it, a transcript beside it. */
import { sentences } from '../language/sentences.ts';
import type { Block, SourceDocument } from '../source/document.ts';

/** Fewer words are a row over the text: who wrote it, for whom. */
const SHORT_PARAGRAPH = 8;
const ended = ({ text }: Block) => /[.!?…:;]["'”’)\]]*$/.test(text.trim());
/** A report's first words, without a stop, before paragraphs that have one: they sum up what follows, as headlines do. */
function deckOf(paragraphs: readonly Block[]): Block | null {
  const [first, ...rest] = paragraphs.filter((b) => b.text.split(/\s+/).length >= SHORT_PARAGRAPH);
  if (!first || rest.length < 2 || ended(first) || !rest.slice(0, 3).every(ended)) return null;
  return sentences(first.text).length === 1 ? first : null;
}

/** "WARE: It was the frost.": somebody's words as they were spoken, under their name. */
const TURN = /^(\p{Lu}[\p{Lu}.’'-]+(?: \p{Lu}[\p{Lu}.’'-]+){0,3})(?:, [^:.]{2,40})?: (?=\S)/u;
const [LEAST_TURNS, LEAST_SPEAKERS] = [3, 2];
/** Passages that are a piece of a transcript; of an interview, where most are turns, none. */
function turnsIn(paragraphs: readonly Block[]): readonly Block[] {
  const turns = paragraphs.filter((b) => TURN.test(b.text));
  const speakers = new Set(turns.map((b) => TURN.exec(b.text)![1]));
  const beside = turns.length >= LEAST_TURNS && speakers.size >= LEAST_SPEAKERS;
  return beside && turns.length < paragraphs.length / 2 ? turns : [];
}

/** Why nothing of a passage is told, by its id. */
export function besideText({ blocks, kind }: SourceDocument): ReadonlyMap<string, string> {
  const paragraphs = blocks.filter((b) => b.type === 'paragraph');
  const deck = kind === 'forum' ? null : deckOf(paragraphs);
  const turns = kind === 'news' || kind === 'encyclopedia' ? turnsIn(paragraphs) : [];
  return new Map([
    ...(deck ? [[deck.id, 'it sums up what follows, like a headline'] as const] : []),
    ...turns.map((b) => [b.id, 'it is a turn of a transcript beside the text'] as const),
  ]);
}
