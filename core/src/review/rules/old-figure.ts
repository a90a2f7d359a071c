import { compareSources } from '../../facts/compare.ts';
import type { SourceDocument } from '../../source/document.ts';
import { numbersIn } from '../../facts/extract.ts';
import { at, type PreparedSources, type Rule } from '../rule.ts';

const memo = new WeakMap<PreparedSources, ReturnType<typeof compareSources>['disagreements']>();
const disagreements = (sources: PreparedSources) => {
  let known = memo.get(sources);
  if (!known) {
    known =
      sources.list.length < 2
        ? []
        : compareSources(
            sources.list.map((s) => ({
              letter: s.letter,
              facts: s.facts,
              document: { published: s.published } as unknown as SourceDocument,
            })),
          ).disagreements;
    memo.set(sources, known);
  }
  return known;
};

/** A figure that a newer report has corrected. */
export const oldFigure: Rule = {
  id: 'old-figure',
  area: 'truth',
  name: 'An old figure',
  cost: { each: 5, most: 15 },
  line: (line, _tools, sources) => {
    if (!sources) return [];
    return disagreements(sources).flatMap((d) => {
      if (d.about !== 'number' || d.newer === undefined) return [];
      const newer = d.sides[d.newer];
      const older = d.sides.find((s) => s !== newer)!;
      if (!line.from.some((f) => f.source === older.source && f.fact === older.fact)) return [];
      const [was] = numbersIn(older.says);
      const here = was && numbersIn(line.text).find((n) => n.value === was.value);
      return here
        ? [
            {
              ...at(line, here.start, here.end, `Source ${newer.source} is newer and says ${newer.says}.`),
              passage: { source: newer.source, fact: newer.fact, text: newer.says },
            },
          ]
        : [];
    });
  },
};
