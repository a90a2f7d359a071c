/** HTML: the article's body, its furniture dropped, what the page says of itself. Parsed as parse.ts says; nothing is ever run or fetched. */
import type { Readability } from '@mozilla/readability';
import { SourceError, type RawBlock, type RawDocument, type RawLeftOut } from '../../document.ts';
import { tidy } from '../../tidy.ts';
import type { SourceReader } from '../reader.ts';
import { textReader } from '../text.ts';
import { MOST_JUDGED, readAtoms, type PageReading } from '../../page/article.ts';
import { sureness } from '../../page/classify.ts';
import { hashOf } from '../../page/features.ts';
import { pageModel } from '../../page/models.ts';
import { bareTitle, isAbout, titleIn } from '../../page/title.ts';
import { headOf, titleAmong, titleInSubject } from '../../page/head.ts';
import { wordsOf, type Atom } from '../../page/atom.ts';
import { atomsOfHtml } from '../../page/ofHtml.ts';
import { collect } from './blocks.ts';
import { boxesOf, withBoxes } from './box.ts';
import { threadOf } from './board.ts';
import { isFurniture } from './furniture.ts';
import { articleBody, bylineNames, markedAuthors, metadata } from './metadata.ts';
import { parsedHtml } from './parse.ts';

/** Tags nested deeper than this are hostile or broken: the extraction library's time grows with more than the square of the depth. */
const DEEPEST_PAGE = 300;
/** Fewer letters than this is no article. */
const SHORTEST_ARTICLE = 200;
const SHORTEST_POST = 80;

export const htmlReader: SourceReader = {
  id: 'html',
  accepts: (text) => {
    const head = text.slice(0, 4000);
    if (/<!doctype html|<html[\s>]/i.test(head)) return 1;
    const tags = (
      head.match(
        /<\/?(?:p|div|h[1-6]|article|body|section|span|a|br|li|ul|ol|b|i|em|strong|table|tr|t[dh]|font|center|d[ldt]|pre|hr|nav|header|footer|main|aside|blockquote|figure)(?:\s[^>]*)?>/gi,
      ) ?? []
    ).length;
    return tags >= 3 ? 0.8 : 0;
  },
  read: async (text, subject) => {
    if (nesting(text) > DEEPEST_PAGE)
      throw new SourceError(
        'unreadable',
        'This page is nested too deeply to be read. Paste the words of the article instead.',
      );
    const document = await parsedHtml(page(text));
    const said = metadata(document);
    const atoms = atomsOfHtml(document.body);
    const named = titleInSubject(atoms, subject) ?? titleOf(document, atoms, said.title);
    const title = await shownTitle(atoms, named && bareTitle(named));
    const boxes = boxesOf(document, title);
    return withBoxes(await readPage(document, atoms, said, title), boxes);
  },
};

/** The text of a page, by what its pieces are; where that finds little, by the marks it has. */
async function readPage(
  document: Document,
  atoms: readonly Atom[],
  said: ReturnType<typeof metadata>,
  title: string | undefined,
): Promise<RawDocument> {
  const board = said.kind?.is === 'forum';
  const model = await pageModel();
  const { listed, ...head } = headOf(atoms, title ?? '', model.lexicon);
  const marked = head.authors || said.authors ? [] : markedAuthors(document);
  const meta = {
    ...(marked.length ? { authors: marked } : {}),
    ...head,
    ...(listed ? { kind: { is: 'forum' as const, why: 'it is a letter to a list' } } : {}),
    ...said,
    ...(title ? { title } : {}),
  };
  if (atoms.length > MOST_JUDGED) return secondOpinion(document, meta);
  const asked = { title: meta.title ?? '', model, tagged: true, board, ...(meta.authors?.[0] ? { author: meta.authors[0] } : {}) }; // prettier-ignore
  const sure = sureness(atoms, asked.title, asked.model, true);
  const first = readAtoms(atoms, asked, sure);
  const little = letters(first.blocks.filter((b) => b.type !== 'reply')) < SHORTEST_ARTICLE;
  const found = little && !first.opened ? readAtoms(atoms, { ...asked, relative: true }, sure) : first;
  const byNames = found.opened ? null : threadOf(document, board);
  if (byNames) return { ...meta, ...byNames };
  const own = letters(found.blocks.filter((b) => b.type !== 'reply'));
  const apart = articleBody(document);
  if (apart.length >= SHORTEST_ARTICLE && own < apart.length * 0.6 && !found.opened)
    return { ...meta, blocks: withoutTitle(await blocksOf(apart), meta.title), leftOut: found.leftOut };
  // An opening post may be short where others had more to say.
  const discussed = found.opened && own > 0 && letters(found.blocks) >= SHORTEST_ARTICLE;
  if (own >= SHORTEST_ARTICLE || discussed) {
    const { blocks, leftOut, thread, teller, day } = found;
    const authors = thread && teller ? [teller] : meta.authors;
    return {
      ...meta,
      ...(authors ? { authors } : {}),
      ...(thread ? { kind: meta.kind ?? { is: 'forum' as const, why: 'it is a thread of a board' } } : {}),
      ...(thread && day && !said.published ? { published: day } : {}),
      ...untitled(blocks, leftOut, meta.title),
    };
  }
  // A short story is one; what little was found beside much more is a reading that went wrong.
  const walled = Boolean(document.querySelector('input[type="password"]'));
  const second = without(await secondOpinion(document, meta), found);
  const most = Math.max(own, letters(second.blocks.filter((b) => b.type !== 'heading')));
  if (!most || (walled && most < SHORTEST_POST)) throw nothingIn(atoms, walled);
  return own >= SHORTEST_POST && letters(second.blocks) < own * 3
    ? { ...meta, ...untitled(found.blocks, found.leftOut, meta.title), ...lessSure(atoms, walled) }
    : { ...second, ...lessSure(atoms, walled) };
}

/** What makes the little that a page gives less sure. */
function lessSure(atoms: readonly Atom[], walled: boolean): { doubt?: string } {
  if (walled) return { doubt: 'The page asks for a log-in; the text may go on behind it.' };
  return isLinks(atoms) ? { doubt: 'Most of this page is links to others; it may have no text of its own.' } : {}; // prettier-ignore
}
const isLinks = (atoms: readonly Atom[]) =>
  atoms.length > 10 && atoms.reduce((n, a) => n + a.linked, 0) > atoms.reduce((n, a) => n + a.text.length, 0) * 0.6; // prettier-ignore

/** Why a page gives nothing to read, as far as it shows. */
function nothingIn(atoms: readonly Atom[], walled: boolean): SourceError {
  if (walled)
    return new SourceError(
      'locked',
      'This page asks for a log-in before it shows its text. Log in with your browser, select the text and paste it here.',
    );
  if (isLinks(atoms))
    return new SourceError('empty', 'This page is a list of links without a text of its own. Open the one you mean and give its address.'); // prettier-ignore
  return new SourceError('empty', 'There is no running text in this: only headings or furniture were found.');
}

/** A reading without what surely is no part of the article, and without other people's posts. */
function without(read: RawDocument, found: PageReading): RawDocument {
  const key = (text: string) => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');
  const surely = found.leftOut.filter((l) => !l.doubt);
  const none = new Set(
    [...surely, ...found.blocks.filter((b) => b.type === 'reply')].map((b) => key(b.text)),
  );
  const blocks = read.blocks.filter((b) => !none.has(key(b.text)));
  return letters(blocks) >= SHORTEST_ARTICLE ? { ...read, blocks, leftOut: surely } : read;
}

/**
 * The heading that the window's title has too; else what the page says its title is; else the part of the window's title that
 * stands on the page. A site's name is a heading of the whole site: where a longer part stands on the page too, that is the title.
 */
function titleOf(document: Document, atoms: readonly Atom[], said: string | undefined): string | undefined {
  const window = tidy(document.title ?? '');
  const heads = atoms.filter((a) => a.tag === 'H1').map((a) => a.text);
  const plain = (text: string) => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');
  const among = titleAmong(atoms, window);
  const [own] = heads.filter((h) => plain(h).length > 3 && plain(window).includes(plain(h))).sort((a, b) => b.length - a.length); // prettier-ignore
  if (own) {
    const last = (text: string) => atoms.findLastIndex((a) => [a.text, ...(a.spans ?? [])].some((t) => plain(t) === plain(text))); // prettier-ignore
    // What the site is called stands above the title.
    const longer =
      among &&
      !plain(among).includes(plain(own)) &&
      among.split(' ').length > own.split(' ').length &&
      last(among) > last(own);
    if (longer && own.split(' ').length <= 5) return among;
    if (own.split(' ').length > 2 || heads.length === 1) return own;
  }
  if (said && said !== window && !heads.length)
    return atoms.some((a) => plain(a.text) === plain(said)) ? said : (among ?? said);
  return heads.length ? said : (among ?? said);
}

/**
 * A title that stands nowhere on the page is its site's or its sender's, and so is one of few words of which the text has none:
 * a row above the text that is about the same is the text's.
 */
async function shownTitle(atoms: readonly Atom[], title: string | undefined): Promise<string | undefined> {
  if (atoms.length > MOST_JUDGED) return title;
  const key = hashOf(title ?? '');
  // A title of few words stands in sentences too.
  const few = wordsOf(title ?? '').length < 3;
  const shows = (said: string) => key.length > 3 && (few ? said === key : said.includes(key));
  const shown = atoms.some((a) => a.tag === 'H1' || shows(hashOf(a.text)));
  if (shown && wordsOf(title ?? '').length >= NAME_OF_SITE) return title;
  const sure = sureness(atoms, '', await pageModel(), true);
  if (shown && isAbout(atoms, sure, title ?? '')) return title;
  return (await titleIn(atoms, sure)) ?? title;
}
/** From so many words on a title is none of a site's. */
const NAME_OF_SITE = 5;

/** A page on which little was found: what the page marks, what Readability finds, or the whole of it. */
async function secondOpinion(document: Document, meta: ReturnType<typeof metadata>): Promise<RawDocument> {
  const { blocks: found, byline, named } = await article(document);
  const title = meta.title ?? named;
  const plain = found.some((b) => b.type !== 'heading')
    ? ''
    : [...document.querySelectorAll('pre')].map((p) => p.textContent ?? '').join('\n\n');
  // A page that is one typed text is read as that text.
  const blocks = plain ? (await textReader.read(plain)).blocks : withoutTitle(found, title);
  const authors = meta.authors ?? bylineNames(byline);
  return { ...meta, ...(title ? { title } : {}), ...(authors.length ? { authors } : {}), blocks };
}

/** A text that a page gives apart, with tags or without. */
const blocksOf = async (text: string): Promise<RawBlock[]> =>
  /<p[\s>]/i.test(text)
    ? blocksOfHtml(text)
    : (/\n\s*\n/.test(text) ? text.split(/\n\s*\n/) : text.split('\n'))
        .map((t) => ({ type: 'paragraph' as const, text: tidy(t) }))
        .filter((b) => b.text);

/** Passages of a piece of HTML that is all text: a converted document, a chapter. */
export async function blocksOfHtml(html: string): Promise<RawBlock[]> {
  if (nesting(html) > DEEPEST_PAGE)
    throw new SourceError(
      'unreadable',
      'This document is nested too deeply to be read. Paste its words instead.',
    );
  return collect((await parsedHtml(page(html))).body);
}

const page = (text: string) =>
  /<html[\s>]/i.test(text) ? text : `<!doctype html><html><head></head><body>${text}</body></html>`;
const letters = (blocks: readonly RawBlock[]) => blocks.reduce((n, b) => n + b.text.length, 0);

/** The article: where the page marks it, else where Readability finds it, else the whole page without furniture. */
async function article(document: Document): Promise<{ blocks: RawBlock[]; byline: string; named?: string }> {
  const whole = collect(document.body);
  const all = (document.body?.textContent ?? '').length;
  const byline = tidy(document.querySelector('[class*="byline"]')?.textContent ?? '');
  for (const marked of ['[itemprop="articleBody"]', 'main article', 'article', '#mw-content-text', 'main']) {
    const elements = [...document.querySelectorAll(marked)].filter((e) => !inFurniture(e, all));
    if (!elements.length) continue;
    const [longest] = elements.map((e) => collect(e)).sort((a, b) => letters(b) - letters(a));
    // Teasers are articles too: the marked one must hold most of the page's text.
    if (letters(longest) >= SHORTEST_ARTICLE && letters(longest) > letters(whole) * 0.5)
      return { blocks: longest, byline };
  }
  for (const element of [...document.querySelectorAll('*')])
    if (isFurniture(element, all) && !/^(?:HEAD|TABLE|SCRIPT)$/i.test(element.tagName)) element.remove();
  // Readability takes these old inline elements for blocks and would cut sentences at them.
  for (const element of [...document.querySelectorAll('acronym,tt,font,big,strike,nobr')]) {
    const span = element.ownerDocument.createElement('span');
    span.append(...element.childNodes);
    element.replaceWith(span);
  }
  const read = await readable(document);
  const blocks = read?.content ? collect((await parsedHtml(page(read.content))).body) : [];
  return {
    // What Readability drops from a page without furniture marks is seldom text; but a short page is read whole.
    blocks: letters(blocks) < SHORTEST_ARTICLE && letters(whole) > letters(blocks) ? whole : blocks,
    byline: byline || tidy(read?.byline ?? ''),
    ...(read?.title ? { named: tidy(read.title) } : {}),
  };
}

/** What Readability finds, or nothing where it trips over a page that is no page (without a body, say). */
async function readable(document: Document): Promise<ReturnType<Readability['parse']>> {
  const { Readability } = await import('@mozilla/readability');
  try {
    return new Readability(document as unknown as Document, {
      charThreshold: SHORTEST_ARTICLE,
      maxElemsToParse: 200_000,
    }).parse();
  } catch {
    return null;
  }
}

function inFurniture(element: Element, letters: number): boolean {
  for (let up: Element | null = element.parentElement; up; up = up.parentElement)
    if (isFurniture(up, letters)) return true;
  return isFurniture(element, letters);
}

const withoutTitle = (blocks: readonly RawBlock[], title: string | undefined): RawBlock[] => {
  const at = blocks.findIndex((b) => b.type === 'heading');
  return at === 0 && title && (blocks[0].text === title || title.startsWith(blocks[0].text))
    ? blocks.slice(1)
    : [...blocks];
};

/** Without the title as its first passage; what was left out keeps its place among the others. */
function untitled(found: readonly RawBlock[], leftOut: readonly RawLeftOut[], title: string | undefined) {
  const blocks = withoutTitle(found, title);
  const fewer = found.length - blocks.length;
  return {
    blocks,
    leftOut: leftOut.map((l) => (l.at === undefined ? l : { ...l, at: Math.max(0, l.at - fewer) })),
  };
}

/** Depth of open tags, roughly: guards recursive libraries against hostile nesting. */
function nesting(html: string): number {
  let depth = 0;
  let most = 0;
  for (const m of html.matchAll(/<(\/?)(?:div|span|b|i|ul|ol|table|blockquote|section|font)\b/gi)) {
    depth = Math.max(0, depth + (m[1] ? -1 : 1));
    if (depth > most) most = depth;
  }
  return most;
}
