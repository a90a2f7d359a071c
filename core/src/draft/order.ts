/** The order a shape tells in, where it is not the source's: by time, by the places it comes to, or by what its parts want. Nothing comes before what it points at. */
import type { Shape } from '../plan/shapes/shape.ts';
import type { Unit } from './units.ts';

/** Whether a unit stays with the one before it: neighbours of a passage, and what leans on the sentence before. */
export const staysWith = (before: Unit, u: Unit): boolean =>
  before.block.id === u.block.id ||
  u.needs.some((n) => n.adjacent && n.to === before.index) ||
  before.needsNext;

/** Units that stay together. */
function clusters(units: readonly Unit[]): Unit[][] {
  const out: Unit[][] = [];
  for (const u of units) {
    const before = out.at(-1)?.at(-1);
    if (before && staysWith(before, u)) out.at(-1)!.push(u);
    else out.push([u]);
  }
  return out;
} // prettier-ignore

/** The first day a cluster tells of, or null: a date that is named, not one that was only counted back to. */
const dayOf = (cluster: readonly Unit[]): string | null =>
  cluster
    .flatMap((u) => u.sentence.fact.dates.map((d) => d.iso))
    .filter((iso) => /^\d{4}/.test(iso))
    .sort()[0] ?? null;

/** A part is wanted where its own words speak for it, not where it merely would do. */
const WANTED = 0.5;

/** Where each cluster wants to stand, lower is earlier; what says nothing of it stays with the one before. */
function wantedPlaces(shape: Shape, list: readonly (readonly Unit[])[], last: number): (number | string)[] {
  if (shape.order === 'time') {
    let day = '';
    return list.map((c) => (day = dayOf(c) ?? day));
  }
  let at = 0;
  if (shape.order === 'places') {
    const met: string[] = [];
    return list.map((c) => {
      const named = c.flatMap((u) => u.sentence.fact.names.filter((n) => n.type === 'place').map((n) => n.text));
      met.push(...named.filter((n) => !met.includes(n)));
      return (at = named.length ? Math.min(...named.map((n) => met.indexOf(n))) : at);
    });
  }
  return list.map((c) => {
    const wants = shape.parts.map(
      (part) =>
        c.reduce((n, u) => n + part.wants({ fact: u.sentence.fact, at: u.index / last, label: u.part ?? u.block.under ?? '' }), 0) / c.length,
    );
    const most = Math.max(...wants);
    return (at = most >= WANTED ? wants.indexOf(most) : at);
  });
} // prettier-ignore

/**
 * Units in the order of a shape that the writer asked for. A cluster waits until all that it points at is told; of those that
 * may come, the one whose place is first is taken.
 */
export function inShapeOrder(shape: Shape, units: readonly Unit[], last: number): Unit[] {
  const list = clusters(units);
  const at = new Map(list.flatMap((c, i) => c.map((u) => [u.index, i] as const)));
  const waitsFor = list.map(
    (c, i) =>
      new Set(
        c.flatMap((u) =>
          u.needs.flatMap((n) => {
            const other = at.get(n.to);
            return n.name !== undefined || other === undefined || other === i ? [] : [other];
          }),
        ),
      ),
  );
  const places = wantedPlaces(shape, list, Math.max(1, last));
  const left = new Set(list.keys());
  const out: Unit[] = [];
  while (left.size) {
    const ready = [...left].filter((i) => [...waitsFor[i]].every((w) => !left.has(w)));
    // References of a source point back only; should they ever run in a circle, its order stands.
    const [next] = ready.length ? ready.sort((a, b) => (places[a] < places[b] ? -1 : places[a] > places[b] ? 1 : a - b)) : left;
    left.delete(next);
    out.push(...list[next]);
  }
  return out;
} // prettier-ignore
