/**
 * PDF (ISO 32000), by pdf.js. Ours is what comes after: pieces of text by place → lines → columns → paragraphs; running
 * heads, page numbers, notes below and references left out; words cut at a line end joined again.
 */
import type { PDFPageProxy, TextContent, TextItem } from 'pdfjs-dist/types/src/display/api.js';
import { MOST_LETTERS, SourceError, tooLong, type RawBlock, type RawDocument } from '../document.ts';
import type { SourceOpener } from '../readers/reader.ts';
import { isoDate, tidy } from '../tidy.ts';

const MOST_PAGES = 400;
/** Pieces of text: a page of small print has some thousand. */
const MOST_PIECES = 1_000_000;

interface Piece {
  text: string;
  x: number;
  y: number;
  width: number;
  size: number;
}
interface Line {
  text: string;
  x: number;
  right: number;
  y: number;
  size: number;
  page: number;
}

export const pdfOpener: SourceOpener = {
  id: 'pdf',
  accepts: (_bytes, head) => /%PDF-\d/.test(head.slice(0, 1024)),
  open: async (bytes) => {
    const { getDocument, VerbosityLevel } = await import('pdfjs-dist/legacy/build/pdf.mjs');
    const task = getDocument({
      // A copy: the library takes the bytes for itself, and no Buffer.
      data: new Uint8Array(bytes),
      isEvalSupported: false,
      disableFontFace: true,
      useSystemFonts: false,
      verbosity: VerbosityLevel.ERRORS,
    });
    let pdf;
    try {
      pdf = await task.promise;
    } catch (error) {
      if ((error as Error).name === 'PasswordException')
        throw new SourceError(
          'locked',
          'This PDF is locked with a password. Save it without one, or paste its words.',
        );
      throw new SourceError(
        'unreadable',
        'This PDF is broken or cut off, so it can’t be opened. Save it again where it was made, or paste its words.',
      );
    }
    try {
      if (pdf.numPages > MOST_PAGES)
        throw new SourceError(
          'too-long',
          `This PDF has ${pdf.numPages} pages; a source can have at most ${MOST_PAGES}. Paste the part you need.`,
        );
      const pages: Line[][] = [];
      const room = { letters: MOST_LETTERS, pieces: MOST_PIECES };
      for (let n = 1; n <= pdf.numPages; n++) {
        const page = await pdf.getPage(n);
        pages.push(linesOf(await piecesOf(page, room), n, page.view[2] - page.view[0]));
        page.cleanup();
      }
      const { info } = (await pdf.getMetadata().catch(() => ({ info: {} }))) as {
        info: Record<string, unknown>;
      };
      return document(pages, info);
    } finally {
      await task.destroy();
    }
  },
};

/** The pieces of a page as they come, counted: forms that hold one another can hold more than any machine. */
async function piecesOf(page: PDFPageProxy, room: { letters: number; pieces: number }): Promise<Piece[]> {
  const pieces: Piece[] = [];
  const reader = (page.streamTextContent() as ReadableStream<TextContent>).getReader();
  for (let next = await reader.read(); !next.done; next = await reader.read())
    for (const item of next.value.items) {
      if (!('str' in item)) continue;
      room.letters -= item.str.length;
      if (room.letters < 0 || room.pieces-- <= 0) {
        const error = tooLong();
        await reader.cancel(error);
        throw error;
      }
      pieces.push(pieceOf(item));
    }
  return pieces;
}

const pieceOf = (item: TextItem): Piece => {
  const [a, b, , , x, y] = item.transform as number[];
  return { text: item.str, x, y, width: item.width, size: Math.hypot(a, b) || item.height };
};

/** Pieces of one page as lines in reading order: by column, then from the top. */
function linesOf(pieces: readonly Piece[], page: number, pageWidth: number): Line[] {
  const rows: Piece[][] = [];
  for (const p of [...pieces].filter((p) => p.text.trim()).sort((a, b) => b.y - a.y || a.x - b.x)) {
    const row = rows[rows.length - 1];
    if (row && Math.abs(row[0].y - p.y) < Math.max(2, p.size * 0.4)) row.push(p);
    else rows.push([p]);
  }
  const segments = rows.flatMap((row) =>
    segmentsOf(
      row.sort((a, b) => a.x - b.x),
      page,
    ),
  );
  const gutter = gutterOf(segments, pageWidth);
  if (gutter === null) return segments;
  // What crosses the gutter (a title) closes the columns above it.
  const out: Line[] = [];
  let left: Line[] = [];
  let right: Line[] = [];
  const flush = () => {
    out.push(...left, ...right);
    [left, right] = [[], []];
  };
  for (const s of segments) {
    if (s.x < gutter && s.right > gutter + 4) {
      flush();
      out.push(s);
    } else (s.x < gutter ? left : right).push(s);
  }
  flush();
  return out;
}

/** One row's pieces joined where they touch; a gap wider than two letters begins another segment (another column). */
function segmentsOf(row: readonly Piece[], page: number): Line[] {
  const out: Line[] = [];
  for (const p of row) {
    const last = out[out.length - 1];
    const gap = last ? p.x - last.right : 0;
    if (last && gap < p.size * 1.4) {
      last.text += (gap > p.size * 0.16 && !/\s$/.test(last.text) && !/^\s/.test(p.text) ? ' ' : '') + p.text;
      last.right = p.x + p.width;
      last.size = Math.max(last.size, p.size);
    } else out.push({ text: p.text, x: p.x, right: p.x + p.width, y: p.y, size: p.size, page });
  }
  return out;
}

/** The middle of a page set in two columns, or null: few lines cross it and many begin right of it. */
function gutterOf(lines: readonly Line[], pageWidth: number): number | null {
  if (lines.length < 16) return null;
  const middle = pageWidth / 2;
  const begins = lines.filter((l) => l.x > middle - 12 && l.x < middle + pageWidth * 0.12);
  const crosses = lines.filter((l) => l.x < middle - 14 && l.right > middle + 14);
  return begins.length > lines.length * 0.25 && crosses.length < lines.length * 0.25
    ? Math.min(...begins.map((l) => l.x)) - 4
    : null;
}

/** The size most letters have. */
function bodySize(lines: readonly Line[]): number {
  const letters = new Map<number, number>();
  for (const l of lines)
    letters.set(Math.round(l.size * 2) / 2, (letters.get(Math.round(l.size * 2) / 2) ?? 0) + l.text.length);
  return [...letters].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 10;
}

const PAGE_NUMBER = /^[-–—\s]*(?:page\s+)?(?:\d{1,4}|[ivxl]{1,7})(?:\s*(?:of|\/)\s*\d{1,4})?[-–—\s]*$/i;
const REFERENCES = /^(?:\d+\.?\s+)?(?:references|bibliography|works cited|literature cited)$/i;
/** A line of a table of contents: points that lead to a page number. */
const LEADER = /(?:\.\s?){4,}\s*(?:\d{1,4}|[ivxl]{1,7})\s*$/i;
const shape = (text: string) => tidy(text).replace(/\d+/g, '#').toLowerCase();

/** Lines that stand at the head or foot of many pages alike, and page numbers. */
function withoutRunning(pages: readonly Line[][]): Line[] {
  const edge = (lines: readonly Line[]) => {
    const ys = [...new Set(lines.map((l) => Math.round(l.y)))].sort((a, b) => b - a);
    const outer = new Set([...ys.slice(0, 2), ...ys.slice(-2)]);
    return lines.filter((l) => outer.has(Math.round(l.y)));
  };
  const seen = new Map<string, number>();
  for (const lines of pages)
    for (const s of new Set(edge(lines).map((l) => shape(l.text)))) seen.set(s, (seen.get(s) ?? 0) + 1);
  const least = Math.max(2, pages.length * 0.3);
  return pages.flatMap((lines) => {
    const outer = new Set(edge(lines));
    return lines.filter(
      (l) =>
        !(
          outer.has(l) &&
          (PAGE_NUMBER.test(l.text) || (pages.length > 1 && (seen.get(shape(l.text)) ?? 0) >= least))
        ),
    );
  });
}

function document(pages: readonly Line[][], info: Record<string, unknown>): RawDocument {
  const lines = withoutRunning(pages);
  if (!lines.length)
    throw new SourceError(
      'empty',
      'This PDF holds pictures of pages, no words that can be read. Have it recognised first, or paste its words.',
    );
  const size = bodySize(lines);
  const blocks: RawBlock[] = [];
  let title = '';
  let previous: Line | undefined;
  let inReferences = false;
  for (const line of lines) {
    const text = tidy(line.text);
    const heading =
      (line.size > size * 1.12 || /^\d{1,2}(?:\.\d{1,2})*\.?\s+\p{Lu}/u.test(text)) &&
      text.length < 120 &&
      !/[.;,:]$/.test(text);
    if (REFERENCES.test(text)) inReferences = true;
    else if (inReferences && heading) inReferences = false;
    if (inReferences || LEADER.test(text) || !/\p{L}{2}/u.test(text)) continue;
    // Notes below are set smaller.
    if (line.size < size * 0.82) continue;
    const sameStretch =
      previous && previous.page === line.page && Math.abs(previous.y - line.y) < line.size * 1.7;
    if (line.page === 1 && line.size > size * 1.3 && blocks.length === 0)
      title += `${title ? ' ' : ''}${text}`;
    else if (heading)
      blocks.push({ type: 'heading', text: text.replace(/^\d{1,2}(?:\.\d{1,2})*\.?\s+/, '') });
    else {
      const last = blocks[blocks.length - 1];
      const item = /^(?:[•▪◦–-]\s+|(\d{1,2})[.)]\s+)(?=\S)/.exec(text);
      const runsOn =
        last &&
        last.type !== 'heading' &&
        !item &&
        (sameStretch ? !indented(line, previous!, last.text) : !/[.!?:]["”’)]?$/.test(last.text));
      if (runsOn) last.text = joined(last.text, text);
      else if (item)
        blocks.push({
          type: 'item',
          text: text.slice(item[0].length),
          ...(item[1] ? { step: Number(item[1]) } : {}),
        });
      else blocks.push({ type: 'paragraph', text });
    }
    previous = line;
  }
  const raw: RawDocument = { blocks };
  const named = typeof info.Title === 'string' ? tidy(info.Title) : '';
  if (title || named) raw.title = title || named;
  if (typeof info.Author === 'string' && info.Author.trim()) raw.authors = [tidy(info.Author)];
  const date = /^D:(\d{4})(\d{2})?(\d{2})?/.exec(
    typeof info.CreationDate === 'string' ? info.CreationDate : '',
  );
  const published = date ? isoDate([date[1], date[2], date[3]].filter(Boolean).join('-')) : undefined;
  if (published) raw.published = published;
  return raw;
}

/** A first line set in from the one above, after a full stop: a new paragraph. */
const indented = (line: Line, previous: Line, before: string) =>
  line.x > previous.x + line.size * 0.7 &&
  line.x < previous.x + line.size * 5 &&
  /[.!?]["”’)]?$/.test(before);

/** Joins a line to the one before; a word cut by a hyphen is one again, a hyphen before a capital or figure stays. */
function joined(before: string, line: string): string {
  return /\p{Ll}[-\u00ad\u2010]$/u.test(before) && /^\p{Ll}/u.test(line)
    ? before.replace(/[-\u00ad\u2010]$/u, '') + line
    : `${before} ${line}`;
}
