/** Every state a script has had: reach one, name it, compare any two in words and seconds, bring any part back. */
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import {
  compareScripts,
  docFromJson,
  plainSections,
  type Comparison,
  type PlainSection,
} from '@ursprung/core/script';
import { api, type ScriptHistory } from '../api.ts';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { clockText } from '../text/clockText.ts';
import { withLineOf, withSectionOf } from './bringBack.ts';
import { Side } from './Side.tsx';
import { Words } from './Words.tsx';

const ORIGINS: Readonly<Record<string, string>> = {
  typing: 'written',
  take: 'another take',
  note: 'a note',
  mend: 'mended',
  'own words': 'own words',
  replace: 'replaced',
  history: 'brought back',
};

interface State {
  version: number;
  label: string;
  at: string;
  name?: { id: string; name: string };
}

function statesOf(h: ScriptHistory): State[] {
  const worked = h.stretches.map((s): State => ({
    version: s.to,
    label: ORIGINS[s.origin] ?? s.origin,
    at: s.at,
  }));
  const named = h.names.map((n): State => ({
    version: n.version,
    label: n.name,
    at: n.at,
    name: { id: n.id, name: n.name },
  }));
  const first = h.stretches[0]?.at ?? new Date().toISOString();
  const began: State = { version: 0, label: 'as it began', at: first };
  return [began, ...worked, ...named].sort((a, b) => b.version - a.version || (a.name ? -1 : 1));
}

export function History({ session, onClose }: { session: ScriptSession; onClose: () => void }) {
  const { id } = session.script;
  const client = useQueryClient();
  const save = useSnapshot(session, (s) => s.save);
  const history = useQuery({
    queryKey: ['history', id, save === 'saved'],
    queryFn: () => api.history(id),
    placeholderData: keepPreviousData,
  });
  const [name, setName] = useState('');
  const [chosen, setChosen] = useState<State | null>(null);
  const [against, setAgainst] = useState<number | 'now'>('now');
  const again = () => client.invalidateQueries({ queryKey: ['history', id] });
  const naming = useMutation({
    mutationFn: () => api.nameVersion(id, history.data!.version, name.trim()),
    onSuccess: () => (setName(''), again()),
  });
  const unnaming = useMutation({
    mutationFn: (nameId: string) => api.unnameVersion(id, nameId),
    onSuccess: again,
  });
  const states = history.data ? statesOf(history.data) : [];
  return (
    <Side
      title="History"
      onClose={onClose}
      foot={
        <form
          className="flex gap-3 items-end"
          onSubmit={(e) => {
            e.preventDefault();
            if (name.trim() && history.data) naming.mutate();
          }}
        >
          <label className="flex-1 text-ink3">
            name the script as it is now
            <input
              className="field w-full text-ink"
              value={name}
              maxLength={80}
              onChange={(e) => setName(e.target.value)}
            />
          </label>
          <button className="press" disabled={!name.trim() || !history.data || naming.isPending}>
            Keep
          </button>
        </form>
      }
    >
      {history.isError && <p className="finding">{history.error.message}</p>}
      {states.map((s) => (
        <div key={`${s.version}${s.name?.id ?? ''}`} className="border-b border-hair">
          <p className="flex gap-4 items-baseline py-1.5">
            <button
              className={`flex-1 text-left cursor-pointer ${chosen === s ? 'font-semibold' : ''}`}
              aria-expanded={chosen?.version === s.version}
              onClick={() => setChosen(chosen?.version === s.version ? null : s)}
            >
              {s.name ? <strong>{s.label}</strong> : s.label}
            </button>
            {s.name && (
              <button className="quietpress" onClick={() => unnaming.mutate(s.name!.id)}>
                Drop name
              </button>
            )}
            <time className="clock text-ink3" dateTime={s.at}>
              {new Date(s.at).toLocaleString([], { dateStyle: 'short', timeStyle: 'short' })}
            </time>
          </p>
          {chosen?.version === s.version && chosen.label === s.label && (
            <Compared
              session={session}
              version={s.version}
              against={against}
              onAgainst={setAgainst}
              states={states}
            />
          )}
        </div>
      ))}
    </Side>
  );
}

function useStateAt(scriptId: string, version: number | 'now', now: readonly PlainSection[]) {
  const query = useQuery({
    queryKey: ['state', scriptId, version],
    queryFn: () => api.stateAt(scriptId, version as number),
    enabled: version !== 'now',
    staleTime: Infinity,
  });
  return version === 'now' ? now : query.data ? plainSections(docFromJson(query.data.doc)) : null;
}

function Compared({
  session,
  version,
  against,
  onAgainst,
  states,
}: {
  session: ScriptSession;
  version: number;
  against: number | 'now';
  onAgainst: (v: number | 'now') => void;
  states: readonly State[];
}) {
  const now = useSnapshot(session, (s) => s.sections);
  const { id } = session.script;
  const then = useStateAt(id, version, now);
  const other = useStateAt(id, against, now);
  const compared = useComparison(session, then, other);
  if (!then || !compared) return <p className="text-ink3 pb-2">fetching…</p>;
  return (
    <div className="pb-3">
      <p className="flex gap-4 items-baseline">
        <label className="text-ink3 flex-1">
          against{' '}
          <select
            className="field text-ink"
            value={String(against)}
            onChange={(e) => onAgainst(e.target.value === 'now' ? 'now' : Number(e.target.value))}
          >
            <option value="now">what stands now</option>
            {states
              .filter((s) => s.version !== version)
              .map((s) => (
                <option key={`${s.version}${s.label}`} value={s.version}>
                  {s.label}, {new Date(s.at).toLocaleTimeString([], { timeStyle: 'short' })}
                </option>
              ))}
          </select>
        </label>
        <button className="textpress" onClick={() => session.take(then, 'history')}>
          Bring it all back
        </button>
      </p>
      <p className="clock text-ink2 py-1">
        {clockText(compared.beforeMs)} → {clockText(compared.afterMs)}, {compared.beforeWords} →{' '}
        {compared.afterWords} words
      </p>
      {!compared.changed && <p className="text-ink3">The words are the same.</p>}
      {compared.sections
        .filter((s) => s.lines.some((l) => l.change !== 'same'))
        .map((s) => (
          <div key={s.id} className="py-1">
            <p className="flex gap-3 items-baseline text-ink3">
              <span className="flex-1">
                {s.title}, {clockText(s.beforeMs)} → {clockText(s.afterMs)}
              </span>
              {then.some((x) => x.id === s.id) && (
                <button
                  className="quietpress"
                  onClick={() =>
                    session.take(withSectionOf(session.snapshot.sections, then, s.id), 'history')
                  }
                >
                  Bring back
                </button>
              )}
            </p>
            {s.lines
              .filter((l) => l.change !== 'same')
              .map((l) => (
                <p key={l.id} className="flex gap-3 items-baseline">
                  <span className="flex-1">
                    {l.change === 'moved' ? <span className="text-ink3">moved: </span> : null}
                    <Words before={l.before ?? ''} after={l.after ?? ''} />
                  </span>
                  {l.before !== null && l.change !== 'moved' && (
                    <button
                      className="quietpress"
                      aria-label={`Bring back “${l.before.slice(0, 60)}”`}
                      onClick={() =>
                        session.take(withLineOf(session.snapshot.sections, then, l.id), 'history')
                      }
                    >
                      back
                    </button>
                  )}
                </p>
              ))}
          </div>
        ))}
    </div>
  );
}

/** The comparison once the clock has said how long every line is. */
function useComparison(
  session: ScriptSession,
  before: readonly PlainSection[] | null,
  after: readonly PlainSection[] | null,
): Comparison | null {
  const key =
    before && after
      ? JSON.stringify([before, after].map((list) => list.map((s) => s.lines.map((l) => l.text))))
      : null;
  const timed = useQuery({
    queryKey: ['compared', session.script.id, key],
    enabled: key !== null,
    gcTime: 0,
    queryFn: async () => {
      const lines = await session.timings([before!, after!]);
      let turn = 0;
      return compareScripts(before!, after!, () => lines[turn++]);
    },
  });
  return timed.data ?? null;
}
