/** Where a recording is silent: level by frames of 10 ms, against a floor and a ceiling taken from the recording itself. */

export interface Sound {
  /** Level of each frame, root mean square of the samples, 0 to 1. */
  levels: Float32Array;
  frameMs: number;
  ms: number;
}
export interface Silence {
  startMs: number;
  endMs: number;
}
const FRAME_MS = 10;

/** Levels of a PCM WAVE recording of 8, 16, 24 or 32 bits or 32-bit floats, all channels together. Throws Error in the person's words where it is none. */
export function wavLevels(bytes: Uint8Array): Sound {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const tag = (at: number) => String.fromCharCode(...bytes.subarray(at, at + 4));
  if (bytes.length < 44 || tag(0) !== 'RIFF' || tag(8) !== 'WAVE')
    throw new Error('This is not a WAV recording.');
  let format = { kind: 1, channels: 1, rate: 0, bits: 16 };
  for (let at = 12; at + 8 <= bytes.length;) {
    const size = view.getUint32(at + 4, true);
    if (tag(at) === 'fmt ')
      format = {
        kind: view.getUint16(at + 8, true),
        channels: view.getUint16(at + 10, true),
        rate: view.getUint32(at + 12, true),
        bits: view.getUint16(at + 22, true),
      };
    if (tag(at) === 'data') {
      const length = Math.min(size, bytes.length - at - 8);
      return levelsOf(view, at + 8, length, format);
    }
    at += 8 + size + (size & 1);
  }
  throw new Error('This WAV recording has no sound in it.');
}

const EXTENSIBLE = 0xfffe;
const FLOAT = 3;
function levelsOf(
  view: DataView,
  from: number,
  length: number,
  { kind, channels, rate, bits }: { kind: number; channels: number; rate: number; bits: number },
): Sound {
  const width = bits >> 3;
  const readable =
    [1, FLOAT, EXTENSIBLE].includes(kind) &&
    [1, 2, 3, 4].includes(width) &&
    channels > 0 &&
    rate >= 2000 &&
    rate <= 400_000;
  if (!readable)
    throw new Error('This WAV recording is packed in a way that is not read here. Save it as plain PCM.');
  const step = width * channels;
  const samples = Math.floor(length / step);
  const perFrame = Math.max(1, Math.round((rate * FRAME_MS) / 1000));
  const levels = new Float32Array(Math.ceil(samples / perFrame));
  const value = (at: number): number => {
    if (width === 1) return (view.getUint8(at) - 128) / 128;
    if (width === 2) return view.getInt16(at, true) / 32_768;
    if (width === 3)
      return (
        ((view.getUint8(at + 2) << 24) | (view.getUint8(at + 1) << 16) | (view.getUint8(at) << 8)) /
        2_147_483_648
      );
    return kind === FLOAT ? view.getFloat32(at, true) : view.getInt32(at, true) / 2_147_483_648;
  };
  for (let f = 0; f < levels.length; f++) {
    const end = Math.min(samples, (f + 1) * perFrame);
    let sum = 0;
    for (let s = f * perFrame; s < end; s++) {
      const v = value(from + s * step);
      sum += v * v;
    }
    levels[f] = Math.sqrt(sum / Math.max(1, end - f * perFrame));
  }
  return { levels, frameMs: FRAME_MS, ms: Math.round((samples * 1000) / rate) };
}

/** The shortest silence that counts, in milliseconds: shorter ones are the closures of stops. */
const LEAST_MS = 120;
/**
 * Silences of at least 120 ms. The threshold lies between the recording's own quiet and loud levels (10th and 90th
 * percentile), nearer to the quiet, in decibels; a noise of a frame or two does not break a silence.
 */
export function silencesIn({ levels, frameMs, ms }: Sound): Silence[] {
  if (!levels.length) return [];
  const db = Float32Array.from(levels, (l) => 20 * Math.log10(Math.max(l, 1e-5)));
  const sorted = db.slice().sort();
  const at = (p: number) => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * p))];
  const [quiet, loud] = [at(0.1), at(0.9)];
  if (loud - quiet < 6) return [];
  const threshold = quiet + (loud - quiet) * 0.35;
  const out: Silence[] = [];
  let from = -1;
  let noise = 0;
  for (let i = 0; i <= db.length; i++) {
    const still = i < db.length && db[i] < threshold;
    if (still) {
      if (from < 0) from = i;
      noise = 0;
    } else if (from >= 0 && (++noise > 2 || i === db.length)) {
      const end = i - noise + 1;
      if ((end - from) * frameMs >= LEAST_MS)
        out.push({ startMs: from * frameMs, endMs: Math.min(ms, end * frameMs) });
      from = -1;
      noise = 0;
    }
  }
  return out;
}
