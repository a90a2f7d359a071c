/**
 * An order told in rounds: first the whole of it, then only what failed of what came, until nothing is left to ask or
 * the rounds are used up. It is worked out from what was answered so far, so it can go on wherever it stopped.
 */
import type { Tagger } from '../language/tagged.ts';
import type { Kin } from '../language/kin.ts';
import type { Origin, PlainSection } from '../script/data.ts';
import { isOpen } from '../script/data.ts';
import { timeOf } from '../draft/fit.ts';
import { toleranceMs } from '../script/file.ts';
import type { Clock } from '../timing/clock.ts';
import { makeReplyChecker, replyOrder, type CheckedReply } from './check.ts';
import { makeOrders } from './order.ts';
import { orderedSections } from './ordered.ts';
import { replacedBy, type Became } from './replace.ts';
import { mustIn, settleLength, worthKeeping } from './settle.ts';
import { followUpOrder, isKept, mergedReply, retakenLine, sourcesOf, takeable } from './take.ts';
import { MOST_ROUNDS, type CommissionContext, type Order, type OrderScope } from './types.ts';

export interface RoundsAsked {
  context: CommissionContext;
  scope: OrderScope;
  /** The first round counts as one. */
  rounds: number;
  /** The longest order, in letters. */
  letters?: number;
}
export interface RoundsTools {
  tagger: Tagger;
  kin: Kin | null;
  clock: Clock;
}
export interface NextOrder {
  text: string;
  /** From 1. */
  round: number;
  /** Which of how many orders of this round. */
  part: Order['part'];
}
export interface Standing {
  /** What is asked next; null when nothing is left to ask, or no round. */
  next: NextOrder | null;
  /** What came so far, checked; null before the first round is whole. */
  checked: CheckedReply | null;
}

/** Where it stands after these answers, oldest first. Throws RangeError when the scope names nothing of the script. */
export function standingAfter(
  { context, scope, rounds, letters }: RoundsAsked,
  answers: readonly string[],
  tools: RoundsTools,
): Standing {
  const orders = makeOrders(context, scope, tools, letters === undefined ? {} : { letters });
  if (answers.length < orders.length) {
    const { text, part } = orders[answers.length];
    return { next: { text, round: 1, part }, checked: null };
  }
  const sections = orders.flatMap((o) => o.sections);
  const { check } = makeReplyChecker(context.sources, replyOrder(context, sections), tools);
  let text = orders.map((o, i) => marked(answers[i], o)).join('\n\n');
  let checked = check(text, true);
  let idle = false;
  for (const answer of answers.slice(orders.length)) {
    const before = failedAt(checked);
    text = mergedReply(checked, answer, sections);
    checked = check(text, true);
    idle = failedAt(checked) === before;
  }
  const round = answers.length - orders.length + 2;
  // What fails just as it did isn't asked for once more.
  const again =
    !idle && round <= Math.min(rounds, MOST_ROUNDS) ? followUpOrder(context, checked, sections, true) : null;
  return { next: again === null ? null : { text: again, round, part: { n: 1, of: 1 } }, checked };
}

/** The lines that no mend makes clean, what is not said, and the sections that are too short. */
const failedAt = (checked: CheckedReply): string => {
  const { lines, unsaid, lengths } = checked;
  const takes = takeable(checked, true, true);
  return [
    ...lines.flatMap((l) => (takes.has(l.id) ? [] : [l.text])),
    ...unsaid.map((f) => f.ref),
    ...lengths.flatMap((x) => (x.offMs < 0 ? [x.section] : [])),
  ].join('\n');
};

/** The answer to an order of one section bears no mark; among others it needs one. */
const marked = (answer: string, { sections }: Order): string =>
  sections.length === 1 && !/^\s*[#*_]*\[\s*(?:section\s+)?\d/im.test(answer)
    ? `[${sections[0].number}]\n${answer}`
    : answer;

export interface RoundsTaken {
  sections: PlainSection[];
  /** How far it still is from its seconds, in milliseconds: over (+) or under (−). */
  offMs: number;
  count: {
    /** Lines as they came, mended, by rule where what came could not be used, open places, left out for length. */
    taken: number;
    mended: number;
    byRule: number;
    open: number;
    leftOut: number;
  };
  /** What still fails, by line of the reply, with what is wrong in it. */
  refused: { text: string; why: string; became: Became }[];
}

/**
 * What came, put into the script as it stands now and brought to its seconds. `stays`: sections that keep their own lines,
 * such as those that were written in while it was asked.
 */
export function takenRounds(
  context: CommissionContext,
  checked: CheckedReply,
  options: { by: Origin; fresh: () => string; stays?: ReadonlySet<string>; scope?: OrderScope },
  clock: Clock,
): RoundsTaken {
  const taking = takeable(checked, true, true);
  if (options.scope?.line) return lineTaken(context, checked, taking, options, clock);
  const worth = worthKeeping(context, mustIn(orderedSections(context, clock), context.must));
  const settledWith = (stays: ReadonlySet<string>) => {
    const replaced = replacedBy(context, checked, taking, { ...options, stays, instead: 'ours' });
    const settled = settleLength(replaced.sections, context.target, context.mood, clock, (l) =>
      // Nothing goes but what was ordered, and nothing that was written meanwhile.
      l.by !== options.by && (options.scope?.section || options.stays?.size) ? null : worth(l),
    );
    return { replaced, settled };
  };
  let stays = new Set(options.stays);
  let { replaced, settled } = settledWith(stays);
  // Where too little came that can be used, or too much that can't go, our paragraphs stay, those first that differ most.
  while (Math.abs(settled.offMs) > toleranceMs(context.target.seconds)) {
    const worst = farthest(context.sections, settled.sections, stays, Math.sign(settled.offMs), clock);
    if (worst === null) break;
    stays = new Set([...stays, worst]);
    ({ replaced, settled } = settledWith(stays));
  }
  const mended = new Set(checked.lines.flatMap((l) => (replaced.became.get(l.id) === 'mended' ? [taking.get(l.id)!] : []))); // prettier-ignore
  const own = settled.sections.flatMap((s) => s.lines).filter((l) => l.text.trim() && l.by === options.by);
  return {
    sections: settled.sections,
    offMs: settled.offMs,
    count: {
      taken: own.filter((l) => !mended.has(l.text)).length,
      mended: own.filter((l) => mended.has(l.text)).length,
      byRule: settled.sections.flatMap((s) => s.lines).filter((l) => l.text.trim() && !l.by).length,
      open: settled.sections.flatMap((s) => s.lines).filter(isOpen).length,
      leftOut: settled.dropped.length,
    },
    refused: checked.lines.flatMap((l) => {
      const how = replaced.became.get(l.id);
      if (taking.has(l.id) || how === undefined) return [];
      return [{ text: l.text, why: l.faults.map((f) => f.says).join(' '), became: how }];
    }),
  };
}

/** One line: it goes into its place, and everything else stays as it is. */
function lineTaken(
  context: CommissionContext,
  checked: CheckedReply,
  taking: ReadonlyMap<string, string>,
  options: { by: Origin; fresh: () => string; scope?: OrderScope },
  clock: Clock,
): RoundsTaken {
  const text = [...taking.values()].join(' ').trim();
  const from = sourcesOf(context.sources);
  const rests = checked.lines.filter((l) => taking.has(l.id)).flatMap(from);
  const sections = context.sections.map((s) => {
    const at = s.lines.findIndex((l) => l.id === options.scope!.line);
    if (at < 0 || !text || isKept(s.lines[at], s)) return s;
    return { ...s, lines: s.lines.map((l, i) => (i === at ? retakenLine(l, text, rests, options) : l)) };
  });
  const told = sections.flatMap((s) => s.lines).find((l) => l.id === options.scope!.line);
  const mended = checked.lines.some((l) => taking.has(l.id) && taking.get(l.id) !== l.text);
  const is = told?.by === options.by;
  return {
    sections,
    offMs: timeOf(sections, clock) - context.target.seconds * 1000,
    count: { taken: Number(is && !mended), mended: Number(is && mended), byRule: 0, open: Number(told !== undefined && isOpen(told)), leftOut: 0 }, // prettier-ignore
    refused: checked.lines.flatMap((l) => (taking.has(l.id) ? [] : [{ text: l.text, why: l.faults.map((f) => f.says).join(' '), became: 'left out' as const }])), // prettier-ignore
  };
}

/** The section that gained (`way` 1) or lost (−1) most time by what came, or null when none did. */
function farthest(
  before: readonly PlainSection[],
  after: readonly PlainSection[],
  stays: ReadonlySet<string>,
  way: number,
  clock: Clock,
): string | null {
  const off = before.flatMap((s, i) => {
    const ms = stays.has(s.id) ? 0 : way * (timeOf([after[i]], clock) - timeOf([s], clock));
    return ms > 0 ? [{ id: s.id, ms }] : [];
  });
  return off.sort((a, b) => b.ms - a.ms)[0]?.id ?? null;
}
