/** The two-column script as the trade prints it: picture left, sound right, a row a scene, timed. */
import { clockText } from '../../timing/clockText.ts';
import type { Kit } from '../kit.ts';
import type { Writer } from '../writer.ts';
import { GREY, Paper, type Run } from './paper.ts';

const SIZE = 9;
const CLOCK = 44;
const BETWEEN = 14;

interface Row {
  clock: string;
  seconds: string;
  picture: string[];
  sound: { text: string; grey: boolean; bold?: boolean }[];
  section: string | null;
}

export function twoColumnRows({ film, sections }: Kit): Row[] {
  const titles = new Map(sections.map((s) => [s.id, s.title]));
  let section = '';
  return film.scenes.map((s, i) => {
    const p = film.pictures[i];
    const opens = s.section !== section;
    section = s.section;
    return {
      clock: clockText(s.startMs),
      seconds: `${((s.endMs - s.startMs) / 1000).toFixed(1)} s`,
      section: opens ? (titles.get(s.section) ?? '') : null,
      picture: [
        p.description,
        `Picture: ${p.movement.picture}${p.movement.people === 'none' ? '' : `; people: ${p.movement.people}`}`,
        ...(p.onScreen.length ? [`On screen: ${p.onScreen.join(' | ')}`] : []),
      ],
      sound: [
        ...(s.speaker ? [{ text: s.speaker.toUpperCase(), grey: false, bold: true }] : []),
        { text: s.silent ? '(nobody speaks)' : s.text, grey: s.silent },
        ...p.sound.map((c) => ({ text: `${c.kind}: ${c.what}, ${c.level} dB`, grey: true })),
      ],
    };
  });
}

export const twocolumn: Writer = {
  id: 'twocolumn',
  name: 'Two-column script',
  says: 'picture and sound side by side, timed, a row a scene',
  loses: 'what lines rest on, search words',
  extension: 'pdf',
  suffix: 'two-column',
  mime: 'application/pdf',
  for: ['editor', 'archive'],
  write: async (kit) => {
    const says = `${clockText(kit.totalMs)}, ${kit.film.scenes.length} scenes, ${kit.file.frame}`;
    const { paper, y: top } = await Paper.headed(kit, says, { title: 16, small: SIZE });
    const { left, width } = paper;
    const column = (width - CLOCK - BETWEEN) / 2;
    const [at, right] = [left + CLOCK, left + CLOCK + column + BETWEEN];
    let y = top + 8;
    paper.write([{ text: 'PICTURE', bold: true }], at, y, column, SIZE);
    y = paper.write([{ text: 'SOUND', bold: true }], right, y, column, SIZE) + 4;
    for (const row of twoColumnRows(kit)) {
      const paragraphs = (texts: readonly { text: string; grey: boolean; bold?: boolean }[]): Run[][] =>
        texts.map((t) => [
          { text: t.text, ...(t.bold ? { bold: true } : {}), ...(t.grey ? { color: GREY } : {}) },
        ]);
      const tallness = (list: readonly Run[][]) =>
        list.reduce((n, p) => n + paper.height(p, column, SIZE), 0);
      const picture = paragraphs(row.picture.map((text, i) => ({ text, grey: i > 0 })));
      const sound = paragraphs(row.sound);
      const tall = Math.max(tallness(picture), tallness(sound)) + 10;
      y = paper.room(y, Math.min(tall + (row.section === null ? 0 : 22), 500));
      if (row.section !== null)
        y = paper.write([{ text: row.section, bold: true }], left, y + 6, width, 11) + 2;
      paper.doc
        .moveTo(left, y)
        .lineTo(left + width, y)
        .lineWidth(0.4)
        .strokeColor('#8a8273')
        .stroke();
      y += 4;
      paper.column([[{ text: row.clock }], [{ text: row.seconds, color: GREY }]], left, y, CLOCK - 4, SIZE);
      const a = paper.column(picture, at, y, column, SIZE);
      const b = paper.column(sound, right, y, column, SIZE);
      y = Math.max(a, b) + 6;
    }
    return paper.close(kit.file.title);
  },
};
