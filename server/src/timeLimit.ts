/**
 * A time limit and somebody's stop as one signal. The limit is held until `over` is called: Node drops the signal of
 * `AbortSignal.timeout` when only `AbortSignal.any` knows it, and it never fires.
 */
export function timeLimit(
  ms: number,
  other?: AbortSignal,
): { signal: AbortSignal; isLate: () => boolean; over: () => void } {
  const stopper = new AbortController();
  const stop = () => stopper.abort();
  let late = false;
  const limit = setTimeout(() => {
    late = true;
    stop();
  }, ms);
  other?.addEventListener('abort', stop, { once: true });
  if (other?.aborted) stop();
  return {
    signal: stopper.signal,
    isLate: () => late,
    over: () => {
      clearTimeout(limit);
      other?.removeEventListener('abort', stop);
    },
  };
}
