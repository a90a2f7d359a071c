import { isClose } from '../../trace/overlap.ts';
import { at, type Rule } from '../rule.ts';

/** Overlap up to this share is fine (common practice, no published source). */
export const FINE_OVERLAP = 0.1;

export const closeLine: Rule = {
  id: 'close-line',
  area: 'overlap',
  name: 'Still in a source’s words',
  cost: { each: 0.6, most: 15 },
  script: ({ overlap, lines, sources }) => {
    if (!overlap || overlap.share <= FINE_OVERLAP) return [];
    return overlap.lines.flatMap((o, i) => {
      const line = lines[i];
      if (!isClose(o) || line.fixed) return [];
      const [first] = [...o.ranges].sort((a, b) => b.end - b.start - (a.end - a.start));
      const passage = sources?.passageOf(line);
      return [
        {
          ...at(line, first.start, first.end, `${o.shared} of ${o.words} words as in the source.`),
          line: line.id,
          ...(passage
            ? { passage: { source: passage.source.letter, fact: passage.fact.id, text: passage.fact.text } }
            : {}),
        },
      ];
    });
  },
};
