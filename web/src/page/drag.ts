/** Dragging a line by its clock: a rule shows where it would go. The keys do the same. */
import type { ScriptSession } from '../script/session.ts';
import { moveLineTo } from './commands.ts';

/** A press that moves less than this is no drag, in pixels. */
const SLACK_PX = 4;

export function dragLine(event: PointerEvent, session: ScriptSession, idOf: () => string): void {
  if (event.button !== 0) return;
  event.preventDefault();
  const startY = event.clientY;
  let target: { id: string; side: 'before' | 'after'; element: HTMLElement } | null = null;
  let moving = false;
  const clear = () => target?.element.classList.remove('dropbefore', 'dropafter');
  const onMove = (e: PointerEvent) => {
    if (!moving && Math.abs(e.clientY - startY) < SLACK_PX) return;
    moving = true;
    document.body.style.cursor = 'grabbing';
    clear();
    const element = document.elementFromPoint(e.clientX, e.clientY)?.closest<HTMLElement>('.line');
    if (!element?.dataset.id || element.dataset.id === idOf()) {
      target = null;
      return;
    }
    const box = element.getBoundingClientRect();
    const side = e.clientY < box.top + box.height / 2 ? 'before' : 'after';
    target = { id: element.dataset.id, side, element };
    element.classList.add(side === 'before' ? 'dropbefore' : 'dropafter');
  };
  const onUp = () => {
    window.removeEventListener('pointermove', onMove);
    window.removeEventListener('pointerup', onUp);
    document.body.style.cursor = '';
    clear();
    if (moving && target) session.run(moveLineTo(idOf(), target.id, target.side));
    session.view?.focus();
  };
  window.addEventListener('pointermove', onMove);
  window.addEventListener('pointerup', onUp);
}
