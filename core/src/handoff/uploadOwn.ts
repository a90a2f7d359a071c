/** Parts of the upload sheet that a person can word otherwise. */
import { z } from 'zod';

export const UPLOAD_PARTS = [
  'summary',
  'hashtags',
  'searchWords',
  'question',
  'pinned',
  'endPointer',
  'credits',
  'disclosure',
] as const;
export type UploadPart = (typeof UPLOAD_PARTS)[number];
export const uploadOwnSchema = z.partialRecord(z.enum(UPLOAD_PARTS), z.string().max(4000));
export type UploadOwn = z.infer<typeof uploadOwnSchema>;
