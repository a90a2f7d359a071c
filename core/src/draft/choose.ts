/**
 * Which units are told: an exact 0/1 choice of closed groups that fills the time with the strongest facts of the whole source,
 * solved by HiGHS. Every unit chosen brings what it points at; the solver stops by gap or nodes, never by time, so a choice is
 * the same on every machine.
 */
import { joinedNeighbours } from '../plan/neighbours.ts';
import type { Unit } from './units.ts';

/** The part of HiGHS that is used: a linear program as text in, values by name out. */
export interface Solver {
  solve: (
    lp: string,
    options?: Record<string, unknown>,
  ) => { Status: string; Columns: Record<string, { Primal?: number }> };
}

export interface Choice {
  /** Speech time wanted, in milliseconds. */
  minMs: number;
  maxMs: number;
  /** Units that must be told. */
  pins: ReadonlySet<number>;
  /** Units that must not be told. */
  bans: ReadonlySet<number>;
  /** The unit moved to the opening: nothing may lean on its old place. */
  moved: number | null;
  /** How much more neighbours belong together than usual; a person's own story breaks where a sentence is left out. */
  cohesion?: number;
}

/** The gain of telling two neighbours of one passage together, in seconds of average worth; more when one explains the other. */
const COHESION = 0.7;
const EXPLAINS = 1.2;
/**
 * The gain of telling anything of a stretch, times the root of its sentences: every further sentence of it gains less, so that
 * what is told comes from the whole source (diminishing returns: Lin and Bilmes 2011, "A class of submodular functions for
 * document summarization"), in seconds of the stretch's own worth.
 */
const STRETCH = 3.3;
/** What says this share of what a stretch's best sentence says stands for all of it. */
const STANDS = 0.8;
/** Of so many sentences a stretch consists at least, as far as they will be told: a long source in a short time is told in episodes. */
const TOLD_OF_STRETCH = 1.4;
/** What it costs to leave out one sentence between two told ones of a passage, in seconds of average worth: what came of the first may stand there. */
const HOLE = 1.3;
/** What it costs to tell the same twice, in times of what the second telling is worth. */
const SAID_TWICE = 3;
const OPTIONS = { mip_rel_gap: 0.02, mip_max_nodes: 4000, random_seed: 7, threads: 1, parallel: 'off' };

/** Needs that hold for a unit given what was moved: adjacency to a moved unit can't be met. */
function blocked(unit: Unit, moved: number | null): boolean {
  return moved !== null && unit.needs.some((n) => n.to === moved && n.adjacent);
}

/** What must be told with a unit; a person can be named in full instead. */
const hardNeeds = (unit: Unit) => unit.needs.filter((n) => n.name === undefined);

const leansBack = (unit: Unit) => unit.needs.some((n) => n.adjacent && n.to === unit.index - 1);

const mean = (list: readonly number[]) => list.reduce((sum, x) => sum + x, 0) / Math.max(1, list.length);

/** How far each of a stretch's sentences stands for it: one that says little beside the best of it, little. */
function standing(group: readonly Unit[]): number[] {
  const said = group.map((u) => u.worth * u.ms);
  const best = said.reduce((a, b) => Math.max(a, b), 0);
  return said.map((v) => Math.min(1, v / (STANDS * best || 1)));
}

/**
 * Passages, or where there are more than can be told in the time several neighbouring ones together, under one heading if
 * possible: units by index, how far each stands for the stretch, and what telling it gains, more where they are strong.
 */
export function stretches(
  units: readonly Unit[],
  maxMs: number,
): { units: number[]; stands: number[]; gain: number }[] {
  const most = Math.max(1, Math.ceil(maxMs / mean(units.map((u) => u.ms)) / TOLD_OF_STRETCH));
  const passages = new Map<string, Unit[]>();
  for (const u of units) passages.set(u.block.id, [...(passages.get(u.block.id) ?? []), u]);
  const apart = (a: readonly Unit[], b: readonly Unit[]) =>
    (a.length + b.length) * (a.at(-1)!.block.under === b[0].block.under ? 1 : 3);
  const out = joinedNeighbours([...passages.values()], most, apart);
  return out.map((group) => ({
    units: group.map((u) => u.index),
    stands: standing(group),
    gain: STRETCH * Math.sqrt(group.length) * mean(group.map((u) => u.worth)),
  }));
}

function program(units: readonly Unit[], choice: Choice, objective: 'worth' | 'shortest'): string {
  const x = (i: number) => `x${i}`;
  const seconds = (ms: number) => (ms / 1000).toFixed(3);
  const banned = (u: Unit) => choice.bans.has(u.index) || blocked(u, choice.moved);
  const groups = objective === 'worth' ? stretches(units, choice.maxMs) : [];
  const bound = choice.cohesion ?? 1;
  const pairs = units.filter((u, k) => k > 0 && u.block.id === units[k - 1].block.id).map((u) => u.index);
  const paired = new Set(pairs);
  const holes = objective === 'worth' ? pairs.filter((i) => paired.has(i + 1)) : [];
  const usual = mean(units.map((u) => u.worth));
  const twice = objective === 'worth' ? units.filter((u) => u.repeats !== undefined && !hardNeeds(u).some((n) => n.to === u.repeats)) : []; // prettier-ignore
  const goal =
    objective === 'shortest'
      ? units.map((u) => `+ ${seconds(u.ms)} ${x(u.index)}`)
      : [
          ...units.map((u) => `+ ${((u.worth * u.ms) / 1000).toFixed(4)} ${x(u.index)}`),
          ...pairs.map((i) => `+ ${(usual * bound * (leansBack(units[i]) ? EXPLAINS : COHESION)).toFixed(4)} y${i}`),
          ...groups.map((g, b) => `+ ${g.gain.toFixed(4)} z${b}`),
          ...holes.map((i) => `- ${(usual * bound * HOLE).toFixed(4)} h${i}`),
          ...twice.map((u) => `- ${((SAID_TWICE * Math.max(u.worth, usual) * u.ms) / 1000).toFixed(3)} t${u.index}`),
        ]; // prettier-ignore
  const rows: string[] = [];
  const total = units.map((u) => `+ ${seconds(u.ms)} ${x(u.index)}`).join('\n ');
  if (objective === 'worth')
    rows.push(`low: ${total}\n >= ${seconds(choice.minMs)}`, `high: ${total}\n <= ${seconds(choice.maxMs)}`);
  for (const u of units) {
    hardNeeds(u).forEach((n, k) => rows.push(`n${u.index}_${k}: ${x(u.index)} - ${x(n.to)} <= 0`));
    if (u.needsNext) {
      const next = units[u.index + 1];
      rows.push(
        next ? `q${u.index}: ${x(u.index)} - ${x(next.index)} <= 0` : `q${u.index}: ${x(u.index)} <= 0`,
      );
    }
  }
  if (objective === 'worth')
    for (const i of pairs) rows.push(`a${i}: y${i} - ${x(i)} <= 0`, `b${i}: y${i} - ${x(i - 1)} <= 0`);
  holes.forEach((i) => rows.push(`o${i}: ${x(i - 1)} + ${x(i + 1)} - ${x(i)} - h${i} <= 1`));
  for (const u of twice) rows.push(`t${u.index}: ${x(u.index)} + ${x(u.repeats!)} - t${u.index} <= 1`);
  groups.forEach((g, b) =>
    rows.push(
      `w${b}: z${b} - ${g.units.map((i, k) => `${g.stands[k].toFixed(3)} ${x(i)}`).join(' - ')} <= 0`,
    ),
  );
  const bounds = [
    ...units.filter((u) => choice.pins.has(u.index)).map((u) => `${x(u.index)} = 1`),
    ...units.filter((u) => banned(u) && !choice.pins.has(u.index)).map((u) => `${x(u.index)} = 0`),
    ...(objective === 'worth' ? pairs.map((i) => `0 <= y${i} <= 1`) : []),
    ...holes.map((i) => `0 <= h${i} <= 1`),
    ...twice.map((u) => `0 <= t${u.index} <= 1`),
    ...groups.map((_, b) => `0 <= z${b} <= 1`),
  ];
  return `${objective === 'worth' ? 'Maximize' : 'Minimize'}\n obj: ${goal.join('\n ')}\nSubject To\n ${rows.length ? rows.join('\n ') : 'none: 0 x0 <= 0'}\nBounds\n ${bounds.join('\n ')}\nBinary\n ${units.map((u) => x(u.index)).join('\n ')}\nEnd\n`;
}

function run(
  units: readonly Unit[],
  choice: Choice,
  objective: 'worth' | 'shortest',
  solver: Solver,
): number[] | null {
  const result = solver.solve(program(units, choice, objective), OPTIONS);
  if (result.Status !== 'Optimal' && !/limit/i.test(result.Status)) return null;
  const chosen = units.filter((u) => (result.Columns[`x${u.index}`]?.Primal ?? 0) > 0.5).map((u) => u.index);
  return chosen.length ? chosen : null;
}

/** The best closed choice within the time, in reading order, or null when there is none. */
export const chooseUnits = (units: readonly Unit[], choice: Choice, solver: Solver): number[] | null =>
  run(units, choice, 'worth', solver);

/** The shortest closed choice with the pins, or null. */
export const shortestUnits = (units: readonly Unit[], choice: Choice, solver: Solver): number[] | null =>
  run(units, choice, 'shortest', solver);
