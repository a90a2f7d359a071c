/** Markdown (CommonMark), through mdast-util-from-markdown. */
import type { Nodes, Root, RootContent } from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import type { RawDocument } from '../document.ts';
import { tidy } from '../tidy.ts';
import type { SourceReader } from './reader.ts';

const MARKS = [
  /^#{1,6}\s\S/m,
  /^\s*[-*+]\s\S/m,
  /^\s*\d+\.\s\S/m,
  /\[[^\]\n]+\]\([^)\n]+\)/,
  /\*\*[^*\n]+\*\*/,
  /^>\s/m,
  /^```/m,
  /^(---|\+\+\+)\n/,
];

/** Words of a node; code, pictures and raw HTML are not speech. */
function words(node: Nodes): string {
  if (node.type === 'text' || node.type === 'inlineCode') return node.value;
  if (node.type === 'break') return ' ';
  if (node.type === 'html' || node.type === 'image' || node.type === 'code') return '';
  return 'children' in node ? node.children.map((c) => words(c as Nodes)).join('') : '';
}

export const markdownReader: SourceReader = {
  id: 'markdown',
  accepts: (text) => {
    const head = text.slice(0, 50_000);
    const marks = MARKS.filter((m) => m.test(head)).length;
    return /^#{1,6}\s\S/m.test(head) ? 0.7 : marks >= 2 ? 0.5 : 0;
  },
  read: (text) => {
    const raw: RawDocument = { blocks: [] };
    const front = /^---\n([\s\S]{0,4000}?)\n---\n/.exec(text);
    if (front) readFrontMatter(front[1], raw);
    const tree: Root = fromMarkdown(front ? text.slice(front[0].length) : text);
    for (const node of tree.children) addNode(raw, node);
    return raw;
  },
};

function readFrontMatter(text: string, raw: RawDocument): void {
  for (const line of text.split('\n')) {
    const [, key, value] = /^(\w+):\s*["']?(.*?)["']?\s*$/.exec(line) ?? [];
    if (key === 'title' && value) raw.title = value;
    if (key === 'date' && value) raw.published = value;
    if (key === 'author' && value) raw.authors = [value];
  }
}

function addNode(raw: RawDocument, node: RootContent): void {
  if (node.type === 'heading') {
    const text = tidy(words(node));
    if (!text) return;
    if (!raw.title && node.depth === 1) raw.title = text;
    else raw.blocks.push({ type: 'heading', text });
  } else if (node.type === 'paragraph') {
    const text = tidy(words(node));
    if (text) raw.blocks.push({ type: 'paragraph', text });
  } else if (node.type === 'blockquote') {
    const text = tidy(node.children.map((c) => words(c as Nodes)).join(' '));
    if (text) raw.blocks.push({ type: 'quote', text });
  } else if (node.type === 'list') {
    node.children.forEach((item, i) => {
      const text = tidy(item.children.map((c) => words(c as Nodes)).join(' '));
      if (text)
        raw.blocks.push({ type: 'item', text, ...(node.ordered ? { step: (node.start ?? 1) + i } : {}) });
    });
  }
}
