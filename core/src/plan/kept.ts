/** Whether a promise is kept. */
export interface FactRef {
  source: string;
  fact: string;
}

/** Where a script tells the fact its title rests on: the line, or null while it does not. */
export function promiseKept(
  pays: FactRef,
  lines: readonly { id: string; from: readonly { source: string; fact?: string }[] }[],
): string | null {
  return lines.find((l) => l.from.some((f) => f.source === pays.source && f.fact === pays.fact))?.id ?? null;
}
