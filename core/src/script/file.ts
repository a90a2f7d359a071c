/** The script file: a self-contained projection of the document, in seconds. */
import { z } from 'zod';
import type { Clock } from '../timing/clock.ts';
import { seconds } from '../timing/clock.ts';
import type { Fact } from '../facts/facts.ts';
import type { SourceDocument } from '../source/document.ts';
import { CUT_KINDS } from './clean/piece.ts';
import { sceneOwnSchema } from './sceneOwn.ts';
import {
  LINE_ROLES,
  SECTION_ROLES,
  isOpen,
  originSchema,
  type PlainLine,
  type PlainSection,
} from './data.ts';
import { clockLines } from './schema.ts';

export const FRAMES = ['16:9', '9:16', '1:1'] as const;
export type Frame = (typeof FRAMES)[number];
export const MOODS = ['calm', 'brisk', 'warm', 'dry', 'grave', 'light', 'suspense', 'playful'] as const;
export type Mood = (typeof MOODS)[number];
export const TARGET_KINDS = ['point', 'floor', 'ceiling'] as const;
export const SHORTEST_TARGET = 15;
export const LONGEST_TARGET = 25 * 60;
/** The pace a frame is written for when nothing else is said, in words a minute (common practice, no published source). */
export const DEFAULT_PACE: Readonly<Record<Frame, number>> = { '16:9': 150, '9:16': 190, '1:1': 175 };

export const targetSchema = z.object({
  kind: z.enum(TARGET_KINDS),
  seconds: z.number().min(SHORTEST_TARGET).max(LONGEST_TARGET),
});
export type Target = z.infer<typeof targetSchema>;

/** A vertical film of up to so many seconds is a short: it opens on a hook of its own (common practice, no published source). */
const LONGEST_SHORT = 90;
export const isShort = ({ frame, target }: { frame: Frame; target: Target }): boolean =>
  frame === '9:16' && target.seconds <= LONGEST_SHORT;

const lineSchema = z.object({
  id: z.string().min(1).max(40),
  text: z.string().max(20_000),
  role: z.enum(LINE_ROLES),
  seconds: z.number().nonnegative(),
  rest: z.number().nonnegative().max(60).optional(),
  speaker: z.string().max(80).optional(),
  fixed: z.number().nonnegative().max(600).optional(),
  /** The name of a fixed part. */
  part: z.string().max(80).optional(),
  locked: z.boolean().optional(),
  /** Words to be stressed, as ranges of the text. */
  stress: z
    .array(z.object({ start: z.number().int().nonnegative(), end: z.number().int().positive() }))
    .optional(),
  /** Where the writer wants scenes to begin, or none to: on these characters; `own` is what is said of the scene. */
  cuts: z
    .array(
      z.object({
        id: z.string().min(1).max(40),
        start: z.number().int().nonnegative(),
        end: z.number().int().positive(),
        kind: z.enum(['break', 'join']),
        held: z.boolean(),
        own: sceneOwnSchema,
      }),
    )
    .optional(),
  /** What the writer says of a scene without words. */
  scene: sceneOwnSchema.optional(),
  /** A place kept for words to come: what they must say stands in `facts`, the time they will take in `seconds`. */
  open: z.literal(true).optional(),
  facts: z
    .array(
      z.object({
        source: z.string().max(10),
        fact: z.string().max(20).optional(),
        quote: z.string().max(20_000),
      }),
    )
    .optional(),
  /** Who or what first wrote it, where that was outside. */
  by: originSchema.optional(),
  /** What was taken out of a pasted draft here. */
  notes: z
    .array(
      z.object({ kind: z.enum(CUT_KINDS), text: z.string().max(20_000), where: z.enum(['before', 'after']) }),
    )
    .optional(),
  from: z.array(
    z.object({
      source: z.string().max(10),
      fact: z.string().max(20).optional(),
      quote: z.string().max(20_000),
    }),
  ),
});
const sectionSchema = z.object({
  id: z.string().min(1).max(40),
  title: z.string().max(300),
  role: z.enum(SECTION_ROLES),
  seconds: z.number().nonnegative(),
  planned: z.number().nonnegative().optional(),
  locked: z.boolean().optional(),
  lines: z.array(lineSchema),
});
const fileSourceSchema = z
  .object({ id: z.string().min(1).max(10), title: z.string(), kind: z.string() })
  .loose();

/** The version of script files that is written today. */
export const FILE_VERSION = 2;

/** Script files of earlier versions, each as the next one has it. */
const FILE_UPGRADES: Readonly<Record<number, (file: object) => object>> = {
  // Version 1 had no brief, fixed parts, promise or cast: a script without them is one of version 2.
  1: (file) => ({ ...file, version: 2 }),
};

/** A script file of any version, not yet checked, as one of today's. */
export function upgradedFile(json: unknown): unknown {
  let file = json;
  while (typeof file === 'object' && file !== null && 'version' in file) {
    const upgrade = FILE_UPGRADES[Number(file.version)];
    if (!upgrade) break;
    file = upgrade(file);
  }
  return file;
}

/** How a script is told: what only later rooms understand is carried as it is and read there. */
const carried = {
  brief: z.record(z.string(), z.unknown()).optional(),
  /** Parts that stay as they are. */
  fixed: z.array(z.record(z.string(), z.unknown())).max(12).optional(),
  /** The parts of a shape of the writer's own. */
  parts: z.array(z.record(z.string(), z.unknown())).max(20).optional(),
  /** What the script must make good. */
  promise: z.record(z.string(), z.unknown()).optional(),
  /** What the writer says of people and places. */
  cast: z.array(z.record(z.string(), z.unknown())).max(100).optional(),
};
const CARRIED = Object.keys(carried) as (keyof typeof carried)[];

export const scriptFileSchema = z.object({
  version: z.literal(FILE_VERSION),
  title: z.string().max(300),
  language: z.string(),
  frame: z.enum(FRAMES),
  mood: z.enum(MOODS).optional(),
  pace: z.number().positive(),
  voice: z.string(),
  seed: z.number().int(),
  shape: z.string(),
  target: targetSchema,
  seconds: z.number().nonnegative(),
  sources: z.array(fileSourceSchema),
  sections: z.array(sectionSchema),
  ...carried,
});
export type ScriptFile = z.infer<typeof scriptFileSchema>;

export interface ScriptSettings {
  title: string;
  frame: Frame;
  mood: Mood;
  pace: number;
  voice: string;
  seed: number;
  shape: string;
  target: Target;
  brief?: object;
  fixed?: readonly object[];
  parts?: readonly object[];
  promise?: object;
  cast?: readonly object[];
}

/** A source as the script file and `read` print it. */
export function printedSource(source: SourceDocument, facts: readonly Fact[]) {
  return {
    title: source.title,
    kind: source.kind,
    ...(source.published ? { published: source.published } : {}),
    ...(source.authors ? { authors: source.authors } : {}),
    ...(source.publisher ? { publisher: source.publisher } : {}),
    ...(source.updated ? { updated: source.updated } : {}),
    ...(source.licence ? { licence: source.licence } : {}),
    ...(source.address ? { address: source.address } : {}),
    ...(source.doubt ? { doubt: source.doubt } : {}),
    language: source.language,
    blocks: source.blocks.map((b) => ({
      id: b.id,
      type: b.type,
      text: b.text,
      ...(b.under ? { under: b.under } : {}),
      ...(b.step ? { step: b.step } : {}),
      ...(b.within ? { within: b.within } : {}),
      ...(b.speaker ? { speaker: b.speaker } : {}),
      ...(b.atMs === undefined ? {} : { at: b.atMs / 1000 }),
      ...(b.heads ? { heads: b.heads } : {}),
      ...(b.entry ? { entry: b.entry } : {}),
      ...(b.doubt ? { doubt: true } : {}),
    })),
    facts: facts.map((f) => ({
      id: f.id,
      ...(f.own ? { own: f.own } : {}),
      block: f.block,
      type: f.type,
      text: f.text,
      ...(f.statement
        ? {
            subject: f.statement.subject.text,
            verb: f.statement.verb.text,
            ...(f.statement.object ? { object: f.statement.object.text } : {}),
          }
        : {}),
      ...(f.attribution ? { attribution: f.attribution.text } : {}),
      modality: f.modality,
      polarity: f.polarity,
      numbers: f.numbers.map(({ text, value, unit }) => ({ text, value, ...(unit ? { unit } : {}) })),
      dates: f.dates.map(({ text, iso, resolved }) => ({ text, iso, ...(resolved ? { resolved } : {}) })),
      ...(f.times.length ? { times: f.times.map(({ text, iso }) => ({ text, iso })) } : {}),
      names: f.names.map((n) => n.text),
      ...(f.silent ? { silent: f.silent } : {}),
      ...(f.leans.length ? { leans: f.leans.map((l) => l.on) } : {}),
      strength: f.strength,
    })),
  };
}

/** The script file of a document. Its sums hold to the millisecond: lines to sections to the whole. */
export function scriptFile(
  settings: ScriptSettings,
  sections: readonly PlainSection[],
  clock: Clock,
  sources: ScriptFile['sources'],
): ScriptFile {
  const timed = clock.lines(clockLines(sections));
  let at = 0;
  let whole = 0;
  const printed = sections.map((s) => {
    let sum = 0;
    const lines = s.lines.map((l) => {
      const { ms } = timed[at++];
      sum += ms;
      return {
        id: l.id,
        text: l.text,
        role: l.role,
        seconds: seconds(ms),
        ...(l.restMs ? { rest: seconds(l.restMs) } : {}),
        ...(l.speaker ? { speaker: l.speaker } : {}),
        ...(isOpen(l)
          ? { open: true as const, facts: l.open!.map((f) => ({ ...f })) }
          : l.fixedMs === null
            ? {}
            : { fixed: seconds(l.fixedMs) }),
        ...(l.locked ? { locked: true } : {}),
        ...(l.fixed ? { part: l.fixed } : {}),
        ...stressed(l),
        ...cutsOf(l),
        ...(l.scene ? { scene: l.scene } : {}),
        ...(l.by ? { by: { ...l.by } } : {}),
        ...(l.notes?.length
          ? { notes: l.notes.map(({ kind, text, where }) => ({ kind, text, where })) }
          : {}),
        from: l.from.map((f) => ({ ...f })),
      };
    });
    whole += sum;
    return {
      id: s.id,
      title: s.title,
      role: s.role,
      seconds: seconds(sum),
      planned: seconds(s.plannedMs),
      ...(s.locked ? { locked: true } : {}),
      lines,
    };
  });
  const { title, frame, mood, pace, voice, seed, shape, target } = settings;
  return {
    version: FILE_VERSION,
    title,
    language: 'en',
    frame,
    mood,
    pace,
    voice,
    seed,
    shape,
    target,
    seconds: seconds(whole),
    sources,
    sections: printed,
    ...(Object.fromEntries(
      CARRIED.flatMap((key) => (settings[key] === undefined ? [] : [[key, settings[key]]])),
    ) as Pick<ScriptFile, (typeof CARRIED)[number]>),
  };
}

const stressed = ({ marks = [] }: PlainLine) => {
  const list = marks.filter((m) => m.type === 'stress').map(({ start, end }) => ({ start, end }));
  return list.length ? { stress: list } : {};
};

const cutsOf = ({ marks = [] }: PlainLine) => {
  const list = marks.flatMap((m) => {
    if (m.type !== 'cut') return [];
    const { id, start, end, kind, held, own } = m;
    return [{ id, start, end, kind, held, own }];
  });
  return list.length ? { cuts: list } : {};
};

const marksOfFile = (l: ScriptFile['sections'][number]['lines'][number]) => {
  const marks = [
    ...(l.stress ?? []).map((r) => ({ type: 'stress' as const, ...r })),
    ...(l.cuts ?? []).map((c) => ({ type: 'cut' as const, ...c })),
  ];
  return marks.length ? { marks } : {};
};

/** Sections of a script file as the document's plain form. */
export function sectionsOfFile(file: ScriptFile): PlainSection[] {
  return file.sections.map((s) => ({
    id: s.id,
    title: s.title,
    role: s.role,
    plannedMs: Math.round((s.planned ?? s.seconds) * 1000),
    locked: s.locked ?? false,
    takes: [],
    lines: s.lines.map((l) => ({
      id: l.id,
      text: l.text,
      role: l.role,
      restMs: Math.round((l.rest ?? 0) * 1000),
      fixedMs:
        l.fixed !== undefined
          ? Math.round(l.fixed * 1000)
          : l.open && l.facts?.length
            ? Math.round((l.seconds - (l.rest ?? 0)) * 1000)
            : null,
      locked: l.locked ?? false,
      speaker: l.speaker ?? '',
      from: l.from,
      fixed: l.part ?? '',
      takes: [],
      ...(l.by ? { by: l.by } : {}),
      ...(l.notes?.length ? { notes: l.notes.map((n, i) => ({ ...n, id: `${l.id}N${i + 1}` })) } : {}),
      ...(l.scene ? { scene: l.scene } : {}),
      ...(l.open && l.facts?.length ? { open: l.facts } : {}),
      ...marksOfFile(l),
    })),
  }));
}

/** The tolerance around a target, in milliseconds: the larger of 1 % and 1 s. */
export const toleranceMs = (targetSeconds: number): number => Math.max(1000, Math.round(targetSeconds * 10));

/** How far a script is over (+) or under (−) what was asked, in milliseconds; a floor is never over, a ceiling never under. */
export function overMs(target: Target, ms: number): number {
  const difference = ms - Math.round(target.seconds * 1000);
  if (target.kind === 'floor') return Math.min(0, difference);
  if (target.kind === 'ceiling') return Math.max(0, difference);
  return difference;
}
