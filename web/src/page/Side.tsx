/** The side of the Page: takes, history, comments, a proposed change. One at a time; Escape puts it away. */
import type { ReactNode } from 'react';

export function Side({
  title,
  onClose,
  children,
  foot,
}: {
  title: string;
  onClose: () => void;
  children: ReactNode;
  foot?: ReactNode;
}) {
  return (
    <aside
      className="side"
      aria-label={title}
      onKeyDown={(e) => {
        if (e.key === 'Escape') {
          e.preventDefault();
          onClose();
        }
      }}
    >
      <div className="flex items-baseline gap-4 px-5 pt-3 pb-2 border-b border-hair">
        <h2 className="flex-1 font-semibold">{title}</h2>
        <button className="quietpress" onClick={onClose}>
          Close
        </button>
      </div>
      <div className="flex-1 overflow-auto px-5 py-3" tabIndex={-1}>
        {children}
      </div>
      {foot && <div className="px-5 py-3 border-t border-hair bg-bench">{foot}</div>}
    </aside>
  );
}
