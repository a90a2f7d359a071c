/**
 * Which fact a line rests on when nothing says so: cosine of rarity-weighted stems (tf-idf, Salton and Buckley 1988),
 * raised by values and names that both have. Facts are found through an index of stems, so that the cost grows with
 * what a line shares and not with all pairs.
 */
import { stems } from '../facts/centrality.ts';
import { numbersIn } from '../facts/extract.ts';

export interface AlignFact {
  source: string;
  id: string;
  text: string;
}
export interface Aligned {
  source: string;
  fact: string;
  /** 0 to about 1.5; see LEAST. */
  score: number;
}
export interface FactIndex {
  facts: readonly AlignFact[];
  find: (line: string) => Aligned | null;
}

/** Below this a line and a fact are not about the same thing (chosen on our own drafts). */
export const LEAST = 0.34;
const VALUE_BONUS = 0.15;
const MOST_VALUES = 3;

export function indexFacts(facts: readonly AlignFact[]): FactIndex {
  const bags = facts.map((f) => new Set(stems(f.text)));
  const values = facts.map((f) => new Set(numbersIn(f.text).map((n) => n.value)));
  const byStem = new Map<string, number[]>();
  bags.forEach((bag, i) => {
    for (const s of bag) (byStem.get(s) ?? byStem.set(s, []).get(s)!).push(i);
  });
  const weight = (stem: string) => Math.log(1 + facts.length / (byStem.get(stem)?.length ?? 0.5));
  const norms = bags.map((bag) => Math.sqrt([...bag].reduce((n, s) => n + weight(s) ** 2, 0)));
  return {
    facts,
    find: (line) => {
      const own = new Set(stems(line));
      if (!own.size) return null;
      const norm = Math.sqrt(
        [...own].reduce((n, s) => n + Math.min(weight(s), Math.log(1 + facts.length)) ** 2, 0),
      );
      const dots = new Map<number, number>();
      for (const s of own)
        for (const i of byStem.get(s) ?? []) dots.set(i, (dots.get(i) ?? 0) + weight(s) ** 2);
      const told = numbersIn(line).map((n) => n.value);
      let best: Aligned | null = null;
      for (const [i, dot] of dots) {
        const shared = Math.min(MOST_VALUES, told.filter((v) => values[i].has(v)).length);
        const score = dot / (norm * norms[i] || 1) + shared * VALUE_BONUS;
        if (score >= LEAST && (!best || score > best.score))
          best = { source: facts[i].source, fact: facts[i].id, score };
      }
      return best;
    },
  };
}
