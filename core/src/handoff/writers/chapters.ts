import { chapterClock } from '../chapters.ts';
import { CannotWrite, type Writer } from '../writer.ts';

export const chapters: Writer = {
  id: 'chapters',
  name: 'Chapters',
  says: '0:00 Title, a row a chapter',
  loses: 'everything but starts and titles',
  extension: 'txt',
  suffix: 'chapters',
  mime: 'text/plain',
  for: ['uploader'],
  write: (kit) => {
    if ('refused' in kit.chapters) throw new CannotWrite(kit.chapters.refused);
    return kit.chapters.chapters
      .map((c) => `${chapterClock(c.startMs)} ${c.title.replace(/\s+/g, ' ')}\n`)
      .join('');
  },
};
