/** A parsed page → its atoms in reading order. Nothing is judged here but what nobody can see: scripts, styles, hidden elements. */
import { rowsOf, type TableRow } from '../rows.ts';
import { tidy } from '../tidy.ts';
import type { Atom } from './atom.ts';

const UNSEEN = new Set(
  'SCRIPT STYLE NOSCRIPT TEMPLATE SVG IFRAME SELECT OPTION TEXTAREA INPUT HEAD OBJECT VIDEO AUDIO CANVAS MATH META LINK MAP DATALIST'.split(' '),
); // prettier-ignore
const BLOCK = new Set(
  'ADDRESS ARTICLE ASIDE BLOCKQUOTE BODY BUTTON CAPTION CENTER DD DETAILS DIALOG DIV DL DT FIELDSET FIGCAPTION FIGURE FOOTER FORM H1 H2 H3 H4 H5 H6 HEADER HR LABEL LEGEND LI MAIN MENU NAV OL P PRE SECTION SUMMARY TABLE TBODY TD TFOOT TH THEAD TR UL'.split(' '),
); // prettier-ignore
const BOLD = new Set(['B', 'STRONG']);
/** Marks of a note in the text: numbers and signs set high, "[edit]". */
const NOTE_MARK = /^(?:\d{1,3}|[a-z]|[*†‡§¶✎^]+|edit|note|citation|clarification|needed|needs|update|who\?|when\?|dubious.*)$/i; // prettier-ignore
/** Whether it is a footnote's mark or an editor's, or several of them. */
const isNoteMark = (text: string): boolean =>
  text
    .split(/[\s,;[\]()]+/)
    .filter(Boolean)
    .every((mark) => NOTE_MARK.test(mark));
/** The deepest nesting that is followed; deeper markup is hostile or broken. */
const DEEPEST = 200;
/** The most atoms that are made of one page. */
export const MOST_ATOMS = 40_000;

/** Stands for a line break inside a paragraph until the paragraph ends. */
const LINE = '\u0001';

const tagOf = (e: Element) => e.tagName.toUpperCase();
const namesOf = (e: Element) => `${e.getAttribute('class') ?? ''} ${e.id ?? ''}`.trim();

export function unseen(e: Element): boolean {
  if (UNSEEN.has(tagOf(e)) || e.hasAttribute('hidden')) return true;
  return /(?:display\s*:\s*none|visibility\s*:\s*hidden)/i.test(e.getAttribute('style') ?? '');
}

interface Place {
  tags: string[];
  names: string[];
  ids: number[];
}

/** Atoms below `root`. */
export function atomsOfHtml(root: Element | null): Atom[] {
  const out: Atom[] = [];
  let ids = 0;
  const emptied = () => ({
    text: '',
    linked: 0,
    bold: 0,
    time: '',
    spans: [] as string[],
    wraps: new Set<string>(),
  });
  let loose = emptied();

  const flush = (place: Place, extra: Partial<Atom> = {}) => {
    const { linked, bold, time, spans, wraps } = loose;
    const parts = partsOf(loose.text);
    loose = emptied();
    const [tag] = place.tags;
    const type = /^H\d$/.test(tag)
      ? 'heading'
      : tag === 'LI'
        ? 'item'
        : place.tags.includes('FIGCAPTION') || tag === 'CAPTION'
          ? 'caption'
          : place.tags.includes('BLOCKQUOTE')
            ? 'quote'
            : 'paragraph';
    const look = place.tags.slice(0, 3).map((t, i) => `${t}.${lookOf(place.names[i])}`).join('>'); // prettier-ignore
    // What a page sets in one span alone is set alike where the span is.
    const [wrap] = wraps;
    const wrapped = wraps.size === 1 && wrap ? `${wrap}>${look}` : look;
    for (const part of parts) {
      const text = tidy(part.text).replace(/\s?\[\s?(?:edit|edit source)\s?\]/gi, '');
      if (!/[\p{L}\p{N}]/u.test(text) || out.length >= MOST_ATOMS) continue;
      out.push({
        text,
        type: part.item ? 'item' : type,
        tag,
        above: place.tags.slice(1),
        named: place.names,
        look: part.signed ? `${wrapped}+signed` : wrapped,
        inside: place.ids,
        linked: Math.min(linked, text.length),
        bold: Math.min(bold, text.length),
        ...(time ? { time } : {}),
        ...(spans.length ? { spans } : {}),
        ...extra,
      });
    }
  };

  const inline = (node: Node, depth: number, link: boolean, bold: boolean, wrap = '') => {
    if (depth > DEEPEST) return;
    if (node.nodeType === 3) {
      const said = node.textContent ?? '';
      loose.text += said.replace(/\u0001/g, '');
      const n = tidy(said).length;
      if (n) loose.wraps.add(wrap);
      if (link) loose.linked += n;
      if (bold) loose.bold += n;
    } else if (node.nodeType === 1) {
      const e = node as Element;
      const tag = tagOf(e);
      if (unseen(e)) return;
      if (tag === 'SUP' && isNoteMark(e.textContent ?? '')) return;
      if (tag === 'BR' || tag === 'WBR') {
        if (tag === 'BR') loose.text += LINE;
        return;
      }
      if (tag === 'TIME') loose.time ||= e.getAttribute('datetime') ?? '';
      const said = e.children.length < 3 ? tidy(e.textContent ?? '') : '';
      if (said && said.length <= 60) loose.spans.push(said);
      for (const c of e.childNodes)
        inline(
          c,
          depth + 1,
          link || tag === 'A',
          bold || BOLD.has(tag),
          wrap || `${tag}.${lookOf(namesOf(e))}`,
        );
    }
  };

  const walk = (e: Element, place: Place, depth: number, extra: Partial<Atom>) => {
    if (depth > DEEPEST || out.length >= MOST_ATOMS) return;
    const tag = tagOf(e);
    const here: Place = {
      tags: [tag, ...place.tags],
      names: [namesOf(e), ...place.names],
      ids: [ids++, ...place.ids],
    };
    if (tag === 'TABLE') {
      const rows = tableRows(e);
      if (rows) {
        const caption = [...e.children].find((c) => tagOf(c) === 'CAPTION');
        if (caption) walk(caption, here, depth + 1, {});
        for (const row of rows) {
          loose = { ...emptied(), text: row.text, linked: row.linked };
          flush({ ...here, tags: ['TR', ...here.tags], names: ['', ...here.names], ids: [ids++, ...here.ids] },
            { type: 'row', ...(row.heads ? { heads: row.heads } : {}) }); // prettier-ignore
        }
        return;
      }
    }
    // A step of several paragraphs stays one step, and only its first words bear its number.
    const whole = tag === 'LI' && [...e.children].every((c) => !BLOCK.has(tagOf(c)) || tagOf(c) === 'P' || tagOf(c) === 'UL' || tagOf(c) === 'OL'); // prettier-ignore
    let own: Partial<Atom> = tag === 'LI' ? placeInList(e) : extra;
    const done = () => {
      const before = out.length;
      flush(here, own);
      if (out.length > before) own = {};
    };
    for (const node of e.childNodes) {
      if (node.nodeType === 3) inline(node, depth, false, BOLD.has(tag));
      if (node.nodeType !== 1) continue;
      const child = node as Element;
      if (unseen(child)) continue;
      const childTag = tagOf(child);
      if (whole && childTag === 'P') {
        loose.text += ' ';
        inline(child, depth + 1, false, false);
        loose.text += ' ';
      } else if (BLOCK.has(childTag) || holdsBlock(child)) {
        done();
        const before = out.length;
        walk(child, here, depth + 1, childTag === 'UL' || childTag === 'OL' ? {} : own);
        if (out.length > before && childTag !== 'UL' && childTag !== 'OL') own = {};
      } else inline(child, depth + 1, false, BOLD.has(tag));
    }
    done();
  };
  if (root) walk(root, { tags: [], names: [], ids: [] }, 0, {});
  return out;
}

const LIST_MARK = /^\s*(?:[-–•*·]|\d{1,2}[.)])\s+(?=\S)/;
const SIGNATURE = /^\s*(?:_{4,}|-{4,}|--\s*$)/;

interface Part {
  text: string;
  item?: boolean;
  signed?: boolean;
}
/** A run of words with line breaks: two in a row part paragraphs in old markup; single ones are joined, unless they part a list typed by hand. What stands under a rule is a signature. */
function partsOf(text: string): Part[] {
  if (!text.includes(LINE)) return [{ text }];
  const lines = text.split(LINE);
  const signed = lines.findIndex((l) => SIGNATURE.test(l));
  const own = (signed < 0 ? lines : lines.slice(0, signed)).join(LINE);
  const parts = own.split(new RegExp(`${LINE}\\s*${LINE}[\\s${LINE}]*`)).flatMap((paragraph): Part[] => {
    const rows = paragraph.split(LINE);
    return rows.filter((l) => LIST_MARK.test(l)).length >= 2
      ? rows.map((l) => ({ text: l.replace(LIST_MARK, ''), item: LIST_MARK.test(l) }))
      : [{ text: rows.join(' ') }];
  });
  if (signed >= 0) parts.push({ text: lines.slice(signed).join(' '), signed: true });
  return parts;
}

/** Class names without what numbers single elements ("post-2841", "u31"). */
const lookOf = (names: string) =>
  names
    .split(/\s+/)
    .filter((n) => n && !/\d{2,}/.test(n))
    .join('.');

const HOLDS = 'address,article,aside,blockquote,div,dl,fieldset,figure,footer,form,h1,h2,h3,h4,h5,h6,header,li,main,nav,ol,p,pre,section,table,td,ul'; // prettier-ignore
/** Inline elements around blocks: a link around a card, a span around paragraphs. */
const holdsBlock = (e: Element) => e.children.length > 0 && e.querySelector(HOLDS) !== null;

/** Where an item stands in its ordered list, from 1, its list's start counted, and in which step. */
export function placeInList(item: Element): { step?: number; within?: number } {
  const numberOf = (e: Element): number | undefined => {
    const list = e.parentElement;
    if (!list || tagOf(list) !== 'OL') return undefined;
    const start = Number(list.getAttribute('start') ?? 1);
    const items = [...list.children].filter((c) => tagOf(c) === 'LI');
    const given = Number(e.getAttribute('value') ?? NaN);
    return Number.isInteger(given) && given > 0
      ? given
      : (Number.isInteger(start) && start > 0 ? start : 1) + items.indexOf(e);
  };
  const step = numberOf(item);
  if (!step) return {};
  const outer = item.parentElement?.parentElement?.closest('li');
  const within = outer ? numberOf(outer) : undefined;
  return { step, ...(within ? { within } : {}) };
}

interface Row extends TableRow {
  linked: number;
}
/** Letters of a cell above which a table lays out the page. */
const LONGEST_CELL = 160;

/** A table of data as rows of cells; null when the table only lays out the page. */
function tableRows(table: Element): Row[] | null {
  if (table.querySelector('table,ul,ol,h1,h2,h3,h4,blockquote,form,img + br')) return null;
  const rows = [...table.querySelectorAll('tr')].map((r) => [...r.children].filter((c) => /^T[DH]$/.test(tagOf(c)))); // prettier-ignore
  const filled = rows.filter((r) => r.length > 1);
  if (filled.length < 2 || filled.length < rows.length * 0.6) return null;
  const wide = Math.max(...filled.map((r) => r.length));
  if (filled.filter((r) => r.length >= wide - 1).length < filled.length * 0.8) return null;
  const cells = rows.map((r) => r.map((c) => cellText(c)));
  if (cells.flat().some((c) => c.length > LONGEST_CELL)) return null;
  if (cells.flat().filter(Boolean).length < 4) return null;
  const links = rows.flat().reduce((n, c) => n + [...c.querySelectorAll('a')].reduce((k, a) => k + tidy(a.textContent ?? '').length, 0), 0); // prettier-ignore
  const letters = cells.flat().join('').length;
  const headed = rows[0]?.length > 1 && rows[0].every((c) => tagOf(c) === 'TH' || !cellText(c));
  // All cells share the table's links alike.
  return rowsOf(cells, headed).map((r) => ({ ...r, linked: Math.round((r.text.length * links) / Math.max(1, letters)) })); // prettier-ignore
}

/** Words of a cell without notes' marks. */
function cellText(cell: Element): string {
  let text = '';
  const walk = (node: Node, depth: number) => {
    if (depth > DEEPEST) return;
    if (node.nodeType === 3) text += node.textContent ?? '';
    else if (node.nodeType === 1) {
      const e = node as Element;
      if (unseen(e) || (tagOf(e) === 'SUP' && isNoteMark(e.textContent ?? ''))) return;
      if (tagOf(e) === 'BR' || BLOCK.has(tagOf(e))) text += ' ';
      for (const c of e.childNodes) walk(c, depth + 1);
    }
  };
  for (const c of cell.childNodes) walk(c, 1);
  return tidy(text);
}
