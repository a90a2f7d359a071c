/** EPUB (W3C EPUB 3.3; 2 too): its chapters in reading order, front and back matter that is no text left out. */
import { MOST_LETTERS, SourceError, tooLong, type RawDocument } from '../document.ts';
import { blocksOfHtml } from '../readers/html/reader.ts';
import type { SourceOpener } from '../readers/reader.ts';
import { all, first, parseXml, textOf } from '../readers/xml.ts';
import { isoDate } from '../tidy.ts';
import { isZip, nameInside, unpack, utf8 } from './zip.ts';

const broken = () =>
  new SourceError(
    'unreadable',
    'This book is broken, so it can’t be opened. Open it where you read it and paste the chapter.',
  );
/** Parts of a book that are not told. */
const MATTER = /\b(?:toc|nav|cover|copyright|colophon|titlepage|index|landmarks)\b/i;

export const epubOpener: SourceOpener = {
  id: 'epub',
  // The standard wants the type first and unpacked; books in the wild don't all keep to it.
  accepts: (bytes, head) =>
    isZip(bytes) && (head.includes('application/epub+zip') || nameInside(bytes, 'META-INF/container.xml')),
  open: async (bytes) => {
    const parts = unpack(bytes, (name) => /\.(?:opf|x?html?|xml)$/i.test(name));
    const container = parts.get('META-INF/container.xml');
    const path = container && first(parseXml(utf8(container), 'a book'), 'rootfile')?.attributes['full-path'];
    const packageFile = path ? parts.get(path) : undefined;
    if (!path || !packageFile) throw broken();
    const book = parseXml(utf8(packageFile), 'a book');
    if (
      parts.has('META-INF/encryption.xml') &&
      /EncryptedData/.test(utf8(parts.get('META-INF/encryption.xml'))) &&
      /\.x?html?/i.test(utf8(parts.get('META-INF/encryption.xml')))
    )
      throw new SourceError(
        'locked',
        'This book is locked, so it can’t be opened here. Paste the part you may use.',
      );
    const folder = path.includes('/') ? path.slice(0, path.lastIndexOf('/') + 1) : '';
    const hrefs = new Map(
      all(first(book, 'manifest') ?? book, 'item').map((i) => [i.attributes.id, i.attributes] as const),
    );
    const raw: RawDocument = { blocks: [] };
    const read = new Set<string>();
    let letters = 0;
    for (const ref of all(first(book, 'spine') ?? book, 'itemref')) {
      const item = hrefs.get(ref.attributes.idref);
      if (!item?.href || MATTER.test(`${item.id} ${item.href} ${item.properties ?? ''}`)) continue;
      let name: string;
      try {
        name = folder + decodeURIComponent(item.href.split('#')[0]);
      } catch {
        continue;
      }
      const chapter = parts.get(name);
      // A chapter is told once, however often the book's order names it.
      if (!chapter || read.has(name)) continue;
      read.add(name);
      for (const block of await blocksOfHtml(utf8(chapter))) {
        letters += block.text.length;
        raw.blocks.push(block);
      }
      if (letters > MOST_LETTERS) throw tooLong();
    }
    const [title, author, language, publisher, rights] = [
      'title',
      'creator',
      'language',
      'publisher',
      'rights',
    ].map((n) => textOf(first(book, n)));
    const published = isoDate(textOf(first(book, 'date')));
    if (title) raw.title = title;
    if (author) raw.authors = [author];
    if (language) raw.language = language;
    if (publisher) raw.publisher = publisher;
    if (rights) raw.licence = rights;
    if (published) raw.published = published;
    return raw;
  },
};
