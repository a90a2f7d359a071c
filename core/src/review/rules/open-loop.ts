import type { Rule } from '../rule.ts';

/** A question left open for longer is forgotten (common practice, no published source). */
const LONGEST_OPEN_MS = 180_000;
const LONGEST_SHARE = 0.75;

export const openLoop: Rule = {
  id: 'open-loop',
  area: 'hold',
  name: 'Questions: never answered, at once, too late',
  cost: { each: 2.5, most: 10 },
  script: ({ loops, lines, ms }) =>
    loops.flatMap((loop) => {
      const from = lines.find((l) => l.id === loop.from);
      if (!from || from.fixed) return [];
      // The last line may ask the listener something: that is what comments are for.
      if (loop.to === null)
        return from === lines[lines.length - 1]
          ? []
          : [{ line: from.id, reason: `“${loop.asks}” is never answered.` }];
      const to = lines.find((l) => l.id === loop.to);
      if (!to) return [];
      const openMs = to.startMs - (from.startMs + from.ms);
      if (loop.kind === 'hook' && openMs <= 0 && ms > 45_000)
        return [
          {
            line: from.id,
            reason: `“${loop.asks}” is answered in the same breath, so nobody has to stay for it.`,
          },
        ];
      if (openMs > LONGEST_OPEN_MS && openMs > ms * LONGEST_SHARE)
        return [
          {
            line: from.id,
            reason: `“${loop.asks}” waits ${Math.round(openMs / 1000)} s for its answer; remind the listener of it on the way.`,
          },
        ];
      return [];
    }),
};
