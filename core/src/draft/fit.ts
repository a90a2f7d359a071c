/** To the second: what is chosen, told and framed, with the rests between sections, until it lasts what was asked. */
import type { Target } from '../script/file.ts';
import { MOOD_RULES } from '../plan/moods.ts';
import type { PlainSection } from '../script/data.ts';
import { clockLines } from '../script/schema.ts';
import type { Clock } from '../timing/clock.ts';
import { chooseUnits, shortestUnits, type Choice } from './choose.ts';
import { compose } from './compose.ts';
import { chooseTellings } from './tellings.ts';
import { fewerPins, movedOpening, type Carries, type DraftPlan, type DraftTools } from './plan.ts';

/** The longest rest a line may be given so that a script lasts what was asked, in milliseconds. */
export const LONGEST_REST = 2600;
/** The longest rest between two lines of a section, where those between sections are not enough. */
const LONGEST_BREATH = 900;
/** So much over what was asked nobody hears, in milliseconds: where nothing shorter can be told. */
const UNHEARD_MS = 200;
/** So much the rests between sections take up, in milliseconds; only beyond it are other tellings looked for, which stay closer to the source. */
const NEAR_MS = 900;
/** Sentences of a story, and of a step, lean on one another more than they show. */
const BOUND_COHESION = 2.2;
const ROUNDS = 8;
/** What a source carries is said for one usual length, so that it does not change with what is asked. */
const CARRY_SECONDS = 180;

/** So far a length asked for as a floor or a ceiling is kept off it, in milliseconds. */
const OFF_THE_EDGE = 300;

/** What is aimed at: a little over a floor and under a ceiling, but within what can be told where that is known. */
export function wanted(
  { kind, seconds }: Target,
  { shortestMs, longestMs }: Carries = { shortestMs: 0, longestMs: Infinity },
): number {
  const ms = Math.round(seconds * 1000);
  if (kind === 'floor' && ms <= longestMs) return Math.min(longestMs, ms + OFF_THE_EDGE);
  if (kind === 'ceiling' && ms >= shortestMs) return Math.max(shortestMs, ms - OFF_THE_EDGE);
  return ms;
}

export const timeOf = (sections: readonly PlainSection[], clock: Clock) =>
  clock.lines(clockLines(sections)).reduce((sum, l) => sum + l.ms, 0);

/** What must be told, with all that it points at. */
function closure(plan: DraftPlan, pins: ReadonlySet<number>): Set<number> {
  const out = new Set<number>();
  const left = [...pins];
  for (let i = left.pop(); i !== undefined; i = left.pop()) {
    if (out.has(i) || !plan.units[i]) continue;
    out.add(i);
    const { needs, needsNext } = plan.units[i];
    left.push(...needs.flatMap((n) => (n.name === undefined ? [n.to] : [])), ...(needsNext ? [i + 1] : []));
  }
  return out;
}

/** Nothing is told behind the ending, but for what the writer asked for there. */
const behindEnd = (plan: DraftPlan, asked: ReadonlySet<number>) => (index: number) =>
  index > plan.ending && !asked.has(index);

function choiceFor(plan: DraftPlan, pins: ReadonlySet<number>, minMs: number, maxMs: number): Choice {
  const moved = movedOpening(plan);
  const behind = behindEnd(plan, closure(plan, pins));
  const bans = new Set(
    plan.units.filter((u) => pins.has(plan.ending) && behind(u.index)).map((u) => u.index),
  );
  for (const index of plan.banned) bans.add(index);
  return {
    minMs,
    maxMs,
    pins,
    bans,
    moved,
    cohesion: plan.source.kind === 'forum' || plan.source.kind === 'howto' ? BOUND_COHESION : 1,
  };
}

/** Everything that may be told together: in closed groups, nothing that was ruled out. */
function allowed(plan: DraftPlan, pins: ReadonlySet<number>): number[] {
  const behind = behindEnd(plan, closure(plan, pins));
  const moved = movedOpening(plan);
  const may = new Set(
    plan.units
      .filter(
        (u) =>
          !behind(u.index) &&
          !plan.banned.has(u.index) &&
          !(moved !== null && u.needs.some((n) => n.to === moved && n.adjacent)),
      )
      .map((u) => u.index),
  );
  for (let changed = true; changed;) {
    changed = false;
    for (const i of may) {
      const { needs, needsNext } = plan.units[i];
      if (needs.every((n) => n.name !== undefined || may.has(n.to)) && (!needsNext || may.has(i + 1)))
        continue;
      may.delete(i);
      changed = true;
    }
  }
  return [...may];
}

/** The shortest and the longest telling with these pins, each as it would be framed at its own length. */
export function carried(asked: DraftPlan, pins: ReadonlySet<number>, tools: DraftTools): Carries {
  let usual: readonly number[] | null = null;
  for (const p of [pins, ...fewerPins(asked)])
    usual ??= shortestUnits(asked.units, choiceFor(asked, p, 0, 0), tools.solver);
  const time = (chosen: readonly number[], seconds = CARRY_SECONDS): number => {
    const plan = { ...asked, options: { ...asked.options, target: { kind: 'point' as const, seconds } } };
    return timeOf(compose(plan, chosen), tools.clock);
  };
  // How much is framed depends on the length that is asked for: the least whole seconds in which a choice is told at just that length.
  const second = (ms: number) => Math.ceil(ms / 1000) * 1000;
  const own = (chosen: readonly number[]) => {
    let ms = second(time(chosen));
    let least = Infinity;
    for (let round = 0; round < ROUNDS; round++) {
      const next = second(time(chosen, ms / 1000));
      if (next <= ms) least = Math.min(least, ms);
      if (next === ms) break;
      ms = next;
    }
    return Number.isFinite(least) ? least : ms + 1000;
  };
  const longestMs = own(allowed(asked, pins));
  return { shortestMs: usual ? Math.min(own(usual), longestMs) : 0, longestMs };
}

/** Chooses, composes and measures until what is left over fits into the rests between sections; null when no round does. */
export function fit(
  plan: DraftPlan,
  pins: ReadonlySet<number>,
  wantedMs: number,
  tools: DraftTools,
): PlainSection[] | null {
  // What framing lines and rests will take is guessed from the longest telling, then known.
  const all = allowed(plan, pins);
  const speechOf = (chosen: readonly number[]) => chosen.reduce((sum, i) => sum + plan.units[i].ms, 0);
  const whole = timeOf(compose(plan, all), tools.clock);
  let extraMs =
    Math.max(0, whole - speechOf(all)) * Math.min(1, wantedMs / whole) + Math.min(4000, wantedMs * 0.02);
  let widthMs = Math.max(700, wantedMs * 0.006);
  // Of what fits, the one whose rests come nearest to what the mood asks for.
  let best: { sections: PlainSection[]; gap: number; off: number } | null = null;
  for (let round = 0; round < ROUNDS; round++) {
    const aim = wantedMs - extraMs;
    const chosen = chooseUnits(plan.units, choiceFor(plan, pins, aim - widthMs, aim + widthMs), tools.solver);
    if (!chosen) {
      widthMs *= 1.8;
      continue;
    }
    const places = compose(plan, chosen).length - 1;
    const usual = MOOD_RULES[plan.options.mood].restMs * places;
    const sections = compose(closer(plan, chosen, wantedMs - usual, tools), chosen);
    const gap = wantedMs - timeOf(sections, tools.clock);
    const room = Math.max(LONGEST_REST * Math.max(1, places), 0);
    // The first rounds look for the rests that the mood asks for.
    const near = Math.max(700, usual * (round < 2 ? 0.4 : 0.8));
    if (gap >= 0 && gap <= room) {
      const off = Math.abs(gap - usual);
      if (!best || off < best.off) best = { sections, gap, off };
      if (off < near) break;
    }
    extraMs = wantedMs - gap - speechOf(chosen) + usual;
    if (round >= 3) widthMs *= 1.3;
  }
  return best
    ? withRests(best.sections, best.gap, tools.clock, wantedMs)
    : justBelow(plan, pins, wantedMs, tools);
}

/**
 * Near the ends of what a source carries there are few choices: of those that last a little less than what was asked, the
 * longest, with what is left over as rests between sections and then between lines.
 */
function justBelow(
  plan: DraftPlan,
  pins: ReadonlySet<number>,
  wantedMs: number,
  tools: DraftTools,
): PlainSection[] | null {
  const found: { sections: PlainSection[]; gap: number }[] = [];
  const look = (chosen: readonly number[]) => {
    for (const telling of [plan, closer(plan, chosen, wantedMs - 2 * NEAR_MS, tools)]) {
      const sections = compose(telling, chosen);
      found.push({ sections, gap: wantedMs - timeOf(sections, tools.clock) });
    }
    return found[found.length - 2].gap;
  };
  look(allowed(plan, pins));
  let most = wantedMs;
  for (let round = 0; round < ROUNDS; round++) {
    const chosen = chooseUnits(plan.units, choiceFor(plan, pins, 0, most), tools.solver);
    if (!chosen) break;
    const gap = look(chosen);
    if (gap >= 0) break;
    most += gap - 1;
  }
  const shortest = shortestUnits(plan.units, choiceFor(plan, pins, 0, 0), tools.solver);
  if (shortest) look(shortest);
  const room = ({ sections }: { sections: PlainSection[] }) =>
    LONGEST_REST * Math.max(1, sections.length - 1) +
    LONGEST_BREATH * sections.reduce((n, s) => n + s.lines.length - 1, 0);
  const best =
    found.filter((f) => f.gap >= 0 && f.gap <= room(f)).sort((a, b) => a.gap - b.gap)[0] ??
    found.filter((f) => f.gap < 0 && f.gap >= -UNHEARD_MS).sort((a, b) => b.gap - a.gap)[0];
  return best ? withRests(best.sections, Math.max(0, best.gap), tools.clock, wantedMs) : null;
}

/** Other tellings for some of the chosen units, when together they come nearer to the time than their first tellings do. */
function closer(plan: DraftPlan, chosen: readonly number[], speechMs: number, tools: DraftTools): DraftPlan {
  const off = speechMs - timeOf(compose(plan, chosen), tools.clock);
  if (Math.abs(off) <= NEAR_MS || Math.abs(off) > chosen.length * 400) return plan;
  const options = chosen.map((i) => {
    const unit = plan.units[i];
    return [{ lines: unit.lines, ms: unit.ms }, ...plan.variants(unit)].map((t, k) => ({ ...t, worth: -k }));
  });
  const now = chosen.reduce((n, i) => n + plan.units[i].ms, 0);
  const picked = chooseTellings(options, now + off - NEAR_MS, now + off + NEAR_MS);
  if (!picked || picked.every((k) => k === 0)) return plan;
  const units = [...plan.units];
  chosen.forEach((i, u) => {
    const { lines, ms } = options[u][picked[u]];
    units[i] = { ...units[i], lines, ms };
  });
  return { ...plan, units };
}

/** Spreads the time left over evenly on the rests between sections, what they can't take on the lines between, to the millisecond. */
function withRests(
  sections: readonly PlainSection[],
  gap: number,
  clock: Clock,
  wantedMs: number,
): PlainSection[] {
  const lastOf = (i: number) => sections[i].lines.length - 1;
  const places = sections.flatMap((_, i) => (sections.length === 1 || i < sections.length - 1 ? [i] : []));
  const between = sections.flatMap((s, i) => s.lines.slice(0, -1).map((_, k) => `${i}:${k}`));
  const atEnds = between.length ? Math.min(gap, places.length * LONGEST_REST) : gap;
  const shared = (ms: number, keys: readonly string[]) =>
    keys.map((key, n): [string, number] => [
      key,
      Math.floor(ms / keys.length) + (n === 0 ? ms % keys.length : 0),
    ]);
  const rests = new Map([
    ...shared(
      atEnds,
      places.map((i) => `${i}:${lastOf(i)}`),
    ),
    ...shared(gap - atEnds, between),
  ]);
  const rested = sections.map((s, i) => ({
    ...s,
    lines: s.lines.map((l, k) => {
      const restMs = rests.get(`${i}:${k}`) ?? 0;
      return restMs || k === lastOf(i) ? { ...l, restMs } : l;
    }),
  }));
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
