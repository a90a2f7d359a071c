import { captions } from '../captions.ts';
import { subRip } from '../subRip.ts';
import type { Writer } from '../writer.ts';

export const srt: Writer = {
  id: 'srt',
  name: 'Captions, SubRip',
  says: 'timed from the clock, broken by sense',
  loses: 'where on the picture they stand; who speaks is a dash',
  extension: 'srt',
  mime: 'application/x-subrip',
  for: ['editor', 'uploader', 'translator'],
  // Room for the dash.
  write: (kit) => {
    const dialogue = kit.sections.some((s) => s.lines.some((l) => l.speaker));
    return subRip(
      dialogue
        ? captions(kit.sections, kit.tools.clock, {
            ...kit.limits,
            lineCharacters: kit.limits.lineCharacters - 2,
          })
        : kit.captions,
    );
  },
};
