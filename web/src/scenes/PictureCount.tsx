/** How many pictures, and one every how many seconds: what is typed makes the wanted curve longer or shorter throughout. */
import { useState } from 'react';
import { MOST_PICTURES } from '@ursprung/core/scenes/desk';

export function PictureCount({
  count,
  totalMs,
  onCount,
}: {
  count: number;
  totalMs: number;
  onCount: (count: number) => void;
}) {
  const seconds = totalMs / 1000 / count;
  const ask = (wanted: number) => {
    const whole = Math.max(1, Math.min(MOST_PICTURES, Math.round(wanted)));
    if (Number.isFinite(whole) && whole !== count) onCount(whole);
  };
  return (
    <span className="flex items-baseline gap-x-1">
      <Typed label="Pictures in all" value={String(count)} onTyped={ask} /> pictures, one every{' '}
      <Typed
        label="Seconds a picture on average"
        value={seconds.toFixed(1)}
        onTyped={(s) => s > 0 && ask(totalMs / 1000 / s)}
      />{' '}
      s
    </span>
  );
}

/** A number as it is; what is typed counts with Enter or on leaving, and Escape takes it back. */
function Typed({
  label,
  value,
  onTyped,
}: {
  label: string;
  value: string;
  onTyped: (value: number) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const done = () => {
    if (typed !== null && typed.trim() && typed !== value) onTyped(Number(typed.replace(',', '.')));
    setTyped(null);
  };
  return (
    <input
      className="field w-12 !py-0 !min-h-0 h-5 text-right tabular-nums"
      inputMode="decimal"
      aria-label={label}
      value={typed ?? value}
      onFocus={(e) => e.target.select()}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={done}
      onKeyDown={(e) => {
        // The place around has keys of its own.
        e.stopPropagation();
        if (e.key === 'Enter') done();
        if (e.key === 'Escape') setTyped(null);
      }}
    />
  );
}
