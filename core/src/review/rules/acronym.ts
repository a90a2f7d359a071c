import { SAID_AS_LETTERS, SAID_AS_WORD } from '../../language/lexicon.ts';
import { at, type Rule } from '../rule.ts';

/** Capitals that no list knows, and that nothing in the script spells out. */
export const acronym: Rule = {
  id: 'acronym',
  area: 'speech',
  name: 'Letters nobody has explained',
  cost: { each: 0.7, most: 4 },
  script: ({ lines }) => {
    const seen = new Set<string>();
    return lines.flatMap((line) =>
      line.fixed
        ? []
        : [...line.text.matchAll(/(?<![\p{L}\d.-])\p{Lu}{3,6}(?![\p{L}\d-])/gu)].flatMap((m) => {
            if (seen.has(m[0]) || SAID_AS_WORD.has(m[0]) || SAID_AS_LETTERS.has(m[0])) return [];
            seen.add(m[0]);
            // Spelled out anywhere: a run of words with these initials.
            const initials = [...m[0].toLowerCase()]
              .map((c) => `${c}\\p{L}+`)
              .join('(?:\\s+(?:of|and|the|for))?\\s+');
            if (lines.some((l) => new RegExp(`\\b${initials}`, 'iu').test(l.text))) return [];
            if (
              m[0].length === line.text.replace(/[^\p{Lu}]/gu, '').length &&
              line.text === line.text.toUpperCase()
            )
              return [];
            return [
              {
                ...at(
                  line,
                  m.index,
                  m.index + m[0].length,
                  `“${m[0]}” is not explained, and it isn’t plain whether it is a word or letters.`,
                ),
                line: line.id,
              },
            ];
          }),
    );
  },
};
