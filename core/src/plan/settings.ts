/** What a script keeps of its plan: the promise, parts of its own, parts that stay as they are. */
import { z } from 'zod';
import { SECTION_ROLES } from '../script/data.ts';

export const fixedSchema = z.object({
  id: z.string().max(40),
  name: z.string().trim().min(1, 'A fixed part has a name.').max(60),
  text: z.string().max(2000),
  ms: z.number().int().min(0).max(180_000).optional(),
  where: z.enum(['start', 'end', 'middle']),
});

const factRef = z.object({ source: z.string().max(10), fact: z.string().max(40) });
/** What the script must make good. */
export const promiseSchema = z.object({
  /** The fact the title rests on. */
  pays: factRef.optional(),
  sentence: z.string().max(400).default(''),
  picture: z.object({ shows: z.string().max(300), words: z.string().max(80) }).optional(),
  /** A fact of the passage that explains a story, confirmed by the writer. */
  reveal: z.string().max(20).optional(),
  angle: z.object({ says: z.string().max(300), facts: z.array(factRef).max(200) }).optional(),
});
export const partSchema = z.object({
  name: z.string().trim().min(1, 'A part has a name.').max(60),
  role: z.enum(SECTION_ROLES),
  share: z.number().min(0).max(100),
});
