/** What a writer does to scenes: set, join, move and hold cuts, say of a scene what is not computed. Every one is a step of the document. */
import type { Command, EditorState, Transaction } from 'prosemirror-state';
import { partedAt, type Scene } from '@ursprung/core/scenes/desk';
import { scriptSchema, type CutMark, type SceneOwn } from '@ursprung/core/script';
import { wordAt } from '../page/commands.ts';

const { cut } = scriptSchema.marks;
const fresh = () => `c${Math.random().toString(36).slice(2, 10)}`;

interface Found {
  pos: number;
  text: string;
}
function findLine(state: EditorState, id: string): Found | null {
  let found: Found | null = null;
  state.doc.descendants((node, pos) => {
    if (found) return false;
    if (node.type.name !== 'line') return true;
    if (node.attrs.id === id) found = { pos, text: node.textContent };
    return false;
  });
  return found;
}

/** The word that a place in a text is at, or the next one. */
function wordFrom(text: string, at: number): [number, number] | null {
  const next = /[\p{L}\p{N}]/u.exec(text.slice(at));
  return next ? wordAt(text, at + next.index) : null;
}

/** Puts a mark on the word at a place, in place of any other mark there; null takes it off. */
function put(tr: Transaction, line: Found, at: number, mark: Partial<CutMark> | null): boolean {
  const word = wordFrom(line.text, at);
  if (!word) return false;
  const [from, to] = [line.pos + 1 + word[0], line.pos + 1 + word[1]];
  tr.removeMark(from, to, cut);
  if (mark)
    tr.addMark(
      from,
      to,
      cut.create({
        id: mark.id ?? fresh(),
        kind: mark.kind ?? 'break',
        held: mark.held ?? false,
        own: mark.own ?? {},
      }),
    );
  return true;
}
const marked = (tr: Transaction) => tr.setMeta('ownStep', true).setMeta('origin', 'scenes');
const startOf = (scene: Scene) => ({ line: scene.parts[0].line, at: scene.parts[0].from });

/** A scene begins at a place in a line. */
export const breakAt =
  (line: string, at: number): Command =>
  (state, dispatch) => {
    const found = findLine(state, line);
    if (!found) return false;
    const { tr } = state;
    if (!put(tr, found, at, { kind: 'break' })) return false;
    dispatch?.(marked(tr));
    return true;
  };

/** The scene goes with the one before it. */
export const joinBefore =
  (scene: Scene): Command =>
  (state, dispatch) => {
    const { line, at } = startOf(scene);
    const found = findLine(state, line);
    if (!found || scene.why === 'section' || scene.silent) return false;
    const { tr } = state;
    if (!put(tr, found, at, { kind: 'join' })) return false;
    dispatch?.(marked(tr));
    return true;
  };

/** Takes the writer's mark off: what is computed holds again. */
export const asComputed =
  (scene: Scene): Command =>
  (state, dispatch) => {
    const { line, at } = startOf(scene);
    const found = findLine(state, line);
    if (!found || !scene.mark) return false;
    const { tr } = state;
    put(tr, found, at, null);
    dispatch?.(marked(tr));
    return true;
  };

/** Where a scene's words are best parted. */
export function splitPlace(
  scene: Scene,
  textOf: (line: string) => string,
): { line: string; at: number } | null {
  const part = [...scene.parts].sort((a, b) => b.to - b.from - (a.to - a.from))[0];
  const at = partedAt(textOf(part.line).slice(part.from, part.to));
  return at === null ? null : { line: part.line, at: part.from + at };
}

/** Moves a scene's beginning by whole words within its line. */
export const moveCut =
  (scene: Scene, byWords: number): Command =>
  (state, dispatch) => {
    const { line, at } = startOf(scene);
    const found = findLine(state, line);
    if (!found || scene.why === 'section' || scene.silent || !byWords) return false;
    const starts = [...found.text.matchAll(/[\p{L}\p{N}][\p{L}\p{N}’'-]*/gu)].map((m) => m.index);
    const here = starts.findIndex((s) => s >= at);
    const next = Math.max(0, Math.min(starts.length - 1, here + byWords));
    if (here < 0 || next === here) return false;
    const { tr } = state;
    // What is computed would break here again.
    put(tr, found, starts[here], { kind: 'join' });
    put(tr, found, starts[next], {
      kind: 'break',
      held: scene.held,
      own: scene.own,
      ...(scene.mark ? { id: scene.mark } : {}),
    });
    dispatch?.(marked(tr));
    return true;
  };

/** Holds a scene: it stays one picture, whatever the pace. */
export const toggleHeld =
  (scene: Scene): Command =>
  (state, dispatch) => {
    const { line, at } = startOf(scene);
    const found = findLine(state, line);
    if (!found) return false;
    const { tr } = state;
    if (
      !put(tr, found, at, {
        kind: 'break',
        held: !scene.held,
        own: scene.own,
        ...(scene.mark ? { id: scene.mark } : {}),
      })
    )
      return false;
    // Its end is held too, or it would take in what comes behind it.
    const last = scene.parts[scene.parts.length - 1];
    const end = findLine(state, last.line);
    if (!scene.held && end && last.to < end.text.length && !markedAt(state, end, last.to))
      put(tr, end, last.to, { kind: 'break' });
    dispatch?.(marked(tr));
    return true;
  };

/** Whether the word at a place carries a cut of the writer's already. */
function markedAt(state: EditorState, line: Found, at: number): boolean {
  const word = wordFrom(line.text, at);
  return !!word && state.doc.rangeHasMark(line.pos + 1 + word[0], line.pos + 1 + word[1], cut);
}

/** What the writer says of a scene; a part that is undefined is computed again. */
export const sayOfScene =
  (scene: Scene, change: { [K in keyof SceneOwn]?: SceneOwn[K] | undefined }): Command =>
  (state, dispatch) => {
    const { line, at } = startOf(scene);
    const found = findLine(state, line);
    if (!found) return false;
    const own = Object.fromEntries(
      Object.entries({ ...scene.own, ...change }).filter(([, v]) => v !== undefined),
    );
    const { tr } = state;
    if (scene.silent && scene.why !== 'rest') {
      const node = state.doc.nodeAt(found.pos)!;
      tr.setNodeMarkup(found.pos, null, { ...node.attrs, scene: own });
    } else if (
      !put(tr, found, at, { kind: 'break', held: scene.held, own, ...(scene.mark ? { id: scene.mark } : {}) })
    )
      return false;
    dispatch?.(marked(tr));
    return true;
  };

export const SILENT_MS = 3000;
/** A scene without words behind the line that a scene ends in, with its own seconds. */
export const addSilent =
  (scene: Scene): Command =>
  (state, dispatch) => {
    const found = findLine(state, scene.parts[scene.parts.length - 1].line);
    if (!found) return false;
    const node = state.doc.nodeAt(found.pos)!;
    const line = scriptSchema.nodes.line.create({ id: fresh(), role: 'frame', fixedMs: SILENT_MS });
    dispatch?.(marked(state.tr.insert(found.pos + node.nodeSize, line)));
    return true;
  };
/** Its seconds, or null to take the silent scene out. */
export const silentSeconds =
  (scene: Scene, ms: number | null): Command =>
  (state, dispatch) => {
    const found = findLine(state, scene.parts[0].line);
    if (!found || !scene.silent || scene.why === 'rest') return false;
    const node = state.doc.nodeAt(found.pos)!;
    const { tr } = state;
    if (ms === null) tr.delete(found.pos, found.pos + node.nodeSize);
    else tr.setNodeMarkup(found.pos, null, { ...node.attrs, fixedMs: ms });
    dispatch?.(marked(tr));
    return true;
  };
