/** Steps within a step, in text without tags: "a. Tread it firm" below a numbered step. */

/** A letter before a step within a step, and which one it is. */
export const SUB_STEP = /^\s*([a-h])[.)]\s+(?=\p{Lu})/u;
export const letterPlace = (letter: string): number => letter.charCodeAt(0) - 'a'.charCodeAt(0) + 1;

const MARK = /(?:^|(?<=\s))([a-h])[.)]\s+(?=\p{Lu})/gu;
/** A step whose own steps run on in it ("… the floor: a. Tread it. b. Line it."), parted; null where no row of letters from "a" on stands in it. */
export function partedSteps(text: string): { step: string; within: string[] } | null {
  const marks = [...text.matchAll(MARK)].filter((m, i, all) => letterPlace(m[1]) === i + 1 && all.length > 1);
  if (marks.length < 2 || marks[0].index === 0) return null;
  return {
    step: text.slice(0, marks[0].index).trim(),
    within: marks.map((m, i) => text.slice(m.index + m[0].length, marks[i + 1]?.index).trim()),
  };
}
