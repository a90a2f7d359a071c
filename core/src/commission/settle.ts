/** A script with a reply taken in, brought to its seconds: first by the rests between sections, then by leaving out what is least needed. */
import { keyOf, keysOf } from './keys.ts';
import type { CommissionContext, OrderedSection } from './types.ts';
import { MOOD_RULES } from '../plan/moods.ts';
import { LONGEST_REST, timeOf, wanted } from '../draft/fit.ts';
import type { Mood, Target } from '../script/file.ts';
import { toleranceMs } from '../script/file.ts';
import { leansOnBefore } from '../facts/references.ts';
import { isOpen, type PlainLine, type PlainSection } from '../script/data.ts';
import type { Clock } from '../timing/clock.ts';

/** No rest between sections is shorter, in milliseconds: a listener must hear that a section ends. */
const SHORTEST_REST = 150;
const MOST_DROPS = 40;

export interface Settled {
  sections: PlainSection[];
  /** How far it still is from what was wanted, in milliseconds: over (+) or under (−). */
  offMs: number;
  /** Lines left out. */
  dropped: PlainLine[];
}

/**
 * `mayDrop` says which lines may go, and how much each is worth: null never. A line that was taken last and says what
 * another says too is worth least.
 */
export function settleLength(
  sections: readonly PlainSection[],
  target: Target,
  mood: Mood,
  clock: Clock,
  mayDrop: (line: PlainLine) => number | null,
): Settled {
  const aim = wanted(target);
  let now = [...sections];
  const dropped: PlainLine[] = [];
  for (let round = 0; round < MOST_DROPS; round++) {
    const rested = withRests(now, aim, mood, clock);
    const offMs = timeOf(rested, clock) - aim;
    if (offMs <= 0 || offMs <= toleranceMs(target.seconds) / 4) return { sections: rested, offMs, dropped };
    const next = leastNeeded(now, offMs, clock, mayDrop);
    if (!next) return { sections: rested, offMs, dropped };
    dropped.push(...next);
    now = now.map((s) => ({ ...s, lines: s.lines.filter((l) => !next.includes(l)) }));
  }
  return { sections: withRests(now, aim, mood, clock), offMs: timeOf(now, clock) - aim, dropped };
}

/** Facts that must be said: what the orders for these sections ask for, and what the writer marked. */
export const mustIn = (sections: readonly OrderedSection[], marked: readonly string[]): Set<string> =>
  new Set([
    ...marked,
    ...sections.flatMap((s) => s.facts.filter((f) => f.must).map((f) => keyOf(f.source, f.fact))),
  ]);

/** What a line is worth that rests on no fact, and on a fact whose strength is not known. */
const [LEAST_WORTH, USUAL_WORTH] = [0.05, 0.3];
/** What lines are worth when some have to go: their strongest fact; null for links of the spine and must-says, which stay. */
export function worthKeeping(
  context: Pick<CommissionContext, 'sources' | 'spine'>,
  must: ReadonlySet<string>,
): (line: PlainLine) => number | null {
  const spine = new Set(context.spine.map((l) => keyOf(l.source, l.fact)));
  const strength = new Map(
    context.sources.flatMap((s) => s.facts.map((f) => [keyOf(s.letter, f.id), f.strength] as const)),
  );
  return (line) => {
    const keys = keysOf(line.from);
    if (keys.some((k) => spine.has(k) || must.has(k))) return null;
    return Math.max(LEAST_WORTH, ...keys.map((k) => strength.get(k) ?? USUAL_WORTH));
  };
}

/** The rests at the ends of sections, as long as the time left over allows, evenly and within limits. */
function withRests(sections: readonly PlainSection[], aim: number, mood: Mood, clock: Clock): PlainSection[] {
  const ends = sections.flatMap((s, i) =>
    i < sections.length - 1 && s.lines.length && !s.locked ? [s.id] : [],
  );
  if (!ends.length) return [...sections];
  const set = (ms: (i: number) => number) =>
    sections.map((s) => {
      const at = ends.indexOf(s.id);
      if (at < 0) return s;
      const last = s.lines.length - 1;
      return { ...s, lines: s.lines.map((l, k) => (k === last && !l.locked ? { ...l, restMs: ms(at) } : l)) };
    });
  const bare = set(() => 0);
  const left = aim - timeOf(bare, clock);
  const each = Math.floor(left / ends.length);
  if (each < SHORTEST_REST) return set(() => Math.min(MOOD_RULES[mood].restMs, SHORTEST_REST));
  const most = Math.min(each, LONGEST_REST);
  const first = each <= LONGEST_REST ? Math.min(LONGEST_REST, left - most * (ends.length - 1)) : most;
  return set((i) => (i === 0 ? first : most));
}

/** The lines whose going costs least and comes nearest to what is over: all that hang together, or none of them. */
function leastNeeded(
  sections: readonly PlainSection[],
  offMs: number,
  clock: Clock,
  mayDrop: (line: PlainLine) => number | null,
): readonly PlainLine[] | null {
  const named = firstNamed(sections);
  const choices = hangingTogether(sections).flatMap((group) => {
    // No section goes whole, and of a locked one nothing.
    if (sections.some((s) => s.lines.length && (s.locked ? s.lines.some((l) => group.includes(l)) : s.lines.every((l) => group.includes(l))))) return []; // prettier-ignore
    const worths = group.map((l) => (l.locked || l.fixed || isOpen(l) ? null : mayDrop(l)));
    if (worths.includes(null)) return [];
    // Somebody whom only these lines name in full, and another one by the last name.
    if (group.some((l) => (named.get(l) ?? []).some((other) => !group.includes(other)))) return [];
    const ms = group.reduce((n, l) => n + clock.time(l.text).ms, 0);
    return [{ group, cost: Math.max(...(worths as number[])) + Math.abs(ms - offMs) / 4000 }];
  });
  return choices.sort((a, b) => a.cost - b.cost)[0]?.group ?? null;
}

const firstFact = (l: PlainLine) => keysOf(l.from.slice(0, 1))[0] ?? null;
/** Marks of quotation that are still open. */
const opensQuote = (text: string) => (text.match(/“/g)?.length ?? 0) - (text.match(/”/g)?.length ?? 0);

/** He or she of a line that names nobody before. */
const NAMELESS = /^(?:[\p{Lu}“]?[^\p{Lu}]*?)\b(?:he|she|him|her|his|hers)\b/u;

/** Somebody's words and nothing that says whose. */
const ONLY_QUOTED = /^["“][^“”"]*["”]?$/;
const HAS_QUOTED = /["“”]/;

/**
 * Lines in groups that can't be heard apart: of one fact, pointing at what stands before, a question and its answer, one quotation,
 * words and who says them. What points back over the edge of a section hangs on the end of the one before.
 */
function hangingTogether(sections: readonly PlainSection[]): PlainLine[][] {
  const groups: PlainLine[][] = [];
  let before: PlainLine | undefined;
  for (const { lines } of sections) {
    let open = 0;
    lines.forEach((line, i) => {
      const joins =
        before !== undefined &&
        (leansOnBefore(line.text) ||
          NAMELESS.test(line.text) ||
          (ONLY_QUOTED.test(line.text.trim()) && HAS_QUOTED.test(before.text)) ||
          (i > 0 &&
            (open > 0 ||
              /[?:]["”]?$/.test(before.text.trim()) ||
              firstFact(line) === null ||
              firstFact(line) === firstFact(before))));
      open = Math.max(0, open + opensQuote(line.text));
      if (joins) groups[groups.length - 1].push(line);
      else groups.push([line]);
      before = line;
    });
  }
  return groups;
}

const FULL_NAME = /\p{Lu}[\p{L}’'-]+(?: \p{Lu}[\p{L}’'-]+)+/gu;
/** Lines that name somebody in full for the first time, each with the lines that need it to know whom a last name means. */
function firstNamed(sections: readonly PlainSection[]): Map<PlainLine, PlainLine[]> {
  const lines = sections.flatMap((s) => s.lines);
  const seen = new Set<string>();
  const out = new Map<PlainLine, PlainLine[]>();
  lines.forEach((line, i) => {
    for (const [full] of line.text.matchAll(FULL_NAME)) {
      const last = full.split(' ').at(-1)!;
      if (seen.has(full)) continue;
      seen.add(full);
      const need = lines.slice(i + 1).filter((l) => l.text.includes(last) && !l.text.includes(full));
      if (need.length) out.set(line, [...(out.get(line) ?? []), ...need]);
    }
  });
  return out;
}
