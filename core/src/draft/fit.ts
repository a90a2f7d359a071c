/** To the second: what is chosen, told and framed, with the rests between sections, until it lasts what was asked. */
import type { Mood, Target } from '../script/file.ts';
import type { PlainSection } from '../script/data.ts';
import { clockLines } from '../script/schema.ts';
import type { Clock } from '../timing/clock.ts';
import { chooseUnits, shortestUnits, type Choice } from './choose.ts';
import { compose } from './compose.ts';
import { chooseTellings } from './tellings.ts';
import type { Carries, DraftPlan, DraftTools } from './plan.ts';

/** Rest between sections by mood, in milliseconds (calm telling rests longer; common practice, no published source). */
export const SECTION_REST: Readonly<Record<Mood, number>> = {
  calm: 700,
  brisk: 200,
  warm: 550,
  dry: 450,
  grave: 900,
  light: 350,
};
/** The longest rest a line may be given so that a script lasts what was asked, in milliseconds. */
export const LONGEST_REST = 2600;
/** Sentences of a story, and of a step, lean on one another more than they show. */
const BOUND_COHESION = 2.2;
const ROUNDS = 8;
/** What a source carries is said for one usual length, so that it does not change with what is asked. */
const CARRY_SECONDS = 180;

export const wanted = ({ kind, seconds }: Target) =>
  Math.round(seconds * 1000) + (kind === 'floor' ? 300 : kind === 'ceiling' ? -300 : 0);

export const timeOf = (sections: readonly PlainSection[], clock: Clock) =>
  clock.lines(clockLines(sections)).reduce((sum, l) => sum + l.ms, 0);

function choiceFor(plan: DraftPlan, pins: ReadonlySet<number>, minMs: number, maxMs: number): Choice {
  const moved = plan.opening > 0 ? plan.opening : null;
  const bans = new Set(
    plan.units.filter((u) => u.index > plan.ending && pins.has(plan.ending)).map((u) => u.index),
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
function allowed(plan: DraftPlan): number[] {
  const may = new Set(
    plan.units
      .filter(
        (u) =>
          u.index <= plan.ending &&
          !plan.banned.has(u.index) &&
          !(plan.opening > 0 && u.needs.some((n) => n.to === plan.opening && n.adjacent)),
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

/** The shortest and the longest telling with these pins. */
export function carried(asked: DraftPlan, pins: ReadonlySet<number>, tools: DraftTools): Carries {
  const plan: DraftPlan = {
    ...asked,
    options: { ...asked.options, target: { kind: 'point', seconds: CARRY_SECONDS } },
  };
  const shortest = shortestUnits(plan.units, choiceFor(plan, pins, 0, 0), tools.solver);
  const time = (chosen: readonly number[]) => timeOf(compose(plan, chosen), tools.clock);
  const longestMs = time(allowed(plan)) + SECTION_REST[plan.options.mood];
  return { shortestMs: shortest ? Math.min(time(shortest), longestMs) : 0, longestMs };
}

/** Chooses, composes and measures until what is left over fits into the rests between sections; null when no round does. */
export function fit(
  plan: DraftPlan,
  pins: ReadonlySet<number>,
  wantedMs: number,
  tools: DraftTools,
): PlainSection[] | null {
  // What framing lines and rests will take is guessed from the longest telling, then known.
  const all = allowed(plan);
  const speechOf = (chosen: readonly number[]) => chosen.reduce((sum, i) => sum + plan.units[i].ms, 0);
  const whole = timeOf(compose(plan, all), tools.clock);
  let extraMs =
    Math.max(0, whole - speechOf(all)) * Math.min(1, wantedMs / whole) + Math.min(4000, wantedMs * 0.02);
  let widthMs = Math.max(700, wantedMs * 0.006);
  for (let round = 0; round < ROUNDS; round++) {
    const aim = wantedMs - extraMs;
    const chosen = chooseUnits(plan.units, choiceFor(plan, pins, aim - widthMs, aim + widthMs), tools.solver);
    if (!chosen) {
      widthMs *= 1.8;
      continue;
    }
    const places = compose(plan, chosen).length - 1;
    const usual = SECTION_REST[plan.options.mood] * places;
    const sections = compose(closer(plan, chosen, wantedMs - usual, tools), chosen);
    const gap = wantedMs - timeOf(sections, tools.clock);
    const room = Math.max(LONGEST_REST * Math.max(1, places), 0);
    if (gap >= 0 && gap <= room && (Math.abs(gap - usual) < Math.max(900, usual) || round >= 3))
      return withRests(sections, gap, tools.clock, wantedMs);
    extraMs = wantedMs - gap - speechOf(chosen) + usual;
    if (round >= 3) widthMs *= 1.3;
  }
  return null;
}

/** So much the rests between sections take up, in milliseconds; only beyond it are other tellings looked for, which stay closer to the source. */
const NEAR_MS = 900;

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
