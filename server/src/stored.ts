/** What was stored, read by today's schema: settings that it refuses are left out, and a document says so when it can't be read. */
import type { Transform } from 'prosemirror-transform';
import type { Transaction } from 'sequelize';
import { z } from 'zod';
import {
  DEFAULT_PACE,
  FORMAT,
  docFromJson,
  plainSectionSchema,
  plainSections,
  type PlainSection,
  type ScriptNode,
} from '@ursprung/core/script';
import { choicesSchema, type Choices } from '@ursprung/core/source';
import {
  channelSettings,
  commissionScope,
  handedFile,
  leftOut,
  type CommissionScope,
  scriptSettings,
  type ChannelSettings,
  type ScriptRowSettings,
} from './api.ts';
import type { Models, ScriptRow } from './db/models.ts';
import { ApiError } from './errors.ts';

const USUAL: ScriptRowSettings = {
  title: 'No title',
  frame: '16:9',
  mood: 'calm',
  pace: DEFAULT_PACE['16:9'],
  voice: 'even',
  target: { kind: 'point', seconds: 180 },
  seed: 1,
  shape: 'none',
};

const USUAL_CHANNEL: ChannelSettings = {
  frame: USUAL.frame,
  mood: USUAL.mood,
  pace: USUAL.pace,
  voice: USUAL.voice,
  usual: { from: 60, to: 600 },
};

/** Settings of any earlier format. Fields that can't be read are as they are in a new script. */
export const storedSettings = (json: unknown): ScriptRowSettings => fieldwise(scriptSettings, json, USUAL);

/** The same for a channel. */
export const storedChannel = (json: unknown): ChannelSettings =>
  fieldwise(channelSettings, json, USUAL_CHANNEL);

function fieldwise<T extends object>(
  whole: z.ZodType<T> & { shape: Record<string, z.ZodType> },
  json: unknown,
  usual: T,
): T {
  const all = whole.safeParse(json);
  if (all.success) return all.data;
  const stored = typeof json === 'object' && json !== null ? (json as Record<string, unknown>) : {};
  const read = Object.entries(whole.shape).flatMap(([key, schema]) => {
    const value = key in stored ? schema.safeParse(stored[key]) : null;
    return value?.success && value.data !== undefined ? [[key, value.data] as const] : [];
  });
  return { ...usual, ...(Object.fromEntries(read) as Partial<T>) };
}

/** What was handed over, as it is compared with what the script says now; lines that can't be read are not compared. */
export function storedSnapshot(json: unknown): { title: string; sections: PlainSection[] } {
  const { title, sections } = snapshotSchema.safeParse(json).data ?? { title: '', sections: [] };
  return { title, sections: sections.flatMap((s) => plainSectionSchema.safeParse(s).data ?? []) };
}
const snapshotSchema = z.object({ title: z.string(), sections: z.array(z.unknown()) });

/** A stored list by the schema of its entries; one that can't be read is left out. */
const listOf =
  <T>(entry: z.ZodType<T>) =>
  (json: unknown): T[] =>
    (Array.isArray(json) ? json : []).flatMap((x: unknown) => {
      const read = entry.safeParse(x);
      return read.success ? [read.data] : [];
    });
export const storedFiles = listOf(handedFile);
export const storedLeft = listOf(leftOut);
export const storedFormats = listOf(z.string());
/** What writers decided about a source's pieces; null where that is nothing or can't be read. */
export const storedChoices = (json: unknown): Choices | null => choicesSchema.safeParse(json).data ?? null;
/** What was ordered; the whole script where that can't be read. */
/** Sections as they stood; those that can't be read are left out. */
export const storedSections = (json: unknown): PlainSection[] =>
  (Array.isArray(json) ? json : []).flatMap((s: unknown) => plainSectionSchema.safeParse(s).data ?? []);
export const storedScope = (json: unknown): CommissionScope => commissionScope.safeParse(json).data ?? {};

/** The document of a script. One that can't be read is said to be so, and nothing of it is changed. */
export function opened(row: { doc: unknown }): ScriptNode {
  try {
    return docFromJson(row.doc);
  } catch (error) {
    if (error instanceof RangeError || error instanceof TypeError) throw new ApiError('script-broken');
    throw error;
  }
}

/** A script's document, or null where what is stored can't be read: that is one script's trouble, not the library's. */
export function readableDoc(row: { doc: unknown }): ScriptNode | null {
  try {
    return docFromJson(row.doc);
  } catch (error) {
    if (error instanceof RangeError || error instanceof TypeError) return null;
    throw error;
  }
}
/** Its sections, or null. */
export function readable(row: { doc: unknown }): PlainSection[] | null {
  const doc = readableDoc(row);
  return doc && plainSections(doc);
}

/** A change of a script's row: what of it is in an earlier format is written in today's with it. */
export const inFormat = (row: ScriptRow, change: { doc?: unknown; settings?: ScriptRowSettings }) =>
  row.format < FORMAT
    ? { doc: change.doc ?? row.doc, settings: change.settings ?? row.settings, format: FORMAT }
    : change;

/** Steps that the server makes itself, behind the newest version of a script whose row is held by the transaction. */
export async function appendToLog(
  models: Models,
  row: ScriptRow & {
    update: (change: Partial<ScriptRow>, how: { transaction: Transaction }) => Promise<unknown>;
  },
  tr: Transform,
  origin: string,
  at: Date,
  transaction: Transaction,
): Promise<void> {
  if (!tr.steps.length) return;
  await models.steps.bulkCreate(
    tr.steps.map((step, i) => ({
      scriptId: row.id,
      version: row.version + i + 1,
      step: step.toJSON() as unknown,
      inverse: step.invert(tr.docs[i]).toJSON() as unknown,
      format: FORMAT,
      origin,
      clientId: 'server',
      at,
    })),
    { transaction },
  );
  await row.update(
    { ...inFormat(row, { doc: tr.doc.toJSON() }), version: row.version + tr.steps.length, updatedAt: at },
    { transaction },
  );
}
