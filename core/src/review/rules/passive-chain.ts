import type { ReviewLine, Rule } from '../rule.ts';

const CHAIN = 3;
const BE = new Set(['be']);

/** A form of "be" with a past participle behind it, adverbs between. */
function isPassive(line: ReviewLine): boolean {
  const tags = line.tags ?? [];
  return tags.some((t, i) => {
    if (!BE.has(t.lemma)) return false;
    let k = i + 1;
    while (tags[k] && ['ADV', 'PART'].includes(tags[k].pos)) k++;
    const next = tags[k];
    return Boolean(
      next &&
      next.pos === 'VERB' &&
      /(?:ed|en|wn|ne|t|de|ld|nd|id|ung|un|um|ck|ept)$/i.test(next.text) &&
      !/ing$/i.test(next.text),
    );
  });
}

export const passiveChain: Rule = {
  id: 'passive-chain',
  area: 'language',
  name: 'Passive after passive',
  cost: { each: 1, most: 5 },
  script: ({ lines }) => {
    const out: { line: string; reason: string }[] = [];
    let run = 0;
    lines.forEach((line, i) => {
      run = !line.fixed && line.tags && isPassive(line) ? run + 1 : 0;
      const ends = !lines[i + 1] || !lines[i + 1].tags || !isPassive(lines[i + 1]);
      if (run >= CHAIN && ends)
        out.push({ line: line.id, reason: `${run} lines on end tell what was done and not who did it.` });
    });
    return out;
  },
};
