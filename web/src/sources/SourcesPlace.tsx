/** Sources of a script: each on the desk, another laid beside them, and where they disagree. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { useSourceNames } from '../library/lists.ts';
import { api, type Comparison } from '../api.ts';
import { goTo } from '../script/goTo.ts';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { Foot } from '../shell/Foot.tsx';
import { SourceDesk } from './SourceDesk.tsx';
import { kindName } from './kinds.ts';

export function SourcesPlace({ session }: { session: ScriptSession }) {
  const sections = useSnapshot(session, (s) => s.sections);
  const times = useSnapshot(session, (s) => s.times);
  const navigate = useNavigate();
  const [letter, setLetter] = useState(session.sources[0]?.letter ?? '');
  const sources = useSnapshot(session, (x) => x.sources);
  const source = sources.find((s) => s.letter === letter);

  /** When each fact is heard, by the first line that rests on it. */
  const heard = useMemo(() => {
    const out = new Map<string, { line: string; ms: number | null }>();
    for (const line of sections.flatMap((s) => s.lines))
      for (const f of line.from)
        if (f.source === letter && f.fact && !out.has(f.fact))
          out.set(f.fact, { line: line.id, ms: times?.get(line.id)?.startMs ?? null });
    // Chosen words are heard where the first fact that has them is.
    for (const own of source?.facts.filter((f) => f.own === 'chosen') ?? []) {
      const first = source?.facts.find(
        (f) => !f.own && f.start < own.end && f.end > own.start && out.has(f.id),
      );
      if (first) out.set(own.id, out.get(first.id)!);
    }
    return out;
  }, [sections, times, letter, source]);
  const go = (lineId: string) => {
    goTo(session, lineId);
    void navigate(`/script/${session.script.id}/page`);
  };
  if (!source)
    return (
      <>
        <main className="flex-1 p-10 font-serif text-[20px] text-ink2">
          This script rests on no source. <AddSource session={session} />
        </main>
        <Foot keys={[]}>No source</Foot>
      </>
    );
  return (
    <SourceDesk
      onSource={(next) => session.sourceChanged(next)}
      key={source.id}
      source={source}
      letter={letter}
      heard={heard}
      beside={session.sources}
      onGo={go}
      above={
        <>
          <div className="columnhead border-b border-hair">
            {session.sources.length === 1 ? '1 source' : `${session.sources.length} sources`}
          </div>
          {session.sources.map((s) => (
            <button
              key={s.letter}
              onClick={() => setLetter(s.letter)}
              aria-pressed={s.letter === letter}
              className={`w-full text-left py-2 px-2 border-b border-hair cursor-pointer ${s.letter === letter ? 'bg-lit border border-ink' : ''}`}
            >
              <strong className="font-serif text-[16px] mr-2">{s.letter}</strong>
              <strong className="font-semibold">{s.document.title}</strong>
              <span className="block text-ink3">
                {[kindName(s.document.kind), s.document.publisher, s.document.published]
                  .filter(Boolean)
                  .join(', ')}
              </span>
            </button>
          ))}
          <AddSource session={session} />
          {session.sources.length > 1 && <Disagreements session={session} />}
        </>
      }
    />
  );
}

function AddSource({ session }: { session: ScriptSession }) {
  const client = useQueryClient();
  const names = useSourceNames();
  const add = useMutation({
    mutationFn: (id: string) => api.addSourceTo(session.script.id, id),
    onSuccess: (script) => client.setQueryData(['script', script.id], script),
  });
  const others = (names.data ?? []).filter((s) => !session.sources.some((x) => x.id === s.id));
  if (!others.length) return null;
  return (
    <p className="py-2 font-sans text-[12.5px]">
      <select
        className="field w-full"
        aria-label="Lay another source beside"
        value=""
        disabled={add.isPending}
        onChange={(e) => add.mutate(e.target.value)}
      >
        <option value="">lay another source beside…</option>
        {others.map((s) => (
          <option key={s.id} value={s.id}>
            {s.title}
          </option>
        ))}
      </select>
      {add.isError && <span className="finding">{add.error.message}</span>}
    </p>
  );
}

/** Where the sources differ, side by side; the writer rules which stands, or that the script says both. */
function Disagreements({ session }: { session: ScriptSession }) {
  const client = useQueryClient();
  const sources = session.sources.map(({ letter, id }) => ({ letter, id }));
  const found = useQuery({ queryKey: ['compare', sources], queryFn: () => api.compare(sources) });
  const rule = useMutation({
    mutationFn: async ({
      d,
      stands,
    }: {
      d: Comparison['disagreements'][number];
      stands: number | 'both';
    }) => {
      for (const [i, side] of d.sides.entries())
        await api.changeSource(sources.find((s) => s.letter === side.source)!.id, {
          marks: { [side.fact]: { mark: stands === 'both' || stands === i ? 'must' : 'out' } },
        });
    },
    onSuccess: () => client.invalidateQueries({ queryKey: ['script', session.script.id] }),
  });
  if (!found.data) return null;
  const { same, disagreements } = found.data;
  return (
    <div className="text-[12.5px] pb-2">
      <div className="text-ink3">
        {same.length} told alike, {disagreements.length} told otherwise
      </div>
      {disagreements.slice(0, 8).map((d, k) => (
        <div key={k} className="border-b border-hair py-1">
          <span className="finding">{d.about === 'denial' ? 'One denies it.' : `Another ${d.about}.`}</span>
          {d.sides.map((s, i) => (
            <div key={s.source} className="flex gap-1">
              <strong className="font-serif">{s.source}</strong>
              <span className="flex-1">
                {s.says}{' '}
                <span className="text-ink3">{[s.publisher, s.published].filter(Boolean).join(', ')}</span>
                {d.newer === i && <strong> newer</strong>}
              </span>
              <button
                className="textpress"
                onClick={() => rule.mutate({ d, stands: i })}
                aria-label={`${s.source} stands: ${s.says}`}
              >
                stands
              </button>
            </div>
          ))}
          <button className="quietpress" onClick={() => rule.mutate({ d, stands: 'both' })}>
            say both
          </button>
        </div>
      ))}
    </div>
  );
}
