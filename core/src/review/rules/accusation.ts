import { attributionOf } from '../../facts/saying.ts';
import { at, isQuoted, type Rule } from '../rule.ts';

const ACCUSES =
  /\b(?:fraud(?:ulent|ster)?|stole|stolen by|embezzl\w+|brib\w+|lied|liars?|corrupt(?:ion)?|murder(?:ed|er)|killed by|abus(?:ed|er|ive)|cheat(?:ed|er)|forg(?:ed|ery)|covered up|cover-up|negligen\w+|criminal(?:ly)?|guilty|illegally|scam\w*|rap(?:ed|ist)|assault\w*|sabotag\w+|plagiari\w+)\b/giu;
const SAID =
  /\b(?:accus\w+|alleg\w+|charged?|convict\w+|sentenced|court|jury|judge|police|prosecut\w+|according to|said|says|claims?|claimed|reported(?:ly)?|found that|found guilty|suspect\w*|denie[sd])\b/i;

/** An accusation without who says so. */
export const accusation: Rule = {
  id: 'accusation',
  area: 'truth',
  name: 'An accusation without who says so',
  cost: { each: 4, most: 12 },
  line: (line) =>
    [...line.text.matchAll(ACCUSES)]
      .filter(
        (m) =>
          !isQuoted(line, m.index, m.index + m[0].length) &&
          !SAID.test(line.text) &&
          !(line.tags && attributionOf(line.text, line.tags)),
      )
      .slice(0, 1)
      .map((m) =>
        at(
          line,
          m.index,
          m.index + m[0].length,
          `“${m[0]}” accuses somebody, and the line doesn’t say who says so.`,
        ),
      ),
};
