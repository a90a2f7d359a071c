/** Own words: from close line to close line, the fact as key words, what is typed checked as it is typed; one key goes on. */
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { keptPlace, nextOf } from './closeLines.ts';
import type { LineSource, PlainSection } from '@ursprung/core/script';
import { api } from '../api.ts';
import type { ScriptSession } from '../script/session.ts';
import { useReviewing } from '../script/useReviewing.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import type { FactKeys } from '@ursprung/core/review';
import { clockText } from '../text/clockText.ts';

type Order = 'worst' | 'order';

export function OwnWords({ session, onClose }: { session: ScriptSession; onClose: () => void }) {
  const sections = useSnapshot(session, (s) => s.sections);
  const traces = useSnapshot(session, (s) => s.traces);
  const overlap = useSnapshot(session, (s) => s.overlap);
  const { telling } = useReviewing(session);
  const [order, setOrder] = useState<Order>('order');
  const [hidden, setHidden] = useState(true);
  const [tries, setTries] = useState<readonly string[]>([]);
  const began = useRef<number | null>(null);
  const done = useRef(0);
  const box = useRef<HTMLTextAreaElement>(null);

  const flat = useMemo(() => sections.flatMap((s) => s.lines.map((l) => ({ ...l, section: s }))), [sections]);
  const left = useMemo(
    () =>
      flat
        .filter(
          (l) => !l.locked && !l.section.locked && !l.fixed && (traces.get(l.id)?.shared.length ?? 0) > 0,
        )
        .map((l) => ({
          id: l.id,
          shared: traces.get(l.id)!.shared.reduce((n, r) => n + r.end - r.start, 0),
        })),
    [flat, traces],
  );
  const [at, setAt] = useState<string | null>(null);
  const current = flat.find((l) => l.id === at) ?? flat.find((l) => l.id === nextOf(left, null, order));
  const [text, setText] = useState('');
  const lineId = current?.id ?? null;

  // A new line: the words it has are not shown in the box, so that they are not copied.
  useEffect(() => {
    setText('');
    setTries([]);
    box.current?.focus();
    if (!lineId || !session.sources.length) return;
    let here = true;
    api
      .tellings(session.script.id, lineId, session.snapshot.sections)
      .then(({ tellings }) => here && setTries(tellings.slice(0, 4)))
      .catch(() => here && setTries([]));
    return () => {
      here = false;
    };
  }, [session, lineId]);
  const from: readonly LineSource[] | undefined = current?.from;
  const checked = text || current?.text || '';
  useEffect(() => {
    if (from) session.reviewing.tell(checked, from);
  }, [session, checked, from]);

  const go = useCallback(
    (by: 1 | -1) => setAt((now) => nextOf(left, now ?? lineId, order, by) ?? now),
    [left, lineId, order],
  );
  const accept = () => {
    const words = text.replace(/\s+/g, ' ').trim();
    if (!current || !words) return go(1);
    done.current++;
    const next = nextOf(left, current.id, order, 1);
    session.take(said(session.snapshot.sections, current.id, words), 'own words');
    setAt(next === current.id ? null : next);
  };
  if (!current || !left.length)
    return (
      <Frame onClose={onClose}>
        <p className="emptyhint">
          {session.sources.length
            ? 'No line is in a source’s words any more.'
            : 'This script has no source to be close to.'}
        </p>
        {overlap !== null && (
          <p className="text-ink2 pt-2">{Math.round(overlap * 100)} % of the words run on as in a source.</p>
        )}
      </Frame>
    );
  const place = flat.indexOf(current);
  const minutes = began.current && done.current ? (performance.now() - began.current) / 60_000 : null;
  const rate = minutes && done.current ? done.current / minutes : null;
  const check = text ? telling?.check : undefined;
  return (
    <Frame onClose={onClose}>
      <div className="flex gap-6 items-baseline pb-3 text-ink2">
        <span className="flex-1" role="status">
          <strong className="text-ink">{left.length} lines left</strong>
          {overlap !== null && `, ${Math.round(overlap * 100)} % in the sources’ words`}
          {rate !== null && `, about ${Math.max(1, Math.round(left.length / rate))} min at this rate`}
        </span>
        <button
          className="choice"
          data-state={order === 'order' ? 'checked' : ''}
          onClick={() => setOrder('order')}
        >
          in order
        </button>
        <button
          className="choice"
          data-state={order === 'worst' ? 'checked' : ''}
          onClick={() => setOrder('worst')}
        >
          worst first
        </button>
      </div>
      <p className="take text-ink3">{flat[place - 1]?.text}</p>
      <div className="my-2 px-5 py-3 bg-lit border border-[var(--edge)] grid grid-cols-[minmax(0,1fr)_300px] gap-8">
        <div>
          {telling?.keys.map((k, i) => (
            <Keys key={i} keys={k} />
          ))}
          <textarea
            ref={box}
            rows={3}
            className="field w-full resize-none font-serif text-[18.5px] leading-[26px] mt-2"
            aria-label="This line in your own words"
            data-line={current.id}
            placeholder="Say it in your own words"
            value={text}
            spellCheck
            onChange={(e) => {
              began.current ??= performance.now();
              setText(e.target.value);
            }}
            onKeyDown={(e) => {
              if (e.key === 'Enter' && !e.shiftKey) {
                e.preventDefault();
                accept();
              } else if (e.key === 'ArrowDown' && (e.ctrlKey || e.metaKey)) {
                e.preventDefault();
                go(1);
              } else if (e.key === 'ArrowUp' && (e.ctrlKey || e.metaKey)) {
                e.preventDefault();
                go(-1);
              } else if (e.key === 'Escape') onClose();
            }}
          />
          <p className="take min-h-6" aria-hidden={!check}>
            {check && (check.close || check.faults.some((f) => f.sure && f.end > f.start)) && (
              <Marked text={text} ranges={check.shared.ranges} faults={check.faults.filter((f) => f.sure)} />
            )}
          </p>
        </div>
        <div className="text-ink2">
          <p className="clock">
            {telling ? `${(telling.ms / 1000).toFixed(1)} s, ${telling.words} words` : ''}{' '}
            {text && current ? `(was ${(session.msOf(current.id) / 1000).toFixed(1)} s)` : ''}
          </p>
          {check && (
            <p className={check.close ? 'finding' : ''} role="status">
              {check.close
                ? `${check.shared.shared} words still run on as in the source.`
                : 'Nothing runs on as in the source.'}
            </p>
          )}
          {check?.faults.map((f) => (
            <p key={f.says} className={f.sure ? 'finding' : ''}>
              {f.sure ? f.says : `Look: ${f.says.charAt(0).toLowerCase()}${f.says.slice(1)}`}
            </p>
          ))}
          {check && !check.tells && (
            <p className="finding">Nothing of the passage can be recognised in it: is it still this fact?</p>
          )}
          {check && check.untold.length > 0 && <p>Not told: {check.untold.join(', ')}.</p>}
          {check?.tells && !check.faults.length && (
            <p>Values, names and what is claimed agree with the passage.</p>
          )}
          <button
            className="quietpress mt-2"
            aria-expanded={!hidden}
            onClick={() => (setHidden(!hidden), box.current?.focus())}
          >
            {hidden ? 'Show the line and its passage' : 'Hide the line and its passage'}
          </button>
          {!hidden && (
            <div className="pt-2">
              <p className="take">{current.text}</p>
              {current.from.map((f, i) => (
                <p key={i} className="pt-1 font-serif text-[14px] leading-[19px]">
                  <strong className="font-sans text-[11px]">{f.source}</strong> {f.quote}
                </p>
              ))}
            </div>
          )}
        </div>
      </div>
      <p className="take text-ink3">{flat[place + 1]?.text}</p>
      {tries.length > 0 && (
        <div className="pt-4">
          <p className="columnhead">other ways it can be told, to start from</p>
          {tries.map((t) => (
            <p key={t}>
              <button
                className="quietpress take text-left"
                onClick={() => (setText(t), box.current?.focus())}
              >
                {t}
              </button>
            </p>
          ))}
        </div>
      )}
      <p className="pt-5 text-ink3">
        <kbd className="clock text-ink">Enter</kbd> accept and go on{' '}
        <kbd className="clock text-ink ml-4">Ctrl ↓</kbd> leave it for now{' '}
        <kbd className="clock text-ink ml-4">Ctrl ↑</kbd> the one before{' '}
        <kbd className="clock text-ink ml-4">Esc</kbd> back to the page
        <span className="ml-4 clock">
          {current ? clockText(keptPlace(session.snapshot, current.id)) : ''}
        </span>
      </p>
    </Frame>
  );
}

function Frame({ children, onClose }: { children: React.ReactNode; onClose: () => void }) {
  return (
    <main className="flex-1 overflow-auto px-10 py-5" aria-label="Own words" tabIndex={-1}>
      <div className="max-w-[960px] mx-auto">
        <div className="flex items-baseline pb-2">
          <h2 className="flex-1 font-serif text-[18px] font-medium">Own words</h2>
          <button className="quietpress" onClick={onClose}>
            Back to the page
          </button>
        </div>
        {children}
      </div>
    </main>
  );
}

/** The line with the writer's words; what was there becomes a take. */
function said(sections: readonly PlainSection[], id: string, text: string): PlainSection[] {
  return sections.map((s) => ({
    ...s,
    lines: s.lines.map((l) =>
      l.id === id ? { ...l, text, marks: [], takes: [...l.takes, { text: l.text, from: l.from }] } : l,
    ),
  }));
}

const KEYS: readonly (readonly [Exclude<keyof FactKeys, never>, string])[] = [
  ['who', 'who'],
  ['did', 'did'],
  ['what', 'what'],
  ['when', 'when'],
  ['howMuch', 'how much'],
  ['says', 'says who'],
  ['sure', 'how sure'],
  ['quotes', 'to the letter'],
];

function Keys({ keys }: { keys: FactKeys }) {
  return (
    <dl className="flex flex-wrap gap-x-6 gap-y-1">
      {KEYS.map(([key, name]) => {
        const value = keys[key];
        const text = Array.isArray(value) ? value.join(' · ') : (value as string | null);
        return text ? (
          <div key={key} className="flex gap-2 items-baseline">
            <dt className="text-ink3">{name}</dt>
            <dd className="font-semibold m-0">{text}</dd>
          </div>
        ) : null;
      })}
    </dl>
  );
}

/** The words typed, runs shared with the source underlined, what no source has in copper. */
function Marked({
  text,
  ranges,
  faults,
}: {
  text: string;
  ranges: readonly { start: number; end: number }[];
  faults: readonly { start: number; end: number }[];
}) {
  const edges = [...new Set([0, text.length, ...[...ranges, ...faults].flatMap((r) => [r.start, r.end])])]
    .filter((e) => e <= text.length)
    .sort((a, b) => a - b);
  return (
    <span className="readline">
      <span>
        {edges.slice(1).map((end, i) => {
          const start = edges[i];
          const inside = (r: { start: number; end: number }) =>
            r.start <= start && r.end >= end && r.end > r.start;
          const className = [ranges.some(inside) ? 'shared' : '', faults.some(inside) ? 'doubt' : '']
            .join(' ')
            .trim();
          return (
            <span key={start} className={className || undefined}>
              {text.slice(start, end)}
            </span>
          );
        })}
      </span>
    </span>
  );
}
