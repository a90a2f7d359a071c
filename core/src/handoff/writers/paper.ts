/** Pages on paper, by pdfkit: text in the face that has its letters, blocks that are not torn from their headings. */
import type { Fonts, Kit } from '../kit.ts';

type Doc = PDFKit.PDFDocument;
export interface Run {
  text: string;
  bold?: boolean;
  size?: number;
  color?: string;
}
export const GREY = '#69635a';
const MARGIN = 56;
const FOOT = 44;
/** Height of a row of the text face and its leading, in sizes. */
const LINE = 1.37;
const LEADING = 0.25;
/** How much room ragged rows waste, at most. */
const RAGGED = 1.12;

/** Letters and marks that the text face has: most texts have no others. */
const PLAIN = /^[\x20-\xff\u2013\u2014\u2018-\u201e\u2026]*$/;

/** Runs of one face each: letters that the text face lacks go to the face that has them, with the spaces and marks between. */
export function faces(text: string, fonts: Fonts): { text: string; face: number; rightToLeft: boolean }[] {
  if (PLAIN.test(text)) return [{ text, face: -1, rightToLeft: false }];
  const out: { text: string; face: number; rightToLeft: boolean }[] = [];
  for (const c of text.normalize('NFC')) {
    const last = out[out.length - 1];
    // A mark goes with its letter; a space stays in a run that is set from right to left, or its words would change places.
    const joins = last && (/\p{M}/u.test(c) || (last.rightToLeft && c === ' '));
    const other = fonts.others.findIndex((o) => o.covers.test(c));
    if (last && (joins || last.face === other)) last.text += c;
    else
      out.push({
        text: c,
        face: other,
        rightToLeft: other >= 0 && (fonts.others[other].rightToLeft ?? false),
      });
  }
  return out;
}

export class Paper {
  private readonly chunks: Uint8Array[] = [];
  private readonly done: Promise<Uint8Array>;
  private constructor(
    readonly doc: Doc,
    private readonly fonts: Fonts,
  ) {
    doc.registerFont('text', fonts.text as Buffer);
    doc.registerFont('bold', fonts.bold as Buffer);
    fonts.others.forEach((o, i) => doc.registerFont(`other${i}`, o.bytes as Buffer));
    doc.on('data', (c: Uint8Array) => this.chunks.push(c));
    this.done = new Promise((resolve, reject) => {
      doc.on('end', () => resolve(joined(this.chunks)));
      doc.on('error', reject);
    });
  }

  /** A new document of A4 pages. Its dates are fixed, so that the same script gives the same pages. */
  private static async open(
    fonts: Fonts,
    info: { title: string; author: string; language: string },
  ): Promise<Paper> {
    const { default: PDFDocument } = await import('pdfkit');
    const doc = new PDFDocument({
      size: 'A4',
      margins: { top: MARGIN, bottom: MARGIN + FOOT, left: MARGIN, right: MARGIN },
      bufferPages: true,
      lang: info.language,
      displayTitle: true,
      info: { Title: info.title, Author: info.author, CreationDate: new Date(0) },
    });
    return new Paper(doc, fonts);
  }

  /** A script's pages with their head: its title, and small below it what `says` tells of it. Gives the place to go on. */
  static async headed(
    kit: Kit,
    says: string,
    sizes: { title: number; small: number },
  ): Promise<{ paper: Paper; y: number }> {
    const paper = await Paper.open(kit.tools.fonts, {
      title: kit.file.title,
      author: kit.input.channel.name,
      language: kit.language,
    });
    const { left, width } = paper;
    const below = paper.write([{ text: kit.file.title, bold: true }], left, MARGIN, width, sizes.title) + 2;
    return { paper, y: paper.write([{ text: says, color: GREY }], left, below, width, sizes.small) };
  }

  get left(): number {
    return MARGIN;
  }
  get width(): number {
    return this.doc.page.width - 2 * MARGIN;
  }
  get bottom(): number {
    return this.doc.page.height - MARGIN - FOOT;
  }

  private use(face: number, bold: boolean): Doc {
    return this.doc.font(face >= 0 ? `other${face}` : bold ? 'bold' : 'text');
  }

  /** About how tall runs are in a width, in points, never too little: rows are ragged. */
  height(runs: readonly Run[], width: number, size: number): number {
    const text = runs.map((r) => r.text).join('');
    const rows = Math.ceil((this.widthOf(text, size) * RAGGED) / width) || 1;
    return rows * size * (LINE + LEADING);
  }

  /** The width of a text, from the widths of its words: a text is measured often, and its words come again. */
  private widthOf(text: string, size: number): number {
    let sum = 0;
    for (const word of text.split(' ')) {
      let own = this.words.get(word);
      if (own === undefined)
        this.words.set(word, (own = this.use(-1, false).fontSize(1000).widthOfString(`${word} `)));
      sum += own;
    }
    return (sum * size) / 1000;
  }
  private readonly words = new Map<string, number>();

  /** Writes runs as one paragraph at a place and gives the place below it. */
  write(runs: readonly Run[], x: number, y: number, width: number, size: number): number {
    const pieces = runs
      .flatMap((r) => faces(r.text, this.fonts).map((f) => ({ ...r, ...f })))
      .filter((p) => p.text);
    if (!pieces.length) return y;
    const base = this.use(-1, false).fontSize(size);
    // Sizes beside one another stand on one line of writing.
    const ascent = (base as unknown as { _font: { ascender: number } })._font.ascender * (size / 1000);
    pieces.forEach((p, i) => {
      const options = {
        width,
        lineGap: size * 0.25,
        baseline: 'alphabetic' as const,
        continued: i < pieces.length - 1,
        ...(p.rightToLeft ? { features: ['rtla'] as PDFKit.Mixins.OpenTypeFeatures[] } : {}),
      };
      const face = this.use(p.face, p.bold ?? false)
        .fontSize(p.size ?? size)
        .fillColor(p.color ?? '#211f1b');
      if (i === 0) face.text(p.text, x, y + ascent, options);
      else face.text(p.text, options);
    });
    return this.doc.y - ascent;
  }

  /** Paragraphs one below the other. */
  column(paragraphs: readonly (readonly Run[])[], x: number, y: number, width: number, size: number): number {
    return paragraphs.reduce((at, runs) => this.write(runs, x, at, width, size), y);
  }

  /** Begins a new page where less than so many points are left; gives the place to go on. */
  room(y: number, points: number): number {
    if (y + points <= this.bottom) return y;
    this.doc.addPage();
    return MARGIN;
  }

  /** Page numbers at the foot, then the bytes. */
  async close(foot: string): Promise<Uint8Array> {
    const { start, count } = this.doc.bufferedPageRange();
    for (let i = start; i < start + count; i++) {
      this.doc.switchToPage(i);
      const { bottom } = this.doc.page.margins;
      // Text below the margin would begin a new page.
      this.doc.page.margins.bottom = 0;
      this.write(
        [{ text: `${foot}   ${i - start + 1} of ${count}`, color: GREY }],
        MARGIN,
        this.doc.page.height - MARGIN,
        this.width,
        8,
      );
      this.doc.page.margins.bottom = bottom;
    }
    this.doc.end();
    return this.done;
  }
}

function joined(chunks: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(chunks.reduce((n, c) => n + c.length, 0));
  let at = 0;
  for (const c of chunks) {
    out.set(c, at);
    at += c.length;
  }
  return out;
}
