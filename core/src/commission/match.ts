/**
 * Which section each line of a reply belongs to: by marks and headings where there are any, and by the facts the lines
 * use, along the reply as a whole (dynamic programming, Viterbi 1967): sections may come in another order, merged or half missing.
 */
import type { Aligned } from '../trace/align.ts';
import { keyOf } from './keys.ts';
import { sectionOfHeading, type ReadLine } from './read.ts';
import type { OrderedSection } from './types.ts';

/** What speaks for a section: a mark, a heading, a fact that only it has, a fact that several have. */
const MARKED = 4;
const HEADED = 2;
const OWN_FACT = 1.2;
const SHARED_FACT = 0.5;
/** What it costs to go on to the next section, and to jump. */
const NEXT_COST = 0.3;
const JUMP_COST = 0.9;

/** For every line the id of its section. `sections` is not empty. */
export function matchSections(
  lines: readonly ReadLine[],
  aligned: readonly (readonly Aligned[])[],
  sections: readonly OrderedSection[],
): string[] {
  if (sections.length === 1) return lines.map(() => sections[0].id);
  const having = new Map<string, number[]>();
  sections.forEach((s, i) => {
    for (const f of s.facts) {
      const key = keyOf(f.source, f.fact);
      (having.get(key) ?? having.set(key, []).get(key)!).push(i);
    }
  });
  const headings = new Map<string, number>();
  for (const { heading } of lines) {
    if (!heading || headings.has(heading)) continue;
    const named = sectionOfHeading(heading, sections);
    headings.set(heading, named ? sections.indexOf(named) : -1);
  }
  const says = lines.map((line, n) =>
    sections.map((s, i) => {
      let sum = 0;
      if (line.section === s.number) sum += MARKED;
      if (line.heading && headings.get(line.heading) === i) sum += HEADED;
      for (const a of aligned[n]) {
        const places = having.get(keyOf(a.source, a.fact)) ?? [];
        if (places.includes(i))
          sum += (places.length === 1 ? OWN_FACT : SHARED_FACT) * Math.min(1, a.score + 0.4);
      }
      return sum;
    }),
  );
  const cost = (from: number, to: number) => (from === to ? 0 : to === from + 1 ? NEXT_COST : JUMP_COST);
  let sums = says[0]?.map((x, i) => x - (i === 0 ? 0 : NEXT_COST)) ?? [];
  const back: number[][] = [];
  for (let n = 1; n < lines.length; n++) {
    const from = sections.map((_, to) => {
      let best = 0;
      for (let i = 1; i < sections.length; i++)
        if (sums[i] - cost(i, to) > sums[best] - cost(best, to)) best = i;
      return best;
    });
    back.push(from);
    sums = sections.map((_, to) => sums[from[to]] - cost(from[to], to) + says[n][to]);
  }
  let at = sums.indexOf(Math.max(...sums));
  const path = lines.length ? [at] : [];
  for (let n = back.length - 1; n >= 0; n--) path.unshift((at = back[n][at]));
  return together(path, lines).map((i) => sections[i].id);
}

/** A reply goes back to an earlier section only with so many lines. */
const FEWEST_BACK = 2;

/** A run of a section's lines that stands apart from its longest, unmarked, belongs to the section it stands in: what is told in an order stays in it. */
function together(path: readonly number[], lines: readonly ReadLine[]): number[] {
  const runs: { section: number; from: number; length: number; marked: boolean }[] = [];
  path.forEach((section, n) => {
    const last = runs[runs.length - 1];
    const marked = lines[n].section !== null;
    if (last?.section === section) {
      last.length++;
      last.marked ||= marked;
    } else runs.push({ section, from: n, length: 1, marked });
  });
  const out = [...path];
  runs.forEach((run, i) => {
    const others = runs.filter((r) => r.section === run.section && r !== run);
    const second = others.some(
      (r) => r.length > run.length || (r.length === run.length && r.from < run.from),
    );
    const back = run.length < FEWEST_BACK && runs.slice(0, i).some((r) => r.section > run.section);
    if (run.marked || !(second || back)) return;
    const host = runs[i - 1] ?? runs[i + 1];
    out.fill(out[host.from] ?? host.section, run.from, run.from + run.length);
  });
  return out;
}
