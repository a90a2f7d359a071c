/** The reading script as a document (ECMA-376), by docx: a section a block with its seconds, rests and names as they are said. */
import { clockText } from '../../timing/clockText.ts';
import { unspoken, type VoiceLine } from '../voice.ts';
import type { Writer } from '../writer.ts';

const HALF_POINTS = { text: 30, small: 18, clock: 16 } as const;
const FONT = 'Georgia';

export const docx: Writer = {
  id: 'docx',
  name: 'Reading script, DOCX',
  says: 'large text, rests, names and numbers as they are said',
  loses: 'what lines rest on, scenes',
  extension: 'docx',
  mime: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  for: ['voice', 'archive'],
  write: async (kit) => {
    const { Document, HeadingLevel, Packer, Paragraph, TextRun } = await import('docx');
    const small = (text: string, rightToLeft = false) =>
      new Paragraph({
        spacing: { after: 60 },
        children: [new TextRun({ text, size: HALF_POINTS.small, color: '555555', rightToLeft })],
      });
    const rtl = /^(?:ar|he|fa|ur)/.test(kit.language);
    const line = (l: VoiceLine) => {
      const runs = l.parts.flatMap((p) => {
        if (p.type === 'breath')
          return [new TextRun({ text: ' \u2758', size: HALF_POINTS.small, color: '777777' })];
        const said =
          p.type === 'text'
            ? []
            : p.type === 'number'
              ? [new TextRun({ text: ` (${p.say})`, size: HALF_POINTS.small, color: '555555' })]
              : p.from === 'dictionary'
                ? []
                : [new TextRun({ text: ` [${p.say}]`, size: HALF_POINTS.small, color: '555555' })];
        return [
          new TextRun({ text: p.text, size: HALF_POINTS.text, bold: p.stress, rightToLeft: rtl }),
          ...said,
        ];
      });
      return new Paragraph({
        spacing: { after: 120, line: 380 },
        bidirectional: rtl,
        keepLines: true,
        children: [
          new TextRun({ text: `${clockText(l.startMs)}  `, size: HALF_POINTS.clock, color: '777777' }),
          ...(l.speaker
            ? [new TextRun({ text: `${l.speaker.toUpperCase()}: `, size: HALF_POINTS.small, bold: true })]
            : []),
          ...runs,
        ],
      });
    };
    const body = kit.blocks.flatMap((b) => [
      new Paragraph({
        heading: HeadingLevel.HEADING_2,
        keepNext: true,
        spacing: { before: 320, after: 120 },
        children: [
          new TextRun({ text: b.title }),
          new TextRun({
            text: `   ${(b.ms / 1000).toFixed(1)} s, ${b.words} words`,
            size: HALF_POINTS.small,
            color: '555555',
          }),
        ],
      }),
      ...b.lines.flatMap((l) => [
        ...(l.silentMs === null ? [line(l)] : l.silentMs > 0 ? [small(unspoken(l))] : []),
        ...(l.silentMs === null && l.restMs > 0 ? [small(`(rest, ${(l.restMs / 1000).toFixed(1)} s)`)] : []),
      ]),
    ]);
    const names = kit.sayings.length
      ? [
          new Paragraph({
            heading: HeadingLevel.HEADING_2,
            spacing: { before: 320 },
            text: 'How names are said',
          }),
          ...kit.sayings.map((s) =>
            small(
              `${s.word}: ${s.respelled}${s.ipa ? `  /${s.ipa}/` : ''}${s.from === 'guess' ? '  (a guess: ask)' : ''}`,
            ),
          ),
        ]
      : [];
    const document = new Document({
      title: kit.file.title,
      creator: kit.input.channel.name || 'Ursprung',
      styles: { default: { document: { run: { font: FONT, size: HALF_POINTS.text } } } },
      sections: [
        {
          children: [
            new Paragraph({ heading: HeadingLevel.TITLE, text: kit.file.title }),
            small(`${clockText(kit.totalMs)} at ${Math.round(kit.file.pace)} words a minute`),
            ...body,
            ...names,
          ],
        },
      ],
    });
    return new Uint8Array(await Packer.toBuffer(document));
  },
};
