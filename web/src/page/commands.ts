/** What keys do to lines and sections. */
import { joinBackward, joinForward, deleteSelection, selectAll } from 'prosemirror-commands';
import { Plugin, TextSelection, type Command, type EditorState } from 'prosemirror-state';
import type { Node } from 'prosemirror-model';
import type { LineSource } from '@ursprung/core/script';

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
  Backspace: chain(deleteSelection, joinSections, joinBackward),
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
