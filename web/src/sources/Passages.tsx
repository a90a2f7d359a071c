/** A source's passages as they lie on the desk, values underlined by type. */
import { Fragment, memo, type ReactNode } from 'react';
import type { Fact } from '@ursprung/core/facts';
import type { Block, Choose, LeftOut } from '@ursprung/core/source';
import type { Marks, SourceView } from '../api.ts';
import { LeftOutList } from './LeftOut.tsx';
import { clockText } from '../text/clockText.ts';

export type Heard = ReadonlyMap<string, { line: string; ms: number | null }>;

const UNDERLINE = {
  number: 'underline decoration-1',
  date: 'underline decoration-double',
  name: 'underline decoration-dotted',
  place: 'underline decoration-dashed',
  quote: 'underline decoration-mark',
  hedge: 'underline decoration-wavy decoration-copper decoration-1',
} as const;

export function Legend() {
  return (
    <div className="text-[12px] text-ink2 grid grid-cols-3 gap-x-2 gap-y-1">
      {(['number', 'date', 'name', 'place', 'quote', 'hedge'] as const).map((k) => (
        <span key={k}>
          <span className={`${UNDERLINE[k]} underline-offset-4`}>{k === 'hedge' ? 'less sure' : k}</span>
        </span>
      ))}
    </div>
  );
}

export function Passages({
  source,
  letter,
  chosen,
  heard,
  onChoose,
  onSelect,
  onDecide,
  busy,
}: {
  source: SourceView;
  letter: string;
  chosen: string | null;
  heard: Heard | null;
  onChoose: (factId: string) => void;
  /** A stretch of the source's words was selected, as offsets, or none. */
  onSelect: (range: { start: number; end: number } | null) => void;
  /** A piece belongs to the text, doesn't, or is the post that is told. */
  onDecide: (text: string, as: Choose) => void;
  /** A decision is being carried out. */
  busy: boolean;
}) {
  const { document: doc, facts, marks } = source;
  const byBlock = new Map<string, Fact[]>();
  // Chosen words lie over the facts that were found: they are listed, not drawn.
  for (const f of facts.filter((x) => !x.own))
    (byBlock.get(f.block) ?? byBlock.set(f.block, []).get(f.block)!).push(f);
  return (
    <div onMouseUp={() => onSelect(selectedRange())} onKeyUp={() => onSelect(selectedRange())}>
      <h2 className="font-serif text-[22px] leading-[30px] pt-3 pl-9">{doc.title}</h2>
      {doc.blocks.map((b) =>
        b.type === 'heading' ? (
          <div key={b.id} className="group grid grid-cols-[36px_1fr_64px] pt-4 pb-1">
            <h3 className="font-semibold col-start-2" data-from={b.start}>
              {b.text}
            </h3>
            <span className="text-right h-0">
              <Decide block={b} busy={busy} onDecide={onDecide} />
            </span>
          </div>
        ) : (
          <Passage
            key={b.id}
            block={b}
            letter={letter}
            facts={byBlock.get(b.id) ?? NONE}
            marks={marks}
            chosen={byBlock.get(b.id)?.some((f) => f.id === chosen) ? chosen : null}
            heard={heard}
            onChoose={onChoose}
            onDecide={onDecide}
            busy={busy}
          />
        ),
      )}
      <LeftOutList items={doc.leftOut ?? NOTHING} busy={busy} onTakeIn={(text) => onDecide(text, 'in')} />
    </div>
  );
}

const NOTHING: readonly LeftOut[] = [];

const NONE: readonly Fact[] = [];

const Passage = memo(function Passage({
  block,
  letter,
  facts,
  marks,
  chosen,
  heard,
  onChoose,
  onDecide,
  busy,
}: {
  block: Block;
  letter: string;
  facts: readonly Fact[];
  marks: Marks;
  chosen: string | null;
  heard: Heard | null;
  onChoose: (factId: string) => void;
  onDecide: (text: string, as: Choose) => void;
  busy: boolean;
}) {
  const times = facts.map((f) => heard?.get(f.id)?.ms).filter((ms): ms is number => typeof ms === 'number');
  const apart = block.type === 'reply' || block.type === 'caption' || block.type === 'box';
  return (
    <div
      className={`passage group grid grid-cols-[36px_1fr_64px] py-1 ${chosen ? 'bg-lit shadow-[inset_0_0_0_1px_var(--edge)]' : ''}`}
      data-chosen={chosen ? '' : undefined}
    >
      <span className="text-[11px] font-semibold text-ink2 pt-1 pl-1">
        {letter} {block.id.slice(1)}
      </span>
      <p
        className={`font-serif text-[15.5px] leading-[22px] pr-4 ${apart ? 'text-ink2 pl-6' : ''}`}
        data-from={block.start}
      >
        {block.type === 'reply' && (
          <span className="font-sans text-[11px] text-ink3 select-none">
            reply{block.speaker ? `, ${block.speaker}` : ''} ·{' '}
          </span>
        )}
        {(block.type === 'caption' || block.type === 'box' || block.doubt || block.chosen) && (
          <span className="font-sans text-[11px] text-ink2 select-none">
            {block.doubt
              ? 'in doubt, not told by itself'
              : block.chosen
                ? 'taken in by you'
                : block.type === 'box'
                  ? 'in the box'
                  : 'under a picture'}{' '}
            ·{' '}
          </span>
        )}
        {block.heads && block.type !== 'box' && (
          <span className="sr-only">{`${block.heads.join(', ')}: `}</span>
        )}
        {block.type === 'turn' && block.speaker && (
          <span className="font-sans text-[11px] font-semibold select-none">{block.speaker} · </span>
        )}
        {block.step ? (
          <span className="select-none">{`${block.within ? `${block.within}.` : ''}${block.step}. `}</span>
        ) : null}
        {facts.length
          ? facts.map((f, i) => (
              <Fragment key={f.id}>
                {i > 0 || f.start > block.start
                  ? block.text.slice(i ? facts[i - 1].end - block.start : 0, f.start - block.start)
                  : ''}
                <FactWords fact={f} lit={f.id === chosen} mark={marks[f.id]?.mark} onChoose={onChoose} />
              </Fragment>
            ))
          : block.text}
      </p>
      <span className="clock text-right text-ink2 pt-1">
        {block.atMs !== undefined && <span className="block text-ink3">{clockText(block.atMs, false)}</span>}
        {times.slice(0, 3).map((ms) => (
          <span key={ms} className="block">
            {clockText(ms, false)}
          </span>
        ))}
        <Decide block={block} busy={busy} onDecide={onDecide} />
      </span>
    </div>
  );
});

/** What can be decided about a passage, under the pointer; what is in doubt always shows it. By keys: P in the list of facts. */
function Decide({
  block,
  busy,
  onDecide,
}: {
  block: Block;
  busy: boolean;
  onDecide: (text: string, as: Choose) => void;
}) {
  const ways: [Choose, string][] = [
    ...(block.doubt ? [['in', 'it belongs'] as [Choose, string]] : []),
    ...(block.type === 'reply' ? [['story', 'tell this'] as [Choose, string]] : []),
    ...(block.type === 'heading' && !block.chosen ? [['story', 'only this'] as [Choose, string]] : []),
    // Back to how it was read: a piece taken in goes, a post or part told alone is one among the others again.
    block.chosen ? ['as read', 'take back'] : ['out', 'leave out'],
  ];
  return ways.map(([as, says]) => (
    <button
      key={as}
      className={`textpress block ml-auto font-sans text-[11px] leading-[15px] whitespace-nowrap ${block.doubt ? '' : 'opacity-0 group-hover:opacity-100 focus:opacity-100'}`}
      tabIndex={-1}
      disabled={busy}
      onClick={() => onDecide(block.text, as)}
    >
      {says}
    </button>
  ));
}

/** A sentence with its values underlined; a press on it chooses its fact. */
function FactWords({
  fact,
  lit,
  mark,
  onChoose,
}: {
  fact: Fact;
  lit: boolean;
  mark: string | undefined;
  onChoose: (factId: string) => void;
}) {
  const spans = [
    ...fact.numbers.map((s) => ({ ...s, look: 'number' as const })),
    ...fact.dates.map((s) => ({ ...s, look: 'date' as const })),
    ...fact.names.map((s) => ({ ...s, look: s.type === 'place' ? ('place' as const) : ('name' as const) })),
    ...fact.hedges.map((s) => ({ ...s, look: 'hedge' as const })),
    ...fact.quotes.map((s) => ({ ...s, look: 'quote' as const })),
  ].sort((a, b) => a.start - b.start || a.end - b.end);
  const out: ReactNode[] = [];
  let at = 0;
  for (const s of spans) {
    if (s.start < at) continue;
    out.push(
      fact.text.slice(at, s.start),
      <span key={s.start} className={`${UNDERLINE[s.look]} underline-offset-4`}>
        {fact.text.slice(s.start, s.end)}
      </span>,
    );
    at = s.end;
  }
  out.push(fact.text.slice(at));
  const gone = mark === 'out' || mark === 'wrong';
  return (
    <span
      className={`cursor-pointer ${lit ? 'shadow-[inset_0_-2px_0_var(--ink)]' : ''} ${gone ? 'line-through text-ink3' : ''} ${mark === 'must' ? 'font-semibold' : ''}`}
      onClick={() => onChoose(fact.id)}
    >
      {out}
    </span>
  );
}

/** The selection as offsets into the source, when it lies within its passages. */
function selectedRange(): { start: number; end: number } | null {
  const selection = window.getSelection();
  if (!selection || selection.isCollapsed || !selection.rangeCount) return null;
  const range = selection.getRangeAt(0);
  const start = offsetOf(range.startContainer, range.startOffset);
  const end = offsetOf(range.endContainer, range.endOffset);
  return start !== null && end !== null && end > start ? { start, end } : null;
}

/** Where a place in the page stands in the source; words of ours (numbers, speakers) count for nothing. */
function offsetOf(node: Node, offset: number): number | null {
  const host = (node instanceof Element ? node : node.parentElement)?.closest<HTMLElement>('[data-from]');
  if (!host) return null;
  const before = document.createRange();
  before.setStart(host, 0);
  before.setEnd(node, offset);
  const words = before.cloneContents();
  for (const ours of words.querySelectorAll('.select-none')) ours.remove();
  return Number(host.dataset.from) + (words.textContent ?? '').length;
}
