/**
 * The one description of a script's data: sections, lines, marks, takes. Types come from it, the document's attributes
 * are validated by it, and so is what pages and files send. Lengths are not limited here but where something comes in.
 */
import { z } from 'zod';
import { CUT_KINDS } from './clean/piece.ts';
import { sceneOwnSchema } from './sceneOwn.ts';

export const SECTION_ROLES = ['hook', 'ground', 'turn', 'workings', 'strain', 'settle', 'close'] as const;
export type SectionRole = (typeof SECTION_ROLES)[number];
export const LINE_ROLES = ['pull', 'ground', 'strain', 'settle', 'lead', 'frame'] as const;
export type LineRole = (typeof LINE_ROLES)[number];

/** What a line rests on: a source by its letter, the fact, and the source's own words. */
export const lineSourceSchema = z
  .object({ source: z.string(), fact: z.string().optional(), quote: z.string() })
  .readonly();
export type LineSource = z.infer<typeof lineSourceSchema>;

/** Something that stood in a pasted draft and is not spoken: a direction, a time, a heading, a remark. */
export const lineNoteSchema = z.object({
  id: z.string(),
  kind: z.enum(CUT_KINDS),
  text: z.string(),
  where: z.enum(['before', 'after']),
});
export type LineNote = z.infer<typeof lineNoteSchema>;

/** Who or what first wrote a line's words, where that was outside: kept so that a disclosure can be true. */
export const originSchema = z.object({
  kind: z.enum(['person', 'service', 'stand-in']),
  /** A person's name, or the service with its model. */
  who: z.string().max(200),
  /** ISO 8601. */
  at: z.string().max(40),
});
export type Origin = z.infer<typeof originSchema>;

/** Another version of a line. */
export const lineTakeSchema = z
  .object({
    text: z.string(),
    from: z.array(lineSourceSchema).readonly(),
    by: originSchema.optional(),
    /** What is wrong in it, for words of a reply that were refused. */
    why: z.string().max(2000).optional(),
  })
  .readonly();
export type LineTake = z.infer<typeof lineTakeSchema>;

/** A scene's beginning that the writer set. */
const cutMark = {
  id: z.string(),
  kind: z.enum(['break', 'join']),
  /** Whether it stays also where the pace would have it elsewhere and nobody says anything of the scene. */
  held: z.boolean(),
  own: sceneOwnSchema,
};
export const cutMarkSchema = z.object(cutMark);
export type CutMark = z.infer<typeof cutMarkSchema>;
const comment = { id: z.string(), text: z.string(), at: z.string(), done: z.boolean() };
export const commentSchema = z.object(comment);

/** A mark on a stretch of a line's text. */
const span = { start: z.number().int().nonnegative(), end: z.number().int().nonnegative() };
export const lineMarkSchema = z.discriminatedUnion('type', [
  z.object({ ...span, type: z.literal('stress') }),
  z.object({ ...span, type: z.literal('comment'), ...comment }),
  z.object({ ...span, type: z.literal('cut'), ...cutMark }),
]);
export type LineMark = z.infer<typeof lineMarkSchema>;

const line = z.object({
  id: z.string(),
  text: z.string(),
  role: z.enum(LINE_ROLES),
  /** A planned rest after the line, in milliseconds. */
  restMs: z.number().nonnegative(),
  /** The line's own fixed time in milliseconds (a fixed part), or null. */
  fixedMs: z.number().nonnegative().nullable(),
  locked: z.boolean(),
  speaker: z.string(),
  from: z.array(lineSourceSchema).readonly(),
  /** The name of a fixed part: its words and seconds stay as they are. */
  fixed: z.string(),
  /** Earlier and other versions. */
  takes: z.array(lineTakeSchema).readonly(),
  /** What was taken out of a pasted draft at this place. */
  notes: z.array(lineNoteSchema).readonly().optional(),
  /** What must be said here and is not written yet: its seconds are kept in `fixedMs`, nothing counts as told. */
  open: z.array(lineSourceSchema).min(1).readonly().optional(),
  /** Where the words came from outside; absent for what was drafted or written here. */
  by: originSchema.optional(),
  /** What the writer says of a scene without words. */
  scene: sceneOwnSchema.optional(),
  /** Stress, comments and cuts, by place in the text. */
  marks: z.array(lineMarkSchema).readonly().optional(),
});
export const plainLineSchema = line.readonly();
export type PlainLine = z.infer<typeof plainLineSchema>;

/** Another version of a section: its lines as they were. */
export const sectionTakeSchema = z
  .object({
    /** What it is, for the writer: "as drafted", "question hook". */
    name: z.string(),
    lines: z.array(line.omit({ takes: true }).readonly()).readonly(),
  })
  .readonly();
export type SectionTake = z.infer<typeof sectionTakeSchema>;

const section = z.object({
  id: z.string(),
  title: z.string(),
  role: z.enum(SECTION_ROLES),
  plannedMs: z.number().nonnegative(),
  locked: z.boolean(),
  /** Earlier and other versions, none of them lost. */
  takes: z.array(sectionTakeSchema).readonly(),
  lines: z.array(plainLineSchema).readonly(),
});
export const plainSectionSchema = section.readonly();
export type PlainSection = z.infer<typeof plainSectionSchema>;

/** Whether a line is a place kept for words to come. */
export const isOpen = (line: Pick<PlainLine, 'open' | 'text'>): boolean =>
  Boolean(line.open?.length) && !line.text.trim();

/** What an open line must say, in its sources' words; null for every other line. */
export const asksOf = (line: Pick<PlainLine, 'open' | 'text'>): string | null =>
  isOpen(line) ? line.open!.map((f) => f.quote).join(' ') : null;

/** An open line that has words now: a line like others, resting on what it was to say. */
export const written = (line: PlainLine): PlainLine => {
  if (!line.open?.length || !line.text.trim()) return line;
  const { open, ...rest } = line;
  return { ...rest, fixedMs: null, from: line.from.length ? line.from : open };
};

/** What a node's attribute may hold: refuses, as ProseMirror's `check` does, with a RangeError. */
const valid = (what: string, schema: z.ZodType) => (value: unknown) => {
  const result = schema.safeParse(value);
  if (result.success) return;
  const { path, message } = result.error.issues[0];
  throw new RangeError(`${[what, ...path].join('.')}: ${message}`);
};
const validOf = <S extends Record<string, z.ZodType>>(of: string, shape: S) =>
  Object.fromEntries(Object.entries(shape).map(([k, s]) => [k, valid(`${of} ${k}`, s)])) as {
    [K in keyof S]: (value: unknown) => void;
  };

export const validSection = validOf('section', section.shape);
export const validLine = validOf('line', {
  ...line.shape,
  // In the document these are always there: null, or an empty list, says that there is none.
  by: originSchema.nullable(),
  notes: z.array(lineNoteSchema),
  open: z.array(lineSourceSchema).readonly(),
  scene: sceneOwnSchema.nullable(),
});
export const validCut = validOf('cut', cutMark);
export const validComment = validOf('comment', comment);
