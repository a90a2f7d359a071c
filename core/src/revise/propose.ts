/** A note → a proposed change: what was understood, the new words against the old, seconds, loops and trace before and after. */
import { loopsOf } from '../plan/loops.ts';
import { compareScripts, type Timing } from '../script/compare.ts';
import type { PlainLine, PlainSection } from '../script/data.ts';
import { clockLines } from '../script/schema.ts';
import { indexSources, overlap } from '../trace/overlap.ts';
import { stockOf, supportOf, unsupportedIn } from '../trace/support.ts';
import { understand } from './understand.ts';
import type { Proposal, ProposedChange } from './accept.ts';
import type { Clock } from '../timing/clock.ts';
import { linesIn, type Request, type ReviseContext, type ReviseTools, type ScriptSettings } from './types.ts';

export type Revised = { proposal: Proposal } | { cannot: string; took: string | null; nearest: string[] };

const sentence = (r: Request): string => {
  const where = r.where ? `, ${r.where.says}` : '';
  return `${r.operation.says}: ${r.scope.says}${where}${r.amount ? `, ${amountSaid(r)}` : ''}`;
};

/** What is made so long, or by so much longer or shorter: "by" and "to" are said. */
const LENGTHS: ReadonlySet<string> = new Set(['shorten', 'under', 'air']);
const amountSaid = ({ amount, operation }: Request): string =>
  amount && amount.type !== 'share' && LENGTHS.has(operation.id) && !/^(?:by|to) /.test(amount.says)
    ? `${amount.type} ${amount.says}`
    : amount!.says;

/** Reads a note and works it out on the sections given. Nothing is applied; nothing outside the scope is changed. */
export function propose(note: string, context: ReviseContext, tools: ReviseTools): Revised {
  let starts: readonly number[] | undefined;
  const startsMs = () =>
    (starts ??= timingOf(tools.clock)(context.sections).reduce<number[]>((all, { ms }) => [...all, all[all.length - 1] + ms], [0])); // prettier-ignore
  const understood = understand(note, { startsMs, ...context });
  if ('asks' in understood)
    return { cannot: understood.asks, took: understood.took, nearest: understood.nearest };
  let sections: PlainSection[] = [...context.sections];
  const notes: string[] = [];
  let settings: ScriptSettings = {};
  const refused: { result: { refused: string; nearest?: string }; request: Request }[] = [];
  for (const request of understood.requests) {
    // A scope that a change before has emptied is no longer there.
    const result = request.operation.apply(request, { ...context, sections }, tools);
    if ('refused' in result) {
      refused.push({ result, request });
      continue;
    }
    if (
      !request.operation.id.startsWith('hook') &&
      !['another-take', 'another-hook', 'fit', 'under'].includes(request.operation.id)
    ) {
      const strayed = outsideChanged(sections, result.sections, request);
      if (strayed)
        throw new Error(`${request.operation.id} changed line ${strayed}, outside of what was asked.`);
    }
    settings = { ...settings, ...result.settings };
    sections = request.keep?.length ? keeping(request.keep, sections, result.sections) : result.sections;
    notes.push(...(result.notes ?? []));
  }
  if (refused.length === understood.requests.length) {
    const [{ result, request }] = refused;
    return {
      cannot: result.refused,
      took: sentence(request),
      nearest: result.nearest ? [result.nearest] : [],
    };
  }
  // Of several wishes, what can be done is proposed, and the rest is said.
  const requests = understood.requests.filter((r) => !refused.some((x) => x.request === r));
  for (const r of refused) notes.push(`Not done: ${sentence(r.request)}. ${r.result.refused}`);
  const after = settings.pace && tools.clockAt ? tools.clockAt(settings.pace) : tools.clock;
  const worked = {
    ...effects(context, sections, tools),
    ...(after === tools.clock ? {} : { afterMs: totalOf(after, sections) }),
  };
  if (!worked.changes.length) notes.push(...structural(context.sections, sections));
  return {
    proposal: {
      ...worked,
      understood: {
        operation: requests.map((r) => r.operation.id).join(' + '),
        scope: requests.map((r) => r.scope.says).join(' + '),
        ...(requests.some((r) => r.amount)
          ? { amount: requests.flatMap((r) => (r.amount ? [r.amount.says] : [])).join(' + ') }
          : {}),
      },
      says: requests.map(sentence).join('; then '),
      sections,
      ...(Object.keys(settings).length ? { settings } : {}),
      notes,
    },
  };
}

const totalOf = (clock: Clock, sections: readonly PlainSection[]) =>
  timingOf(clock)(sections).reduce((n, l) => n + l.ms, 0);

/** A change without what it would do to lines that must keep words they have. */
function keeping(
  kept: readonly string[],
  before: readonly PlainSection[],
  after: readonly PlainSection[],
): PlainSection[] {
  const was = new Map(linesIn(before).map((l) => [l.id, l]));
  const loses = (l: PlainLine) => kept.some((k) => was.get(l.id)?.text.includes(k) && !l.text.includes(k));
  return after.map((s) =>
    s.lines.some(loses) ? { ...s, lines: s.lines.map((l) => (loses(l) ? was.get(l.id)! : l)) } : s,
  );
}

/** The id of a line outside the scope whose words, rest or links are not as before, or that is gone; null when all are. */
export function outsideChanged(
  before: readonly PlainSection[],
  after: readonly PlainSection[],
  { scope, operation }: Pick<Request, 'scope' | 'operation'>,
): string | null {
  if (scope.type === 'whole') return null;
  const inside = new Set(scope.lines);
  const now = new Map(linesIn(after).map((l) => [l.id, l]));
  for (const l of linesIn(before)) {
    if (inside.has(l.id)) continue;
    const next = now.get(l.id);
    if (
      !next ||
      next.text !== l.text ||
      next.restMs !== l.restMs ||
      next.locked !== l.locked ||
      next.from !== l.from
    ) {
      // A second part named beside the scope ("swap A and B", "join A with B") is inside too.
      if (operation.moves && (operation.id === 'join' || operation.id === 'swap')) continue;
      return l.id;
    }
  }
  return null;
}

/** What changes when no line does: sections joined, split, named, locked; rests; stress. */
function structural(before: readonly PlainSection[], after: readonly PlainSection[]): string[] {
  const old = new Map(linesIn(before).map((l) => [l.id, l]));
  const count = (test: (was: PlainLine, now: PlainLine) => boolean) =>
    linesIn(after).filter((l) => old.has(l.id) && test(old.get(l.id)!, l)).length;
  const locked =
    count((a, b) => a.locked !== b.locked) +
    after.filter((s) => before.some((b) => b.id === s.id && b.locked !== s.locked)).length;
  const rests = count((a, b) => a.restMs !== b.restMs);
  const stressed = count((a, b) => (a.marks?.length ?? 0) !== (b.marks?.length ?? 0));
  const named = after.filter((s) => before.some((b) => b.id === s.id && b.title !== s.title));
  return [
    ...(before.length === after.length ? [] : [`${before.length} sections before, ${after.length} after.`]),
    ...named.map((s) => `The section is called “${s.title}”.`),
    ...(locked ? [`${locked === 1 ? 'One lock changes' : `${locked} locks change`}.`] : []),
    ...(rests ? [`${rests === 1 ? 'One rest changes' : `${rests} rests change`}.`] : []),
    ...(stressed ? ['Stress is marked on the words.'] : []),
  ];
}

export const timingOf =
  (clock: ReviseTools['clock']): Timing =>
  (sections) =>
    clock.lines(clockLines(sections)).map(({ ms, words }) => ({ ms, words }));

/** What a change that was made elsewhere would do, told like any other proposal. */
export const proposalOf = (
  says: string,
  understood: Proposal['understood'],
  sections: PlainSection[],
  context: ReviseContext,
  tools: Pick<ReviseTools, 'clock'>,
  notes: string[] = [],
): Proposal => ({ ...effects(context, sections, tools), says, understood, sections, notes });

function effects(
  context: ReviseContext,
  sections: PlainSection[],
  { clock }: Pick<ReviseTools, 'clock'>,
): Pick<Proposal, 'changes' | 'beforeMs' | 'afterMs' | 'openLoops' | 'overlap' | 'unsupported'> {
  const compared = compareScripts(context.sections, sections, timingOf(clock));
  const changes = compared.sections.flatMap((s) =>
    s.lines
      .filter((l) => l.change !== 'same')
      .map((l): ProposedChange => ({
        line: l.id,
        section: s.id,
        before: l.before ?? '',
        after: l.after ?? '',
        ...(l.change === 'moved' ? { moved: true } : {}),
      })),
  );
  const dangling = (list: readonly PlainSection[]) => loopsOf(list).filter((l) => l.to === null).length;
  const texts = context.sources.map((s) => s.text);
  const index = texts.length ? indexSources(texts) : null;
  const stock = texts.length ? stockOf(context.sources.map(supportOf)) : null;
  const shared = (list: readonly PlainSection[]) =>
    Math.round(
      overlap(
        linesIn(list).map((l) => l.text),
        index!,
      ).share * 10_000,
    ) / 10_000;
  const claims = (list: readonly PlainSection[]) =>
    linesIn(list).reduce((n, l: PlainLine) => n + (l.fixed ? 0 : unsupportedIn(l.text, stock!).length), 0);
  return {
    changes,
    beforeMs: compared.beforeMs,
    afterMs: compared.afterMs,
    openLoops: { before: dangling(context.sections), after: dangling(sections) },
    overlap: index ? { before: shared(context.sections), after: shared(sections) } : null,
    unsupported: stock ? { before: claims(context.sections), after: claims(sections) } : null,
  };
}
