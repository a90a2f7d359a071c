/** Locks: a locked line keeps its words, rest and links; a locked section also its lines and their order. */
import type { Node } from 'prosemirror-model';

const KEPT = ['restMs', 'fixedMs', 'from', 'fixed', 'role', 'speaker'] as const;

/**
 * Ids of locked lines and sections that a change would alter: empty when it respects every lock. A lock may be set and
 * taken off; a locked line may move with its section, and to another place as a whole; takes, notes and comments are no
 * part of it. Linear in the document.
 */
export function brokenLocks(before: Node, after: Node): string[] {
  const lines = new Map<string, Node>();
  const sections = new Map<string, Node>();
  after.forEach((section) => {
    sections.set(section.attrs.id as string, section);
    section.forEach((line) => lines.set(line.attrs.id as string, line));
  });
  const broken: string[] = [];
  before.forEach((section) => {
    const locked = section.attrs.locked as boolean;
    section.forEach((line) => {
      if (!locked && !line.attrs.locked) return;
      const now = lines.get(line.attrs.id as string);
      if (now && now === line) return;
      if (
        !now ||
        now.textContent !== line.textContent ||
        KEPT.some((k) => !same(now.attrs[k], line.attrs[k]))
      )
        broken.push(line.attrs.id as string);
    });
    if (!locked) return;
    const now = sections.get(section.attrs.id as string);
    if (!now) broken.push(section.attrs.id as string);
    else if (now !== section && idsOf(now) !== idsOf(section)) broken.push(section.attrs.id as string);
  });
  return broken;
}

const idsOf = (section: Node) => section.content.content.map((l) => l.attrs.id as string).join(' ');
const same = (a: unknown, b: unknown) => a === b || JSON.stringify(a) === JSON.stringify(b);
