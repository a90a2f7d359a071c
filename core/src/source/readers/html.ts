/** HTML: the article body by Readability on linkedom's document; metadata from the head. Nothing is ever run or fetched. */
import { Readability } from '@mozilla/readability';
import { parseHTML } from 'linkedom';
import { SourceError, type RawBlock, type RawDocument } from '../document.ts';
import type { SourceReader } from './reader.ts';

const BLOCKS = new Set(['P', 'H1', 'H2', 'H3', 'H4', 'H5', 'H6', 'LI', 'BLOCKQUOTE', 'DD', 'PRE']);
const SILENT = new Set([
  'SCRIPT',
  'STYLE',
  'NOSCRIPT',
  'TEMPLATE',
  'NAV',
  'FOOTER',
  'ASIDE',
  'FORM',
  'BUTTON',
  'FIGURE',
  'FIGCAPTION',
  'TABLE',
  'SVG',
  'IFRAME',
  'SELECT',
  'TEXTAREA',
  'HEAD',
  'SUP',
  'PRE',
]);
/** Furniture that lives in ordinary paragraphs. */
const FURNITURE =
  /^(?:read (?:also|more|next)\b|related:|see also:|share this|share on|subscribe|sign up|newsletter|advertisement|sponsored|we use cookies|accept (?:all )?cookies|cookie|follow us|most read|comments? \(|log in|click here|copyright|©|all rights reserved|photo(?:graph)?:|image:)/i;
/** The deepest nesting that is followed; deeper markup is hostile or broken. */
const DEEPEST = 200;

const tidy = (text: string) => text.replace(/\s+/g, ' ').trim();

export const htmlReader: SourceReader = {
  id: 'html',
  accepts: (text) => {
    const head = text.slice(0, 4000);
    if (/<!doctype html|<html[\s>]/i.test(head)) return 1;
    const tags = (
      head.match(
        /<\/?(?:p|div|h[1-6]|article|body|section|span|a|br|li|ul|ol|b|i|em|strong)(?:\s[^>]*)?>/gi,
      ) ?? []
    ).length;
    return tags >= 3 ? 0.8 : 0;
  },
  read: (text) => {
    if (nesting(text) > 5000)
      throw new SourceError(
        'unreadable',
        'This page is nested too deeply to be read. Paste the words of the article instead.',
      );
    const page = /<html[\s>]/i.test(text)
      ? text
      : `<!doctype html><html><head></head><body>${text}</body></html>`;
    const { document } = parseHTML(page);
    const meta = metadata(document);
    const whole = collect(document.body);
    const article = new Readability(document as unknown as Document, {
      charThreshold: 200,
      maxElemsToParse: 200_000,
    }).parse();
    let blocks = article?.content
      ? collect(parseHTML(`<html><body>${article.content}</body></html>`).document.body)
      : [];
    // A short page without an article is read whole rather than lost.
    if (length(blocks) < 200 && length(whole) > length(blocks)) blocks = whole;
    const title = meta.title ?? (article?.title ? tidy(article.title) : undefined);
    if (blocks[0]?.type === 'heading' && blocks[0].text === title) blocks = blocks.slice(1);
    const author =
      meta.authors ?? (article?.byline ? [tidy(article.byline).replace(/^by\s+/i, '')] : undefined);
    return { ...meta, ...(title ? { title } : {}), ...(author ? { authors: author } : {}), blocks };
  },
};

const length = (blocks: readonly RawBlock[]) => blocks.reduce((n, b) => n + b.text.length, 0);

/** Depth of open tags, roughly: guards recursive libraries against hostile nesting. */
function nesting(html: string): number {
  let depth = 0;
  let most = 0;
  for (const m of html.matchAll(/<(\/?)(?:div|span|p|b|i|ul|ol|li|table|blockquote|section|font)\b/gi)) {
    depth = Math.max(0, depth + (m[1] ? -1 : 1));
    if (depth > most) most = depth;
  }
  return most;
}

function metadata(document: Document): Omit<RawDocument, 'blocks'> {
  const content = (selector: string) =>
    document.querySelector(selector)?.getAttribute('content')?.trim() || undefined;
  const heading = document.querySelector('h1')?.textContent;
  const title =
    content('meta[property="og:title"]') ??
    (heading ? tidy(heading) : undefined) ??
    (document.title ? tidy(document.title) : undefined);
  const published =
    content('meta[property="article:published_time"]') ??
    content('meta[name="date"]') ??
    (document.querySelector('time[datetime]')?.getAttribute('datetime') || undefined);
  const author = content('meta[name="author"]');
  const publisher = content('meta[property="og:site_name"]');
  const licence = document.querySelector('[rel~="license"]')?.textContent?.trim() || undefined;
  const language = document.documentElement?.getAttribute('lang') || undefined;
  return {
    ...(title ? { title } : {}),
    ...(published ? { published } : {}),
    ...(author ? { authors: [author] } : {}),
    ...(publisher ? { publisher } : {}),
    ...(licence ? { licence } : {}),
    ...(language ? { language } : {}),
  };
}

/** Passages in reading order. Loose text between block elements becomes a paragraph of its own. */
function collect(root: Element | null): RawBlock[] {
  const out: RawBlock[] = [];
  let loose = '';
  const flush = () => {
    add('paragraph', loose);
    loose = '';
  };
  const add = (type: RawBlock['type'], text: string, step?: number) => {
    const clean = tidy(text).replace(/\s?\[\d{1,3}\]/g, '');
    if (clean && /[\p{L}\p{N}]/u.test(clean) && !FURNITURE.test(clean))
      out.push({ type, text: clean, ...(step ? { step } : {}) });
  };
  const walk = (node: Node, depth: number) => {
    if (depth > DEEPEST) return;
    if (node.nodeType === 3) {
      loose += node.textContent ?? '';
      return;
    }
    if (node.nodeType !== 1) return;
    const element = node as Element;
    const tag = element.tagName.toUpperCase();
    if (SILENT.has(tag) || element.hasAttribute('hidden') || element.getAttribute('aria-hidden') === 'true')
      return;
    if (tag === 'BR') {
      loose += ' ';
      return;
    }
    if (
      BLOCKS.has(tag) &&
      !(tag === 'LI' && element.querySelector('p,li')) &&
      !(tag === 'BLOCKQUOTE' && element.querySelector('p'))
    ) {
      flush();
      const siblings =
        tag === 'LI' && element.parentElement?.tagName.toUpperCase() === 'OL'
          ? [...element.parentElement.children].filter((c) => c.tagName.toUpperCase() === 'LI')
          : [];
      const type = /^H\d$/.test(tag)
        ? 'heading'
        : tag === 'LI'
          ? 'item'
          : tag === 'BLOCKQUOTE'
            ? 'quote'
            : 'paragraph';
      add(type, spoken(element), siblings.length ? siblings.indexOf(element) + 1 : undefined);
      return;
    }
    const block = /^(DIV|SECTION|ARTICLE|MAIN|UL|OL|DL|HEADER|BLOCKQUOTE|LI|BODY)$/.test(tag);
    if (block) flush();
    for (const child of element.childNodes) walk(child, depth + 1);
    if (block) flush();
  };
  if (root) walk(root, 0);
  flush();
  return out;
}

/** Text of a block without what is not read: footnote marks, scripts. */
function spoken(element: Element): string {
  let text = '';
  const walk = (node: Node, depth: number) => {
    if (depth > DEEPEST) return;
    if (node.nodeType === 3) text += node.textContent ?? '';
    else if (node.nodeType === 1 && !SILENT.has((node as Element).tagName.toUpperCase())) {
      if ((node as Element).tagName.toUpperCase() === 'BR') text += ' ';
      for (const child of node.childNodes) walk(child, depth + 1);
    }
  };
  walk(element, 0);
  return text;
}
