import type { Rule } from '../rule.ts';

const AIMLESS =
  /^(?:but (?:wait,? )?there(?:[’']s| is) more|let[’']s (?:move on|continue|take a (?:closer )?look)|moving on|now,? let[’']s|next up|and that brings us|with that (?:said|in mind)|so,? what (?:else|now))\b/i;

/** The last line of a section that is meant to lead on, and names nothing that comes. */
export const weakLead: Rule = {
  id: 'weak-lead',
  area: 'hold',
  name: 'A lead that doesn’t lead',
  cost: { each: 1.5, most: 6 },
  script: ({ sections }) =>
    sections.flatMap((s, i) => {
      const last = s.lines[s.lines.length - 1];
      const next = sections[i + 1];
      if (!last || !next || last.fixed) return [];
      if (AIMLESS.test(last.text))
        return [{ line: last.id, reason: 'This line says that something comes, and not what.' }];
      if (last.role !== 'lead') return [];
      const ahead = new Set(next.lines.slice(0, 3).flatMap((l) => [...l.stems]));
      if (/\?$/.test(last.text) || last.stems.some((x) => ahead.has(x))) return [];
      return [{ line: last.id, reason: `It leads to nothing that “${next.title}” tells first.` }];
    }),
};
