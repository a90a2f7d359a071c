import { modalityOf } from '../../facts/saying.ts';
import { at, isQuoted, type Rule } from '../rule.ts';

const HEALTH =
  /\b(?:cures?|cured|heals?|prevents? (?:cancer|disease|illness|infection|dementia|stroke|heart)|lowers? (?:your )?(?:blood pressure|cholesterol|blood sugar)|detox(?:es|ify)?|boosts? (?:your )?immun\w+|treats? (?:cancer|diabetes|depression|anxiety|arthritis|adhd)|burns? fat|reverses? (?:ag(?:e)?ing|diabetes)|safe to (?:eat|drink|take)|no side effects|works better than medicine)\b/giu;
const MONEY =
  /\b(?:guaranteed? (?:returns?|profits?|income)|risk[- ]free|doubles? your money|passive income|get rich|will make you (?:rich|money)|financial freedom|can(?:no|[’'])t lose|easy money|never lose money|returns? of \d+ ?%|earn \$?\d[\d,]* (?:a|per) (?:day|week|month))\b/giu;
const HEDGED =
  /\b(?:may|might|could|can sometimes|in (?:one|a|the) (?:study|trial)|according to|suggests?|some|is said|reported|believed|claims?)\b/i;

/** Health and money claims without a hedge. Flagged, never altered. */
export const boldClaim: Rule = {
  id: 'bold-claim',
  area: 'care',
  name: 'Health and money without a hedge',
  cost: { each: 2, most: 8 },
  line: (line) =>
    (
      [
        [HEALTH, 'health'],
        [MONEY, 'money'],
      ] as const
    ).flatMap(([pattern, what]) =>
      [...line.text.matchAll(pattern)]
        .filter(
          (m) =>
            !isQuoted(line, m.index, m.index + m[0].length) &&
            !HEDGED.test(line.text) &&
            modalityOf(line.text).modality === 'plain',
        )
        .map((m) =>
          at(
            line,
            m.index,
            m.index + m[0].length,
            `A claim about ${what} without “may”, without a study, without who says so.`,
          ),
        ),
    ),
};
