/** Read-through: the script with its findings in the margin, a score that is a sum, mends. */
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { withEdits, mendable } from './mends.ts';
import type { Finding } from '@ursprung/core/review';
import type { PlainLine } from '@ursprung/core/script';
import { goTo } from '../script/goTo.ts';
import type { ScriptSession } from '../script/session.ts';
import { useReviewing } from '../script/useReviewing.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { Foot } from '../shell/Foot.tsx';
import { useActions } from '../shell/commands.tsx';
import { Words } from '../page/Words.tsx';
import { clockText } from '../text/clockText.ts';
import { Against } from './Against.tsx';
import { ScoreColumn } from './ScoreColumn.tsx';

const keyOf = (f: Finding) => `${f.rule}|${f.line}|${f.start ?? ''}|${f.text ?? f.reason}`;

export function ReadThrough({ session }: { session: ScriptSession }) {
  const { review, spelled, message } = useReviewing(session);
  const sections = useSnapshot(session, (s) => s.sections);
  const times = useSnapshot(session, (s) => s.times);
  const [chosen, setChosen] = useState<string | null>(null);
  const [only, setOnly] = useState<string | null>(null);
  const [waving, setWaving] = useState<string | null>(null);
  const [comparing, setComparing] = useState(false);
  const [mended, setMended] = useState<string | null>(null);
  const list = useRef<HTMLDivElement>(null);
  const navigate = useNavigate();

  const findings = useMemo(
    () => (review?.findings ?? []).filter((f) => !only || f.rule === only),
    [review, only],
  );
  const at = findings.findIndex((f) => keyOf(f) === chosen);
  const current = at >= 0 ? findings[at] : undefined;
  const choose = useCallback(
    (index: number) => {
      const f = findings[Math.max(0, Math.min(findings.length - 1, index))];
      if (!f) return;
      setChosen(keyOf(f));
      setWaving(null);
      requestAnimationFrame(() =>
        list.current?.querySelector('[data-chosen]')?.scrollIntoView({ block: 'nearest' }),
      );
    },
    [findings],
  );

  const accept = useCallback(
    (f: Finding) => {
      if (!f.mend) return;
      const after = findings[findings.indexOf(f) + 1];
      session.take(withEdits(session.snapshot.sections, f.mend.edits), 'mend');
      setChosen(after ? keyOf(after) : null);
    },
    [session, findings],
  );
  const mendAll = useCallback(() => {
    const now = session.reviewing.state.review?.findings ?? [];
    const edits = mendable(now);
    if (!edits.length) return setMended('Nothing can be mended safely without being read.');
    session.take(withEdits(session.snapshot.sections, edits), 'mend');
    setMended(`${edits.length === 1 ? 'One place' : `${edits.length} places`} mended. Ctrl Z takes it back.`);
  }, [session]);
  const wave = (f: Finding, reason: string) => {
    const waived = [
      ...(session.snapshot.settings.waived ?? []),
      { rule: f.rule, line: f.line, text: f.text ?? '', reason },
    ];
    choose(at + 1);
    void session.change({ waived });
    setWaving(null);
  };
  const unwave = (f: Finding) =>
    void session.change({
      waived: (session.snapshot.settings.waived ?? []).filter(
        (w) => !(w.rule === f.rule && w.line === f.line && w.text === (f.text ?? '')),
      ),
    });
  const toPage = useCallback(
    (lineId: string) => {
      goTo(session, lineId);
      void navigate(`/script/${session.script.id}/page`);
      requestAnimationFrame(() => session.view?.focus());
    },
    [session, navigate],
  );

  const actions = useMemo(
    () => [
      { id: 'mend-all', name: 'Mend all that is safe', run: mendAll },
      { id: 'against', name: 'Hold against the channel’s style', run: () => setComparing((c) => !c) },
      { id: 'all-rules', name: 'Show findings of every rule', run: () => setOnly(null) },
    ],
    [mendAll],
  );
  useActions('read-through', actions);
  useEffect(() => list.current?.focus(), []);

  const byLine = useMemo(() => {
    const map = new Map<string, Finding[]>();
    for (const f of findings) (map.get(f.line) ?? map.set(f.line, []).get(f.line)!).push(f);
    return map;
  }, [findings]);
  const empty = sections.every((s) => s.lines.every((l) => !l.text.trim()));

  return (
    <>
      <div className="columnhead flex border-b border-hair px-6">
        <span className="w-[224px] max-sm:hidden">score</span>
        <span className="flex-1">heard at</span>
        <span className="w-[340px] max-sm:w-auto">
          {review ? `${review.findings.length} found, ${review.waived.length} let stand` : 'reading…'}
          {review && !spelled && ', spelling still to come'}
        </span>
      </div>
      <div className="stacks flex-1 min-h-0 flex">
        <ScoreColumn
          score={review?.score ?? null}
          claims={review && !review.score ? review.claims : null}
          chosen={current?.rule ?? null}
          only={only}
          onOnly={setOnly}
          onMendAll={mendAll}
          onCompare={() => setComparing(true)}
          safe={review ? mendable(review.findings).length : 0}
          overlap={review?.overlap ?? null}
          grade={review?.grade ?? null}
          said={message ?? mended}
        />
        <div
          ref={list}
          className="flex-1 overflow-auto readthrough"
          tabIndex={0}
          role="group"
          aria-label="Script with findings"
          onKeyDown={(e) => {
            if (
              e.target !== e.currentTarget &&
              !(e.target instanceof HTMLElement && e.target.tagName === 'BUTTON')
            )
              return;
            const own = e.target === e.currentTarget;
            const act: (() => void) | undefined = {
              ArrowDown: () => choose(at + 1),
              ArrowUp: () => choose(at - 1),
              ...(own && current?.mend ? { Enter: () => accept(current) } : {}),
              ...(current ? { Delete: () => setWaving(chosen) } : {}),
            }[e.key];
            if (!act) return;
            e.preventDefault();
            act();
          }}
        >
          {empty && (
            <p className="emptyhint px-6 pt-8">
              There is nothing to read yet. Write on the Page, or paste a script there.
            </p>
          )}
          {(byLine.get('') ?? []).length > 0 && (
            <div className="readrow">
              <span />
              <span className="text-ink3">the whole</span>
              <Found
                list={byLine.get('')!}
                {...{ chosen, setChosen, accept, waving, setWaving, wave, toPage, session }}
              />
            </div>
          )}
          {sections.map((s) => (
            <section key={s.id} aria-label={s.title}>
              <h3 className="readrow pt-3">
                <span />
                <span>
                  <span className="text-ink3">{s.role}</span> <strong>{s.title}</strong>
                </span>
                <span />
              </h3>
              {s.lines
                .filter((l) => l.text.trim())
                .map((l) => {
                  const own = byLine.get(l.id) ?? [];
                  const here = own.find((f) => keyOf(f) === chosen);
                  return (
                    <div
                      key={l.id}
                      className={`readrow ${here ? 'lit' : ''}`}
                      {...(here ? { 'data-chosen': '' } : {})}
                    >
                      <span className="clock text-ink2 text-right pr-3 pt-1">
                        {clockText(times?.get(l.id)?.startMs ?? 0)}
                      </span>
                      <div className={`readline ${l.role === 'lead' || l.role === 'frame' ? 'italic' : ''}`}>
                        <Line line={l} findings={own} chosen={here} />
                      </div>
                      <Found
                        list={own}
                        {...{ chosen, setChosen, accept, waving, setWaving, wave, toPage, session }}
                      />
                    </div>
                  );
                })}
            </section>
          ))}
          {review && review.waived.length > 0 && (
            <section aria-label="Let stand" className="px-6 pt-6">
              <h3 className="columnhead">let stand</h3>
              {review.waived.map((f) => (
                <p key={keyOf(f)} className="flex gap-4 items-baseline">
                  <span className="flex-1 text-ink3">
                    {f.reason}{' '}
                    <em>
                      {
                        session.snapshot.settings.waived?.find(
                          (w) => w.rule === f.rule && w.line === f.line && w.text === (f.text ?? ''),
                        )?.reason
                      }
                    </em>
                  </span>
                  <button className="quietpress" onClick={() => unwave(f)}>
                    Look at it again
                  </button>
                </p>
              ))}
            </section>
          )}
          <div className="h-24" />
        </div>
      </div>
      {comparing && <Against session={session} onClose={() => setComparing(false)} />}
      <Foot
        keys={[
          ['↓ ↑', 'findings'],
          ['Enter', 'accept'],
          ['Del', 'let it stand'],
          ['Ctrl Z', 'undo'],
        ]}
      >
        {current ? (
          <>
            <strong className="text-ink">
              Finding {at + 1} of {findings.length}
            </strong>{' '}
            {current.mend ? current.mend.says : 'needs your words'}
          </>
        ) : review && !review.findings.length && !empty ? (
          'Nothing was found.'
        ) : (
          'Arrow keys go from finding to finding'
        )}
      </Foot>
    </>
  );
}

/** A line with its findings marked; the chosen one shows its mend in the words. */
function Line({
  line,
  findings,
  chosen,
}: {
  line: PlainLine;
  findings: readonly Finding[];
  chosen: Finding | undefined;
}) {
  const edit = chosen?.mend?.edits.find((e) => e.line === line.id);
  if (edit)
    return (
      <Words before={line.text} after={'text' in edit ? edit.text : 'remove' in edit ? '' : line.text} />
    );
  const placed = findings.filter((f) => f.start !== undefined && f.end !== undefined && f.end > f.start);
  const edges = [...new Set([0, line.text.length, ...placed.flatMap((f) => [f.start!, f.end!])])]
    .filter((e) => e <= line.text.length)
    .sort((a, b) => a - b);
  return (
    <>
      {edges.slice(1).map((end, i) => {
        const start = edges[i];
        const over = placed.filter((f) => f.start! <= start && f.end! >= end);
        const whole = over.every((f) => f.start === 0 && f.end! >= line.text.length);
        const overlap = over.some((f) => f.area === 'overlap');
        return (
          <span
            key={start}
            className={
              over.length && !whole
                ? over.includes(chosen!)
                  ? 'doubt'
                  : overlap
                    ? 'shared'
                    : 'bracketed'
                : undefined
            }
          >
            {line.text.slice(start, end)}
          </span>
        );
      })}
    </>
  );
}

interface FoundProps {
  list: readonly Finding[];
  chosen: string | null;
  setChosen: (key: string | null) => void;
  accept: (f: Finding) => void;
  waving: string | null;
  setWaving: (key: string | null) => void;
  wave: (f: Finding, reason: string) => void;
  toPage: (line: string) => void;
  session: ScriptSession;
}

function Found({ list, chosen, setChosen, accept, waving, setWaving, wave, toPage }: FoundProps) {
  return (
    <div className="foundcell">
      {list.map((f) => {
        const key = keyOf(f);
        const on = key === chosen;
        return (
          <div key={key} className="py-0.5">
            <button
              className="text-left cursor-pointer min-h-6"
              aria-pressed={on}
              onClick={() => setChosen(on ? null : key)}
            >
              <span className={f.claim?.level === 'unsupported' ? 'text-ink' : 'finding'}>
                {f.claim?.level === 'unsupported' ? 'nothing says so' : f.area}
              </span>{' '}
              <span className="text-ink2">{f.reason}</span>
            </button>
            {on && (
              <>
                {f.passage && (
                  <p className="font-serif text-[14px] leading-[19px] text-ink2 border-l border-mark pl-2 my-1">
                    <strong className="font-sans text-[11px]">{f.passage.source}</strong> {f.passage.text}
                  </p>
                )}
                <p className="flex gap-4 items-baseline">
                  {f.mend && (
                    <button className="press" onClick={() => accept(f)}>
                      {f.mend.says}
                    </button>
                  )}
                  {f.line && (
                    <button className="quietpress" onClick={() => toPage(f.line)}>
                      Write
                    </button>
                  )}
                  <button className="quietpress" onClick={() => setWaving(key)}>
                    Let it stand
                  </button>
                </p>
                {waving === key && (
                  <form
                    className="flex gap-3 items-end pt-1"
                    onSubmit={(e) => {
                      e.preventDefault();
                      wave(f, (new FormData(e.currentTarget).get('reason') as string).trim());
                    }}
                  >
                    <label className="flex-1 text-ink3">
                      why it may stand
                      <input className="field w-full text-ink" name="reason" maxLength={300} autoFocus />
                    </label>
                    <button className="textpress">Keep</button>
                  </form>
                )}
              </>
            )}
          </div>
        );
      })}
    </div>
  );
}
