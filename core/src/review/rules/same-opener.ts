import { at, type Rule } from '../rule.ts';

const TIMES = 3;

export const sameOpener: Rule = {
  id: 'same-opener',
  area: 'language',
  name: 'Lines that open alike',
  cost: { each: 1, most: 6 },
  script: ({ lines }) => {
    const openers = lines.map((l) => l.words[0]?.text.toLowerCase() ?? '');
    const out = [];
    for (let i = 0; i < lines.length;) {
      let k = i + 1;
      while (k < lines.length && openers[k] === openers[i] && openers[i]) k++;
      const spoken = lines.slice(i, k).some((l) => l.quotes.length > 0);
      if (k - i >= TIMES && !spoken) {
        const line = lines[k - 1];
        out.push({
          ...at(
            line,
            line.words[0].start,
            line.words[0].end,
            `${k - i} lines on end open with “${line.words[0].text}”.`,
          ),
          line: line.id,
        });
      }
      i = k;
    }
    return out;
  },
};
