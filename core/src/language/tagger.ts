/** Parts of speech by wink-nlp, behind a small type so that rooms take a tagger as an instance. */
import winkNLP, { type ItemToken } from 'wink-nlp';
import model from 'wink-eng-lite-web-model';
import { MONTHS, WEEKDAYS } from './lexicon.ts';

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

const CALENDAR = new Set<string>([...MONTHS.filter((m) => m !== 'May' && m !== 'March'), ...WEEKDAYS]);

/** Makes a tagger; loading the model takes about 0.2 s, so make one a process or worker. */
export function makeTagger(): Tagger {
  const nlp = winkNLP(model, ['sbd', 'pos']);
  const { value, pos, lemma } = nlp.its;
  return (text) => {
    const out: TaggedToken[] = [];
    let at = 0;
    nlp
      .readDoc(text)
      .tokens()
      .each((item: ItemToken) => {
        const word = item.out(value) as string;
        const start = text.indexOf(word, at);
        // The model normalises some quotation marks; a token that can't be found keeps its place by length.
        const from = start < 0 || start > at + 40 ? at : start;
        at = from + word.length;
        out.push({
          text: word,
          lemma: (item.out(lemma as typeof value) as string).toLowerCase(),
          pos: item.out(pos) as Pos,
          start: from,
          end: at,
        });
      });
    return correct(out);
  };
}

const BE = new Set(['am', 'is', 'are', 'was', 'were', 'be', 'been', 'being', '’s', "'s"]);
const DETERMINERS = new Set([
  'the',
  'a',
  'an',
  'this',
  'that',
  'these',
  'those',
  'its',
  'his',
  'her',
  'their',
  'our',
  'my',
  'your',
  'no',
  'every',
  'each',
  'some',
  'any',
]);

/** The model's known slips, mended by closed rules; each states what it saw. */
function correct(tokens: TaggedToken[]): TaggedToken[] {
  return tokens.map((token, i) => {
    const previous = tokens[i - 1];
    const next = tokens[i + 1];
    // Months and weekdays are names, never verbs or adjectives.
    if (CALENDAR.has(token.text)) return { ...token, pos: 'PROPN' };
    // "the swaying", "the lift": a verb straight after a determiner and before a non-noun is a noun.
    if (
      token.pos === 'VERB' &&
      previous &&
      DETERMINERS.has(previous.text.toLowerCase()) &&
      previous.pos !== 'PRON' &&
      (!next || !['NOUN', 'PROPN', 'ADJ'].includes(next.pos))
    )
      return { ...token, pos: 'NOUN' };
    // A capital in mid-sentence after a determiner or preposition is a name when tagged as a verb.
    if (
      token.pos === 'VERB' &&
      i > 0 &&
      /^\p{Lu}\p{Ll}/u.test(token.text) &&
      previous &&
      ['DET', 'ADP', 'PROPN'].includes(previous.pos)
    )
      return { ...token, pos: 'PROPN' };
    // "has closed", "was shut": the auxiliary keeps its tag even where the model calls it a verb.
    if (
      token.pos === 'VERB' &&
      (BE.has(token.text.toLowerCase()) || ['has', 'have', 'had'].includes(token.text.toLowerCase())) &&
      next &&
      next.pos === 'VERB'
    )
      return { ...token, pos: 'AUX' };
    return token;
  });
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
  if (token.pos === 'AUX' || FINITE_AUX.has(word)) return FINITE_AUX.has(word);
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
