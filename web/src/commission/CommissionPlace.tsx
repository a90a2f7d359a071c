/** Commission: the order at the left; ours and the reply level where both rest on one fact; what was found at the right. */
import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useLocation, useNavigate, useSearchParams } from 'react-router';
import {
  USUAL_LETTERS,
  rowsOf,
  takeable,
  replacedBy,
  takenIn,
  type Became,
  type Replaced,
  type OrderScope,
  type ReplyLine,
  type ReplyRow,
} from '@ursprung/core/commission/desk';
import type { Origin, PlainLine, PlainSection } from '@ursprung/core/script';
import { api, type CommissionView } from '../api.ts';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { Foot } from '../shell/Foot.tsx';
import { useActions } from '../shell/commands.tsx';
import { ask, opened } from './ask.ts';
import { contextOf, sourcesOf } from './context.ts';
import { OrderColumn } from './OrderColumn.tsx';
import { ReplyBox } from './ReplyBox.tsx';
import { Rows } from './Rows.tsx';
import { ServiceDialog } from './ServiceDialog.tsx';
import { useCommissions, useOrders, useReply } from './useCommission.ts';
import { useRounds } from './useRounds.ts';
import { FactNames, orderNamesOf } from '../text/factNames.ts';

const fresh = () => crypto.randomUUID().slice(0, 8);
const originOf = (c: CommissionView): Origin => ({
  kind: c.to.kind,
  who: c.to.who || 'an outside writer',
  at: c.endedAt ?? c.at,
});
const lettersKept = () => Number(localStorage.getItem('ursprung:letters')) || USUAL_LETTERS;

export function CommissionPlace({ session }: { session: ScriptSession }) {
  const sources = useSnapshot(session, (s) => s.sources);
  const factName = useMemo(() => orderNamesOf(sources), [sources]);
  const [query, setQuery] = useSearchParams();
  const navigate = useNavigate();
  const sections = useSnapshot(session, (s) => s.sections);
  const [letters, setLetters] = useState(lettersKept);
  const [row, setRow] = useState(0);
  const [serving, setServing] = useState(false);
  // What kept Begin from having it told.
  const { state } = useLocation() as { state: { problem?: string | null } | null };
  const [problem, setProblem] = useState<string | null>(state?.problem ?? null);
  /** What became of the reply when it was last taken whole. */
  const [said, setSaid] = useState<string | null>(null);
  /** Sections whose own lines stay when the reply is taken whole. */
  const [stays, setStays] = useState<ReadonlySet<string>>(new Set());
  const [chosen, setChosen] = useState<string | null>(query.get('reply'));
  const list = useRef<HTMLDivElement>(null);

  const scope: OrderScope = useMemo(() => {
    const [section, line] = [query.get('section'), query.get('line')];
    return { ...(section ? { section } : {}), ...(line ? { line } : {}) };
  }, [query]);
  const { orders, problem: noOrder } = useOrders(session, scope, letters);
  const { commissions, current: found, put, drop, loaded } = useCommissions(session.script.id, chosen);
  // One of another part is not shown here, even for a moment.
  const current = found && sameScope(found, scope) ? found : null;
  const service = useQuery({ queryKey: ['service'], queryFn: api.service });
  const rounds = useRounds(session);
  const base = current?.scope.after
    ? (commissions.find((c) => c.id === current.scope.after)?.reply ?? null)
    : null;
  const replied = useReply(session, orders, current, base);
  const checked = replied?.checked ?? null;
  const own = commissions.filter((c) => sameScope(c, scope));
  // What was last worked on in this part is shown again; "" is a writer who asked for another reply.
  const last = own[0]?.id ?? null;
  const fits = chosen === '' || own.some((c) => c.id === chosen);
  useEffect(() => {
    if (loaded && !fits && chosen !== last) setChosen(last);
  }, [loaded, fits, chosen, last]);

  // The order that the service is answering just now is the one that is shown.
  const told = rounds.running ? (rounds.last?.commission ?? null) : null;
  useEffect(() => {
    if (told) setChosen(told);
  }, [told]);

  const ordered = useMemo(() => {
    const ids = new Set(orders?.flatMap((o) => o.sections.map((s) => s.id)));
    return sections.filter((s) => ids.has(s.id));
  }, [orders, sections]);
  const rows: ReplyRow[] = useMemo(() => {
    const shown = scope.line
      ? ordered.map((s) => ({ ...s, lines: s.lines.filter((l) => l.id === scope.line) }))
      : ordered;
    return shown.flatMap(
      (s) =>
      checked
        ? rowsOf(s, checked)
        : s.lines.filter((l) => l.text.trim()).map((l) => ({ section: s.id, ours: l, reply: null, fact: l.from[0]?.fact ? { source: l.from[0].source, fact: l.from[0].fact } : null })), // prettier-ignore
    );
  }, [ordered, checked, scope.line]);
  const at = Math.min(row, Math.max(0, rows.length - 1));

  const must = useMemo(
    () => (orders ?? []).flatMap((o) => o.sections.flatMap((s) => s.facts.filter((f) => f.must).map((f) => `${f.source}:${f.fact}`))), // prettier-ignore
    [orders],
  );
  /** The reply in place of ours, paragraph by paragraph, as one change; paragraphs that are to stay stay. */
  const takeWhole = async (taking: ReadonlyMap<string, string>) => {
    if (!checked || !current || !taking.size) return;
    const on = session.mark();
    const context = { sections: on.sections, sources: sourcesOf(session), must: contextOf(session).must };
    const replaced = replacedBy(context, checked, taking, { by: originOf(current), fresh, stays });
    const { target, mood } = session.snapshot.settings;
    const settled = await session.reviewing.settle({ sections: replaced.sections, target, mood });
    session.take(settled, 'reply', on);
    setSaid(becameSays(replaced));
  };
  const takeRow = (r: ReplyRow, mended: boolean) => {
    const text = r.reply && (mended ? r.reply.mended : r.reply.text);
    if (!r.reply || !text || !checked || !current) return;
    const on = session.mark();
    const context = { sections: on.sections, sources: sourcesOf(session) };
    const taking = new Map([[r.reply.id, text]]);
    session.take(takenIn(context, checked, taking, { by: originOf(current), fresh }), 'reply', on);
  };
  /** The take that was there before the reply's line. */
  const backToOurs = (line: PlainLine) => {
    const before = line.takes[line.takes.length - 1];
    const put = (l: PlainLine): PlainLine | null => {
      if (l.id !== line.id) return l;
      if (!before) return null;
      const { by: _, ...rest } = l;
      return { ...rest, text: before.text, from: before.from, marks: [], takes: l.takes.slice(0, -1), ...(before.by ? { by: before.by } : {}) }; // prettier-ignore
    };
    session.take(
      session.snapshot.sections.map((s): PlainSection => {
        if (!s.lines.some((l) => l.id === line.id)) return s;
        const lines = s.lines.flatMap((l) => put(l) ?? []);
        return lines.length ? { ...s, lines } : s;
      }),
      'reply',
    );
  };

  const failed = (error: Error) => setProblem(error.message);
  const chose = (c: CommissionView) => {
    put(c);
    setChosen(c.id);
    setRow(0);
    setProblem(null);
    setSaid(null);
    setStays(new Set());
  };
  /** A reply that was pasted or opened: for the commission that waits, or a new one. */
  const pasted = (reply: string, who: string) => {
    const waiting = current && current.state !== 'arriving' && !current.reply ? current : null;
    const asked = waiting
      ? api.putReply(waiting.id, reply)
      : api.addCommission(session.script.id, {
          scope,
          order: orders?.map((o) => o.text).join('\n') ?? ' ',
          to: { kind: 'person', who },
          reply,
        });
    asked.then(chose, failed);
  };
  const send = (order: string, after?: string) =>
    ask(session.script.id, { ...scope, ...(after ? { after } : {}) }, order).then(chose, failed);
  const clean = checked ? takeable(checked, false) : new Map<string, string>();
  const mended = checked ? takeable(checked, true) : new Map<string, string>();
  const isIn = (r: ReplyRow) =>
    r.ours !== null && r.reply !== null && (r.ours.text === r.reply.text || r.ours.text === r.reply.mended);
  const openTo = (next: OrderScope) => {
    const params = new URLSearchParams();
    if (next.section) params.set('section', next.section);
    if (next.line) params.set('line', next.line);
    setQuery(params, { replace: true });
    setChosen(null);
    setRow(0);
  };

  const actions = useMemo(
    () => [
      { id: 'commission-whole', name: 'Commission: order the whole script', run: () => openTo({}) },
      ...session.snapshot.sections.map((s) => ({
        id: `commission-${s.id}`,
        name: `Commission: order section ${s.title}`,
        run: () => openTo({ section: s.id }),
      })),
      { id: 'commission-service', name: 'Commission: set the text service', run: () => setServing(true) },
      {
        id: 'commission-leave',
        name: 'Back to the Page',
        run: () => navigate(`/script/${session.script.id}/page`),
      },
    ],
    // eslint-disable-next-line react-hooks/exhaustive-deps -- openTo only sets state
    [session, navigate, sections.length],
  );
  useActions('commission', actions);
  useEffect(() => {
    list.current?.querySelector('[aria-current=true]')?.scrollIntoView({ block: 'nearest' });
  }, [at]);
  const onKey = (e: React.KeyboardEvent) => {
    const here = rows[at] as ReplyRow | undefined;
    const go = (to: number) => (e.preventDefault(), setRow(Math.max(0, Math.min(rows.length - 1, to))));
    if (e.ctrlKey || e.metaKey || e.altKey || e.target !== list.current) return;
    if (e.key === 'ArrowDown') go(at + 1);
    else if (e.key === 'ArrowUp') go(at - 1);
    else if (e.key === 'Home') go(0);
    else if (e.key === 'End') go(rows.length - 1);
    else if (e.key === 'n') {
      const next = rows.findIndex((r, i) => i > at && (r.reply?.faults.length ?? 0) > 0);
      go(next < 0 ? rows.findIndex((r) => (r.reply?.faults.length ?? 0) > 0) : next);
    } else if ((e.key === 'Enter' || e.key === 'ArrowRight') && here?.reply && !isIn(here)) {
      e.preventDefault();
      takeRow(here, true);
    } else if (e.key === 'ArrowLeft' && here?.ours && isIn(here)) {
      e.preventDefault();
      backToOurs(here.ours);
    } else if (e.key === 'Escape' && current?.state === 'arriving') void api.stopCommission(current.id);
  };
  const chosenRow = rows[at] as ReplyRow | undefined;
  return (
    <>
      <div className="commission">
        <OrderColumn
          session={session}
          scope={scope}
          onScope={openTo}
          orders={orders}
          noOrder={
            session.sources.length ? noOrder : 'This script has no source to order from. Add one in Sources.'
          }
          letters={letters}
          onLetters={(n) => (localStorage.setItem('ursprung:letters', String(n)), setLetters(n))}
          checked={checked}
          current={current}
          past={own}
          onChoose={(id) => (setChosen(id), setRow(0))}
          onRemove={(id) => void api.removeCommission(id).then(() => (drop(id), setChosen(null)), failed)}
          service={service.data?.service ?? null}
          onSend={(text) => void send(text)}
          onService={() => setServing(true)}
          rounds={rounds}
          onProblem={failed}
          fact={chosenRow?.fact ?? null}
          line={chosenRow?.ours ? { section: chosenRow.section, line: chosenRow.ours.id } : null}
        />
        <section
          className="min-w-0 min-h-0 flex flex-col border-l border-hair"
          aria-label="Ours and the reply"
        >
          {problem && (
            <p className="px-5 py-2 bg-lit border-b border-hair" role="alert">
              <span className="finding">Not done.</span> {problem}
            </p>
          )}
          <FactNames value={factName}>
            <Rows
              ref={list}
              session={session}
              rows={rows}
              ordered={ordered}
              checked={checked}
              current={current}
              at={at}
              onAt={setRow}
              onKey={onKey}
              isIn={isIn}
              onUse={takeRow}
              onOurs={backToOurs}
              must={must}
              stays={stays}
              onStays={(section) =>
                setStays((now) =>
                  now.has(section)
                    ? new Set([...now].filter((x) => x !== section))
                    : new Set([...now, section]),
                )
              }
            />
          </FactNames>
          {!current || (current.state !== 'arriving' && !current.reply) ? (
            <ReplyBox
              waitingFor={current}
              onReply={pasted}
              onFile={(file) => opened(file).then((text) => pasted(text, ''), failed)}
            />
          ) : (
            <TakeBar
              clean={clean.size}
              mended={mended.size}
              lines={checked?.lines.length ?? 0}
              ms={checked ? takenMs(checked.lines, mended) : 0}
              failed={replied?.failed ?? 0}
              arriving={current.state === 'arriving'}
              message={current.message}
              said={said}
              host={service.data?.service?.host ?? null}
              onClean={() => void takeWhole(clean)}
              onAll={() => void takeWhole(mended)}
              onStop={rounds.running ? null : () => void api.stopCommission(current.id).catch(failed)}
              onAgain={(how) => {
                const order = replied?.followUp;
                if (!order) return;
                if (how === 'send') void send(order, current.id);
                else {
                  void navigator.clipboard?.writeText(order).catch(() => undefined);
                  api
                    .addCommission(session.script.id, {
                      scope: { ...scope, after: current.id },
                      order,
                      to: { kind: 'person', who: current.to.kind === 'person' ? current.to.who : '' },
                    })
                    .then(chose, failed);
                }
              }}
              onNew={() => setChosen('')}
            />
          )}
        </section>
      </div>
      <ServiceDialog open={serving} onClose={() => setServing(false)} state={service.data ?? null} />
      <Foot
        keys={[
          ['Enter', 'use, mended'],
          ['← →', 'ours, reply'],
          ['n', 'next found'],
        ]}
      >
        {chosenRow?.reply ? (
          <>
            <strong className="text-ink">Reply line {chosenRow.reply.number}</strong>{' '}
            {(chosenRow.reply.ms / 1000).toFixed(1)} s
            {chosenRow.reply.facts.length
              ? `, rests on ${chosenRow.reply.facts.map(factName).join(', ')}`
              : chosenRow.reply.framing
                ? ', claims nothing'
                : ', rests on nothing'}
          </>
        ) : (
          'Nothing is sent anywhere until you press for it.'
        )}
      </Foot>
    </>
  );
}

const sameScope = (c: CommissionView, scope: OrderScope) =>
  (c.scope.section ?? '') === (scope.section ?? '') && (c.scope.line ?? '') === (scope.line ?? '');
/** What became of a reply, in a sentence. */
function becameSays({ became, owed }: Replaced): string {
  const count = (...kinds: Became[]) => [...became.values()].filter((b) => kinds.includes(b)).length;
  const open = count('kept open') + owed.length;
  return [
    `${count('taken', 'mended')} lines taken`,
    ...(count('mended') ? [`${count('mended')} mended`] : []),
    ...(open ? [`${open} ${open === 1 ? 'place' : 'places'} kept open`] : []),
    ...(count('left out') ? [`${count('left out')} left out`] : []),
    ...(count('paragraph stays') ? [`${count('paragraph stays')} not used, ours stays`] : []),
  ].join(', ');
}

const takenMs = (lines: readonly ReplyLine[], taking: ReadonlyMap<string, string>) =>
  lines.reduce((n, l) => n + (taking.has(l.id) ? l.mendedMs : 0), 0);

function TakeBar({
  clean,
  mended,
  lines,
  ms,
  failed,
  arriving,
  message,
  said,
  host,
  onClean,
  onAll,
  onStop,
  onAgain,
  onNew,
}: {
  clean: number;
  mended: number;
  lines: number;
  ms: number;
  failed: number;
  arriving: boolean;
  message: string | null;
  said: string | null;
  host: string | null;
  onClean: () => void;
  onAll: () => void;
  /** Null where it is stopped elsewhere. */
  onStop: (() => void) | null;
  onAgain: (how: 'copy' | 'send') => void;
  onNew: () => void;
}) {
  return (
    <div
      className="px-5 py-2 border-t border-hair bg-bench flex flex-wrap items-baseline gap-x-5 gap-y-1"
      role="status"
    >
      {arriving ? (
        <>
          {onStop && (
            <button className="press" onClick={onStop}>
              Stop receiving
            </button>
          )}
          <span className="flex-1">{message ?? `${lines} lines so far, each checked as it comes`}</span>
        </>
      ) : (
        <>
          <button className="press" onClick={onAll} disabled={!mended}>
            {mended === lines ? `Use all ${lines} lines` : `Use ${mended} of ${lines} lines`}
            {mended > clean ? ', mended' : ''}
          </button>
          {clean > 0 && clean < mended && (
            <button className="textpress" onClick={onClean}>
              Only the {clean} that need no mend
            </button>
          )}
          {failed > 0 && (
            <>
              <button className="textpress" onClick={() => onAgain('copy')}>
                Ask again for {failed}: copy the order
              </button>
              {host && (
                <button className="textpress" onClick={() => onAgain('send')}>
                  send it to {host}
                </button>
              )}
            </>
          )}
          <button className="quietpress" onClick={onNew}>
            Another reply
          </button>
          <span className="flex-1 text-right">
            {message && <span className="finding">{message} </span>}
            {said ?? (
              <>
                <span className="clock">{(ms / 1000).toFixed(1)} s</span> with every mend
              </>
            )}
          </span>
        </>
      )}
    </div>
  );
}
