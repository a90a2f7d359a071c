/** What stood beside the text: what the writer left out, what may belong to it, the rest; each one key from the text. Folded away until somebody wants it. */
import { useRef } from 'react';
import type { LeftOut } from '@ursprung/core/source';

const rank = (item: LeftOut) => (item.chosen ? 0 : item.doubt ? 1 : 2);

export function LeftOutList({
  items,
  busy,
  onTakeIn,
}: {
  items: readonly LeftOut[];
  busy: boolean;
  onTakeIn: (text: string) => void;
}) {
  const list = useRef<HTMLUListElement>(null);
  if (!items.length) return null;
  const doubtful = items.filter((i) => i.doubt).length;
  // One of the list is reached by Tab, the others from there by the arrows.
  const onKey = (event: React.KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    const rows = [...(list.current?.querySelectorAll('button') ?? [])];
    const at = rows.indexOf(document.activeElement as HTMLButtonElement);
    if (!step || at < 0) return;
    event.preventDefault();
    const next = rows[Math.max(0, Math.min(rows.length - 1, at + step))];
    for (const r of rows) r.tabIndex = r === next ? 0 : -1;
    next.focus();
  };
  return (
    <details className="mt-5 ml-9 mr-4 border-t border-rule pt-2" open={items.some((i) => rank(i) < 2)}>
      <summary className="text-[13px] cursor-pointer">
        Left out: {items.length === 1 ? 'one piece' : `${items.length} pieces`}
        {doubtful > 0 && `, ${doubtful === 1 ? 'one' : doubtful} in doubt`}
      </summary>
      <ul ref={list} className="mt-1" onKeyDown={onKey}>
        {[...items]
          .sort((a, b) => rank(a) - rank(b))
          .map((item, i) => (
            <li
              key={i}
              className="grid grid-cols-[1fr_180px_56px] gap-x-3 py-0.5 text-[13px] leading-[18px] focus-within:bg-lit"
            >
              <span className={`break-words min-w-0 ${item.doubt ? '' : 'text-ink2'}`}>{item.text}</span>
              <span className="text-ink2">
                {item.doubt && <span className="text-copper">in doubt: </span>}
                {item.why}
              </span>
              <button
                className="text-left self-start text-ink2 underline decoration-hair underline-offset-4 hover:text-ink hover:decoration-ink cursor-pointer disabled:cursor-default"
                tabIndex={i ? -1 : 0}
                aria-label={`Take in: ${item.text.slice(0, 80)}`}
                disabled={busy}
                onClick={() => onTakeIn(item.text)}
              >
                take in
              </button>
            </li>
          ))}
      </ul>
    </details>
  );
}
