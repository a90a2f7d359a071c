/**
 * Which lines stay when a part must be shorter: the most worth in the time there is, exactly, as a 0/1 knapsack by
 * dynamic programming (Bellman 1957) over tenths of a second. A line that leans on the one before goes with it.
 */
import { lexRank } from '../facts/centrality.ts';
import { isGreeting } from '../review/rules/greeting.ts';
import { clockLines } from '../script/schema.ts';
import { isKept, linesIn, type ReviseContext, type ReviseTools, type Scope } from './types.ts';

type Kept = { drop: string[]; notes: string[] } | { refused: string; nearest?: string };

const MOST_ROUNDS = 6;
const STEP_MS = 100;
/** A line that can't stand without the one before it. */
const LEANS =
  /^(?:it|its|they|their|them|he|his|she|her|this|that|these|those|so|but|and|then|because|which|there|neither|both|such|instead|yet|even so|that[’']s)\b/i;
const TURNS = /\b(?:but|however|until|turned out|failed|wrong|never|refused|only)\b/i;

/** Tries with less room where rests at the ends of sections make the result longer than its lines. */
export function longestKept(scope: Scope, ms: number, context: ReviseContext, tools: ReviseTools): Kept {
  const ids = new Set(scope.lines);
  let room = ms;
  let result = keptWithin(scope, room, context, tools);
  for (let round = 0; round < MOST_ROUNDS && !('refused' in result); round++) {
    const gone = new Set(result.drop);
    const left = context.sections
      .map((s) => ({ ...s, lines: s.lines.filter((l) => !gone.has(l.id)) }))
      .filter((s) => s.lines.length);
    const times = tools.clock.lines(clockLines(left));
    const over = linesIn(left).reduce((n, l, i) => n + (ids.has(l.id) ? times[i].ms : 0), 0) - ms;
    if (over <= 0) return result;
    room -= over;
    result = keptWithin(scope, room, context, tools);
  }
  return result;
}

function keptWithin(scope: Scope, ms: number, context: ReviseContext, tools: ReviseTools): Kept {
  const times = tools.clock.lines(clockLines(context.sections));
  const all = linesIn(context.sections);
  const ids = new Set(scope.lines);
  const strength = new Map(
    context.sources.flatMap((s) => s.facts.map((f) => [`${s.letter}:${f.id}`, f.strength ?? 0.4] as const)),
  );
  const lastId = all[all.length - 1]?.id;
  // What opens the script stays, unless the opening itself is what must be shorter.
  const opening = all.find((l) => l.text.trim() && !isGreeting(l.text));
  const wider = scope.lines.some((id) => !context.sections[0].lines.some((l) => l.id === id));
  const central = lexRank(all.map((l) => l.text));
  const items = all.flatMap((l, i) => {
    if (!ids.has(l.id)) return [];
    const section = context.sections.find((s) => s.lines.includes(l))!;
    const facts = l.from.length
      ? Math.max(0, ...l.from.map((f) => strength.get(`${f.source}:${f.fact}`) ?? 0.4))
      : central[i] * 0.5;
    const framing = l.role === 'lead' || l.role === 'frame' || isGreeting(l.text);
    const opens = l === section.lines.find((x) => !isGreeting(x.text)) ? 0.25 : 0;
    const worth = framing
      ? 0.08
      : 0.35 +
        facts +
        (TURNS.test(l.text) ? 0.25 : 0) +
        (/["“]/.test(l.text) ? 0.2 : 0) +
        opens +
        (l.role === 'settle' || l.role === 'strain' ? 0.2 : 0);
    return [
      {
        line: l,
        cost: Math.max(1, Math.round(times[i].ms / STEP_MS)),
        worth,
        must: isKept(l, section) || l.id === lastId || (wider && l === opening),
        leans: LEANS.test(l.text) && l !== section.lines[0],
      },
    ];
  });
  const room = Math.floor(ms / STEP_MS);
  const needed = items.filter((i) => i.must).reduce((n, i) => n + i.cost, 0);
  if (needed > room)
    return {
      refused: `What must stay (locked lines, the last line) already lasts ${((needed * STEP_MS) / 1000).toFixed(1)} s.`,
      nearest: 'unlock lines first',
    };
  const total = items.reduce((n, i) => n + i.cost, 0);
  if (total <= room) return { refused: `It is ${((total * STEP_MS) / 1000).toFixed(1)} s long already.` };
  // best[k][r]: most worth of the first lines in r steps; apart for whether the last one was kept, as a leaning line needs it.
  const n = items.length;
  const width = room + 1;
  const NONE = -1e9;
  const kept = Array.from({ length: n + 1 }, () => new Float64Array(width).fill(NONE));
  const left = Array.from({ length: n + 1 }, () => new Float64Array(width).fill(NONE));
  left[0][0] = 0;
  for (let k = 0; k < n; k++) {
    const { cost, worth, must, leans } = items[k];
    for (let r = 0; r < width; r++) {
      const best = Math.max(kept[k][r], left[k][r]);
      if (best <= NONE / 2) continue;
      if (!must) left[k + 1][r] = Math.max(left[k + 1][r], best);
      const from = leans && k > 0 && !must ? kept[k][r] : best;
      if (r + cost < width && from > NONE / 2)
        kept[k + 1][r + cost] = Math.max(kept[k + 1][r + cost], from + worth);
    }
  }
  let r = 0;
  let top = NONE;
  for (let i = 0; i < width; i++) {
    const v = Math.max(kept[n][i], left[n][i]);
    if (v > top + 1e-9 || (Math.abs(v - top) <= 1e-9 && i > r)) [top, r] = [v, i];
  }
  if (top <= 0)
    return { refused: `No line of it fits into ${(ms / 1000).toFixed(1)} s.`, nearest: 'leave it out' };
  const drop: string[] = [];
  let state: 'kept' | 'left' = kept[n][r] >= left[n][r] ? 'kept' : 'left';
  for (let k = n; k > 0; k--) {
    const item = items[k - 1];
    if (state === 'left') {
      drop.unshift(item.line.id);
      state = kept[k - 1][r] >= left[k - 1][r] ? 'kept' : 'left';
    } else {
      r -= item.cost;
      const needsPrevious = item.leans && k > 1 && !item.must;
      state = needsPrevious || kept[k - 1][r] >= left[k - 1][r] ? 'kept' : 'left';
    }
  }
  return { drop, notes: [] };
}
