/**
 * Which facts a line rests on when nothing says so. The likeness of a line and a fact is that of Mihalcea, Corley and
 * Strapparava ("Corpus-based and knowledge-based measures of text semantic similarity", 2006): every word looks for the
 * word most like it on the other side, weighted by rarity, both ways; values count as words. Lines on end are aligned
 * together by dynamic programming that favours the order of the source, after Nelken and Shieber ("Towards robust
 * context-sensitive sentence alignment for monolingual corpora", 2006). Facts are found through an index, so that the
 * cost grows with what a line shares and not with all pairs.
 */
import { stems } from '../facts/centrality.ts';
import { datesIn, numbersIn } from '../facts/extract.ts';
import { baseForm, type Kin } from '../language/kin.ts';
import { inBase } from './retold/figures.ts';

export interface AlignFact {
  source: string;
  id: string;
  text: string;
}
export interface Aligned {
  source: string;
  fact: string;
  /** 0 to about 1; see LEAST. */
  score: number;
}
export interface FactIndex {
  facts: readonly AlignFact[];
  /** The fact most like a line by itself, or null. */
  find: (line: string) => Aligned | null;
  /** For each of a run of lines the facts that it rests on, the surest first; none for a line that claims nothing they say. */
  align: (lines: readonly string[]) => Aligned[][];
}

/** From this likeness on a line rests on a fact, whatever stands around it (chosen on the labelled replies that were seen). */
export const LEAST = 0.3;
/** What it adds that the line before rests on the same fact, on the one before it, or on one close before. */
const SAME_FACT = 0.15;
const NEXT_FACT = 0.18;
const NEAR_FACT = 0.05;
const NEAR = 3;
const CANDIDATES = 8;
const MOST_KEPT = 4000;
/** A word of the same meaning counts so much beside the word itself. */
const KIN_WEIGHT = 0.75;
const WIDER_WEIGHT = 0.45;
/** A value is rarer than any word. */
const VALUE_WEIGHT = 1.3;
/** A telling may be short: how far the fact covers the line counts more than how far the line covers the fact. */
const LINE_SHARE = 0.66;

/** Words for anybody and anything say nothing of what a line is about. */
const ANYBODY =
  /^(?:nobody|somebody|everybody|anybody|noone|someone|everyone|anyone|noth|someth|everyth|anyth|nothing|something|everything|anything)$/;

/** Roots of the content words of a text, and its values as "#12". */
function keysOf(text: string): Set<string> {
  let plain = text;
  const values: string[] = [];
  for (const d of datesIn(text)) values.push(...d.iso.split('-').filter((p) => p.length === 4).map((y) => `#${Number(y)}`)); // prettier-ignore
  for (const n of numbersIn(text)) {
    values.push(`#${Math.abs(n.value)}`);
    const measure = inBase(n.value, n.unit ?? '');
    if (measure.unit && measure.value !== Math.abs(n.value)) values.push(`#${measure.value} ${measure.unit}`);
    plain = plain.slice(0, n.start) + ' '.repeat(n.end - n.start) + plain.slice(n.end);
  }
  return new Set([
    ...stems(plain)
      .flatMap((s) => stems(baseForm(s)))
      .filter((s) => !/^\d/.test(s) && !ANYBODY.test(s)),
    ...values,
  ]);
}

export function indexFacts(facts: readonly AlignFact[], kin: Kin | null = null): FactIndex {
  const keys = facts.map((f) => keysOf(f.text));
  const count = new Map<string, number>();
  for (const own of keys) for (const k of own) count.set(k, (count.get(k) ?? 0) + 1);
  const rarest = Math.log(1 + facts.length);
  const weight = (k: string) =>
    Math.min(rarest, Math.log(1 + facts.length / (count.get(k) ?? 0.5))) *
    (k.startsWith('#') ? VALUE_WEIGHT : 1);
  const totals = keys.map((own) => [...own].reduce((n, k) => n + weight(k), 0));
  const exact = new Map<string, number[]>();
  const byOwn = new Map<string, { fact: number; key: string }[]>();
  const byWider = new Map<string, { fact: number; key: string }[]>();
  const put = <V>(map: Map<string, V[]>, k: string, v: V) => (map.get(k) ?? map.set(k, []).get(k)!).push(v);
  keys.forEach((own, fact) => {
    for (const key of own) {
      put(exact, key, fact);
      if (!kin || key.startsWith('#')) continue;
      const { own: groups, wider } = kin.of(key);
      for (const g of groups) put(byOwn, g, { fact, key });
      for (const g of wider) put(byWider, g, { fact, key });
    }
  });

  const kept = new Map<string, Map<number, number>>();
  /** Likeness to every fact that shares anything with the line; kept, since a reply that streams is aligned again and again. */
  const likeness = (line: string): Map<number, number> => {
    let known = kept.get(line);
    if (!known) {
      if (kept.size > MOST_KEPT) kept.clear();
      kept.set(line, (known = likenessOf(line)));
    }
    return known;
  };
  const likenessOf = (line: string): Map<number, number> => {
    const own = keysOf(line);
    if (!own.size) return new Map();
    const total = [...own].reduce((n, k) => n + weight(k), 0);
    /** By fact: what of the line it covers, and its own words that are covered, each by the best match. */
    const covered = new Map<number, { line: number; words: Map<string, number> }>();
    const at = (fact: number) =>
      covered.get(fact) ?? covered.set(fact, { line: 0, words: new Map() }).get(fact)!;
    for (const k of own) {
      const best = new Map<number, { factor: number; key: string }>();
      const offer = (fact: number, factor: number, key: string) => {
        if ((best.get(fact)?.factor ?? 0) < factor) best.set(fact, { factor, key });
      };
      for (const fact of exact.get(k) ?? []) offer(fact, 1, k);
      if (kin && !k.startsWith('#')) {
        const { own: groups, wider } = kin.of(k);
        for (const g of groups) {
          for (const e of byOwn.get(g) ?? []) offer(e.fact, KIN_WEIGHT, e.key);
          for (const e of byWider.get(g) ?? []) offer(e.fact, WIDER_WEIGHT, e.key);
        }
        for (const g of wider) for (const e of byOwn.get(g) ?? []) offer(e.fact, WIDER_WEIGHT, e.key);
      }
      for (const [fact, { factor, key }] of best) {
        const entry = at(fact);
        entry.line += factor * Math.min(weight(k), factor === 1 ? Infinity : weight(key));
        entry.words.set(key, Math.max(entry.words.get(key) ?? 0, factor));
      }
    }
    return new Map(
      [...covered].map(([fact, { line: shared, words }]) => {
        let back = 0;
        for (const [key, factor] of words) back += factor * weight(key);
        return [
          fact,
          LINE_SHARE * (shared / (total || 1)) + (1 - LINE_SHARE) * (back / (totals[fact] || 1)),
        ] as const;
      }),
    );
  };
  const asAligned = (fact: number, score: number): Aligned => ({
    source: facts[fact].source,
    fact: facts[fact].id,
    score,
  });

  const align = (lines: readonly string[]): Aligned[][] => {
    interface State {
      fact: number;
      own: number;
      sum: number;
      from: State | null;
      /** The last fact told before it. */
      last: number;
    }
    const like = lines.map(likeness);
    let layer: State[] = [{ fact: -1, own: 0, sum: 0, from: null, last: -1 }];
    for (const scores of like) {
      const list = [...scores].sort((a, b) => b[1] - a[1]);
      const near = layer.flatMap((s) => (s.last < 0 ? [] : [s.last, s.last + 1]));
      const tried = [
        ...list.slice(0, CANDIDATES),
        ...list.slice(CANDIDATES).filter(([fact]) => near.includes(fact)),
      ];
      const next: State[] = [];
      for (const [fact, own] of [[-1, 0] as const, ...tried]) {
        // Without a fact every history is worth keeping only if it is the best of its last fact.
        const best = new Map<number, State>();
        for (const from of layer) {
          const step = fact - from.last;
          const sameSource = fact >= 0 && from.last >= 0 && facts[fact].source === facts[from.last].source;
          const bonus = !sameSource
            ? 0
            : step === 0
              ? SAME_FACT
              : step === 1
                ? NEXT_FACT
                : step > 1 && step <= NEAR
                  ? NEAR_FACT
                  : 0;
          const sum = from.sum + (fact < 0 ? 0 : own + bonus - LEAST);
          const last = fact < 0 ? from.last : fact;
          const known = best.get(last);
          if (!known || sum > known.sum) best.set(last, { fact, own, sum, from, last });
        }
        next.push(...best.values());
      }
      layer = next.sort((a, b) => b.sum - a.sum).slice(0, 3 * CANDIDATES);
    }
    const chosen: number[] = [];
    for (let s: State | null = layer[0]; s?.from; s = s.from) chosen.unshift(s.fact);
    return chosen.map((fact, i) =>
      fact < 0 ? [] : [asAligned(fact, like[i].get(fact)!), ...others(lines[i], fact, like[i])],
    );
  };

  const keptOthers = new Map<string, Aligned[]>();
  /** Further facts that say what the first does not cover: a line may join two. */
  const others = (line: string, first: number, scores: ReadonlyMap<number, number>): Aligned[] => {
    const key = `${first} ${line}`;
    let known = keptOthers.get(key);
    if (!known) {
      if (keptOthers.size > MOST_KEPT) keptOthers.clear();
      keptOthers.set(key, (known = othersOf(line, first, scores)));
    }
    return known;
  };
  const othersOf = (line: string, first: number, scores: ReadonlyMap<number, number>): Aligned[] => {
    const own = keysOf(line);
    const left = [...own].filter((k) => !covers(keys[first], k, kin));
    const total = [...own].reduce((n, k) => n + weight(k), 0);
    const lacking = left.reduce((n, k) => n + weight(k), 0);
    if (lacking < total * OTHER_LACK) return [];
    return [...scores]
      .filter(([fact]) => fact !== first && facts[fact].source === facts[first].source)
      .map(([fact]) => ({
        fact,
        // A value alone joins no fact: a wrong one stands somewhere else by chance.
        adds:
          left
            .filter((k) => !k.startsWith('#') && covers(keys[fact], k, kin))
            .reduce((n, k) => n + weight(k), 0) / total,
      }))
      .filter(({ adds }) => adds >= OTHER_ADDS)
      .sort((a, b) => b.adds - a.adds)
      .slice(0, 1)
      .map(({ fact, adds }) => asAligned(fact, adds));
  };

  return {
    facts,
    find: (line) => {
      let best: Aligned | null = null;
      for (const [fact, score] of likeness(line))
        if (score >= LEAST && (!best || score > best.score)) best = asAligned(fact, score);
      return best;
    },
    align,
  };
}

/** A second fact is named when so much of a line is not in the first, and it has so much of that. */
const OTHER_LACK = 0.35;
const OTHER_ADDS = 0.3;

const covers = (keys: ReadonlySet<string>, key: string, kin: Kin | null): boolean =>
  keys.has(key) ||
  (kin !== null && !key.startsWith('#') && [...keys].some((k) => kin.likeness(k, key) === 1));
