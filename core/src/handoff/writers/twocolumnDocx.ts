/** The two-column script as a document to write in (ECMA-376), by docx: the same rows as on paper. */
import type { Writer } from '../writer.ts';
import { twoColumnRows } from './twocolumn.ts';

const SIZE = 18;
const GREY = '69635a';
/** Widths of clock, picture and sound in twentieths of a point. */
const WIDTHS = [1000, 4300, 4300] as const;

export const twocolumnDocx: Writer = {
  id: 'twocolumn-docx',
  name: 'Two-column script, DOCX',
  says: 'the same, to write in',
  loses: 'what lines rest on, search words',
  extension: 'docx',
  suffix: 'two-column',
  mime: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  for: ['editor', 'archive'],
  write: async (kit) => {
    const { Document, HeadingLevel, Packer, Paragraph, Table, TableCell, TableRow, TextRun, WidthType } =
      await import('docx');
    const text = (words: string, more: { grey?: boolean; bold?: boolean } = {}) =>
      new Paragraph({
        spacing: { after: 40 },
        children: [
          new TextRun({
            text: words,
            size: SIZE,
            bold: more.bold ?? false,
            ...(more.grey ? { color: GREY } : {}),
          }),
        ],
      });
    const row = (cells: InstanceType<typeof Paragraph>[][], head = false) =>
      new TableRow({
        tableHeader: head,
        cantSplit: true,
        children: cells.map(
          (children, i) => new TableCell({ width: { size: WIDTHS[i], type: WidthType.DXA }, children }),
        ),
      });
    const rows = twoColumnRows(kit).flatMap((r) => [
      ...(r.section === null ? [] : [row([[text('')], [text(r.section, { bold: true })], [text('')]])]),
      row([
        [text(r.clock), text(r.seconds, { grey: true })],
        r.picture.map((p, i) => text(p, { grey: i > 0 })),
        r.sound.map((s) => text(s.text, { grey: s.grey, bold: s.bold ?? false })),
      ]),
    ]);
    const document = new Document({
      title: kit.file.title,
      creator: kit.input.channel.name || 'Ursprung',
      sections: [
        {
          children: [
            new Paragraph({ heading: HeadingLevel.TITLE, text: kit.file.title }),
            new Table({
              columnWidths: [...WIDTHS],
              rows: [
                row([[text('')], [text('PICTURE', { bold: true })], [text('SOUND', { bold: true })]], true),
                ...rows,
              ],
            }),
          ],
        },
      ],
    });
    return new Uint8Array(await Packer.toBuffer(document));
  },
};
