/** The strip before there is a script: what the source carries, and the length asked for as a bracket over it. */
import type { Carries } from '@ursprung/core/draft';
import type { Reading, SourceView } from '../api.ts';
import { Axis, Brackets, Flag, LEFT, scale, useAxis, type TargetKind } from '../strip/axis.tsx';
import { clockText } from '../text/clockText.ts';

export function LengthStrip({
  source,
  carries,
  target,
  reading,
  more,
  onDrag,
}: {
  source: SourceView | null;
  carries: Carries | null;
  target: { kind: TargetKind; seconds: number };
  /** A source being read; its passages grow along the strip. */
  reading: Reading | null;
  /** How many sources lie beside it. */
  more: number;
  onDrag: (seconds: number) => void;
}) {
  const { svg, width, whole } = useAxis();
  const targetMs = Number.isNaN(target.seconds) ? 0 : target.seconds * 1000;
  const wholeMs = Math.max(180_000, targetMs * 1.2, (carries?.longestMs ?? 0) * 1.1);
  const x = scale(wholeMs, width);
  const half = Math.max(5, (Math.max(1000, target.seconds * 10) / wholeMs) * width);
  const t = x(targetMs);
  const drag = (event: React.PointerEvent) => {
    if (event.buttons !== 1 || !svg.current) return;
    const box = svg.current.getBoundingClientRect();
    const at = event.clientX - box.left;
    const seconds = Math.round((((at - LEFT) / width) * wholeMs) / 5000) * 5;
    onDrag(Math.min(1500, Math.max(15, seconds)));
  };
  return (
    <div className="flex bg-bench border-b border-mark h-[112px] shrink-0">
      <svg
        ref={svg}
        viewBox={`0 0 ${whole} 112`}
        height={112}
        className="flex-1 min-w-0"
        role="img"
        aria-label={
          carries
            ? `This source carries ${clockText(carries.shortestMs, false)} to ${clockText(carries.longestMs, false)}`
            : 'Length of the script'
        }
      >
        {source && carries ? (
          <g>
            <rect
              x={LEFT}
              y="28"
              width={x(carries.longestMs) - LEFT}
              height="32"
              fill="var(--sheet)"
              stroke="var(--mark)"
            />
            <rect x={LEFT} y="57" width={x(carries.shortestMs) - LEFT} height="3" fill="var(--ink)" />
            <text x={LEFT + 8} y="42" fontSize="11" fontWeight="600" fill="var(--ink)">
              {shortened(
                source.document.title + (more ? ` and ${more} more` : ''),
                (x(carries.longestMs) - LEFT) / 6.4,
              )}
            </text>
            <text x={LEFT + 8} y="54" fontSize="11" fontFamily="var(--font-mono)" fill="var(--ink2)">
              {clockText(carries.longestMs, false)} told fully, {clockText(carries.shortestMs, false)} at its
              shortest
            </text>
            {targetMs > carries.longestMs && (
              <line
                x1={x(carries.longestMs)}
                x2={t}
                y1="62"
                y2="62"
                stroke="var(--copper)"
                strokeDasharray="4 3"
                strokeWidth="2"
              />
            )}
          </g>
        ) : (
          <g>
            <rect
              x={LEFT}
              y="28"
              width={width * 0.6}
              height="32"
              fill="none"
              stroke="var(--mark)"
              strokeDasharray="4 4"
            />
            {reading && reading.of > 0 && (
              <path
                d={`M${LEFT + (width * 0.6 * reading.done) / reading.of} 24v40`}
                stroke="var(--spruce)"
                strokeWidth="2"
              />
            )}
            <text x={LEFT + 8} y="48" fontSize="12" fill="var(--ink2)">
              {reading
                ? reading.stage
                : source
                  ? 'being measured'
                  : 'what your source carries will stand here'}
            </text>
          </g>
        )}
        {targetMs > 0 && (
          <g>
            <Brackets at={t} half={half} kind={target.kind} top={18} bottom={88} />
            <path d={`M${t - 3} 40v8M${t} 40v8M${t + 3} 40v8`} stroke="var(--spruce)" strokeWidth="1.5" />
            <rect
              x={t - 14}
              y="14"
              width="28"
              height="78"
              fill="transparent"
              className="cursor-ew-resize"
              onPointerDown={(e) => (e.target as Element).setPointerCapture(e.pointerId)}
              onPointerMove={drag}
            />
            <Flag at={t} ms={targetMs} y={91} />
          </g>
        )}
        <Axis wholeMs={wholeMs} width={width} y={88} quietMs={targetMs} />
      </svg>
    </div>
  );
}

const shortened = (text: string, letters: number) =>
  text.length <= letters ? text : `${text.slice(0, Math.max(0, letters - 1))}…`;
