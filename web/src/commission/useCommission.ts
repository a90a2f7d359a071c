/** The order as it would be now, the commissions of the script, and a look at the reply of the chosen one, as it comes. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { wholeSentences, type Order, type OrderScope } from '@ursprung/core/commission/desk';
import { api, type CommissionView } from '../api.ts';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import type { Replied } from '../text/messages.ts';
import { contextOf } from './context.ts';

/** The orders for a part of the script; null while they are being written. */
export function useOrders(
  session: ScriptSession,
  scope: OrderScope,
  letters: number,
): { orders: Order[] | null; problem: string | null } {
  const sections = useSnapshot(session, (s) => s.sections);
  const timed = useSnapshot(session, (s) => s.times !== null);
  const [state, setState] = useState<{ orders: Order[] | null; problem: string | null }>({
    orders: null,
    problem: null,
  });
  const { section, line } = scope;
  useEffect(() => {
    if (!timed || !session.sources.length) return;
    let here = true;
    const asked: OrderScope = { ...(section ? { section } : {}), ...(line ? { line } : {}) };
    session.reviewing.orders({ context: contextOf(session), scope: asked, letters }).then(
      (orders) => here && setState({ orders, problem: null }),
      (error: Error) => here && setState({ orders: null, problem: error.message }),
    );
    return () => {
      here = false;
    };
  }, [session, section, line, letters, sections, timed]);
  return state;
}

/** Every commission of the script, newest first; the chosen one is followed while its reply arrives. */
export function useCommissions(scriptId: string, chosen: string | null) {
  const client = useQueryClient();
  const key = useMemo(() => ['commissions', scriptId], [scriptId]);
  const list = useQuery({ queryKey: key, queryFn: () => api.commissions(scriptId) });
  const put = useMemo(
    () => (c: CommissionView) =>
      client.setQueryData<{ commissions: CommissionView[] }>(key, (old) => {
        const rest = (old?.commissions ?? []).filter((x) => x.id !== c.id);
        return { commissions: [c, ...rest].sort((a, b) => (a.at < b.at ? 1 : -1)) };
      }),
    [client, key],
  );
  const commissions = list.data?.commissions ?? [];
  const current = commissions.find((c) => c.id === chosen) ?? null;
  const arriving = current?.state === 'arriving' ? current.id : null;
  useEffect(() => {
    if (!arriving) return;
    const events = new EventSource(`/api/commissions/${arriving}/events`);
    events.onmessage = (e: MessageEvent<string>) => {
      const c = JSON.parse(e.data) as CommissionView;
      put(c);
      if (c.state !== 'arriving') {
        events.close();
        void client.invalidateQueries({ queryKey: ['service'] });
      }
    };
    return () => events.close();
  }, [arriving, put, client]);
  const drop = (id: string) =>
    client.setQueryData<{ commissions: CommissionView[] }>(key, (old) => ({
      commissions: (old?.commissions ?? []).filter((c) => c.id !== id),
    }));
  return { commissions, current, put, drop, loaded: list.isSuccess, problem: list.error?.message ?? null };
}

/** The reply checked; while it streams, the newest text is looked at as soon as the last look is over. */
export function useReply(
  session: ScriptSession,
  orders: Order[] | null,
  current: CommissionView | null,
  base: string | null,
): Replied | null {
  const [replied, setReplied] = useState<{ id: string; answer: Replied } | null>(null);
  const wanted = useRef<(() => Promise<void>) | null>(null);
  const busy = useRef(false);
  const id = current?.id ?? null;
  const whole = current?.reply ?? '';
  const text = current?.state === 'broken' ? wholeSentences(whole) : whole;
  const done = current !== null && current.state !== 'arriving';
  useEffect(() => {
    if (!id || !orders || !text) return;
    let here = true;
    const look = async () => {
      const answer = await session.reviewing.reply({
        context: contextOf(session),
        sections: orders.flatMap((o) => o.sections),
        text,
        base,
        done,
      });
      if (here) setReplied({ id, answer });
    };
    wanted.current = look;
    const work = async () => {
      if (busy.current) return;
      busy.current = true;
      while (wanted.current) {
        const next: () => Promise<void> = wanted.current;
        wanted.current = null;
        await next().catch((error: Error) => session.say(error.message));
      }
      busy.current = false;
    };
    void work();
    return () => {
      here = false;
    };
  }, [session, orders, id, text, base, done]);
  return id && text && replied?.id === id ? replied.answer : null;
}
