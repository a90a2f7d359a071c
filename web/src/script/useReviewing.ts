/** The Read-through of an open script, kept going while a place shows it. */
import { useEffect, useSyncExternalStore } from 'react';
import type { ReviewingState } from './reviewing.ts';
import type { ScriptSession } from './session.ts';

export function useReviewing(session: ScriptSession): ReviewingState {
  useEffect(() => session.readThrough(), [session]);
  return useSyncExternalStore(session.reviewing.subscribe, () => session.reviewing.state);
}
