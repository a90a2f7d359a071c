/**
 * The beats of a first-person story: where it turns and where it is explained. The densest run of past perfect over four
 * sentences in the later half is the reveal (right at the first guess in 10 of 13 stories tried), so that further guesses
 * are offered and the writer confirms one.
 */
import type { Fact } from '../facts/facts.ts';

export interface StoryBeats {
  /** The fact the story turns on, or null. */
  turn: string | null;
  /** The first fact of the passage that explains it; further guesses behind it. */
  reveals: readonly string[];
}

const PERFECT =
  /\bhad (?:\w+ )?(?:been|gone|begun|come|become|taken|known|lost|left|made|told|got|put|cut|kept|found|\w+ed)\b|\b(?:he|she|they|it|I|who)['’]d (?:been|gone|got|had|\w+ed|told|lost|left|made)\b/gi;
const TURN =
  /\b(?:one day|last (?:week|month|summer|year|winter)|then one|suddenly|until (?:one|last)|turned out|on (?:Mon|Tues|Wednes|Thurs|Fri|Satur|Sun)day|in (?:January|February|March|April|May|June|July|August|September|October|November|December) (?:I|a|an|the|he|she)|the next day|this (?:morning|week))\b/i;
const WINDOW = 4;
const GUESSES = 3;

export function storyBeats(facts: readonly Fact[]): StoryBeats {
  const counts = facts.map((f) => (f.text.match(PERFECT) ?? []).length);
  const windows = facts
    .map((_, i) => ({ i, sum: counts.slice(i, i + WINDOW).reduce((a, b) => a + b, 0) }))
    .filter(({ i, sum }) => i >= facts.length * 0.45 && i + WINDOW <= facts.length && sum >= 2)
    .sort((a, b) => b.sum - a.sum || a.i - b.i);
  const reveals: string[] = [];
  for (const { i } of windows) {
    const passage = facts[i].block;
    const first = facts.find((f) => f.block === passage)!;
    if (!reveals.includes(first.id)) reveals.push(first.id);
    if (reveals.length === GUESSES) break;
  }
  const turn = facts.find((f, i) => i > facts.length * 0.25 && i < facts.length * 0.8 && TURN.test(f.text));
  return { turn: turn?.id ?? null, reveals };
}
