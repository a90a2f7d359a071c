/** Ours and the reply, row by row; the fact is the seam between them. */
import type { KeyboardEvent, Ref } from 'react';
import {
  FAULT_NAMES,
  stops,
  type CheckedReply,
  type ReplyFault,
  type ReplyLine,
  type ReplyRow,
} from '@ursprung/core/commission/desk';
import type { PlainLine, PlainSection } from '@ursprung/core/script';
import type { CommissionView } from '../api.ts';
import { Words } from '../page/Words.tsx';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { clockText } from '../text/clockText.ts';
import { useFactNames } from '../text/factNames.ts';

export function Rows({
  ref,
  session,
  rows,
  ordered,
  checked,
  current,
  at,
  onAt,
  onKey,
  isIn,
  onUse,
  onOurs,
  must,
  stays,
  onStays,
}: {
  ref: Ref<HTMLDivElement>;
  session: ScriptSession;
  rows: readonly ReplyRow[];
  ordered: readonly PlainSection[];
  checked: CheckedReply | null;
  current: CommissionView | null;
  at: number;
  onAt: (row: number) => void;
  onKey: (e: KeyboardEvent) => void;
  isIn: (row: ReplyRow) => boolean;
  onUse: (row: ReplyRow, mended: boolean) => void;
  onOurs: (line: PlainLine) => void;
  /** Facts that must be said, as "A:f3". */
  must: readonly string[];
  /** Sections whose own lines stay when the reply is taken whole. */
  stays: ReadonlySet<string>;
  onStays: (section: string) => void;
}) {
  const times = useSnapshot(session, (s) => s.times);
  const who = current ? current.to.who || 'a writer' : null;
  const missing = (r: ReplyRow) => {
    if (!checked?.done || r.reply || !r.ours) return null;
    const keys = r.ours.from.flatMap((f) => (f.fact ? [`${f.source}:${f.fact}`] : []));
    if (!keys.length) return null;
    if (keys.some((k) => checked.saidBy[k])) return 'elsewhere';
    return keys.some((k) => must.includes(k)) ? 'owed' : 'left out';
  };
  return (
    <div
      ref={ref}
      className="flex-1 min-h-0 overflow-auto replyrows"
      tabIndex={0}
      role="group"
      aria-label="Lines, ours and the reply’s"
      onKeyDown={onKey}
    >
      <div className="replyrow columnhead sticky top-0 bg-sheet border-b border-hair z-10">
        <span />
        <span>ours</span>
        <span className="text-center">fact</span>
        <span>
          reply{who && ` of ${who}`}
          {current?.state === 'arriving' && ', still arriving'}
          {current?.to.kind === 'stand-in' && !/stand-in/.test(who ?? '') && ', a stand-in'}
        </span>
        <span>found</span>
      </div>
      {checked && checked.cleaned.length > 0 && (
        <p className="px-5 py-1 text-[12.5px] text-ink3 border-b border-hair">
          cleaned away:{' '}
          {checked.cleaned.map((c, i) => (
            <s key={i} className="mr-3">
              {c.text.length > 90 ? `${c.text.slice(0, 88)} …` : c.text}
            </s>
          ))}
        </p>
      )}
      {!rows.length && (
        <p className="emptyhint px-5 pt-6">Nothing is written here yet, and nothing has come back.</p>
      )}
      {rows.map((r, i) => (
        <div key={`${r.ours?.id ?? ''}${r.reply?.id ?? ''}`}>
          {(i === 0 || rows[i - 1].section !== r.section) && (
            <Head
              section={ordered.find((s) => s.id === r.section)!}
              checked={checked}
              stays={stays.has(r.section)}
              onStays={() => onStays(r.section)}
              oursMs={(ordered.find((s) => s.id === r.section)?.lines ?? []).reduce(
                (n, l) => n + (times?.get(l.id)?.ms ?? 0),
                0,
              )}
            />
          )}
          <Row
            row={r}
            chosen={i === at}
            startMs={r.ours ? (times?.get(r.ours.id)?.startMs ?? null) : null}
            oursMs={r.ours ? (times?.get(r.ours.id)?.ms ?? 0) : 0}
            missing={missing(r)}
            inScript={isIn(r)}
            onChoose={() => onAt(i)}
            onUse={(mended) => onUse(r, mended)}
            onOurs={() => r.ours && onOurs(r.ours)}
          />
        </div>
      ))}
    </div>
  );
}

/** Both lengths of a section on one ruler, against the bracket of its plan. */
function Head({
  section,
  checked,
  stays,
  onStays,
  oursMs,
}: {
  section: PlainSection;
  checked: CheckedReply | null;
  stays: boolean;
  onStays: () => void;
  oursMs: number;
}) {
  const staySays = stays ? 'ours stays; use the reply’s' : 'let ours stay';
  const length = checked?.lengths.find((l) => l.section === section.id);
  const plan = section.plannedMs || oursMs;
  const most = Math.max(plan, oursMs, length?.ms ?? 0, 1000);
  const px = (ms: number, width: number) => (ms / most) * width;
  const bar = (ms: number, width: number) => (
    <svg width={width} height="14" aria-hidden="true" className="block">
      <rect x="0" y="5" width={px(Math.min(ms, plan), width)} height="4" fill="currentColor" />
      {ms > plan && (
        <rect x={px(plan, width)} y="5" width={px(ms - plan, width)} height="4" fill="var(--copper)" />
      )}
      <path
        d={`M4 1 H0.5 V13 H4 M${px(plan, width) - 4} 1 H${px(plan, width) - 0.5} V13 H${px(plan, width) - 4}`}
        fill="none"
        stroke="var(--edge)"
      />{' '}
      {/* prettier-ignore */}
    </svg>
  );
  return (
    <div className="replyrow pt-3 pb-1 border-b border-hair">
      <span />
      <span>
        <strong className="block">{section.title}</strong>
        <span className="flex gap-2 items-center text-ink2">
          {bar(oursMs, 150)} <span className="clock">{clockText(oursMs)}</span>
        </span>
      </span>
      <span />
      {length && length.words > 0 ? (
        <span className="self-end flex gap-2 items-center">
          {bar(length.ms, 190)} <span className="clock">{clockText(length.ms)}</span>
          {length.offMs !== 0 && checked?.done && (
            <span className="finding">
              {length.offMs > 0 ? 'too long' : 'too short'} by {Math.abs(Math.round(length.offMs / 1000))} s
            </span>
          )}
        </span>
      ) : (
        <span />
      )}
      {length && length.words > 0 && !section.locked ? (
        <span className="self-end">
          <button
            className="quietpress"
            aria-pressed={stays}
            aria-label={`${staySays}: ${section.title}`}
            onClick={onStays}
          >
            {staySays}
          </button>
        </span>
      ) : (
        <span />
      )}
    </div>
  );
}

function Row({
  row,
  chosen,
  startMs,
  oursMs,
  missing,
  inScript,
  onChoose,
  onUse,
  onOurs,
}: {
  row: ReplyRow;
  chosen: boolean;
  startMs: number | null;
  oursMs: number;
  /** Our line that the reply has nothing for: owed, left out, or told elsewhere in it. */
  missing: 'owed' | 'left out' | 'elsewhere' | null;
  inScript: boolean;
  onChoose: () => void;
  onUse: (mended: boolean) => void;
  onOurs: () => void;
}) {
  const factName = useFactNames();
  const { ours, reply, fact } = row;
  const by = (ms: number) => `${ms >= 0 ? '+' : '−'}${(Math.abs(ms) / 1000).toFixed(1)} s`;
  const kept = ours && (ours.locked || ours.fixed);
  return (
    <div
      className={`replyrow item border-b border-hair py-1.5 ${chosen ? 'lit' : ''}`}
      aria-current={chosen ? 'true' : undefined}
      onClick={onChoose}
    >
      <span className="clock pt-1">{startMs !== null && clockText(startMs)}</span>
      <span className={`take ${inScript ? 'text-ink3' : ''}`}>
        {ours ? (inScript ? (ours.takes[ours.takes.length - 1]?.text ?? '') : ours.text) : ''}
        {kept && <span className="text-ink3"> (stays: {ours.fixed || 'locked'})</span>}
      </span>
      <span className="seam" aria-label={fact ? `fact ${factName(fact)}` : undefined}>
        <i className={ours && !inScript ? 'disc' : ''} />
        {fact && (
          <>
            <i className={ours ? 'left' : ''} />
            <b className="clock">{factName(fact)}</b>
            <i className={reply ? 'right' : ''} />
          </>
        )}
        <i className={inScript ? 'disc' : ''} />
      </span>
      {reply ? (
        <ReplyText line={reply} chosen={chosen} />
      ) : (
        <span className="take">
          {missing === 'owed' && <span className="finding">not said</span>}
          {missing === 'left out' && <span className="text-ink3">left out</span>}
        </span>
      )}
      <span className="text-[12.5px] leading-[17px]">
        {reply?.arriving && <span className="text-ink3">arriving</span>}
        {reply && !reply.arriving && (
          <>
            {inScript ? (
              <>
                <span className="text-ink3">in the script</span>{' '}
                <button className="quietpress" onClick={onOurs}>
                  {ours?.takes.length ? 'Ours' : 'Take it out'}
                </button>
              </>
            ) : !reply.faults.some(stops) ? (
              <>
                {gravest(reply.faults)
                  .slice(0, chosen ? 4 : 1)
                  .map((f, i) => (
                    <Fault key={i} fault={f} passage={chosen} />
                  ))}
                {!kept && (
                  <>
                    <button className="textpress" onClick={() => onUse(false)}>
                      Use
                    </button>
                    <span className="clock pl-2">{by(reply.ms - oursMs)}</span>
                  </>
                )}
              </>
            ) : (
              <>
                {gravest(reply.faults)
                  .slice(0, chosen ? 4 : 1)
                  .map((f, i) => (
                    <Fault key={i} fault={f} passage={chosen} />
                  ))}
                {!chosen && reply.faults.length > 1 && (
                  <p className="text-ink3">and {reply.faults.length - 1} more</p>
                )}
                {reply.mended && !kept ? (
                  <>
                    <button className={chosen ? 'press' : 'textpress'} onClick={() => onUse(true)}>
                      Use, mended
                    </button>
                    <span className="clock pl-2">{by(reply.mendedMs - oursMs)}</span>
                  </>
                ) : reply.mended === '' ? (
                  <p className="text-ink3">{reply.faults.find((f) => f.mend === '')?.does ?? 'Left out'}</p>
                ) : (
                  <p className="text-ink3">{kept ? 'Ours stays.' : 'No mend without guessing: ask again.'}</p>
                )}
                {chosen && reply.text !== reply.mended && !kept && (
                  <p>
                    <button className="quietpress" onClick={() => onUse(false)}>
                      Use as it is
                    </button>
                  </p>
                )}
              </>
            )}
          </>
        )}
        {missing === 'owed' && (
          <p className="text-ink2">The order says to say it: ask again, or let our paragraph stay.</p>
        )}
      </span>
    </div>
  );
}

/** What stops the line first. */
const gravest = (faults: readonly ReplyFault[]) =>
  [...faults].sort((a, b) => Number(stops(b)) - Number(stops(a)));

/** What is found, in one sentence; with `passage` also the words of the source that it was held against. */
function Fault({ fault, passage }: { fault: ReplyFault; passage: boolean }) {
  return (
    <p className="pb-0.5">
      <span className={stops(fault) ? 'finding' : 'text-ink2'}>
        {stops(fault) ? FAULT_NAMES[fault.kind] : 'Nothing says so'}.
      </span>{' '}
      {fault.says}
      {passage && fault.passage && (
        <span className="block text-ink2">
          <b className="clock">{fault.passage.source}</b> “{fault.passage.text}”
        </span>
      )}
    </p>
  );
}

/** A reply line with what was found marked on its words; the chosen one shows its mend in the words. */
function ReplyText({ line, chosen }: { line: ReplyLine; chosen: boolean }) {
  if (chosen && line.mended && line.mended !== line.text)
    return <Words before={line.text} after={line.mended} />;
  const cuts = line.faults
    .filter((f) => f.end > f.start && f.end - f.start < line.text.length)
    .sort((a, b) => a.start - b.start)
    .filter((f, i, all) => i === 0 || f.start >= all[i - 1].end);
  const parts: { text: string; marked: boolean }[] = [];
  let at = 0;
  for (const f of cuts) {
    parts.push({ text: line.text.slice(at, f.start), marked: false });
    parts.push({ text: line.text.slice(f.start, f.end), marked: true });
    at = f.end;
  }
  parts.push({ text: line.text.slice(at), marked: false });
  const whole = line.faults.length > 0 && !cuts.length;
  return (
    <span className={`take ${whole ? 'doubted' : ''}`}>
      {parts.map((p, i) => (p.marked ? <mark key={i}>{p.text}</mark> : <span key={i}>{p.text}</span>))}
      {line.arriving && <span className="arrivingcaret" aria-hidden="true" />}
    </span>
  );
}
