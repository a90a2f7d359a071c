import { at, replaced, type Rule } from '../rule.ts';

/** Words that may stand twice: "had had", "that that". */
const MAY = new Set([
  'had',
  'that',
  'very',
  'no',
  'so',
  'never',
  'ha',
  'bye',
  'tick',
  'knock',
  'again',
  'many',
  'more',
  'and',
]);

export const doubledWord: Rule = {
  id: 'doubled-word',
  area: 'language',
  name: 'A word twice',
  cost: { each: 2, most: 6 },
  line: (line) =>
    line.words.flatMap((w, i) => {
      const next = line.words[i + 1];
      if (
        !next ||
        w.text.toLowerCase() !== next.text.toLowerCase() ||
        MAY.has(w.text.toLowerCase()) ||
        /\d/.test(w.text)
      )
        return [];
      if (!/^\s+$/.test(line.text.slice(w.end, next.start))) return [];
      return [
        at(line, w.start, next.end, `“${w.text}” stands twice.`, {
          says: 'Say it once',
          safe: !line.locked,
          edits: [{ line: line.id, text: replaced(line.text, w.end, next.end, '') }],
        }),
      ];
    }),
};
