/** Length of a RIFF/WAVE recording, from its header alone (Multimedia Programming Interface, IBM and Microsoft, 1991). */

/** Milliseconds of a WAV file. Throws Error when the bytes are not PCM WAVE. */
export function wavMs(bytes: Uint8Array): number {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const tag = (at: number) => String.fromCharCode(...bytes.subarray(at, at + 4));
  if (bytes.length < 44 || tag(0) !== 'RIFF' || tag(8) !== 'WAVE')
    throw new Error('This is not a WAV recording.');
  let perSecond = 0;
  for (let at = 12; at + 8 <= bytes.length;) {
    const size = view.getUint32(at + 4, true);
    if (tag(at) === 'fmt ') perSecond = view.getUint32(at + 16, true);
    if (tag(at) === 'data') {
      // A program that writes to a pipe can't know the size and leaves a large one: the file's own end holds.
      const length = Math.min(size, bytes.length - at - 8);
      if (!perSecond) break;
      return Math.round((length * 1000) / perSecond);
    }
    at += 8 + size + (size & 1);
  }
  throw new Error('This WAV recording has no sound in it.');
}
