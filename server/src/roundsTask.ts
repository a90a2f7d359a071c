/** An order told in rounds, worked out in a worker: what is asked next, and what came put into the script. */
import {
  commissionSource,
  makeReplyChecker,
  plannedSections,
  replyOrder,
  orderedSections,
  standingAfter,
  takenRounds,
  type CommissionContext,
  type NextOrder,
  type OrderScope,
  type RoundsTaken,
} from '@ursprung/core/commission';
import { spineOf } from '@ursprung/core/plan';
import type { Origin, PlainSection } from '@ursprung/core/script';
import { expected, materialOf, type WorkResult } from './drafting.ts';
import { openedText, type SourceText } from './sourceText.ts';
import { getClock, getKin, getTagger } from './tools.ts';

export interface RoundsTask {
  /** All but what the sources give. */
  context: Omit<CommissionContext, 'sources' | 'spine' | 'sections'>;
  /** The sections that the orders are written from. */
  start: PlainSection[];
  sources: ({ letter: string } & SourceText)[];
  voice: string;
  sayings: readonly { word: string; say: string }[];
  scope: OrderScope;
  rounds: number;
  answers: string[];
}
export interface NextAsked {
  next: NextOrder | null;
  /** Lines that came, and how many of them can be taken. */
  lines: number;
  clean: number;
}
/** A reply that was written by hand, for all sections but those that stay. */
export interface HandTask extends Omit<RoundsTask, 'scope' | 'rounds' | 'answers'> {
  reply: string;
  stays: string[];
  by: Origin;
  salt: string;
}
export interface TakeTask extends RoundsTask {
  /** The script as it stands by now. */
  sections: PlainSection[];
  stays: string[];
  by: Origin;
  salt: string;
}

function askedOf(task: Omit<RoundsTask, 'scope' | 'rounds' | 'answers'>) {
  const material = materialOf(task.sources.map((s) => ({ letter: s.letter, ...openedText(s) })));
  const sources = material.map(({ letter, source, facts }) => commissionSource(letter, source, facts));
  const clock = getClock(task.voice, task.context.pace, task.sayings);
  const tools = { tagger: getTagger(), kin: getKin(), clock };
  const sections = plannedSections(task.start, (l) => clock.time(l.text).ms);
  const context = { ...task.context, sections, sources, spine: material.flatMap(spineOf) };
  return { context, tools };
}

export const nextAsked = (task: RoundsTask): Promise<WorkResult<NextAsked>> =>
  expected(() => {
    const { context, tools } = askedOf(task);
    const { scope, rounds, answers } = task;
    const { next, checked } = standingAfter({ context, scope, rounds }, answers, tools);
    const lines = checked?.lines ?? [];
    return { next, lines: lines.length, clean: lines.filter((l) => l.mended).length };
  });

/** What came, in the script as it stands; null when nothing whole has come. */
export const takeRounds = (task: TakeTask): Promise<WorkResult<RoundsTaken | null>> =>
  expected(() => {
    const { context, tools } = askedOf(task);
    const { scope, rounds, answers } = task;
    const { checked } = standingAfter({ context, scope, rounds }, answers, tools);
    if (!checked) return null;
    let n = 0;
    const options = {
      by: task.by,
      fresh: () => `${task.salt}${(n++).toString(36)}`,
      stays: new Set(task.stays),
      scope: task.scope,
    };
    return takenRounds({ ...context, sections: task.sections }, checked, options, tools.clock);
  });

export const takeByHand = (task: HandTask): Promise<WorkResult<RoundsTaken>> =>
  expected(() => {
    const { context, tools } = askedOf(task);
    const sections = orderedSections(context, tools.clock);
    const checked = makeReplyChecker(context.sources, replyOrder(context, sections), tools).check(
      task.reply,
      true,
    );
    let n = 0;
    const fresh = () => `${task.salt}${(n++).toString(36)}`;
    return takenRounds(context, checked, { by: task.by, fresh, stays: new Set(task.stays) }, tools.clock);
  });
