/**
 * How much a telling of a source would miss a sentence: what the sentence holds, where it stands and what of it was said before
 * or comes again, weighed by boosted trees that `scripts/salience/train.ts` learned from what a narrator would tell of 74 texts
 * (features after Kupiec, Pedersen and Chen 1995, "A trainable document summarizer", and Svore, Vanderwende and Burges 2007).
 */
import model from '../../data/salience-model.json';
import type { TaggedToken } from '../language/tagged.ts';
import type { Block, SourceDocument } from '../source/document.ts';
import { chance, forestSchema, oddsOf, type Forest } from '../source/page/trees.ts';
import type { Fact } from './facts.ts';

export interface Said {
  fact: Omit<Fact, 'strength'>;
  tokens: readonly TaggedToken[];
  /** Its content stems. */
  stems: readonly string[];
}
export type SalienceRow = Readonly<Record<string, number>>;

const QUESTION = /\?["”’]?$/;
const OPENS_QUOTED = /^["“‘]/;
const I = /\b(?:I|me|my|we|us|our)\b/;
const YOU = /\byou\b/i;
const TURNS =
  /\b(?:but|yet|however|until|instead|although|though|despite|turned out|except|only|never|still)\b/i;
const CAUSES = /\b(?:because|so that|since|after|when|as a result|led to|meant|which is why|so)\b/i;
const MONEY = /[£$€]|\b(?:pounds|dollars|euros|pence|cents)\b/i;
const OPENS_BACK = /^["“]?(?:it|its|they|their|he|his|she|her|this|that|these|those|but|and|so|then)\b/i;
const HEDGES = /\b(?:may|might|could|perhaps|possibly|probably|seems?|likely|suggests?|thinks?|believes?)\b/i;
const YEAR = /\b(?:1[5-9]\d\d|20\d\d)\b/;
const SAYS = /\b(?:said|says|told|added|explained|noted)\b/i;

/** So many of a source's nouns are what it is about. */
const TOPICS = 6;
/** Shares of few stems say little: at least so many are counted. */
const LEAST_STEMS = 3;

const shared = (a: ReadonlySet<string>, b: ReadonlySet<string>): number => {
  let n = 0;
  for (const t of a) if (b.has(t)) n++;
  return n / Math.max(LEAST_STEMS, Math.min(a.size, b.size));
};

/** What of each sentence was said before it, what comes again, and how rare its words are here. */
function newsOf(all: readonly Said[]): SalienceRow[] {
  const sets = all.map((s) => new Set(s.stems));
  const inAll = new Map<string, number>();
  for (const set of sets) for (const t of set) inAll.set(t, (inAll.get(t) ?? 0) + 1);
  const left = new Map(inAll);
  const seen = new Set<string>();
  return sets.map((set, i) => {
    for (const t of set) left.set(t, left.get(t)! - 1);
    const own = [...set];
    const size = Math.max(1, own.length);
    const most = (others: readonly ReadonlySet<string>[]) => others.reduce((m, o) => Math.max(m, shared(set, o)), 0);
    const row = {
      before: own.filter((t) => seen.has(t)).length / size,
      unsaid: own.filter((t) => !seen.has(t)).length,
      after: own.filter((t) => left.get(t)! > 0).length / size,
      raises: own.filter((t) => !seen.has(t) && left.get(t)! > 0).length,
      rare: own.reduce((sum, t) => sum + Math.log(all.length / inAll.get(t)!), 0) / size,
      again: most(sets.slice(Math.max(0, i - NEAR), i)),
      later: most(sets.slice(i + 1, i + 1 + NEAR)),
    };
    for (const t of own) seen.add(t);
    return row;
  });
} // prettier-ignore
/** So many sentences around one are looked at for the same said in other words. */
const NEAR = 120;

const isNoun = (t: TaggedToken) => t.pos === 'NOUN' || t.pos === 'PROPN';

/** How often each noun is said, and those said most. */
function topicsOf(all: readonly Said[]): { often: ReadonlyMap<string, number>; topics: readonly string[] } {
  const often = new Map<string, number>();
  for (const { tokens } of all)
    for (const noun of new Set(tokens.filter(isNoun).map((t) => t.lemma.toLowerCase())))
      often.set(noun, (often.get(noun) ?? 0) + 1);
  const topics = [...often].sort((a, b) => b[1] - a[1]).slice(0, TOPICS).map(([t]) => t); // prettier-ignore
  return { often, topics };
}

/** Place in the order of size: 0 the least, 1 the most. */
function ranks(values: readonly number[]): number[] {
  const sorted = [...values].sort((a, b) => a - b);
  const place = new Map(sorted.map((v, i) => [v, i]));
  return values.map((v) => (values.length > 1 ? place.get(v)! / (values.length - 1) : 1));
}

/** What a sentence holds, wherever it stands. */
function holds({ fact: f, tokens }: Said): SalienceRow {
  const share = (pos: string) => tokens.filter((t) => t.pos === pos).length / Math.max(1, tokens.length);
  const words = f.text.split(/\s+/).length;
  const is = (yes: boolean) => Number(yes);
  return {
    words,
    letters: f.text.length / words,
    commas: f.text.split(',').length - 1,
    numbers: f.numbers.length,
    dates: f.dates.length,
    year: is(YEAR.test(f.text)),
    money: is(MONEY.test(f.text)),
    names: f.names.length,
    people: f.names.filter((x) => x.type === 'person').length,
    central: f.parts.central,
    title: f.parts.title,
    concrete: f.parts.concrete,
    surprising: f.parts.surprising,
    supported: f.parts.supported,
    quoted: f.quotes.reduce((sum, q) => sum + q.text.length, 0) / f.text.length,
    inQuote: is(OPENS_QUOTED.test(f.text) || (f.type === 'quote' && !f.quotes.length)),
    attributed: is(f.attribution !== undefined),
    says: is(SAYS.test(f.text)),
    hedged: is(f.modality !== 'plain' || HEDGES.test(f.text)),
    denied: is(f.polarity === 'denied'),
    question: is(QUESTION.test(f.text)),
    first: is(I.test(f.text)),
    second: is(YOU.test(f.text)),
    turns: is(TURNS.test(f.text)),
    causes: is(CAUSES.test(f.text)),
    leans: f.leans.length + is(OPENS_BACK.test(f.text)),
    verbs: tokens.filter((t) => t.pos === 'VERB').length,
    past: tokens.filter((t) => t.pos === 'VERB' && t.text.toLowerCase() !== t.lemma && !/ing$/i.test(t.text)).length,
    being: is(/^(?:is|are|was|were|be)$/i.test(f.statement?.verb.text ?? '')),
    adjectives: share('ADJ'),
    adverbs: share('ADV'),
    nouns: share('NOUN'),
    pronouns: share('PRON'),
    warning: is(f.type === 'warning'),
    event: is(f.type === 'event'),
    opinion: is(f.type === 'opinion'),
    finding: is(f.type === 'finding'),
    step: is(f.step !== undefined),
  };
} // prettier-ignore

/** What of the sentences beside one is looked at too. */
const BESIDE = ['words', 'numbers', 'names', 'central', 'inQuote', 'rank'] as const;

/** A row of features for each sentence of a source that can be told, in reading order. */
export function salienceRows(source: Pick<SourceDocument, 'blocks' | 'kind'>, all: readonly Said[]): SalienceRow[] {
  const last = Math.max(1, all.length - 1);
  const blocks = new Map(source.blocks.map((b) => [b.id, b]));
  const mates = new Map<string, number[]>();
  all.forEach(({ fact }, i) => (mates.get(fact.block) ?? mates.set(fact.block, []).get(fact.block)!).push(i));
  const places = new Map([...mates.keys()].map((id, k) => [id, k]));
  const central = ranks(all.map((s) => s.fact.parts.central));
  const news = newsOf(all);
  const { often, topics } = topicsOf(all);
  const told = { names: new Set<string>(), topics: new Set<string>() };
  const leanedOn = new Set(all.flatMap((s) => s.fact.leans.map((l) => l.on)));
  let under: string | undefined;
  const rows = all.map((said, i): Record<string, number> => {
    const { fact, tokens } = said;
    const block: Block | undefined = blocks.get(fact.block);
    const beside = mates.get(fact.block)!;
    const fresh = fact.names.filter((x) => !told.names.has(x.text));
    for (const x of fresh) told.names.add(x.text);
    const lemmas = new Set(tokens.map((t) => t.lemma.toLowerCase()));
    const about = topics.filter((t) => lemmas.has(t));
    const newTopics = about.filter((t) => !told.topics.has(t)).length;
    for (const t of about) told.topics.add(t);
    const opens = block?.under !== undefined && block.under !== under;
    under = block?.under;
    return {
      ...holds(said),
      ...news[i],
      at: i / last,
      block: places.get(fact.block)! / Math.max(1, places.size - 1),
      blocksBehind: places.size - 1 - places.get(fact.block)!,
      inBlock: beside.indexOf(i),
      left: beside.length - 1 - beside.indexOf(i),
      mates: beside.length,
      opens: Number(opens),
      item: Number(block?.type === 'item'),
      fresh: fresh.length,
      rank: central[i],
      leanedOn: Number(leanedOn.has(fact.id)),
      topics: about.length,
      newTopics,
      frequent: tokens.reduce((sum, t) => sum + (isNoun(t) ? (often.get(t.lemma.toLowerCase()) ?? 0) : 0), 0) / Math.max(1, tokens.length),
      news: Number(source.kind === 'news'),
      entry: Number(source.kind === 'encyclopedia'),
      story: Number(source.kind === 'forum'),
      guide: Number(source.kind === 'howto'),
      study: Number(source.kind === 'abstract'),
    };
  });
  return rows.map((row, i) => ({
    ...row,
    ...Object.fromEntries(BESIDE.flatMap((key) => [
      [`${key} before`, rows[i - 1]?.[key] ?? -1],
      [`${key} behind`, rows[i + 1]?.[key] ?? -1],
    ])),
  }));
} // prettier-ignore

let learned: Forest | undefined;

/** How likely a narrator with half the time would tell each sentence, 0 to 1. Only those that can be told are given. */
export function salienceOf(source: Pick<SourceDocument, 'blocks' | 'kind'>, all: readonly Said[]): number[] {
  const forest = (learned ??= forestSchema.parse(model));
  return salienceRows(source, all).map((row) => chance(oddsOf(forest, forest.features.map((f) => row[f] ?? 0)))); // prettier-ignore
}
