import { phoneName } from '../../language/dictionary.ts';
import { at, type Rule } from '../rule.ts';

const SIBILANT = new Set(['S', 'Z', 'SH', 'ZH', 'CH', 'JH']);
/** Sibilants in five words on end, and consonants that meet between two words, above which a tongue stumbles (common practice, no published source). */
const MOST_SIBILANTS = 6;
const MOST_MEETING = 6;
const isVowel = (phone: string) => /^[AEIOU]/.test(phone);

export const hardCluster: Rule = {
  id: 'hard-cluster',
  area: 'speech',
  name: 'Hard to say',
  cost: { each: 0.7, most: 5 },
  line: (line, { pronouncer }) => {
    const phones = line.words.map((w) =>
      /\d/.test(w.text) ? [] : [...pronouncer.phones(w.text)].map(phoneName),
    );
    for (let i = 0; i + 5 <= phones.length; i++) {
      const n = phones
        .slice(i, i + 5)
        .flat()
        .filter((p) => SIBILANT.has(p)).length;
      if (n > MOST_SIBILANTS)
        return [
          at(
            line,
            line.words[i].start,
            line.words[i + 4].end,
            `${n} hissing sounds in five words trip the tongue.`,
          ),
        ];
    }
    for (let i = 0; i + 1 < phones.length; i++) {
      if (/[,.;:—–]/.test(line.text.slice(line.words[i].end, line.words[i + 1].start))) continue;
      const left = phones[i].length - 1 - findLast(phones[i], isVowel);
      const right = phones[i + 1].findIndex(isVowel);
      const meeting = left + (right < 0 ? phones[i + 1].length : right);
      if (phones[i].length && phones[i + 1].length && meeting >= MOST_MEETING)
        return [
          at(
            line,
            line.words[i].start,
            line.words[i + 1].end,
            `${meeting} consonants meet between these two words.`,
          ),
        ];
    }
    return [];
  },
};

function findLast(list: readonly string[], test: (x: string) => boolean): number {
  for (let i = list.length - 1; i >= 0; i--) if (test(list[i])) return i;
  return -1;
}
