import { at, type Rule } from '../rule.ts';

/** Only against a channel's own figures: what a breath can't hold is another rule's. */
export const longSentence: Rule = {
  id: 'longer-than-house',
  area: 'language',
  name: 'Longer than this channel speaks',
  cost: { each: 0.4, most: 4 },
  line: (line, _tools, _sources, style) =>
    style && line.words.length > style.limits.longestSentence && !line.quotes.length
      ? [
          at(
            line,
            0,
            line.text.length,
            `${line.words.length} words; nine in ten sentences of this channel have at most ${style.limits.longestSentence}.`,
          ),
        ]
      : [],
};
