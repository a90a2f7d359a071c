/** Parts of speech by wink-nlp, behind a small type so that rooms take a tagger as an instance. */
import winkNLP, { type ItemToken } from 'wink-nlp';
import model from 'wink-eng-lite-web-model';
import { MONTHS, WEEKDAYS } from './lexicon.ts';
import type { Pos, TaggedToken, Tagger } from './tagged.ts';

export * from './tagged.ts';

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
          // The model has no lemma for a few words it splits ("cannot" before a comma).
          lemma: ((item.out(lemma as typeof value) as string | undefined) ?? word).toLowerCase(),
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
