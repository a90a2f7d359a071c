import { cuss } from 'cuss';
import { at, type Rule } from '../rule.ts';
import words from '../../../data/ad-words.json';

/** The package rates how likely a word is meant as an insult, 0 to 2; 2 is almost certain. */
const SURE = 2;
const TOPICS: readonly { pattern: RegExp; topic: string }[] = words.topics.map((t) => ({
  topic: t.topic,
  pattern: new RegExp(`\\b(?:${t.match})\\b`, 'giu'),
}));

/** Words that make advertisers or platforms withhold pay. Flagged, never altered. */
export const adWords: Rule = {
  id: 'ad-words',
  area: 'care',
  name: 'Words that cost advertising',
  cost: { each: 0.5, most: 4 },
  line: (line) => [
    ...TOPICS.flatMap(({ pattern, topic }) =>
      [...line.text.matchAll(pattern)].map((m) =>
        at(
          line,
          m.index,
          m.index + m[0].length,
          `Advertisers may keep away from ${topic}. Your choice: it is never changed by itself.`,
        ),
      ),
    ),
    ...line.words
      .filter((w) => cuss[w.text.toLowerCase()] === SURE)
      .map((w) =>
        at(
          line,
          w.start,
          w.end,
          'An advertiser’s list has this word. Your choice: it is never changed by itself.',
        ),
      ),
  ],
};
