import { datesIn, numbersIn } from '../../facts/extract.ts';
import type { Rule } from '../rule.ts';

/** More figures than this within ten seconds are not heard (common practice, no published source). */
const MOST = 4;
const WINDOW_MS = 10_000;
const SMALL = 3;

export const numberCrowd: Rule = {
  id: 'number-crowd',
  area: 'speech',
  name: 'Too many numbers in ten seconds',
  cost: { each: 1.2, most: 6 },
  script: ({ lines }) => {
    const heard = lines
      .flatMap((line) => {
        const values = [
          ...numbersIn(line.text).filter((n) => /\d/.test(n.text) || n.value > SMALL),
          ...datesIn(line.text),
        ];
        return values.map((v) => ({
          line,
          atMs: line.startMs + (line.ms * v.start) / Math.max(1, line.text.length),
        }));
      })
      .sort((a, b) => a.atMs - b.atMs);
    const out: { line: string; reason: string }[] = [];
    for (let i = 0; i + MOST < heard.length; i++) {
      let k = i;
      while (k + 1 < heard.length && heard[k + 1].atMs - heard[i].atMs < WINDOW_MS) k++;
      if (k - i + 1 <= MOST) continue;
      const middle = heard[Math.floor((i + k) / 2)];
      out.push({
        line: middle.line.id,
        reason: `${k - i + 1} numbers in ten seconds around here; a listener keeps two.`,
      });
      i = k;
    }
    return out;
  },
};
