/** What was stored, read by today's schema: settings that it refuses are left out, and a document says so when it can't be read. */
import type { z } from 'zod';
import {
  DEFAULT_PACE,
  docFromJson,
  plainSections,
  type PlainSection,
  type ScriptNode,
} from '@ursprung/core/script';
import { scriptSettings, type ScriptRowSettings } from './api.ts';
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

/** Settings of any earlier format. Fields that can't be read are as they are in a new script. */
export function storedSettings(json: unknown): ScriptRowSettings {
  const whole = scriptSettings.safeParse(json);
  if (whole.success) return whole.data;
  const stored = typeof json === 'object' && json !== null ? (json as Record<string, unknown>) : {};
  const read = Object.entries(scriptSettings.shape).flatMap(([key, schema]: [string, z.ZodType]) => {
    const value = key in stored ? schema.safeParse(stored[key]) : null;
    return value?.success && value.data !== undefined ? [[key, value.data] as const] : [];
  });
  return { ...USUAL, ...(Object.fromEntries(read) as Partial<ScriptRowSettings>) };
}

/** The document of a script. One that can't be read is said to be so, and nothing of it is changed. */
export function opened(row: { doc: unknown }): ScriptNode {
  try {
    return docFromJson(row.doc);
  } catch (error) {
    if (error instanceof RangeError || error instanceof TypeError) throw new ApiError('script-broken');
    throw error;
  }
}

/** A script's sections, or null where what is stored can't be read: that is one script's trouble, not the library's. */
export function readable(row: { doc: unknown }): PlainSection[] | null {
  try {
    return plainSections(docFromJson(row.doc));
  } catch (error) {
    if (error instanceof RangeError || error instanceof TypeError) return null;
    throw error;
  }
}
