/** The film at a glance: rows broken at cuts, a second as long in every row; each scene its frame, its seconds and its best search word. */
import { memo, useMemo, useRef, useState } from 'react';
import type { Picture, Scene } from '@ursprung/core/scenes/desk';
import type { PlainSection } from '@ursprung/core/script';
import { Glyph } from '../strip/glyphs.tsx';
import { clockText } from '../text/clockText.ts';
import { SceneFrame } from './SceneFrame.tsx';

/** Pixels a second, and the frame's size, by the script's frame. */
const SCALE = {
  '16:9': { px: 23, width: 80, height: 45 },
  '9:16': { px: 40, width: 34, height: 60 },
  '1:1': { px: 30, width: 50, height: 50 },
} as const;
const LABEL = 40;
/** A scene narrower than this has its words below its frame instead of beside it. */
const BESIDE = 64;

export type Ratio = keyof typeof SCALE;
interface Row {
  from: number;
  scenes: { scene: Scene; number: number; left: number; width: number }[];
}

function rowsOf(scenes: readonly Scene[], px: number, width: number): Row[] {
  const rows: Row[] = [];
  scenes.forEach((scene, i) => {
    const own = ((scene.endMs - scene.startMs) / 1000) * px;
    const last = rows[rows.length - 1];
    const left = last ? ((scene.startMs - last.from) / 1000) * px : 0;
    if (!last || left + own > width)
      rows.push({ from: scene.startMs, scenes: [{ scene, number: i + 1, left: 0, width: own }] });
    else last.scenes.push({ scene, number: i + 1, left, width: own });
  });
  return rows;
}

export function ContactSheet({
  scenes,
  pictures,
  sections,
  ratio,
  width,
  longMs,
  chosen,
  numberOf,
  onChoose,
  onMove,
}: {
  scenes: readonly Scene[];
  pictures: ReadonlyMap<string, Picture>;
  sections: readonly PlainSection[];
  ratio: Ratio;
  width: number;
  longMs: number;
  chosen: string | null;
  numberOf: (id: string) => number;
  onChoose: (id: string) => void;
  /** A cut was dragged by so many milliseconds. */
  onMove: (scene: Scene, byMs: number) => void;
}) {
  const { px } = SCALE[ratio];
  const rows = useMemo(() => rowsOf(scenes, px, width - LABEL - 24), [scenes, px, width]);
  const titles = useMemo(() => new Map(sections.map((s) => [s.id, s])), [sections]);
  return (
    <div role="listbox" aria-label="Scenes" tabIndex={-1}>
      {rows.map((row) => (
        <div key={row.from} className="relative" style={{ height: rowHeight(ratio) }}>
          <span className="clock absolute left-0 top-[22px] text-ink2">{clockText(row.from, false)}</span>
          <div className="absolute top-0 bottom-0" style={{ left: LABEL, right: 0 }}>
            {row.scenes.map((s, i) => {
              const before = i ? row.scenes[i - 1].scene : scenes[s.number - 2];
              return (
                <Cell
                  key={s.scene.id}
                  {...s}
                  ratio={ratio}
                  picture={pictures.get(s.scene.id)}
                  section={before?.section === s.scene.section ? null : (titles.get(s.scene.section) ?? null)}
                  room={roomFor(row, i)}
                  long={s.scene.endMs - s.scene.startMs > longMs}
                  chosen={s.scene.id === chosen}
                  repeatOf={repeatNumber(pictures.get(s.scene.id), numberOf)}
                  onChoose={onChoose}
                  onMove={onMove}
                  px={px}
                />
              );
            })}
          </div>
        </div>
      ))}
    </div>
  );
}

const rowHeight = (ratio: Ratio) => SCALE[ratio].height + 82;
const repeatNumber = (picture: Picture | undefined, numberOf: (id: string) => number) =>
  picture?.repeat ? numberOf(picture.repeat.of) : null;

/** How far a section's title may run: to where the next one's begins. */
function roomFor(row: Row, at: number): number {
  const own = row.scenes[at];
  const next = row.scenes.slice(at + 1).find((s) => s.scene.section !== own.scene.section);
  return next ? next.left - own.left - 8 : 300;
}

interface CellProps {
  room: number;
  scene: Scene;
  number: number;
  left: number;
  width: number;
  ratio: Ratio;
  px: number;
  picture: Picture | undefined;
  section: PlainSection | null;
  long: boolean;
  chosen: boolean;
  repeatOf: number | null;
  onChoose: (id: string) => void;
  onMove: (scene: Scene, byMs: number) => void;
}

const Cell = memo(function Cell({
  scene,
  number,
  left,
  width,
  ratio,
  px,
  picture,
  section,
  room,
  long,
  chosen,
  repeatOf,
  onChoose,
  onMove,
}: CellProps) {
  const size = SCALE[ratio];
  const seconds = (scene.endMs - scene.startMs) / 1000;
  const best = picture?.search[0]?.text ?? '';
  const trap = picture?.traps[0];
  const beside = width - size.width - 8 >= BESIDE;
  const [shift, setShift] = useState(0);
  const from = useRef(0);
  const words = (
    <>
      <span className="text-ink2">{scene.silent ? 'nobody speaks' : best}</span>
      {trap && <span className="finding trapmark block truncate">{trap.words}</span>}
      {repeatOf !== null && <span className="finding block">same as {repeatOf}</span>}
    </>
  );
  return (
    <div className="absolute top-0" style={{ left, width }}>
      {section && (
        <div
          className="absolute top-0 whitespace-nowrap flex items-center gap-1 text-[12.5px] overflow-hidden"
          style={{ maxWidth: room }}
          title={section.title}
        >
          <Glyph role={section.role} /> {room > 130 && <span className="text-ink2">{section.role}</span>}
          <strong className="truncate">{section.title}</strong>
        </div>
      )}
      <svg
        className="absolute top-[24px] left-0 overflow-visible"
        width={width}
        height="6"
        aria-hidden="true"
      >
        <line
          x1="0"
          x2={Math.max(0, width - 3)}
          y1="0.5"
          y2="0.5"
          stroke={long ? 'var(--copper)' : 'var(--ink3)'}
          strokeWidth={long ? 2 : 1}
        />
        {Array.from({ length: Math.floor(seconds) + 1 }, (_, i) => (
          <line key={i} x1={i * px} x2={i * px} y1="0" y2={i % 5 ? 3 : 6} stroke="var(--ink3)" />
        ))}
      </svg>
      <div
        role="option"
        aria-selected={chosen}
        tabIndex={chosen ? 0 : -1}
        data-scene={scene.id}
        data-testid="scene"
        className={`absolute top-[28px] left-0 pt-[2px] pr-1 cursor-pointer overflow-hidden ${chosen ? 'litcell' : ''}`}
        style={{ width: Math.max(12, width - 2), height: size.height + 50 }}
        onClick={() => onChoose(scene.id)}
        onFocus={() => onChoose(scene.id)}
      >
        <div className="flex gap-2 items-baseline h-4 whitespace-nowrap">
          <strong className="clock text-ink">
            <span className="sr-only">scene </span>
            {number}
          </strong>
          <span className={`clock ${long ? 'text-copper' : ''}`}>{seconds.toFixed(1)}</span>
          <span className="sr-only">seconds: {scene.text}</span>
          {scene.held && <span className="text-[11px] text-ink3">held</span>}
        </div>
        <div className="flex gap-2">
          <SceneFrame
            picture={picture}
            ratio={ratio}
            width={Math.min(size.width, Math.max(8, width - 6))}
            height={size.height}
          />
          {beside && <div className="text-[12px] leading-[15px] min-w-0 line-clamp-4">{words}</div>}
        </div>
        {!beside && <div className="text-[12px] leading-[15px] line-clamp-2 break-words">{words}</div>}
      </div>
      {scene.why !== 'section' && !scene.silent && (
        <span
          className="cutgrip absolute top-[24px] -left-[5px] w-[10px] cursor-ew-resize"
          style={{ height: size.height + 24, transform: shift ? `translateX(${shift}px)` : undefined }}
          aria-hidden="true"
          title="Drag to move the cut; [ and ] move it by a word"
          onPointerDown={(e) => {
            e.currentTarget.setPointerCapture(e.pointerId);
            from.current = e.clientX;
          }}
          onPointerMove={(e) => e.buttons && setShift(e.clientX - from.current)}
          onPointerUp={() => {
            if (Math.abs(shift) > 3) onMove(scene, (shift / px) * 1000);
            setShift(0);
          }}
        />
      )}
    </div>
  );
});
