/**
 * The rundown: the sections of a script with planned and actual seconds, and what can be done to them without telling
 * anything anew. Pure: a change gives new sections, or says why it can't be.
 */
import type { PlainLine, PlainSection, SectionRole } from '../script/data.ts';

export interface RundownRow {
  id: string;
  title: string;
  role: SectionRole;
  plannedMs: number;
  heardMs: number;
  /** Heard less planned; 0 without a plan. */
  overMs: number;
  locked: boolean;
  lines: number;
  /** The facts it tells, by source and id, each once. */
  points: readonly { source: string; fact: string; quote: string }[];
}

export function rundownOf(sections: readonly PlainSection[], msOf: (lineId: string) => number): RundownRow[] {
  return sections.map((s) => {
    const heardMs = s.lines.reduce((n, l) => n + msOf(l.id), 0);
    const points = new Map<string, { source: string; fact: string; quote: string }>();
    for (const l of s.lines)
      for (const f of l.from)
        if (f.fact && !points.has(`${f.source}:${f.fact}`))
          points.set(`${f.source}:${f.fact}`, { source: f.source, fact: f.fact, quote: f.quote });
    return {
      id: s.id,
      title: s.title,
      role: s.role,
      plannedMs: s.plannedMs,
      heardMs,
      overMs: s.plannedMs ? heardMs - s.plannedMs : 0,
      locked: s.locked,
      lines: s.lines.length,
      points: [...points.values()],
    };
  });
}

/** A section can't be planned shorter than this. */
export const SHORTEST_PLAN_MS = 2000;

const find = (sections: readonly PlainSection[], id: string) => {
  const at = sections.findIndex((s) => s.id === id);
  if (at < 0) throw new RangeError(`There is no section ${id}.`);
  return at;
};

/** Seconds a section that has no plan yet is taken to have. */
const plans = (sections: readonly PlainSection[], msOf: (lineId: string) => number) =>
  sections.map((s) => s.plannedMs || s.lines.reduce((n, l) => n + msOf(l.id), 0));

/** Evens the plans of sections that are not held so that all add up to the whole, each by its share; integer milliseconds, none below the shortest. */
export function rebalanced(
  sections: readonly PlainSection[],
  msOf: (lineId: string) => number,
  totalMs: number,
  held: ReadonlySet<string> = new Set(),
): PlainSection[] {
  const planned = plans(sections, msOf);
  const isFree = (s: PlainSection) => !s.locked && !held.has(s.id);
  const free = sections.flatMap((s, i) => (isFree(s) ? [i] : []));
  if (!free.length) return sections.map((s, i) => ({ ...s, plannedMs: planned[i] }));
  const fixed = planned.reduce((n, ms, i) => n + (isFree(sections[i]) ? 0 : ms), 0);
  const room = Math.max(free.length * SHORTEST_PLAN_MS, totalMs - fixed);
  const sum = free.reduce((n, i) => n + planned[i], 0) || 1;
  const out = [...planned];
  let left = room;
  free.forEach((i, k) => {
    const rest = (free.length - k - 1) * SHORTEST_PLAN_MS;
    const share = k === free.length - 1 ? left : Math.round((planned[i] / sum) * room);
    out[i] = Math.max(SHORTEST_PLAN_MS, Math.min(share, left - rest));
    left -= out[i];
  });
  return sections.map((s, i) => ({ ...s, plannedMs: out[i] }));
}

/** A section planned for so many seconds; the other unlocked ones give or take. */
export function resized(
  sections: readonly PlainSection[],
  id: string,
  ms: number,
  msOf: (lineId: string) => number,
  totalMs: number,
): PlainSection[] {
  const at = find(sections, id);
  const planned = plans(sections, msOf);
  const others = sections.filter((s, i) => i !== at && !s.locked);
  const heldMs = sections.reduce((n, s, i) => n + (i !== at && s.locked ? planned[i] : 0), 0);
  const most = Math.max(SHORTEST_PLAN_MS, totalMs - heldMs - others.length * SHORTEST_PLAN_MS);
  const wanted = Math.round(Math.max(SHORTEST_PLAN_MS, Math.min(ms, most)));
  return rebalanced(
    sections.map((s, i) => ({ ...s, plannedMs: i === at ? wanted : planned[i] })),
    msOf,
    totalMs,
    new Set([id]),
  );
}

export const withLock = (sections: readonly PlainSection[], id: string, locked: boolean): PlainSection[] =>
  sections.map((s) => (s.id === id ? { ...s, locked } : s));

/** A section cut before a line; the new half takes what is left of the plan. Throws RangeError at its first line. */
export function splitBefore(
  sections: readonly PlainSection[],
  lineId: string,
  newId: string,
  msOf: (lineId: string) => number,
): PlainSection[] {
  const at = sections.findIndex((s) => s.lines.some((l) => l.id === lineId));
  const section = sections[at];
  const cut = section?.lines.findIndex((l) => l.id === lineId) ?? -1;
  if (cut < 1) throw new RangeError('A section is cut between two of its lines.');
  const first = section.lines.slice(0, cut);
  const whole = section.lines.reduce((n, l) => n + msOf(l.id), 0) || 1;
  const share = first.reduce((n, l) => n + msOf(l.id), 0) / whole;
  const plannedMs = section.plannedMs ? Math.round(section.plannedMs * share) : 0;
  return [
    ...sections.slice(0, at),
    { ...section, lines: first, plannedMs },
    {
      ...section,
      id: newId,
      title: titleFrom(section.lines.slice(cut)),
      takes: [],
      lines: section.lines.slice(cut),
      plannedMs: section.plannedMs - plannedMs,
    },
    ...sections.slice(at + 1),
  ];
}

const titleFrom = (lines: readonly PlainLine[]) =>
  lines[0].text
    .split(/\s+/)
    .slice(0, 4)
    .join(' ')
    .replace(/[,.;:!?]$/, '');

/** A section joined to the one before it: its lines, its plan and its takes. */
export function joinedToPrevious(sections: readonly PlainSection[], id: string): PlainSection[] {
  const at = find(sections, id);
  if (at === 0) throw new RangeError('The first section has none before it.');
  const [before, section] = [sections[at - 1], sections[at]];
  if (before.locked || section.locked)
    throw new RangeError('A locked section stays as it is. Unlock it first.');
  return [
    ...sections.slice(0, at - 1),
    {
      ...before,
      lines: [...before.lines, ...section.lines],
      plannedMs: before.plannedMs + section.plannedMs,
      takes: [...before.takes, ...section.takes],
    },
    ...sections.slice(at + 1),
  ];
}

/** What a told fact points at: must stand before it. From the `references` of its source. */
export interface FactNeeds {
  [fact: string]: readonly { to: string; adjacent: boolean; why: string; name?: string }[];
}

export type Moved = { moved: PlainSection[] } | { refused: string };

/** A section moved to another place. Refused with the reason when something in it, or after it, would point at what is told later. */
export function movedTo(sections: readonly PlainSection[], id: string, to: number, needs: FactNeeds): Moved {
  const at = find(sections, id);
  if (sections[at].locked) return { refused: 'A locked section stays where it is. Unlock it first.' };
  const place = Math.max(0, Math.min(sections.length - 1, to));
  const order = sections.filter((_, i) => i !== at);
  order.splice(place, 0, sections[at]);
  const before = brokenReferences(sections, needs);
  const broken = brokenReferences(order, needs).find(
    (b) => !before.some((x) => x.fact === b.fact && x.to === b.to),
  );
  if (!broken) return { moved: order };
  const inSection = (fact: string) =>
    order.find((s) => s.lines.some((l) => l.from.some((f) => `${f.source}:${f.fact}` === fact)))?.title ?? '';
  return {
    refused: `“${inSection(broken.fact)}” would come before “${inSection(broken.to)}”, but ${broken.why} there.`,
  };
}

/**
 * A line carried to another section with every line of its own section that rests on one of its facts, to where its source
 * has them among what is told there. Each section keeps the rest behind its end. Refused with the reason when something
 * would point at what is told later, or nothing would be left. `placeOf` is the place of a fact in its source, or null.
 */
export function lineCarried(
  sections: readonly PlainSection[],
  lineId: string,
  toId: string,
  needs: FactNeeds,
  placeOf: (ref: { source: string; fact?: string | undefined }) => number | null,
): Moved {
  const from = sections.find((s) => s.lines.some((l) => l.id === lineId));
  if (!from) throw new RangeError(`There is no line ${lineId}.`);
  const to = sections[find(sections, toId)];
  if (from === to) return { refused: 'It stands in that section already.' };
  if (from.locked || to.locked) return { refused: 'A locked section stays as it is. Unlock it first.' };
  const line = from.lines.find((l) => l.id === lineId)!;
  const facts = new Set(line.from.map((f) => `${f.source}:${f.fact}`));
  const goes = (l: PlainLine) =>
    l.id === lineId || l.from.some((f) => f.fact && facts.has(`${f.source}:${f.fact}`));
  const moved = from.lines.filter(goes);
  if (moved.some((l) => l.locked)) return { refused: 'A locked line stays where it is. Unlock it first.' };
  const left = from.lines.filter((l) => !goes(l));
  if (!left.some((l) => l.from.length))
    return { refused: `“${from.title}” would tell nothing more. Join it to the section before instead.` };
  const place = (l: PlainLine) => Math.max(-1, ...l.from.map((f) => placeOf(f) ?? -1));
  const own = Math.max(...moved.map(place));
  // Behind the last line that its source has before it; a line that leads into the section stays first.
  const lead = to.lines.findIndex((l) => l.from.length);
  const behind = to.lines.findLastIndex((l) => place(l) >= 0 && place(l) < own);
  const at = behind >= 0 ? behind + 1 : Math.max(0, lead);
  const ends = (lines: readonly PlainLine[], was: readonly PlainLine[]) =>
    lines.map((l, i) => {
      const rest = i === lines.length - 1 ? was.at(-1)!.restMs : l.id === was.at(-1)!.id || moved.includes(l) ? 0 : l.restMs; // prettier-ignore
      return rest === l.restMs ? l : { ...l, restMs: rest };
    });
  const next = sections.map((s) =>
    s === from
      ? { ...s, lines: ends(left, from.lines) }
      : s === to
        ? { ...s, lines: ends([...to.lines.slice(0, at), ...moved, ...to.lines.slice(at)], to.lines) }
        : s,
  );
  const before = brokenReferences(sections, needs);
  const broken = brokenReferences(next, needs).find(
    (b) => !before.some((x) => x.fact === b.fact && x.to === b.to),
  );
  if (!broken) return { moved: next };
  const said = (key: string) =>
    next.flatMap((s) => s.lines).find((l) => l.from.some((f) => `${f.source}:${f.fact}` === key))?.text ?? '';
  return {
    refused: `“${clipped(said(broken.fact))}” would be said before “${clipped(said(broken.to))}”, but ${broken.why}.`,
  };
}

const clipped = (text: string) => (text.length > 60 ? `${text.slice(0, 60).replace(/\s+\S*$/, '')} …` : text);

/** References that point at what is not told before them, though the script tells it. A person is named in full where they are met. */
export function brokenReferences(
  sections: readonly PlainSection[],
  needs: FactNeeds,
): { fact: string; to: string; why: string }[] {
  const place = new Map<string, number>();
  const order = sections.flatMap((s) =>
    s.lines.flatMap((l) => l.from.flatMap((f) => (f.fact ? [`${f.source}:${f.fact}`] : []))),
  );
  order.forEach((f, i) => place.has(f) || place.set(f, i));
  const out: { fact: string; to: string; why: string }[] = [];
  for (const [fact, i] of place)
    for (const n of needs[fact] ?? []) {
      if (n.name !== undefined) continue;
      const at = place.get(n.to);
      if (at !== undefined && at > i)
        out.push({
          fact,
          to: n.to,
          why: /there$|before$/.test(n.why) ? n.why.replace(/ there$/, '') : n.why,
        });
    }
  return out;
}
