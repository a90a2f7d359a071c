import { xliffOf } from '../translation.ts';
import type { Writer } from '../writer.ts';

/** Without a language asked for it is for Spanish, which can be changed in the file's head. */
export const xliff: Writer = {
  id: 'xliff',
  name: 'XLIFF 2.1',
  says: 'for translation: a unit a line, its seconds and speaker as notes',
  loses: 'scenes, rests, what lines rest on; the script keeps them',
  extension: 'xlf',
  mime: 'application/xliff+xml',
  for: ['translator'],
  write: ({ file, sections, tools, language }) =>
    xliffOf({ title: file.title, language, sections }, tools.clock, { language: 'es' }),
};
