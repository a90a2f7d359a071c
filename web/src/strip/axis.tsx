/** What both strips draw alike: the true time axis, the target's brackets, a time on a flag. */
import { memo, useLayoutEffect, useRef, useState } from 'react';
import { clockText } from '../text/clockText.ts';

/** Pixels left and right of the axis. */
export const LEFT = 24;
const RIGHT = 8;

/** The axis is as long as its drawing is wide, so that letters stay as large on a phone as on a wide screen. */
export function useAxis(): { svg: React.RefObject<SVGSVGElement | null>; width: number; whole: number } {
  const svg = useRef<SVGSVGElement>(null);
  const [whole, setWhole] = useState(1032);
  useLayoutEffect(() => {
    const element = svg.current;
    if (!element) return;
    const measure = () => setWhole(Math.max(220, Math.round(element.getBoundingClientRect().width)));
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return { svg, width: whole - LEFT - RIGHT, whole };
}

export type TargetKind = 'point' | 'floor' | 'ceiling';

/** Where a time stands on an axis of `wholeMs`. */
export const scale = (wholeMs: number, width: number) => (ms: number) => LEFT + (ms / wholeMs) * width;

/** Steps that a clock is read in, in milliseconds. */
const STEPS = [5000, 10_000, 15_000, 30_000, 60_000, 120_000, 300_000, 600_000];
const LEAST_TICK = 12;
const LEAST_LABEL = 62;
/** The smallest step of whole `unit`s that leaves so many pixels between two. */
const stepOf = (wholeMs: number, width: number, least: number, unit = 1) =>
  STEPS.find((s) => s % unit === 0 && (s / wholeMs) * width >= least) ?? STEPS[STEPS.length - 1];

/** Ticks and labels as near as there is room for. Times near `quietMs` are left to its flag. */
export const Axis = memo(function Axis({
  wholeMs,
  width,
  y,
  quietMs,
}: {
  wholeMs: number;
  width: number;
  y: number;
  quietMs?: number;
}) {
  const x = scale(wholeMs, width);
  const step = stepOf(wholeMs, width, LEAST_TICK);
  const label = stepOf(wholeMs, width, LEAST_LABEL, step);
  const near = (ms: number) => quietMs !== undefined && Math.abs(x(ms) - x(quietMs)) < 36;
  return (
    <>
      <line x1={LEFT} x2={LEFT + width} y1={y} y2={y} stroke="var(--ink3)" />
      {Array.from({ length: Math.floor(wholeMs / step) + 1 }, (_, i) => i * step).map((ms) => (
        <g key={ms}>
          <line x1={x(ms)} x2={x(ms)} y1={y - (ms % label === 0 ? 6 : 3)} y2={y} stroke="var(--ink3)" />
          {ms % label === 0 && !near(ms) && x(ms) < LEFT + width - 24 && (
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
