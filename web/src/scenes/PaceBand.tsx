/** Seconds a picture, as cut and as wanted, on the strip's own axis. The wanted curve has handles: dragged, or moved by keys. */
import { useState } from 'react';
import { LONGEST_PICTURE, SHORTEST_PICTURE, type PaceHandle, type Scene } from '@ursprung/core/scenes/desk';
import { LEFT, scale, useAxis } from '../strip/axis.tsx';

const HEIGHT = 58;
const BASE = 50;
const TOP = 12;

export function PaceBand({
  scenes,
  wholeMs,
  totalMs,
  longMs,
  handles,
  onHandles,
}: {
  scenes: readonly Scene[];
  wholeMs: number;
  totalMs: number;
  longMs: number;
  handles: readonly PaceHandle[];
  /** Null: as computed again. */
  onHandles: (handles: PaceHandle[] | null) => void;
}) {
  const { svg, width, whole } = useAxis();
  const [moving, setMoving] = useState<{ at: number; handles: PaceHandle[] } | null>(null);
  const x = scale(wholeMs, width);
  const most = Math.max(longMs / 1000, ...scenes.map((s) => Math.min(20, (s.endMs - s.startMs) / 1000)), 4);
  const y = (seconds: number) => BASE - (Math.min(seconds, most) / most) * (BASE - TOP);
  const shown = moving?.handles ?? [...handles];
  const steps = scenes
    .map(
      (s) =>
        `L${x(s.startMs).toFixed(1)} ${y((s.endMs - s.startMs) / 1000).toFixed(1)}H${x(s.endMs).toFixed(1)}`,
    )
    .join('');
  const wanted = shown.length
    ? shown
        .map(
          (h, i) =>
            `${i ? 'L' : `M${x(0)} ${y(h.seconds).toFixed(1)}L`}${x(h.at * totalMs).toFixed(1)} ${y(h.seconds).toFixed(1)}`,
        )
        .join('') + `H${x(totalMs).toFixed(1)}`
    : scenes
        .map(
          (s, i) =>
            `${i ? 'L' : 'M'}${x(s.startMs).toFixed(1)} ${y(s.wantedMs / 1000).toFixed(1)}H${x(s.endMs).toFixed(1)}`,
        )
        .join('');
  const place = (e: React.PointerEvent) => {
    const box = svg.current!.getBoundingClientRect();
    const ms = ((e.clientX - box.left - LEFT) / width) * wholeMs;
    const seconds = ((BASE - (e.clientY - box.top)) / (BASE - TOP)) * most;
    return {
      at: Math.max(0, Math.min(1, ms / Math.max(1, totalMs))),
      seconds: Math.round(Math.max(SHORTEST_PICTURE, Math.min(most, seconds)) * 10) / 10,
    };
  };
  /** Own handles begin as the computed curve, five of them. */
  const begin = (): PaceHandle[] =>
    shown.length
      ? [...shown]
      : [0.05, 0.25, 0.5, 0.75, 0.95].map((at) => {
          const here = scenes.find((s) => s.endMs >= at * totalMs) ?? scenes[scenes.length - 1];
          return { at, seconds: Math.round((here?.wantedMs ?? 5000) / 100) / 10 };
        });
  const change = (i: number, to: Partial<PaceHandle>) => {
    const next = begin();
    next[i] = { ...next[i], ...to };
    onHandles(next);
  };
  return (
    <div className="runstrip bg-bench border-b border-hair shrink-0">
      <svg
        ref={svg}
        viewBox={`0 0 ${whole} ${HEIGHT}`}
        height={HEIGHT}
        className="flex-1 min-w-0"
        role="group"
        aria-label="Seconds a picture"
        onPointerMove={(e) => {
          if (!moving) return;
          const next = [...moving.handles];
          const { at, seconds } = place(e);
          next[moving.at] = {
            at: Math.max(next[moving.at - 1]?.at ?? 0, Math.min(next[moving.at + 1]?.at ?? 1, at)),
            seconds,
          };
          setMoving({ ...moving, handles: next });
        }}
        onPointerUp={() => {
          if (moving) onHandles(moving.handles);
          setMoving(null);
        }}
      >
        <line x1={LEFT} x2={LEFT + width} y1={BASE} y2={BASE} stroke="var(--hair)" />
        {scenes
          .filter((s) => s.endMs - s.startMs > longMs)
          .map((s) => (
            <g key={s.id}>
              <line
                x1={x(s.startMs)}
                x2={x(s.endMs)}
                y1={y((s.endMs - s.startMs) / 1000)}
                y2={y((s.endMs - s.startMs) / 1000)}
                stroke="var(--copper)"
                strokeWidth="3"
              />
              <text
                x={x(s.endMs) + 3}
                y={y((s.endMs - s.startMs) / 1000) + 4}
                fontSize="11"
                fontFamily="var(--font-mono)"
                fill="var(--copper)"
              >
                {((s.endMs - s.startMs) / 1000).toFixed(1)}
              </text>
            </g>
          ))}
        <path d={`M${x(0)} ${BASE}${steps}`} fill="none" stroke="var(--ink3)" strokeWidth="1.1" />
        <path d={wanted} fill="none" stroke="var(--spruce)" strokeWidth="1.4" />
        {begin().map((h, i) => (
          <circle
            key={i}
            cx={x(h.at * totalMs)}
            cy={y(h.seconds)}
            r="4.5"
            fill="var(--lit)"
            stroke="var(--spruce)"
            strokeWidth="1.6"
            className="cursor-grab"
            role="slider"
            tabIndex={0}
            aria-label={`Wanted seconds a picture at ${Math.round(h.at * 100)} %`}
            aria-valuenow={h.seconds}
            aria-valuemin={SHORTEST_PICTURE}
            aria-valuemax={LONGEST_PICTURE}
            aria-valuetext={`${h.seconds} seconds`}
            onPointerDown={(e) => {
              e.currentTarget.setPointerCapture(e.pointerId);
              setMoving({ at: i, handles: begin() });
            }}
            onKeyDown={(e) => {
              const by = e.key === 'ArrowUp' ? 0.5 : e.key === 'ArrowDown' ? -0.5 : 0;
              if (!by) return;
              e.preventDefault();
              change(i, { seconds: Math.max(SHORTEST_PICTURE, Math.min(LONGEST_PICTURE, h.seconds + by)) });
            }}
          />
        ))}
      </svg>
      <div className="stripsays">
        seconds a picture, <span className="text-spruce font-semibold">as wanted</span>
        <br />
        as cut,{' '}
        {scenes.length
          ? `${(Math.min(...scenes.map((s) => s.endMs - s.startMs)) / 1000).toFixed(1)} to ${(Math.max(...scenes.map((s) => s.endMs - s.startMs)) / 1000).toFixed(1)}`
          : 'none yet'}
        {handles.length > 0 && (
          <>
            <br />
            <button className="textpress" onClick={() => onHandles(null)}>
              As computed
            </button>
          </>
        )}
      </div>
    </div>
  );
}
