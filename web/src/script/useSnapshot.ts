/** One value of an open script; a component draws again only when that value changes. */
import { useSyncExternalStore } from 'react';
import type { ScriptSession, Snapshot } from './session.ts';

/** `select` must give the same object for the same snapshot: a field of it, a number or a text. */
export const useSnapshot = <T>(session: ScriptSession, select: (snapshot: Snapshot) => T): T =>
  useSyncExternalStore(session.subscribe, () => select(session.snapshot));
