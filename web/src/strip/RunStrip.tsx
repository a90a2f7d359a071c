/** The run strip: the whole runtime on one true axis, above every place. */
import { memo } from 'react';
import { toleranceMs } from '@ursprung/core/script';
import { clockText } from '../text/clockText.ts';
import { Axis, Brackets, Flag, LEFT, WIDTH, scale, type TargetKind } from './axis.tsx';
import { glyphPath } from './glyphs.tsx';

export interface StripSection {
  id: string;
  title: string;
  role: string;
  ms: number;
  plannedMs: number;
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
}

const TOP = 28;
const CELL = 34;
const AXIS = 104;

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
  const x = scale(wholeMs);
  const starts = sections.reduce<number[]>(
    (list, _s, i) => [...list, i === 0 ? 0 : list[i - 1] + sections[i - 1].ms],
    [],
  );
  const half = Math.max(5, (tolerance / wholeMs) * WIDTH);
  const over = props.overMs;
  const outside = Math.abs(over) > tolerance;
  return (
    <div className="flex bg-bench border-b border-mark" style={{ minHeight: 128 }}>
      <svg
        viewBox={`0 0 ${LEFT + WIDTH + 8} 128`}
        className="flex-1 min-w-0"
        style={{ maxWidth: 1032 }}
        role="group"
        aria-label={`Run strip: ${clockText(totalMs)} of ${clockText(targetMs, false)}, ${sections.length} sections`}
      >
        <defs>
          <pattern id="over" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="2" height="5" fill="var(--copper)" />
          </pattern>
        </defs>
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
        <Axis wholeMs={wholeMs} y={AXIS} />
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
      <div className="w-[214px] shrink-0 pt-4 pr-6 pl-3 text-[12px] leading-[19px] text-ink2" aria-live="off">
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
        <div>
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
      </div>
    </div>
  );
}

/** Text cut to a width at about 6 px a letter. */
function clip(text: string, width: number): string {
  const letters = Math.floor(width / 6.2);
  return text.length <= letters ? text : letters < 3 ? '' : `${text.slice(0, letters - 1)}…`;
}
