/** What is said for one sentence: in short sentences, for the ear, in other words where that is safe. */
import { remembering, type TaggedToken, type Tagger } from '../../language/tagged.ts';
import type { SourceDocument } from '../../source/document.ts';
import { formOf } from '../../language/inflect.ts';
import { MONTHS, WEEKDAYS } from '../../language/lexicon.ts';
import { contract, forTheEar, speakerFirst, toldTheReporter } from '../ear.ts';
import { quotesBalance } from '../../facts/speech.ts';
import { claimContext, faultsIn, type ClaimContext } from '../../trace/index.ts';
import { safeSplits } from '../split.ts';
import { carrier, decompose, personsOf, type Subject } from './decompose.ts';
import { OPERATIONS, lower, spokenFigures, upper } from './restructure.ts';
import { rephrase } from './phrasebook.ts';
import { shortened } from './shorten.ts';

/** How far a telling goes from the source's words. */
export const WORD_STYLES = ['own', 'plain', 'source'] as const;
export type WordStyle = (typeof WORD_STYLES)[number];

export interface Teller {
  tagger: Tagger;
  source: Pick<SourceDocument, 'kind' | 'text'>;
  carry: Subject;
  context: ClaimContext;
  words: WordStyle;
  contractions: boolean;
  /** No sentence longer than this while it can be split safely, in words. */
  longest: number;
  /** Longer ones lose what only adds, in words. */
  breath: number;
  /** Sentences of fewer words are not taken apart. */
  partFrom: number;
  /** Whether a time at a sentence's end goes to its front. */
  timeFirst: boolean;
}

export const makeTeller = (
  source: Pick<SourceDocument, 'kind' | 'text'>,
  tagger: Tagger,
  options: Partial<
    Pick<Teller, 'words' | 'contractions' | 'longest' | 'breath' | 'partFrom' | 'timeFirst'>
  > = {},
): Teller => ({
  tagger: remembering(tagger),
  source,
  carry: carrier(personsOf(source.text)),
  context: claimContext(source.text),
  words: options.words ?? 'own',
  contractions: options.contractions ?? true,
  longest: options.longest ?? 26,
  breath: options.breath ?? options.longest ?? 26,
  partFrom: options.partFrom ?? decomposedFrom(options.longest ?? 26),
  timeFirst: options.timeFirst ?? true,
});

const CLAIMS_WE = /\b(?:we|ours?|us)\b/i;

/** "We" of a study's authors, for a listener who hears somebody else: the researchers, then they. */
function authorsAsThirdPerson(text: string): string {
  return text
    .replace(/^We\b/, 'The researchers')
    .replace(/^((?!The researchers\b).*?)\bwe\b/, '$1the researchers')
    .replace(/\bwe\b/g, 'they')
    .replace(/\bus\b/g, 'them')
    .replace(/\bours\b/g, 'theirs')
    .replace(/\bour\b/g, 'their')
    .replace(/\bOur\b/g, 'Their');
}

/** Where the longest sentence is 26 words, those of 17 are split and those of 13 taken apart; for other listeners in step. */
const easyWords = (longest: number) => Math.max(7, longest - 10);
const decomposedFrom = (longest: number) => Math.max(8, longest - 13);
/** A person's own story and a guide's steps keep their words: they are their voice, and what must be exact. */
const KEEPS_ITS_WORDS = new Set(['forum', 'howto']);

const AIM =
  /^To (?:find out|test|determine|examine|assess|measure|see|compare|explore|investigate|evaluate|identify)\b/;

/** A bracket that opens in one sentence and closes in another is not heard, nor are those around a whole one. */
const unbracketed = (text: string) =>
  (text.match(/\(/g)?.length ?? 0) === (text.match(/\)/g)?.length ?? 0)
    ? text.replace(/^\(([^()]+[.!?])\)$/, '$1')
    : text.replace(/^\(\s*|\s*\)$/g, '').replace(/\s*\)([.!?])$/, '$1');

/** The last sentence of somebody's words has the mark that closes them, and is heard as theirs with one that opens. */
const withOpening = (text: string) =>
  /”$/.test(text) && !text.includes('“')
    ? `“${text}`
    : /"$/.test(text) && text.match(/"/g)!.length === 1
      ? `"${text}`
      : text;

/** How a poster labels what is added later: "EDIT 2, Tuesday:", "Update (solved):". */
const WHEN = `\\d[\\d./:-]*(?:st|nd|rd|th)?|[ap]m|morning|afternoon|evening|night|later|again|${MONTHS.join('|')}`;
const ADDED = new RegExp(
  `^(?:(?:final|small|quick) )?(?:edit|edited to add|update|eta|follow-?up)\\b(?:\\s*#?\\d+)?(?:[,\\s–-]+(${WEEKDAYS.join('|')})\\b)?(?:[,\\s–-]+(?:${WHEN})\\b){0,4}\\s?(?:\\([^)]*\\))?\\s*:\\s*(?=\\S)`,
  'iu',
);

/** How a box in a guide is labelled: "WARNING:", "Tip:". What stands in it is said as it is. */
const NOTICE = /^(?:warning|caution|danger|tip|note|hint|important|nb|n\.b\.)\s?[:!]\s+(?=[\p{L}\d“"])/iu;
const withoutNotice = (text: string) => (NOTICE.test(text) ? upper(text.replace(NOTICE, '')) : text);

/** What was added later, without its label: a day that it gives is said. */
function withoutLabel(text: string, tagger: Tagger): string {
  const label = ADDED.exec(text);
  if (!label) return text;
  const added = text.slice(label[0].length);
  if (!label[1]) return upper(added);
  return `On ${label[1]}, ${/^[“"]/.test(added) || tagger(added)[0]?.pos === 'PROPN' ? added : lower(added)}`;
}

/** "Borrowed a radio from my brother.": a teller who leaves themself out is heard with an "I". */
function withTeller(text: string, tagger: Tagger): string {
  const at = /^(?:(?:On|In|At) [^,]{3,20}, )?/.exec(text)![0].length;
  const [verb, object] = tagger(text.slice(at));
  const past =
    verb?.pos === 'VERB' &&
    formOf(verb.text, verb.lemma, false) === 'past' &&
    ['DET', 'PRON', 'NUM'].includes(object?.pos ?? '');
  return past ? `${text.slice(0, at)}I ${text[at].toLowerCase()}${text.slice(at + 1)}` : text;
}

/** The lines for a sentence, in order. `speech`: it stands inside a quotation that runs over several sentences, and is told to the letter. */
export function tellSentence(
  text: string,
  tokens: readonly TaggedToken[],
  teller: Teller,
  speech = false,
): string[] {
  // Where a quotation begins or ends without the other mark, some of it is somebody's words.
  if (speech || !quotesBalance(text)) return [unbracketed(speech ? text : withOpening(text))];
  const { source, tagger } = teller;
  let said = unbracketed(forTheEar(withoutLabel(withoutNotice(text), tagger)));
  if (source.kind === 'forum') said = withTeller(said, tagger);
  if (source.kind === 'abstract' && CLAIMS_WE.test(said) && !/["“]/.test(said))
    said = authorsAsThirdPerson(said);
  // An aim without a verb of its own, as labelled abstracts have it.
  if (source.kind === 'abstract' && AIM.test(said) && !/, (?:we|they|the|I|it)\b/.test(said))
    said = `The aim was ${said[0].toLowerCase()}${said.slice(1)}`;
  if (source.kind === 'news') said = toldTheReporter(said);
  said = speakerFirst(said);
  const parts = safeSplits(said, said === text ? tokens : tagger(said), easyWords(teller.longest));
  const finish = (line: string) => (teller.contractions ? contract(line) : line);
  if (teller.words === 'source') return parts.map(finish);
  const keeps = KEEPS_ITS_WORDS.has(source.kind);
  const partFrom = keeps ? teller.breath + 1 : teller.partFrom;
  const clauses = parts.flatMap((part) =>
    decompose({ text: part, tokens: tagger(part) }, teller.carry, tagger, partFrom),
  );
  // Of a step nothing goes: what only adds to it may be how it is done.
  const apart =
    source.kind === 'howto'
      ? clauses
      : clauses.map((line) => shortened({ text: line, tokens: tagger(line) }, teller.breath) ?? line);
  const tellings = [
    ...(keeps || teller.words === 'plain'
      ? []
      : [apart.map((part) => ownWords(part, tagger, source.kind, teller.timeFirst))]),
    apart,
  ].map((lines) => lines.map(finish));
  const asItStands = parts.map(finish);
  // What no longer claims the same is told in the source's words.
  return (
    tellings.find(
      (lines) =>
        lines.join('\n') === asItStands.join('\n') ||
        !faultsIn(lines.join(' '), said, teller.context, tagger).length,
    ) ?? asItStands
  );
}

/** One sentence through every operation that applies, then the phrasebook. */
export function ownWords(
  text: string,
  tagger: Tagger,
  kind: SourceDocument['kind'] = 'news',
  timeFirst = true,
): string {
  let said = spokenFigures(text);
  for (const { id, apply } of OPERATIONS)
    if ((id !== 'goingTo' || kind === 'news') && (id !== 'frontTime' || timeFirst))
      said = apply({ text: said, tokens: tagger(said) }) ?? said;
  return rephrase(said, tagger(said)).text;
}
