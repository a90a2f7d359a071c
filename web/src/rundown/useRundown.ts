/** What the Rundown does: changes of plan here at once, anything told anew on the server; each a step that can be undone. */
import { useMutation, useQuery } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { joinedToPrevious, resized, splitBefore, withLock } from '@ursprung/core/desk';
import type { PlainSection } from '@ursprung/core/script';
import { api, type Promised, type RedoRequest } from '../api.ts';
import type { ScriptSession } from '../script/session.ts';

export interface Rundown {
  /** Another take, the fit, a move, another shape. */
  redo: (request: Omit<RedoRequest, 'sections'>) => void;
  /** What is being told anew, or null. */
  busy: string | null;
  /** Why the last change could not be made, or what the writer should know of it. */
  notes: readonly string[];
  refused: string | null;
  clear: () => void;
  plan: (id: string, ms: number) => void;
  lock: (id: string, locked: boolean) => void;
  rename: (id: string, title: string) => void;
  split: (line: string) => void;
  join: (id: string) => void;
  /** Puts an earlier take of a section in its place; the one that stood there becomes a take. */
  back: (id: string, take: number) => void;
}

const fresh = () => `S${Math.random().toString(36).slice(2, 9)}`;

export function useRundown(session: ScriptSession): Rundown {
  const [notes, setNotes] = useState<readonly string[]>([]);
  const [refused, setRefused] = useState<string | null>(null);
  const work = useMutation({
    mutationFn: async (request: Omit<RedoRequest, 'sections'>) => {
      const on = session.mark();
      return { answer: await api.redo(session.script.id, { ...request, sections: on.sections }), on };
    },
    onMutate: () => (setRefused(null), setNotes([])),
    onSuccess: ({ answer, on }, request) => {
      if ('refused' in answer) return setRefused(answer.refused);
      session.take(answer.sections, 'take', on);
      setNotes(answer.notes);
      if (request.what === 'shape' && request.shape)
        void session.change({ shape: request.shape, shapeAsked: true });
      if (request.seed !== undefined) void session.change({ seed: request.seed });
    },
    onError: (error) => setRefused(error.message),
  });
  const change = useCallback(
    (make: (sections: readonly PlainSection[]) => PlainSection[]) => {
      setRefused(null);
      try {
        session.take(make(session.snapshot.sections));
      } catch (error) {
        if (!(error instanceof RangeError)) throw error;
        setRefused(error.message);
      }
    },
    [session],
  );
  const totalMs = () => session.snapshot.settings.target.seconds * 1000;
  return {
    redo: work.mutate,
    busy: work.isPending ? work.variables.what : null,
    notes,
    refused,
    clear: () => (setNotes([]), setRefused(null)),
    plan: (id, ms) => change((s) => resized(s, id, ms, session.msOf, totalMs())),
    lock: (id, locked) => change((s) => withLock(s, id, locked)),
    rename: (id, title) => change((s) => s.map((x) => (x.id === id ? { ...x, title } : x))),
    split: (line) => change((s) => splitBefore(s, line, fresh(), session.msOf)),
    join: (id) => change((s) => joinedToPrevious(s, id)),
    back: (id, take) =>
      change((s) =>
        s.map((x) => {
          const chosen = x.id === id ? x.takes[take] : undefined;
          if (!chosen) return x;
          const now = { name: `take ${x.takes.length + 1}`, lines: x.lines.map(({ takes: _, ...l }) => l) };
          return {
            ...x,
            lines: chosen.lines.map((l) => ({ ...l, takes: [] })),
            takes: [...x.takes.filter((_, i) => i !== take), now],
          };
        }),
      ),
  };
}

/** What the sources of a script could promise; read again when voice or pace change. */
export function usePromised(
  session: ScriptSession,
  options: { page?: number; seed?: number } = {},
): Promised | null {
  const { voice, pace } = session.snapshot.settings;
  const [first, ...others] = session.sources;
  const query = useQuery({
    queryKey: ['promise', session.script.id, voice, pace, options.page ?? 0, options.seed ?? 1],
    queryFn: () =>
      api.promise({
        sourceId: first.id,
        others: others.map((o) => o.id),
        voice,
        pace,
        page: options.page ?? 0,
        seed: options.seed ?? 1,
        moods: true,
      }),
    enabled: Boolean(first),
    staleTime: 5 * 60_000,
    retry: false,
  });
  return query.data ?? null;
}
