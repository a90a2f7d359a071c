/** Chosen units as sections and lines, framing included, without rests. */
import type { LineRole, LineSource, PlainLine, PlainSection } from '../script/data.ts';
import { fewEnough, openLine, placesIn, withOpenLine } from '../plan/openLines.ts';
import { framingLines } from '../plan/brief.ts';
import type { Part } from '../plan/shapes/shape.ts';
import { introduced } from './introduce.ts';
import { AIMS, COUNT, GUIDE, TELLER, labelOf, sectionQuestion } from './phrases.ts';
import { inShapeOrder, staysWith } from './order.ts';
import { movedOpening, type DraftPlan } from './plan.ts';
import { cutSections, sectionRole, sectionTitle } from './sections.ts';
import type { Unit } from './units.ts';

/** Sections and lines of a choice, framing included, without rests. */
export function compose(plan: DraftPlan, chosen: readonly number[]): PlainSection[] {
  const { units, source, shape, hook, brief } = plan;
  const ids = counter();
  const opening = units[plan.opening];
  // A report's or story's second sentence often completes the first; it stays with it when it is told and leans on it.
  const rest = chosen.filter((i) => i !== plan.opening).map((i) => units[i]);
  const head = [opening];
  while (
    movedOpening(plan) === null &&
    rest[0] &&
    rest[0].index === head[head.length - 1].index + 1 &&
    rest[0].needs.some((n) => n.adjacent) &&
    head.length < 3
  )
    head.push(rest.shift()!);
  // A paper that comes with its abstract says each part twice: they are told together.
  const byShape = (plan.asked || shape.id === 'study') && shape.order !== 'source' && shape.order !== 'down';
  let closing = closingGroup(rest);
  // What the rest is taken out of its order for must not leave half a passage behind.
  while (byShape && closing.length > 1 && staysWith(rest[rest.length - closing.length - 1], closing[0]))
    closing = closing.slice(1);
  const told = rest.slice(0, rest.length - closing.length);
  const body = byShape ? inShapeOrder(shape, told, units.length - 1) : told;
  const shorter = plan.options.target.seconds <= 90 ? 0.45 : plan.options.target.seconds <= 240 ? 0.8 : 1;
  const groups = shape.order === 'down' ? countedDown(body) : cutSections(body, shorter);
  const parts = partsFor(plan, groups);
  const used = new Set<string>();
  const minutes = plan.options.target.seconds / 60;
  const rate = framingLines(brief);
  // A channel that is used to few gets few; else a short script may have one.
  const leads =
    rate && brief.house.framing === undefined
      ? Math.max(1, Math.floor(minutes * rate))
      : Math.floor(minutes * rate);
  /** Parts and headings that were asked about: once is enough. */
  const asked = new Set<string>();
  const titles = new Set<string>();
  const sections: PlainSection[] = [];
  const add = (role: PlainSection['role'], name: string, lines: PlainLine[]) => {
    titles.add(name);
    sections.push({
      id: `S${sections.length + 1}`,
      title: name,
      role,
      plannedMs: 0,
      locked: false,
      lines,
      takes: [],
    });
  };
  const named = shape.id === 'own' || shape.id === 'study' || shape.id === 'case';
  add('hook', named ? shape.parts[0].name : 'Opening', [
    ...(brief.person === 'they' && source.kind === 'forum'
      ? [frame(TELLER[Math.abs(plan.options.seed) % TELLER.length], 'frame', ids)]
      : []),
    ...(hook && !hook.own ? [frame(hook.text, 'pull', ids, hookSource(plan))] : []),
    ...guideOpening(plan, ids),
    ...head.flatMap((u) => unitLines(u, 'pull', ids)),
    ...guideNeeds(plan, ids),
  ]);
  const steps = stepNames(rest, opening.letter);
  groups.forEach((group, g) => {
    const asks = shape.asks || (source.kind !== 'forum' && g > 0 && shape.id === 'chronicle');
    const question =
      asks && used.size < leads && !(leads < 4 && group[0].part === 'method') && !asked.has(labelOf(group[0]))
        ? sectionQuestion(
            group,
            source,
            used,
            groups.slice(0, g).flatMap((told) => told.map(labelOf)),
            plan.options.seed,
          )
        : null;
    if (question) {
      used.add(question);
      asked.add(labelOf(group[0]));
    }
    const part = parts[g];
    const name =
      named && part && !titles.has(part.name) ? part.name : sectionTitle(group, source, titles, rest);
    const lines = (
      shape.counts ? warnedFirst(group, ids) : group.map((u) => ({ before: [] as PlainLine[], u }))
    ).flatMap(({ before, u }) => [...before, ...unitLines(u, roleOf(u), ids, steps.get(u.index))]);
    const count = shape.order === 'down' ? COUNT[groups.length - g - 1] : undefined;
    add(
      shape.id !== 'chronicle' &&
        shape.id !== 'question' &&
        part &&
        part.role !== 'hook' &&
        part.role !== 'close'
        ? part.role
        : sectionRole(group, g === 0 ? 'second' : 'middle', source),
      name,
      [
        ...(count ? [frame(count, 'lead', ids)] : []),
        ...(question ? [frame(whoIsMeant(question, sections), 'lead', ids)] : []),
        ...lines,
      ],
    );
  });
  if (closing.length)
    add(
      'close',
      named && !titles.has(shape.parts.at(-1)!.name)
        ? shape.parts.at(-1)!.name
        : sectionTitle(closing, source, titles, rest),
      closing.flatMap((u) => unitLines(u, 'settle', ids, steps.get(u.index))),
    );
  return numbered(withFixed(plan, keptOpen(plan, introducedIn(plan, thirdPersonOnce(sections)), ids), ids));
}

/** A place for each link that must be told and can't be by rule, as far as the length has room for it. */
function keptOpen(plan: DraftPlan, sections: PlainSection[], ids: () => string): PlainSection[] {
  const kept = fewEnough(plan.open, plan.options.target.seconds);
  if (!kept.length) return sections;
  const placeOf = placesIn(plan.material);
  return kept.reduce((now, place) => withOpenLine(now, openLine(ids(), place), placeOf), sections);
}

/** Line ids in the order of telling. */
function numbered(sections: readonly PlainSection[]): PlainSection[] {
  let n = 0;
  return sections.map((s) => ({ ...s, lines: s.lines.map((l) => ({ ...l, id: `L${++n}` })) }));
}

/** What a hook that is no fact's own telling rests on. */
function hookSource(plan: DraftPlan): LineSource[] {
  const { hook } = plan;
  const fact =
    hook &&
    plan.material.find((m) => m.letter === hook.rests.source)?.facts.find((f) => f.id === hook.rests.fact);
  return hook && fact ? [{ source: hook.rests.source, fact: hook.rests.fact, quote: fact.text }] : [];
}

/** The share of a section that must be what its part wants. */
const HOLDS = 0.5;
/** The part of the shape each group plays: in order, by what the parts want (dynamic programming; the hook and the close are told apart). */
function partsFor({ shape, units }: DraftPlan, groups: readonly (readonly Unit[])[]): (Part | null)[] {
  const parts = shape.parts.slice(1, -1);
  if (!parts.length) return groups.map(() => null);
  const last = Math.max(1, units.length - 1);
  const gain = (group: readonly Unit[], part: Part) =>
    group.reduce(
      (n, u) =>
        n + part.wants({ fact: u.sentence.fact, at: u.index / last, label: u.part ?? u.block.under ?? '' }),
      0,
    ) / group.length;
  const best: number[][] = [];
  const from: number[][] = [];
  groups.forEach((group, g) => {
    best.push(parts.map(() => -Infinity));
    from.push(parts.map(() => 0));
    parts.forEach((part, p) => {
      for (let q = 0; q <= p; q++) {
        const before = g === 0 ? 0 : best[g - 1][q];
        // Staying in a part while others are still to come costs a little.
        const value = before + gain(group, part) - (g > 0 && q === p ? 0.15 : 0);
        if (value > best[g][p]) [best[g][p], from[g][p]] = [value, q];
      }
    });
  });
  const out: (Part | null)[] = [];
  let at = groups.length ? best[groups.length - 1].indexOf(Math.max(...best[groups.length - 1])) : 0;
  for (let g = groups.length - 1; g >= 0; g--) {
    // A section of a study that holds nothing of a part isn't called by its name.
    out.unshift(shape.id === 'study' && gain(groups[g], parts[at]) < HOLDS ? null : parts[at]);
    at = from[g][at];
  }
  return out;
}

/** A list from its last entry to its first: what stands under one heading, or in one passage, is one entry. */
function countedDown(body: readonly Unit[]): Unit[][] {
  const groups = new Map<string, Unit[]>();
  for (const u of body) {
    const key = `${u.letter}:${u.block.under ?? u.block.id}`;
    groups.set(key, [...(groups.get(key) ?? []), u]);
  }
  return [...groups.values()].reverse().slice(-COUNT.length);
}

/** In a guide the warning comes before the step it belongs to, when it can stand there. */
function warnedFirst(group: readonly Unit[], ids: () => string): { before: PlainLine[]; u: Unit }[] {
  const out: { before: PlainLine[]; u: Unit }[] = [];
  const moved = new Set<Unit>();
  const standsAlone = (u: Unit) =>
    u.sentence.fact.type === 'warning' &&
    /^(?:Never|Do not|Don[’']t|Be careful|Take care)\b/.test(u.sentence.fact.text) &&
    !u.needs.some((n) => n.adjacent) &&
    !group.some((x) => x.needs.some((n) => n.adjacent && n.to === u.index));
  for (const u of group) {
    const step = u.sentence.fact.step;
    const opens = step !== undefined && !out.some((o) => o.u.sentence.fact.step === step);
    const warning = opens
      ? group.find((x) => x.sentence.fact.step === step && x !== u && standsAlone(x))
      : undefined;
    if (moved.has(u)) continue;
    if (warning) moved.add(warning);
    out.push({ before: warning ? unitLines(warning, 'strain', ids) : [], u });
  }
  return out;
}

/** Fixed parts keep their words and seconds; the writer's next step for the listener ends the script, before a sign-off. */
function withFixed(plan: DraftPlan, sections: PlainSection[], ids: () => string): PlainSection[] {
  const line = (f: NonNullable<DraftPlan['options']['fixed']>[number]): PlainLine => ({
    ...frame(f.text, 'frame', ids),
    fixedMs: f.ms ?? null,
    locked: true,
    fixed: f.name,
  });
  const at = (where: string) => (plan.options.fixed ?? []).filter((f) => f.where === where).map(line);
  const aim = AIMS[plan.brief.aim];
  const out = sections.map((s) => ({ ...s, lines: [...s.lines] }));
  out[0].lines.unshift(...at('start'));
  if (out.length > 2) out[Math.floor(out.length / 2)].lines.unshift(...at('middle'));
  else out.at(-1)!.lines.unshift(...at('middle'));
  if (aim?.length) out.at(-1)!.lines.push(frame(aim[Math.abs(plan.options.seed) % aim.length], 'frame', ids));
  out.at(-1)!.lines.push(...at('end'));
  return out;
}

/** Everyone is introduced at first mention, each by the source that names them. */
export function introducedIn(plan: DraftPlan, sections: readonly PlainSection[]): PlainSection[] {
  // Under a veil nobody is named in full.
  if (plan.brief.veil && plan.source.kind === 'forum') return [...sections];
  const lines = introduced(
    sections.flatMap((s) => s.lines),
    plan.people,
  );
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

export const frame = (
  text: string,
  role: LineRole,
  id: () => string,
  from: LineSource[] = [],
): PlainLine => ({
  id: id(),
  text,
  role,
  restMs: 0,
  fixedMs: null,
  locked: false,
  speaker: '',
  from,
  fixed: '',
  takes: [],
});

export function unitLines(unit: Unit, role: LineRole, id: () => string, step?: string): PlainLine[] {
  const { letter, sentence } = unit;
  const { fact } = sentence;
  return unit.lines.map((text, i) =>
    frame(i === 0 && step ? counted(step, text) : text, role, id, [
      { source: letter, fact: fact.id, quote: fact.text },
    ]),
  );
}

/** "First, look along the gap": the step's number before it, its first letter made small unless it is a name. */
const counted = (step: string, text: string) =>
  `${step} ${/^I\b/.test(text) ? 'I' : text[0].toLowerCase()}${text.slice(1)}`;

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
function guideOpening(plan: DraftPlan, ids: () => string): PlainLine[] {
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
function guideNeeds(plan: DraftPlan, ids: () => string): PlainLine[] {
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
    const list =
      said.length > 2 ? `${said.slice(0, -1).join(', ')}, and ${said[said.length - 1]}` : said.join(' and ');
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
      const about = /\bthe researchers\b/i.test(l.text);
      const text =
        about && before && i > 0
          ? l.text.replace(/^The researchers\b/, 'They').replace(/\bthe researchers\b/, 'they')
          : l.text;
      before = about;
      return text === l.text ? l : { ...l, text };
    }),
  }));
}
