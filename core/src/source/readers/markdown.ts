/** Markdown (CommonMark, tables as in GitHub's extension), through mdast; what is furniture in it is judged like a page's. */
import { partedSteps } from '../subSteps.ts';
import type { Nodes, Paragraph, Root, RootContent, Table, Text } from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { gfmTableFromMarkdown } from 'mdast-util-gfm-table';
import { gfmTable } from 'micromark-extension-gfm-table';
import type { RawDocument } from '../document.ts';
import { parse as parseYaml } from 'yaml';
import { readAtoms } from '../page/article.ts';
import type { Atom } from '../page/atom.ts';
import { headOf } from '../page/head.ts';
import { pageModel } from '../page/models.ts';
import { isStamp } from '../page/shapes.ts';
import { rowsOf } from '../rows.ts';
import { tidy } from '../tidy.ts';
import type { SourceReader } from './reader.ts';

/** Marks that only Markdown has, and those that any typed or pasted text may have: dashes and numbers before items, quoted lines. */
const OWN_MARKS = [
  /\[[^\]\n]+\]\([^)\n]+\)/,
  /(?<![\p{L}\p{N}])\*\*["“'‘(]?[\p{L}\p{N}](?:[^*\n]*[^\s*])?\*\*(?![\p{L}\p{N}])/u,
  /^```/m,
  /^(---|\+\+\+)\n/,
];
const COMMON_MARKS = [/^\s*[-*+]\s\S/m, /^\s*\d+\.\s\S/m, /^>\s/m];

/** So many pieces must surely be none of the text before it is taken for a saved page. */
const FURNISHED = 6;

interface Words {
  text: string;
  linked: number;
  bold: number;
  spans: string[];
}

/** Words of a node; code, pictures and raw HTML are not speech. */
function words(node: Nodes): Words {
  const out: Words = { text: '', linked: 0, bold: 0, spans: [] };
  const walk = (n: Nodes, linked: boolean, bold: boolean) => {
    if (n.type === 'text' || n.type === 'inlineCode') {
      out.text += n.value;
      if (linked) out.linked += n.value.length;
      if (bold) out.bold += n.value.length;
    } else if (n.type === 'break') out.text += ' ';
    else if (n.type === 'html' || n.type === 'image' || n.type === 'code') return;
    else if ('children' in n) {
      const from = out.text.length;
      for (const c of n.children) walk(c as Nodes, linked || n.type === 'link', bold || n.type === 'strong');
      if (/^(?:link|strong|emphasis)$/.test(n.type) && out.text.length - from <= 60) out.spans.push(tidy(out.text.slice(from))); // prettier-ignore
    }
  };
  walk(node, false, false);
  return { ...out, text: tidy(out.text) };
}

/** A paragraph, and apart from it the rows at its head that say who wrote it and when: they stand on lines of their own. */
function linesOf(node: Paragraph): Words[] {
  const lines: Paragraph[] = [{ ...node, children: [] }];
  for (const child of node.children) {
    const parts = child.type === 'text' ? child.value.split('\n') : [];
    if (child.type === 'break') lines.push({ ...node, children: [] });
    else if (parts.length < 2) lines.at(-1)!.children.push(child);
    else
      parts.forEach((value, i) => {
        if (i) lines.push({ ...node, children: [] });
        lines.at(-1)!.children.push({ ...child, value } as Text);
      });
  }
  const head = lines.findIndex((l) => !isStamp(words(l).text));
  if (head <= 0) return [words(node)];
  const rest = words({ ...node, children: lines.slice(head).flatMap((l, i) => [...(i ? [{ type: 'break' as const }] : []), ...l.children]) }); // prettier-ignore
  return [...lines.slice(0, head).map((l) => words(l)), rest];
}

export const markdownReader: SourceReader = {
  id: 'markdown',
  accepts: (text) => {
    const head = text.slice(0, 50_000);
    const has = (marks: readonly RegExp[]) => marks.filter((m) => m.test(head)).length;
    const own = has(OWN_MARKS);
    return /^#{1,6}\s\S/m.test(head) ? 0.7 : own && own + has(COMMON_MARKS) >= 2 ? 0.5 : 0;
  },
  read: async (text) => {
    const raw: RawDocument = { blocks: [] };
    const front = /^---\n([\s\S]{0,4000}?)\n---\n/.exec(text);
    if (front) readFrontMatter(front[1], raw);
    const tree: Root = fromMarkdown(front ? text.slice(front[0].length) : text, {
      extensions: [gfmTable()],
      mdastExtensions: [gfmTableFromMarkdown()],
    });
    const first = tree.children.find((n) => n.type === 'heading' && n.depth === 1);
    if (!raw.title && first) raw.title = words(first).text;
    const atoms = atomsOf(tree);
    const read = readAtoms(atoms, {
      title: raw.title ?? '',
      model: await pageModel(),
      tagged: true,
      typed: FURNISHED,
    });
    const head = raw.title ? headOf(atoms, raw.title) : {};
    const authors = read.thread && read.teller ? [read.teller] : undefined;
    return {
      ...head,
      ...(authors ? { authors } : {}),
      ...(read.thread ? { kind: { is: 'forum' as const, why: 'it is a thread of a board' } } : {}),
      ...(read.thread && read.day && !head.published ? { published: read.day } : {}),
      ...raw,
      blocks: read.blocks,
      leftOut: read.leftOut,
    };
  },
};

/** What note programs and site builders write above a page (YAML 1.2); names of fields as most of them have it, no published source. */
const FIELDS = {
  title: /^(?:title|headline)$/i,
  published: /^(?:date|published|pub[-_]?date|date[-_]?published|publish[-_]?date)$/i,
  updated: /^(?:updated|modified|last[-_]?mod(?:ified)?|date[-_]?modified)$/i,
  authors: /^(?:authors?|by|creators?|writers?)$/i,
  address: /^(?:source|url|permalink|link|canonical)$/i,
  publisher: /^(?:site|publisher|publication)$/i,
} as const;

function readFrontMatter(text: string, raw: RawDocument): void {
  let said: unknown;
  try {
    said = parseYaml(text, { maxAliasCount: 0 });
  } catch {
    // Not YAML: a page may begin with a rule.
    return;
  }
  if (typeof said !== 'object' || said === null) return;
  const found = new Map<keyof typeof FIELDS, string[]>();
  for (const [key, value] of Object.entries(said)) {
    const field = (Object.keys(FIELDS) as (keyof typeof FIELDS)[]).find((f) => FIELDS[f].test(key));
    const words = [value].flat().flatMap((v) => plainWords(v));
    if (field && words.length && !found.has(field)) found.set(field, words);
  }
  const one = (field: keyof typeof FIELDS) => found.get(field)?.[0];
  const title = one('title');
  const published = one('published');
  const updated = one('updated');
  const address = one('address');
  const publisher = one('publisher');
  if (title) raw.title = title;
  if (published) raw.published = published;
  if (updated) raw.updated = updated;
  if (found.has('authors')) raw.authors = found.get('authors')!.slice(0, 12);
  if (address && /^https?:\/\//.test(address)) raw.address = address;
  if (publisher) raw.publisher = publisher;
}

/** A field's words; "[[Name]]" is a name that a note program links. */
function plainWords(value: unknown): string[] {
  if (value instanceof Date) return [value.toISOString().slice(0, 10)];
  if (typeof value === 'object' && value !== null && 'name' in value) return plainWords(value.name);
  const text = typeof value === 'string' || typeof value === 'number' ? tidy(String(value).replace(/\[\[(?:[^\]|]*\|)?([^\]]*)\]\]/g, '$1')) : ''; // prettier-ignore
  return text ? [text.slice(0, 300)] : [];
}

/** The tree as atoms, with the tags that a page would have. */
function atomsOf(tree: Root): Atom[] {
  const out: Atom[] = [];
  let ids = 0;
  const add = (
    own: Words,
    type: Atom['type'],
    tags: readonly string[],
    inside: readonly number[],
    more: Partial<Atom> = {},
  ) => {
    if (!own.text) return;
    const [tag, ...above] = [...tags, 'ARTICLE', 'BODY'];
    out.push({
      text: own.text,
      type,
      tag,
      above,
      named: [],
      look: [tag, ...above].slice(0, 3).join('>'),
      inside: [ids++, ...inside],
      linked: Math.min(own.linked, own.text.length),
      bold: Math.min(own.bold, own.text.length),
      ...(own.spans.length ? { spans: own.spans } : {}),
      ...more,
    });
  };
  const walk = (node: RootContent, inside: readonly number[], tags: readonly string[]) => {
    if (node.type === 'heading') add(words(node), 'heading', [`H${node.depth}`, ...tags], inside);
    else if (node.type === 'paragraph')
      for (const line of linesOf(node)) add(line, tags[0] === 'BLOCKQUOTE' ? 'quote' : 'paragraph', ['P', ...tags], inside); // prettier-ignore
    else if (node.type === 'blockquote') {
      const id = ids++;
      for (const c of node.children) walk(c, [id, ...inside], ['BLOCKQUOTE', ...tags]);
    } else if (node.type === 'list') {
      const id = ids++;
      node.children.forEach((item, i) => {
        const step = node.ordered ? { step: (node.start ?? 1) + i } : {};
        const own = item.children.filter((c) => c.type !== 'list');
        const said = own.map((c) => words(c as Nodes));
        const whole: Words = {
          text: tidy(said.map((s) => s.text).join(' ')),
          linked: said.reduce((n, s) => n + s.linked, 0),
          bold: said.reduce((n, s) => n + s.bold, 0),
          spans: said.flatMap((s) => s.spans),
        };
        const parted = node.ordered ? partedSteps(whole.text) : null;
        const list = ['LI', node.ordered ? 'OL' : 'UL', ...tags];
        add(parted ? { ...whole, text: parted.step, spans: [] } : whole, 'item', list, [id, ...inside], step);
        parted?.within.forEach((text, k) =>
          add({ text, linked: 0, bold: 0, spans: [] }, 'item', ['LI', 'OL', ...list], [id, ...inside], {
            step: k + 1,
            within: (node.start ?? 1) + i,
          }),
        );
        for (const c of item.children) if (c.type === 'list') walk(c, [id, ...inside], ['LI', ...tags]);
      });
    } else if (node.type === 'table') rows(node, inside, tags);
  };
  const rows = (table: Table, inside: readonly number[], tags: readonly string[]) => {
    const id = ids++;
    const cells = table.children.map((r) => r.children.map((c) => words(c).text));
    for (const { text, ...heads } of rowsOf(cells, true))
      add({ text, linked: 0, bold: 0, spans: [] }, 'row', ['TR', 'TABLE', ...tags], [id, ...inside], heads);
  };
  for (const node of tree.children) walk(node, [], []);
  return out;
}
