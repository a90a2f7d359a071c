/** A finished draft in a file of any kind → the text that `readDraft` takes: DOCX by mammoth, web pages, plain text, captions. */
import { decodeText } from '../source/decode.ts';
import { SourceError } from '../source/document.ts';
import { docxOpener, htmlOfDocx } from '../source/openers/docx.ts';
import { isZip } from '../source/openers/zip.ts';
import { parsedHtml } from '../source/readers/html/parse.ts';

/** The longest draft that is read, in bytes: ten times the longest script. */
export const LARGEST_DRAFT = 4 * 1024 * 1024;
const DEEPEST = 200;
const SILENT = new Set([
  'SCRIPT',
  'STYLE',
  'HEAD',
  'NAV',
  'TEMPLATE',
  'NOSCRIPT',
  'SVG',
  'DEL',
  'S',
  'STRIKE',
  'FORM',
  'BUTTON',
  'IFRAME',
  'OBJECT',
  'VIDEO',
  'AUDIO',
]);
const BLOCK =
  /^(?:P|DIV|SECTION|ARTICLE|UL|OL|BLOCKQUOTE|TABLE|FIGURE|DL|DD|DT|HEADER|FOOTER|MAIN|BODY|HTML)$/;

const unseen = (e: Element): boolean =>
  e.hasAttribute('hidden') ||
  /display\s*:\s*none|visibility\s*:\s*hidden/i.test(e.getAttribute('style') ?? '');
/** A number or sign that points to a note; "10³" is no such. */
const isNoteMark = (sup: Element): boolean =>
  sup.querySelector('a') !== null || /^\s*[[(]?[*†‡§a-z][\])]?\s*$/.test(sup.textContent ?? '');

/** What an editor's page calls the remarks that people leave beside a text: kept in brackets, as notes. */
const LONGEST_COMMENT = 400;
const COMMENT = /(?:^|[-_\s])comments?(?:$|[-_\s])/i;

/** A new line within a cell, as tables of pipes write it. */
const CELL_BREAK = '<br>';
/** Headings, lists, tables and emphasis of a page as the marks people type, so that one set of rules reads both. */
export async function draftTextOfHtml(html: string): Promise<string> {
  const document = await parsedHtml(/<html|<body/i.test(html) ? html : `<html><body>${html}</body></html>`);
  const notes = new Set(
    [...document.querySelectorAll('sup a[href^="#"], a[role="doc-noteref"]')].map((a) =>
      (a.getAttribute('href') ?? '').slice(1),
    ),
  );
  let out = '';
  const walk = (node: ChildNode, depth: number): void => {
    if (depth > DEEPEST) return;
    if (node.nodeType === 3) {
      out += (node.textContent ?? '').replace(/\s+/g, ' ');
      return;
    }
    if (node.nodeType !== 1) return;
    const element = node as Element;
    const tag = element.tagName.toUpperCase();
    if (SILENT.has(tag) || unseen(element) || notes.has(element.id)) return;
    if (
      COMMENT.test(element.getAttribute('class') ?? '') &&
      BLOCK.test(tag) &&
      (element.textContent ?? '').length < LONGEST_COMMENT
    ) {
      out += `\n\n[${(element.textContent ?? '').replace(/[[\]\s]+/g, ' ').trim()}]\n\n`;
      return;
    }
    if (tag === 'SUP' && isNoteMark(element)) return;
    const inside = () => element.childNodes.forEach((c) => walk(c, depth + 1));
    const around = (mark: string) => {
      const at = out.length;
      inside();
      const text = out.slice(at);
      out =
        out.slice(0, at) +
        (text.trim() ? text.replace(text.trim(), (words) => `${mark}${words}${mark}`) : text);
    };
    const heading = /^H([1-6])$/.exec(tag);
    if (heading) {
      out += `\n\n${'#'.repeat(Number(heading[1]))} `;
      inside();
      out += '\n\n';
    } else if (tag === 'BR') out += element.closest('td,th') ? CELL_BREAK : '\n';
    else if (tag === 'HR') out += '\n\n---\n\n';
    else if (tag === 'LI') {
      out += '\n- ';
      inside();
    } else if (tag === 'TR') {
      out += '\n| ';
      inside();
    } else if (tag === 'TD' || tag === 'TH') {
      const at = out.length;
      inside();
      out = `${out.slice(0, at)}${out
        .slice(at)
        .replace(/\s+/g, ' ')
        .replace(/\|/g, '/')
        .replace(/(?:<br>\s*)+$/, '')
        .trim()} | `;
    } else if (tag === 'B' || tag === 'STRONG') around('**');
    else if (tag === 'I' || tag === 'EM') around('*');
    else if (BLOCK.test(tag)) {
      const cell = element.closest('td,th');
      out += cell ? ' ' : '\n\n';
      inside();
      out += cell ? CELL_BREAK : '\n\n';
    } else inside();
  };
  for (const child of [...document.body.childNodes]) walk(child, 0);
  return out
    .replace(/[ \t]+\n/g, '\n')
    .replace(/\n[ \t]+/g, '\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();
}

/** The text of a draft in a file. Throws SourceError, in the person's words, on what can't be read as a draft. */
export async function draftText(bytes: Uint8Array): Promise<string> {
  if (bytes.length > LARGEST_DRAFT)
    throw new SourceError('too-long', 'A draft can have at most 4 MB. Open the part you need.');
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 4096));
  if (docxOpener.accepts(bytes, head)) return draftTextOfHtml(await htmlOfDocx(bytes));
  if (isZip(bytes) || head.startsWith('%PDF'))
    throw new SourceError(
      'binary',
      'A draft is read from text, Markdown, DOCX, HTML, Fountain or captions. Paste its words instead.',
    );
  const text = decodeText(bytes);
  return /^\s*(?:<!doctype html|<html|<body|<(?:p|div|h[1-6]|table|article|section|ul|ol)[\s>])/i.test(text)
    ? draftTextOfHtml(text)
    : text;
}
