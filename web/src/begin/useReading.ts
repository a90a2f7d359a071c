/** A source being read by the server: started, watched over server-sent events, stopped. */
import { useCallback, useEffect, useRef, useState } from 'react';
import { api, type Reading, type SourceView } from '../api.ts';

type Input = Parameters<typeof api.read>[0];

export interface ReadingNow {
  /** What is being done; null when nothing is read. */
  now: Reading | null;
  problem: string | null;
  start: (input: Input) => void;
  stop: () => void;
  clear: () => void;
}

/** `onRead` hears the source when it is there. A reload finds a reading again that still goes on. */
export function useReading(onRead: (source: SourceView) => void): ReadingNow {
  const [now, setNow] = useState<Reading | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const stream = useRef<EventSource | null>(null);
  const done = useRef(onRead);
  useEffect(() => void (done.current = onRead), [onRead]);

  const watch = useCallback((id: string) => {
    stream.current?.close();
    const events = new EventSource(`/api/readings/${id}/events`);
    stream.current = events;
    events.onmessage = (event: MessageEvent<string>) => {
      const reading = JSON.parse(event.data) as Reading;
      if (reading.state === 'waiting' || reading.state === 'reading') return setNow(reading);
      events.close();
      sessionStorage.removeItem(KEY);
      setNow(null);
      if (reading.state === 'failed') setProblem(reading.message);
      if (reading.state === 'done' && reading.sourceId)
        api.source(reading.sourceId).then(
          (source) => done.current(source),
          (error: Error) => setProblem(error.message),
        );
    };
    // A line that broke is tried again by the browser itself; an answer that is no stream is not.
    events.onerror = () => {
      if (events.readyState === EventSource.CLOSED) {
        sessionStorage.removeItem(KEY);
        setNow(null);
      }
    };
  }, []);

  useEffect(() => {
    const open = sessionStorage.getItem(KEY);
    if (open) watch(open);
    return () => stream.current?.close();
  }, [watch]);

  /** Which sending is the last; one that was stopped before the server answered is stopped there too. */
  const turn = useRef(0);
  const start = useCallback(
    (input: Input) => {
      const mine = ++turn.current;
      setProblem(null);
      setNow({ id: '', state: 'waiting', stage: 'sending', done: 0, of: 0, message: null, sourceId: null });
      api.read(input).then(
        (reading) => {
          if (mine !== turn.current) return api.stopReading(reading.id).catch(() => undefined);
          sessionStorage.setItem(KEY, reading.id);
          watch(reading.id);
        },
        (error: Error) => {
          if (mine !== turn.current) return;
          setNow(null);
          setProblem(error.message);
        },
      );
    },
    [watch],
  );
  const stop = useCallback(() => {
    if (now?.id) return void api.stopReading(now.id).catch((error: Error) => setProblem(error.message));
    turn.current++;
    setNow(null);
  }, [now]);
  const clear = useCallback(() => setProblem(null), []);
  return { now, problem, start, stop, clear };
}

const KEY = 'ursprung:reading';
