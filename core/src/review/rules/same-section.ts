import type { Rule } from '../rule.ts';

/** Share of passages, or cosine of stems, from which two sections tell the same. */
const SHARED_PASSAGES = 0.5;
const SAME_WORDS = 0.6;
const FEWEST = 8;

export const sameSection: Rule = {
  id: 'same-section',
  area: 'hold',
  name: 'Two sections tell the same',
  cost: { each: 4, most: 8 },
  script: ({ sections }) => {
    const seenIn = new Map<string, number>();
    const bags = sections.map((s) => {
      const bag = new Map<string, number>();
      for (const l of s.lines) for (const stem of l.stems) bag.set(stem, (bag.get(stem) ?? 0) + 1);
      for (const stem of bag.keys()) seenIn.set(stem, (seenIn.get(stem) ?? 0) + 1);
      return bag;
    });
    const passages = sections.map(
      (s) => new Set(s.lines.flatMap((l) => l.from.flatMap((f) => (f.fact ? [`${f.source}${f.fact}`] : [])))),
    );
    const weight = (bag: Map<string, number>, stem: string) =>
      (bag.get(stem) ?? 0) * Math.log(1 + sections.length / (seenIn.get(stem) ?? 1));
    const out: { line: string; reason: string }[] = [];
    sections.forEach((s, i) => {
      for (let k = 0; k < i; k++) {
        const shared = [...passages[i]].filter((p) => passages[k].has(p)).length;
        const byPassage =
          passages[i].size >= 3 &&
          shared / Math.min(passages[i].size, Math.max(1, passages[k].size)) >= SHARED_PASSAGES &&
          shared >= 3;
        const [a, b] = [bags[i], bags[k]];
        let dot = 0;
        let left = 0;
        let right = 0;
        for (const stem of a.keys()) {
          dot += weight(a, stem) * weight(b, stem);
          left += weight(a, stem) ** 2;
        }
        for (const stem of b.keys()) right += weight(b, stem) ** 2;
        const byWords =
          a.size >= FEWEST && b.size >= FEWEST && dot / Math.sqrt(left * right || 1) >= SAME_WORDS;
        if (byPassage || byWords) {
          out.push({
            line: s.lines[0]?.id ?? '',
            reason: `“${s.title}” tells ${byPassage ? 'the passages of' : 'much the same as'} “${sections[k].title}” again.`,
          });
          break;
        }
      }
    });
    return out;
  },
};
