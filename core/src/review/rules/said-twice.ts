import { at, type ReviewLine, type Rule } from '../rule.ts';

/** Cosine of rarity-weighted stems from which two lines say the same (chosen on our own drafts). */
const SAME = 0.72;
const FEWEST_STEMS = 4;

type Weighted = { line: ReviewLine; weights: ReadonlyMap<string, number>; norm: number };

/** The lines that say again what an earlier one has said: same passage or same words, by tf-idf cosine (Salton and Buckley 1988). */
export function repeats(
  lines: readonly ReviewLine[],
): { line: ReviewLine; earlier: ReviewLine; score: number }[] {
  const seenIn = new Map<string, number>();
  for (const l of lines) for (const s of new Set(l.stems)) seenIn.set(s, (seenIn.get(s) ?? 0) + 1);
  const weighted = lines.map((line): Weighted => {
    const weights = new Map(
      [...new Set(line.stems)].map((s) => [s, Math.log(1 + lines.length / seenIn.get(s)!)]),
    );
    return { line, weights, norm: Math.sqrt([...weights.values()].reduce((n, w) => n + w * w, 0)) };
  });
  const byStem = new Map<string, number[]>();
  const out: { line: ReviewLine; earlier: ReviewLine; score: number }[] = [];
  weighted.forEach((w, i) => {
    const dots = new Map<number, number>();
    if (w.weights.size >= FEWEST_STEMS && !w.line.fixed)
      for (const [s, weight] of w.weights)
        for (const k of byStem.get(s) ?? [])
          dots.set(k, (dots.get(k) ?? 0) + weight * weighted[k].weights.get(s)!);
    let best = { k: -1, score: 0 };
    for (const [k, dot] of dots) {
      const score = dot / (w.norm * weighted[k].norm);
      if (score > best.score) best = { k, score };
    }
    if (best.score >= SAME && weighted[best.k].weights.size >= FEWEST_STEMS)
      out.push({ line: w.line, earlier: weighted[best.k].line, score: best.score });
    for (const s of w.weights.keys()) (byStem.get(s) ?? byStem.set(s, []).get(s)!).push(i);
  });
  return out;
}

export const saidTwice: Rule = {
  id: 'said-twice',
  area: 'hold',
  name: 'Said twice',
  cost: { each: 2, most: 8 },
  script: ({ lines }) =>
    repeats(lines).map(({ line, earlier }) => ({
      ...at(
        line,
        0,
        line.text.length,
        `Said ${((line.startMs - earlier.startMs) / 1000).toFixed(0)} s before: “${short(earlier.text)}”.`,
        {
          says: 'Drop the line',
          safe: false,
          edits: [{ line: line.id, remove: true }],
        },
      ),
      line: line.id,
    })),
};

const short = (text: string) =>
  text.length <= 60 ? text.replace(/[.!?]$/, '') : `${text.slice(0, 58).replace(/\s+\S*$/, '')} …`;
