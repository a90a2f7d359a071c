/** Everything a draft decides before a word is told: the units of all sources, what opens and ends, what must be in and out. */
import { words } from './tell/sentence.ts';
import { compareSources, saidAgain } from '../facts/compare.ts';
import type { Fact, TaggedSentence } from '../facts/facts.ts';
import { remembering } from '../language/tagged.ts';
import { ownBlock } from '../facts/own.ts';
import { taggedFacts } from '../facts/facts.ts';
import type { Tagger } from '../language/tagged.ts';
import { contradictions, longestBreath, manner, usualBrief, type Brief } from '../plan/brief.ts';
import { pointFinder, type Covered } from '../plan/cover.ts';
import { genreWorth, shapeFor, whoseNames } from '../plan/genre.ts';
import { hooksOf, type Hook, type HookKind } from '../plan/hooks.ts';
import { MOOD_RULES, moodWorth } from '../plan/moods.ts';
import type { Material } from '../plan/material.ts';
import { rankShapes, shapeById } from '../plan/shapes.ts';
import type { OpenPlace } from '../plan/openLines.ts';
import { spineOf, type LinkKind, type SpineLink } from '../plan/spine.ts';
import { ownShape, type OwnPart } from '../plan/shapes/own.ts';
import type { Shape, ShapeId } from '../plan/shapes/shape.ts';
import type { Mood, Target } from '../script/file.ts';
import type { SourceDocument } from '../source/document.ts';
import type { Clock } from '../timing/clock.ts';
import type { Solver } from './choose.ts';
import { introductionsOf, type Introduction } from './introduce.ts';
import { endingUnit, introducesItself, namesNobodyNew, openingUnit, revealUnits, taskOf } from './opening.ts';
import { saysAvoided, settled, veiled } from './settle.ts';
import { makeTeller, tellSentence, type Teller, type WordStyle } from './tell/tell.ts';
import { joinUnits, makeUnits, type Unit } from './units.ts';

export interface DraftTools {
  tagger: Tagger;
  clock: Clock;
  solver: Solver;
}

/** Words or seconds that stay as they are: planned around, outside trace and overlap. */
export interface FixedPart {
  id: string;
  name: string;
  text: string;
  /** Its own time, when it is not spoken by the narrator; otherwise the clock's. */
  ms?: number;
  where: 'start' | 'end' | 'middle';
}

/** A source as it is told from: with its facts, where it was taken apart before, and what the writer knows beside it. */
export interface ReadSource {
  letter: string;
  document: SourceDocument;
  tagged?: readonly TaggedSentence[];
  own?: readonly TaggedSentence[];
}
export interface DraftOptions {
  target: Target;
  /** The best-suited one when left out. */
  shape?: ShapeId;
  /** Whether the writer asked for the shape; false where it is only the one that a script was drafted in. */
  asked?: boolean;
  /** The parts of a shape of the writer's own. */
  parts?: readonly OwnPart[];
  mood: Mood;
  seed: number;
  brief?: Brief;
  /** The source's letter in the script. */
  letter?: string;
  /** Further sources, each under its letter: their facts are told where the first one's are not enough. */
  others?: readonly ReadSource[];
  /** The first source's facts as they were taken apart when it was read; taken apart now when left out. */
  tagged?: readonly TaggedSentence[];
  /** What the writer knows beside the first source. */
  own?: readonly TaggedSentence[];
  /** Facts the writer wants told, and facts that must not be: by id in the first source, as "B:f3" in another. */
  must?: readonly string[];
  out?: readonly string[];
  /** Facts the listener knows from a first part: not told again, and what points at them may be told. */
  given?: readonly string[];
  /** Facts of the angle the writer took: told before others. */
  favour?: readonly string[];
  /** A fact of the passage that explains a story, as the writer confirmed it. */
  reveal?: string;
  /** What opens: a hook, or none but the source's own opening. */
  hook?: Hook | null;
  /** Whether it opens on a hook of its own in any mood, and keeps the event however short: for vertical films. */
  short?: boolean;
  fixed?: readonly FixedPart[];
}

/** What the sources can carry, in milliseconds. */
export interface Carries {
  shortestMs: number;
  longestMs: number;
}

/** Why no draft could be made, in the person's words. */
export class DraftError extends Error {
  override name = 'DraftError';
  constructor(
    readonly code: 'too-short' | 'too-long' | 'nothing-to-tell' | 'contradiction',
    message: string,
    readonly carries: Carries,
    /** Other ways, when it is too long for the time: in words for the person. */
    readonly ways: readonly string[] = [],
  ) {
    super(message);
  }
}

export interface DraftPlan {
  units: readonly Unit[];
  opening: number;
  ending: number;
  shape: Shape;
  /** Whether the writer asked for the shape, or a kind of piece: it weighs facts and has an order of its own. */
  asked: boolean;
  source: SourceDocument;
  options: DraftOptions;
  brief: Brief;
  hook: Hook | null;
  task: string | null;
  /** Units that must not be told: ruled out, told alike or newer elsewhere, or with a word to be avoided. */
  banned: ReadonlySet<number>;
  /** Other ways to tell a unit, with their times: closer to the source's words. */
  variants: (unit: Unit) => { lines: readonly string[]; ms: number }[];
  /** Who is who, by last name. */
  people: ReadonlyMap<string, Introduction>;
  material: readonly Material[];
  /** Links of the spine that rules can't tell: a place is kept for each. */
  open: readonly OpenPlace[];
  /** What happens, for a short: told however little time there is. */
  event: number | null;
  /** Facts that have a point. */
  factsWith: (point: string) => Covered['facts'];
  /** What the writer should know, in plain words. */
  notes: readonly string[];
}

/** How much more a fact of the chosen angle is worth. */
const FAVOURED = 1.9;
/** How much more a link of the spine is worth: what a telling hangs on. */
const SPINE_WORTH = 1.5;
/** Beside an angle or a shape that the writer took: its facts come before the rest of the story. */
const SPINE_BESIDE = 1.3;
/** What a shape that was asked for wants counts so much more, and so much less what its source would else be told for. */
const [SHAPE_ASKED, BESIDE_SHAPE] = [1.3, 1];
const LEAST_STRENGTH = 0.02;
/** Hooks that a vertical film opens with, the first that its source carries. */
const SHORT_OPENS: readonly HookKind[] = ['stakes', 'contradiction', 'figure', 'question', 'scene'];
/** What happens in a chain, for a film that has time for little else; a bare act only where nothing else happens. */
const EVENTS: ReadonlySet<LinkKind> = new Set(['obstacle', 'decision', 'turn', 'cost', 'result', 'cause']);
/** How much more a fact is worth that has a point the writer wants covered, and how much less what the listener knows. */
const [COVERED, KNOWN_ALREADY] = [8, 0.1];
/** Another seed weighs facts a little otherwise, so that another script comes of it: by up to half of this, the same for the same seed. */
const TURN = 0.9;
function turned(seed: number, index: number): number {
  // A hash of two integers (the finaliser of MurmurHash3).
  let h = Math.imul(seed + 1, 0x9e3779b1) ^ Math.imul(index + 1, 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return seed === 1 ? 1 : 1 + (((h ^ (h >>> 16)) >>> 0) / 2 ** 32 - 0.5) * TURN;
}

/** The strongest link of a source's chain in which something happens, told in the narrator's words; the unit, or null. */
function eventOf(
  links: readonly SpineLink[],
  units: readonly Unit[],
  banned: ReadonlySet<number>,
): number | null {
  const byFact = new Map(units.map((u) => [`${u.letter}:${u.sentence.fact.id}`, u]));
  const happens = (l: SpineLink) => Number(EVENTS.has(l.kind));
  const [best] = links
    .filter((l) => happens(l) || l.kind === 'act')
    .map((l) => ({ l, u: byFact.get(`${l.source}:${l.fact}`) }))
    .flatMap(({ l, u }) => (u && !banned.has(u.index) && !u.sentence.fact.quotes.length ? [{ l, u }] : []))
    .sort((x, y) => happens(y.l) - happens(x.l) || y.u.sentence.fact.strength - x.u.sentence.fact.strength);
  return best?.u.index ?? null;
}

/** How much more or less a unit is worth by what the brief says of points, the listener and the genre. */
function briefWorth(
  { cover, known, genre, whose }: Brief,
  material: readonly Material[],
  factsWith: (point: string) => Covered['facts'],
): (unit: Unit) => number {
  const keys = (facts: Covered['facts']) => facts.map((f) => `${f.source}:${f.fact}`);
  const covered = new Set(cover.flatMap((point) => keys(factsWith(point).slice(0, 1))));
  const heard = new Set(known.flatMap((point) => keys(factsWith(point))));
  const who = whoseNames(genre, whose, material.flatMap((m) => m.facts)); // prettier-ignore
  return ({ letter, sentence: { fact } }) => {
    const key = `${letter}:${fact.id}`;
    return genreWorth(genre, fact, who) * (covered.has(key) ? COVERED : heard.has(key) ? KNOWN_ALREADY : 1);
  };
}

/** What an entry's first sentence brackets between its subject and "is a": other names, Latin. It is not for the ear. */
const BRACKETED_NAMES = /^([^,;:“”]{3,60}), [^.;:“”?!]{3,160}, ((?:is|was|are|were) (?:an?|the|one)\b)/;

/** Numbers of passages are kept apart from those of sentences. */
const PASSAGES = 100_000;

/** Above this many sentences the rest is left aside before choosing, so that the choice stays quick. */
const MOST_UNITS = 420;

export const named = (unit: Unit, ids: ReadonlySet<string>, first: string) =>
  ids.has(`${unit.letter}:${unit.sentence.fact.id}`) ||
  (unit.letter === first && ids.has(unit.sentence.fact.id));

const NONE: Carries = { shortestMs: 0, longestMs: 0 };

/** Words that no English page of some length does without. */
const ENGLISH = /\b(?:the|of|and|to|in|was|is|that|it|for|with|as|on|at|by)\b/gi;
/** Below this share of such words a page is in another language. */
const ENGLISH_SHARE = 0.12;

/** What is said when a source can't be told because of its language; null when it is English. The guess by trigrams alone is too often wrong on short pages. */
function foreign(source: SourceDocument): string | null {
  if (/^en\b/.test(source.language)) return null;
  const words = source.text.split(/\s+/).length;
  const share = (source.text.match(ENGLISH)?.length ?? 0) / Math.max(1, words);
  if (share >= ENGLISH_SHARE) return null;
  const name =
    new Intl.DisplayNames(['en'], { type: 'language', fallback: 'none' }).of(source.language) ??
    'another language';
  return `“${clip(source.title)}” is in ${name}. Drafts are told from English sources only; its words can still be read and quoted on the desk.`;
}

export function makePlan(source: SourceDocument, options: DraftOptions, given: DraftTools): DraftPlan {
  const other = [source, ...(options.others ?? []).map((o) => o.document)]
    .map(foreign)
    .find((x) => x !== null);
  if (other) throw new DraftError('nothing-to-tell', other, NONE);
  const brief: Brief = { ...(options.brief ?? usualBrief()), mood: options.mood };
  const letter = options.letter ?? 'A';
  const sources: ReadSource[] = [
    { letter, document: source, tagged: options.tagged, own: options.own },
    ...(options.others ?? []),
  ];
  const read = sources.map((o) => ({
    letter: o.letter,
    document: o.document,
    tagged: o.tagged ?? taggedFacts(o.document, given.tagger),
    own: (o.own ?? []).filter((t) => t.fact.own === 'known'),
  }));
  const tools: DraftTools = {
    ...given,
    tagger: remembering(
      given.tagger,
      read.flatMap((r) => r.tagged.map((t) => [t.fact.text, t.tokens] as const)),
    ),
  };
  const material: Material[] = read.map((r) => ({
    letter: r.letter,
    source: r.document,
    facts: [...r.tagged, ...r.own].map((t) => t.fact).filter((f) => !f.silent),
  }));
  const says = contradictions(brief, source.kind === 'forum', {
    must: options.must ?? [],
    out: options.out ?? [],
  });
  if (says.length) throw new DraftError('contradiction', says.join(' '), NONE);
  const shape = options.parts?.length
    ? ownShape(options.parts)
    : shapeById(
        options.shape ??
          shapeFor(
            brief.genre,
            rankShapes({ source, facts: read[0].tagged.map((t) => t.fact), sources: read.length }),
          ),
      );
  const asked = brief.genre !== undefined || (options.shape !== undefined && options.asked !== false);
  const favour = new Set(options.favour ?? []);
  const links = material.flatMap((m) => spineOf(m));
  const spine = new Set(links.map((l) => `${l.source}:${l.fact}`));
  const factsWith = pointFinder(material);
  const byBrief = briefWorth(brief, material, factsWith);
  // What the writer knows is told like a further source of the same letter: within, never as the end.
  const beside = read
    .filter((r) => r.own.length)
    .map((r) => ({
      letter: r.letter,
      document: { ...r.document, blocks: r.own.map(({ fact }) => ownBlock(fact)) },
      tagged: r.own,
    }));
  const made = [...read, ...beside]
    .map((r) => unitsOf(r, shape, asked, brief, tools))
    .map((list) => {
      const passages = new Map([...new Set(list.map((u) => u.block.id))].map((id, k) => [id, PASSAGES + k]));
      return list.map((u) => ({
        ...u,
        // Passages are weighed otherwise too: sentences alone would even out.
        worth:
          u.worth *
          (named(u, favour, letter) ? FAVOURED : 1) *
          (spine.has(`${u.letter}:${u.sentence.fact.id}`)
            ? favour.size || asked
              ? SPINE_BESIDE
              : SPINE_WORTH
            : 1) *
          byBrief(u) *
          turned(options.seed, u.index) *
          turned(options.seed, passages.get(u.block.id)!),
      }));
    });
  const [told, ...others] = made;
  const again = repeated(told, source);
  const first = told.map((u) => {
    const { of, leanedOn } = again.get(u.index) ?? {};
    return of === undefined ? u : { ...u, repeats: of, worth: leanedOn ? u.worth : u.worth * SAID_ALREADY };
  });
  const heard = new Set(options.given ?? []);
  const joined = (first.length ? joinUnits(first, others, endingUnit(first, source)) : first).slice(
    0,
    MOST_UNITS,
  );
  const doubled = read.length > 1 ? toldTwice(read) : { out: new Set<string>(), notes: [] };
  // What the listener knows from a first part, or hears from another source, may be pointed at.
  const known = new Set([...heard, ...doubled.out]);
  const copies = wordForWord(joined, source);
  const units = joined.map((u) => ({
    ...u,
    // What points at a copy is heard as well behind what it copies.
    needs: u.needs
      .filter((n) => n.adjacent || !named(joined[n.to], known, letter))
      .map((n) => (n.adjacent ? n : { ...n, to: copies.get(n.to) ?? n.to }))
      .filter((n) => n.to !== u.index),
  }));
  if (!units.length)
    throw new DraftError('nothing-to-tell', 'There is no sentence in this source that can be told.', NONE);
  if (shape.counts && !units.some((u) => u.sentence.fact.step))
    throw new DraftError(
      'nothing-to-tell',
      'This source has no numbered steps, so it can’t be told as steps.',
      NONE,
    );
  const out = new Set([...(options.out ?? []), ...heard]);
  const must = new Set(options.must ?? []);
  const avoided = units.filter((u) => u.lines.some((l) => saysAvoided(l, brief.avoid)));
  const banned = new Set<number>(
    units
      .filter(
        (u) =>
          named(u, out, letter) ||
          (named(u, doubled.out, '') && !named(u, must, letter)) ||
          avoided.includes(u),
      )
      .map((u) => u.index),
  );
  for (const [index, first] of copies)
    if (!named(units[index], must, letter) && !banned.has(first)) banned.add(index);
  const allowed = units.filter((u) => !banned.has(u.index));
  if (!allowed.length)
    throw new DraftError('nothing-to-tell', 'Every fact of this source is marked to be left out.', NONE);
  const mustAvoided = avoided.filter((u) => named(u, must, letter));
  /** Whether all that a unit points at may be told. */
  const reachable = (u: Unit): boolean =>
    !banned.has(u.index) &&
    u.needs.every((n) => n.name !== undefined || (n.to < u.index && reachable(units[n.to])));
  const natural = (index: number) =>
    banned.has(index)
      ? (allowed.find((u) => !u.needsNext && u.needs.every((n) => n.name !== undefined)) ?? allowed[0]).index
      : index;
  const lastOf = (index: number) =>
    banned.has(index)
      ? ([...allowed].reverse().find((u) => !u.needsNext && reachable(u)) ?? allowed.at(-1)!).index
      : index;
  const own = units.filter((u) => u.letter === letter && !u.sentence.fact.own);
  const hook =
    options.hook === undefined
      ? usualHook(material, tools, options.seed, brief, own, options.short ? SHORT_OPENS : [])
      : options.hook;
  // What a study's question hook asks is not told once more.
  const askedBy =
    hook && !hook.own && hook.kind === 'question' && source.kind === 'abstract'
      ? `${hook.rests.source}:${hook.rests.fact}`
      : null;
  const hooked = hook?.own
    ? units.find((u) => u.letter === hook.rests.source && u.sentence.fact.id === hook.rests.fact)
    : undefined;
  const usual = natural(own[openingUnit(first, source)]?.index ?? 0);
  return {
    units: askedBy
      ? units.map((u) =>
          `${u.letter}:${u.sentence.fact.id}` === askedBy ? { ...u, worth: u.worth * 0.05 } : u,
        )
      : units,
    banned,
    shape,
    asked,
    source,
    options,
    brief,
    hook,
    material,
    variants: variantsFor(read, brief, tools),
    opening: hooked && !banned.has(hooked.index) && mayOpen(hooked, units) ? hooked.index : usual,
    ending: lastOf(own[Math.min(endingUnit(first, source), own.length - 1)].index),
    people: new Map([
      ...(options.others ?? []).flatMap((o) => [...introductionsOf(o.document)]),
      ...introductionsOf(source),
    ]),
    open: untold(material[0], spine, units, banned, options, tools.clock),
    factsWith,
    event: options.short ? eventOf(links, units, banned) : null,
    task: source.kind === 'howto' ? taskOf(source.title, tools.tagger) : null,
    notes: [
      ...doubled.notes,
      ...mustAvoided.map(
        (u) =>
          `“${clip(u.sentence.fact.text)}” is to be told, but says “${saysAvoided(u.lines.join(' '), brief.avoid)}”, which is to be avoided; it is left out.`,
      ),
    ],
  };
}

export const clip = (text: string, most = 60) =>
  text.length > most ? `${text.slice(0, most).replace(/\s+\S*$/, '')} …` : text;

function variantsFor(
  read: readonly { letter: string; document: SourceDocument; tagged: readonly TaggedSentence[] }[],
  brief: Brief,
  tools: DraftTools,
): DraftPlan['variants'] {
  const tellers = new Map<string, Teller>();
  const teller = (letter: string, words: WordStyle): Teller => {
    const key = `${letter} ${words}`;
    const document = read.find((r) => r.letter === letter)!.document;
    if (!tellers.has(key))
      tellers.set(
        key,
        makeTeller(document, tools.tagger, {
          words,
          ...manner(brief),
        }),
      );
    return tellers.get(key)!;
  };
  const firstPerson = read[0].document.kind === 'forum';
  const names = brief.veil && firstPerson ? read.flatMap((r) => r.tagged.flatMap((t) => t.fact.names)) : [];
  const breath = longestBreath(brief);
  const tooLong = (lines: readonly string[]) => lines.some((l) => words(l) > breath);
  return (unit) =>
    brief.words !== 'own' || unit.speech
      ? []
      : (['plain', 'source'] as const)
          .map((words) =>
            tellSentence(unit.sentence.fact.text, unit.sentence.tokens, teller(unit.letter, words)).map(
              (l) =>
                names.length ? veiled(settled(l, brief, firstPerson), names) : settled(l, brief, firstPerson),
            ),
          )
          .filter(
            (lines, i, all) =>
              lines.join() !== unit.lines.join() &&
              all.findIndex((x) => x.join() === lines.join()) === i &&
              // What can be said in breaths is not told in one for the sake of the length.
              (!tooLong(lines) || tooLong(unit.lines)),
          )
          .map((lines) => ({
            lines,
            ms: tools.clock.lines([...lines, ''].map((text) => ({ text }))).reduce((n, l) => n + l.ms, 0),
          }));
}

/** Links of the first source's spine, and ticked facts, that no rule can tell; how many have room is for the length to say. */
function untold(
  first: Material,
  spine: ReadonlySet<string>,
  units: readonly Unit[],
  banned: ReadonlySet<number>,
  { must, out, given }: DraftOptions,
  clock: Clock,
): OpenPlace[] {
  const told = new Map(units.filter((u) => u.letter === first.letter).map((u) => [u.sentence.fact.id, u]));
  const tells = (u: Unit | undefined): boolean =>
    u !== undefined &&
    !banned.has(u.index) &&
    u.needs.every((n) => n.name !== undefined || (n.to < u.index && !banned.has(n.to)));
  const has = (ids: ReadonlySet<string>, id: string) => ids.has(id) || ids.has(`${first.letter}:${id}`);
  const [asked, unwanted] = [
    new Set([...spine, ...(must ?? [])]),
    new Set([...(out ?? []), ...(given ?? [])]),
  ];
  return first.facts
    .filter((f) => has(asked, f.id) && !has(unwanted, f.id) && !tells(told.get(f.id)))
    .map((f) => ({
      asks: [{ source: first.letter, fact: f.id, quote: f.text }],
      ms: clock.time(f.text).ms,
    }));
}

/** A hook moves a unit to the front only when nothing leans on its old place. */
const mayOpen = (unit: Unit, units: readonly Unit[]) =>
  !unit.needs.some((n) => n.adjacent) &&
  !unit.needsNext &&
  !units.some((u) => u.needs.some((n) => n.to === unit.index && n.adjacent));

/**
 * What opens until the writer picks a hook: the first kind that the mood asks for and the source carries, told where it stands
 * alone; else a study opens with its own question, everything else as its source does.
 */
function usualHook(
  [first]: readonly Material[],
  tools: DraftTools,
  seed: number,
  { mood }: Brief,
  units: readonly Unit[],
  more: readonly HookKind[],
): Hook | null {
  const opens = [...new Set([...MOOD_RULES[mood].opens, ...more])];
  const study = first.source.kind === 'abstract';
  if (!opens.length && !study) return null;
  const hooks = hooksOf([first], tools, seed);
  const stands = (hook: Hook) => {
    const unit = units.find((u) => u.sentence.fact.id === hook.rests.fact);
    return (
      unit &&
      (hook.own
        ? mayOpen(unit, units) && introducesItself(unit, first.source)
        : namesNobodyNew(unit.sentence.fact, first.source))
    );
  };
  for (const kind of opens) {
    const found = hooks.find((h) => h.kind === kind && stands(h));
    if (found) return found;
  }
  return (study && hooks.find((h) => h.kind === 'question')) || null;
}

function unitsOf(
  read: { letter: string; document: SourceDocument; tagged: readonly TaggedSentence[] },
  shape: Shape,
  asked: boolean,
  brief: Brief,
  tools: DraftTools,
): Unit[] {
  const { document, tagged, letter } = read;
  const firstPerson = document.kind === 'forum';
  const teller = makeTeller(document, tools.tagger, {
    words: brief.words,
    ...manner(brief),
  });
  const units = makeUnits(document, tagged, tools.tagger, tools.clock, letter, teller);
  const longest = longestBreath(brief);
  const everyName = tagged.flatMap((t) => t.fact.names);
  const placed = (u: Unit) => ({
    fact: u.sentence.fact,
    at: units.length > 1 ? u.index / (units.length - 1) : 0,
    label: u.part ?? u.block.under ?? '',
  });
  return units.map((u) => {
    // What is quoted over several sentences is nobody's to settle; a veil covers it too.
    const names = brief.veil && firstPerson ? everyName : [];
    const lines = (u.speech ? [...u.lines] : u.lines.map((l) => settled(l, brief, firstPerson))).map((l) =>
      names.length ? veiled(l, names) : l,
    );
    if (u.index === 0 && document.kind === 'encyclopedia')
      lines[0] = lines[0].replace(BRACKETED_NAMES, '$1 $2');
    const changed = lines.some((l, i) => l !== u.lines[i]);
    const most = Math.max(...lines.map(words));
    const special =
      /\b(?:CI|confidence|standard deviation|coefficient|regression|p-value|hectopascal)\b/i.test(
        u.sentence.fact.text,
      );
    return {
      ...u,
      lines,
      ms: changed
        ? tools.clock.lines([...lines, ''].map((text) => ({ text }))).reduce((n, l) => n + l.ms, 0)
        : u.ms,
      worth:
        u.worth *
        // A shape that nobody asked for follows its source; a guide's steps and a study's results are what they are.
        (asked || shape.counts || shape.id === 'study'
          ? shape.weigh(placed(u)) ** (asked ? SHAPE_ASKED : 1)
          : 1) *
        (asked ? Math.max(LEAST_STRENGTH, u.sentence.fact.strength) ** -BESIDE_SHAPE : 1) *
        moodWorth(brief.mood, u.sentence.fact) *
        (most > longest ? Math.min(0.6, (longest / most) ** 2) : 1) *
        (special && (brief.audience === 'children' || brief.audience === 'newcomers') ? 0.5 : 1),
    };
  });
}

/** How much less a sentence is worth that says again what one before it says. */
const SAID_ALREADY = 0.15;

/** Units that say again what one before them says, with its index. A guide and a story say things again on purpose. */
function repeated(
  units: readonly Unit[],
  { kind }: SourceDocument,
): Map<number, { of: number; leanedOn: boolean }> {
  if (kind === 'howto' || kind === 'forum') return new Map();
  const again = saidAgain(units.map((u) => u.sentence.fact));
  const leanedOn = new Set(units.flatMap((u) => u.needs.filter((n) => n.adjacent).map((n) => n.to)));
  const at = new Map(units.map((u) => [u.sentence.fact.id, u.index]));
  return new Map(
    units.flatMap(({ index, sentence }) => {
      const of = at.get(again.get(sentence.fact.id) ?? '');
      return of === undefined ? [] : [[index, { of, leanedOn: leanedOn.has(index) }] as const];
    }),
  );
}

/**
 * Units told in the words of an earlier one, that lean on nothing and on which none leans: heard twice, they are a mistake. Each
 * with the one that says it first. A story or a guide may say a thing again.
 */
function wordForWord(units: readonly Unit[], { kind }: SourceDocument): ReadonlyMap<number, number> {
  if (kind === 'howto' || kind === 'forum') return new Map();
  const leanedOn = new Set(units.flatMap((u) => u.needs.filter((n) => n.adjacent).map((n) => n.to)));
  const heard = new Map<string, number>();
  const again = new Map<number, number>();
  for (const { index, lines, needs } of units) {
    const said = lines.map((l) => l.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []);
    const first = said.map((l) => (l.length < FEW_WORDS ? undefined : heard.get(l.join(' '))));
    // "A ferry runs below it." says something else of another bridge.
    const alone = !leanedOn.has(index) && !needs.some((n) => n.adjacent) && !lines.some((l) => POINTING.test(l)); // prettier-ignore
    if (first[0] !== undefined && first.every((i) => i !== undefined) && alone) again.set(index, first[0]);
    for (const l of said) if (!heard.has(l.join(' '))) heard.set(l.join(' '), index);
  }
  return again;
}
const POINTING = /\b(?:it|its|they|them|theirs?|he|him|his|she|hers?|here|there|this|that|these|those)\b/i;
/** What is as short may be said twice by chance. */
const FEW_WORDS = 5;

/** What need not or must not be told beside what another source tells: the same again, or an older figure. */
function toldTwice(
  sources: readonly { letter: string; document: SourceDocument; tagged: readonly TaggedSentence[] }[],
): { out: Set<string>; notes: string[] } {
  const { same, disagreements } = compareSources(
    sources.map((s) => ({
      letter: s.letter,
      document: s.document,
      facts: s.tagged.map((t): Fact => t.fact),
    })),
  );
  const out = new Set(same.flatMap((s) => s.origins.slice(1).map((o) => `${o.source}:${o.fact}`)));
  const notes = disagreements.map((d) => {
    const stands = d.newer ?? 0;
    d.sides.forEach((s, i) => i !== stands && out.add(`${s.source}:${s.fact}`));
    const told = d.sides[stands];
    const left = d.sides[1 - stands];
    return d.about === 'denial'
      ? `${told.source} and ${left.source} say the opposite of one another; ${told.source} is told.`
      : `${told.source} says ${told.says}, ${left.source} says ${left.says}; ${told.source}’s is told${d.newer === undefined ? '' : ', it is newer'}.`;
  });
  return { out, notes };
}

/** The opening, where it was taken from behind other units that may be told; null when it stands where the telling begins. */
export const movedOpening = ({ units, opening, banned }: DraftPlan): number | null =>
  units.some((u) => u.index < opening && !banned.has(u.index)) ? opening : null;

/** What must be told: the opening and the ending, a story's reveal, what a hook promises, and in a guide every step and warning. */
export function pinned({
  units,
  opening,
  ending,
  shape,
  source,
  banned,
  options,
  hook,
  event,
}: DraftPlan): Set<number> {
  const letter = options.letter ?? 'A';
  const must = new Set([...(options.must ?? []), ...(hook?.pays ?? []).map((p) => `${p.source}:${p.fact}`)]);
  const pins = new Set([
    opening,
    ending,
    ...(event === null ? [] : [event]),
    ...(options.others?.length ? [] : revealUnits(units, source, options.reveal)),
    ...units.filter((u) => named(u, must, letter)).map((u) => u.index),
  ]);
  // A study is told with what was done and what was found, however short.
  if (source.kind === 'abstract')
    for (const part of ['method', 'results']) {
      const own = units.filter((u) => u.part === part && !banned.has(u.index));
      const best = part === 'method' ? own[0] : [...own].sort((a, b) => b.worth - a.worth)[0];
      if (best) pins.add(best.index);
    }
  if (shape.counts) {
    const counted = new Set<number>();
    for (const u of units) {
      const { step, type } = u.sentence.fact;
      // The first sentence of each step is the step; what follows explains it. A warning is never left out.
      if ((step && !counted.has(step)) || type === 'warning') pins.add(u.index);
      if (step) counted.add(step);
    }
  }
  for (const index of banned) pins.delete(index);
  return pins;
}

/** When the pins together fit no length: without the reveal, then without the end; what the writer asked for stays. */
export function fewerPins(plan: DraftPlan): Set<number>[] {
  const must = new Set([
    ...(plan.options.must ?? []),
    ...(plan.hook?.pays ?? []).map((p) => `${p.source}:${p.fact}`),
  ]);
  const asked = plan.units
    .filter((u) => named(u, must, plan.options.letter ?? 'A') && !plan.banned.has(u.index))
    .map((u) => u.index);
  return [new Set([plan.opening, plan.ending, ...asked]), new Set([plan.opening, ...asked])];
}
