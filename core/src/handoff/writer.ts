/** What a writer of a format is. One file each in `writers/`, in one registry. */
import type { Kit } from './kit.ts';
import type { Recipient } from './recipients.ts';

export * from './recipients.ts';

export interface Writer {
  id: string;
  name: string;
  /** What it holds, in a few words. */
  says: string;
  /** What of the script it loses; docs/formats.md has the same. */
  loses: string;
  extension: string;
  mime: string;
  for: readonly Recipient[];
  /** A word for the file's name, where several formats share an extension. */
  suffix?: string;
  /** The bytes or text; a sentence in the person's words where the script can't be written so. */
  write: (kit: Kit) => string | Uint8Array | Promise<string | Uint8Array>;
}

/** A script that a format can't hold, with the reason in the person's words. */
export class CannotWrite extends Error {
  override name = 'CannotWrite';
}
export * from './said.ts';
