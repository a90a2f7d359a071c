/** What every reader makes: a source as passages with offsets into one reading text. */
import { z } from 'zod';

export const SOURCE_KINDS = ['news', 'encyclopedia', 'abstract', 'forum', 'howto'] as const;
export type SourceKind = (typeof SOURCE_KINDS)[number];
export const BLOCK_TYPES = ['heading', 'paragraph', 'item', 'quote'] as const;
export type BlockType = (typeof BLOCK_TYPES)[number];

export const blockSchema = z.object({
  /** "p1", "p2"… in reading order. */
  id: z.string().regex(/^p\d+$/),
  type: z.enum(BLOCK_TYPES),
  text: z.string(),
  /** Offsets of the passage into the document's text, [start, end). */
  start: z.number().int().nonnegative(),
  end: z.number().int().nonnegative(),
  /** The heading it stands under. */
  under: z.string().optional(),
  /** The number of a step in an ordered list, from 1. */
  step: z.number().int().positive().optional(),
});
export type Block = Readonly<z.infer<typeof blockSchema>>;

export const sourceDocumentSchema = z.object({
  version: z.literal(1),
  title: z.string(),
  kind: z.enum(SOURCE_KINDS),
  /** Why it was taken for that kind, in words for the person. */
  kindReason: z.string(),
  format: z.string(),
  language: z.string(),
  published: z.string().optional(),
  authors: z.array(z.string()).optional(),
  publisher: z.string().optional(),
  licence: z.string().optional(),
  /** The reading text: passages joined by a blank line. */
  text: z.string(),
  blocks: z.array(blockSchema),
});
export type SourceDocument = Readonly<z.infer<typeof sourceDocumentSchema>>;

/** A passage as a reader finds it, before it has a place. */
export interface RawBlock {
  type: BlockType;
  text: string;
  step?: number;
}

export interface RawDocument {
  title?: string;
  published?: string;
  authors?: string[];
  publisher?: string;
  licence?: string;
  language?: string;
  blocks: RawBlock[];
}

/** Something about the source that stops the reading, in the person's words. */
export class SourceError extends Error {
  override name = 'SourceError';
  constructor(
    readonly code: 'empty' | 'binary' | 'too-long' | 'too-short' | 'unreadable',
    message: string,
  ) {
    super(message);
  }
}
