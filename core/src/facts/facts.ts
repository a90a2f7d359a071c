/** From a source to its facts: one a sentence, with values, names, quotes and strength. */
import { z } from 'zod';
import { beginsSmall, sentences } from '../language/sentences.ts';
import type { TaggedToken, Tagger } from '../language/tagged.ts';
import type { Block, SourceDocument } from '../source/document.ts';
import { isOrder } from '../source/kind.ts';
import { lexRankOf, stems } from './centrality.ts';
import { factIds } from './ids.ts';
import { capitalWords, datesIn, namesIn, numbersIn, quotesIn } from './extract.ts';
import { NAME_TYPES, nameTypes, type NameType } from './names.ts';
import { besideText } from './beside.ts';
import { MODALITIES, attributionOf, modalityOf, polarityOf } from './saying.ts';
import { laterSays, superseded } from './superseded.ts';
import { references, titleNouns } from './references.ts';
import { salienceOf } from './salience.ts';
import { statementOf } from './statement.ts';
import { strengthOf, supported, surprising } from './strength.ts';
import { NO_VERB, asksTheBoard, notSpeech, toTheBoard } from './speech.ts';
import { relativeDates, timesIn, withYear } from './when.ts';

const span = { start: z.number().int(), end: z.number().int() };

/** From here on a story ends: what it asks then, it asks those who read along. */
const LAST_WORDS = 0.85;

/** What a writer thinks in. `warning` is a guide's own: it is never left out. */
export const FACT_TYPES = [
  'event',
  'figure',
  'definition',
  'cause',
  'comparison',
  'finding',
  'quote',
  'step',
  'warning',
  'opinion',
  'detail',
] as const;
export type FactType = (typeof FACT_TYPES)[number];

const spanned = z.object({ text: z.string(), ...span });

export const factSchema = z.object({
  /** Of the words (`factIds`); "f12" in sources of before, "w3" for the writer's own. */
  id: z.string().regex(/^[fw][0-9a-z]+(?:-\d+)?$/),
  /** What the writer knows themselves, or chose of the source's words; absent for what was found. */
  own: z.enum(['known', 'chosen']).optional(),
  /** The passage it stands in. */
  block: z.string(),
  /** Offsets into the document's text. */
  ...span,
  text: z.string(),
  type: z.enum(FACT_TYPES),
  // Spans of all that follows are offsets into `text`.
  numbers: z.array(z.object({ text: z.string(), value: z.number(), unit: z.string().optional(), ...span })),
  /** `resolved`: told from the day of publication, or its year taken from it. */
  dates: z.array(
    z.object({ text: z.string(), iso: z.string(), resolved: z.literal(true).optional(), ...span }),
  ),
  /** Times of day, "HH:MM". */
  times: z.array(z.object({ text: z.string(), iso: z.string(), ...span })).default([]),
  names: z.array(z.object({ text: z.string(), type: z.enum(NAME_TYPES).default('other'), ...span })),
  quotes: z.array(z.object({ text: z.string(), ...span })),
  step: z.number().int().positive().optional(),
  within: z.number().int().positive().optional(),
  /** Who speaks it, in an interview. */
  speaker: z.string().optional(),
  /** Why it isn't told by itself: it is no speech, or may not belong to the text. */
  silent: z.string().optional(),
  /** Subject, verb and the rest of its clause. */
  statement: z.object({ subject: spanned, verb: spanned, object: spanned.optional() }).optional(),
  /** Who says so. */
  attribution: spanned.optional(),
  modality: z.enum(MODALITIES).default('plain'),
  hedges: z.array(spanned).default([]),
  polarity: z.enum(['affirmed', 'denied']).default('affirmed'),
  /** What it leans on: told alone it would point at something that was not said. Empty when it can stand alone. */
  leans: z.array(z.object({ on: z.string(), why: z.string() })).default([]),
  /** 0 to 1: how much a telling would miss it; and parts that can be shown, each 0 to 1. */
  strength: z.number().min(0).max(1),
  parts: z.object({
    central: z.number(),
    title: z.number(),
    concrete: z.number(),
    surprising: z.number().default(0),
    supported: z.number().default(0),
  }),
});
export type Fact = Readonly<z.infer<typeof factSchema>>;

/** A sentence with its tags, kept for the rooms that plan and draft. */
export interface TaggedSentence {
  fact: Fact;
  tokens: readonly TaggedToken[];
}

/** Orders not to, and what WordNet has as like "dangerous" and "harmful" of things a guide has in hand. */
const WARNING =
  /\b(?:never|do not|don[’']t|be careful|take care|warning|danger(?:ous)?|make sure|wear|poison(?:ous)?|toxic|venomous|harmful|hazardous|unsafe|deadly|lethal|(?:in)?flammable|corrosive|caustic|scald(?:s|ing)?)\b/i;
const DEFINITION = /^(?:The |An? )?[\p{L}\d,'’ ()-]{2,90}?\b(?:is|was|are|were) (?:an?|the|one of)\b/u;
const CAUSE =
  /\b(?:because|since it|due to|caused by|led to|as a result|therefore|that is why|the reason|thanks to|owing to|so that|which meant)\b/i;
const COMPARISON =
  /\b(?:than|twice|half as|times as|compared with|as \p{L}+ as|against (?:about |only )?[\d\p{L}]+ (?:hours|minutes|days|years|per cent|percent|%|boats|people))\b/iu;
const FINDING =
  /\b(?:found|showed|shows|revealed|measured|established|discovered|concluded) (?:that|no|a|an|the|how|out)\b|\bresults? (?:show|suggest)/i;
const OPINION =
  /\b(?:believes?|believed|thinks?|I think|in my view|argue[sd]?|hopes?|fears?|called (?:it|the|this)|should|ought to|beautiful|terrible|shameful|absurd|brilliant|worst|best)\b/i;
const PAST =
  /\b(?:was|were|had|did|\p{L}+ed|began|came|went|took|gave|fell|rose|broke|sank|burst|lost|won|left|built|made|sold|bought|met|found|put|ran|held|stood|cut|shut|sent)\b/u;

function typeOf(
  text: string,
  block: Block,
  source: SourceDocument,
  quotes: number,
  dates: number,
  numbers: number,
): FactType {
  if (source.kind === 'howto' && WARNING.test(text)) return 'warning';
  if (block.step) return 'step';
  if (quotes || block.type === 'turn') return 'quote';
  if (
    FINDING.test(text) ||
    (source.kind === 'abstract' && /\b(?:results?|findings)\b/i.test(block.under ?? block.text.slice(0, 12)))
  )
    return 'finding';
  if (OPINION.test(text) && source.kind !== 'howto') return 'opinion';
  if (CAUSE.test(text)) return 'cause';
  if (COMPARISON.test(text)) return 'comparison';
  if (DEFINITION.test(text) && !dates) return 'definition';
  if (dates && PAST.test(text)) return 'event';
  if (numbers) return 'figure';
  if (DEFINITION.test(text)) return 'definition';
  return PAST.test(text) && /\b\p{Lu}/u.test(text.slice(1)) ? 'event' : 'detail';
}

/** Whether a quotation opened earlier in the passage is still open at an offset. */
const insideQuote = (passage: string, at: number): boolean => {
  const marks = passage.slice(0, at).match(/[“”]/g) ?? [];
  return marks.at(-1) === '“';
};

/** Every figure of the source by unit: what is extreme is told against the rest. */
function usualFigures(all: readonly { value: number; unit?: string }[][]): Map<string, number[]> {
  const out = new Map<string, number[]>();
  for (const { value, unit } of all.flat())
    (out.get(unit ?? '') ?? out.set(unit ?? '', []).get(unit ?? '')!).push(value);
  return out;
}

/** Sentences between two tellings of progress. */
const PROGRESS_EVERY = 40;

const clamp = (n: number) => Math.max(0, Math.min(1, n));

/** What may be missing a verb stands in a list: it is a thing of the list. */
function silence(block: Block, form: string | null): string | null {
  if (block.doubt) return 'it may not belong to the text';
  if (block.type === 'row') return 'it is a row of a table';
  if (block.type === 'box') return 'it stands in a box beside the text';
  return block.type === 'item' && form === NO_VERB ? null : form;
}

/** Where so many sentences begin with a capital, one that doesn't is a piece of another. */
const WRITES_CAPITALS = 0.9;
function piecesOf(
  found: readonly { block: Block; text: string }[],
): (s: { block: Block; text: string }) => string | null {
  const running = found.filter((s) => s.block.type !== 'item' && s.block.type !== 'row');
  const small = running.filter((s) => beginsSmall(s.text)).length;
  const writesCapitals = small <= running.length * (1 - WRITES_CAPITALS);
  return ({ block, text }) => (writesCapitals && block.type === 'paragraph' && beginsSmall(text) ? 'it is a fragment' : null); // prettier-ignore
}

/** A teaser's last words, cut for its box; in somebody's story points are a pause. */
const BREAKS_OFF = /^[^“”"]*\p{L}\s?(?:\.\.\.|…)$/u;

/** Words of a sentence that only answers; more say something themselves. */
const ANSWER_WORDS = 12;
const ANSWERS =
  /^["“'‘]?(?:that|this|those|these|it|he|she|they|you|same|yes|yep|no|nope|nice|good|great|fair|true|right|agreed)\b/i;
/** "I took one", where nobody said of what; "Solved." */
const POINTS_BACK =
  /\b(?:one|some|both)(?=[.,;!?]|\s(?:and|but|so)\b)|^(?:solved|resolved|sorted|fixed|done|update|edit)[.!]$/i;
/** In what a teller added later, sentences that answer those who replied: a listener hasn't heard them. */
function answersReplies(
  source: SourceDocument,
): (block: Block, first: boolean, text: string) => string | null {
  const repliers = source.blocks.flatMap((b) => (b.type === 'reply' && b.speaker ? [b.speaker.toLowerCase()] : [])); // prettier-ignore
  const isUpdate = (b: Block) => /^update\b/i.test(b.under ?? '');
  const before = source.blocks.filter((b) => b.type !== 'reply' && !isUpdate(b)).map((b) => b.text).join(' ').toLowerCase(); // prettier-ignore
  return (block, first, text) => {
    if (source.kind !== 'forum' || !repliers.length || !isUpdate(block)) return null;
    const names = text.match(/(?<![\p{L}\d])\p{Lu}[\p{L}\d_-]{2,}/gu) ?? [];
    // Named as on the board, however it is written there, where a sentence begins.
    const named = repliers.some((r) => r.length > 3 && !before.includes(r) && text.toLowerCase().startsWith(r) && /^[\s,:]/.test(text.slice(r.length))); // prettier-ignore
    const theirs = names.some((n) => !before.includes(n.toLowerCase()) && repliers.some((r) => r.includes(n.toLowerCase()))); // prettier-ignore
    const answer = first && (ANSWERS.test(text) || POINTS_BACK.test(text)) && text.split(/\s+/).length <= ANSWER_WORDS; // prettier-ignore
    return theirs || named || answer ? 'it answers those who replied' : null;
  };
}

/** Facts with their tags, in reading order. Headings, the replies of a board and words under a picture hold none. */
export function taggedFacts(
  source: SourceDocument,
  tagger: Tagger,
  progress: (done: number, of: number) => void = () => {},
): TaggedSentence[] {
  const found = source.blocks
    .filter((b) => b.type !== 'heading' && b.type !== 'reply' && b.type !== 'caption')
    .flatMap((block) => sentences(block.text).map((s) => ({ block, ...s })))
    .filter((s) => /\p{L}/u.test(s.text));
  const tokens = found.map((s, i) => {
    if (i % PROGRESS_EVERY === 0) progress(i, found.length);
    return tagger(s.text);
  });
  const answers = answersReplies(source);
  /** A post of the teller's ends with it: an update comes next. */
  const endsPost = (i: number) => /^update\b/i.test(found[i + 1]?.block.under ?? '') && found[i + 1].block.under !== found[i].block.under; // prettier-ignore
  const piece = piecesOf(found);
  const beside = besideText(source);
  const known = capitalWords(tokens);
  const stemmed = found.map((s) => stems(s.text));
  const central = lexRankOf(stemmed);
  const titleStems = new Set(stems(source.title));
  const times = found.map((s) => timesIn(s.text));
  const numbers = found.map((s, i) =>
    numbersIn(s.text).filter((n) => !times[i].some((t) => n.start < t.end && n.end > t.start)),
  );
  const usual = usualFigures(numbers);
  const ids = factIds(found.map((s) => ({ passage: s.block.text, text: s.text })));
  const facts = found.map((s, i): TaggedSentence => {
    const dates = [
      ...datesIn(s.text).map((d) => withYear(d, s.text, source.published)),
      ...relativeDates(s.text, source.published),
    ].sort((a, b) => a.start - b.start);
    const names = namesIn(s.text, tokens[i], known).map((n) => ({ ...n, type: 'other' as NameType }));
    const quotes = quotesIn(s.text);
    const own = new Set(stemmed[i]);
    const shared = [...titleStems].filter((t) => own.has(t)).length;
    const { modality, hedges } = modalityOf(s.text);
    const attribution = attributionOf(s.text, tokens[i]);
    const orders = source.kind === 'howto' && isOrder(s.text);
    const statement = orders ? null : statementOf(s.text, tokens[i]);
    const silent = silence(
      s.block,
      piece(s) ??
        (source.kind !== 'forum' && BREAKS_OFF.test(s.text) ? 'it breaks off' : null) ??
        notSpeech(s.text, tokens[i]) ??
        beside.get(s.block.id) ??
        (source.kind === 'forum'
          ? (toTheBoard(s.text) ??
            answers(s.block, found[i - 1]?.block.under !== s.block.under, s.text) ??
            (i >= found.length * LAST_WORDS || endsPost(i) ? asksTheBoard(s.text) : null))
          : null),
    );
    const parts = {
      central: central[i],
      title: titleStems.size ? clamp(shared / Math.min(3, titleStems.size)) : 0,
      concrete: clamp(
        0.3 * numbers[i].length + 0.3 * dates.length + 0.2 * names.length + 0.4 * quotes.length,
      ),
      surprising: surprising(s.text, numbers[i], usual),
      supported: supported({
        attributed: attribution !== null,
        named: attribution !== null && names.some((n) => attribution.text.includes(n.text)),
        numbers: numbers[i].length,
        dates: dates.length,
        quotes: quotes.length,
        modality,
        doubtful: source.doubt !== undefined,
      }),
    };
    const fact: Fact = {
      id: ids[i],
      block: s.block.id,
      start: s.block.start + s.start,
      end: s.block.start + s.end,
      text: s.text,
      type: typeOf(
        s.text,
        s.block,
        source,
        quotes.length + Number(insideQuote(s.block.text, s.start)),
        dates.length,
        numbers[i].length,
      ),
      numbers: numbers[i],
      dates,
      times: times[i],
      names,
      quotes,
      ...(s.block.step ? { step: s.block.step } : {}),
      ...(s.block.within ? { within: s.block.within } : {}),
      ...(s.block.speaker ? { speaker: s.block.speaker } : {}),
      ...(silent ? { silent } : {}),
      ...(statement ? { statement } : {}),
      ...(attribution ? { attribution } : {}),
      modality,
      hedges,
      polarity: polarityOf(s.text),
      leans: [],
      strength: strengthOf(parts),
      parts,
    };
    return { fact, tokens: tokens[i] };
  });
  const types = nameTypes(facts);
  const typed = facts.map(({ fact, tokens: own }) => ({
    fact: { ...fact, names: fact.names.map((n) => ({ ...n, type: types.get(n.text) ?? 'other' })) },
    tokens: own,
  }));
  const old = superseded(typed, source.blocks);
  const needs = references(typed, titleNouns(source.title, tagger));
  const whole = typed.map(({ fact, tokens: own }, i) => ({
    fact: {
      ...fact,
      ...(old.has(i) && !fact.silent ? { silent: laterSays(old.get(i)!) } : {}),
      leans: needs[i].filter((n) => n.adjacent).map((n) => ({ on: facts[n.to].fact.id, why: n.why })),
    },
    tokens: own,
    stems: stemmed[i],
  }));
  // What is never told by itself is weighed by its parts alone: what it would add to a telling was not learned.
  const told = whole.filter((t) => !t.fact.silent);
  const missed = salienceOf(source, told);
  const strength = new Map(told.map((t, k) => [t.fact.id, Math.round(missed[k] * 1000) / 1000]));
  return whole.map(({ fact, tokens: own }) => ({
    fact: { ...fact, strength: strength.get(fact.id) ?? fact.strength },
    tokens: own,
  }));
}

/** The facts of a source. `progress` hears, now and then, how many sentences of how many are tagged: most of the work. */
export function extractFacts(
  source: SourceDocument,
  tagger: Tagger,
  progress?: (done: number, of: number) => void,
): Fact[] {
  return taggedFacts(source, tagger, progress).map((t) => t.fact);
}

/** Dated facts in order of time, for the timeline of `read`. */
export function timeline(facts: readonly Fact[]): { iso: string; text: string; fact: string }[] {
  return facts
    .flatMap((f) =>
      f.dates
        .filter((d) => /^\d{4}/.test(d.iso))
        .slice(0, 1)
        .map((d) => ({ iso: d.iso, text: f.text, fact: f.id })),
    )
    .sort((a, b) => (a.iso < b.iso ? -1 : a.iso > b.iso ? 1 : 0));
}

/** Numbered steps of a guide, each with the sentences that belong to it. */
export function steps(facts: readonly Fact[]): { step: number; text: string; facts: string[] }[] {
  const out = new Map<number, { step: number; text: string; facts: string[] }>();
  for (const f of facts) {
    if (!f.step) continue;
    const entry = out.get(f.step) ?? { step: f.step, text: '', facts: [] };
    entry.text += (entry.text ? ' ' : '') + f.text;
    entry.facts.push(f.id);
    out.set(f.step, entry);
  }
  return [...out.values()].sort((a, b) => a.step - b.step);
}

const PART_LABELS: readonly [RegExp, string][] = [
  [/^(?:background|introduction|context)\b/i, 'background'],
  [/^(?:objectives?|aims?|purpose)\b/i, 'aim'],
  [/^(?:methods?|materials and methods|design|setting)\b/i, 'method'],
  [/^(?:results?|findings)\b/i, 'results'],
  [/^(?:limits|limitations?)\b/i, 'limits'],
  [/^(?:conclusions?|interpretation|discussion|significance)\b/i, 'conclusion'],
];

/** The part of a study a label names ("Results:", a heading "Methods"), or null. */
export function partOf(label: string): string | null {
  return PART_LABELS.find(([pattern]) => pattern.test(label))?.[1] ?? null;
}
