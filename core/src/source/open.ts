/** Any file → SourceDocument: packed and laid-out formats are opened first; everything else is text. */
import { SourceError, type SourceDocument } from './document.ts';
import { captionsOpener } from './openers/captions.ts';
import { docxOpener } from './openers/docx.ts';
import { epubOpener } from './openers/epub.ts';
import { mailOpener } from './openers/mail.ts';
import { odtOpener } from './openers/odt.ts';
import { pdfOpener } from './openers/pdf.ts';
import { isZip } from './openers/zip.ts';
import { finishSource, readSource, type ReadOptions } from './read.ts';
import { registry } from './readers/reader.ts';

/** Every opener; the first that knows the bytes opens them. */
export const sourceOpeners = registry([
  pdfOpener,
  epubOpener,
  odtOpener,
  docxOpener,
  captionsOpener,
  mailOpener,
]);

/** The largest file that is opened, in bytes: a book with pictures. What comes out as text has its own limit. */
export const LARGEST_FILE = 40 * 1024 * 1024;

const HEAD = 4096;

/** Reads a source in any format. Throws SourceError, in the person's words, on anything that can't be one. */
export async function openSource(
  input: string | Uint8Array,
  options: ReadOptions = {},
): Promise<SourceDocument> {
  const bytes = typeof input === 'string' ? new TextEncoder().encode(input) : input;
  if (bytes.length > LARGEST_FILE)
    throw new SourceError(
      'too-long',
      `This file has ${(bytes.length / 1048576).toFixed(0)} MB; a source can have at most 40 MB. Paste the part you need.`,
    );
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, HEAD));
  const opener = sourceOpeners.find((o) => o.accepts(bytes, head));
  if (opener) return finishSource(await opener.open(bytes), opener.id, options);
  if (isZip(bytes))
    throw new SourceError(
      'binary',
      'This is a packed file but no document that is known here. Unpack it and open the document inside, or paste its words.',
    );
  return readSource(bytes, options);
}
