/** Chapters as FFMETADATA1 (ffmpeg's own documentation of the format): milliseconds, signs escaped with a backslash. */
import type { Writer } from '../writer.ts';

const escape = (text: string) => text.replace(/[=;#\\]/g, '\\$&').replace(/\s+/g, ' ');

export const ffmetadata: Writer = {
  id: 'ffmetadata',
  name: 'Chapters, ffmetadata',
  says: 'every section with start and end, for the film file',
  loses: 'everything but title, starts and ends',
  extension: 'ffmetadata',
  mime: 'text/plain',
  for: ['editor'],
  write: ({ file, sections, times, language, input }) => {
    const out = [
      ';FFMETADATA1',
      `title=${escape(file.title)}`,
      `artist=${escape(input.channel.name)}`,
      `language=${escape(language)}`,
    ];
    for (const s of sections) {
      const first = times.get(s.lines[0].id)!;
      const last = times.get(s.lines[s.lines.length - 1].id)!;
      if (last.startMs + last.ms <= first.startMs) continue;
      out.push(
        '[CHAPTER]',
        'TIMEBASE=1/1000',
        `START=${first.startMs}`,
        `END=${last.startMs + last.ms}`,
        `title=${escape(s.title)}`,
      );
    }
    return `${out.join('\n')}\n`;
  },
};
