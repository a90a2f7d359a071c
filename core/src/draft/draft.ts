/** A draft: facts told in closed groups, in sentences that are safe to say, in a shape, fitted to the asked seconds. */
import { words } from './tell/sentence.ts';
import type { PlainSection } from '../script/data.ts';
import type { ShapeId } from '../plan/shapes/shape.ts';
import type { SourceDocument } from '../source/document.ts';
import { clockText } from '../timing/clockText.ts';
import { toAdd, toAddSays } from '../plan/toAdd.ts';
import { openIn } from '../plan/openLines.ts';
import { longestBreath } from '../plan/brief.ts';
import { coverOf } from '../plan/cover.ts';
import { sentences } from '../language/sentences.ts';
import { indexSources, isClose, overlap } from '../trace/overlap.ts';
import { carried, fit, timeOf, wanted } from './fit.ts';
import { revealUnits } from './opening.ts';
import {
  clip,
  DraftError,
  fewerPins,
  makePlan,
  pinned,
  type Carries,
  type DraftOptions,
  type DraftPlan,
  type DraftTools,
} from './plan.ts';

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

/** Drafts a script from a source and any others beside it. Throws DraftError when they can't fill or fit the length. */
export function draftScript(source: SourceDocument, options: DraftOptions, tools: DraftTools): Draft {
  const plan = makePlan(source, options, tools);
  const pins = pinned(plan);
  const carries = carried(plan, pins, tools);
  const wantedMs = wanted(options.target, carries);
  const many = Boolean(options.others?.length);
  if (wantedMs > carries.longestMs)
    throw new DraftError(
      'too-short',
      `${many ? 'These sources carry' : 'This source carries'} ${clockText(carries.longestMs, false)} at most. Ask for that or less, or add a source.`,
      carries,
      toAddSays(toAdd(plan.material, tools.tagger), wantedMs - carries.longestMs, wordsAMinute(plan)),
    );
  const notes = [...plan.notes];
  const mustMs = options.must?.length ? carried(plan, new Set(fewerPins(plan)[1]), tools).shortestMs : 0;
  if (mustMs > wantedMs + 500) throw mustTooLong(mustMs, wantedMs, options.must!.length, carries);
  let tries = [pins];
  if (wantedMs < carries.shortestMs) {
    // A guide is told whole or not at all.
    if (options.shape || plan.shape.counts) throw tooLong(plan, carries, options.must?.length ?? 0);
    for (const { plan: shorter, pins: fewer, says } of shorterPins(plan)) {
      if (carried(shorter, fewer, tools).shortestMs > wantedMs) continue;
      const sections = fit(shorter, fewer, wantedMs, tools);
      const told = `Told whole this source takes at least ${clockText(carries.shortestMs, false)}; this is ${says}.`;
      if (sections) return done(plan, sections, carries, [...notes, told], tools);
    }
    tries = [];
  } else if (!plan.shape.counts) tries.push(...fewerPins(plan));
  for (const pinSet of tries) {
    const sections = fit(plan, pinSet, wantedMs, tools);
    if (sections) return done(plan, sections, carries, notes, tools);
  }
  const least = carried({ ...plan, hook: null }, new Set([plan.opening]), tools).shortestMs;
  const range = `${clockText(carries.shortestMs, false)} to ${clockText(carries.longestMs, false)}`;
  throw new DraftError(
    'too-long',
    least > wantedMs
      ? `Its opening alone takes ${clockText(least, false)}; told whole it takes ${range}.`
      : `No telling of this source lasts ${clockText(wantedMs, false)}. It can be told in ${range}.`,
    carries,
    least > wantedMs
      ? [
          `Ask for ${clockText(Math.ceil(least / 1000) * 1000 + 1000, false)} or more.`,
          'Take a hook that is shorter than its opening, in the Rundown.',
        ]
      : ['Ask for a few seconds more or less.'],
  );
}

/** How many words of these sources, as they are told, a minute has. */
const wordsAMinute = ({ units }: DraftPlan): number =>
  (units.reduce((n, u) => n + u.lines.reduce((k, l) => k + words(l), 0), 0) /
    Math.max(1, units.reduce((n, u) => n + u.ms, 0))) *
  60_000; // prettier-ignore

const done = (
  plan: DraftPlan,
  sections: PlainSection[],
  carries: Carries,
  notes: readonly string[],
  tools: DraftTools,
): Draft => ({
  shape: plan.shape.id,
  sections,
  ms: timeOf(sections, tools.clock),
  carries,
  notes: [
    ...notes,
    ...coverNote(plan, sections),
    ...openNote(sections),
    closeNote(plan, sections),
    ...breathNote(plan, sections),
  ],
});

/** Which of the writer's points are not told, and whether a source has them. */
function coverNote(plan: DraftPlan, sections: readonly PlainSection[]): string[] {
  const left = coverOf(
    plan.brief.cover,
    sections.flatMap((s) => s.lines),
    plan.factsWith,
  ).filter((c) => c.told === null);
  const list = (some: typeof left) => some.map((c) => `“${clip(c.point, 40)}”`).join(', ');
  const [untold, without] = [left.filter((c) => c.facts.length), left.filter((c) => !c.facts.length)];
  return [
    ...(untold.length
      ? [`Not told, though a fact has ${untold.length === 1 ? 'it' : 'them'}: ${list(untold)}. Tick the fact, or give it more time.`]
      : []),
    ...(without.length ? [`No source says anything of ${list(without)}.`] : []),
  ];
} // prettier-ignore

/** How many places are open, and what to do with them. */
function openNote(sections: readonly PlainSection[]): string[] {
  const { count, ms } = openIn(sections);
  if (!count) return [];
  const [place, them] = count === 1 ? ['One place is', 'it'] : [`${count} places are`, 'them'];
  return [
    `${place} kept open, ${(ms / 1000).toFixed(1)} s in all: what must be said there can’t be told by rule. Write ${them}, or order ${them}.`,
  ];
}

/** What share is still in the sources' words, in one sentence. */
function closeNote(plan: DraftPlan, sections: readonly PlainSection[]): string {
  const { share, lines } = overlap(
    sections.flatMap((s) => s.lines.map((l) => l.text)),
    indexSources(plan.material.map((m) => m.source.text)),
  );
  const close = lines.filter(isClose).length;
  return `${Math.round(share * 100)} % of it is still in the ${plan.material.length > 1 ? 'sources’' : 'source’s'} words; ${close === 1 ? 'one line is' : `${close} lines are`} marked to be said in your own.`;
}

/** Below the floor: a story as its opening and reveal, a study as its question and finding, anything as its opening and end, at last the opening alone. */
function shorterPins(plan: DraftPlan): { plan: DraftPlan; pins: Set<number>; says: string }[] {
  const [, asked] = fewerPins(plan);
  const may = (i: number) => !plan.banned.has(i);
  const findings = plan.units
    .filter((u) => u.part === 'results' && may(u.index))
    .sort((a, b) => b.worth - a.worth);
  const reveal = revealUnits(plan.units, plan.source, plan.options.reveal).filter(may);
  const lastOf = (i: number) => plan.units[i + 1]?.block.id !== plan.units[i].block.id;
  // Where a passage closes, a shorter telling can close too; later ones first.
  const ends = plan.units
    .map((u) => u.index)
    .filter((i) => i > plan.opening && i <= plan.ending && may(i) && lastOf(i) && !plan.units[i].needsNext)
    .reverse()
    .slice(0, OTHER_ENDS);
  const ending = (end: number, more: readonly number[], says: string) => ({
    plan: { ...plan, ending: end },
    pins: new Set([...asked, ...more.filter((i) => i <= end), end]),
    says,
  });
  return [
    ...(plan.event !== null && plan.event > plan.opening
      ? [
          ...ends
            .filter((e) => e > plan.event!)
            .map((e) => ending(e, [plan.event!], 'its opening, what happened and an end')),
          ending(plan.event, [], 'its opening and what happened'),
        ]
      : []),
    ...(reveal.length ? [ending(Math.max(...reveal), reveal, 'its opening and its reveal')] : []),
    ...findings
      .slice(0, 2)
      .flatMap((f) => [
        ...ends
          .filter((e) => e > f.index)
          .map((e) => ending(e, [f.index], 'its question, its finding and an end')),
        ending(f.index, [], 'its question and its finding'),
      ]),
    ...ends.map((e) => ending(e, [], 'its opening and an end')),
    { plan, pins: asked, says: 'its opening only' },
    // A hook that can't be paid in the time is not raised.
    ...(plan.hook && !plan.options.must?.length
      ? [{ plan: { ...plan, hook: null }, pins: new Set([plan.opening]), says: 'its opening only' }]
      : []),
  ];
}

/** So many places are tried to close a telling that is shorter than the whole. */
const OTHER_ENDS = 8;

/** What must be told takes longer than all that was asked. */
const mustTooLong = (mustMs: number, wantedMs: number, count: number, carries: Carries) =>
  new DraftError(
    'too-long',
    `${count === 1 ? 'The fact that must be told takes' : `The ${count} facts that must be told take`} at least ${clockText(mustMs, false)} with what they point at; ${clockText(wantedMs, false)} was asked.`,
    carries,
    [
      `Ask for ${clockText(Math.ceil(mustMs / 1000) * 1000, false)} or more.`,
      'Untick some of them, or take a title or an angle that asks for less.',
    ],
  );

/** Below the floor: the reason and other ways. */
function tooLong(plan: DraftPlan, carries: Carries, ticked: number): DraftError {
  const floor = clockText(carries.shortestMs, false);
  return new DraftError(
    'too-long',
    `Told as ${plan.shape.name.toLowerCase()} this source takes at least ${floor}.`,
    carries,
    [
      `Ask for ${floor} or more.`,
      ...(ticked ? [`Untick some of the ${ticked} facts that must be told.`] : []),
      ...(plan.shape.counts
        ? ['Say which steps a listener can do without, and leave them out.']
        : [
            'Leave the shape open: then its opening and reveal are told.',
            'Take another angle, which rests on fewer facts.',
          ]),
    ],
  );
}

/** Lines that stay longer than a breath because they must be told and can't be split safely. */
function breathNote(plan: DraftPlan, sections: readonly PlainSection[]): string[] {
  const most = longestBreath(plan.brief);
  const long = sections
    .flatMap((s) => s.lines)
    .filter((l) => l.from.length && sentences(l.text).some((x) => words(x.text) > most));
  return long.length
    ? [
        `${long.length === 1 ? 'One line runs' : `${long.length} lines run`} over ${most} words and can’t be split safely (${long.map((l) => l.id).join(', ')}): mark a breath, or say ${long.length === 1 ? 'it' : 'them'} in your own words.`,
      ]
    : [];
}

/** What a source carries with a voice, without drafting it. */
export function sourceCarries(
  source: SourceDocument,
  options: Omit<DraftOptions, 'target'>,
  tools: DraftTools,
): Carries {
  const plan = makePlan(source, { ...options, target: { kind: 'point', seconds: 60 } }, tools);
  return carried(plan, pinned(plan), tools);
}
