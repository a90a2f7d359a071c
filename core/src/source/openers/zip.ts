/**
 * Packed files (PKWARE APPNOTE 6.3), held to their own list before a byte is unpacked: what the list at the end says of a
 * part must be what stands before the part itself, parts don't lie in one another, and together they hold no more than any
 * manuscript does. What comes out is never more than was said.
 */
import { inflateSync, zipSync } from 'fflate';
import { SourceError } from '../document.ts';

/** All parts together, unpacked, in bytes: far above any manuscript. */
const MOST_UNPACKED = 80 * 1024 * 1024;
/** One part of words, in bytes: 5 MB of text in the wordiest markup. */
const LARGEST_PART = 40 * 1024 * 1024;
const MOST_PARTS = 5000;

export const isZip = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && (bytes[2] === 3 || bytes[2] === 5);

interface Part {
  name: string;
  stored: boolean;
  /** Unpacked, in bytes. */
  size: number;
  packed: Uint8Array;
}

const broken = () =>
  new SourceError(
    'unreadable',
    'This file is broken or cut off, so it can’t be opened. Save it again where it was made, or paste its words.',
  );
const tooMuch = () =>
  new SourceError(
    'too-long',
    'This file unpacks to more than any manuscript holds, so it was not opened. Paste the part you need.',
  );
const twoFaced = () =>
  new SourceError(
    'unreadable',
    'This packed file says one thing at its end and another inside, so it was not opened. Save it again where it was made, or paste its words.',
  );

const END = 0x06054b50;
const LISTED = 0x02014b50;
const HEADER = 0x04034b50;
/** The longest comment behind the list, with the end's own bytes. */
const END_WITHIN = 65_535 + 22;

/** Every part as the list and its own header name it. Throws SourceError where they differ. */
function partsOf(bytes: Uint8Array): Part[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let end = bytes.length - 22;
  while (end >= 0 && end > bytes.length - END_WITHIN && view.getUint32(end, true) !== END) end--;
  if (end < 0 || view.getUint32(end, true) !== END) throw broken();
  const count = view.getUint16(end + 10, true);
  const list = view.getUint32(end + 16, true);
  if (count > MOST_PARTS) throw tooMuch();
  const text = new TextDecoder();
  /** Where each part begins, with its header, and ends. */
  const parts: (Part & { begins: number; ends: number })[] = [];
  let total = 0;
  let at = list;
  for (let i = 0; i < count; i++) {
    if (at + 46 > end || view.getUint32(at, true) !== LISTED) throw broken();
    const [flags, method] = [view.getUint16(at + 8, true), view.getUint16(at + 10, true)];
    const [packed, size] = [view.getUint32(at + 20, true), view.getUint32(at + 24, true)];
    const nameLength = view.getUint16(at + 28, true);
    const header = view.getUint32(at + 42, true);
    const name = bytes.subarray(at + 46, at + 46 + nameLength);
    at += 46 + nameLength + view.getUint16(at + 30, true) + view.getUint16(at + 32, true);
    if ((total += size) > MOST_UNPACKED) throw tooMuch();
    if (header + 30 > list || view.getUint32(header, true) !== HEADER) throw twoFaced();
    const from = header + 30 + view.getUint16(header + 26, true) + view.getUint16(header + 28, true);
    const own = bytes.subarray(header + 30, header + 30 + view.getUint16(header + 26, true));
    // Where it was written as a stream its sizes stand behind it and are nought before it.
    const streamed = (view.getUint16(header + 6, true) & 8) !== 0;
    const says = (a: number, b: number) =>
      view.getUint32(header + 18, true) === a && view.getUint32(header + 22, true) === b;
    if (
      own.length !== nameLength ||
      own.some((b, k) => b !== name[k]) ||
      view.getUint16(header + 8, true) !== method ||
      !(says(packed, size) || (streamed && says(0, 0))) ||
      from + packed > list ||
      (method === 0 && packed !== size)
    )
      throw twoFaced();
    if (method !== 0 && method !== 8) throw broken();
    if (flags & 1)
      throw new SourceError(
        'locked',
        'This file is locked with a password. Save it without one, or paste its words.',
      );
    parts.push({
      name: text.decode(name),
      stored: method === 0,
      size,
      packed: bytes.subarray(from, from + packed),
      begins: header,
      ends: from + packed,
    });
  }
  const inOrder = [...parts].sort((a, b) => a.begins - b.begins);
  if (inOrder.some((p, i) => i > 0 && p.begins < inOrder[i - 1].ends)) throw twoFaced();
  return parts;
}

/** The parts whose names `wanted` takes, by name. Throws SourceError on a broken, monstrous or lying file. */
export function unpack(bytes: Uint8Array, wanted: (name: string) => boolean): Map<string, Uint8Array> {
  const out = new Map<string, Uint8Array>();
  for (const { name, stored, size, packed } of partsOf(bytes)) {
    if (!wanted(name)) continue;
    if (size > LARGEST_PART) throw tooMuch();
    out.set(name, stored ? packed : inflated(packed, size));
  }
  return out;
}

/** Exactly as many bytes as were said, or none. */
function inflated(packed: Uint8Array, size: number): Uint8Array {
  let bytes: Uint8Array;
  try {
    bytes = inflateSync(packed, { out: new Uint8Array(size) });
  } catch {
    throw broken();
  }
  if (bytes.length !== size) throw twoFaced();
  return bytes;
}

/** Parts as a packed file again, for a library that wants one: it gets what was counted and nothing else. */
export const packedAgain = (parts: ReadonlyMap<string, Uint8Array>): Uint8Array =>
  zipSync(Object.fromEntries(parts), { level: 0 });

export const utf8 = (bytes: Uint8Array | undefined): string => (bytes ? new TextDecoder().decode(bytes) : '');

/** Whether a packed file's list at its end names a part. */
export function nameInside(bytes: Uint8Array, name: string): boolean {
  return new TextDecoder('latin1').decode(bytes.subarray(Math.max(0, bytes.length - 65_536))).includes(name);
}
