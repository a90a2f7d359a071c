/**
 * Undo and redo as data, so that they survive a reload: each item is the steps that take one change back. Items are
 * mapped over other people's changes as these arrive.
 */
import { Plugin, PluginKey, type EditorState, type Transaction } from 'prosemirror-state';
import { Step, type Mappable } from 'prosemirror-transform';
import { scriptSchema } from '@ursprung/core/script';

interface Item {
  steps: readonly Step[];
  at: number;
}
export interface History {
  done: readonly Item[];
  undone: readonly Item[];
}
export interface StoredHistory {
  done: { steps: unknown[]; at: number }[];
  undone: { steps: unknown[]; at: number }[];
}

const key = new PluginKey<History>('history');
/** Keys struck within this time of one another are taken back together, in milliseconds. */
const GROUP_MS = 600;
const MOST_ITEMS = 1000;

const inverseOf = (tr: Transaction): Step[] => tr.steps.map((step, i) => step.invert(tr.docs[i])).reverse();
const mapped = (items: readonly Item[], mapping: Mappable): Item[] =>
  items
    .map((item) => ({
      ...item,
      steps: item.steps.map((s) => s.map(mapping)).filter((s): s is Step => s !== null),
    }))
    .filter((item) => item.steps.length);

export function history(stored?: StoredHistory): Plugin<History> {
  const read = (items: { steps: unknown[]; at: number }[]) =>
    items.map((i) => ({ at: i.at, steps: i.steps.map((s) => Step.fromJSON(scriptSchema, s)) }));
  return new Plugin<History>({
    key,
    state: {
      init: () =>
        stored ? { done: read(stored.done), undone: read(stored.undone) } : { done: [], undone: [] },
      apply: (tr, value) => {
        const moved = tr.getMeta(key) as History | undefined;
        if (moved) return moved;
        if (!tr.docChanged || tr.getMeta('historyKnows')) return value;
        if (tr.getMeta('addToHistory') === false)
          return { done: mapped(value.done, tr.mapping), undone: mapped(value.undone, tr.mapping) };
        const steps = inverseOf(tr);
        const last = value.done[value.done.length - 1];
        // A transaction a plugin appends (new ids) belongs to the one that caused it.
        const joins =
          last &&
          (tr.getMeta('appendedTransaction') ||
            (tr.time - last.at < GROUP_MS && tr.steps.length === 1 && !tr.getMeta('ownStep')));
        const done = joins
          ? [...value.done.slice(0, -1), { at: tr.time, steps: [...steps, ...last.steps] }]
          : [...value.done, { at: tr.time, steps }];
        return { done: done.slice(-MOST_ITEMS), undone: [] };
      },
    },
  });
}

/** Marks a transaction as one that the stored history already knows. */
export const keepHistory = (tr: Transaction): Transaction => tr.setMeta('historyKnows', true);

function move(state: EditorState, from: 'done' | 'undone'): Transaction | null {
  const value = key.getState(state)!;
  const item = value[from][value[from].length - 1];
  if (!item) return null;
  const tr = state.tr;
  for (const step of item.steps) tr.maybeStep(step);
  const back: Item = { at: 0, steps: inverseOf(tr) };
  const rest = value[from].slice(0, -1);
  const next: History =
    from === 'done'
      ? { done: rest, undone: [...value.undone, back] }
      : { done: [...value.done, back], undone: rest };
  return tr.setMeta(key, next).scrollIntoView();
}

type Command = (state: EditorState, dispatch?: (tr: Transaction) => void) => boolean;
const command =
  (from: 'done' | 'undone'): Command =>
  (state, dispatch) => {
    const tr = move(state, from);
    if (tr && dispatch) dispatch(tr);
    return tr !== null;
  };
export const undo = command('done');
export const redo = command('undone');

export function storedHistory(state: EditorState): StoredHistory {
  const value = key.getState(state)!;
  const write = (items: readonly Item[]) =>
    items.slice(-200).map((i) => ({ at: i.at, steps: i.steps.map((s) => s.toJSON() as unknown) }));
  return { done: write(value.done), undone: write(value.undone) };
}
