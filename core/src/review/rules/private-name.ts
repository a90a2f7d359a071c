import { at, type Rule } from '../rule.ts';

const FULL_NAME =
  /(?<![\p{L}’-])(?!(?:Mr|Mrs|Ms|Dr|Miss|Sir|Lady|Uncle|Aunt|Captain|Professor)\b)\p{Lu}[\p{Ll}’-]+ (?:\p{Lu}\. )?\p{Lu}[\p{Ll}’-]{2,}(?![\p{L}’-])/gu;
const NO_PERSON =
  /\b(?:Street|Road|Lane|Avenue|Square|Bridge|River|Hill|Park|Station|Company|Council|University|College|Church|Hotel|House|Hall|Lake|Mount|North|South|East|West|New|Saint|St|The|January|February|March|April|May|June|July|August|September|October|November|December|Monday|Tuesday|Wednesday|Thursday|Friday|Saturday|Sunday|Old|Great|Upper|Lower|Royal|National|Union|Office|Bank|Court|Museum|School|Tower|Gate|Lock|Lift|Canal)\b/;

/** Full names out of a board story: people who did not ask to be in a film. */
export const privateName: Rule = {
  id: 'private-name',
  area: 'care',
  name: 'A private person’s full name',
  cost: { each: 1.5, most: 6 },
  line: (line, _tools, sources) => {
    const rests = line.from.map((f) => sources?.list.find((s) => s.letter === f.source)?.kind);
    const board = rests.length
      ? rests.includes('forum')
      : Boolean(sources?.list.length && sources.list.every((s) => s.kind === 'forum'));
    if (!board) return [];
    return [...line.text.matchAll(FULL_NAME)]
      .filter((m) => !NO_PERSON.test(m[0]))
      .map((m) =>
        at(
          line,
          m.index,
          m.index + m[0].length,
          `“${m[0]}” comes from a board; whoever it is has not agreed to be named.`,
        ),
      );
  },
};
