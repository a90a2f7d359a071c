import { at, replaced, type Rule } from '../rule.ts';

const SYMBOLS: readonly (readonly [RegExp, string])[] = [
  [/&/g, 'and'],
  [/(?<=\s)\+(?=\s)/g, 'plus'],
  [/(?<=\s)=(?=\s)/g, 'is'],
  [/(?<=\s)w\/(?=\s)/gi, 'with'],
  [/\be\.g\.,?/gi, 'for example'],
  [/\bi\.e\.,?/gi, 'that is'],
  [/\betc\./gi, 'and so on'],
  [/\bvs\.?(?=\s)/gi, 'against'],
  [/\bapprox\./gi, 'about'],
];
const OTHER = /[#*_~^|<>@\\{}[\]/](?!\d)|https?:\S+|www\.\S+/g;

export const symbol: Rule = {
  id: 'symbol',
  area: 'speech',
  name: 'Abbreviations and signs',
  cost: { each: 1, most: 6 },
  line: (line) => {
    const out = SYMBOLS.flatMap(([pattern, by]) =>
      [...line.text.matchAll(pattern)].map((m) =>
        at(line, m.index, m.index + m[0].length, `“${m[0]}” is a sign for the eye.`, {
          says: `Say “${by}”`,
          safe: !line.locked,
          edits: [{ line: line.id, text: replaced(line.text, m.index, m.index + m[0].length, by) }],
        }),
      ),
    );
    for (const m of line.text.matchAll(OTHER))
      if (!(m[0] === '/' && /\w\/\w/.test(line.text.slice(m.index - 1, m.index + 2)) === false))
        out.push(at(line, m.index, m.index + m[0].length, `“${m[0]}” has no sound of its own.`));
    return out;
  },
};
