/** Facts by one name across sources, "A:f3", as orders, replies and lines are compared by them. */
import type { PlainLine } from '../script/data.ts';

export const keyOf = (source: string, fact: string): string => `${source}:${fact}`;
/** The facts of a list of places in sources; places without a fact are left out. */
export const keysOf = (from: PlainLine['from']): string[] =>
  from.flatMap((f) => (f.fact ? [keyOf(f.source, f.fact)] : []));
/** What a line tells, or is to tell while its place is open. */
export const keysIn = (line: PlainLine): string[] => keysOf(line.open?.length ? line.open : line.from);
