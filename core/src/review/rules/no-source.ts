import { at, type Rule } from '../rule.ts';

/** Enough of content to claim something. */
const FEWEST_STEMS = 4;

/** A line that claims and rests on nothing; framing, questions and the writer's own address are left alone. */
export const noSource: Rule = {
  id: 'no-source',
  area: 'truth',
  name: 'A claim that rests on nothing',
  cost: { each: 1.5, most: 12 },
  script: ({ lines, sources }) =>
    sources
      ? lines
          .filter(
            (l) =>
              !l.fixed &&
              !l.from.length &&
              l.role !== 'frame' &&
              l.role !== 'lead' &&
              l.stems.length >= FEWEST_STEMS &&
              !/\?["”]?$/.test(l.text) &&
              !/^(?:think|imagine|picture|remember|look|listen|tell|write|if you|you|let)\b/i.test(l.text) &&
              !sources.passageOf(l),
          )
          .map((l) => ({ ...at(l, 0, l.text.length, 'No passage of the sources carries this.'), line: l.id }))
      : [],
};
