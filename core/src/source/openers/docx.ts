/** DOCX (ECMA-376), by mammoth: headings, paragraphs, lists; deleted words, comments and pictures left out. */
import mammoth from 'mammoth';
import { SourceError, type RawDocument } from '../document.ts';
import { blocksOfHtml } from '../readers/html/reader.ts';
import { first, parseXml, textOf } from '../readers/xml.ts';
import { isoDate } from '../tidy.ts';
import type { SourceOpener } from '../readers/reader.ts';
import { isZip, nameInside, unpack, utf8 } from './zip.ts';

export const docxOpener: SourceOpener = {
  id: 'docx',
  accepts: (bytes, head) =>
    isZip(bytes) && (head.includes('word/') || nameInside(bytes, 'word/document.xml')),
  open: async (bytes) => {
    // Counted before the library sees it: it would unpack a bomb whole.
    const parts = unpack(bytes, (name) => name === 'docProps/core.xml');
    let html: string;
    try {
      html = (
        await mammoth.convertToHtml(
          { buffer: Buffer.from(bytes) },
          { convertImage: mammoth.images.imgElement(() => Promise.resolve({ src: '' })) },
        )
      ).value;
    } catch {
      throw new SourceError(
        'unreadable',
        'This document is broken, so it can’t be opened. Save it again where it was made, or paste its words.',
      );
    }
    const raw: RawDocument = { blocks: blocksOfHtml(html) };
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
