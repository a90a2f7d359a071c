/** Which atoms of a page are its article: two rounds of trees, the second seeing what the first thought of the neighbours. */
import type { Atom } from './atom.ts';
import { featuresOf, type PageContext } from './features.ts';
import { chance, oddsOf, type Forest } from './trees.ts';

export interface PageModel {
  /** Log-odds of words for furniture. */
  lexicon: Readonly<Record<string, number>>;
  first: Forest;
  second: Forest;
}

/** How sure it is, 0 to 1, that each atom belongs to the article. */
export function sureness(atoms: readonly Atom[], title: string, model: PageModel, tagged: boolean): number[] {
  const context: PageContext = { title, lexicon: new Map(Object.entries(model.lexicon)), tagged };
  const rows = featuresOf(atoms, context);
  const values = (forest: Forest, row: Readonly<Record<string, number>>) => forest.features.map((f) => row[f] ?? 0); // prettier-ignore
  const first = rows.map((r) => chance(oddsOf(model.first, values(model.first, r))));
  const seen = withNeighbours(atoms, rows, first, tagged);
  return seen.map((r) => chance(oddsOf(model.second, values(model.second, r))));
}

/** The rows with what was thought of the atoms around each. */
export function withNeighbours(
  atoms: readonly Atom[],
  rows: readonly Readonly<Record<string, number>>[],
  first: readonly number[],
  tagged: boolean,
): Record<string, number>[] {
  const sums = new Map<string, { sum: number; n: number }>();
  const keysOf = (a: Atom) =>
    tagged ? [`l${a.look}`, `b${a.inside[1] ?? ''}`, `c${a.inside[2] ?? ''}`] : [];
  atoms.forEach((a, i) => {
    for (const key of keysOf(a)) {
      const s = sums.get(key) ?? { sum: 0, n: 0 };
      s.sum += first[i];
      s.n++;
      sums.set(key, s);
    }
  });
  return rows.map((row, i) => {
    const out: Record<string, number> = { ...row, p: first[i] };
    for (const k of [-4, -3, -2, -1, 1, 2, 3, 4]) out[`p${k}`] = first[i + k] ?? 0;
    keysOf(atoms[i]).forEach((key, k) => {
      const s = sums.get(key)!;
      // What is thought of the others, itself left out.
      out[`mean${k}`] = s.n > 1 ? (s.sum - first[i]) / (s.n - 1) : -1;
    });
    return out;
  });
}
