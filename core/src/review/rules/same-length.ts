import type { Rule } from '../rule.ts';

/** Eight lines on end whose lengths differ by less than this share of their mean sound like a machine (common practice, no published source). */
const LINES = 8;
const LEAST_VARIATION = 0.16;
const LEAST_WORDS = 6;

export const sameLength: Rule = {
  id: 'same-length',
  area: 'language',
  name: 'All sentences alike in length',
  cost: { each: 1.5, most: 6 },
  script: ({ lines }) => {
    const out: { line: string; reason: string }[] = [];
    for (let i = 0; i + LINES <= lines.length; i++) {
      const lengths = lines.slice(i, i + LINES).map((l) => l.words.length);
      const mean = lengths.reduce((a, b) => a + b, 0) / LINES;
      const spread = Math.sqrt(lengths.reduce((a, b) => a + (b - mean) ** 2, 0) / LINES);
      if (mean < LEAST_WORDS || spread / mean >= LEAST_VARIATION) continue;
      out.push({
        line: lines[i + LINES / 2].id,
        reason: `${LINES} lines here have ${Math.min(...lengths)} to ${Math.max(...lengths)} words each; a short one would wake the ear.`,
      });
      i += LINES - 1;
    }
    return out;
  },
};
