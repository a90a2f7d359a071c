/** What a source is about as one would name it, and what its title says of it: titles and headlines taken apart. */
import { inflect, formOf } from '../language/inflect.ts';
import { isFiniteVerb, type TaggedToken, type Tagger } from '../language/tagged.ts';
import type { SourceDocument } from '../source/document.ts';
import { topicOf } from './material.ts';

/** A headline as a sentence about its subject: "Stolen chapel bell turns up under a clamp". */
export interface Headline {
  /** Without an article: "stolen chapel bell". */
  subject: string;
  /** As the text puts it before the subject's noun; empty for names, plurals and what isn't counted. */
  article: string;
  /** Whether it says what was done, not what is. */
  acts: boolean;
  /** In the past: "turned up". */
  verb: string;
  /** What follows, up to the next comma or clause. */
  rest: string;
}

/** What no subject of a headline holds. */
const BREAKS = new Set(['PRON', 'SCONJ', 'INTJ', 'SYM', 'X', 'SPACE']);
const LONGEST_SUBJECT = 9;

/** The first verb that can be the headline's own: finite, with a noun before it. */
function mainVerb(tokens: readonly TaggedToken[]): number {
  for (let i = 1; i < Math.min(tokens.length, LONGEST_SUBJECT + 1); i++) {
    const t = tokens[i];
    if (BREAKS.has(t.pos) || /^[:;–—|?!]$/.test(t.text)) return -1;
    if (/^(?:that|which|who|if|when|because|after|as)$/i.test(t.text)) return -1;
    const noun = tokens.slice(0, i).some((x) => x.pos === 'NOUN' || x.pos === 'PROPN');
    if (noun && (t.pos === 'AUX' || t.pos === 'VERB') && isFiniteVerb(tokens, i)) return i;
  }
  return -1;
}

/** A title read as a headline over its text; null when it is no sentence, or no third person's. */
export function headlineOf(
  { title, text: source, kind }: Pick<SourceDocument, 'title' | 'text' | 'kind'>,
  tagger: Tagger,
): Headline | null {
  const text = title
    .replace(/\s*\([^)]*\)\s*$/, '')
    .replace(/[.!]$/, '')
    .trim();
  // An entry and a guide are headed with what they are about, whatever the tags make of it.
  if (kind === 'encyclopedia' || kind === 'howto') return null;
  const tokens = tagger(`${text}.`);
  const at = mainVerb(tokens);
  if (
    at < 1 ||
    /^(?:I|We|You|My|Our|Why|How|What|Who|Where|When|Is|Are|Do|Does|Did|Can|Could|Will|Should|Amid)$/i.test(
      tokens[0].text,
    )
  )
    return null;
  const before = tokens.slice(0, at);
  const head = before.at(-1)!;
  if (head.pos !== 'NOUN' && head.pos !== 'PROPN') return null;
  // "Street lamps delay the run": an article inside a subject stands behind a preposition only.
  if (before.some((t, i) => i > 0 && t.pos === 'DET' && before[i - 1].pos !== 'ADP')) return null;
  const verb = tokens[at];
  const form = formOf(verb.text, verb.lemma, false);
  // "Hit by a storm", "charged with theft": a participle without its helper.
  if (
    verb.pos === 'VERB' &&
    form === 'past' &&
    tokens[at + 1]?.pos === 'ADP' &&
    /^(?:by|with|on|in|for|over)$/.test(tokens[at + 1].text)
  )
    return null;
  const titleCase = isTitleCase(text);
  const cased = (word: string) => (titleCase ? word[0].toUpperCase() + word.slice(1) : word);
  const named = head.pos === 'PROPN' && !titleCase;
  // A headline's present is the past of one thing; what many do stays as it is.
  const past = form === 'third' && verb.pos === 'VERB' ? cased(inflect(verb.lemma, 'past')) : verb.text;
  const behind = text.slice(verb.end);
  const rest = behind.split(/,| [–—-] |: |; | (?:after|when|while|because|as|but|and|amid) /i)[0].trim();
  const article = /^(?:the|an?)$/i.test(before[0].text);
  const phrase = text.slice(article ? before[1].start : 0, head.end);
  if (/[“”"‘?!]|(?:^|\s)['–—-]|,/.test(phrase) || /^(?:n['’]t|not)$/i.test(tokens[at + 1]?.text ?? ''))
    return null;
  const first = phrase.split(/\s/)[0];
  // A headline's first word has a capital whatever it is: within a sentence the text writes it as it is.
  const firstNamed = titleCase || (/^\p{Lu}/u.test(first) && isNamed(first, source));
  const subject = firstNamed ? phrase : phrase[0].toLowerCase() + phrase.slice(1);
  return {
    subject,
    article: article
      ? before[0].text.toLowerCase()
      : named || /^\d/.test(phrase) || /ing$/.test(before[0].text)
        ? ''
        : articleIn(source, head.text),
    acts: verb.pos === 'VERB',
    verb: past,
    rest,
  };
}

/** Whether a word with a capital keeps it inside a sentence, as the text shows: never small there, and sometimes large. */
function isNamed(word: string, text: string): boolean {
  const escaped = (w: string) => w.replace(/[^\p{L}\p{N}]/gu, '.');
  const small = new RegExp(`(?<!\\p{L})${escaped(word.toLowerCase())}(?!\\p{L})`, 'u');
  const large = new RegExp(`(?<=[\\p{Ll},] )${escaped(word)}(?!\\p{L})`, 'u');
  return !small.test(text) && (large.test(text) || /\p{Lu}.*\p{Lu}/u.test(word));
}

/** Whether every word of some length has a capital. */
export const isTitleCase = (text: string) => {
  const words = text.split(/\s+/).filter((w) => /^\p{L}{4,}/u.test(w));
  return words.length > 2 && words.every((w) => /^\p{Lu}/u.test(w));
};

/** The article that the text itself puts before a noun when it first names it; none where it uses none. */
function articleIn(source: string, noun: string): string {
  const escaped = noun.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '.');
  const found = new RegExp(`\\b(?:(an?|the)\\s(?:[\\p{L}’'-]+\\s){0,3}?)?${escaped}\\b`, 'iu').exec(source);
  return found?.[1]?.split(' ')[0].toLowerCase() ?? '';
}

/** "A stolen chapel bell", "eels", "Hallay": as the text names it first. */
export const asFirstNamed = ({ subject, article }: Pick<Headline, 'subject' | 'article'>): string =>
  article ? `${article === 'the' ? 'the' : /^[aeiou]/i.test(subject) ? 'an' : 'a'} ${subject}` : subject;

/** "The stolen chapel bell", "eels", "Hallay": as one who knows it names it. */
export const asKnown = ({ subject, article }: Pick<Headline, 'subject' | 'article'>): string =>
  article ? `the ${subject}` : subject;

/** The thing a definition says its subject is: "is a contest of strength" gives "contest of strength". Null when nothing is defined. */
export function kindOfThing(source: SourceDocument, sentences: readonly string[]): string | null {
  const defined = sentences
    .slice(0, 3)
    .map((s) => /\b(?:is|was|are|were) (?:an?|the only|one of the) (.+)$/.exec(s)?.[1])
    .find(Boolean);
  if (!defined || source.kind !== 'encyclopedia') return null;
  return DEFINED.exec(defined)?.[1] ?? null;
}

/** Of a definition, up to what is said of the thing: "canal lift" of "canal lift in the river city of …". */
const DEFINED =
  /^((?:[\p{L}’'-]+\s){0,4}?[\p{L}’'-]+)(?=\s(?:in|of|for|on|at|by|from|with|near|that|which|who|used|found|held|made|built|between)\b|[,.;(])/u;

/** What a source is about as a noun phrase, to stand inside a sentence: "the stolen chapel bell", "Hallay", "eels". */
export function topicNoun(source: SourceDocument, tagger: Tagger): string {
  const headline = headlineOf(source, tagger);
  if (headline?.acts || headline?.article) return asKnown(headline);
  const named = topicOf(source)
    .replace(/\s*\([^)]*\)/g, '')
    .replace(/\s*&\s*/g, ' and ');
  const tokens = tagger(named);
  // An entry is headed with its noun alone; the text puts its article.
  const head = tokens.at(-1);
  const proper = tokens.every((t) => /^\p{Lu}/u.test(t.text) || !/^\p{L}/u.test(t.text)) && tokens.length > 1;
  if (
    source.kind === 'encyclopedia' &&
    /^(?:NOUN|PROPN|VERB)$/.test(head?.pos ?? '') &&
    !/^the\b/i.test(named)
  ) {
    const before = new RegExp(`\\b(the|an?)\\s${named.replace(/[^\p{L}\p{N}\s]/gu, '.')}`, 'iu').exec(
      source.text,
    )?.[1];
    const keeps = proper || isNamed(named.split(' ')[0], source.text);
    const small = keeps ? named : named[0].toLowerCase() + named.slice(1);
    return before ? `the ${small}` : small;
  }
  return /^(?:the|an?)\s/i.test(named) ? named[0].toLowerCase() + named.slice(1) : named;
}
