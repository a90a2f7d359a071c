/** What the writer says of people and places, as it is kept with a script. */
import { z } from 'zod';

/** Where a look is from that the script's own lines say. */
export const FROM_SCRIPT = 'script';
/** What the writer says of one of the cast; a field that is empty text is known to be nothing and asked no more. */
export const castOwnSchema = z.object({
  name: z.string().trim().min(1, 'Say who or what it is.').max(120),
  kind: z.enum(['person', 'place']),
  fields: z.partialRecord(
    z.enum(['role', 'age', 'hair', 'eyes', 'dress', 'kind', 'looks', 'period', 'other']),
    z.string().trim().max(160),
  ),
  /** Not to be shown: a name that is no person, or one that stays unseen. */
  out: z.boolean().optional(),
});
export type CastOwn = z.infer<typeof castOwnSchema>;
