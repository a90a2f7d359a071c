/**
 * Takes and redoing: another take of a section, line or hook, and the fit of what is there to its plan. What is told
 * elsewhere and what is locked stays; only what was asked for changes, and what it was is kept as a take.
 */
import { manner } from '../plan/brief.ts';
import { MOOD_RULES } from '../plan/moods.ts';
import type { PlainLine, PlainSection, SectionTake } from '../script/data.ts';
import { hooksOf, type Hook } from '../plan/hooks.ts';
import { sentences } from '../language/sentences.ts';
import { placesIn } from '../plan/openLines.ts';
import { lineCarried, movedTo, type FactNeeds } from '../plan/rundown.ts';
import { chooseUnits } from './choose.ts';
import { frame, introducedIn, unitLines } from './compose.ts';
import { draftScript } from './draft.ts';
import { makePlan, type DraftOptions, type DraftPlan, type DraftTools } from './plan.ts';
import { LONGEST_REST, timeOf } from './fit.ts';
import { settled } from './settle.ts';
import { claimContext, faultsIn } from '../trace/claims.ts';
import { rephrase } from './tell/phrasebook.ts';
import { OPERATIONS } from './tell/restructure.ts';
import { makeTeller, ownWords, tellSentence } from './tell/tell.ts';
import type { SourceDocument } from '../source/document.ts';
import type { Unit } from './units.ts';

export type Redone = { sections: PlainSection[]; notes: string[] } | { refused: string };

const idOf = (u: Unit) => `${u.letter}:${u.sentence.fact.id}`;
const factsOf = (line: PlainLine) => line.from.flatMap((f) => (f.fact ? [`${f.source}:${f.fact}`] : []));

/** Units told by lines, by index. */
function toldBy(plan: DraftPlan, lines: readonly PlainLine[]): Set<number> {
  const ids = new Set(lines.flatMap(factsOf));
  return new Set(plan.units.filter((u) => ids.has(idOf(u))).map((u) => u.index));
}

/** A line id that no section has. */
const fresh = (sections: readonly PlainSection[]) => {
  const taken = new Set(sections.flatMap((s) => s.lines.map((l) => l.id)));
  let n = 0;
  return () => {
    do n++;
    while (taken.has(`L${n}`));
    taken.add(`L${n}`);
    return `L${n}`;
  };
};

/** The candidates for one section as a problem of their own: what is told before it counts as given, what can't be had is left out. */
function candidates(
  plan: DraftPlan,
  given: ReadonlySet<number>,
  elsewhere: ReadonlySet<number>,
  banned: ReadonlySet<number>,
): Unit[] {
  const usable = new Set(
    plan.units
      .filter((u) => !elsewhere.has(u.index) && !plan.banned.has(u.index) && !banned.has(u.index))
      .map((u) => u.index),
  );
  for (let changed = true; changed;) {
    changed = false;
    for (const u of plan.units) {
      if (!usable.has(u.index)) continue;
      const lost = u.needs.some(
        (n) => n.name === undefined && !usable.has(n.to) && (n.adjacent || !given.has(n.to)),
      );
      if (lost || (u.needsNext && !usable.has(u.index + 1))) {
        usable.delete(u.index);
        changed = true;
      }
    }
  }
  const list = plan.units.filter((u) => usable.has(u.index));
  const at = new Map(list.map((u, i) => [u.index, i]));
  return list.map((u, i) => ({
    ...u,
    index: i,
    needsNext: u.needsNext && at.get(u.index + 1) === i + 1,
    needs: u.needs.filter((n) => at.has(n.to)).map((n) => ({ ...n, to: at.get(n.to)! })),
  }));
}

const msOf = (lines: readonly PlainLine[], tools: DraftTools) =>
  timeOf(
    [{ id: 'x', title: '', role: 'ground', plannedMs: 0, locked: false, takes: [], lines: [...lines] }],
    tools.clock,
  );

/**
 * Lines for a section of so many milliseconds: its locked lines and leads stay, the rest is chosen anew. `prefer` units
 * are kept where they can be (a fit), `avoid` ones are left out (another take).
 */
function filled(
  plan: DraftPlan,
  sections: readonly PlainSection[],
  at: number,
  ms: number,
  tools: DraftTools,
  want: { prefer: boolean; avoid: ReadonlySet<number> },
): PlainLine[] | null {
  const section = sections[at];
  const kept = section.lines.filter((l) => l.locked || l.fixed || !factsOf(l).length);
  const lockedUnits = toldBy(
    plan,
    section.lines.filter((l) => l.locked),
  );
  const before = toldBy(
    plan,
    sections.slice(0, at).flatMap((s) => s.lines),
  );
  const after = toldBy(
    plan,
    sections.slice(at + 1).flatMap((s) => s.lines),
  );
  const mine = toldBy(plan, section.lines);
  // What later sections point at here must stay.
  const needed = new Set(
    [...after].flatMap((i) =>
      plan.units[i].needs.filter((n) => n.name === undefined && mine.has(n.to)).map((n) => n.to),
    ),
  );
  const elsewhere = new Set([...before, ...after, ...lockedUnits]);
  const avoid = new Set([...want.avoid].filter((i) => !needed.has(i)));
  const list = candidates(plan, new Set([...before, ...lockedUnits]), elsewhere, avoid);
  const indexOf = new Map(plan.units.map((u) => [idOf(u), u.index]));
  const original = (u: Unit) => indexOf.get(idOf(u))!;
  const pins = new Set(list.filter((u) => needed.has(original(u))).map((u) => u.index));
  // Facts from about the same place in the reading belong here; those already here stay when fitting.
  const places = [...mine].map((i) => i / plan.units.length);
  const middle = places.length
    ? places.reduce((a, b) => a + b, 0) / places.length
    : at / Math.max(1, sections.length);
  const low = Math.max(-1, ...[...before]);
  const high = Math.min(plan.units.length, ...[...after]);
  const weighed = list.map((u) => {
    const i = original(u);
    const inPlace = i > low && i < high ? 1 : 0.35;
    return {
      ...u,
      worth:
        u.worth *
        (1 - Math.min(0.6, Math.abs(i / plan.units.length - middle))) *
        inPlace *
        (want.prefer && mine.has(i) ? 3 : 1),
    };
  });
  const keptMs = msOf(kept, tools);
  const rest = at < sections.length - 1 ? MOOD_RULES[plan.options.mood].restMs : 0;
  for (const width of [0.01, 0.03, 0.08, 0.16, 0.3, ...(want.prefer ? [0.6, 0.95] : [])]) {
    const aim = ms - keptMs - rest;
    if (aim < 1000) return kept.length ? [...kept] : null;
    const chosen = chooseUnits(
      weighed,
      { minMs: aim - Math.max(600, aim * width), maxMs: aim + rest, pins, bans: new Set(), moved: null },
      tools.solver,
    );
    if (!chosen) continue;
    return told(
      plan,
      sections,
      section,
      kept,
      chosen.map((i) => list[i]),
      ms,
      tools,
      at < sections.length - 1,
    );
  }
  return null;
}

function told(
  plan: DraftPlan,
  sections: readonly PlainSection[],
  section: PlainSection,
  kept: readonly PlainLine[],
  units: readonly Unit[],
  ms: number,
  tools: DraftTools,
  rests: boolean,
): PlainLine[] {
  const id = fresh(sections);
  const lead = kept.filter((l) => !l.locked && !l.fixed);
  const role = section.role === 'close' ? 'settle' : section.role === 'hook' ? 'pull' : 'ground';
  const old = new Map(section.lines.map((l) => [`${l.text}\0${factsOf(l).join()}`, l]));
  const chosenLines = units.flatMap((u) =>
    unitLines(u, role, id).map((l) => old.get(`${l.text}\0${factsOf(l).join()}`) ?? l),
  );
  // Locked lines keep their place among the facts they stand between.
  const order = (l: PlainLine) => plan.units.findIndex((u) => factsOf(l).includes(idOf(u)));
  const body = [...chosenLines, ...kept.filter((l) => l.locked && factsOf(l).length)].sort(
    (a, b) => order(a) - order(b),
  );
  const closing = kept.filter((l) => (l.locked || l.fixed) && !factsOf(l).length);
  const ends = section.lines.findIndex((l) => closing.includes(l)) > section.lines.length / 2;
  const lines = (ends ? [...lead, ...body, ...closing] : [...closing, ...lead, ...body]).map((l) => ({
    ...l,
    restMs: l.locked ? l.restMs : 0,
  }));
  if (rests && lines.length) {
    const gap = ms - msOf(lines, tools);
    const last = lines.at(-1)!;
    if (gap > 0 && !last.locked) lines[lines.length - 1] = { ...last, restMs: Math.min(gap, LONGEST_REST) };
  }
  return lines;
}

const asTake = (section: PlainSection, name: string): SectionTake => ({
  name,
  lines: section.lines.map(({ takes: _, ...l }) => l),
});

/** Everyone introduced where they are met, now that the order or the choice is another; locked lines stay. */
function reintroduced(plan: DraftPlan, sections: readonly PlainSection[]): PlainSection[] {
  return introducedIn(plan, sections).map((s, i) =>
    s.locked ? sections[i] : { ...s, lines: s.lines.map((l, k) => (l.locked ? sections[i].lines[k] : l)) },
  );
}

export interface Redo {
  source: SourceDocument;
  options: DraftOptions;
  sections: readonly PlainSection[];
}

/** Another take of one section: other facts of the same part, in the same seconds. Nothing outside it is touched. */
export function redoSection({ source, options, sections }: Redo, id: string, tools: DraftTools): Redone {
  const plan = makePlan(source, options, tools);
  const at = sections.findIndex((s) => s.id === id);
  const section = sections[at];
  if (!section) return { refused: 'This section is no longer there.' };
  if (section.locked) return { refused: 'This section is locked. Unlock it for another take.' };
  const mine = toldBy(plan, section.lines);
  const seen = [mine, ...section.takes.map((t) => toldBy(plan, t.lines as PlainLine[]))];
  const ms = section.plannedMs || msOf(section.lines, tools);
  // First without any fact of an earlier take, then without the strongest halves of them, so that something else is told.
  const all = new Set(seen.flatMap((s) => [...s]));
  const strongest = [...mine].sort((a, b) => plan.units[b].worth - plan.units[a].worth);
  const tries = [
    all,
    new Set(strongest.filter((_, i) => i % 2 === 0)),
    new Set(strongest.filter((_, i) => i % 2 === 1)),
    new Set(strongest.slice(0, 1)),
  ];
  for (const avoid of tries) {
    const lines = filled(plan, sections, at, ms, tools, { prefer: false, avoid });
    if (!lines || lines.map((l) => l.text).join() === section.lines.map((l) => l.text).join()) continue;
    const next: PlainSection = {
      ...section,
      lines,
      takes: [...section.takes, asTake(section, `take ${section.takes.length + 1}`)],
    };
    const whole = reintroduced(
      plan,
      sections.map((s, i) => (i === at ? next : s)),
    );
    return { sections: sections.map((s, i) => (i === at ? whole[i] : s)), notes: [] };
  }
  return {
    refused:
      'The sources have nothing else to tell here in these seconds. Give it more time, or add a source.',
  };
}

/** A section further from its plan than this is named. */
const WELL_OFF = 0.15;

/**
 * Every unlocked section told to its planned seconds: facts added from what is unused, or left out; what is there stays where it
 * can. What one can't take or fill is made up for by the others in turn, so that the whole has its length.
 */
export function fitToPlan({ source, options, sections }: Redo, tools: DraftTools): Redone {
  const plan = makePlan(source, options, tools);
  const totalMs = options.target.seconds * 1000;
  const out = [...sections];
  const fill = (at: number, ms: number) =>
    filled(plan, out, at, ms, tools, { prefer: true, avoid: new Set() });
  for (let at = 0; at < out.length; at++) {
    const { locked, plannedMs: ms, lines: told } = out[at];
    const off = Math.abs(msOf(told, tools) - ms);
    if (locked || !ms || off <= Math.max(300, ms * 0.01)) continue;
    const lines = fill(at, ms);
    if (lines && Math.abs(msOf(lines, tools) - ms) < off) out[at] = { ...out[at], lines };
  }
  for (let at = 0; at < out.length; at++) {
    const gap = totalMs - timeOf(out, tools.clock);
    if (Math.abs(gap) <= totalMs * 0.01) break;
    if (out[at].locked || !out[at].plannedMs) continue;
    const lines = fill(at, msOf(out[at].lines, tools) + gap);
    const next = lines && out.with(at, { ...out[at], lines });
    if (next && Math.abs(totalMs - timeOf(next, tools.clock)) < Math.abs(gap)) out[at] = next[at];
  }
  const notes = out.flatMap(({ locked, title, plannedMs: ms, lines }) => {
    const told = msOf(lines, tools);
    return locked || !ms || Math.abs(told - ms) <= Math.max(2000, ms * WELL_OFF)
      ? []
      : [`“${title}” can’t be told in ${(ms / 1000).toFixed(0)} s with what is left: it takes ${(told / 1000).toFixed(0)} s.`]; // prettier-ignore
  });
  const fitted = out.map((s, i) =>
    s === sections[i] ? s : { ...s, takes: [...s.takes, asTake(sections[i], 'before fitting')] },
  );
  return { sections: evened(reintroduced(plan, fitted), totalMs, tools), notes };
}

/** The last tenths: spread on the rests between unlocked sections, none longer than a listener waits. */
function evened(sections: readonly PlainSection[], totalMs: number, tools: DraftTools): PlainSection[] {
  const whole = timeOf(sections, tools.clock);
  const places = sections.flatMap((s, i) =>
    i < sections.length - 1 && !s.locked && s.lines.length && !s.lines.at(-1)!.locked ? [i] : [],
  );
  if (!places.length) return [...sections];
  const each = (totalMs - whole) / places.length;
  if (Math.abs(each) > LONGEST_REST) return [...sections];
  return sections.map((s, i) =>
    places.includes(i)
      ? {
          ...s,
          lines: s.lines.map((l, k) =>
            k === s.lines.length - 1
              ? { ...l, restMs: Math.max(0, Math.min(LONGEST_REST, Math.round(l.restMs + each))) }
              : l,
          ),
        }
      : s,
  );
}

/** Another hook: of another kind where there is one. The lines of the one before are kept as a take. */
export function redoHook(
  { source, options, sections }: Redo,
  tools: DraftTools,
  wanted?: Hook,
): Redone & { hook?: Hook } {
  const plan = makePlan(source, options, tools);
  const first = sections[0];
  if (!first || first.locked) return { refused: 'The opening is locked. Unlock it for another hook.' };
  const toldFacts = new Set(sections.flatMap((s) => s.lines.flatMap(factsOf)));
  const shown = new Set([...first.lines, ...first.takes.flatMap((t) => t.lines)].map((l) => l.text));
  const all = hooksOf(plan.material, tools, options.seed);
  // Only what the script pays for, or what pays within itself.
  const able = all.filter(
    (h) =>
      h.pays.every((p) => toldFacts.has(`${p.source}:${p.fact}`)) &&
      !sections
        .slice(1)
        .some((s) => s.lines.some((l) => factsOf(l).includes(`${h.rests.source}:${h.rests.fact}`)) && h.own),
  );
  const hook = wanted ?? able.find((h) => !shown.has(h.text) && !shown.has(spokenHook(plan, h)));
  if (!hook) return { refused: 'The sources hold no other hook that this script pays for.' };
  const fact = plan.material
    .find((m) => m.letter === hook.rests.source)
    ?.facts.find((f) => f.id === hook.rests.fact);
  if (!fact) return { refused: 'The fact this hook rests on is no longer there.' };
  const unpaid = hook.pays.find((p) => !toldFacts.has(`${p.source}:${p.fact}`));
  if (unpaid)
    return {
      refused:
        'This hook promises a fact that the script does not tell. Mark the fact as one that must be told, and draft again.',
    };
  const id = fresh(sections);
  const line = frame(spokenHook(plan, hook), 'pull', id, [
    { source: hook.rests.source, fact: hook.rests.fact, quote: fact.text },
  ]);
  // The hook before gives way, unless something that is told points at it.
  const others = sections.slice(1).flatMap((x) => x.lines);
  const pointedAt = new Set([...first.lines, ...others].flatMap((l) => [...needsOf(plan, l)]));
  const toldByOthers = (l: PlainLine) =>
    factsOf(l).every((f) =>
      [...first.lines.filter((x) => x !== l), ...others].some((x) => factsOf(x).includes(f)),
    );
  const kept = first.lines.filter(
    (l) =>
      l.locked ||
      l.fixed ||
      (l.role !== 'pull' && l.text !== line.text) ||
      (factsOf(l).some((f) => pointedAt.has(f)) && !toldByOthers(l)),
  );
  const next: PlainSection = {
    ...first,
    lines: [line, ...kept],
    takes: [...first.takes, asTake(first, `take ${first.takes.length + 1}`)],
  };
  return { sections: [next, ...sections.slice(1)], notes: [], hook };
}

/** What a line points at, as facts. */
function needsOf(plan: DraftPlan, line: PlainLine): Set<string> {
  const ids = new Set(factsOf(line));
  return new Set(
    plan.units
      .filter((u) => ids.has(idOf(u)))
      .flatMap((u) => u.needs.filter((n) => n.name === undefined).map((n) => idOf(plan.units[n.to]))),
  );
}

function spokenHook(plan: DraftPlan, hook: Hook): string {
  const unit = plan.units.find(
    (u) => u.letter === hook.rests.source && u.sentence.fact.id === hook.rests.fact,
  );
  return hook.own && unit
    ? unit.lines.join(' ')
    : settled(hook.text, plan.brief, plan.source.kind === 'forum');
}

/** A fact told in every other way there is: sentence plans, plain words, the source's own, the phrasebook on the line as it stands. */
export function lineTellings(
  { source, options, sections }: Redo,
  lineId: string,
  tools: DraftTools,
): string[] {
  const plan = makePlan(source, options, tools);
  const line = sections.flatMap((s) => s.lines).find((l) => l.id === lineId);
  if (!line) return [];
  const ids = factsOf(line);
  const unit = plan.units.find((u) => ids.includes(idOf(u)));
  const list = unit ? otherTellings(plan, unit, line.text, tools) : [];
  return [...new Set(list)].filter((t) => t !== line.text);
}

function otherTellings(plan: DraftPlan, unit: Unit, said: string, tools: DraftTools): string[] {
  const doc = plan.material.find((m) => m.letter === unit.letter)!.source;
  const variants = (['own', 'plain', 'source'] as const).flatMap((words) => {
    const lines = tellSentence(
      unit.sentence.fact.text,
      unit.sentence.tokens,
      makeTeller(doc, tools.tagger, { words, ...manner(plan.brief) }),
    );
    return [lines.join(' '), ...lines];
  });
  // Each operation by itself, on the line as it stands and on the fact: more than one way, where all together give one.
  const fact = unit.sentence.fact.text;
  const single = [said, fact].flatMap((text) =>
    OPERATIONS.flatMap(({ apply }) => apply({ text, tokens: tools.tagger(text) }) ?? []).concat(
      rephrase(text, tools.tagger(text)).text,
    ),
  );
  const context = claimContext(doc.text);
  return [...variants, ownWords(said, tools.tagger), ...single]
    .map((t) => settled(t, plan.brief, doc.kind === 'forum'))
    .filter((t) => sentences(t).length <= 2)
    .filter(
      (t, i, all) =>
        all.indexOf(t) === i && (i < variants.length || !faultsIn(t, fact, context, tools.tagger).length),
    );
}

/** Another take of one line: its fact told otherwise, or in the source's words; then another fact that fits there in about the same time. */
export function redoLine({ source, options, sections }: Redo, lineId: string, tools: DraftTools): Redone {
  const plan = makePlan(source, options, tools);
  const at = sections.findIndex((s) => s.lines.some((l) => l.id === lineId));
  const line = sections[at]?.lines.find((l) => l.id === lineId);
  if (!line) return { refused: 'This line is no longer there.' };
  if (line.locked || line.fixed || sections[at].locked)
    return { refused: 'This line is locked. Unlock it for another take.' };
  const shown = new Set([line.text, ...line.takes.map((t) => t.text)]);
  const ids = factsOf(line);
  const unit = plan.units.find((u) => ids.includes(idOf(u)));
  const give = (text: string, from: PlainLine['from']): Redone => ({
    sections: sections.map((s, i) =>
      i === at
        ? {
            ...s,
            lines: s.lines.map((l) =>
              l.id === lineId
                ? { ...l, text, from, takes: [...l.takes, { text: line.text, from: line.from }] }
                : l,
            ),
          }
        : s,
    ),
    notes: [],
  });
  if (unit) {
    const toldFacts = new Set(
      sections.flatMap((s) => s.lines.filter((l) => l.id !== lineId).flatMap(factsOf)),
    );
    const before = toldBy(
      plan,
      sections.slice(0, at).flatMap((s) => s.lines),
    );
    const mineBefore = toldBy(plan, sections[at].lines.slice(0, sections[at].lines.indexOf(line)));
    const given = new Set([...before, ...mineBefore]);
    // Another fact of the same passage or part, when nothing leans on this one.
    const leaned = sections.some((s) =>
      s.lines.some((l) => l.id !== lineId && needsOf(plan, l).has(idOf(unit))),
    );
    const ms = tools.clock.time(line.text).ms;
    const other = leaned
      ? undefined
      : plan.units
          .filter(
            (u) =>
              !toldFacts.has(idOf(u)) &&
              !ids.includes(idOf(u)) &&
              !plan.banned.has(u.index) &&
              u.lines.length === 1 &&
              !u.needsNext &&
              u.needs.every((n) => n.name !== undefined || (given.has(n.to) && !n.adjacent)) &&
              !shown.has(u.lines[0]),
          )
          .map((u) => ({
            u,
            d:
              Math.abs(u.index - unit.index) / plan.units.length +
              Math.abs(tools.clock.time(u.lines[0]).ms - ms) / 10_000 -
              u.worth * 0.2,
          }))
          .sort((a, b) => a.d - b.d)[0]?.u;
    if (other)
      return give(other.lines[0], [
        { source: other.letter, fact: other.sentence.fact.id, quote: other.sentence.fact.text },
      ]);
    const text = otherTellings(plan, unit, line.text, tools).find((t) => !shown.has(t));
    if (text) return give(text, line.from);
  }
  return { refused: 'There is no other way to tell this line that is safe. Say it in your own words.' };
}

/** A section moved; references that would break refuse it with the reason, and people are introduced anew where they are first met. */
export function moveSection(
  { source, options, sections }: Redo,
  id: string,
  to: number,
  tools: DraftTools,
): Redone {
  const plan = makePlan(source, options, tools);
  const result = movedTo(sections, id, to, factNeeds(plan));
  return 'refused' in result ? result : { sections: reintroduced(plan, result.moved), notes: [] };
}

/** A line carried to another section with what else tells of its fact, as `lineCarried` does; people are introduced anew. */
export function carryLine(
  { source, options, sections }: Redo,
  line: string,
  section: string,
  tools: DraftTools,
): Redone {
  const plan = makePlan(source, options, tools);
  const placeOf = placesIn(plan.material.map((m) => ({ letter: m.letter, facts: m.facts })));
  const result = lineCarried(sections, line, section, factNeeds(plan), placeOf);
  return 'refused' in result ? result : { sections: reintroduced(plan, result.moved), notes: [] };
}

/** What each fact of a plan points at. */
const factNeeds = (plan: DraftPlan): FactNeeds =>
  Object.fromEntries(
    plan.units.map((u) => [
      idOf(u),
      u.needs.map((n) => ({
        to: idOf(plan.units[n.to]),
        adjacent: n.adjacent,
        why: n.why,
        ...(n.name === undefined ? {} : { name: n.name }),
      })),
    ]),
  );

/**
 * The whole told anew, in another shape or with another seed: locked sections stay as they are where they stood among the
 * others, and every section that goes is kept as a take of the one in its place.
 */
export function reshaped({ source, options, sections }: Redo, tools: DraftTools): Redone {
  const locked = sections.filter((s) => s.locked);
  const lockedMs = msOf(
    locked.flatMap((s) => s.lines),
    tools,
  );
  const seconds = options.target.seconds - lockedMs / 1000;
  if (seconds < 10)
    return { refused: 'The locked sections fill the time already. Unlock one, or ask for more time.' };
  const out = [...new Set([...(options.out ?? []), ...locked.flatMap((s) => s.lines.flatMap(factsOf))])];
  const must = (options.must ?? []).filter(
    (m) => !out.includes(m.includes(':') ? m : `${options.letter ?? 'A'}:${m}`),
  );
  const draft = draftScript(source, { ...options, target: { ...options.target, seconds }, out, must }, tools);
  const free = sections.filter((s) => !s.locked);
  const made = draft.sections.map((s, i): PlainSection => ({
    ...s,
    takes: free[i] ? [...free[i].takes, asTake(free[i], free[i].title)] : [],
  }));
  // What is left over of the old sections is kept with the last.
  const last = made.at(-1)!;
  made[made.length - 1] = {
    ...last,
    takes: [...last.takes, ...free.slice(made.length).map((s) => asTake(s, s.title))],
  };
  sections.forEach((s, i) => {
    if (s.locked) made.splice(Math.min(i, made.length), 0, s);
  });
  let line = 0;
  let n = 0;
  const taken = new Set(locked.flatMap((s) => [s.id, ...s.lines.map((l) => l.id)]));
  const next = (prefix: string, count: () => number) => {
    let id = `${prefix}${count()}`;
    while (taken.has(id)) id = `${prefix}${count()}`;
    return id;
  };
  return {
    sections: made.map((s) =>
      s.locked
        ? s
        : {
            ...s,
            id: next('S', () => ++n),
            lines: s.lines.map((l) => ({ ...l, id: next('L', () => ++line) })),
          },
    ),
    notes: draft.notes,
  };
}
