/** Packed files, unpacked under a limit that counts what really comes out: a packed bomb is stopped while it unpacks. */
import { Unzip, UnzipInflate } from 'fflate';
import { SourceError } from '../document.ts';

/** All parts together, unpacked, in bytes: far above any manuscript. */
const MOST_UNPACKED = 80 * 1024 * 1024;
const MOST_PARTS = 5000;
/** Fed to the unpacker at a time, so that a bomb is noticed early. */
const CHUNK = 64 * 1024;

export const isZip = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && (bytes[2] === 3 || bytes[2] === 5);

/** The parts whose names `wanted` takes, by name. Every part is counted, wanted or not. Throws SourceError on a broken or monstrous file. */
export function unpack(bytes: Uint8Array, wanted: (name: string) => boolean): Map<string, Uint8Array> {
  const parts = new Map<string, Uint8Array>();
  let total = 0;
  let count = 0;
  const tooMuch = () =>
    new SourceError(
      'too-long',
      'This file unpacks to more than any manuscript holds, so it was not opened. Paste the part you need.',
    );
  const unzip = new Unzip((file) => {
    if (++count > MOST_PARTS) throw tooMuch();
    const chunks: Uint8Array[] = [];
    let size = 0;
    file.ondata = (error, data, final) => {
      if (error) throw error;
      total += data.length;
      if (total > MOST_UNPACKED) throw tooMuch();
      if (!wanted(file.name)) return;
      size += data.length;
      chunks.push(data);
      if (!final) return;
      const whole = new Uint8Array(size);
      let at = 0;
      for (const c of chunks) {
        whole.set(c, at);
        at += c.length;
      }
      parts.set(file.name, whole);
    };
    file.start();
  });
  unzip.register(UnzipInflate);
  try {
    for (let at = 0; at < bytes.length; at += CHUNK)
      unzip.push(bytes.subarray(at, at + CHUNK), at + CHUNK >= bytes.length);
  } catch (error) {
    if (error instanceof SourceError) throw error;
    throw new SourceError(
      'unreadable',
      'This file is broken or cut off, so it can’t be opened. Save it again where it was made, or paste its words.',
    );
  }
  return parts;
}

export const utf8 = (bytes: Uint8Array | undefined): string => (bytes ? new TextDecoder().decode(bytes) : '');

/** Whether a packed file's list at its end names a part. */
export function nameInside(bytes: Uint8Array, name: string): boolean {
  return new TextDecoder('latin1').decode(bytes.subarray(Math.max(0, bytes.length - 65_536))).includes(name);
}
