import { at, isQuoted, type Rule } from '../rule.ts';
import phrases from '../../../data/stock-phrases.json';

const STOCK = new RegExp(`\\b(?:${phrases.phrases.join('|')})`, 'giu');

export const stockPhrase: Rule = {
  id: 'stock-phrase',
  area: 'language',
  name: 'Stock phrases',
  cost: { each: 1, most: 8 },
  line: (line) =>
    [...line.text.matchAll(STOCK)]
      .filter((m) => !isQuoted(line, m.index, m.index + m[0].length))
      .map((m) =>
        at(line, m.index, m.index + m[0].length, 'Listeners have heard this phrase in a hundred films.'),
      ),
};
