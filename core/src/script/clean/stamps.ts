/** Times that a draft stamps its lines with, laid against the clock. */

/** When a note says that its line begins, in milliseconds: "0–3s", "[1:24]", "00:00:31,200"; a length alone says nothing. */
export function stampedAt(note: string): number | null {
  const clock = /(?<![\d:.])(?:(\d{1,2}):)?(\d{1,2}):([0-5]\d)(?:[.,](\d{1,3}))?(?![\d])/.exec(note);
  if (clock) {
    const [, h, m, s, f] = clock;
    return (
      ((Number(h ?? 0) * 60 + Number(m)) * 60 + Number(s)) * 1000 + Math.round(Number(`0.${f ?? 0}`) * 1000)
    );
  }
  const range =
    /(?<![\d:.])(\d{1,3})(?:\s?s(?:ec(?:onds)?)?)?\s?(?:[-–—]|to)\s?\d{1,3}\s?s(?:ec(?:onds)?)?\b/i.exec(
      note,
    );
  return range ? Number(range[1]) * 1000 : null;
}

export interface Stamped {
  /** Its line, by number through the whole draft. */
  line: number;
  atMs: number;
}

/** Film is counted from one hour on where a tape began with bars (SMPTE practice; common practice, no published source). */
const HOUR = 3_600_000;

/** The times that a draft stamps its lines with, in order; nothing where fewer than two rise. */
export function stampsOf(
  lines: readonly { notes: readonly { kind: string; text: string; where?: string }[] }[],
): Stamped[] {
  const out: Stamped[] = [];
  lines.forEach((l, line) => {
    const at = l.notes.filter((n) => n.kind === 'timing' && n.where !== 'after').map((n) => stampedAt(n.text)).find((t) => t !== null); // prettier-ignore
    if (at !== undefined && at !== null && (!out.length || at > out.at(-1)!.atMs))
      out.push({ line, atMs: at });
  });
  const from = out.length && out[0].atMs >= HOUR ? HOUR : 0;
  return out.length < 2 ? [] : out.map((s) => ({ ...s, atMs: s.atMs - from }));
}

/** What the clock makes of a draft's stamped times, in words for the person; null where it stamps none. `starts`: when each line begins. */
export function saidOfStamps(
  lines: readonly { text: string; notes: readonly { kind: string; text: string; where?: string }[] }[],
  starts: readonly number[],
): string | null {
  const stamps = stampsOf(lines);
  if (!stamps.length) return null;
  const clock = (ms: number) => `${Math.floor(Math.round(ms / 1000) / 60)}:${String(Math.round(ms / 1000) % 60).padStart(2, '0')}`; // prettier-ignore
  const off = stamps.map((s) => ({ ...s, by: starts[s.line] - s.atMs }));
  const worst = off.reduce((a, b) => (Math.abs(b.by) > Math.abs(a.by) ? b : a));
  const close = off.filter((s) => Math.abs(s.by) < 1000).length;
  const said = lines[worst.line].text.trim().split(/\s+/);
  const words = said.slice(0, 6).join(' ') + (said.length > 6 ? '…' : '');
  const all =
    close === stamps.length
      ? `The draft stamps ${stamps.length} times; by the clock all of them hold to a second.`
      : `The draft stamps ${stamps.length} times; by the clock ${close || 'none'} of them ${close > 1 ? 'hold' : 'holds'} to a second.`;
  return Math.abs(worst.by) < 1000
    ? all
    : `${all} Furthest off: “${words}”, stamped ${clock(worst.atMs)}, falls at ${clock(starts[worst.line])}.`;
}
