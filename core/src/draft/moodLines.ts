/** What each mood makes of a sentence of the source, so that a writer hears the difference before anything is told. */
import type { TaggedSentence } from '../facts/facts.ts';
import { manner, usualBrief } from '../plan/brief.ts';
import type { Tagger } from '../language/tagged.ts';
import { MOODS, type Mood } from '../script/file.ts';
import type { SourceDocument } from '../source/document.ts';
import { makeTeller, tellSentence } from './tell/tell.ts';
import { words } from './tell/sentence.ts';

export interface MoodLine {
  before: string;
  after: string;
}

/** So many of the strongest sentences are tried, and only those of so many words: shorter ones sound alike in any mood. */
const TRIED = 40;
const [FEWEST, MOST] = [9, 34];

/**
 * A line before and after for each mood: of the even one a strong sentence in the source's words and as it tells it, of the
 * others one told evenly and as the mood has it. Moods that no sentence tells apart are left out.
 */
export function moodLines(
  source: SourceDocument,
  tagged: readonly TaggedSentence[],
  tagger: Tagger,
): Partial<Record<Mood, MoodLine>> {
  const tried = tagged
    .filter(({ fact: { silent, quotes, text } }) => !silent && !quotes.length && words(text) >= FEWEST && words(text) <= MOST)
    .sort((a, b) => b.fact.strength - a.fact.strength)
    .slice(0, TRIED);
  const telling = (mood: Mood) => {
    const teller = makeTeller(source, tagger, { words: 'own', ...manner({ ...usualBrief(), mood }) });
    const told = new Map<TaggedSentence, string>();
    return (s: TaggedSentence) => {
      const known = told.get(s) ?? tellSentence(s.fact.text, s.tokens, teller).join(' ');
      told.set(s, known);
      return known;
    };
  };
  const even = telling('calm');
  // Moods that tell sentences alike share what was found.
  const found = new Map<string, MoodLine | null>();
  return Object.fromEntries(
    MOODS.flatMap((mood) => {
      const key = JSON.stringify(manner({ ...usualBrief(), mood }));
      if (!found.has(key)) {
        const as = mood === 'calm' ? even : telling(mood);
        const s = tried.find((x) => as(x) !== x.fact.text && (mood === 'calm' || as(x) !== even(x)));
        found.set(key, s ? { before: mood === 'calm' ? s.fact.text : even(s), after: as(s) } : null);
      }
      const line = found.get(key);
      return line ? [[mood, line]] : [];
    }),
  );
} // prettier-ignore
