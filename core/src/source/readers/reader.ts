import type { RawDocument } from '../document.ts';

/** A format that is text. Chosen by content, never by file name. */
export interface SourceReader {
  id: string;
  /** How sure it is that the text is in this format, 0 to 1. */
  accepts: (text: string) => number;
  /** What it is read with may be large and is brought when it is needed. `subject`: what the letter that it came in says it is about. */
  read: (text: string, subject?: string) => RawDocument | Promise<RawDocument>;
}

/** A format that has to be opened first: packed, laid out on pages, or in parts. */
export interface SourceOpener {
  id: string;
  /** Whether the bytes are in this format. `head` is their first 4 kB, a character a byte. */
  accepts: (bytes: Uint8Array, head: string) => boolean;
  open: (bytes: Uint8Array) => Promise<RawDocument>;
}

/** Readers and openers by id; refuses a second of the same. */
export function registry<T extends { id: string }>(entries: readonly T[]): readonly T[] {
  const ids = new Set(entries.map((e) => e.id));
  if (ids.size !== entries.length) throw new Error('Two readers have the same id.');
  return Object.freeze([...entries]);
}
