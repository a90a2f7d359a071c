/** A note in plain words and its answer: a proposed change, taken whole, in part, or not. */
import { useMutation, useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { acceptedIn, type Proposal } from '@ursprung/core/proposal';
import { api, type Revised } from '../api.ts';
import type { Mark, ScriptSession } from '../script/session.ts';
import { clockText } from '../text/clockText.ts';
import { Side } from './Side.tsx';
import { Words } from './Words.tsx';

/** What is selected, as the answer needs it: the caret's section and lines, and whether words were marked. */
function selectionOf(session: ScriptSession) {
  const { from, to, empty, $head } = session.state.selection;
  const lines: string[] = [];
  session.state.doc.nodesBetween(from, Math.max(to, from + 1), (node) => {
    if (node.type.name === 'line') lines.push(node.attrs.id as string);
    return node.type.name !== 'line';
  });
  const section = $head.depth > 0 ? ($head.node(1).attrs.id as string) : undefined;
  return { lines, marked: !empty, ...(section ? { section } : {}) };
}

interface Wish {
  text: string;
  /** Put to the text service instead of our own operations. */
  outside?: boolean;
}

const TRY = [
  'shorten this section by half',
  'no greeting',
  'end on what happens next',
  'fewer numbers in this part',
  'another opening',
];

export function Note({ session, onClose }: { session: ScriptSession; onClose: () => void }) {
  const [note, setNote] = useState('');
  const [taken, setTaken] = useState<ReadonlySet<string>>(new Set());
  const input = useRef<HTMLTextAreaElement>(null);
  const model = useQuery({ queryKey: ['model'], queryFn: api.modelHost, staleTime: Infinity });
  useEffect(() => input.current?.focus(), []);
  const ask = useMutation({
    mutationFn: async ({ text, outside }: Wish): Promise<{ revised: Revised; on: Mark }> => {
      const on = session.mark();
      const send = outside ? api.ask : api.revise;
      return { revised: await send(session.script.id, text, on.sections, selectionOf(session)), on };
    },
    onSuccess: ({ revised }) => {
      if ('proposal' in revised) setTaken(new Set(revised.proposal.changes.map((c) => c.line)));
    },
  });
  const answer = ask.data;
  const proposal = answer && 'proposal' in answer.revised ? answer.revised.proposal : null;
  const accept = () => {
    if (!proposal || !answer) return;
    session.take(acceptedIn(answer.on.sections, proposal, taken), 'note', answer.on);
    if (proposal.settings) void session.change(proposal.settings);
    ask.reset();
    setNote('');
    input.current?.focus();
  };
  return (
    <Side
      title="Note: what should change"
      onClose={onClose}
      foot={
        proposal ? (
          <div className="flex gap-5 items-baseline">
            <button className="press" onClick={accept} disabled={proposal.changes.length > 0 && !taken.size}>
              {proposal.changes.length > 1 && taken.size < proposal.changes.length
                ? `Accept ${taken.size} of ${proposal.changes.length}`
                : 'Accept'}
            </button>
            <button className="quietpress" onClick={() => (ask.reset(), input.current?.focus())}>
              Let it stand
            </button>
          </div>
        ) : undefined
      }
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (proposal) accept();
          else if (note.trim()) ask.mutate({ text: note });
        }}
      >
        <label className="text-ink3">
          in plain words; about what is selected, or the whole
          <textarea
            ref={input}
            rows={2}
            className="field mt-1 w-full [field-sizing:content] max-h-[40vh] resize-none text-ink font-serif text-[18px] leading-6"
            onKeyDown={(e) => {
              // A note is one paragraph: Enter asks, as in a field of one line.
              if (e.key !== 'Enter' || e.shiftKey || e.nativeEvent.isComposing) return;
              e.preventDefault();
              e.currentTarget.form?.requestSubmit();
            }}
            value={note}
            maxLength={600}
            onChange={(e) => {
              setNote(e.target.value);
              if (answer) ask.reset();
            }}
          />
        </label>
        {!answer && !ask.isPending && (
          <button className="textpress mt-1" disabled={!note.trim()}>
            Show what it would change
          </button>
        )}
      </form>
      <div role="status" className="pt-3">
        {ask.isPending && <p className="text-ink3">working it out…</p>}
        {ask.isError && (
          <p>
            <span className="finding">No answer.</span> {ask.error.message}
          </p>
        )}
        {answer && 'cannot' in answer.revised && (
          <>
            <p>
              <span className="finding">Not done.</span> {answer.revised.cannot}
            </p>
            {answer.revised.took && <p className="text-ink2">It was taken to mean: {answer.revised.took}.</p>}
            {model.data?.host && (
              <p>
                <button className="textpress" onClick={() => ask.mutate({ text: note, outside: true })}>
                  Send this wish, these lines and their passages to {model.data.host}
                </button>
              </p>
            )}
            {answer.revised.nearest.length > 0 && (
              <p className="text-ink2">Nearest: {answer.revised.nearest.join('; ')}.</p>
            )}
          </>
        )}
        {!note && !answer && (
          <>
            <p className="columnhead">such as</p>
            {TRY.map((t) => (
              <p key={t}>
                <button className="quietpress" onClick={() => (setNote(t), ask.mutate({ text: t }))}>
                  {t}
                </button>
              </p>
            ))}
          </>
        )}
        {proposal && <Shown proposal={proposal} taken={taken} onTaken={setTaken} />}
      </div>
    </Side>
  );
}

function Shown({
  proposal: p,
  taken,
  onTaken,
}: {
  proposal: Proposal;
  taken: ReadonlySet<string>;
  onTaken: (t: ReadonlySet<string>) => void;
}) {
  const by = p.afterMs - p.beforeMs;
  const change = (name: string, v: { before: number; after: number } | null, say: (n: number) => string) =>
    v && v.before !== v.after ? (
      <p className={v.after > v.before ? 'finding' : 'text-ink2'}>
        {name} {say(v.before)} → {say(v.after)}
      </p>
    ) : null;
  return (
    <>
      <p>
        <strong>Understood:</strong> {p.says}
      </p>
      <p className="clock text-ink2">
        {clockText(p.beforeMs)} → {clockText(p.afterMs)} ({by > 0 ? '+' : by < 0 ? '−' : ''}
        {(Math.abs(by) / 1000).toFixed(1)} s)
      </p>
      {change('Unanswered questions', p.openLoops, String)}
      {change('In the sources’ words', p.overlap, (n) => `${Math.round(n * 100)} %`)}
      {change('Claims no source has', p.unsupported, String)}
      {p.notes.map((n) => (
        <p key={n} className="text-ink2">
          {n}
        </p>
      ))}
      {p.changes.length > 1 && (
        <p className="flex gap-4 pt-1">
          <button className="quietpress" onClick={() => onTaken(new Set(p.changes.map((c) => c.line)))}>
            all
          </button>
          <button className="quietpress" onClick={() => onTaken(new Set())}>
            none
          </button>
        </p>
      )}
      {p.changes.map((c, i) => (
        <label
          key={`${c.line}${i}`}
          className="flex gap-3 items-baseline py-1.5 border-b border-hair cursor-pointer"
        >
          <input
            type="checkbox"
            checked={taken.has(c.line)}
            onChange={(e) => {
              const next = new Set(taken);
              if (e.target.checked) next.add(c.line);
              else next.delete(c.line);
              onTaken(next);
            }}
          />
          <span>
            {c.moved && <span className="text-ink3">moves: </span>}
            {c.moved && c.before === c.after ? (
              <span className="take">{c.after}</span>
            ) : (
              <Words before={c.before} after={c.after} />
            )}
          </span>
        </label>
      ))}
    </>
  );
}
