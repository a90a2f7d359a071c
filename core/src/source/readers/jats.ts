/** Journal articles in JATS (ANSI/NISO Z39.96): title, authors, dates, licence, abstract with its parts, one for everybody, then the sections. */
import type { RawBlock, RawDocument } from '../document.ts';
import { rowsOf } from '../rows.ts';
import { tidy } from '../tidy.ts';
import type { SourceReader } from './reader.ts';
import { all, first, parseXml, textOf, type XmlNode } from './xml.ts';

const SILENT = new Set([
  'fig',
  'table-wrap',
  'disp-formula',
  'fn',
  'label',
  'supplementary-material',
  'attrib',
]);
/** Parts of an article that are said of it, not by it. */
const APART = new Set(['ack', 'ref-list', 'fn-group', 'app-group', 'glossary', 'notes']);

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

/** Words of a passage; marks of citations go, and so do brackets that only point at a figure or a table. */
function said(node: XmlNode, without: ReadonlySet<string> = SILENT): string {
  const words = (n: XmlNode): string =>
    n.children
      .map((c) =>
        typeof c === 'string'
          ? c
          : without.has(c.name) || (c.name === 'xref' && /^(?:bibr|fn|aff|corresp|table-fn)?$/.test(c.attributes['ref-type'] ?? '')) // prettier-ignore
            ? ''
            : words(c),
      )
      .join('');
  return tidy(words(node))
    .replace(/\s?[[(][\s,;–-]*[\])]/g, '')
    .replace(/\s?\((?:see )?(?:tables?|fig(?:ure|\.)?s?|supplement\w*|appendix|box)\s[^()]{0,30}\)/gi, '')
    .trim();
}

/** Passages of a section, headings before them; tables as rows with their heads, captions of pictures apart. */
function sectionBlocks(node: XmlNode): RawBlock[] {
  const out: RawBlock[] = [];
  const heading = (c: XmlNode) => out.push({ type: 'heading', text: said(c) });
  for (const c of node.children) {
    if (typeof c === 'string' || APART.has(c.name)) continue;
    if (c.name === 'title') heading(c);
    else if (c.name === 'p') {
      out.push({ type: 'paragraph', text: said(c, new Set([...SILENT, 'list', 'disp-quote'])) });
      out.push(...floats(c));
    } else if (c.name === 'list')
      out.push(...all(c, 'list-item').map((i, k): RawBlock => ({ type: 'item', text: said(i), ...(c.attributes['list-type'] === 'order' ? { step: k + 1 } : {}) }))); // prettier-ignore
    else if (c.name === 'table-wrap' || c.name === 'fig') out.push(...floatBlocks(c));
    else if (c.name === 'sec' || c.name === 'disp-quote' || c.name === 'boxed-text') out.push(...sectionBlocks(c)); // prettier-ignore
  }
  return out.filter((b) => b.text);
}

/** What floats inside a paragraph: lists, quotations, figures and tables. */
const floats = (p: XmlNode): RawBlock[] =>
  p.children.flatMap((c) =>
    typeof c === 'string' || !/^(?:list|disp-quote|fig|table-wrap)$/.test(c.name)
      ? []
      : sectionBlocks({ name: '', attributes: {}, children: [c] }),
  );

function floatBlocks(node: XmlNode): RawBlock[] {
  const caption = first(node, 'caption');
  const text = caption ? said(caption) : '';
  const rows = all(node, 'tr');
  const cells = rows.map((tr) => all(tr, 'td', 'th').map((c) => said(c)));
  const headed = rows.length > 0 && !all(rows[0], 'td').length;
  return [{ type: 'caption', text }, ...rowsOf(cells, headed).map((r): RawBlock => ({ type: 'row', ...r }))];
}

/** A structured abstract's labels stand over its parts; they are no passages. */
const abstractBlocks = (node: XmlNode): RawBlock[] => {
  const out: RawBlock[] = [];
  let under: string | undefined;
  for (const b of sectionBlocks(node)) {
    if (b.type === 'heading') under = b.text;
    else out.push({ ...b, ...(under ? { under } : {}) });
  }
  return out;
};
/** Abstracts that are neither one for everybody nor the article's own: lists of highlights, pictures. */
const OTHER_ABSTRACT = /^(?:graphical|key-points|highlights|teaser|toc|video|author-highlights|web-summary)$/;
const FOR_ALL = /^(?:plain-language-summary|summary|executive-summary|synopsis|non-technical)$/;

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
    const abstracts = all(meta, 'abstract').filter(
      (a) => !OTHER_ABSTRACT.test(a.attributes['abstract-type'] ?? ''),
    );
    const forAll = abstracts.filter((a) => FOR_ALL.test(a.attributes['abstract-type'] ?? ''));
    const [abstract] = abstracts.filter((a) => !forAll.includes(a));
    // A decision letter or a reply has a body of its own, further down.
    const body = article.children.find((c): c is XmlNode => typeof c !== 'string' && c.name === 'body');
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
        ...(abstract ? abstractBlocks(abstract) : []),
        ...forAll.flatMap((a) => [
          { type: 'heading' as const, text: 'In plain words' },
          ...abstractBlocks(a),
        ]),
        ...(body ? sectionBlocks(body) : []),
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
