import heteronyms from '../../../data/heteronyms.json';
import { at, type Rule } from '../rule.ts';

const READINGS: ReadonlyMap<string, { readings: readonly string[]; clear?: readonly string[] }> = new Map(
  Object.entries(heteronyms.words),
);

/** Words written one way and said two, where the sentence doesn't settle it at first sight. */
export const twoReadings: Rule = {
  id: 'two-readings',
  area: 'speech',
  name: 'Two ways to read a word',
  cost: { each: 0.5, most: 4 },
  line: (line) =>
    line.words.flatMap((w, i) => {
      const entry = READINGS.get(w.text.toLowerCase());
      if (!entry) return [];
      const before = line.words[i - 1]?.text.toLowerCase() ?? '';
      const after = line.words[i + 1]?.text.toLowerCase() ?? '';
      // A neighbour that settles the reading: "lead pipe", "to read", "have read".
      if (entry.clear?.some((c) => c === `${before} _` || c === `_ ${after}`)) return [];
      if (/^(?:to|will|would|can|could|must|should|did|does|do|may|might|don’t|didn’t|can’t)$/.test(before))
        return [];
      return [at(line, w.start, w.end, `“${w.text}” can be read ${entry.readings.join(' or ')}.`)];
    }),
};
