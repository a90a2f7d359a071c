/** DOCX (ECMA-376), by mammoth: headings, paragraphs, lists; deleted words, comments and pictures left out. */
import { SourceError, type RawDocument } from '../document.ts';
import { blocksOfHtml } from '../readers/html/reader.ts';
import { first, parseXml, textOf } from '../readers/xml.ts';
import { isoDate } from '../tidy.ts';
import type { SourceOpener } from '../readers/reader.ts';
import { isZip, nameInside, unpack, utf8 } from './zip.ts';

/** The document's words as HTML, without pictures. Throws SourceError on a broken one. */
export async function htmlOfDocx(bytes: Uint8Array): Promise<string> {
  const { default: mammoth } = await import('mammoth');
  try {
    const { value } = await mammoth.convertToHtml(
      { buffer: Buffer.from(bytes) },
      { convertImage: mammoth.images.imgElement(() => Promise.resolve({ src: '' })) },
    );
    return value;
  } catch {
    throw new SourceError(
      'unreadable',
      'This document is broken, so it can’t be opened. Save it again where it was made, or paste its words.',
    );
  }
}

export const docxOpener: SourceOpener = {
  id: 'docx',
  accepts: (bytes, head) =>
    isZip(bytes) && (head.includes('word/') || nameInside(bytes, 'word/document.xml')),
  open: async (bytes) => {
    // Counted before the library sees it: it would unpack a bomb whole.
    const parts = unpack(bytes, (name) => name === 'docProps/core.xml');
    const raw: RawDocument = { blocks: await blocksOfHtml(await htmlOfDocx(bytes)) };
    const core = parts.get('docProps/core.xml');
    if (core) {
      const root = parseXml(utf8(core), 'a document');
      const [title, author, date] = ['title', 'creator', 'modified'].map((n) => textOf(first(root, n)));
      if (title) raw.title = title;
      if (author) raw.authors = [author];
      const updated = isoDate(date);
      if (updated) raw.updated = updated;
    }
    return raw;
  },
};
