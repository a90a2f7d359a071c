/** Mends put into a script: one finding's, or all that are safe, as one change. */
import type { PlainSection } from '../script/data.ts';
import type { Finding, LineEdit } from './rule.ts';

/** Sections with edits made. A locked line is never touched; a section without lines goes, but never the last one. */
export function withEdits(sections: readonly PlainSection[], edits: readonly LineEdit[]): PlainSection[] {
  const byLine = new Map<string, LineEdit[]>();
  for (const e of edits) (byLine.get(e.line) ?? byLine.set(e.line, []).get(e.line)!).push(e);
  const next = sections.map((s) => {
    if (s.locked) return s;
    let changed = false;
    const lines = s.lines.flatMap((l) => {
      const own = byLine.get(l.id);
      if (!own || l.locked || l.fixed) return [l];
      changed = true;
      let line = l;
      for (const e of own) {
        if ('remove' in e) return [];
        line = 'text' in e ? { ...line, text: e.text, marks: [] } : { ...line, restMs: e.restMs };
      }
      return [line];
    });
    return changed ? { ...s, lines } : s;
  });
  const left = next.filter((s) => s.lines.length);
  return left.length ? left : [...sections];
}

/** The edits of all findings whose mend is safe: one a line a round, so that two never meet in one sentence. */
export function safeEdits(findings: readonly Finding[]): LineEdit[] {
  const taken = new Set<string>();
  return findings.flatMap((f) => {
    if (!f.mend?.safe || f.mend.edits.some((e) => taken.has(e.line))) return [];
    for (const e of f.mend.edits) taken.add(e.line);
    return [...f.mend.edits];
  });
}

const MOST_ROUNDS = 8;

/** Mends everything that is safe, round after round, until nothing safe is left. */
export function mendAllSafe(
  sections: readonly PlainSection[],
  findingsOf: (sections: readonly PlainSection[]) => readonly Finding[],
): { sections: PlainSection[]; mended: number } {
  let now = [...sections];
  let mended = 0;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const edits = safeEdits(findingsOf(now));
    if (!edits.length) break;
    now = withEdits(now, edits);
    mended += edits.length;
  }
  return { sections: now, mended };
}
