/** The run strip: the whole runtime on one true axis, above every place. */
import { memo, useMemo, useState } from 'react';
import { WINDOW_MS, type NoveltyWindow } from '@ursprung/core/measure';
import { toleranceMs } from '@ursprung/core/script';
import { clockText } from '../text/clockText.ts';
import { Axis, Brackets, Flag, scale, useAxis, type TargetKind } from './axis.tsx';
import { StripKey } from './StripKey.tsx';
import { glyphPath } from './glyphs.tsx';

export interface StripSection {
  id: string;
  title: string;
  role: string;
  ms: number;
  plannedMs: number;
  locked: boolean;
}
/** A question from where it is raised to where it is settled, in milliseconds; null while nothing settles it. */
export interface StripLoop {
  from: number;
  to: number | null;
  asks: string;
}
export interface RunStripProps {
  sections: readonly StripSection[];
  totalMs: number;
  target: { kind: TargetKind; seconds: number };
  /** Seconds of scene cuts. */
  cuts: readonly number[];
  /** Where you are, in milliseconds. */
  readingMs: number | null;
  currentSection: string | null;
  words: number;
  scenes: number;
  overMs: number;
  onGo: (sectionId: string) => void;
  /** Lines still in the source's words, of all lines. */
  close: { lines: number; of: number } | null;
  loops: readonly StripLoop[];
  /** What is new in each ten seconds: a shade. */
  novelty: readonly NoveltyWindow[];
  /** A section's edge was dragged: so much more or less time for it. */
  onEdge: (sectionId: string, byMs: number) => void;
}

const TOP = 44;
const CELL = 34;
const SHADE = TOP + CELL + 16;
const AXIS = 118;
const HEIGHT = 142;

const signed = (tenths: number) => `${tenths >= 0 ? '+' : '−'}${(Math.abs(tenths) / 10).toFixed(1)}`;
const seen = (x: number) => Math.round(x * 2) / 2;

interface CellProps {
  id: string;
  title: string;
  role: string;
  left: number;
  right: number;
  /** Where its plan ends, at most `right`. */
  planned: number;
  clock: string;
  /** Tenths of a second over its plan, or under. */
  overTenths: number;
  current: boolean;
  onGo: (sectionId: string) => void;
}

/** One section on the strip. Its numbers are rounded to what can be seen, so that a key redraws few cells. */
const Cell = memo(function Cell(props: CellProps) {
  const { left, right, planned, overTenths, current } = props;
  const width = right - left;
  const go = () => props.onGo(props.id);
  return (
    <g>
      <rect
        x={left}
        y={TOP}
        width={Math.max(1, width)}
        height={CELL}
        fill={current ? 'var(--lit)' : 'var(--sheet)'}
        stroke={current ? 'var(--edge)' : 'var(--mark)'}
        strokeWidth={current ? 1.5 : 1}
      />
      <rect x={left} y={TOP + CELL - 3} width={Math.max(0, planned - left)} height="3" fill="var(--ink2)" />
      {overTenths > 5 && (
        <rect
          x={planned}
          y={TOP + CELL - 6}
          width={Math.max(0, right - planned)}
          height="6"
          fill="url(#over)"
        />
      )}
      {width > 16 && (
        <path
          d={glyphPath(props.role)}
          transform={`translate(${left + 4} ${TOP + 3}) scale(0.85)`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1.6"
        />
      )}
      {width > 60 && (
        <text aria-hidden="true" x={left + 20} y={TOP + 13} fontSize="11" fontWeight="600" fill="var(--ink)">
          {clip(props.title, width - 24)}
        </text>
      )}
      {width > 34 && (
        <text
          aria-hidden="true"
          x={left + (width > 60 ? 20 : 4)}
          y={TOP + 26}
          fontSize="11"
          fontFamily="var(--font-mono)"
          fill="var(--ink2)"
        >
          {props.clock}
          {Math.abs(overTenths) > 5 && width > 92 ? (
            <tspan fill={overTenths > 50 ? 'var(--copper)' : 'var(--ink2)'}> {signed(overTenths)}</tspan>
          ) : null}
        </text>
      )}
      <rect
        x={left}
        y={TOP}
        width={Math.max(1, width)}
        height={CELL}
        fill="transparent"
        className="cursor-pointer"
        role="button"
        tabIndex={0}
        aria-label={`${props.title}, ${props.role}, ${props.clock}`}
        onClick={go}
        onKeyDown={(e) => (e.key === 'Enter' || e.key === ' ') && (e.preventDefault(), go())}
      />
    </g>
  );
});

export function RunStrip(props: RunStripProps) {
  const { sections, totalMs, target, cuts, readingMs, currentSection } = props;
  const targetMs = target.seconds * 1000;
  const tolerance = toleranceMs(target.seconds);
  // Both brackets of the target stand on the axis, in a short script too.
  const wholeMs = Math.max(totalMs, targetMs + tolerance, 15_000) * 1.03;
  const { svg, width, whole } = useAxis();
  const x = useMemo(() => scale(wholeMs, width), [wholeMs, width]);
  const starts = sections.reduce<number[]>(
    (list, _s, i) => [...list, i === 0 ? 0 : list[i - 1] + sections[i - 1].ms],
    [],
  );
  const half = Math.max(5, (tolerance / wholeMs) * width);
  const over = props.overMs;
  const outside = Math.abs(over) > tolerance;
  return (
    <div className="runstrip bg-bench border-b border-mark shrink-0">
      <svg
        ref={svg}
        viewBox={`0 0 ${whole} ${HEIGHT}`}
        height={HEIGHT}
        className="flex-1 min-w-0"
        role="group"
        aria-label={`Run strip: ${clockText(totalMs)} of ${clockText(targetMs, false)}, ${sections.length} sections`}
      >
        <defs>
          <pattern id="over" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="2" height="5" fill="var(--copper)" />
          </pattern>
        </defs>
        <Arcs loops={props.loops} x={x} />
        <Shade novelty={props.novelty} x={x} />
        {sections.map((s, i) => (
          <Cell
            key={s.id}
            id={s.id}
            title={s.title}
            role={s.role}
            left={seen(x(starts[i]))}
            right={seen(x(starts[i] + s.ms))}
            planned={seen(Math.min(x(starts[i] + s.ms), x(starts[i] + s.plannedMs)))}
            clock={clockText(s.ms, false)}
            // A section without a plan is neither over nor under.
            overTenths={s.plannedMs ? Math.round((s.ms - s.plannedMs) / 100) : 0}
            current={s.id === currentSection}
            onGo={props.onGo}
          />
        ))}
        {sections.map(
          (s, i) =>
            !s.locked &&
            i < sections.length - 1 && (
              <Edge
                key={s.id}
                at={x(starts[i] + s.ms)}
                title={s.title}
                planned={s.plannedMs || s.ms}
                msPerUnit={wholeMs / width}
                onEdge={(by) => props.onEdge(s.id, by)}
              />
            ),
        )}
        {totalMs > targetMs + tolerance && target.kind !== 'floor' && (
          <rect
            x={x(targetMs + tolerance)}
            y={TOP}
            width={Math.max(0, x(totalMs) - x(targetMs + tolerance))}
            height={CELL}
            fill="url(#over)"
            pointerEvents="none"
          />
        )}
        <path
          d={cuts.map((ms) => `M${x(ms).toFixed(1)} ${TOP + CELL + 5}v7`).join('')}
          stroke="var(--ink2)"
          strokeWidth="1"
          fill="none"
        />
        <Brackets at={x(targetMs)} half={half} kind={target.kind} top={TOP - 8} bottom={AXIS} />
        <path
          d={`M${x(targetMs)} ${TOP - 12}v7`}
          stroke="var(--ink)"
          strokeWidth="1.5"
          pointerEvents="none"
        />
        <Axis wholeMs={wholeMs} width={width} y={AXIS} />
        {readingMs !== null && (
          <>
            <line
              x1={x(readingMs)}
              x2={x(readingMs)}
              y1={TOP + CELL + 2}
              y2={AXIS}
              stroke="var(--ink)"
              strokeWidth="1.5"
              pointerEvents="none"
            />
            <Flag at={x(readingMs)} ms={readingMs} y={AXIS + 2} />
          </>
        )}
      </svg>
      <div className="stripsays" aria-live="off">
        <div className="flex items-baseline gap-3">
          <strong className="font-mono text-[18px] text-ink font-semibold" data-testid="total">
            {clockText(totalMs)}
          </strong>
          <span className={outside ? 'finding' : ''} data-testid="over">
            {over === 0 ? 'met' : `${(Math.abs(over) / 1000).toFixed(1)} s ${over > 0 ? 'over' : 'under'}`}
          </span>
        </div>
        <div>
          {target.kind === 'floor' ? 'at least' : target.kind === 'ceiling' ? 'at most' : 'of'}{' '}
          {clockText(targetMs, false)}
          {target.kind === 'point' ? ` ±${Math.round(tolerance / 1000)} s` : ''}
        </div>
        <div title="As written, rests in it. The pace is set on a reference passage: a text of shorter words has more of them in a minute.">
          {props.words} words{totalMs > 0 ? `, ${Math.round((props.words * 60_000) / totalMs)} wpm` : ''}
        </div>
        <div>
          {props.scenes} scenes{props.scenes ? ` of ${(totalMs / props.scenes / 1000).toFixed(1)} s` : ''}
        </div>
        {props.close && props.close.of > 0 && (
          <div title="Lines of which half or more stands in runs of eight words shared with a source">
            {props.close.lines} of {props.close.of} lines in its words
          </div>
        )}
        <StripKey />
      </div>
    </div>
  );
}

const ARC_HEIGHTS = [30, 18];

/** Open loops as flat-topped arches: a ring where a question is raised, a disc where it is settled; unsettled it ends in mid-air. */
const Arcs = memo(function Arcs({ loops, x }: { loops: readonly StripLoop[]; x: (ms: number) => number }) {
  return (
    <g fontSize="11">
      {loops.map((l, i) => {
        const top = TOP - 4 - ARC_HEIGHTS[i % ARC_HEIGHTS.length];
        const from = x(l.from);
        if (l.to === null)
          return (
            <g key={i} stroke="var(--copper)" fill="none">
              <title>{`Not settled: ${l.asks}`}</title>
              <circle cx={from} cy={TOP - 5} r="3" strokeWidth="1.4" />
              <path d={`M${from} ${TOP - 8}V${top + 6}q0 -6 6 -6h14`} strokeDasharray="3 2" />
              <text x={from + 24} y={top + 4} fill="var(--copper)" stroke="none">
                {clip(l.asks, 150)}
              </text>
            </g>
          );
        const to = Math.max(x(l.to), from + 12);
        const words = to - from > 90 ? clip(l.asks, to - from - 40) : '';
        const half = (words.length * 5.6) / 2 + 4;
        const middle = (from + to) / 2;
        return (
          <g key={i} stroke="var(--ink3)" fill="none" strokeWidth="1.1">
            <title>{l.asks}</title>
            <circle cx={from} cy={TOP - 5} r="3" />
            <circle cx={to} cy={TOP - 5} r="3" fill="var(--ink3)" />
            {words ? (
              <path
                d={`M${from} ${TOP - 8}V${top + 6}q0 -6 6 -6H${middle - half}M${middle + half} ${top}H${to - 6}q6 0 6 6V${TOP - 8}`}
              />
            ) : (
              <path d={`M${from} ${TOP - 8}V${top + 6}q0 -6 6 -6H${to - 6}q6 0 6 6V${TOP - 8}`} />
            )}
            {words && (
              <text x={middle} y={top + 4} textAnchor="middle" fill="var(--ink2)" stroke="none">
                {words}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
});

/** What is new in each ten seconds: the darker, the more; slack is bare and marked. */
const Shade = memo(function Shade({
  novelty,
  x,
}: {
  novelty: readonly NoveltyWindow[];
  x: (ms: number) => number;
}) {
  return (
    <g>
      {novelty.map((n) => {
        const left = x(n.startMs);
        const width = x(n.startMs + WINDOW_MS) - left;
        return (
          <g key={n.startMs}>
            <title>{`${clockText(n.startMs, false)}: ${n.slack ? 'hardly anything new' : `${Math.round(n.share * 100)} % of the fullest ten seconds`}`}</title>
            <rect
              x={left}
              y={SHADE}
              width={Math.max(0, width - 0.5)}
              height="7"
              fill="var(--ink)"
              opacity={n.share * 0.34}
            />
            {n.slack && (
              <path
                d={`M${left} ${SHADE + 6.5}h${width}`}
                stroke="var(--copper)"
                strokeWidth="1.5"
                strokeDasharray="3 2"
              />
            )}
          </g>
        );
      })}
    </g>
  );
});

/** The seam behind a section: drag it, or press the arrow keys, for more or less planned time. */
function Edge({
  at,
  title,
  planned,
  msPerUnit,
  onEdge,
}: {
  at: number;
  title: string;
  planned: number;
  msPerUnit: number;
  onEdge: (byMs: number) => void;
}) {
  const [by, setBy] = useState(0);
  return (
    <g>
      {by !== 0 && (
        <path
          d={`M${at + by} ${TOP - 4}V${AXIS}`}
          stroke="var(--spruce)"
          strokeWidth="1.5"
          strokeDasharray="3 2"
        />
      )}
      <path
        d={`M${at - 3} ${TOP + 11}v12M${at} ${TOP + 11}v12M${at + 3} ${TOP + 11}v12`}
        stroke="var(--mark)"
        strokeWidth="1"
        pointerEvents="none"
      />
      <rect
        x={at - 5}
        y={TOP}
        width="10"
        height={CELL}
        fill="transparent"
        className="cursor-ew-resize touch-none"
        role="separator"
        tabIndex={0}
        aria-orientation="vertical"
        aria-valuenow={Math.round(planned / 1000)}
        aria-valuemin={2}
        aria-valuetext={`${title} planned ${clockText(planned, false)}`}
        aria-label={`Edge of ${title}: arrow keys give or take a second`}
        onKeyDown={(e) => {
          if (e.key !== 'ArrowLeft' && e.key !== 'ArrowRight') return;
          e.preventDefault();
          onEdge(e.key === 'ArrowRight' ? 1000 : -1000);
        }}
        onPointerDown={(e) => {
          const target = e.currentTarget;
          target.setPointerCapture(e.pointerId);
          const start = e.clientX;
          const onMove = (m: PointerEvent) => setBy(m.clientX - start);
          const onUp = (u: PointerEvent) => {
            target.removeEventListener('pointermove', onMove);
            target.removeEventListener('pointerup', onUp);
            setBy(0);
            const ms = Math.round(((u.clientX - start) * msPerUnit) / 100) * 100;
            if (Math.abs(ms) >= 300) onEdge(ms);
          };
          target.addEventListener('pointermove', onMove);
          target.addEventListener('pointerup', onUp);
        }}
      />
    </g>
  );
}

/** Text cut to a width at about 6 px a letter. */
function clip(text: string, width: number): string {
  const letters = Math.floor(width / 6.2);
  return text.length <= letters ? text : letters < 3 ? '' : `${text.slice(0, letters - 1)}…`;
}
