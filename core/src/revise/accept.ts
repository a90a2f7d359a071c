/** A proposed change, and taking it in part. Loads nothing heavy: pages use it as it is. */
import type { PlainSection } from '../script/data.ts';
import { linesIn, type ScriptSettings } from './types.ts';

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
  /** What changes of the script as a whole; absent where nothing does. */
  settings?: ScriptSettings;
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
