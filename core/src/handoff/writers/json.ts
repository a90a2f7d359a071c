import type { Writer } from '../writer.ts';

export const json: Writer = {
  id: 'json',
  name: 'Script file',
  says: 'everything of the script, to read back',
  loses: 'takes, comments and history',
  extension: 'json',
  mime: 'application/json',
  for: ['archive'],
  write: ({ file }) => `${JSON.stringify(file, null, 2)}\n`,
};
