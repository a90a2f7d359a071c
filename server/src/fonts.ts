/** Faces for pages on paper, unpacked once: the packed form (WOFF 1.0, W3C) would be unpacked again for every document. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { inflateSync } from 'node:zlib';
import type { Fonts } from '@ursprung/core/handoff';

const HEAD = 44;
const ENTRY = 20;
const SFNT_HEAD = 12;
const SFNT_ENTRY = 16;

/** A WOFF 1.0 file as the TrueType or OpenType file it was made from (W3C, WOFF File Format 1.0, sections 3 to 5). */
export function unpackWoff(woff: Buffer): Buffer {
  if (woff.toString('latin1', 0, 4) !== 'wOFF') throw new Error('This is no WOFF file.');
  const count = woff.readUInt16BE(12);
  const tables = Array.from({ length: count }, (_, i) => {
    const at = HEAD + i * ENTRY;
    const [offset, packed, size] = [4, 8, 12].map((k) => woff.readUInt32BE(at + k));
    const raw = woff.subarray(offset, offset + packed);
    return {
      tag: woff.subarray(at, at + 4),
      checksum: woff.subarray(at + 16, at + 20),
      data: packed < size ? inflateSync(raw) : raw,
    };
  });
  const power = 2 ** Math.floor(Math.log2(count));
  const head = Buffer.alloc(SFNT_HEAD + count * SFNT_ENTRY);
  woff.copy(head, 0, 4, 8);
  head.writeUInt16BE(count, 4);
  head.writeUInt16BE(power * 16, 6);
  head.writeUInt16BE(Math.log2(power), 8);
  head.writeUInt16BE(count * 16 - power * 16, 10);
  const parts: Buffer[] = [head];
  let at = head.length;
  tables.forEach(({ tag, checksum, data }, i) => {
    const entry = SFNT_HEAD + i * SFNT_ENTRY;
    tag.copy(head, entry);
    checksum.copy(head, entry + 4);
    head.writeUInt32BE(at, entry + 8);
    head.writeUInt32BE(data.length, entry + 12);
    const pad = (4 - (data.length % 4)) % 4;
    parts.push(data, Buffer.alloc(pad));
    at += data.length + pad;
  });
  return Buffer.concat(parts);
}

const require = createRequire(import.meta.url);
const face = (family: string, subset: string, weight = 400) =>
  unpackWoff(
    readFileSync(require.resolve(`@fontsource/${family}/files/${family}-${subset}-${weight}-normal.woff`)),
  );

let fonts: Fonts | undefined;
/** Noto, which has every script that is written here; unpacked when first asked for. */
export const getFonts = (): Fonts =>
  (fonts ??= {
    text: face('noto-serif', 'latin'),
    bold: face('noto-serif', 'latin', 700),
    others: [
      // The letters that the first face has already stay with it: œ, ı, ʻ and a few accents.
      {
        covers:
          /[\u0100-\u0130\u0132-\u0151\u0154-\u02ba\u02bd-\u02c5\u02c7-\u02d9\u02dd-\u02ff\u1e00-\u1eff]/,
        bytes: face('noto-serif', 'latin-ext'),
      },
      { covers: /\p{Script=Greek}/u, bytes: face('noto-serif', 'greek') },
      { covers: /\p{Script=Cyrillic}/u, bytes: face('noto-serif', 'cyrillic') },
      {
        covers: /[\p{Script=Devanagari}\u0964\u0965\u200c\u200d]/u,
        bytes: face('noto-sans-devanagari', 'devanagari'),
      },
      { covers: /\p{Script=Arabic}/u, bytes: face('noto-sans-arabic', 'arabic'), rightToLeft: true },
    ],
  });
