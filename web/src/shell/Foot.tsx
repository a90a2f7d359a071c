import type { ReactNode } from 'react';
import { useCommandList } from './commands.tsx';

/** The foot: what is chosen at the left, keys at the right. */
export function Foot({ children, keys }: { children: ReactNode; keys: readonly [string, string][] }) {
  const open = useCommandList();
  return (
    <footer className="h-7 shrink-0 bg-bench border-t border-hair flex items-center gap-5 px-6 text-[12.5px] text-ink2">
      <div className="flex-1 min-w-0 truncate">{children}</div>
      {keys.map(([key, what]) => (
        <span key={key} className="whitespace-nowrap hidden lg:inline">
          <kbd className="clock text-ink">{key}</kbd> {what}
        </span>
      ))}
      <button className="whitespace-nowrap cursor-pointer text-ink2" onClick={open}>
        <kbd className="clock text-ink">F2</kbd> any action
      </button>
    </footer>
  );
}
