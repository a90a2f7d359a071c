/** Which close line comes next, and when a line is heard. */
import type { Snapshot } from '../script/session.ts';

export interface CloseLine {
  id: string;
  /** Letters in shared runs. */
  shared: number;
}

/** The close line after (or before) one, in the script's order or from the closest down; round again at the end. Null when none is left. */
export function nextOf(
  lines: readonly CloseLine[],
  from: string | null,
  order: 'worst' | 'order',
  by: 1 | -1 = 1,
): string | null {
  const list = order === 'worst' ? [...lines].sort((a, b) => b.shared - a.shared) : lines;
  if (!list.length) return null;
  const at = list.findIndex((l) => l.id === from);
  return list[at < 0 ? 0 : (at + by + list.length) % list.length].id;
}

export const keptPlace = (snapshot: Snapshot, id: string): number => snapshot.times?.get(id)?.startMs ?? 0;
