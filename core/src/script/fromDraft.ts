/** A cleaned draft as sections of the document, what was taken out kept as notes on the lines. */
import type { CleanedDraft, TakenOut } from './clean/index.ts';
import { sceneOfNotes } from './clean/understood.ts';
import type { PlainLine, PlainSection, SectionRole } from './data.ts';
import { emptyLine } from './schema.ts';

/** The roles of a script's sections by their place, while nobody has said otherwise. */
const roleAt = (i: number, of: number): SectionRole =>
  i === 0 ? 'hook' : i === of - 1 && of > 2 ? 'close' : 'ground';

/** A scene that the draft describes begins with the line, and keeps what was said of it. */
function sceneMark(taken: readonly TakenOut[], text: string, fresh: () => string): Pick<PlainLine, 'marks'> {
  const own = sceneOfNotes(taken);
  const end = /^\s*\S+/.exec(text)?.[0].length ?? 0;
  return own && end
    ? { marks: [{ type: 'cut', start: 0, end, id: `C${fresh()}`, kind: 'break', held: false, own }] }
    : {};
}

/** Sections with fresh ids. `fresh` gives a new id's random part. An empty draft gives no section. */
export function sectionsOfDraft(draft: CleanedDraft, fresh: () => string): PlainSection[] {
  const worded = draft.sections.filter((s) => s.lines.length);
  /** The same label before every line, and marks of layout, say nothing after the first time. */
  const seen = new Set<string>();
  const noted = (taken: readonly TakenOut[], where: 'before' | 'after') =>
    taken
      .filter((t) => {
        if (t.kind !== 'speaker' && t.kind !== 'mark') return true;
        const first = !seen.has(t.text);
        seen.add(t.text);
        return first;
      })
      .map((t) => ({ id: `N${fresh()}`, kind: t.kind, text: t.text, where }));
  return worded.map((s, i) => {
    // What stood in sections without a word goes to the section before.
    const between = draft.sections.slice(
      draft.sections.indexOf(s) + 1,
      i + 1 < worded.length ? draft.sections.indexOf(worded[i + 1]) : undefined,
    );
    const after = [
      ...s.takenAfter,
      ...between.flatMap((b) => [
        ...(b.title ? [{ kind: 'heading' as const, text: b.title }] : []),
        ...b.takenAfter,
      ]),
    ];
    const before =
      i === 0 ? draft.sections.slice(0, draft.sections.indexOf(s)).flatMap((b) => b.takenAfter) : [];
    const lines = s.lines.map((l, k): PlainLine => ({
      ...emptyLine(`L${fresh()}`),
      ...sceneMark([...(k === 0 ? before : []), ...l.taken], l.text, fresh),
      text: l.text,
      speaker: l.speaker,
      restMs: l.restMs,
      notes: [
        ...noted(k === 0 ? before : [], 'before'),
        ...noted(l.taken, 'before'),
        ...noted(k === s.lines.length - 1 ? after : [], 'after'),
      ],
    }));
    return {
      id: `S${fresh()}`,
      title: s.title || (worded.length === 1 ? 'Narration' : `Part ${i + 1}`),
      role: roleAt(i, worded.length),
      plannedMs: 0,
      locked: false,
      takes: [],
      lines,
    };
  });
}
