/** From one state of the document to another in small steps, so that what others write beside them stays. */
import { Fragment, Slice, type Node } from 'prosemirror-model';
import { AttrStep, ReplaceStep, Transform } from 'prosemirror-transform';
import { keptPlaces } from './compare.ts';

/**
 * Steps from `before` to `after`, told apart by the ids of sections and lines: of a line that stays only the words
 * between the first and the last difference, of its attributes only those that differ. What moves goes and comes; what
 * keeps its place (a longest rising run) is not touched. Applying them gives a document equal to `after`.
 */
export function difference(before: Node, after: Node): Transform {
  const tr = new Transform(before);
  children(tr, before, after, 0, (section, next, at) => {
    children(tr, section, next, at + 1, (line, nextLine, lineAt) => {
      words(tr, line, nextLine, lineAt + 1);
      attributes(tr, line, nextLine, lineAt);
    });
    attributes(tr, section, next, at);
  });
  return tr;
}

type Inside = (before: Node, after: Node, at: number) => void;

/** Children that stay, changed inside; between them what goes and comes, each run as one step. From the end, so that places before stay true. */
function children(tr: Transform, before: Node, after: Node, start: number, inside: Inside): void {
  const places = new Map<string, number>();
  before.forEach((node, _, i) => places.has(idOf(node)) || places.set(idOf(node), i));
  const seen = new Set<string>();
  const at = after.content.content.map((node) => {
    const id = idOf(node);
    const place = seen.has(id) ? undefined : places.get(id);
    seen.add(id);
    return place;
  });
  const kept = keptPlaces(at.filter((p) => p !== undefined));
  const starts: number[] = [];
  before.forEach((_, offset) => starts.push(start + offset));
  starts.push(start + before.content.size);

  let end = before.childCount;
  let coming: Node[] = [];
  const settle = (from: number) => {
    if (from < end || coming.length)
      tr.step(new ReplaceStep(starts[from], starts[end], sliceOf(coming.reverse())));
    coming = [];
  };
  for (let j = after.childCount - 1; j >= 0; j--) {
    const i = at[j];
    if (i === undefined || !kept.has(i)) {
      coming.push(after.child(j));
      continue;
    }
    settle(i + 1);
    if (!before.child(i).eq(after.child(j))) inside(before.child(i), after.child(j), starts[i]);
    end = i;
  }
  settle(0);
}

function words(tr: Transform, before: Node, after: Node, start: number): void {
  let from = before.content.findDiffStart(after.content);
  if (from === null) return;
  let { a, b } = before.content.findDiffEnd(after.content)!;
  // Letters said twice can be counted from both ends.
  const twice = from - Math.min(a, b);
  if (twice > 0) [a, b] = [a + twice, b + twice];
  // A letter of two code units is never cut.
  const { textContent } = before;
  if (isLow(textContent, from)) from--;
  if (isLow(textContent, a)) [a, b] = [a + 1, b + 1];
  tr.step(new ReplaceStep(start + from, start + a, new Slice(after.content.cut(from, b), 0, 0)));
}

function attributes(tr: Transform, before: Node, after: Node, pos: number): void {
  for (const name of Object.keys(before.attrs)) {
    const value: unknown = after.attrs[name];
    if (!sameData(before.attrs[name], value)) tr.step(new AttrStep(pos, name, value));
  }
}

const idOf = (node: Node) => node.attrs.id as string;
const sliceOf = (nodes: readonly Node[]) => new Slice(Fragment.fromArray([...nodes]), 0, 0);
const isLow = (text: string, at: number) => {
  const code = text.charCodeAt(at);
  return code >= 0xdc00 && code <= 0xdfff;
};

/** Whether two pieces of plain data are equal; the order of an object's keys says nothing. */
export function sameData(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const keys = Object.keys(a);
  return (
    keys.length === Object.keys(b).length &&
    keys.every((k) => Object.hasOwn(b, k) && sameData((a as never)[k], (b as never)[k]))
  );
}
