/** What people hand to the command line, read and checked. */
import { readFileSync, statSync } from 'node:fs';
import { basename } from 'node:path';
import { LARGEST_SOURCE, decodeText } from '@ursprung/core/source';
import {
  LONGEST_TARGET,
  SHORTEST_TARGET,
  scriptFileSchema,
  upgradedFile,
  type ScriptFile,
} from '@ursprung/core/script';
import { MOST_PICTURES } from '@ursprung/core/scenes';
import {
  FASTEST_PACE,
  SHIPPED_VOICES,
  SLOWEST_PACE,
  isPace,
  lengthMs,
  voiceSchema,
  type Voice,
} from '@ursprung/core/timing';

/** A mistake of the person's: one clear line, exit 1. */
export class UsageError extends Error {
  override name = 'UsageError';
}

/** The bytes of a file, its size checked before it is read. */
export function fileBytes(path: string, largest = LARGEST_SOURCE): Uint8Array {
  let size: number;
  try {
    const info = statSync(path);
    if (info.isDirectory()) throw new UsageError(`${path} is a folder.`);
    size = info.size;
  } catch (error) {
    if (error instanceof UsageError) throw error;
    throw new UsageError(`${path} can't be found or opened.`);
  }
  if (size > largest)
    throw new UsageError(
      `${path} is ${(size / 1048576).toFixed(1)} MB; at most ${Math.round(largest / 1048576)} MB are read.`,
    );
  return readFileSync(path);
}

export const fileText = (path: string): string => decodeText(fileBytes(path));

/** A script file, or null when the file holds something else. Throws on a script file that is broken. */
export function scriptFrom(path: string, text: string): ScriptFile | null {
  // "{{" opens a page of wikitext.
  if (!/^\s*\{\s*(?:["}]|$)/.test(text)) return null;
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new UsageError(`${path} begins like a script file but is not whole: it can't be read as JSON.`);
  }
  const parsed = scriptFileSchema.safeParse(upgradedFile(json));
  if (parsed.success) return parsed.data;
  const [issue] = parsed.error.issues;
  throw new UsageError(
    `${basename(path)} is no script file: ${issue.path.join('.') || 'the whole'}: ${issue.message}`,
  );
}

/** Seconds asked for, in the range the product works in. */
export function lengthFrom(value: string | undefined): number {
  const ms = lengthMs(value ?? '');
  if (ms === null) throw new UsageError('Say the length in seconds: --seconds 180.');
  const seconds = ms / 1000;
  if (seconds < SHORTEST_TARGET || seconds > LONGEST_TARGET)
    throw new UsageError(
      `A length is between ${SHORTEST_TARGET} and ${LONGEST_TARGET} seconds; ${seconds} is not.`,
    );
  return seconds;
}

export function paceFrom(value: string | undefined): number | undefined {
  if (value === undefined) return undefined;
  const pace = Number(value);
  if (!isPace(pace))
    throw new UsageError(
      `A pace is between ${SLOWEST_PACE} and ${FASTEST_PACE} words a minute; ${value} is not.`,
    );
  return pace;
}

export function picturesFrom(value: string | undefined): number | undefined {
  if (value === undefined) return undefined;
  const pictures = Number(value);
  if (!Number.isInteger(pictures) || pictures < 1 || pictures > MOST_PICTURES)
    throw new UsageError(`Say how many pictures: a whole number from 1 to ${MOST_PICTURES}.`);
  return pictures;
}

/** A shipped voice by name, or one from a file made by calibrate. */
export function voiceFrom(value: string | undefined): Voice {
  if (value === undefined) return SHIPPED_VOICES.even;
  if (Object.hasOwn(SHIPPED_VOICES, value)) return SHIPPED_VOICES[value];
  let json: unknown;
  try {
    json = JSON.parse(fileText(value));
  } catch (error) {
    if (error instanceof UsageError)
      throw new UsageError(
        `There is no voice “${value}”: it is neither ${Object.keys(SHIPPED_VOICES).join(', ')} nor a file.`,
      );
    throw new UsageError(`${value} is no voice file.`);
  }
  const parsed = voiceSchema.safeParse(json);
  if (!parsed.success)
    throw new UsageError(
      `${value} is no voice file: ${parsed.error.issues[0].path.join('.')}: ${parsed.error.issues[0].message}`,
    );
  return parsed.data;
}

/** One of a closed set of words. */
export function oneOf<T extends string>(
  name: string,
  value: string | undefined,
  allowed: readonly T[],
): T | undefined {
  if (value === undefined) return undefined;
  if ((allowed as readonly string[]).includes(value)) return value as T;
  throw new UsageError(`--${name} is one of ${allowed.join(', ')}; “${value}” is not.`);
}

/** The voice a script file names, where it ships; else undefined. */
export const knownVoice = (script: ScriptFile) =>
  ['even', 'quick', 'plain'].includes(script.voice) ? script.voice : undefined;
