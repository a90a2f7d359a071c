/** A parsed page → its atoms in reading order. Nothing is judged here but what nobody can see: scripts, styles, hidden elements. */
import { rowsOf, type TableRow } from '../rows.ts';
import { tidy } from '../tidy.ts';
import type { Atom } from './atom.ts';
import { atomsOfText } from './ofText.ts';
import { lettersBelow } from './lettersBelow.ts';
import { DAY, isStamp } from './shapes.ts';
import { stylesOf } from './styles.ts';

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
    .split(/[\s,;[\]():]+/)
    .filter(Boolean)
    .every((mark) => NOTE_MARK.test(mark));
/** The deepest nesting that is followed; deeper markup is hostile or broken. */
const DEEPEST = 200;
/** The most atoms that are made of one page. */
export const MOST_ATOMS = 40_000;

const tagOf = (e: Element) => e.tagName.toUpperCase();
/** A mark set high, or a number that links to a note on the page. */
const isNote = (e: Element) => {
  const text = e.textContent ?? '';
  if (tagOf(e) === 'SUP') return isNoteMark(text);
  return (
    tagOf(e) === 'A' && /^#/.test(e.getAttribute('href') ?? '') && /[\d*†‡§¶]/.test(text) && isNoteMark(text)
  );
};
const namesOf = (e: Element) => `${e.getAttribute('class') ?? ''} ${e.id ?? ''}`.trim();
/** What it says it is, to those who hear the page. */
const rolesOf = (e: Element) => `${e.getAttribute('role') ?? ''} ${e.getAttribute('aria-label') ?? ''}`.slice(0, 80).trim(); // prettier-ignore

export function unseen(e: Element): boolean {
  if (UNSEEN.has(tagOf(e)) || e.hasAttribute('hidden')) return true;
  return /(?:display\s*:\s*none|visibility\s*:\s*hidden)/i.test(e.getAttribute('style') ?? '');
}

interface Place {
  tags: string[];
  /** Class names and ids: what is set alike has them alike. */
  names: string[];
  /** With what each says it is. */
  named: string[];
  headed: boolean;
  ids: number[];
  /** A picture and few words are all that an element around it holds. */
  pictured: boolean;
}

/** Atoms below `root`. */
export function atomsOfHtml(root: Element | null): Atom[] {
  const out: Atom[] = [];
  const styles = stylesOf(root);
  const frames = framesOf(root);
  const hidden = (e: Element) => unseen(e) || styles.none.has(e);
  let ids = 0;
  /** Words that have been read and belong to no atom yet, line by line. */
  let loose: Line[] = [emptyLine()];
  /** A rule was drawn since the last atom. */
  let ruled = false;
  const say = (words: string) => {
    loose.at(-1)!.text += words;
  };

  const flush = (place: Place, extra: Partial<Atom> = {}) => {
    const parts = partsOf(loose);
    loose = [emptyLine()];
    const [tag] = place.tags;
    const type =
      /^H\d$/.test(tag) || place.headed
        ? 'heading'
        : tag === 'LI'
          ? 'item'
          : place.tags.includes('FIGCAPTION') || tag === 'CAPTION'
            ? 'caption'
            : place.tags.includes('BLOCKQUOTE')
              ? 'quote'
              : 'paragraph';
    const look = place.tags.slice(0, 3).map((t, i) => `${t}.${lookOf(place.names[i])}`).join('>'); // prettier-ignore
    for (const part of parts) {
      const text = tidy(part.text).replace(/\s?\[\s?edit(?:\s?\|?\s?(?:edit )?source)?\s?\]/gi, '');
      if (!/[\p{L}\p{N}]/u.test(text) || out.length >= MOST_ATOMS) continue;
      // What a page sets in one span alone is set alike where the span is.
      const [wrap] = part.wraps;
      const wrapped = part.wraps.size === 1 && wrap ? `${wrap}>${look}` : look;
      out.push({
        text,
        type: part.item ? 'item' : type,
        tag,
        above: place.tags.slice(1),
        named: place.named,
        look: part.signed ? `${wrapped}+signed` : wrapped,
        inside: place.ids,
        linked: Math.min(part.linked, text.length),
        bold: Math.min(part.bold, text.length),
        ...(part.time ? { time: part.time } : {}),
        ...(place.pictured ? { pictured: true as const } : {}),
        ...(part.spans.length ? { spans: part.spans } : {}),
        ...(ruled ? { ruled: true as const } : {}),
        ...extra,
      });
      ruled = false;
    }
  };

  const inline = (node: Node, depth: number, link: boolean, bold: boolean, wrap = '') => {
    if (depth > DEEPEST) return;
    if (node.nodeType === 3) {
      const said = node.textContent ?? '';
      const line = loose.at(-1)!;
      line.text += said;
      const n = tidy(said).length;
      if (n) line.wraps.add(wrap);
      if (link) line.linked += n;
      if (bold) line.bold += n;
    } else if (node.nodeType === 1) {
      const e = node as Element;
      const tag = tagOf(e);
      if (hidden(e)) return;
      if (isNote(e)) return;
      if (tag === 'BR' || tag === 'WBR') {
        if (tag === 'BR') loose.push(emptyLine());
        return;
      }
      loose.at(-1)!.time ||= timeOf(e);
      if (abuts(e, loose.at(-1)!.text)) say(' ');
      const said = e.children.length < 3 ? tidy(e.textContent ?? '') : '';
      if (said && said.length <= 60) loose.at(-1)!.spans.push(said);
      const quoted = isCited(e, loose.at(-1)!.text);
      const from = loose.at(-1)!.text.length;
      for (const c of e.childNodes)
        inline(
          c,
          depth + 1,
          link || tag === 'A',
          bold || BOLD.has(tag),
          wrap || `${tag}.${lookOf(namesOf(e))}`,
        );
      if (quoted) {
        const line = loose.at(-1)!;
        const own = line.text.slice(from);
        const words = own.trim();
        line.text = `${line.text.slice(0, from)}${own.replace(words, () => `“${words}”`)}`;
      }
    }
  };

  const walk = (e: Element, place: Place, depth: number, extra: Partial<Atom>) => {
    if (depth > DEEPEST || out.length >= MOST_ATOMS) return;
    const tag = tagOf(e);
    const here: Place = {
      tags: [tag, ...place.tags],
      names: [namesOf(e), ...place.names],
      named: [`${namesOf(e)} ${rolesOf(e)}`.trim(), ...place.named],
      headed: e.getAttribute('role') === 'heading',
      ids: [ids++, ...place.ids],
      pictured: place.pictured || frames.has(e),
    };
    if (tag === 'TABLE') {
      const rows = tableRows(e);
      if (rows) {
        const caption = [...e.children].find((c) => tagOf(c) === 'CAPTION');
        if (caption) walk(caption, here, depth + 1, {});
        for (const row of rows) {
          loose = [{ ...emptyLine(), text: row.text, linked: row.linked }];
          flush({ ...here, tags: ['TR', ...here.tags], names: ['', ...here.names], named: ['', ...here.named], ids: [ids++, ...here.ids] },
            { type: 'row', ...(row.heads ? { heads: row.heads } : {}) }); // prettier-ignore
        }
        return;
      }
    }
    const terms = tag === 'DL' ? termsOf(e) : null;
    if (terms) {
      for (const text of terms) {
        loose = [{ ...emptyLine(), text }];
        flush({ ...here, tags: ['LI', ...here.tags], names: ['', ...here.names], named: ['', ...here.named], ids: [ids++, ...here.ids] }); // prettier-ignore
      }
      return;
    }
    if (
      (tag === 'PRE' || styles.typed.has(e) || TYPED_STYLE.test(e.getAttribute('style') ?? '')) &&
      isTypedProse(e)
    ) {
      // A letter, a story: what it is in is read like text without tags.
      for (const a of atomsOfText(e.textContent ?? '', true).slice(0, MOST_ATOMS - out.length))
        out.push({
          ...a,
          tag: 'P',
          above: here.tags.map((t) => (t === 'PRE' ? 'DIV' : t)),
          named: ['', ...here.named],
          look: `TYPED${a.look}>${here.tags.slice(0, 2).join('>')}`,
          inside: [ids++, ...here.ids],
        }); // prettier-ignore
      return;
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
      if (hidden(child)) continue;
      const childTag = tagOf(child);
      if (childTag === 'HR') {
        done();
        ruled = true;
        continue;
      }
      if (whole && childTag === 'P') {
        say(' ');
        inline(child, depth + 1, false, false);
        say(' ');
      } else if (
        BLOCK.has(childTag) ||
        styles.block.has(child) ||
        BLOCK_ROLE.test(child.getAttribute('role') ?? '') ||
        holdsBlock(child) ||
        (!RUNNING.test(tag) && standsAlone(child))
      ) {
        done();
        const before = out.length;
        walk(child, here, depth + 1, childTag === 'UL' || childTag === 'OL' ? {} : own);
        if (out.length > before && childTag !== 'UL' && childTag !== 'OL') own = {};
      } else inline(child, depth + 1, false, BOLD.has(tag));
    }
    done();
  };
  if (root) walk(root, { tags: [], names: [], named: [], headed: false, ids: [], pictured: false }, 0, {});
  return numbered(out);
}

const TYPED_STYLE = /white-space\s*:\s*(?:pre\b(?!-)|pre-wrap|pre-line|break-spaces)/i;
/** Whether what is set line by line is words and no code: sentences end in it, and signs of code are few. */
function isTypedProse(e: Element): boolean {
  const text = e.textContent ?? '';
  if (!text.includes('\n') || e.querySelector('p,div,li,table')) return false;
  const ends = (text.match(/\p{Ll}{2}[.!?]["'”’)]*(?=\s|$)/gu) ?? []).length;
  const signs = (text.match(/[{}[\]()=;<>\\|$#&*]/g) ?? []).length;
  return ends >= 3 && signs < text.length * 0.03;
}

/** Words set in italics within a sentence, from so many on, are somebody's: an inscription, a title. Fewer are stress, or another language. */
const CITED_WORDS = 3;
/** Whether the page's type stands for quotation marks: a `q`, whose marks a browser draws, or a run in italics within a sentence. */
function isCited(e: Element, before: string): boolean {
  const tag = tagOf(e);
  const said = tidy(e.textContent ?? '');
  if (/^["“”'‘’«»]|["“”«»]$/.test(said) || /["“‘(]\s*$/.test(before)) return false;
  if (tag === 'Q') return said.length > 0;
  if (tag !== 'I' && tag !== 'CITE') return false;
  const after = tidy(e.nextSibling?.textContent ?? '');
  return (
    said.split(' ').length >= CITED_WORDS &&
    /[\p{L},]\s*$/u.test(before) &&
    /^[\p{L},.;:)]/u.test(after) &&
    !/[.!?]$/.test(said)
  );
}

/** Elements whose inline children are one run of words. */
const RUNNING = /^(?:P|LI|H[1-6]|FIGCAPTION|CAPTION|DT|LABEL|BUTTON|A)$/;
/** Roles whose element is set as a block (WAI-ARIA 1.2, document structure). */
const BLOCK_ROLE = /^(?:heading|paragraph|article|listitem|list|row|cell|navigation|complementary|banner|contentinfo|main|region|note|figure|form|search)$/; // prettier-ignore
const SENTENCE = /[.!?…:]["'”’)\]]*$/u;
const isSentences = (text: string) => text.length >= 60 && SENTENCE.test(text);

/** An inline element that is set as a paragraph: it holds sentences, or stands between such, and no word is beside it. */
function standsAlone(e: Element): boolean {
  const beside = (step: 'previousSibling' | 'nextSibling'): Element | null | undefined => {
    let node = e[step];
    while (node && (node.nodeType === 8 || (node.nodeType === 3 && !node.textContent?.trim()))) node = node[step]; // prettier-ignore
    return !node ? null : node.nodeType === 1 ? (node as Element) : undefined;
  };
  const before = beside('previousSibling');
  const after = beside('nextSibling');
  if (before === undefined || after === undefined || (!before && !after)) return false;
  const said = (x: Element | null) => isSentences(tidy(x?.textContent ?? ''));
  // A sentence in bold, with the next one in italics, is one paragraph; spans or elements of a page's own are set apart.
  const own = (x: Element) => /^(?:SPAN|FONT)$|-/.test(tagOf(x));
  return (own(e) && said(e)) || [before, after].some((x) => x !== null && own(x) && said(x));
}

const NUMBER = /^(?:step\s)?(\d{1,2})[.):]?$/i;
/** Steps whose numbers stand in elements of their own, beside their words: at least two, counted up. */
function numbered(atoms: Atom[]): Atom[] {
  const found: { at: number; step: number }[] = [];
  atoms.forEach((a, at) => {
    const step = Number(NUMBER.exec(a.text)?.[1] ?? NaN);
    const next = atoms[at + 1];
    if (!step || a.step || a.type === 'row' || !next || next.type !== 'paragraph' || next.text.length < 12 || NUMBER.test(next.text)) return; // prettier-ignore
    if (a.inside[1] === undefined || !next.inside.includes(a.inside[1])) return;
    const last = found.at(-1)?.step ?? 0;
    if (step === 1 || step === last + 1) found.push({ at, step });
  });
  if (found.length < 2 || !found.some((f) => f.step === 2)) return atoms;
  const numbers = new Set(found.map((f) => f.at));
  const steps = new Map(found.map((f) => [f.at + 1, f.step]));
  return atoms
    .map((a, i): Atom => (steps.has(i) ? { ...a, type: 'item', step: steps.get(i)! } : a))
    .filter((_, i) => !numbers.has(i));
}

/** Whether two elements beside one another are two words, though no blank parts them: a style sheet sets them apart. */
function abuts(e: Element, before: string): boolean {
  const prev = e.previousSibling;
  if (!prev || prev.nodeType !== 1 || !/[\p{L}\p{N}]$/u.test(before)) return false;
  const [a, b] = [prev.textContent ?? '', e.textContent ?? ''];
  // A letter alone is a drop cap, or a word set letter by letter.
  if (a.trim().length < 2 || b.trim().length < 2) return false;
  return /^[\p{Lu}\p{N}]/u.test(b) || (tagOf(e) === 'A' && tagOf(prev as Element) === 'A');
}

const LIST_MARK = /^\s*(?:[-–•*·]|\d{1,2}[.)])\s+(?=\S)/;
const SIGNATURE = /^\s*(?:_{4,}|-{4,}|--\s*$)/;

interface Line {
  text: string;
  linked: number;
  bold: number;
  time: string;
  spans: string[];
  /** The inline elements its words stand in. */
  wraps: Set<string>;
  joined?: boolean;
}
const emptyLine = (): Line => ({ text: '', linked: 0, bold: 0, time: '', spans: [], wraps: new Set() });
interface Part extends Line {
  item?: boolean;
  signed?: boolean;
}

/**
 * A run of words with line breaks: two in a row part paragraphs in old markup. Single ones are joined where the words run on;
 * they part a list typed by hand, a sentence from a label, a link or a time. What stands under a rule is a signature.
 */
function partsOf(lines: readonly Line[]): Part[] {
  if (lines.length === 1) return [lines[0]];
  const rule = lines.findIndex((l) => SIGNATURE.test(l.text));
  const own = rule < 0 ? lines : lines.slice(0, rule);
  const listed = own.filter((l) => LIST_MARK.test(l.text)).length >= 2;
  const parts: Part[] = [];
  let before: Line | undefined;
  for (const line of own) {
    if (!line.text.trim()) before = undefined;
    else if (listed && LIST_MARK.test(line.text)) {
      parts.push({ ...line, text: line.text.replace(LIST_MARK, ''), item: true });
      before = undefined;
    } else {
      if (before && runsOn(before, line)) parts[parts.length - 1] = joined(parts.at(-1)!, line);
      else parts.push(line);
      before = line;
    }
  }
  if (rule >= 0) parts.push({ ...lines.slice(rule).reduce(joined), signed: true });
  return parts;
}

/** When something was said, as the markup has it: in its own attribute, in what the pointer shows, or kept there for a script. */
function timeOf(e: Element): string {
  const own = e.getAttribute('datetime');
  if (own && tagOf(e) === 'TIME') return own;
  const shown = e.getAttribute('title') ?? '';
  if (shown.length <= 60 && DAY.test(shown)) return shown;
  for (const { name, value } of e.attributes)
    if (name.startsWith('data-') && /^\d{4}-\d{2}-\d{2}[T ]\d{2}:\d{2}/.test(value) && value.length <= 40) return value; // prettier-ignore
  return '';
}

/** A line that is joined to others is still known as what it was. */
const spansOf = (l: Line) => {
  const text = tidy(l.text);
  return text.length <= 120 && !/[.,;:!?…]["'”’)]*$/.test(text) ? [text] : l.spans;
};
const joined = (a: Line, b: Line): Line => ({
  text: `${a.text} ${b.text}`,
  linked: a.linked + b.linked,
  bold: a.bold + b.bold,
  time: a.time || b.time,
  spans: [...(a.joined ? a.spans : spansOf(a)), ...spansOf(b)],
  joined: true,
  wraps: new Set([...a.wraps, ...b.wraps]),
});

function runsOn(before: Line, line: Line): boolean {
  const [a, b] = [tidy(before.text), tidy(line.text)];
  const apart = (l: Line, text: string) => l.linked > text.length * 0.9 || isStamp(text);
  if (apart(before, a) !== apart(line, b)) return false;
  if (/^\p{Ll}/u.test(b) || (a.length >= 50 && !SENTENCE.test(a))) return true;
  return !isSentences(a) && !isSentences(b);
}

/** More words than this around a picture are no caption. */
const FRAME_LETTERS = 400;
/** Elements that hold a picture and few words beside it. */
function framesOf(root: Element | null): ReadonlySet<Element> {
  const frames = new Set<Element>();
  const below = lettersBelow(root);
  for (const picture of root?.querySelectorAll('img,picture,svg,video') ?? [])
    for (let up = picture.parentElement, n = 0; up && up !== root && n < 5; up = up.parentElement, n++) {
      if (frames.has(up)) break;
      const letters = below.get(up) ?? 0;
      if (letters > FRAME_LETTERS) break;
      // A paragraph with a picture in it and more than a few words is a paragraph.
      if (letters && !/^(?:A|H\d|LI)$/.test(tagOf(up)) && (tagOf(up) !== 'P' || letters < FRAME_LETTERS / 3))
        frames.add(up);
    }
  return frames;
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

/** Words of a date over what happened; more are a sentence. */
const LONGEST_TERM = 6;
/** A list of years and what happened in each ("1811", "Cast from melted cannon"), each pair as one text; null where it is something else: what stands beside each post of a board has labels. */
function termsOf(list: Element): string[] | null {
  const all = [...list.children];
  if (all.length < 4 || all.length % 2 || list.querySelector('dl,ul,ol,table,a,p,div')) return null;
  const pairs = all.filter((_, i) => i % 2 === 0).map((term, i) => [term, all[i * 2 + 1]] as const);
  if (!pairs.every(([t, d]) => tagOf(t) === 'DT' && tagOf(d) === 'DD')) return null;
  const said = pairs.map(([t, d]) => [cellText(t).replace(/\s*:$/, ''), cellText(d)] as const);
  if (said.some(([t, d]) => !/\d{3}/.test(t) || !d || t.split(' ').length > LONGEST_TERM || /[.!?]$/.test(t)))
    return null;
  return said.map(([t, d]) => `${t}: ${d}`);
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
      if (unseen(e) || isNote(e)) return;
      if (tagOf(e) === 'BR' || BLOCK.has(tagOf(e))) text += ' ';
      for (const c of e.childNodes) walk(c, depth + 1);
    }
  };
  for (const c of cell.childNodes) walk(c, 1);
  return tidy(text);
}
