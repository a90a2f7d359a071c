/** A note → a proposed change: what was understood, the new words against the old, seconds, loops and trace before and after. */
import { loopsOf } from '../plan/loops.ts';
import { compareScripts, type Timing } from '../script/compare.ts';
import { clockLines, type PlainLine, type PlainSection } from '../script/schema.ts';
import { indexSources, overlap } from '../trace/overlap.ts';
import { stockOf, unsupportedIn } from '../trace/support.ts';
import { understand } from './understand.ts';
import { linesIn, type Request, type ReviseContext, type ReviseTools } from './types.ts';

export interface ProposedChange {
  /** Id of the line, and its section after the change (before it, for a line that goes). */
  line: string;
  section: string;
  before: string;
  after: string;
  moved?: boolean;
}
export interface Proposal {
  understood: { operation: string; scope: string; amount?: string };
  /** The same as one sentence. */
  says: string;
  changes: ProposedChange[];
  sections: PlainSection[];
  beforeMs: number;
  afterMs: number;
  /** Questions left unanswered, before and after. */
  openLoops: { before: number; after: number };
  /** Share of words in the sources' runs; null without sources. */
  overlap: { before: number; after: number } | null;
  /** Claims no source has. */
  unsupported: { before: number; after: number } | null;
  /** What the person should know. */
  notes: string[];
}
export type Revised = { proposal: Proposal } | { cannot: string; took: string | null; nearest: string[] };

const sentence = (r: Request): string => {
  const where = r.where ? `, ${r.where.says}` : '';
  return `${r.operation.says}: ${r.scope.says}${where}${r.amount ? `, ${r.amount.says}` : ''}`;
};

/** Reads a note and works it out on the sections given. Nothing is applied; nothing outside the scope is changed. */
export function propose(note: string, context: ReviseContext, tools: ReviseTools): Revised {
  const understood = understand(note, context);
  if ('asks' in understood)
    return { cannot: understood.asks, took: understood.took, nearest: understood.nearest };
  let sections: PlainSection[] = [...context.sections];
  const notes: string[] = [];
  for (const request of understood.requests) {
    // A scope that a change before has emptied is no longer there.
    const result = request.operation.apply(request, { ...context, sections }, tools);
    if ('refused' in result)
      return {
        cannot: result.refused,
        took: sentence(request),
        nearest: result.nearest ? [result.nearest] : [],
      };
    if (
      !request.operation.id.startsWith('hook') &&
      !['another-take', 'another-hook', 'fit', 'under'].includes(request.operation.id)
    ) {
      const strayed = outsideChanged(sections, result.sections, request);
      if (strayed)
        throw new Error(`${request.operation.id} changed line ${strayed}, outside of what was asked.`);
    }
    sections = result.sections;
    notes.push(...(result.notes ?? []));
  }
  const { requests } = understood;
  const worked = effects(context, sections, tools);
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
      notes,
    },
  };
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

function effects(
  context: ReviseContext,
  sections: PlainSection[],
  { clock }: ReviseTools,
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
  const stock = texts.length ? stockOf(texts) : null;
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

/**
 * A proposal taken in part: of the lines named only. Words changed, lines added and lines left out can be chosen one by
 * one; a change of order is taken whole or not at all, with any of its lines.
 */
export function acceptedIn(
  before: readonly PlainSection[],
  proposal: Pick<Proposal, 'sections' | 'changes'>,
  lines: ReadonlySet<string>,
): PlainSection[] {
  if (proposal.changes.every((c) => lines.has(c.line))) return [...proposal.sections];
  const refused = new Map(proposal.changes.filter((c) => !lines.has(c.line)).map((c) => [c.line, c]));
  const old = new Map(linesIn(before).map((l) => [l.id, l]));
  const moved = proposal.changes.some((c) => c.moved && lines.has(c.line));
  if (!moved && proposal.changes.some((c) => c.moved)) {
    // The order stays: words are taken over, lines go, and new ones come behind the line they would follow.
    const next = new Map(linesIn(proposal.sections).map((l) => [l.id, l]));
    const kept = before.map((s) => ({
      ...s,
      lines: s.lines.flatMap((l) => (!lines.has(l.id) ? [l] : next.has(l.id) ? [next.get(l.id)!] : [])),
    }));
    for (const s of proposal.sections)
      s.lines.forEach((l, i) => {
        if (!lines.has(l.id) || old.has(l.id)) return;
        const previous = s.lines[i - 1]?.id;
        const target =
          kept.find((x) => x.lines.some((y) => y.id === previous)) ?? kept.find((x) => x.id === s.id);
        if (!target) return;
        const at = target.lines.findIndex((y) => y.id === previous) + 1;
        target.lines = [...target.lines.slice(0, at), l, ...target.lines.slice(at)];
      });
    return kept.filter((s) => s.lines.length);
  }
  const out = proposal.sections.map((s) => {
    const kept = s.lines.flatMap((l) => {
      const c = refused.get(l.id);
      if (!c) return [l];
      return c.before === '' ? [] : [old.get(l.id) ?? l];
    });
    return { ...s, lines: kept };
  });
  // What was to go and was not let go comes back behind the line it followed.
  for (const s of before)
    s.lines.forEach((l, i) => {
      if (refused.get(l.id)?.after !== '' || linesIn(out).some((x) => x.id === l.id)) return;
      const previous = s.lines[i - 1]?.id;
      const target = out.find((x) => x.id === s.id);
      if (!target) {
        const at = before.indexOf(s);
        const anchor = out.findIndex((x) => before.findIndex((b) => b.id === x.id) > at);
        out.splice(anchor < 0 ? out.length : anchor, 0, { ...s, lines: [l] });
        return;
      }
      const at = previous ? target.lines.findIndex((x) => x.id === previous) + 1 : 0;
      target.lines = [...target.lines.slice(0, at), l, ...target.lines.slice(at)];
    });
  return out.filter((s) => s.lines.length);
}
