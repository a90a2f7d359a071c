import { z } from 'zod';
import { scriptFileSchema } from '../../script/file.ts';
import type { Writer } from '../writer.ts';

export const schema: Writer = {
  id: 'schema',
  name: 'Schema of the script file',
  says: 'JSON Schema 2020-12',
  loses: 'nothing: it holds no script',
  extension: 'json',
  suffix: 'schema',
  mime: 'application/schema+json',
  for: ['archive'],
  write: () => `${JSON.stringify(z.toJSONSchema(scriptFileSchema, { io: 'input' }), null, 2)}\n`,
};
