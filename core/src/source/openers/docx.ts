/** DOCX (ECMA-376), by mammoth: headings, paragraphs, lists; deleted words, comments and pictures left out. */
import { MOST_LETTERS, SourceError, tooLong, type RawDocument } from '../document.ts';
import { blocksOfHtml } from '../readers/html/reader.ts';
import { first, parseXml, textOf } from '../readers/xml.ts';
import { isoDate } from '../tidy.ts';
import type { SourceOpener } from '../readers/reader.ts';
import { isZip, nameInside, packedAgain, unpack, utf8 } from './zip.ts';

/** Letters of HTML that so many letters of words come to, at most. */
const MOST_HTML = 5 * MOST_LETTERS;

/** The document's words as HTML, without pictures. Throws SourceError on a broken, monstrous or lying one. */
export async function htmlOfDocx(bytes: Uint8Array): Promise<string> {
  // The library gets the parts that were counted and nothing else.
  const words = packedAgain(unpack(bytes, (name) => /\.(?:xml|rels)$/i.test(name)));
  const { default: mammoth } = await import('mammoth');
  let html: string;
  try {
    const { value } = await mammoth.convertToHtml(
      { buffer: Buffer.from(words) },
      { convertImage: mammoth.images.imgElement(() => Promise.resolve({ src: '' })) },
    );
    html = value;
  } catch {
    throw new SourceError(
      'unreadable',
      'This document is broken, so it can’t be opened. Save it again where it was made, or paste its words.',
    );
  }
  if (html.length > MOST_HTML) throw tooLong();
  return html;
}

export const docxOpener: SourceOpener = {
  id: 'docx',
  accepts: (bytes, head) =>
    isZip(bytes) && (head.includes('word/') || nameInside(bytes, 'word/document.xml')),
  open: async (bytes) => {
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
