/** Elements → passages in reading order. */
import type { RawBlock } from '../../document.ts';
import { placeInList } from '../../page/ofHtml.ts';
import { tidy } from '../../tidy.ts';
import { SILENT, isFurniture, isFurnitureLine } from './furniture.ts';

const BLOCKS = new Set(['P', 'H1', 'H2', 'H3', 'H4', 'H5', 'H6', 'LI', 'BLOCKQUOTE', 'DT', 'DD']);
const CONTAINER =
  /^(DIV|SECTION|ARTICLE|MAIN|UL|OL|DL|HEADER|BLOCKQUOTE|LI|BODY|TABLE|TBODY|TR|TD|TH|CENTER|DETAILS|SUMMARY|HR)$/;
/** The deepest nesting that is followed; deeper markup is hostile or broken. */
const DEEPEST = 200;

const tagOf = (element: Element) => element.tagName.toUpperCase();
const childrenOf = (element: Element, tag: string) => [...element.children].filter((c) => tagOf(c) === tag);

/** Text of an element without what is not read; elements of `without` are left to others. */
export function spoken(element: Element, without: ReadonlySet<string> = new Set()): string {
  let text = '';
  const walk = (node: Node, depth: number) => {
    if (depth > DEEPEST) return;
    if (node.nodeType === 3) text += node.textContent ?? '';
    else if (node.nodeType === 1) {
      const child = node as Element;
      const tag = tagOf(child);
      if (
        SILENT.has(tag) ||
        without.has(tag) ||
        child.hasAttribute('hidden') ||
        child.getAttribute('aria-hidden') === 'true'
      )
        return;
      if (/(?:^|\s)(?:footnote-ref|mw-editsection|noprint)(?:$|\s)/.test(child.getAttribute('class') ?? ''))
        return;
      if (tag === 'BR' || CONTAINER.test(tag)) text += ' ';
      for (const c of child.childNodes) walk(c, depth + 1);
    }
  };
  for (const c of element.childNodes) walk(c, 1);
  return text;
}

const LISTS = new Set(['UL', 'OL']);

/** A table of figures as rows, "Year: 1912; Boats: 16,300"; null when the table only lays out the page. */
function rowsOf(table: Element): RawBlock[] | null {
  if (table.querySelector('table,p,ul,ol,h1,h2,h3')) return null;
  const rows = [...table.querySelectorAll('tr')];
  if (rows.length < 2) return null;
  const cells = (row: Element) => [...row.children].filter((c) => /^T[DH]$/.test(tagOf(c)));
  const heads = cells(rows[0]);
  if (heads.length < 2 || !heads.every((h) => tagOf(h) === 'TH')) return null;
  const names = heads.map((h) => tidy(spoken(h)));
  return rows.slice(1).flatMap((row): RawBlock[] => {
    const said = cells(row)
      .map((c, i) => [names[i] ?? '', tidy(spoken(c))] as const)
      .filter(([, value]) => value)
      .map(([name, value]) => (name ? `${name}: ${value}` : value));
    return said.length ? [{ type: 'row', text: said.join('; ') }] : [];
  });
}

/** Passages below an element. Loose text between block elements becomes a paragraph of its own. */
export function collect(root: Element | null): RawBlock[] {
  const out: RawBlock[] = [];
  const letters = (root?.textContent ?? '').length;
  let loose = '';
  const add = (type: RawBlock['type'], text: string, place: { step?: number; within?: number } = {}) => {
    const clean = tidy(text).replace(/\s?\[(?:\d{1,3}|[a-z]|note \d+)\]/g, '');
    if (clean && /[\p{L}\p{N}]/u.test(clean) && !isFurnitureLine(clean))
      out.push({ type, text: clean, ...place });
  };
  const flush = () => {
    add('paragraph', loose);
    loose = '';
  };
  const item = (element: Element, depth: number) => {
    const nested = [...element.children].filter((c) => LISTS.has(tagOf(c)));
    const paragraphs = childrenOf(element, 'P');
    const place = placeInList(element);
    // A step of several paragraphs stays one step.
    add(
      'item',
      paragraphs.length > 1 ? paragraphs.map((p) => spoken(p)).join(' ') : spoken(element, LISTS),
      place,
    );
    for (const list of nested) walk(list, depth + 1);
  };
  const walk = (node: Node, depth: number) => {
    if (depth > DEEPEST) return;
    if (node.nodeType === 3) {
      loose += node.textContent ?? '';
      return;
    }
    if (node.nodeType !== 1) return;
    const element = node as Element;
    const tag = tagOf(element);
    // What the caller chose to read is no furniture, whatever its name.
    if (element !== root && isFurniture(element, letters)) return;
    if (tag === 'BR') {
      // Two line breaks in a row part paragraphs in old markup.
      const next = element.nextElementSibling;
      if (
        next &&
        tagOf(next) === 'BR' &&
        !tidy(element.nextSibling === next ? '' : (element.nextSibling?.textContent ?? ''))
      )
        flush();
      else loose += ' ';
      return;
    }
    if (tag === 'TABLE') {
      const rows = rowsOf(element);
      if (rows) {
        flush();
        out.push(...rows);
        return;
      }
    }
    if (tag === 'LI') {
      flush();
      item(element, depth);
      return;
    }
    if (BLOCKS.has(tag) && !(tag === 'BLOCKQUOTE' && element.querySelector('p'))) {
      flush();
      add(/^H\d$/.test(tag) ? 'heading' : tag === 'BLOCKQUOTE' ? 'quote' : 'paragraph', spoken(element));
      return;
    }
    const block = CONTAINER.test(tag);
    if (block) flush();
    for (const child of element.childNodes) walk(child, depth + 1);
    if (block) flush();
  };
  if (root) walk(root, 0);
  flush();
  return out;
}
