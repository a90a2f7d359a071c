/** Packed files written byte by byte (PKWARE APPNOTE 6.3), so that their list can say otherwise than what stands inside. */
import { crc32, deflateRawSync } from 'node:zlib';

export interface MadePart {
  name: string;
  data: Uint8Array | string;
  /** What the list at the end says instead. */
  listed?: { name?: string; size?: number; packed?: number; method?: number; at?: number; flags?: number };
  /** Stored as it is. */
  stored?: boolean;
}

export function packedFile(parts: readonly MadePart[], claims: { count?: number } = {}): Uint8Array {
  const bodies: Buffer[] = [];
  const list: Buffer[] = [];
  let at = 0;
  for (const { name, data, listed = {}, stored = false } of parts) {
    const raw = Buffer.from(data);
    const packed = stored ? raw : deflateRawSync(raw);
    const header = Buffer.alloc(30);
    header.writeUInt32LE(0x04034b50, 0);
    header.writeUInt16LE(20, 4);
    header.writeUInt16LE(stored ? 0 : 8, 8);
    header.writeUInt32LE(crc32(raw), 14);
    header.writeUInt32LE(packed.length, 18);
    header.writeUInt32LE(raw.length, 22);
    header.writeUInt16LE(Buffer.byteLength(name), 26);
    bodies.push(header, Buffer.from(name), packed);
    const entry = Buffer.alloc(46);
    const named = Buffer.from(listed.name ?? name);
    entry.writeUInt32LE(0x02014b50, 0);
    entry.writeUInt16LE(listed.flags ?? 0, 8);
    entry.writeUInt16LE(listed.method ?? (stored ? 0 : 8), 10);
    entry.writeUInt32LE(crc32(raw), 16);
    entry.writeUInt32LE(listed.packed ?? packed.length, 20);
    entry.writeUInt32LE(listed.size ?? raw.length, 24);
    entry.writeUInt16LE(named.length, 28);
    entry.writeUInt32LE(listed.at ?? at, 42);
    list.push(entry, named);
    at += 30 + Buffer.byteLength(name) + packed.length;
  }
  const entries = Buffer.concat(list);
  const end = Buffer.alloc(22);
  end.writeUInt32LE(0x06054b50, 0);
  end.writeUInt16LE(claims.count ?? parts.length, 8);
  end.writeUInt16LE(claims.count ?? parts.length, 10);
  end.writeUInt32LE(entries.length, 12);
  end.writeUInt32LE(at, 16);
  return new Uint8Array(Buffer.concat([...bodies, entries, end]));
}
