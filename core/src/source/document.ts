/** What every reader makes: a source as passages with offsets into one reading text. */
import { z } from 'zod';

export const SOURCE_KINDS = ['news', 'encyclopedia', 'abstract', 'forum', 'howto', 'interview'] as const;
export type SourceKind = (typeof SOURCE_KINDS)[number];
/**
 * `turn` is one person's words in an interview, `reply` an answer on a board, `row` a line of a table of figures, `caption` words under
 * a picture, `box` a row of a box of facts beside the text, "Built: 1804".
 */
export const BLOCK_TYPES = [
  'heading',
  'paragraph',
  'item',
  'quote',
  'turn',
  'reply',
  'row',
  'caption',
  'box',
] as const;
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
  /** The step this one belongs to, for a step within a step. */
  within: z.number().int().positive().optional(),
  /** Who speaks, in an interview or on a board. */
  speaker: z.string().optional(),
  /** When it is said in a recording, in milliseconds. */
  atMs: z.number().int().nonnegative().optional(),
  /** What the columns of a table's row are called; what a box's row is about. */
  heads: z.array(z.string()).optional(),
  /** Which entry of a live page it stands in, 1 the oldest. */
  entry: z.number().int().positive().optional(),
  /** Whether it belongs to the text is not sure. */
  doubt: z.boolean().optional(),
  /** The writer said that it belongs to the text. */
  chosen: z.boolean().optional(),
});
export type Block = Readonly<z.infer<typeof blockSchema>>;

export const leftOutSchema = z.object({
  text: z.string(),
  why: z.string(),
  doubt: z.boolean(),
  /** The writer said that it doesn't belong to the text. */
  chosen: z.boolean().optional(),
});
export type LeftOut = Readonly<z.infer<typeof leftOutSchema>>;

export const sourceDocumentSchema = z.object({
  version: z.literal(1),
  title: z.string(),
  kind: z.enum(SOURCE_KINDS),
  /** Why it was taken for that kind, in words for the person. */
  kindReason: z.string(),
  /** How sure the kind is, 0 to 1: its signs' share of all signs found. 1 when the person said so. */
  kindSure: z.number().min(0).max(1).default(0),
  format: z.string(),
  language: z.string(),
  published: z.string().optional(),
  updated: z.string().optional(),
  authors: z.array(z.string()).optional(),
  publisher: z.string().optional(),
  licence: z.string().optional(),
  /** The address it says it stands at. Text from outside: never fetched or linked unchecked. */
  address: z.string().optional(),
  /** Why its words are less sure than print, in words for the person. */
  doubt: z.string().optional(),
  /** The reading text: passages joined by a blank line. */
  text: z.string(),
  blocks: z.array(blockSchema),
  /** What stood beside the text and was left out of it, with why; `doubt` where it may belong to it. */
  leftOut: z.array(leftOutSchema).optional(),
});
export type SourceDocument = Readonly<z.infer<typeof sourceDocumentSchema>>;

/** A passage as a reader finds it, before it has a place. */
export interface RawBlock {
  type: BlockType;
  text: string;
  step?: number;
  within?: number;
  speaker?: string;
  atMs?: number;
  heads?: string[];
  entry?: number;
  doubt?: boolean;
  chosen?: boolean;
  /** Stands in for the heading above it. */
  under?: string;
}

/** A piece that was left out, as a reader finds it: also what it would be, and how many passages stand before it. */
export interface RawLeftOut extends LeftOut {
  type?: BlockType;
  at?: number;
}

export interface RawDocument {
  title?: string;
  published?: string;
  updated?: string;
  authors?: string[];
  publisher?: string;
  licence?: string;
  language?: string;
  address?: string;
  doubt?: string;
  /** What the format itself says it is: a journal record is a study, a caption file an interview. */
  kind?: { is: SourceKind; why: string };
  blocks: RawBlock[];
  leftOut?: RawLeftOut[];
}

/** Something about the source that stops the reading, in the person's words. */
export class SourceError extends Error {
  override name = 'SourceError';
  constructor(
    readonly code: 'empty' | 'binary' | 'too-long' | 'too-short' | 'unreadable' | 'locked',
    message: string,
  ) {
    super(message);
  }
}

/** The most words a source may hold, in letters: about 350,000 words, several books. */
export const MOST_LETTERS = 2_000_000;

/** Said by every opener and reader of what holds more. */
export const tooLong = (): SourceError =>
  new SourceError(
    'too-long',
    `This holds more than ${MOST_LETTERS.toLocaleString('en')} letters, more than several books. Paste the part you need.`,
  );
