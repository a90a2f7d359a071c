/** The sections in order: what each must carry, its planned and heard seconds. Drag, keys and presses do the same. */
import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  closestCenter,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { useState, type KeyboardEvent } from 'react';
import { rundownOf, type Loop, type RundownRow } from '@ursprung/core/desk';
import type { PlainSection } from '@ursprung/core/script';
import { glyphPath } from '../strip/glyphs.tsx';
import { clockText, lengthMs } from '../text/clockText.ts';
import type { Rundown } from './useRundown.ts';
import { namesOf, useFactNames } from '../text/factNames.ts';

export interface SectionsProps {
  sections: readonly PlainSection[];
  loops: readonly Loop[];
  msOf: (lineId: string) => number;
  targetMs: number;
  rundown: Rundown;
  chosen: string | null;
  onChoose: (id: string | null) => void;
  onOpen: (id: string) => void;
}

const signed = (ms: number) => `${ms >= 0 ? '+' : '−'}${Math.abs(ms / 1000).toFixed(1)}`;
/** Pixels for the longest plan in the list. */
const BAR = 150;

export function Sections(props: SectionsProps) {
  const { sections, rundown } = props;
  const rows = rundownOf(sections, props.msOf);
  const longest = Math.max(1000, ...rows.map((r) => Math.max(r.plannedMs, r.heardMs)));
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const dropped = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const to = sections.findIndex((s) => s.id === over.id);
    rundown.redo({ what: 'move', section: String(active.id), to });
  };
  const planned = rows.reduce((n, r) => n + r.plannedMs, 0);
  const heard = rows.reduce((n, r) => n + r.heardMs, 0);
  const over = heard - props.targetMs;
  return (
    <section aria-label="Sections">
      <div className={`${GRID} columnhead border-b border-hair`}>
        <span />
        <span>role</span>
        <span>section, and what it must carry</span>
        <span className="max-[1180px]:hidden">questions</span>
        <span className="text-right">planned</span>
        <span className="max-[1180px]:hidden" />
        <span className="text-right">heard</span>
        <span className="text-right">over</span>
        <span />
      </div>
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
        <SortableContext items={sections.map((s) => s.id)} strategy={verticalListSortingStrategy}>
          <ol className="m-0 p-0 list-none">
            {rows.map((row, i) => (
              <Row key={row.id} row={row} at={i} section={sections[i]} longest={longest} {...props} />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      <div className={`${GRID} py-2 border-b border-ink items-baseline`}>
        <span />
        <span />
        <span>
          <button
            className="textpress"
            disabled={rundown.busy !== null}
            onClick={() => rundown.redo({ what: 'fit' })}
          >
            {rundown.busy === 'fit' ? 'Fitting…' : `Fit to ${clockText(props.targetMs, false)}`}
          </button>{' '}
          <span className="text-ink2">{fitSays(rows)}</span>
        </span>
        <span className="max-[1180px]:hidden" />
        <span className="clock text-right" data-testid="planned-sum">
          {clockText(planned, false)}
        </span>
        <span className="max-[1180px]:hidden" />
        <strong className="clock text-right">{clockText(heard)}</strong>
        <span
          className={`clock text-right ${Math.abs(over) > Math.max(1000, props.targetMs * 0.01) ? 'text-copper font-semibold' : ''}`}
        >
          {signed(over)}
        </span>
        <span />
      </div>
    </section>
  );
}

const GRID = 'rundownrow grid gap-x-2';

const fitSays = (rows: readonly RundownRow[]) => {
  const off = rows.filter(
    (r) => !r.locked && r.plannedMs && Math.abs(r.overMs) > Math.max(300, r.plannedMs * 0.01),
  );
  return off.length
    ? `tells ${off.length === 1 ? 'one section' : `${off.length} sections`} to its plan: ${off
        .map((r) => r.title)
        .slice(0, 3)
        .join(', ')}${off.length > 3 ? ' …' : ''}`
    : 'every section stands to its plan';
};

function Row(props: SectionsProps & { row: RundownRow; at: number; section: PlainSection; longest: number }) {
  const factName = useFactNames();
  const { row, at, section, rundown, loops } = props;
  const { setNodeRef, attributes, listeners, transform, transition, isDragging } = useSortable({
    id: row.id,
    disabled: row.locked,
  });
  const open = props.chosen === row.id;
  const ids = new Set(section.lines.map((l) => l.id));
  const raised = loops.filter((l) => ids.has(l.from));
  const settled = loops.filter((l) => l.to !== null && ids.has(l.to));
  const scale = BAR / props.longest;
  const move = (by: number) => rundown.redo({ what: 'move', section: row.id, to: at + by });
  const keys = (e: KeyboardEvent) => {
    if (e.target !== e.currentTarget) return;
    const act: Record<string, () => void> = {
      '+': () => rundown.plan(row.id, row.plannedMs + 1000),
      '=': () => rundown.plan(row.id, row.plannedMs + 1000),
      '-': () => rundown.plan(row.id, row.plannedMs - 1000),
      l: () => rundown.lock(row.id, !row.locked),
      t: () => rundown.redo({ what: 'section', section: row.id }),
      u: () => move(-1),
      d: () => move(1),
      Enter: () => props.onOpen(row.id),
      ' ': () => props.onChoose(open ? null : row.id),
      ArrowDown: () => (e.currentTarget.nextElementSibling as HTMLElement | null)?.focus(),
      ArrowUp: () => (e.currentTarget.previousElementSibling as HTMLElement | null)?.focus(),
    };
    if (!act[e.key]) return;
    e.preventDefault();
    act[e.key]();
  };
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition, zIndex: isDragging ? 2 : undefined }}
      tabIndex={0}
      aria-label={`${at + 1}. ${row.title}, ${row.role}, planned ${clockText(row.plannedMs, false)}, heard ${clockText(row.heardMs, false)}${row.locked ? ', locked' : ''}`}
      className={`border-b ${open ? 'bg-lit border-y border-ink' : 'border-hair'} ${isDragging ? 'bg-lit relative' : ''}`}
      data-testid={`section-${row.id}`}
      onKeyDown={keys}
    >
      <div className={`${GRID} py-1 items-center`}>
        {row.locked ? (
          <span />
        ) : (
          <button
            {...attributes}
            {...listeners}
            className="knurl"
            aria-label={`Move ${row.title}`}
            title="Drag to another place"
          />
        )}
        <span className="flex items-center gap-2 text-ink2">
          <svg width="14" height="14" aria-hidden="true" className="shrink-0">
            <path d={glyphPath(row.role)} fill="none" stroke="var(--ink)" strokeWidth="1.5" />
          </svg>
          <span className="max-sm:hidden">{row.role}</span>
        </span>
        <div className="min-w-0">
          <SectionTitle title={row.title} onRename={(t) => rundown.rename(row.id, t)} />
          <button
            className="block w-full text-left truncate text-[12.5px] text-ink2 cursor-pointer min-h-6"
            aria-expanded={open}
            onClick={() => props.onChoose(open ? null : row.id)}
          >
            {row.points.length
              ? namesOf(factName, row.points).slice(0, 3).join(', ')
              : 'nothing from a source'}{' '}
            <span className="text-ink3">{row.points[0]?.quote.slice(0, 90)}</span>
          </button>
        </div>
        <span
          className="max-[1180px]:hidden flex gap-1"
          role="img"
          aria-label={`${raised.length} raised, ${settled.length} settled`}
        >
          {settled.map((l) => (
            <i
              key={`s${l.from}`}
              title={`settles: ${l.asks}`}
              className="inline-block size-2 rounded-full bg-ink2"
            />
          ))}
          {raised.map((l) => (
            <i
              key={`r${l.from}`}
              title={`raises: ${l.asks}`}
              className={`inline-block size-2 rounded-full border-[1.5px] ${l.to ? 'border-ink2' : 'border-copper border-dashed'}`}
            />
          ))}
        </span>
        <PlanField
          ms={row.plannedMs}
          onPlan={(ms) => rundown.plan(row.id, ms)}
          title={row.title}
          disabled={row.locked}
        />
        <PlanBar row={row} scale={scale} onPlan={(ms) => rundown.plan(row.id, ms)} />
        <span className="clock text-right">{clockText(row.heardMs)}</span>
        <span className={`clock text-right ${row.overMs > 5000 ? 'text-copper font-semibold' : 'text-ink2'}`}>
          {row.plannedMs && Math.abs(row.overMs) >= 50 ? signed(row.overMs) : ''}
        </span>
        <button
          className="size-6 grid place-items-center cursor-pointer"
          aria-pressed={row.locked}
          aria-label={`${row.locked ? 'Unlock' : 'Lock'} ${row.title}`}
          onClick={() => rundown.lock(row.id, !row.locked)}
        >
          <svg width="12" height="14" viewBox="0 0 12 14" aria-hidden="true">
            <path
              d={row.locked ? 'M3 6V4a3 3 0 0 1 6 0v2' : 'M3 6V4a3 3 0 0 1 5.6-1.5'}
              fill="none"
              stroke="var(--ink2)"
              strokeWidth="1.4"
            />
            <rect
              x="1"
              y="6"
              width="10"
              height="7"
              rx="1"
              fill={row.locked ? 'var(--ink)' : 'none'}
              stroke="var(--ink2)"
              strokeWidth="1.2"
            />
          </svg>
        </button>
      </div>
      {open && <Open {...props} />}
    </li>
  );
}

function SectionTitle({ title, onRename }: { title: string; onRename: (title: string) => void }) {
  const [text, setText] = useState<string | null>(null);
  const done = () => {
    if (text !== null && text.trim() && text.trim() !== title) onRename(text.trim());
    setText(null);
  };
  return (
    <input
      className="w-full bg-transparent border-0 p-0 font-semibold text-ink truncate min-h-6"
      aria-label={`Title of ${title}`}
      value={text ?? title}
      maxLength={200}
      onChange={(e) => setText(e.target.value)}
      onBlur={done}
      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
    />
  );
}

function PlanField({
  ms,
  title,
  disabled,
  onPlan,
}: {
  ms: number;
  title: string;
  disabled: boolean;
  onPlan: (ms: number) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  const done = () => {
    const wanted = text === null ? null : lengthMs(text);
    if (wanted !== null && Number.isFinite(wanted) && wanted > 0) onPlan(wanted);
    setText(null);
  };
  return (
    <input
      className="clock text-ink text-right bg-transparent border-0 p-0 w-full min-h-6 disabled:text-ink2"
      aria-label={`Planned time of ${title}`}
      value={text ?? clockText(ms, false)}
      disabled={disabled}
      onChange={(e) => setText(e.target.value)}
      onBlur={done}
      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
    />
  );
}

/** The plan as a bracket, what is heard as a bar in it; the right bracket is dragged. */
function PlanBar({ row, scale, onPlan }: { row: RundownRow; scale: number; onPlan: (ms: number) => void }) {
  const [drag, setDrag] = useState<number | null>(null);
  const plan = drag ?? row.plannedMs;
  const end = 4 + plan * scale;
  const heard = row.heardMs * scale;
  const inside = Math.min(heard, row.plannedMs * scale || heard);
  return (
    <svg
      width={BAR + 14}
      height="22"
      className="max-[1180px]:hidden overflow-visible touch-none"
      aria-hidden="true"
    >
      <rect x="4" y="9" width={inside} height="5" fill="var(--ink2)" />
      {heard > inside && <rect x={4 + inside} y="8" width={heard - inside} height="7" fill="url(#over)" />}
      <path d={`M8 4H4v14h4M${end - 4} 4h4v14h-4`} fill="none" stroke="var(--ink)" strokeWidth="1.2" />
      {!row.locked && (
        <rect
          x={end - 6}
          y="0"
          width="14"
          height="22"
          fill="transparent"
          className="cursor-ew-resize"
          onPointerDown={(e) => {
            e.currentTarget.setPointerCapture(e.pointerId);
            const from = e.clientX;
            const start = row.plannedMs || row.heardMs;
            const target = e.currentTarget;
            const at = (x: number) => Math.max(2000, Math.round((start + (x - from) / scale) / 500) * 500);
            const onMove = (m: PointerEvent) => setDrag(at(m.clientX));
            const onUp = (u: PointerEvent) => {
              target.removeEventListener('pointermove', onMove);
              target.removeEventListener('pointerup', onUp);
              setDrag(null);
              if (Math.abs(u.clientX - from) > 2) onPlan(at(u.clientX));
            };
            target.addEventListener('pointermove', onMove);
            target.addEventListener('pointerup', onUp);
          }}
        />
      )}
    </svg>
  );
}

/** What a section carries, and what can be done to it. */
function Open({
  row,
  at,
  section,
  sections,
  rundown,
  onOpen,
}: SectionsProps & { row: RundownRow; at: number; section: PlainSection }) {
  const factName = useFactNames();
  const busy = rundown.busy !== null;
  return (
    <div className="pl-[124px] pr-8 pb-3">
      <ol className="m-0 pl-0 list-none">
        {section.lines.map((l, i) => (
          <li key={l.id} className="flex gap-3 py-0.5 group">
            <span className="clock text-ink3 w-12 pt-1 shrink-0">{namesOf(factName, l.from).join(' ')}</span>
            <span className="font-serif text-[15px] leading-[21px] flex-1">{l.text}</span>
            {l.from.length > 0 && !section.locked && sections.length > 2 && (
              <select
                className="field opacity-0 group-hover:opacity-100 focus:opacity-100 shrink-0 w-36 self-start"
                aria-label={`Tell it in another section: “${l.text.slice(0, 60)}”`}
                value=""
                disabled={busy}
                onChange={(e) => rundown.redo({ what: 'carry', line: l.id, section: e.target.value })}
              >
                <option value="">tell it in …</option>
                {sections
                  .filter((s) => s.id !== section.id && !s.locked)
                  .map((s) => (
                    <option key={s.id} value={s.id}>
                      {s.title}
                    </option>
                  ))}
              </select>
            )}
            {i > 0 && !section.locked && (
              <button
                className="quietpress opacity-0 group-hover:opacity-100 focus:opacity-100 shrink-0"
                onClick={() => rundown.split(l.id)}
              >
                split here
              </button>
            )}
          </li>
        ))}
      </ol>
      <div className="flex flex-wrap gap-x-5 pt-2">
        <button
          className="textpress"
          disabled={busy || row.locked}
          onClick={() => rundown.redo({ what: 'section', section: row.id })}
        >
          {rundown.busy === 'section' ? 'Telling…' : 'Another take'}
        </button>
        <button
          className="quietpress"
          disabled={busy || row.locked || at === 0}
          onClick={() => rundown.redo({ what: 'move', section: row.id, to: at - 1 })}
        >
          Move up
        </button>
        <button
          className="quietpress"
          disabled={busy || row.locked || at === sections.length - 1}
          onClick={() => rundown.redo({ what: 'move', section: row.id, to: at + 1 })}
        >
          Move down
        </button>
        <button className="quietpress" disabled={at === 0} onClick={() => rundown.join(row.id)}>
          Join to the one before
        </button>
        <button className="quietpress" onClick={() => onOpen(row.id)}>
          Go to it on the Page
        </button>
      </div>
      {section.takes.length > 0 && (
        <div className="pt-2">
          <div className="columnhead">earlier takes</div>
          {section.takes.map((t, i) => (
            <div key={i} className="flex gap-3 items-baseline py-0.5">
              <span className="text-ink3 w-24 shrink-0 truncate">{t.name}</span>
              <span className="font-serif text-[15px] flex-1 truncate">
                {t.lines.map((l) => l.text).join(' ')}
              </span>
              <button
                className="textpress shrink-0"
                disabled={row.locked}
                onClick={() => rundown.back(row.id, i)}
              >
                Use
              </button>
            </div>
          ))}
        </div>
      )}
    </div>
  );
}
