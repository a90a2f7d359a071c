import { cslItem } from '../../source/cite.ts';
import type { Writer } from '../writer.ts';

export const csl: Writer = {
  id: 'csl',
  name: 'Sources, CSL-JSON',
  says: 'the sources as citations (CSL-JSON 1.0.2)',
  loses: 'their words and facts',
  extension: 'json',
  suffix: 'sources',
  mime: 'application/vnd.citationstyles.csl+json',
  for: ['archive', 'uploader'],
  write: ({ input }) =>
    `${JSON.stringify(
      input.sources.map((s) => cslItem(s.document, s.letter)),
      null,
      2,
    )}\n`,
};
