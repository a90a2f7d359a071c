import { at, isQuoted, replaced, type Rule } from '../rule.ts';
import words from '../../../data/filler.json';

const PATTERNS: readonly { pattern: RegExp; by: string; safe: boolean }[] = words.entries.map((e) => ({
  pattern: new RegExp(e.match, 'giu'),
  by: e.by,
  safe: e.safe,
}));

export const filler: Rule = {
  id: 'filler',
  area: 'language',
  name: 'Filler',
  cost: { each: 0.5, most: 6 },
  line: (line) => {
    const taken: [number, number][] = [];
    return PATTERNS.flatMap(({ pattern, by, safe }) =>
      [...line.text.matchAll(pattern)].flatMap((m) => {
        const [start, end] = [m.index, m.index + m[0].length];
        if (isQuoted(line, start, end) || taken.some(([s, e]) => start < e && end > s)) return [];
        taken.push([start, end]);
        const text = replaced(line.text, start, end, by);
        const left = text.split(/\s+/).length;
        return [
          at(
            line,
            start,
            end,
            `“${m[0].trim()}” adds time and nothing else.`,
            left > 1
              ? {
                  says: by ? `Say “${by.trim()}”` : 'Leave it out',
                  safe: safe && !line.locked,
                  edits: [{ line: line.id, text }],
                }
              : undefined,
          ),
        ];
      }),
    );
  },
};
