/** Journal articles in JATS (ANSI/NISO Z39.96): title, authors, dates, licence, abstract with its parts, body when there is one. */
import type { RawBlock, RawDocument } from '../document.ts';
import type { SourceReader } from './reader.ts';
import { all, first, parseXml, textOf, type XmlNode } from './xml.ts';

const SILENT = new Set([
  'xref',
  'fig',
  'table-wrap',
  'disp-formula',
  'fn',
  'label',
  'supplementary-material',
]);

function dateOf(node: XmlNode | undefined): string | undefined {
  if (!node) return undefined;
  const part = (name: string) => textOf(first(node, name)).padStart(2, '0');
  const year = textOf(first(node, 'year'));
  if (!/^\d{4}$/.test(year)) return undefined;
  const [month, day] = [part('month'), part('day')];
  return /^(?:0[1-9]|1[0-2])$/.test(month)
    ? /^\d\d$/.test(day) && day !== '00'
      ? `${year}-${month}-${day}`
      : `${year}-${month}`
    : year;
}

/** Paragraphs and lists of a section, headings before them; sections within sections in order. */
function sectionBlocks(node: XmlNode): RawBlock[] {
  const out: RawBlock[] = [];
  for (const c of node.children) {
    if (typeof c === 'string') continue;
    if (c.name === 'title') out.push({ type: 'heading', text: textOf(c, SILENT) });
    else if (c.name === 'p') out.push({ type: 'paragraph', text: textOf(c, SILENT) });
    else if (c.name === 'list')
      out.push(...all(c, 'list-item').map((i): RawBlock => ({ type: 'item', text: textOf(i, SILENT) })));
    else if (c.name === 'sec' || c.name === 'disp-quote') out.push(...sectionBlocks(c));
  }
  return out.filter((b) => b.text);
}

export const jatsReader: SourceReader = {
  id: 'jats',
  accepts: (text) =>
    /<article[\s>][\s\S]{0,6000}?<(?:front|article-meta|journal-meta)[\s>]/.test(text.slice(0, 20_000))
      ? 1
      : 0,
  read: (text) => {
    const root = parseXml(text, 'a journal article');
    const article = first(root, 'article') ?? root;
    const meta = first(article, 'article-meta') ?? article;
    const abstract =
      all(meta, 'abstract').find((a) => !a.attributes['abstract-type']) ?? first(meta, 'abstract');
    const body = first(article, 'body');
    const date = (...types: string[]) => {
      const dates = all(meta, 'pub-date');
      return dateOf(
        types.flatMap((t) =>
          dates.filter((d) => (d.attributes['pub-type'] ?? d.attributes['date-type']) === t),
        )[0] ?? dates[0],
      );
    };
    const raw: RawDocument = {
      kind: { is: 'abstract', why: 'it is a journal article' },
      blocks: [
        ...(abstract ? sectionBlocks(abstract) : []),
        ...(body && !abstract ? sectionBlocks(body) : []),
      ],
    };
    const title = textOf(first(meta, 'article-title'), SILENT);
    if (title) raw.title = title;
    const authors = all(meta, 'contrib')
      .filter((c) => /^(?:author|person)$/.test(c.attributes['contrib-type'] ?? 'author'))
      .map(
        (c) =>
          [textOf(first(c, 'given-names')), textOf(first(c, 'surname'))].filter(Boolean).join(' ') ||
          textOf(first(c, 'collab')),
      )
      .filter(Boolean);
    if (authors.length) raw.authors = authors;
    const published = date('epub', 'pub', 'ppub', 'collection');
    if (published) raw.published = published;
    const journal = textOf(first(article, 'journal-title')) || textOf(first(article, 'publisher-name'));
    if (journal) raw.publisher = journal;
    const licence = first(meta, 'license');
    const words = licence?.attributes.href ?? textOf(licence ?? first(meta, 'copyright-statement'));
    if (words) raw.licence = words.slice(0, 200);
    if (article.attributes.lang) raw.language = article.attributes.lang;
    return raw;
  },
};
