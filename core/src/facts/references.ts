/**
 * What each sentence points at. A sentence is told only when what it points at is told: this is what keeps a draft
 * coherent (measured: half of all refused lines dangle).
 */
import { MONTHS, PATTERNS } from '../language/lexicon.ts';
import { anyNoun, isA } from '../language/classes.ts';
import { CARDINAL_WORD, ORDINAL_WORD } from '../language/numbers.ts';
import { hasFiniteVerb, type TaggedToken, type Tagger } from '../language/tagged.ts';
import { stems } from './centrality.ts';
import type { TaggedSentence } from './facts.ts';

/** Nouns a listener knows from the title. */
export const titleNouns = (title: string, tagger: Tagger): ReadonlySet<string> =>
  new Set([
    ...tagger(title)
      .filter((t) => t.pos === 'NOUN' || t.pos === 'PROPN')
      .map((t) => t.lemma),
    ...stems(title),
  ]);

export interface Reference {
  /** Index of the sentence that must be told. */
  to: number;
  /** Whether it must be the sentence straight before, with nothing in between. */
  adjacent: boolean;
  why: string;
  /** A person who is named in full instead when that sentence is not told: the name as it stands here. */
  name?: string;
}

const LEANS_BACK =
  /^["“]?(?:An? (?:similar|further|second|third|comparable|rival)(?= [a-z])|But|And|So|Or|Yet|Then|However|Instead|Still|Also|Meanwhile|Nevertheless|Nonetheless|Therefore|Thus|Hence|Moreover|Furthermore|Besides|In addition|As a result|For this|By then|By that|After that|After this|Since then|Until then|Up to then|At the same|Even so|Afterwards|Later|Soon|Again|Another|Both|Neither|Either|Such|Similarly|Likewise|Otherwise|Here|Now|The (?:same|other|others|former|latter|next|rest|last|pair|following)\b|Most|None|Nobody|No one|Not (?:everyone|everybody|all)\b|Everyone|Everybody|Some|Others?|Each|Only then|On the other|In (?:the )?(?:second|third|other|this|that|these|those)|To (?:do|avoid) (?:this|that|so)|This|That|These|Those|All of|One of them|For this|For that|With (?:this|that)|More|Less|Fewer|Because of (?:this|that)|Why|Rather|Eventually|Finally|In the end|The (?:more|less|\p{Ll}+er) (?:it|they|he|she))\b/u;
/** "Nine were lost.", "The third broke.": some of what was counted before; "the first person to see it" says of what. */
const COUNTED_BACK = new RegExp(
  String.raw`^["“]?(?:${CARDINAL_WORD}(?= (?:were|was|are|is|had|have|came|went|did|of (?:them|these|those))\b)|the (?:${ORDINAL_WORD}\b(?! (?:\p{Ll}+ ){1,2}(?:to|that|who|which|in)\b)|two\b|three\b|four\b))`,
  'iu',
);
const TIME_BACK = new RegExp(
  String.raw`\b(?:that|the same|the following|the next) TIME\b|\b(?:\w+) (?:years?|days?|weeks?|months?|hours?|minutes?)(?: and a half)? (?:later|earlier|before that|after that)\b|\bat the time\b|\bby (?:now|that time)\b|\bon the (?!first\b)${ORDINAL_WORD} (?:day|night|morning|evening|afternoon|week|attempt|try|visit)\b(?! of\b)`.replace(
    'TIME',
    anyNoun('time'),
  ),
  'i',
);
/** "That October", "the same year": the date told last, however far back. */
const DATE_BACK = new RegExp(
  String.raw`^["“]?(?:(?:In|By|Until|From|During|Over) )?(?:that|the same) (?:${MONTHS.join('|')}|spring|summer|autumn|winter|year)\b`,
  'i',
);
/** An answer in indirect speech, and what it may answer. */
const ANSWERS =
  /^(?:I|He|She|They|We) (?:said|answered|replied|told|laughed|nodded|shook|agreed|refused|did|had|was|were)\b/;
const ASKED = /\b(?:asked|said|wanted to know|told me|wondered|offered|wrote)\b|\?/;
const EXPLETIVE =
  /\b[Ii]t (?:is|was|’s|has been|will be|takes?|took|seems?|turned out|may be|would be|rain(?:s|ed)|snow(?:s|ed))\b(?: not| also| still| only)?(?: \w+){0,3} (?:that|to|how|whether|whose|why|when)\b/;
/** Pronouns that open a sentence whose subject was named before. */
const OPENS_ON = /^["“]?(?:It|Its|They|Their|Theirs|Them|He|Him|His|She|Her|Hers)\b/;

/** Whether a line's first words point at what was said before it, so that it can't be heard without that. */
export const leansOnBefore = (text: string): boolean =>
  (OPENS_ON.test(text) && !EXPLETIVE.test(text)) ||
  LEANS_BACK.test(text) ||
  COUNTED_BACK.test(text) ||
  TIME_BACK.test(text);

const THINGS = new Set(['it', 'its', 'itself']);
const MANY = new Set(['they', 'them', 'their', 'theirs', 'themselves']);
const PERSONS = new Set(['he', 'him', 'his', 'himself', 'she', 'her', 'hers', 'herself']);
const POINTERS = new Set(['this', 'that', 'these', 'those']);
/** Nouns that stand for something said before unless the sentence itself says of what. */
const STAND_INS = new Set(
  'decision move plan result results problem scheme proposal idea question answer reason incident accident event change claim test report letter belief change trouble effect process discovery finding method case same thing count finding inquiry contract work model design repair survey journey'.split(
    ' ',
  ),
);

/** Capitals that are no part of a name. */
const NO_NAME = new RegExp(`^(?:${PATTERNS.title}|The|Then|On|In|At)\\.?$`);
const isNoun = (t: TaggedToken) => t.pos === 'NOUN' || t.pos === 'PROPN';
const isPlural = (t: TaggedToken) =>
  ((/s$/i.test(t.text) || t.text.toLowerCase() !== t.lemma) && !/(?:ss|us|is)$/i.test(t.text)) ||
  isA(t.lemma, 'crowd', 'institution');

/** Whether a pronoun at `i` finds a fitting noun before it in its own sentence. */
function resolvedInside(tokens: readonly TaggedToken[], i: number): boolean {
  const word = tokens[i].text.toLowerCase();
  // "Edith, her mother": a possessive behind a comma belongs to somebody else than the name it explains.
  if (/^(?:his|her|their)$/.test(word) && tokens[i - 1]?.text === ',' && tokens[i - 2]?.pos === 'PROPN')
    return false;
  const before = tokens
    .slice(0, i)
    .filter(
      (t) => isNoun(t) || /^(?:nobody|everyone|somebody|someone|anyone|everybody|i|we|you)$/i.test(t.text),
    );
  if (PERSONS.has(word)) return before.some((t) => t.pos === 'PROPN' || isA(t.lemma, 'person'));
  if (MANY.has(word)) return before.some((t) => isPlural(t) || !isNoun(t));
  return before.some((t) => isNoun(t) && !isA(t.lemma, 'person') && (!isPlural(t) || t.pos === 'PROPN'));
}

function pronounReason(sentence: TaggedSentence): string | null {
  const { tokens, fact } = sentence;
  const firstVerb = tokens.findIndex((t) => t.pos === 'VERB' || t.pos === 'AUX');
  for (let i = 0; i < tokens.length; i++) {
    const word = tokens[i].text.toLowerCase();
    // What is quoted speaks for itself: its speaker's "it" is not the listener's.
    if (fact.quotes.some((q) => tokens[i].start > q.start && tokens[i].end < q.end)) continue;
    if (THINGS.has(word) && EXPLETIVE.test(fact.text.slice(Math.max(0, tokens[i].start)))) continue;
    if ((THINGS.has(word) || MANY.has(word) || PERSONS.has(word)) && !resolvedInside(tokens, i))
      return `“${tokens[i].text}”`;
    // A pronoun subject right after an opening clause still means someone from before.
    if (
      (PERSONS.has(word) || MANY.has(word) || word === 'it') &&
      i < firstVerb &&
      i <= 6 &&
      !tokens.slice(0, i).some(isNoun)
    )
      return `“${tokens[i].text}”`;
    if (POINTERS.has(word) && i > 0 && pointsBack(tokens, i))
      return `“${tokens[i].text} ${tokens[i + 1]?.text ?? ''}”`;
    if (/^(?:one|ones|so|there|then|else|another|others)$/.test(word) && i > 0 && standsAlone(tokens, i))
      return `“${tokens[i].text}”`;
  }
  return null;
}

/** "that" and "this" in mid-sentence: a conjunction or relative is none, "this bridge" or a bare "this" is. */
function pointsBack(tokens: readonly TaggedToken[], i: number): boolean {
  const word = tokens[i].text.toLowerCase();
  const next = tokens[i + 1];
  if (word === 'that')
    return (
      tokens[i].pos === 'DET' &&
      next !== undefined &&
      next.pos === 'NOUN' &&
      (['ADP', 'CCONJ', 'PUNCT'].includes(tokens[i - 1].pos) || asksWhich(tokens, i)) &&
      !tokens.slice(0, i).some((t) => t.lemma === next.lemma)
    );
  if (!next || next.pos === 'PUNCT' || ['VERB', 'AUX', 'ADP'].includes(next.pos)) return true;
  return !tokens.slice(0, i).some((t) => isNoun(t) && t.lemma === next.lemma);
}

/** "What form that change takes": the noun before it is asked for, and "that" points. */
const asksWhich = (tokens: readonly TaggedToken[], i: number) =>
  tokens[i - 1].pos === 'NOUN' && /^(?:what|which|whose)$/i.test(tokens[i - 2]?.text ?? '');

function standsAlone(tokens: readonly TaggedToken[], i: number): boolean {
  const word = tokens[i].text.toLowerCase();
  const next = tokens[i + 1];
  const ends = !next || next.pos === 'PUNCT';
  if (word === 'so') return ends;
  if (word === 'one' || word === 'ones') return ends && !tokens.slice(0, i).some((t) => t.pos === 'NOUN');
  if (word === 'another')
    return next?.pos === 'NOUN' && !tokens.slice(0, i).some((t) => t.lemma === next.lemma);
  if (word === 'there') return ends && !tokens.slice(0, i).some((t) => t.pos === 'PROPN');
  return ends && word !== 'others';
}

/** Whether a quotation opened in an earlier sentence of the passage is still open at `s`. */
export function openQuote(sentences: readonly TaggedSentence[], s: number): boolean {
  let straight = 0;
  for (let i = s - 1; i >= 0 && sentences[i].fact.block === sentences[s].fact.block; i--) {
    const { text } = sentences[i].fact;
    const marks = text.match(/[“”]/g) ?? [];
    if (marks.length) return marks[marks.length - 1] === '“';
    straight += text.match(/"/g)?.length ?? 0;
  }
  // Straight marks open and close by turns.
  return straight % 2 === 1;
}

/** "I have not." "I did, in my second year.": an auxiliary whose verb was said before. */
function isElliptical(tokens: readonly TaggedToken[]): boolean {
  if (tokens.some((t) => t.pos === 'VERB') || tokens.length > 12) return false;
  // "Has anybody?"
  if (tokens.length <= 4 && tokens[0]?.pos === 'AUX' && tokens.at(-1)!.text === '?') return true;
  const at = tokens.findIndex((t) => t.pos === 'AUX' && !/^(?:is|are|was|were|am|be)$/i.test(t.text));
  return at > 0 && at <= 3 && /^(?:[,.!?;]|not|n['’]t|too|so)$/i.test(tokens[at + 1]?.text ?? '.');
}

/** The latest dated sentence before this one, none before `from`. */
function lastDate(sentences: readonly TaggedSentence[], s: number, from = 0): number | null {
  for (let i = s - 1; i >= from; i--) if (sentences[i].fact.dates.length) return i;
  return null;
}

interface Mention {
  first: number;
  indefinite: boolean;
}

/** First mention of each noun, and whether it was introduced as new ("a lift", "wedges") or as known ("the city"). */
function mentions(sentences: readonly TaggedSentence[]): Map<string, Mention> {
  const out = new Map<string, Mention>();
  sentences.forEach(({ tokens }, s) => {
    tokens.forEach((t, i) => {
      if (t.pos !== 'NOUN' || out.has(t.lemma)) return;
      let j = i - 1;
      while (j >= 0 && ['ADJ', 'NOUN', 'NUM', 'ADV', 'PROPN'].includes(tokens[j].pos)) j--;
      const determiner = tokens[j]?.text.toLowerCase();
      out.set(t.lemma, {
        first: s,
        indefinite: !/^(?:the|this|that|these|those|its|his|her|their|my|our)$/.test(determiner ?? ''),
      });
    });
  });
  return out;
}

/** Head nouns of definite phrases ("the iron troughs" → trough), with whether the phrase says of what ("the gate of the lock"). */
function definites(tokens: readonly TaggedToken[]): { lemma: string; at: number; qualified: boolean }[] {
  const out: { lemma: string; at: number; qualified: boolean }[] = [];
  tokens.forEach((t, i) => {
    if (t.text.toLowerCase() !== 'the') return;
    let j = i + 1;
    while (j < tokens.length && ['ADJ', 'NUM', 'ADV', 'PROPN'].includes(tokens[j].pos)) j++;
    while (j + 1 < tokens.length && tokens[j].pos === 'NOUN' && tokens[j + 1].pos === 'NOUN') j++;
    if (tokens[j]?.pos !== 'NOUN') return;
    const qualified =
      /^(?:of|that|which|who|where|for|at|in|on|between|behind|under|over|from|to)$/i.test(
        tokens[j + 1]?.text ?? '',
      ) || j - i > 2;
    out.push({ lemma: tokens[j].lemma, at: i, qualified });
  });
  return out;
}

/**
 * References of every sentence, in reading order, always to an earlier one. `titleLemmas` are known to the listener
 * from the title.
 */
export function references(
  sentences: readonly TaggedSentence[],
  titleLemmas: ReadonlySet<string>,
): Reference[][] {
  const known = mentions(sentences);
  const fullNames = new Map<string, number>();
  /** Last names that stand somewhere with a first name: they can be told in full anywhere. */
  const fullHere = new Set(
    sentences.flatMap(({ fact }) =>
      fact.names.flatMap((n) => {
        const parts = n.text.split(/\s+/).filter((p) => /^\p{Lu}/u.test(p) && !NO_NAME.test(p));
        return parts.length >= 2 ? [parts[parts.length - 1]] : [];
      }),
    ),
  );
  const firstOfBlock = new Map<string, number>();
  sentences.forEach(({ fact }, s) => firstOfBlock.has(fact.block) || firstOfBlock.set(fact.block, s));
  return sentences.map((sentence, s) => {
    const { fact, tokens } = sentence;
    const out: Reference[] = [];
    // The first sentence opens the source itself, so it leans on nothing.
    const previous = (why: string) => void (s > 0 && out.push({ to: s - 1, adjacent: true, why }));
    const sameBlock = s > 0 && sentences[s - 1].fact.block === fact.block;
    const firstHere = firstOfBlock.get(fact.block)!;
    if (firstHere < s) out.push({ to: firstHere, adjacent: false, why: 'its passage opens there' });
    if (sameBlock && openQuote(sentences, s)) previous('it goes on with a quotation');
    const opener = fact.text;
    const date = DATE_BACK.test(opener) && !pronounReason(sentence) ? lastDate(sentences, s) : null;
    if (date !== null) out.push({ to: date, adjacent: false, why: 'its date is told there' });
    else if (
      (LEANS_BACK.test(opener) || COUNTED_BACK.test(opener)) &&
      !(
        /^(?:Most|Some|More|Each|Now|All of|Both)\b/.test(opener) &&
        !sameBlock &&
        /^\w+ (?:of the|\p{Ll}+s)\b/u.test(opener)
      )
    )
      previous('it leans on the sentence before');
    else if (TIME_BACK.test(fact.text)) previous('its time is told from the sentence before');
    else if (isElliptical(tokens)) previous('it answers the sentence before');
    else if (sameBlock && ANSWERS.test(fact.text) && ASKED.test(sentences[s - 1].fact.text))
      previous('it answers the sentence before');
    else if (!hasFiniteVerb(tokens) && !fact.step) previous('it has no verb of its own');
    else if (/^\(?["“][^“”"]*["”]?\)?$/.test(fact.text)) previous('it is a quotation without a speaker');
    else {
      const pronoun = pronounReason(sentence);
      if (pronoun) previous(`${pronoun} is told in the sentence before`);
    }
    for (const { lemma, qualified } of definites(tokens)) {
      if (titleLemmas.has(lemma)) continue;
      const mention = known.get(lemma);
      if (STAND_INS.has(lemma) && !qualified && (!mention || mention.first >= s))
        previous(`“the ${lemma}” was not told before`);
      else if (sameBlock && mention?.first === s && !qualified)
        previous(`“the ${lemma}” belongs to what was told before`);
      else if (
        mention &&
        mention.first < s &&
        (mention.indefinite || (!qualified && sentences[mention.first].fact.block === fact.block))
      )
        out.push({ to: mention.first, adjacent: false, why: `“the ${lemma}” is introduced there` });
    }
    for (const name of fact.names) {
      const parts = name.text.split(/\s+/).filter((p) => /^\p{Lu}/u.test(p) && !NO_NAME.test(p));
      const last = parts[parts.length - 1];
      if (!last) continue;
      const told = fullNames.get(last);
      if (told !== undefined && told !== s && !titleLemmas.has(last.toLowerCase()))
        out.push({
          to: told,
          adjacent: false,
          why: `${last} is introduced there`,
          ...(name.type === 'person' && fullHere.has(last) ? { name: name.text } : {}),
        });
      if (told === undefined) fullNames.set(last, s);
    }
    // Without a date of its own it happens when its passage last said.
    const anchor = fact.dates.length ? null : lastDate(sentences, s, firstHere);
    if (anchor !== null) out.push({ to: anchor, adjacent: false, why: 'its date is told there' });
    return out.filter(
      (r, i) => r.to !== s && out.findIndex((o) => o.to === r.to && o.adjacent === r.adjacent) === i,
    );
  });
}
