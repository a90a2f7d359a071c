/** Words and milliseconds of texts that are not in the script, on the script's own clock. */
import { useEffect, useState } from 'react';
import type { ScriptSession } from './session.ts';

export interface Length {
  ms: number;
  words: number;
}

export function useLengths(session: ScriptSession, texts: readonly string[]): ReadonlyMap<string, Length> {
  const [lengths, setLengths] = useState<ReadonlyMap<string, Length>>(new Map());
  const key = JSON.stringify([...new Set(texts)]);
  useEffect(() => {
    let current = true;
    session.lengths(JSON.parse(key) as string[]).then(
      (list) => current && setLengths(list),
      // That the clock has stopped is said by the script itself.
      () => undefined,
    );
    return () => {
      current = false;
    };
  }, [session, key]);
  return lengths;
}
