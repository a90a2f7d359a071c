/** Recordings of the stand-in voice joined into one WAV file (RIFF; Multimedia Programming Interface, IBM and Microsoft, 1991). */

const HEAD = 44;

/** The samples of a WAV recording; a program that writes to a pipe leaves a wrong size, so the end of the file holds. */
function samples(wav: Uint8Array): { format: Uint8Array; data: Uint8Array } {
  const view = new DataView(wav.buffer, wav.byteOffset, wav.byteLength);
  const tag = (at: number) => String.fromCharCode(...wav.subarray(at, at + 4));
  let format = wav.subarray(20, 36);
  for (let at = 12; at + 8 <= wav.length;) {
    const size = view.getUint32(at + 4, true);
    if (tag(at) === 'fmt ') format = wav.subarray(at + 8, at + 24);
    if (tag(at) === 'data')
      return { format, data: wav.subarray(at + 8, Math.min(wav.length, at + 8 + size)) };
    at += 8 + size + (size & 1);
  }
  throw new Error('The stand-in voice gave no sound.');
}

/** One recording of several, one after the other. All have the first one's format. */
export function joinWavs(wavs: readonly Uint8Array[]): Uint8Array {
  const parts = wavs.map(samples);
  const length = parts.reduce((n, p) => n + p.data.length, 0);
  const out = new Uint8Array(HEAD + length);
  const view = new DataView(out.buffer);
  const text = (at: number, t: string) => [...t].forEach((c, i) => (out[at + i] = c.charCodeAt(0)));
  text(0, 'RIFF');
  view.setUint32(4, HEAD - 8 + length, true);
  text(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  out.set(parts[0].format, 20);
  text(36, 'data');
  view.setUint32(40, length, true);
  let at = HEAD;
  for (const p of parts) {
    out.set(p.data, at);
    at += p.data.length;
  }
  return out;
}
