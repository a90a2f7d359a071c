import { numbersIn } from '../../facts/extract.ts';
import { oldFigures } from '../../trace/old.ts';
import { at, type PreparedSources, type Rule } from '../rule.ts';

const memo = new WeakMap<PreparedSources, ReturnType<typeof oldFigures>>();
const figuresOf = (sources: PreparedSources) => {
  let known = memo.get(sources);
  if (!known) memo.set(sources, (known = oldFigures(sources.list)));
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
    const figures = figuresOf(sources);
    return line.from.flatMap((f) =>
      (figures.get(`${f.source}:${f.fact}`) ?? []).flatMap(({ value, newer }) => {
        const here = numbersIn(line.text).find((n) => n.value === value);
        return here
          ? [
              {
                ...at(line, here.start, here.end, `Source ${newer.source} is newer and says ${newer.says}.`),
                passage: { source: newer.source, fact: newer.fact, text: newer.says },
              },
            ]
          : [];
      }),
    );
  },
};
