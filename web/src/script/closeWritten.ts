/** Open lines that have words now become lines like others, in the step that wrote them. */
import type { Transaction } from 'prosemirror-state';
import { written, type PlainLine } from '@ursprung/core/script';

export function closeWritten(tr: Transaction): void {
  tr.doc.descendants((node, pos) => {
    if (node.type.name !== 'line') return node.type.name === 'section';
    if ((node.attrs.open as readonly object[]).length && node.textContent.trim()) {
      const { text: _, ...attrs } = written({ ...node.attrs, text: node.textContent } as PlainLine);
      tr.setNodeMarkup(pos, null, { ...attrs, open: [] });
    }
    return false;
  });
}
