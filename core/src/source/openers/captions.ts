/** Captions as a transcript: SubRip and WebVTT (W3C), by media-captions. Who speaks when; automatic captions cut at pauses. */
import { parseText } from 'media-captions';
import { decodeText } from '../decode.ts';
import { SourceError, type RawBlock, type RawDocument } from '../document.ts';
import type { SourceOpener } from '../readers/reader.ts';
import { tidy } from '../tidy.ts';

interface Said {
  startMs: number;
  endMs: number;
  speaker?: string;
  text: string;
}

/** A silence after which a new passage begins where nobody set full stops, in milliseconds (common practice, no published source). */
const PAUSE_MS = 700;
/** Turns of one speaker are joined up to this many letters. */
const LONGEST_TURN = 700;
const SPEAKER = /^(?:>>\s*|-\s*)?(?:\[([^\]]{2,40})\]|([A-Z][\p{L}.’' -]{1,38})):\s+(?=\S)/u;
const SOUND = /^[[(♪][^\])]*[\])♪]$/;

function said(text: string): { speaker?: string; text: string } {
  const voice = /<v(?:\.[\w.]+)?\s+([^>]{1,60})>/.exec(text)?.[1];
  const plain = tidy(
    text
      .replace(/<[^>]{0,200}>/g, '')
      .replace(/♪[^♪]*♪?/g, ' ')
      .replace(/\[(?:music|applause|laughter|inaudible)[^\]]*\]/gi, ' '),
  );
  const named = SPEAKER.exec(plain);
  const speaker = voice?.trim() ?? named?.[1] ?? named?.[2];
  const words = (named ? plain.slice(named[0].length) : plain).replace(/^(?:>>+|-)\s*/, '');
  return { ...(speaker ? { speaker } : {}), text: SOUND.test(words) ? '' : words };
}

/** Rolling captions show each line twice; what the cue before ended with is not said again. */
function withoutRepeats(cues: readonly Said[]): Said[] {
  let before = '';
  return cues.flatMap((cue) => {
    const words = cue.text.split(' ');
    const last = before.split(' ');
    let k = Math.min(words.length, last.length);
    while (k > 2 && last.slice(-k).join(' ') !== words.slice(0, k).join(' ')) k--;
    const repeated = k > 2 ? k : 0;
    before = cue.text;
    const text = words.slice(repeated).join(' ');
    return text ? [{ ...cue, text }] : [];
  });
}

/** Whether nobody set capitals and full stops: automatic captions. */
function isAutomatic(cues: readonly Said[]): boolean {
  const text = cues.map((c) => c.text).join(' ');
  return (text.match(/[.!?]/g) ?? []).length < text.split(' ').length / 60;
}

function turns(cues: readonly Said[], automatic: boolean): RawBlock[] {
  const out: (RawBlock & { endMs: number })[] = [];
  for (const cue of cues) {
    const last = out[out.length - 1];
    const sameSpeaker = last && (cue.speaker ?? last.speaker) === last.speaker;
    const paused = last && cue.startMs - last.endMs >= PAUSE_MS;
    const full =
      last &&
      (automatic
        ? paused || last.text.length > 240
        : last.text.length > LONGEST_TURN && /[.!?]["”]?$/.test(last.text));
    if (last && sameSpeaker && !full) {
      last.text += ` ${cue.text}`;
      last.endMs = cue.endMs;
    } else
      out.push({
        type: 'turn',
        text: cue.text,
        atMs: cue.startMs,
        endMs: cue.endMs,
        ...((cue.speaker ?? (sameSpeaker ? last?.speaker : undefined))
          ? { speaker: cue.speaker ?? last!.speaker! }
          : {}),
      });
  }
  return out.map(({ endMs: _, ...b }) => ({ ...b, text: automatic ? sentenceCase(b.text) : b.text }));
}

const sentenceCase = (text: string) =>
  text[0].toUpperCase() + text.slice(1).replace(/\bi\b/g, 'I') + (/[.!?]$/.test(text) ? '' : '.');

export const captionsOpener: SourceOpener = {
  id: 'captions',
  accepts: (_bytes, head) =>
    /^(?:\u00ef\u00bb\u00bf)?\s*WEBVTT/.test(head) ||
    /^(?:\u00ef\u00bb\u00bf)?\s*\d+\s*\r?\n\d{1,2}:\d{2}:\d{2},\d{3} --> \d/.test(head),
  open: async (bytes) => {
    const text = decodeText(bytes);
    const type = /^\s*WEBVTT/.test(text) ? 'vtt' : 'srt';
    const { cues } = await parseText(text, { type, strict: false, errors: false });
    const heard = withoutRepeats(
      cues
        .filter((c) => Number.isFinite(c.startTime) && c.endTime >= c.startTime)
        .map((c) => ({
          startMs: Math.round(c.startTime * 1000),
          endMs: Math.round(c.endTime * 1000),
          ...said(c.text),
        }))
        .filter((c) => c.text)
        .sort((a, b) => a.startMs - b.startMs),
    );
    if (!heard.length) throw new SourceError('empty', 'No spoken words were found in these captions.');
    const automatic = isAutomatic(heard);
    const raw: RawDocument = {
      kind: { is: 'interview', why: 'it is what was said in a recording' },
      blocks: turns(heard, automatic),
    };
    if (automatic)
      raw.doubt =
        'These captions were made by a machine: full stops were set at pauses, and names may be wrong.';
    return raw;
  },
};

/** The cues of SubRip or WebVTT as they stand, repeats of rolling captions taken out. Empty for text that holds none. */
export async function readCues(text: string): Promise<{ startMs: number; endMs: number; text: string }[]> {
  const { cues } = await parseText(text.replace(/^\uFEFF/, ''), {
    type: /^WEBVTT/.test(text.trimStart()) ? 'vtt' : 'srt',
  });
  return withoutRepeats(
    cues.map((c) => ({
      ...said(c.text),
      startMs: Math.round(c.startTime * 1000),
      endMs: Math.round(c.endTime * 1000),
    })),
  ).map(({ startMs, endMs, text: words }) => ({ startMs, endMs, text: words }));
}
