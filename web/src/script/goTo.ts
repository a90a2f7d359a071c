/** Puts the caret at the start of a section or line. */
import { TextSelection } from 'prosemirror-state';
import type { ScriptSession } from './session.ts';

export function goTo(session: ScriptSession, id: string): void {
  session.state.doc.descendants((node, pos) => {
    if (node.attrs.id === id) {
      const inside = node.type.name === 'section' ? pos + 2 : pos + 1;
      session.dispatch(
        session.state.tr.setSelection(TextSelection.create(session.state.doc, inside)).scrollIntoView(),
      );
      return false;
    }
    return node.type.name !== 'line';
  });
}
