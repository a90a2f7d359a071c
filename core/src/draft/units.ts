/** A source's sentences as units that can be told: what each points at, how it sounds, how much it is worth. */
import { words } from './tell/sentence.ts';
import { disputedBetween } from '../facts/disputed.ts';
import type { Fact, TaggedSentence } from '../facts/facts.ts';
import { studyPart } from '../facts/outline.ts';
import { superlativesIn } from '../facts/strength.ts';
import type { Tagger } from '../language/tagged.ts';
import type { Block, SourceDocument } from '../source/document.ts';
import { isOrder } from '../source/kind.ts';
import type { Clock } from '../timing/clock.ts';
import { isWhole, quotesBalance } from '../facts/speech.ts';
import { openQuote, references, titleNouns, type Reference } from '../facts/references.ts';
import { makeTeller, tellSentence, type Teller } from './tell/tell.ts';

export interface Unit {
  index: number;
  /** The letter of the source it comes from. */
  letter: string;
  sentence: TaggedSentence;
  block: Block;
  /** The part of a study it belongs to. */
  part: string | null;
  needs: readonly Reference[];
  /** Whether the next sentence has to follow: a quotation is still open, a question or a colon waits. */
  needsNext: boolean;
  /** Whether it is part of a quotation that runs over several sentences: told to the letter. */
  speech: boolean;
  /** What is said, one or more lines. */
  lines: readonly string[];
  /** The time of its lines with the rests after them. */
  ms: number;
  worth: number;
  /** The unit that says the same before it: both are told only where nothing else fills the time. */
  repeats?: number;
}

/** Sentences longer than this tire a listener; they are told only where they must be (common practice, no published source). */
export const LONG_LINE_WORDS = 26;

/**
 * How much more strong facts count than weak ones, and what a sentence too long for a breath is still worth: with the gains in
 * choose.ts set on 74 texts of which it is known what must be told (scripts/salience), each told by trees that had not seen it.
 */
const STRENGTH_COUNTS = 1.5;
const LONG_WORTH = 0.8;

/** Sizes and weights side by side carry no story: they come last. */
const SIZES = {
  worth: 0.25,
  verb: /^(?:is|are|was|were|weighs?|weighed|measures?|measured|has|have)$/,
  unit: /^(?:mm|cm|m|km|g|kg|t|ft|in|lb|oz|metres?|centimetres?|millimetres?|feet|foot|inch(?:es)?|grams?|kilograms?|kilos?|tonnes?|pounds?|stone)$/i,
};
const givesSizes = ({ statement, numbers, text }: Fact) =>
  SIZES.verb.test(statement?.verb.text ?? '') &&
  !superlativesIn(text).length &&
  numbers.filter((n) => SIZES.unit.test(n.unit ?? '')).length >= 2;

/** A study is told for what it found. */
const PART_WORTH: Readonly<Record<string, number>> = {
  results: 1.6,
  conclusion: 1.3,
  aim: 1.1,
  method: 0.95,
  limits: 0.95,
  background: 0.9,
};

function worth(
  sentence: TaggedSentence,
  lines: readonly string[],
  source: SourceDocument,
  part: string | null,
): number {
  const { fact } = sentence;
  const longest = Math.max(...lines.map(words));
  let value = fact.strength ** STRENGTH_COUNTS * (part ? (PART_WORTH[part] ?? 1) : 1);
  if (longest > LONG_LINE_WORDS) value *= LONG_WORTH;
  if (fact.type === 'warning') value *= 1.6;
  if (source.kind !== 'howto' && source.kind !== 'abstract' && givesSizes(fact)) value *= SIZES.worth;
  // What is to be done, and how long or how hot, comes before what explains it.
  if (source.kind === 'howto' && fact.step)
    value *= commands(sentence) ? 2.4 : fact.numbers.length ? 1.9 : 1.1;
  return value;
}

/** Whether a sentence tells the listener to do something: it begins with a verb as the dictionary has it, or with "Meanwhile" and one. */
function commands({ fact, tokens }: TaggedSentence): boolean {
  if (isOrder(fact.text)) return true;
  const first = tokens.find((t) => t.pos !== 'ADV' && t.pos !== 'PUNCT');
  return first?.pos === 'VERB' && first.text.toLowerCase() === first.lemma;
}

/** The first sentence of these parts says the most. */
const PART_LEADS = new Set(['aim', 'results', 'conclusion', 'limits']);
const PART_LEAD_WORTH = 1.35;

/** A story's last third holds what came of it; told without, a story has no end. */
const STORY_END = { from: 0.66, worth: 1.35 };

/** Words for what stands below. */
const BELOW = /\b(?:following\b[^.:]*|as follows|below|like this)\s?:$/i;

/** Whether a sentence is no narration: of a list of things, or no speech. An item that is a whole sentence is told like any. */
const isThing = (block: Block, { fact, tokens }: TaggedSentence) =>
  (block.type === 'item' && !block.step && !isWhole(fact.text, tokens)) || fact.silent !== undefined;

/** "The first … The second …": what is counted is told to the end. */
const COUNTS_ON = /^(?:The|In the|On the|At the) (?:second|third|fourth|fifth|other)\b/;
const COUNTS = /^(?:The|In the|On the|At the) (?:first|second|third|fourth)\b/;

/** "Three cautions.": a heading set as a sentence; it is true only when all of them are told. In so few words the tags say little of the noun. */
const announcesCount = ({ fact, tokens }: TaggedSentence) =>
  tokens[0]?.pos === 'NUM' && /^\S+(?: \p{Ll}+)? \p{Ll}+s\.$/u.test(fact.text);

/** "The chalk. The slope. The south wall.": things named one by one, in one passage, are told to the last. */
const goesOnWithoutVerb = (a: TaggedSentence, b: TaggedSentence) =>
  a.fact.block === b.fact.block &&
  [a, b].every(({ fact, tokens }) => fact.step === undefined && !tokens.some((t) => VERBAL.has(t.pos)));
const VERBAL = new Set(['VERB', 'AUX']);

/** What is tested or argued about is told with what came of it. */
const SETS_UP =
  /\b(?:in (?:an?|one|another) (?:trial|experiment|test)\b|(?:tested|wondered) (?:whether|if)\b|(?:has|have) been (?:argued|debated|disputed)|(?:is|was|are|were) (?:disputed|debated)\b)/iu;

/**
 * "One morning stands out.", "Something was wrong.", "Buses have been the difficulty.": a few words that only say that something
 * unnamed is, or call it by a noun that what follows fills (shell nouns, Schmid 2000, from memory).
 */
const ANNOUNCES =
  /^(?:(?:But|And|Yet|Then|Only) )?(?:(?:one|two|three|another)\b[^,;:\d]{2,30}\b(?:stands? out|stood out|remain(?:s|ed)?|happened|followed|changed)|(?:something|somebody|someone)\b[^,;:\d]{3,50}|[^,;:]{3,40}\b(?:is|are|was|were|(?:has|have) been) the (?:difficulty|problem|trouble|exception|question|trick|catch|snag|surprise|danger|risk|worry|puzzle|mystery))\.$/iu;
const namesNothingYet = (text: string) =>
  ANNOUNCES.test(text) &&
  text.split(/\s+/).length <= 7 &&
  !/\s\p{Lu}/u.test(text.replace(/^(?:But|And|Yet|Then|Only)\s/, ''));

const claimed = ({ fact, tokens }: TaggedSentence) => ({ text: fact.text, tokens });
const waits = (told: readonly TaggedSentence[], i: number) =>
  // A source may end on a question: nothing waits behind it.
  i + 1 < told.length &&
  (/:$|\?["”]?$/.test(told[i].fact.text) ||
    goesOnWithoutVerb(told[i], told[i + 1]) ||
    (told[i + 1].fact.block === told[i].fact.block &&
      (SETS_UP.test(told[i].fact.text) ||
        namesNothingYet(told[i].fact.text) ||
        // One figure of two that are set against each other is half the truth.
        disputedBetween(claimed(told[i]), claimed(told[i + 1])) !== null)) ||
    saidAtLast(told, i) ||
    (COUNTS.test(told[i].fact.text) && COUNTS_ON.test(told[i + 1].fact.text)));

/** "“It is old. It still goes,” she said.": whose words it is stands behind the last of them, so that each waits for the next. */
function saidAtLast(told: readonly TaggedSentence[], i: number): boolean {
  if (!/^["“]/.test(told[i].fact.text) && !openQuote(told, i)) return false;
  let k = i;
  while (k + 1 < told.length && told[k + 1].fact.block === told[i].fact.block && openQuote(told, k + 1)) k++;
  // It opened behind its speaker: "She said: “It is old."
  const first = told[i - quotedBefore(told, i)].fact.text;
  return k > i && /^["“]/.test(first) && /["”]\s\p{L}[^“”"]*$/u.test(told[k].fact.text);
}

/** Whether the marks of the quotation that goes on here are curly. */
function curlyAt(told: readonly TaggedSentence[], i: number): boolean {
  for (let k = i; k >= 0 && told[k].fact.block === told[i].fact.block; k--) {
    if (/[“”]/.test(told[k].fact.text)) return true;
    if (told[k].fact.text.includes('"')) return false;
  }
  return true;
}

/** What goes on with somebody's words is worth less the longer they have the word: a listener wants what only they would say. */
const GOES_ON_WORTH = [1, 0.8, 0.5];
/** How many sentences of a quotation stand before this one, in a row. */
function quotedBefore(told: readonly TaggedSentence[], i: number): number {
  let n = 0;
  while (i - n > 0 && openQuote(told, i - n)) n++;
  return n;
}

/** A part of a quotation that runs over several sentences, in marks of its own: whatever is told beside it, it is somebody's words. */
function inMarks(text: string, opened: boolean, curly: boolean): string {
  const [open, close] = curly ? ['“', '”'] : ['"', '"'];
  const said = opened ? `${open}${text}` : text;
  const count = (mark: string) => said.split(mark).length - 1;
  return (curly ? count(open) > count(close) : count(open) % 2 === 1) ? `${said}${close}` : said;
}

/** What stands under a heading needs the heading's first sentence, which says what it is about. */
function underHeading(
  needs: readonly Reference[],
  firstUnder: Map<string, number>,
  block: Block,
  index: number,
  sizes: boolean,
): Reference[] {
  if (!block.under || block.step) return [...needs];
  const first = firstUnder.get(block.under);
  if (first === undefined && !sizes) firstUnder.set(block.under, index);
  return first === undefined || needs.some((n) => n.to === first)
    ? [...needs]
    : [...needs, { to: first, adjacent: false, why: `“${block.under}” opens there` }];
}

/** Sentences without those that point at something that is not told: "the last of these", behind a list. What points at them goes too. */
function withAntecedents(
  speech: readonly TaggedSentence[],
  blocks: readonly Block[],
  titleLemmas: ReadonlySet<string>,
): { told: readonly TaggedSentence[]; needs: readonly (readonly Reference[])[] } {
  const place = new Map(blocks.map((b, i) => [b.id, i]));
  let told = speech;
  for (;;) {
    const spoken = new Set(told.map((t) => t.fact.block));
    const needs = references(told, titleLemmas);
    const hidden = (from: string, to: string) =>
      blocks
        .slice(place.get(from)! + 1, place.get(to)!)
        .some((b) => b.type !== 'heading' && !spoken.has(b.id));
    const kept = told.filter(
      (t, i) =>
        !needs[i].some((n) => n.adjacent && n.to === i - 1) || !hidden(told[i - 1].fact.block, t.fact.block),
    );
    if (kept.length === told.length) return { told, needs };
    told = kept;
  }
}

export function makeUnits(
  source: SourceDocument,
  tagged: readonly TaggedSentence[],
  tagger: Tagger,
  clock: Clock,
  letter = 'A',
  teller: Teller = makeTeller(source, tagger),
): Unit[] {
  const blocks = new Map(source.blocks.map((b) => [b.id, b]));
  // What announces a list that is not told announces nothing.
  const announces = (t: TaggedSentence, k: number) => {
    if (!/:$/.test(t.fact.text) || tagged[k + 1]?.fact.block === t.fact.block) return false;
    const next = source.blocks[source.blocks.findIndex((b) => b.id === t.fact.block) + 1];
    const first = next && tagged.find((x) => x.fact.block === next.id);
    // "the following line:" before what is no list was code or a picture, which nobody reads.
    return !first || isThing(next, first) || (next.type === 'paragraph' && BELOW.test(t.fact.text));
  };
  const titleLemmas = titleNouns(source.title, tagger);
  const speech = tagged.filter(
    (t, k) => !isThing(blocks.get(t.fact.block)!, t) && !announces(t, k) && !announcesCount(t),
  );
  const { told, needs } = withAntecedents(speech, source.blocks, titleLemmas);
  let part: string | null = null;
  const firstUnder = new Map<string, number>();
  return told.map((sentence, index) => {
    const block = blocks.get(sentence.fact.block)!;
    const before = part;
    if (source.kind === 'abstract') {
      part = studyPart({ block, fact: sentence.fact }, part);
      // "And their churches had all been lit": what leans on the sentence before belongs to its part.
      const leans = needs[index].some((n) => n.adjacent && n.to === index - 1) || (index > 0 && waits(told, index - 1)); // prettier-ignore
      if (before !== null && leans && told[index - 1].fact.block === block.id) part = before;
    }
    const saidBefore = quotedBefore(told, index);
    const opened = saidBefore > 0;
    const speech = opened || !quotesBalance(sentence.fact.text);
    const said = tellSentence(sentence.fact.text, sentence.tokens, teller, opened);
    const lines = speech ? said.map((l, k) => inMarks(l, k === 0 && opened, curlyAt(told, index))) : said;
    const ms = clock.lines([...lines, ''].map((text) => ({ text }))).reduce((sum, l) => sum + l.ms, 0);
    return {
      index,
      letter,
      sentence,
      block,
      part,
      needs: underHeading(needs[index], firstUnder, block, index, givesSizes(sentence.fact)),
      needsNext: waits(told, index),
      speech,
      lines,
      ms,
      worth:
        worth(sentence, lines, source, part) *
        GOES_ON_WORTH[Math.min(saidBefore, GOES_ON_WORTH.length - 1)] *
        (source.kind === 'abstract' && part !== before && PART_LEADS.has(part ?? '') ? PART_LEAD_WORTH : 1) *
        (source.kind === 'forum' && index >= told.length * STORY_END.from ? STORY_END.worth : 1),
    };
  });
}

/**
 * Units of several sources as one reading: the first source's, with those of the others before its last passage, so that
 * the story still ends on the first one's end. What each points at is kept.
 */
export function joinUnits(
  first: readonly Unit[],
  others: readonly (readonly Unit[])[],
  ending: number,
): Unit[] {
  if (!others.some((o) => o.length)) return [...first];
  let at = ending;
  while (
    at > 1 &&
    (first[at].block.id === first[at - 1].block.id ||
      first[at - 1].needsNext ||
      first[at].needs.some((n) => n.adjacent && n.to === at - 1))
  )
    at--;
  // A source of a single passage has no end of its own to save up.
  const place = at > 1 ? at : first.length;
  const parts = [first.slice(0, place), ...others, first.slice(place)];
  const out = parts.flat();
  const placeOf = new Map(out.map((u, i) => [u, i]));
  const listOf = new Map([first, ...others].flatMap((list) => list.map((u) => [u, list] as const)));
  return out.map((u, index) => ({
    ...u,
    index,
    // Passages of two sources are never one, though both count theirs from p1.
    block: u.letter === first[0]?.letter ? u.block : { ...u.block, id: `${u.letter}${u.block.id}` },
    needs: u.needs.map((n) => ({ ...n, to: placeOf.get(listOf.get(u)![n.to])! })),
    ...(u.repeats !== undefined && { repeats: placeOf.get(listOf.get(u)![u.repeats])! }),
  }));
}
