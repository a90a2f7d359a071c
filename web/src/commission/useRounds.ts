/** A script that the service tells in rounds: what stands, followed while it is asked; the page looks for the words once they are in. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo } from 'react';
import { api, type CommissionScope, type RoundsView } from '../api.ts';
import type { ScriptSession } from '../script/session.ts';

export function useRounds(session: ScriptSession) {
  const client = useQueryClient();
  const { id } = session.script;
  const key = useMemo(() => ['rounds', id], [id]);
  const list = useQuery({ queryKey: key, queryFn: () => api.rounds(id) });
  const put = useMemo(
    () => (r: RoundsView) =>
      client.setQueryData<{ rounds: RoundsView[] }>(key, (old) => ({
        rounds: [r, ...(old?.rounds ?? []).filter((x) => x.id !== r.id)].sort((a, b) =>
          a.at < b.at ? 1 : -1,
        ),
      })),
    [client, key],
  );
  const last = list.data?.rounds[0] ?? null;
  const running = last && last.endedAt === null ? last.id : null;
  useEffect(() => {
    if (!running) return;
    const events = new EventSource(`/api/rounds/${running}/events`);
    let asked: string | null = null;
    events.onmessage = (e: MessageEvent<string>) => {
      const r = JSON.parse(e.data) as RoundsView;
      put(r);
      // An order that has just gone out is shown with its reply.
      if (r.commission !== asked) void client.invalidateQueries({ queryKey: ['commissions', id] });
      asked = r.commission;
      if (r.endedAt === null) return;
      events.close();
      session.lookNow();
      void client.invalidateQueries({ queryKey: ['service'] });
      void client.invalidateQueries({ queryKey: ['commissions', id] });
    };
    return () => events.close();
  }, [running, put, client, id, session]);
  return {
    last,
    running: running !== null,
    start: async (scope: CommissionScope, most: number) => put(await api.startRounds(id, { scope, most })),
    stop: async () => put(await api.stopRounds(last!.id)),
  };
}
