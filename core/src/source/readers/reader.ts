import type { RawDocument } from '../document.ts';

/** One format. Chosen by content, never by file name. */
export interface SourceReader {
  id: string;
  /** How sure it is that the text is in this format, 0 to 1. */
  accepts: (text: string) => number;
  read: (text: string) => RawDocument;
}
