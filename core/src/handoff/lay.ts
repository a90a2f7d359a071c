/** A recording laid against a script from its files: by its captions where it has them, else by its silences. */
import type { PlainSection } from '../script/data.ts';
import { readCues } from '../source/openers/captions.ts';
import type { Clock } from '../timing/clock.ts';
import { silencesIn, wavLevels } from '../timing/silences.ts';
import { laidByCaptions, laidBySilence, type Laid } from './recording.ts';

/**
 * Line times of a recording: WAV, SubRip or WebVTT, or both. Throws Error, in the person's words, where a file can't be read
 * or is of another script.
 */
export async function layRecording(
  sections: readonly PlainSection[],
  clock: Clock,
  { wav, captions }: { wav?: Uint8Array | undefined; captions?: string | undefined },
): Promise<{ laid: Laid; by: 'captions' | 'silence' }> {
  const sound = wav ? wavLevels(wav) : null;
  const cues = captions === undefined ? null : await readCues(captions);
  if (cues && !cues.length)
    throw new Error('These captions can’t be read. SubRip (.srt) and WebVTT (.vtt) are.');
  if (!sound && !cues) throw new Error('A recording is a WAV file, its captions an SRT or VTT file.');
  const ms = sound?.ms ?? cues!.at(-1)!.endMs;
  const laid = cues
    ? laidByCaptions(sections, clock, cues, ms)
    : laidBySilence(sections, clock, silencesIn(sound!), ms);
  if (!laid)
    throw new Error(
      cues
        ? 'These captions share too few words with the script to be of it.'
        : 'This recording is too short, or too even, to be of this script.',
    );
  return { laid, by: cues ? 'captions' : 'silence' };
}
