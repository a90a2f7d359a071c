/** An open line that has words now is a line like others: its seconds are the clock's, and it rests on what it was to say. */
import type { Transaction } from 'prosemirror-state';

export function closeWritten(tr: Transaction): void {
  tr.doc.descendants((node, pos) => {
    if (node.type.name !== 'line') return node.type.name === 'section';
    const { open, from } = node.attrs as { open: readonly object[]; from: readonly object[] };
    if (open.length && node.textContent.trim())
      tr.setNodeMarkup(pos, null, {
        ...node.attrs,
        open: [],
        fixedMs: null,
        from: from.length ? from : open,
      });
    return false;
  });
}
