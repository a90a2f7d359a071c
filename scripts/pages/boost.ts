/** Grows boosted trees for yes or no (Friedman 2001: logistic loss, Newton leaves). Seeded; a run gives the same trees each time. */
import { chance, type Forest } from '../../core/src/source/page/trees.ts';

export interface Row {
  values: Readonly<Record<string, number>>;
  label: 0 | 1;
  weight: number;
}
export interface Growing {
  trees: number;
  depth: number;
  rate: number;
  /** The least weight a leaf stands on. */
  least: number;
  /** The share of rows and of features a tree is shown. */
  sample: number;
  features: number;
  seed: number;
}

const BINS = 48;

export function random(seed: number): () => number {
  let s = seed >>> 0;
  return () => {
    s = (s + 0x6d2b79f5) >>> 0;
    let t = s;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

export function grow(
  rows: readonly Row[],
  names: readonly string[],
  how: Growing,
): { forest: Forest; gains: Map<string, number> } {
  const n = rows.length;
  const draw = random(how.seed);
  const edges = names.map((name) => {
    const sorted = rows.map((r) => r.values[name] ?? 0).sort((a, b) => a - b);
    const cuts = new Set<number>();
    for (let b = 1; b < BINS; b++) {
      const lo = sorted[Math.floor((b * n) / BINS) - 1] ?? sorted[0];
      let k = Math.floor((b * n) / BINS);
      while (k < n && sorted[k] <= lo) k++;
      if (k < n) cuts.add((lo + sorted[k]) / 2);
    }
    return [...cuts].sort((a, b) => a - b);
  });
  const bins = names.map((name, f) =>
    Uint8Array.from(rows, (r) => {
      const v = r.values[name] ?? 0;
      let k = 0;
      while (k < edges[f].length && v > edges[f][k]) k++;
      return k;
    }),
  );
  const weights = Float64Array.from(rows, (r) => r.weight);
  const total = rows.reduce((s, r) => s + r.weight, 0);
  const yes = rows.reduce((s, r) => s + r.weight * r.label, 0);
  const base = Math.log(yes / (total - yes));
  const score = new Float64Array(n).fill(base);
  const trees: number[][][] = [];
  const gains = new Map<string, number>();
  for (let t = 0; t < how.trees; t++) {
    const g = new Float64Array(n);
    const h = new Float64Array(n);
    for (let i = 0; i < n; i++) {
      const p = chance(score[i]);
      g[i] = weights[i] * (rows[i].label - p);
      h[i] = weights[i] * p * (1 - p);
    }
    const shown = [...Array(n).keys()].filter(() => draw() < how.sample);
    const offered = names.map((_, f) => f).filter(() => draw() < how.features);
    const tree: number[][] = [];
    const cut: number[] = [];
    const build = (members: number[], depth: number): number => {
      const at = tree.length;
      tree.push([0]);
      let G = 0;
      let H = 0;
      let W = 0;
      for (const i of members) {
        G += g[i];
        H += h[i];
        W += weights[i];
      }
      let best = { gain: 1e-3, f: -1, k: -1 };
      if (depth < how.depth && W >= 2 * how.least)
        for (const f of offered) {
          const size = edges[f].length + 1;
          const gs = new Float64Array(size);
          const hs = new Float64Array(size);
          const ws = new Float64Array(size);
          const bin = bins[f];
          for (let m = 0; m < members.length; m++) {
            const i = members[m];
            const b = bin[i];
            gs[b] += g[i];
            hs[b] += h[i];
            ws[b] += weights[i];
          }
          let gl = 0;
          let hl = 0;
          let wl = 0;
          for (let k = 0; k < size - 1; k++) {
            gl += gs[k];
            hl += hs[k];
            wl += ws[k];
            if (wl < how.least || W - wl < how.least) continue;
            const gain = gl ** 2 / (hl + 1) + (G - gl) ** 2 / (H - hl + 1) - G ** 2 / (H + 1);
            if (gain > best.gain) best = { gain, f, k };
          }
        }
      if (best.f < 0) tree[at] = [Math.round(((how.rate * G) / (H + 1)) * 1e4) / 1e4];
      else {
        gains.set(names[best.f], (gains.get(names[best.f]) ?? 0) + best.gain);
        const left = build(members.filter((i) => bins[best.f][i] <= best.k), depth + 1); // prettier-ignore
        const right = build(members.filter((i) => bins[best.f][i] > best.k), depth + 1); // prettier-ignore
        cut[at] = best.k;
        tree[at] = [best.f, Math.round(edges[best.f][best.k] * 1e5) / 1e5, left, right];
      }
      return at;
    };
    build(shown, 0);
    trees.push(tree);
    for (let i = 0; i < n; i++) {
      let at = 0;
      while (tree[at].length === 4) at = bins[tree[at][0]][i] <= cut[at] ? tree[at][2] : tree[at][3];
      score[i] += tree[at][0];
    }
  }
  return { forest: { features: [...names], base, trees }, gains };
}
