/** Bytes → text, whatever the encoding. */
import { SourceError } from './document.ts';

/** The largest source that is read, in bytes: far above any article, far below what would hang a reader. */
export const LARGEST_SOURCE = 5 * 1024 * 1024;

const BOMS: readonly [number[], string][] = [
  [[0xef, 0xbb, 0xbf], 'utf-8'],
  [[0xff, 0xfe], 'utf-16le'],
  [[0xfe, 0xff], 'utf-16be'],
];

/**
 * Text from bytes: by byte-order mark, then as UTF-8 where that is valid, then by a declared HTML charset, then as
 * Windows-1252 (the fallback of the WHATWG Encoding Standard for Western text). Throws SourceError on what is no text.
 */
export function decodeText(bytes: Uint8Array): string {
  if (bytes.length > LARGEST_SOURCE)
    throw new SourceError(
      'too-long',
      `This is ${(bytes.length / 1048576).toFixed(1)} MB of text; a source can have at most 5 MB. Paste the part you need.`,
    );
  const bom = BOMS.find(([mark]) => mark.every((b, i) => bytes[i] === b));
  const text = bom ? new TextDecoder(bom[1]).decode(bytes.subarray(bom[0].length)) : withoutBom(bytes);
  return checkedText(text);
}

function withoutBom(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    const head = new TextDecoder('latin1').decode(bytes.subarray(0, 2048));
    const declared = /<meta[^>]+charset=["']?([\w-]{3,20})/i.exec(head)?.[1];
    try {
      return new TextDecoder(declared ?? 'windows-1252').decode(bytes);
    } catch {
      return new TextDecoder('windows-1252').decode(bytes);
    }
  }
}

/** Throws when a string is no prose: bytes of a program, picture or archive, or empty. Returns it with plain line ends. */
export function checkedText(text: string): string {
  if (text.length > LARGEST_SOURCE)
    throw new SourceError('too-long', 'This is more than 5 MB of text. Paste the part you need.');
  const sample = text.slice(0, 20_000);
  const control = (sample.match(/[\u0000-\u0008\u000e-\u001f\u007f-\u009f\ufffd]/g) ?? []).length;
  if (sample.includes('\0') || control > sample.length * 0.02)
    throw new SourceError(
      'binary',
      'This is not text: it looks like a picture, a program or a packed file. Open it where it was made and paste its words.',
    );
  const plain = text
    .replace(/\r\n?/g, '\n')
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f\u200b\ufeff\u00ad]/g, '');
  if (!/[\p{L}\p{N}]/u.test(plain)) throw new SourceError('empty', 'There are no words in this.');
  return plain;
}
