/** What comes with a request, checked. */
import type { Request } from 'express';
import { z } from 'zod';
import { wellFormedData } from '@ursprung/core/language';
import { ApiError } from './errors.ts';

export const id = (req: Request): string => {
  const parsed = z.uuid().safeParse(req.params.id);
  if (!parsed.success) throw new ApiError('not-found');
  return parsed.data;
};

/** The body by its schema, with nothing in its words that PostgreSQL’s JSON can't keep; the first thing that is wrong with it, in words. */
export function body<T>(schema: z.ZodType<T>, req: Request): T {
  const parsed = schema.safeParse(wellFormedData(req.body as unknown));
  if (parsed.success) return parsed.data;
  const [issue] = parsed.error.issues;
  // Our own words end with a full stop; what a schema says by itself is for programmers.
  const message = /[.!?]$/.test(issue.message) ? issue.message : undefined;
  throw new ApiError('bad-request', message, { field: issue.path.join('.') });
}
