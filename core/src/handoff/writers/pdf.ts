/** The reading script on paper: large text, a clock a line, rests, how names and numbers are said. */
import { clockText } from '../../timing/clockText.ts';
import { unspoken, type VoiceLine } from '../voice.ts';
import type { Writer } from '../writer.ts';
import { GREY, Paper, type Run } from './paper.ts';

const TEXT = 14;
const SMALL = 9;
const GUTTER = 46;

function runsOf(line: VoiceLine): Run[] {
  const speaker: Run[] = line.speaker
    ? [{ text: `${line.speaker.toUpperCase()}  `, bold: true, size: SMALL }]
    : [];
  return [
    ...speaker,
    ...line.parts.flatMap((p): Run[] => {
      if (p.type === 'breath') return [{ text: ' \u00a6', color: GREY }];
      const said: Run[] =
        p.type === 'text' || (p.type === 'said' && p.from === 'dictionary')
          ? []
          : [{ text: ` [${p.say}]`, size: SMALL, color: GREY }];
      return [{ text: p.text, bold: p.stress }, ...said];
    }),
  ];
}

export const pdf: Writer = {
  id: 'pdf',
  name: 'Reading script, PDF',
  says: 'large text on paper: clocks, breaths, rests, names and numbers as they are said',
  loses: 'what lines rest on, scenes',
  extension: 'pdf',
  mime: 'application/pdf',
  for: ['voice', 'archive'],
  write: async (kit) => {
    const says = `${clockText(kit.totalMs)} at ${Math.round(kit.file.pace)} words a minute`;
    const { paper, y: top } = await Paper.headed(kit, says, { title: 20, small: SMALL });
    const { left, width } = paper;
    let y = top + 10;
    for (const block of kit.blocks) {
      y = paper.room(y, 90);
      paper.doc
        .moveTo(left, y)
        .lineTo(left + width, y)
        .lineWidth(0.8)
        .strokeColor('#211f1b')
        .stroke();
      y =
        paper.write(
          [
            { text: block.title, bold: true, size: 12 },
            { text: `   ${(block.ms / 1000).toFixed(1)} s, ${block.words} words`, color: GREY },
          ],
          left,
          y + 5,
          width,
          SMALL,
        ) + 4;
      for (const line of block.lines) {
        if (line.silentMs !== null) {
          if (line.silentMs > 0)
            y =
              paper.write(
                [
                  {
                    text: unspoken(line),
                    color: GREY,
                  },
                ],
                left + GUTTER,
                paper.room(y, 20),
                width - GUTTER,
                SMALL,
              ) + 4;
          continue;
        }
        const runs = runsOf(line);
        y = paper.room(y, Math.min(paper.height(runs, width - GUTTER, TEXT) + 6, 400));
        paper.write([{ text: clockText(line.startMs), color: GREY }], left, y + 4, GUTTER - 6, SMALL);
        y = paper.write(runs, left + GUTTER, y, width - GUTTER, TEXT) + 3;
        if (line.restMs)
          y =
            paper.write(
              [{ text: `(rest, ${(line.restMs / 1000).toFixed(1)} s)`, color: GREY }],
              left + GUTTER,
              paper.room(y, 18),
              width - GUTTER,
              SMALL,
            ) + 3;
      }
      y += 6;
    }
    if (kit.sayings.length) {
      y = paper.room(y, 60);
      y = paper.write([{ text: 'How names are said', bold: true }], left, y + 6, width, 12) + 2;
      for (const s of kit.sayings)
        y =
          paper.write(
            [
              { text: s.word, bold: true },
              {
                text: `  ${s.respelled}${s.ipa ? `   /${s.ipa}/` : ''}${s.from === 'guess' ? '   (a guess: ask)' : ''}`,
                color: GREY,
              },
            ],
            left,
            paper.room(y, 16),
            width,
            10,
          ) + 1;
    }
    return paper.close(kit.file.title);
  },
};
