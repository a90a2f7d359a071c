/** A part of an old state put into what stands now. */
import type { PlainSection } from '@ursprung/core/script';

/** A section as it was then, in its place now, or at the end where it is gone. */
export function withSectionOf(
  now: readonly PlainSection[],
  then: readonly PlainSection[],
  id: string,
): PlainSection[] {
  const old = then.find((s) => s.id === id)!;
  const own = new Set(old.lines.map((l) => l.id));
  // Its lines may stand elsewhere now: they come back from there.
  const rest = now
    .map((s) => (s.id === id || s.locked ? s : { ...s, lines: s.lines.filter((l) => !own.has(l.id)) }))
    .filter((s) => s.lines.length);
  if (rest.some((s) => s.id === id)) return rest.map((s) => (s.id === id ? old : s));
  const at = then.indexOf(old);
  const before = then
    .slice(0, at)
    .reverse()
    .find((s) => rest.some((r) => r.id === s.id));
  const place = before ? rest.findIndex((r) => r.id === before.id) + 1 : 0;
  return [...rest.slice(0, place), old, ...rest.slice(place)];
}

/** A line as it was then: in its place, or behind the line it followed. */
export function withLineOf(
  now: readonly PlainSection[],
  then: readonly PlainSection[],
  id: string,
): PlainSection[] {
  const section = then.find((s) => s.lines.some((l) => l.id === id))!;
  const line = section.lines.find((l) => l.id === id)!;
  if (now.some((s) => s.lines.some((l) => l.id === id)))
    return now.map((s) => ({ ...s, lines: s.lines.map((l) => (l.id === id ? line : l)) }));
  const before = section.lines.slice(0, section.lines.indexOf(line)).reverse();
  const anchor = before.find((b) => now.some((s) => s.lines.some((l) => l.id === b.id)))?.id;
  const target = now.find((s) => (anchor ? s.lines.some((l) => l.id === anchor) : s.id === section.id));
  if (!target) return withSectionOf(now, then, section.id);
  return now.map((s) => {
    if (s !== target) return s;
    const at = anchor ? s.lines.findIndex((l) => l.id === anchor) + 1 : 0;
    return { ...s, lines: [...s.lines.slice(0, at), line, ...s.lines.slice(at)] };
  });
}
