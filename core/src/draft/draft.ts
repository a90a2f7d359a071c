/**
 * The draft of this slice: facts told in the source's order, in closed groups, in sentences that are safe to say, fitted
 * to the asked seconds. One function stands in front of it; a later method takes its place behind the same door.
 */
import type { TaggedSentence } from '../facts/facts.ts';
import { compareSources } from '../facts/compare.ts';
import { taggedFacts } from '../facts/facts.ts';
import type { Tagger } from '../language/tagger.ts';
import { rankShapes, shapeById, type ShapeId } from '../plan/index.ts';
import type { Mood, Target } from '../script/file.ts';
import {
  clockLines,
  type LineRole,
  type LineSource,
  type PlainLine,
  type PlainSection,
} from '../script/schema.ts';
import type { SourceDocument } from '../source/document.ts';
import type { Clock } from '../timing/clock.ts';
import { clockText } from '../timing/clockText.ts';
import { introduced, introductionsOf, type Introduction } from './introduce.ts';
import { chooseUnits, shortestUnits, type Choice, type Solver } from './choose.ts';
import { endingUnit, openingUnit, revealUnits, taskOf } from './opening.ts';
import { GUIDE, labelOf, sectionQuestion } from './phrases.ts';
import { cutSections, sectionRole, sectionTitle } from './sections.ts';
import { joinUnits, makeUnits, type Unit } from './units.ts';

export interface DraftTools {
  tagger: Tagger;
  clock: Clock;
  solver: Solver;
}

export interface DraftOptions {
  target: Target;
  /** The best-suited one when left out. */
  shape?: ShapeId;
  mood: Mood;
  seed: number;
  /** The source's letter in the script. */
  letter?: string;
  /** Further sources, each under its letter: their facts are told where the first one's are not enough. */
  others?: readonly { letter: string; document: SourceDocument }[];
  /** Facts the writer wants told, and facts that must not be: by id in the first source, as "B:f3" in another. */
  must?: readonly string[];
  out?: readonly string[];
}

export interface Draft {
  shape: ShapeId;
  sections: PlainSection[];
  /** On the clock, in milliseconds. */
  ms: number;
  /** What the source can carry, in milliseconds: the shortest and the longest telling. */
  carries: Carries;
  /** Things the writer should know, in plain words. */
  notes: string[];
}

export interface Carries {
  shortestMs: number;
  longestMs: number;
}

/** Why no draft could be made, in the person's words. */
export class DraftError extends Error {
  override name = 'DraftError';
  constructor(
    readonly code: 'too-short' | 'too-long' | 'nothing-to-tell',
    message: string,
    readonly carries: Carries,
  ) {
    super(message);
  }
}

/** Rest between sections by mood, in milliseconds (calm telling rests longer; common practice, no published source). */
const SECTION_REST: Readonly<Record<Mood, number>> = {
  calm: 700,
  brisk: 200,
  warm: 550,
  dry: 450,
  grave: 900,
  light: 350,
};
const LONGEST_REST = 2600;
/** Above this many sentences the weakest are left out before choosing, so that the choice stays quick. */
const MOST_UNITS = 420;
const ROUNDS = 6;

interface Plan {
  units: readonly Unit[];
  opening: number;
  ending: number;
  shape: ShapeId;
  source: SourceDocument;
  options: DraftOptions;
  task: string | null;
  /** Units the writer ruled out, and what another source tells alike or newer. */
  banned: ReadonlySet<number>;
  /** Who is who, by last name. */
  people: ReadonlyMap<string, Introduction>;
  /** What the writer should know about how the sources fit together. */
  notes: readonly string[];
}

const named = (unit: Unit, ids: ReadonlySet<string>, first: string) =>
  ids.has(`${unit.letter}:${unit.sentence.fact.id}`) ||
  (unit.letter === first && ids.has(unit.sentence.fact.id));

/** Drafts a script from a source and any others beside it. Throws DraftError when they can't fill or fit the length. */
export function draftScript(source: SourceDocument, options: DraftOptions, tools: DraftTools): Draft {
  const tagged = taggedFacts(source, tools.tagger);
  const plan = makePlan(source, tagged, options, tools);
  const pins = pinned(plan);
  const carries = carried(plan, pins, tools);
  const wantedMs = wanted(options.target);
  if (wantedMs > carries.longestMs)
    throw new DraftError(
      'too-short',
      `${plan.options.others?.length ? 'These sources carry' : 'This source carries'} ${clockText(carries.longestMs, false)} at most. Ask for that or less, or add a source.`,
      carries,
    );
  const notes = [...plan.notes];
  let tries = [pins];
  if (wantedMs < carries.shortestMs) {
    // A guide is told whole or not at all.
    if (options.shape || shapeById(plan.shape).counts)
      throw new DraftError(
        'too-long',
        `Told as ${shapeById(plan.shape).name.toLowerCase()} this source takes at least ${clockText(carries.shortestMs, false)}.`,
        carries,
      );
    notes.push(
      `Told whole this source takes at least ${clockText(carries.shortestMs, false)}; this is its opening only.`,
    );
    tries = [new Set([plan.opening])];
  } else if (!shapeById(plan.shape).counts) tries.push(...fewerPins(plan));
  for (const pinSet of tries) {
    const sections = fit(plan, pinSet, wantedMs, tools);
    if (sections) return finished(plan, sections, carries, notes, tools);
  }
  throw new DraftError(
    'too-long',
    `No telling of this source lasts ${clockText(wantedMs, false)}. It can be told in ${clockText(carries.shortestMs, false)} to ${clockText(carries.longestMs, false)}.`,
    carries,
  );
}

/** When the pins together fit no length: without the reveal, then without the end; what the writer asked for stays. */
function fewerPins(plan: Plan): Set<number>[] {
  const must = new Set(plan.options.must ?? []);
  const asked = plan.units
    .filter((u) => named(u, must, plan.options.letter ?? 'A') && !plan.banned.has(u.index))
    .map((u) => u.index);
  return [new Set([plan.opening, plan.ending, ...asked]), new Set([plan.opening, ...asked])];
}

/** What a source carries with a voice, without drafting it. */
export function sourceCarries(
  source: SourceDocument,
  options: Omit<DraftOptions, 'target'>,
  tools: DraftTools,
): Carries {
  const plan = makePlan(
    source,
    taggedFacts(source, tools.tagger),
    { ...options, target: { kind: 'point', seconds: 60 } },
    tools,
  );
  return carried(plan, pinned(plan), tools);
}

function makePlan(
  source: SourceDocument,
  tagged: readonly TaggedSentence[],
  options: DraftOptions,
  tools: DraftTools,
): Plan {
  const shape = options.shape ?? rankShapes(source)[0].id;
  const letter = options.letter ?? 'A';
  const first = makeUnits(source, tagged, tools.tagger, tools.clock, letter);
  const others = (options.others ?? []).map((o) => {
    const theirs = taggedFacts(o.document, tools.tagger);
    return {
      ...o,
      tagged: theirs,
      units: makeUnits(o.document, theirs, tools.tagger, tools.clock, o.letter),
    };
  });
  const units = thin(
    first.length
      ? joinUnits(
          first,
          others.map((o) => o.units),
          endingUnit(first, source),
        )
      : first,
  );
  const none = { shortestMs: 0, longestMs: 0 };
  if (!units.length)
    throw new DraftError('nothing-to-tell', 'There is no sentence in this source that can be told.', none);
  if (shapeById(shape).counts && !units.some((u) => u.sentence.fact.step))
    throw new DraftError(
      'nothing-to-tell',
      'This source has no numbered steps, so it can’t be told as steps.',
      none,
    );
  const out = new Set(options.out ?? []);
  const doubled = others.length
    ? toldTwice([
        { letter, document: source, facts: tagged.map((t) => t.fact) },
        ...others.map((o) => ({ ...o, facts: o.tagged.map((t) => t.fact) })),
      ])
    : { out: new Set<string>(), notes: [] };
  const must = new Set(options.must ?? []);
  const banned = new Set(
    units
      .filter((u) => named(u, out, letter) || (named(u, doubled.out, '') && !named(u, must, letter)))
      .map((u) => u.index),
  );
  const allowed = units.filter((u) => !banned.has(u.index));
  if (!allowed.length)
    throw new DraftError('nothing-to-tell', 'Every fact of this source is marked to be left out.', none);
  const nearest = (index: number, list: readonly Unit[]) =>
    banned.has(index) ? (list.find((u) => !u.needs.length && !u.needsNext) ?? list[0]).index : index;
  const own = units.filter((u) => u.letter === letter);
  return {
    units,
    banned,
    notes: doubled.notes,
    people: new Map([...others.flatMap((o) => [...introductionsOf(o.document)]), ...introductionsOf(source)]),
    opening: nearest(own[openingUnit(first, source)]?.index ?? 0, allowed),
    ending: nearest(own[Math.min(endingUnit(first, source), own.length - 1)].index, [...allowed].reverse()),
    shape,
    source,
    options,
    task: source.kind === 'howto' ? taskOf(source.title, tools.tagger) : null,
  };
}

/** What need not or must not be told beside what another source tells: the same again, or an older figure. */
function toldTwice(
  sources: readonly { letter: string; document: SourceDocument; facts: TaggedSentence['fact'][] }[],
): { out: Set<string>; notes: string[] } {
  const { same, disagreements } = compareSources(sources);
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

/** Very long sources: the first part whole enough to choose from, indices kept dense. */
function thin(units: Unit[]): Unit[] {
  return units.length > MOST_UNITS ? units.slice(0, MOST_UNITS) : units;
}

/** What must be told: the opening and the ending, a story's reveal, and in a guide every step and warning. */
function pinned({ units, opening, ending, shape, source, banned, options }: Plan): Set<number> {
  const must = new Set(options.must ?? []);
  const pins = new Set([
    opening,
    ending,
    ...(options.others?.length ? [] : revealUnits(units, source)),
    ...units.filter((u) => named(u, must, options.letter ?? 'A')).map((u) => u.index),
  ]);
  if (shapeById(shape).counts) {
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

const wanted = ({ kind, seconds }: Target) =>
  Math.round(seconds * 1000) + (kind === 'floor' ? 300 : kind === 'ceiling' ? -300 : 0);

function choiceFor(plan: Plan, pins: ReadonlySet<number>, minMs: number, maxMs: number): Choice {
  const moved = plan.opening > 0 ? plan.opening : null;
  const after = new Set(
    plan.units.filter((u) => u.index > plan.ending && pins.has(plan.ending)).map((u) => u.index),
  );
  for (const index of plan.banned) after.add(index);
  return { minMs, maxMs, pins, bans: after, moved };
}

/** What a source carries is said for one usual length, so that it does not change with what is asked. */
const CARRY_SECONDS = 180;

function carried(asked: Plan, pins: ReadonlySet<number>, tools: DraftTools): Carries {
  const plan: Plan = {
    ...asked,
    options: { ...asked.options, target: { kind: 'point', seconds: CARRY_SECONDS } },
  };
  const shortest = shortestUnits(plan.units, choiceFor(plan, pins, 0, 0), tools.solver);
  const all = plan.units
    .filter(
      (u) =>
        u.index <= plan.ending &&
        !plan.banned.has(u.index) &&
        !(plan.opening > 0 && u.needs.some((n) => n.to === plan.opening && n.adjacent)),
    )
    .map((u) => u.index);
  const time = (chosen: readonly number[]) => {
    const sections = compose(plan, chosen);
    return timeOf(sections, tools.clock);
  };
  const longestMs = time(all) + SECTION_REST[plan.options.mood];
  return { shortestMs: shortest ? Math.min(time(shortest), longestMs) : 0, longestMs };
}

const timeOf = (sections: readonly PlainSection[], clock: Clock) =>
  clock.lines(clockLines(sections)).reduce((sum, l) => sum + l.ms, 0);

/** Chooses, composes and measures until what is left over fits into the rests between sections. */
function fit(
  plan: Plan,
  pins: ReadonlySet<number>,
  wantedMs: number,
  tools: DraftTools,
): PlainSection[] | null {
  // What framing lines and rests will take is first guessed, then known.
  let extraMs = Math.min(6000, wantedMs * 0.03);
  let widthMs = Math.max(700, wantedMs * 0.006);
  for (let round = 0; round < ROUNDS; round++) {
    const aim = wantedMs - extraMs;
    const chosen = chooseUnits(plan.units, choiceFor(plan, pins, aim - widthMs, aim + widthMs), tools.solver);
    if (!chosen) {
      widthMs *= 1.8;
      continue;
    }
    const sections = compose(plan, chosen);
    const gap = wantedMs - timeOf(sections, tools.clock);
    const places = sections.length - 1;
    const usual = SECTION_REST[plan.options.mood] * places;
    const room = Math.max(LONGEST_REST * Math.max(1, places), 0);
    if (gap >= 0 && gap <= room && (Math.abs(gap - usual) < Math.max(900, usual) || round >= 3))
      return withRests(sections, gap, tools.clock, wantedMs);
    const speech = chosen.reduce((sum, i) => sum + plan.units[i].ms, 0);
    extraMs = wantedMs - gap - speech + usual;
    if (round >= 3) widthMs *= 1.3;
  }
  return null;
}

/** Spreads the time left over evenly on the rests between sections, to the millisecond. */
function withRests(
  sections: readonly PlainSection[],
  gap: number,
  clock: Clock,
  wantedMs: number,
): PlainSection[] {
  const places = Math.max(1, sections.length - 1);
  const each = Math.floor(gap / places);
  const rested = sections.map((s, i) => {
    const rest = sections.length === 1 || i < places ? each + (i === 0 ? gap - each * places : 0) : 0;
    return { ...s, lines: s.lines.map((l, k) => (k === s.lines.length - 1 ? { ...l, restMs: rest } : l)) };
  });
  const timed = clock.lines(clockLines(rested));
  let at = 0;
  let left = wantedMs;
  return rested.map((s, i) => {
    const ms = s.lines.reduce((sum) => sum + timed[at++].ms, 0);
    const plannedMs = i === rested.length - 1 ? left : ms;
    left -= ms;
    return { ...s, plannedMs };
  });
}

/** Sections and lines of a choice, framing included, without rests. */
function compose(plan: Plan, chosen: readonly number[]): PlainSection[] {
  const { units, source } = plan;
  const ids = counter();
  const opening = units[plan.opening];
  // A report's or story's second sentence often completes the first; it stays with it when it is told and leans on it.
  const rest = chosen.filter((i) => i !== plan.opening).map((i) => units[i]);
  const head = [opening];
  while (
    plan.opening === 0 &&
    rest[0] &&
    rest[0].index === head[head.length - 1].index + 1 &&
    rest[0].needs.some((n) => n.adjacent) &&
    head.length < 3
  )
    head.push(rest.shift()!);
  const closing = closingGroup(rest);
  const body = rest.slice(0, rest.length - closing.length);
  const shorter = plan.options.target.seconds <= 90 ? 0.45 : plan.options.target.seconds <= 240 ? 0.8 : 1;
  const groups = cutSections(body, shorter);
  const used = new Set<string>();
  const titles = new Set<string>();
  const sections: PlainSection[] = [];
  const add = (role: PlainSection['role'], name: string, lines: PlainLine[]) => {
    titles.add(name);
    sections.push({ id: `S${sections.length + 1}`, title: name, role, plannedMs: 0, locked: false, lines });
  };
  add('hook', 'Opening', [
    ...guideOpening(plan, ids),
    ...head.flatMap((u) => unitLines(u, 'pull', ids)),
    ...guideNeeds(plan, ids),
  ]);
  const steps = stepNames(rest, opening.letter);
  groups.forEach((group, g) => {
    const question =
      plan.shape === 'question' || (source.kind !== 'forum' && g > 0 && plan.shape === 'chronicle')
        ? sectionQuestion(
            group,
            source,
            used,
            groups.slice(0, g).flatMap((told) => told.map(labelOf)),
          )
        : null;
    if (question) used.add(question);
    const name = sectionTitle(group, source, titles);
    const lines = group.flatMap((u) => unitLines(u, roleOf(u), ids, steps.get(u.index)));
    add(sectionRole(group, g === 0 ? 'second' : 'middle', source), name, [
      ...(question ? [frame(whoIsMeant(question, sections), 'lead', ids)] : []),
      ...lines,
    ]);
  });
  if (closing.length)
    add(
      'close',
      sectionTitle(closing, source, titles),
      closing.flatMap((u) => unitLines(u, 'settle', ids, steps.get(u.index))),
    );
  return introducedIn(plan, thirdPersonOnce(sections));
}

/** Everyone is introduced at first mention, each by the source that names them. */
function introducedIn(plan: Plan, sections: PlainSection[]): PlainSection[] {
  const people = new Map([...plan.people]);
  const lines = introduced(sections.flatMap((s) => s.lines), people);
  let at = 0;
  return sections.map((s) => ({ ...s, lines: s.lines.map(() => lines[at++]) }));
}

/** "What did they find?" when nobody was named yet: the researchers. */
const whoIsMeant = (question: string, told: readonly PlainSection[]): string =>
  told.some((s) => s.lines.some((l) => /\bresearchers\b/i.test(l.text)))
    ? question
    : question.replace(/\bthey\b/, 'the researchers');

const counter = () => {
  let n = 0;
  return () => `L${++n}`;
};

const frame = (text: string, role: LineRole, id: () => string, from: LineSource[] = []): PlainLine => ({
  id: id(),
  text,
  role,
  restMs: 0,
  fixedMs: null,
  locked: false,
  speaker: '',
  from,
});

function unitLines(unit: Unit, role: LineRole, id: () => string, step?: string): PlainLine[] {
  const { letter, sentence } = unit;
  const { fact } = sentence;
  return unit.lines.map((text, i) =>
    frame(i === 0 && step ? counted(step, text) : text, role, id, [
      { source: letter, fact: fact.id, quote: fact.text },
    ]),
  );
}

/** "First, look along the gap": the step's number before it, its first letter made small unless it is a name. */
const counted = (step: string, text: string) => `${step} ${text[0].toLowerCase()}${text.slice(1)}`;

const STRAIN =
  /\b(?:but|trouble|failed|wrong|never|nobody|stuck|parted|closed|lost|not settled|unknown|worse|danger)\b/i;
const roleOf = (unit: Unit): LineRole => (STRAIN.test(unit.sentence.fact.text) ? 'strain' : 'ground');

/** A close is no longer than this. */
const CLOSE_MS = 26_000;

/** The last few seconds: the last unit, with what it leans on straight before. */
function closingGroup(rest: readonly Unit[]): Unit[] {
  if (rest.length < 3) return [];
  let from = rest.length - 1;
  while (
    from > rest.length - 4 &&
    from > 0 &&
    rest[from].needs.some((n) => n.adjacent && n.to === rest[from - 1].index)
  )
    from--;
  // What stands under the same last heading closes with it while it is short.
  let ms = rest.slice(from).reduce((sum, u) => sum + u.ms, 0);
  while (
    from > 1 &&
    ((rest[from - 1].block.under === rest[from].block.under &&
      rest[from].block.under !== undefined &&
      rest[from - 1].part === rest[from].part) ||
      rest[from].needs.some((n) => n.adjacent && n.to === rest[from - 1].index)) &&
    ms + rest[from - 1].ms <= CLOSE_MS
  )
    ms += rest[--from].ms;
  return from > 0 ? rest.slice(from) : [];
}

/** The number said before each step of a guide, when all are told; the last one of more than two is "Last". */
function stepNames(body: readonly Unit[], letter: string): Map<number, string> {
  const firsts = new Map<number, number>();
  for (const u of body) {
    const { step } = u.sentence.fact;
    // Another guide's steps have numbers of their own.
    if (step && u.letter === letter && !firsts.has(step)) firsts.set(step, u.index);
  }
  const out = new Map<number, string>();
  const most = Math.max(0, ...firsts.keys());
  for (const [step, index] of firsts) {
    if (step > GUIDE.ordinals.length) continue;
    out.set(index, step === most && most > 2 ? GUIDE.last : GUIDE.ordinals[step - 1]);
  }
  return out;
}

/** A guide says first what it will show, from its title, and what is needed, from its list. */
function guideOpening(plan: Plan, ids: () => string): PlainLine[] {
  if (plan.source.kind !== 'howto' || !plan.task) return [];
  const letter = plan.options.letter ?? 'A';
  const opening = GUIDE.opening[Math.abs(plan.options.seed) % GUIDE.opening.length].replace(
    '{task}',
    plan.task,
  );
  return [frame(opening, 'pull', ids, [{ source: letter, quote: plan.source.title }])];
}

/** From this length on a guide names the tools it needs. */
const NEEDS_FROM_SECONDS = 75;

/** "You'll need a knife, a hammer and a candle.", from the list under a heading that says so. */
function guideNeeds(plan: Plan, ids: () => string): PlainLine[] {
  if (plan.source.kind !== 'howto' || plan.options.target.seconds < NEEDS_FROM_SECONDS) return [];
  const items = plan.source.blocks.filter(
    (b) =>
      b.type === 'item' &&
      !b.step &&
      /\b(?:need|tools?|materials?|equipment|ingredients)\b/i.test(b.under ?? ''),
  );
  if (items.length < 2) return [];
  const breaths = items.length > NEEDS_IN_A_BREATH ? 2 : 1;
  const each = Math.ceil(items.length / breaths);
  return Array.from({ length: breaths }, (_, i) => items.slice(i * each, (i + 1) * each)).map((part, i) => {
    const said = part.map((b) => b.text.replace(/[.;,]$/, ''));
    const list = said.length > 1 ? `${said.slice(0, -1).join(', ')}, and ${said[said.length - 1]}` : said[0];
    const from = part.map((b) => ({ source: plan.options.letter ?? 'A', quote: b.text }));
    return frame((i === 0 ? GUIDE.needs : GUIDE.needsMore).replace('{list}', list), 'ground', ids, from);
  });
}

/** More things than this in one sentence and the listener loses count (common practice, no published source). */
const NEEDS_IN_A_BREATH = 3;

/** "The researchers" once, then "they" while the line before is about them too. */
function thirdPersonOnce(sections: PlainSection[]): PlainSection[] {
  let before = false;
  return sections.map((s) => ({
    ...s,
    lines: s.lines.map((l, i) => {
      const about = /^The researchers\b/.test(l.text);
      const text = about && before && i > 0 ? l.text.replace(/^The researchers\b/, 'They') : l.text;
      before = about;
      return text === l.text ? l : { ...l, text };
    }),
  }));
}

function finished(
  plan: Plan,
  sections: PlainSection[],
  carries: Carries,
  notes: string[],
  tools: DraftTools,
): Draft {
  return { shape: plan.shape, sections, ms: timeOf(sections, tools.clock), carries, notes };
}
