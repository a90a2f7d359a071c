import { isSaid, type Writer } from '../writer.ts';

export const text: Writer = {
  id: 'text',
  name: 'Clean text',
  says: 'the narration alone, a paragraph a section',
  loses: 'everything but the words and the order of the sections',
  extension: 'txt',
  mime: 'text/plain',
  for: ['voice', 'translator', 'archive'],
  write: ({ sections }) =>
    `${sections
      .map((s) =>
        s.lines
          .filter(isSaid)
          .map((l) => l.text.trim())
          .join(' '),
      )
      .filter(Boolean)
      .join('\n\n')}\n`,
};
