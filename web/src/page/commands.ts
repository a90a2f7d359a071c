/** What keys do to lines and sections. */
import { joinBackward, joinForward, deleteSelection, selectAll } from 'prosemirror-commands';
import { Plugin, TextSelection, type Command, type EditorState } from 'prosemirror-state';
import type { Node } from 'prosemirror-model';
import { scriptSchema, type LineNote, type LineSource } from '@ursprung/core/script';

/** The line a position stands in, with where it begins. */
export function lineAt(state: EditorState, pos = state.selection.head): { node: Node; pos: number } | null {
  const $pos = state.doc.resolve(pos);
  for (let d = $pos.depth; d > 0; d--)
    if ($pos.node(d).type.name === 'line') return { node: $pos.node(d), pos: $pos.before(d) };
  return null;
}

/** Splits the line; the planned rest stays with the second part, where the sentence ends. */
export const splitLine: Command = (state, dispatch) => {
  const line = lineAt(state, state.selection.from);
  if (!line) return false;
  if (dispatch) {
    const tr = state.tr.deleteSelection();
    const at = tr.selection.from;
    tr.split(at);
    const start = tr.doc.resolve(at).before();
    const first = tr.doc.nodeAt(start);
    if (first && first.attrs.restMs) tr.setNodeMarkup(start, null, { ...first.attrs, restMs: 0 });
    dispatch(tr.scrollIntoView());
  }
  return true;
};

/** Starts a new section at the caret's line. */
export const splitSection: Command = (state, dispatch) => {
  const { $head } = state.selection;
  if ($head.depth < 2 || $head.index(1) === 0 || !$head.node(1)) return false;
  if (dispatch) {
    const tr = state.tr;
    const before = $head.before(2);
    const old = $head.node(1);
    const moved = old.content.content.slice($head.index(1));
    const plannedMs = Math.round((old.attrs.plannedMs as number) * (moved.length / old.childCount));
    const oldPos = $head.before(1);
    tr.split(before, 1, [
      { type: old.type, attrs: { ...old.attrs, id: '', title: 'New section', plannedMs } },
    ]);
    tr.setNodeMarkup(oldPos, null, { ...old.attrs, plannedMs: (old.attrs.plannedMs as number) - plannedMs });
    dispatch(tr.setMeta('ownStep', true).scrollIntoView());
  }
  return true;
};

/** Moves the caret's line one place up or down, over section borders too. */
export const moveLine =
  (by: -1 | 1): Command =>
  (state, dispatch) => {
    const line = lineAt(state);
    if (!line) return false;
    const $line = state.doc.resolve(line.pos);
    const section = $line.parent;
    const s = $line.index(0);
    const offset = state.selection.head - line.pos;
    // A section keeps at least one line.
    if (section.childCount === 1) return false;
    const i = $line.index(1);
    const within = by < 0 ? i > 0 : i < section.childCount - 1;
    let target: number;
    if (within)
      target = by < 0 ? line.pos - section.child(i - 1).nodeSize : line.pos + section.child(i + 1).nodeSize;
    else if (by < 0 ? s === 0 : s === state.doc.childCount - 1) return false;
    else target = by < 0 ? $line.before(1) - 1 : $line.after(1) + 1 - line.node.nodeSize;
    if (dispatch) {
      const tr = state.tr.delete(line.pos, line.pos + line.node.nodeSize).insert(target, line.node);
      tr.setSelection(TextSelection.near(tr.doc.resolve(target + offset)));
      dispatch(tr.setMeta('ownStep', true).scrollIntoView());
    }
    return true;
  };

/** Longer or shorter rest after the caret's line, in steps of a tenth of a second. */
export const changeRest =
  (byMs: number): Command =>
  (state, dispatch) => {
    const line = lineAt(state);
    if (!line) return false;
    const restMs = Math.min(
      10_000,
      Math.max(0, Math.round(((line.node.attrs.restMs as number) + byMs) / 100) * 100),
    );
    if (restMs === line.node.attrs.restMs) return false;
    if (dispatch) dispatch(state.tr.setNodeMarkup(line.pos, null, { ...line.node.attrs, restMs }));
    return true;
  };

/** Locks the caret's line, or takes its lock off; `section` does it to the whole section. */
export const toggleLock =
  (what: 'line' | 'section'): Command =>
  (state, dispatch) => {
    const line = lineAt(state);
    if (!line) return false;
    const $line = state.doc.resolve(line.pos);
    const [pos, node] =
      what === 'line' && !$line.parent.attrs.locked ? [line.pos, line.node] : [$line.before(1), $line.parent];
    dispatch?.(
      state.tr
        .setNodeMarkup(pos, null, { ...node.attrs, locked: !node.attrs.locked })
        .setMeta('ownStep', true),
    );
    return true;
  };

/** Stress on the selected words, or on the word at the caret; once more takes it off. */
export const toggleStress: Command = (state, dispatch) => {
  const { from, to, $from, empty } = state.selection;
  const range = empty ? wordAt($from.parent.textContent, $from.parentOffset) : null;
  const [start, end] = range ? [$from.start() + range[0], $from.start() + range[1]] : [from, to];
  if (start >= end || !lineAt(state)) return false;
  const { stress } = scriptSchema.marks;
  const has = state.doc.rangeHasMark(start, end, stress);
  dispatch?.(
    (has ? state.tr.removeMark(start, end, stress) : state.tr.addMark(start, end, stress.create())).setMeta(
      'ownStep',
      true,
    ),
  );
  return true;
};
/** The word around a place in a text, as a range. */
export function wordAt(text: string, at: number): [number, number] | null {
  let start = at;
  let end = at;
  while (start > 0 && /[\p{L}\p{N}’'-]/u.test(text[start - 1])) start--;
  while (end < text.length && /[\p{L}\p{N}’'-]/u.test(text[end])) end++;
  return end > start ? [start, end] : null;
}

/** A remark on the selected words, or on the whole line. */
export const addComment =
  (id: string, text: string, at: string): Command =>
  (state, dispatch) => {
    const line = lineAt(state, state.selection.from);
    if (!line || !line.node.content.size) return false;
    const { empty, from, to } = state.selection;
    const [start, end] = empty ? [line.pos + 1, line.pos + 1 + line.node.content.size] : [from, to];
    dispatch?.(
      state.tr
        .addMark(start, end, scriptSchema.marks.comment.create({ id, text, at, done: false }))
        .setMeta('ownStep', true),
    );
    return true;
  };

/** Every stretch that carries a comment: its remark changed, settled, or taken off (null). */
export const changeComment =
  (id: string, change: { text?: string; done?: boolean } | null): Command =>
  (state, dispatch) => {
    const tr = state.tr;
    state.doc.descendants((node, pos) => {
      const mark = node.marks.find((m) => m.type.name === 'comment' && m.attrs.id === id);
      if (!mark) return true;
      tr.removeMark(pos, pos + node.nodeSize, mark);
      if (change) tr.addMark(pos, pos + node.nodeSize, mark.type.create({ ...mark.attrs, ...change }));
      return false;
    });
    if (!tr.docChanged) return false;
    dispatch?.(tr.setMeta('ownStep', true));
    return true;
  };

/** Puts what was taken out of a draft back into the speech, as a line of its own at its place. */
export const sayNote =
  (noteId?: string): Command =>
  (state, dispatch) => {
    let found: { pos: number; node: Node; note: LineNote } | null = null;
    const here = lineAt(state);
    state.doc.descendants((node, pos) => {
      if (node.type.name !== 'line') return true;
      const notes = node.attrs.notes as LineNote[];
      const note = noteId ? notes.find((n) => n.id === noteId) : here?.pos === pos ? notes[0] : undefined;
      if (note) found = { pos, node, note };
      return false;
    });
    if (!found) return false;
    const { pos, node, note } = found as { pos: number; node: Node; note: LineNote };
    if (dispatch) {
      const left = (node.attrs.notes as LineNote[]).filter((n) => n.id !== note.id);
      const words = note.text.replace(/^[[({*_]+|[\])}*_]+$/g, '').trim() || note.text;
      const made = scriptSchema.node('line', { notes: [] }, scriptSchema.text(words));
      const tr = state.tr.setNodeMarkup(pos, null, { ...node.attrs, notes: left });
      tr.insert(note.where === 'before' ? pos : pos + node.nodeSize, made);
      dispatch(tr.setMeta('ownStep', true).scrollIntoView());
    }
    return true;
  };

/** Takes the notes of a line away: they were looked at. */
export const dropNotes =
  (all = false): Command =>
  (state, dispatch) => {
    const here = lineAt(state);
    const tr = state.tr;
    state.doc.descendants((node, pos) => {
      if (node.type.name !== 'line') return true;
      if ((all || here?.pos === pos) && (node.attrs.notes as LineNote[]).length)
        tr.setNodeMarkup(pos, null, { ...node.attrs, notes: [] });
      return false;
    });
    if (!tr.docChanged) return false;
    dispatch?.(tr.setMeta('ownStep', true));
    return true;
  };

/** Joins the caret's line to the one before it in its section, a space between. */
export const joinLine: Command = (state, dispatch) => {
  const line = lineAt(state);
  if (!line) return false;
  const $line = state.doc.resolve(line.pos);
  if ($line.index(1) === 0) return false;
  if (dispatch) {
    const before = $line.nodeBefore!;
    const tr = state.tr;
    const apart = /\s$/.test(before.textContent) || /^\s/.test(line.node.textContent);
    if (before.content.size && line.node.content.size && !apart) tr.insertText(' ', line.pos - 1);
    const at = tr.mapping.map(line.pos);
    tr.join(at);
    dispatch(tr.setMeta('ownStep', true).scrollIntoView());
  }
  return true;
};

/** Puts a line before or after another, wherever that stands. */
export const moveLineTo =
  (id: string, targetId: string, side: 'before' | 'after'): Command =>
  (state, dispatch) => {
    const places = new Map<string, { pos: number; node: Node; alone: boolean }>();
    state.doc.descendants((node, pos, parent) => {
      if (node.type.name === 'line')
        places.set(node.attrs.id as string, { pos, node, alone: parent?.childCount === 1 });
      return node.type.name !== 'line';
    });
    const from = places.get(id);
    const to = places.get(targetId);
    // A section keeps at least one line.
    if (!from || !to || from === to || from.alone) return false;
    if (dispatch) {
      const tr = state.tr.delete(from.pos, from.pos + from.node.nodeSize);
      const at = tr.mapping.map(side === 'before' ? to.pos : to.pos + to.node.nodeSize);
      tr.insert(at, from.node);
      tr.setSelection(TextSelection.near(tr.doc.resolve(at + 1)));
      dispatch(tr.setMeta('ownStep', true).scrollIntoView());
    }
    return true;
  };

/** Moves the caret's whole section one place up or down. */
export const moveSection =
  (by: -1 | 1): Command =>
  (state, dispatch) => {
    const { $head } = state.selection;
    if ($head.depth < 2) return false;
    const at = $head.index(0);
    const other = at + by;
    if (other < 0 || other >= state.doc.childCount) return false;
    if (dispatch) {
      const section = state.doc.child(at);
      const pos = $head.before(1);
      const target = by < 0 ? pos - state.doc.child(other).nodeSize : pos + state.doc.child(other).nodeSize;
      const tr = state.tr.delete(pos, pos + section.nodeSize).insert(target, section);
      tr.setSelection(TextSelection.near(tr.doc.resolve(target + ($head.pos - pos))));
      dispatch(tr.setMeta('ownStep', true).scrollIntoView());
    }
    return true;
  };

/** At the start of a section's first line, joins that section to the one before. */
const joinSections: Command = (state, dispatch) => {
  const { $head, empty } = state.selection;
  if (!empty || $head.parentOffset > 0 || $head.index(1) > 0 || $head.index(0) === 0) return false;
  if (dispatch) {
    const at = $head.before(1);
    const [left, right] = [state.doc.child($head.index(0) - 1), $head.node(1)];
    const start = at - left.nodeSize;
    const tr = state.tr.join(at);
    tr.setNodeMarkup(start, null, {
      ...left.attrs,
      plannedMs: (left.attrs.plannedMs as number) + (right.attrs.plannedMs as number),
    });
    dispatch(tr.setMeta('ownStep', true).scrollIntoView());
  }
  return true;
};

/** Only with the caret at the start of a line and nothing selected. */
const atLineStart =
  (command: Command): Command =>
  (state, dispatch, view) =>
    state.selection.empty && state.selection.$head.parentOffset === 0
      ? command(state, dispatch, view)
      : false;

const chain =
  (...commands: Command[]): Command =>
  (state, dispatch, view) =>
    commands.some((c) => c(state, dispatch, view));

/** Keys of the manuscript. None is the browser's or the system's own. */
export const manuscriptKeys: Record<string, Command> = {
  Enter: splitLine,
  'Mod-Enter': splitSection,
  'Mod-Shift-ArrowUp': moveLine(-1),
  'Mod-Shift-ArrowDown': moveLine(1),
  'Mod-]': changeRest(100),
  'Mod-[': changeRest(-100),
  'Mod-\\': toggleLock('line'),
  'Mod-Shift-\\': toggleLock('section'),
  'Mod-/': toggleStress,
  'Mod-Shift-Enter': sayNote(),
  Backspace: chain(deleteSelection, joinSections, atLineStart(joinLine), joinBackward),
  Delete: chain(deleteSelection, joinForward),
  'Mod-a': selectAll,
};

/** Every line and section has an id of its own: splits and pastes get new ones, and a pasted or new line loses a link it does not earn. */
export function idKeeper(fresh: () => string): Plugin {
  return new Plugin({
    appendTransaction: (transactions, _old, state) => {
      if (!transactions.some((t) => t.docChanged)) return null;
      const seen = new Set<string>();
      const tr = state.tr;
      state.doc.descendants((node, pos) => {
        if (node.isText) return false;
        const id = node.attrs.id as string;
        if (id && !seen.has(id)) seen.add(id);
        else {
          const next = (node.type.name === 'section' ? 'S' : 'L') + fresh();
          seen.add(next);
          // An empty line claims nothing.
          const from =
            node.type.name === 'line' && node.content.size === 0 ? { from: [] as LineSource[] } : {};
          tr.setNodeMarkup(pos, null, { ...node.attrs, id: next, ...from });
        }
        return node.type.name !== 'line';
      });
      return tr.docChanged ? tr : null;
    },
  });
}
