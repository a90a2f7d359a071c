/** The film and the kit of a script file: its sources are read again from what the file holds. */
import { createHash } from 'node:crypto';
import {
  keptOf,
  layRecording,
  makeKit,
  type FrameRate,
  type KeptRecording,
  type Kit,
  type UploadSource,
} from '@ursprung/core/handoff';
import { filmOf, paceForCount, type Film } from '@ursprung/core/scenes';
import { sectionsOfFile, type Frame, type ScriptFile } from '@ursprung/core/script';
import { getClock, getFonts, getKin, getPronouncer, getSenses, getTagger } from '@ursprung/server/tools';
import { UsageError, knownVoice, voiceFrom } from './input.ts';
import { sourcesOfFile } from './sources.ts';

const sourcesOf = (script: ScriptFile): UploadSource[] =>
  sourcesOfFile(script, getTagger()).map(({ letter, document, facts }) => ({
    letter,
    document,
    facts,
    rights: 'not asked',
  }));
const toolsOf = (script: ScriptFile) => ({
  tagger: getTagger(),
  senses: getSenses(),
  kin: getKin(),
  clock: getClock(voiceFrom(knownVoice(script)), script.pace),
});

/** `pictures`: cut into as nearly so many as its words allow. */
export function filmOfFile(script: ScriptFile, frame: Frame, pictures?: number): Film {
  const tools = toolsOf(script);
  const mood = script.mood ?? 'calm';
  const handles =
    pictures === undefined
      ? undefined
      : paceForCount(pictures, sectionsOfFile(script), tools.clock, { frame, mood }).handles;
  return filmOf(
    {
      title: script.title,
      sections: sectionsOfFile(script),
      sources: sourcesOf(script),
      own: [],
      frame,
      mood,
      style: '',
      pace: handles ? { handles } : {},
    },
    tools,
  );
}

/** The most characters that synthesizers commonly take at once. */
const SSML_LIMIT = 5000;

export function kitOfFile(
  script: ScriptFile,
  options: { rate?: FrameRate; ssmlLimit?: number; recording?: KeptRecording } = {},
): Kit {
  return makeKit(
    {
      settings: { ...script, mood: script.mood ?? 'calm' },
      sections: sectionsOfFile(script),
      sources: sourcesOf(script),
      printed: script.sources,
      channel: { name: '', style: '', sayings: [] },
      cast: [],
      upload: {},
      rate: options.rate ?? '25',
      ssmlLimit: options.ssmlLimit ?? SSML_LIMIT,
      children: false,
      synthetic: { voice: false, pictures: false },
      ...(options.recording ? { recording: options.recording } : {}),
    },
    { ...toolsOf(script), pronouncer: getPronouncer(), fonts: getFonts() },
  );
}

export const digest = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** An hour and a half of stereo at 48 kHz. */
export const LARGEST_RECORDING = 1_100_000_000;
/** A recording of a script file, as WAV or as its captions. Throws UsageError where it is neither, or of another text. */
export async function recordingOf(
  script: ScriptFile,
  name: string,
  bytes: Uint8Array,
): Promise<KeptRecording> {
  const sections = sectionsOfFile(script);
  const { clock } = toolsOf(script);
  const cued = /\.(?:srt|vtt)$/i.test(name);
  try {
    const files = cued ? { captions: new TextDecoder().decode(bytes) } : { wav: bytes };
    const { laid, by } = await layRecording(sections, clock, files);
    return keptOf(laid, sections, name, by);
  } catch (error) {
    throw new UsageError(`${name}: ${(error as Error).message}`);
  }
}
