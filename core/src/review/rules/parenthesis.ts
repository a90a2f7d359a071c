import { at, replaced, type Rule } from '../rule.ts';

/** What may go without loss: abbreviations, conversions, life dates. */
const IDLE =
  /^(?:[\p{Lu}\d.&-]{2,8}|[\d.,\s]+(?:km|m|cm|mm|ft|feet|miles?|kg|lb|°[CF]|in)|\d{4}\s?[–-]\s?\d{2,4}|see .{1,40}|pictured.{0,30})$/u;

export const parenthesis: Rule = {
  id: 'parenthesis',
  area: 'speech',
  name: 'Brackets',
  cost: { each: 1, most: 5 },
  line: (line) =>
    [...line.text.matchAll(/\(([^()]{1,240})\)/g)].map((m) => {
      const idle = IDLE.test(m[1].trim());
      return at(
        line,
        m.index,
        m.index + m[0].length,
        'Brackets are not heard; what is in them runs into the sentence.',
        {
          says: idle ? 'Leave it out' : 'Set it between commas',
          safe: idle && !line.locked,
          edits: [
            {
              line: line.id,
              text: replaced(line.text, m.index, m.index + m[0].length, idle ? '' : `, ${m[1]},`)
                .replace(/,([,.;:!?])/g, '$1')
                .replace(/\s,/g, ','),
            },
          ],
        },
      );
    }),
};
