/** What both strips draw alike: the true time axis, the target's brackets, a time on a flag. */
import { memo } from 'react';
import { clockText } from '../text/clockText.ts';

/** Units of the strip's own drawing: its margin and the length of its axis. */
export const LEFT = 24;
export const WIDTH = 1000;

export type TargetKind = 'point' | 'floor' | 'ceiling';

/** Where a time stands on an axis of `wholeMs`. */
export const scale = (wholeMs: number) => (ms: number) => LEFT + (ms / wholeMs) * WIDTH;

/** Ticks every 5 s to a minute, labels every second to sixth one where there is room. Times near `quietMs` are left to its flag. */
export const Axis = memo(function Axis({
  wholeMs,
  y,
  quietMs,
}: {
  wholeMs: number;
  y: number;
  quietMs?: number;
}) {
  const x = scale(wholeMs);
  const step = wholeMs > 600_000 ? 60_000 : wholeMs > 180_000 ? 30_000 : wholeMs > 60_000 ? 10_000 : 5000;
  const label = wholeMs > 600_000 ? 120_000 : wholeMs > 150_000 ? 60_000 : wholeMs > 60_000 ? 30_000 : 10_000;
  const near = (ms: number) => quietMs !== undefined && Math.abs(ms - quietMs) < wholeMs * 0.03;
  return (
    <>
      <line x1={LEFT} x2={LEFT + WIDTH} y1={y} y2={y} stroke="var(--ink3)" />
      {Array.from({ length: Math.floor(wholeMs / step) + 1 }, (_, i) => i * step).map((ms) => (
        <g key={ms}>
          <line x1={x(ms)} x2={x(ms)} y1={y - (ms % label === 0 ? 6 : 3)} y2={y} stroke="var(--ink3)" />
          {ms % label === 0 && !near(ms) && x(ms) < LEFT + WIDTH - 24 && (
            <text x={x(ms) + 2} y={y + 14} fontSize="11" fontFamily="var(--font-mono)" fill="var(--ink2)">
              {clockText(ms, false)}
            </text>
          )}
        </g>
      ))}
    </>
  );
});

/** The asked length: a pair of square brackets at its tolerance; a floor or a ceiling has one. */
export function Brackets({
  at,
  half,
  kind,
  top,
  bottom,
}: {
  at: number;
  half: number;
  kind: TargetKind;
  top: number;
  bottom: number;
}) {
  return (
    <g stroke="var(--ink)" fill="none" strokeWidth="1.5" pointerEvents="none">
      {kind !== 'ceiling' && <path d={`M${at - half + 5} ${top}h-5V${bottom}h5`} />}
      {kind !== 'floor' && <path d={`M${at + half - 5} ${top}h5V${bottom}h-5`} />}
    </g>
  );
}

/** A time in paper on ink, below the axis. */
export function Flag({ at, ms, y }: { at: number; ms: number; y: number }) {
  return (
    <g pointerEvents="none">
      <rect x={at - 18} y={y} width="36" height="15" fill="var(--ink)" />
      <text
        x={at}
        y={y + 11}
        fontSize="11"
        fontWeight="600"
        fontFamily="var(--font-mono)"
        fill="var(--sheet)"
        textAnchor="middle"
      >
        {clockText(ms, false)}
      </text>
    </g>
  );
}
