/** OpenDocument text (ISO/IEC 26300). */
import { SourceError, type RawBlock, type RawDocument } from '../document.ts';
import type { SourceOpener } from '../readers/reader.ts';
import { first, parseXml, textOf, type XmlNode } from '../readers/xml.ts';
import { isoDate } from '../tidy.ts';
import { isZip, unpack, utf8 } from './zip.ts';

const SILENT = new Set(['note', 'annotation', 'frame', 'tracked-changes', 'bookmark', 'sequence-decls']);

function blocks(node: XmlNode): RawBlock[] {
  return node.children.flatMap((c): RawBlock[] => {
    if (typeof c === 'string' || SILENT.has(c.name)) return [];
    if (c.name === 'h') return [{ type: 'heading', text: textOf(c, SILENT) }];
    if (c.name === 'p') return [{ type: 'paragraph', text: textOf(c, SILENT) }];
    if (c.name === 'list-item') return [{ type: 'item', text: textOf(c, SILENT) }];
    return blocks(c);
  });
}

export const odtOpener: SourceOpener = {
  id: 'odt',
  accepts: (bytes, head) => isZip(bytes) && head.includes('application/vnd.oasis.opendocument.text'),
  open: (bytes) => {
    const parts = unpack(bytes, (name) => name === 'content.xml' || name === 'meta.xml');
    const content = parts.get('content.xml');
    if (!content)
      throw new SourceError(
        'unreadable',
        'This document has no text part, so it can’t be opened. Save it again where it was made.',
      );
    const raw: RawDocument = {
      blocks: blocks(
        first(parseXml(utf8(content), 'a document'), 'text') ?? { name: '', attributes: {}, children: [] },
      ).filter((b) => b.text),
    };
    const meta = parts.get('meta.xml');
    if (meta) {
      const root = parseXml(utf8(meta), 'a document');
      const title = textOf(first(root, 'title'));
      const author = textOf(first(root, 'creator')) || textOf(first(root, 'initial-creator'));
      const updated = isoDate(textOf(first(root, 'date')));
      if (title) raw.title = title;
      if (author) raw.authors = [author];
      if (updated) raw.updated = updated;
    }
    return Promise.resolve(raw);
  },
};
