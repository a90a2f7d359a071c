/** Words that a change takes along with it although whoever made it never saw them, and words of steps that fit nothing. */
import type { Node } from 'prosemirror-model';
import type { Mapping, Step } from 'prosemirror-transform';

interface Range {
  from: number;
  to: number;
}

/** The stretches of the last document that a series of steps put in. */
export function insertedBy(steps: readonly Step[]): Range[] {
  let ranges: Range[] = [];
  for (const step of steps) {
    const map = step.getMap();
    ranges = ranges
      .map((r) => ({ from: map.map(r.from, 1), to: map.map(r.to, -1) }))
      .filter((r) => r.to > r.from);
    map.forEach((_a, _b, from, to) => {
      if (to > from) ranges.push({ from, to });
    });
  }
  return ranges;
}

/** Words in the ranges whose letters a mapping takes out, joined where they stood beside one another. */
export function lostWords(doc: Node, ranges: readonly Range[], mapping: Mapping): string[] {
  const lost = new Map<number, string>();
  for (const { from, to } of ranges)
    doc.nodesBetween(from, Math.min(to, doc.content.size), (node, pos) => {
      if (!node.isText) return;
      const text = node.text!;
      for (let p = Math.max(from, pos); p < Math.min(to, pos + text.length); p++)
        if (mapping.mapResult(p, 1).deletedAfter) lost.set(p, text[p - pos]);
    });
  const out: string[] = [];
  let last = -2;
  for (const [p, letter] of [...lost].sort((a, b) => a[0] - b[0])) {
    if (p === last + 1) out[out.length - 1] += letter;
    else out.push(letter);
    last = p;
  }
  return out.map((t) => t.trim()).filter(Boolean);
}

/** The words that a step puts in, whatever state it is of. */
export function wordsOf(step: unknown): string {
  const out: string[] = [];
  const walk = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return;
    const { text, type, content, slice } = value as Record<string, unknown>;
    if (type === 'text' && typeof text === 'string') out.push(text);
    if (slice) walk(slice);
    if (Array.isArray(content)) content.forEach(walk);
  };
  walk(step);
  return out.join('\n').trim();
}
