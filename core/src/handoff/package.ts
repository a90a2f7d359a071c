/** What one person gets: the files for them, a manifest with checksums, and one zip. */
import { zipSync, type Zippable } from 'fflate';
import { stemOf } from './fileName.ts';
import type { Kit } from './kit.ts';
import { writers as allWriters } from './registry.ts';
import { CannotWrite, type Recipient, type Writer } from './writer.ts';
import { ssmlFiles } from './writers/ssml.ts';

export interface PackedFile {
  name: string;
  format: string;
  bytes: Uint8Array;
  /** SHA-256 in hexadecimal. */
  sha256: string;
}
export interface Packed {
  files: readonly PackedFile[];
  /** Formats that this script can't be written in, with the reason. */
  left: readonly { format: string; why: string }[];
  manifest: string;
}
export interface PackOptions {
  /** Whose kit; all of them when left out. */
  who?: Recipient;
  /** Formats left out by the person. */
  without?: readonly string[];
  /** SHA-256 of bytes, in hexadecimal. */
  digest: (bytes: Uint8Array) => string;
  progress?: (done: number, of: number, name: string) => void;
}

/** A zip's dates begin in 1980; a fixed one gives the same bytes for the same files. */
const FIXED_DATE = '1980-01-01T00:00:00';

export function nameOf(kit: Kit, writer: Pick<Writer, 'extension' | 'suffix'>, more = ''): string {
  const stem = stemOf(kit.file.title) || 'script';
  return `${[stem, writer.suffix, more].filter(Boolean).join('-')}.${writer.extension}`;
}

/** Writes every file of a kit, one after another, so that memory holds one at a time beside what is done. */
export async function pack(kit: Kit, options: PackOptions): Promise<Packed> {
  const chosen = allWriters.filter(
    (w) => (!options.who || w.for.includes(options.who)) && !options.without?.includes(w.id),
  );
  const files: PackedFile[] = [];
  const left: { format: string; why: string }[] = [];
  const add = (format: string, name: string, content: string | Uint8Array) => {
    const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
    files.push({ name, format, bytes, sha256: options.digest(bytes) });
  };
  for (const [i, writer] of chosen.entries()) {
    options.progress?.(i, chosen.length, writer.name);
    try {
      if (writer.id === 'ssml')
        for (const part of ssmlFiles(kit, kit.input.ssmlLimit))
          add('ssml', nameOf(kit, writer, part.name), part.text);
      else add(writer.id, nameOf(kit, writer), await writer.write(kit));
    } catch (error) {
      if (!(error instanceof CannotWrite)) throw error;
      left.push({ format: writer.id, why: error.message });
    }
  }
  options.progress?.(chosen.length, chosen.length, '');
  const manifest = `${JSON.stringify(
    {
      version: 1,
      title: kit.file.title,
      seconds: kit.totalMs / 1000,
      language: kit.language,
      for: options.who ?? 'all',
      frameRate: kit.input.rate,
      ...(kit.input.recording ? { timedBy: kit.input.recording.name } : {}),
      files: files.map(({ name, format, bytes, sha256 }) => ({ name, format, bytes: bytes.length, sha256 })),
      left,
    },
    null,
    2,
  )}\n`;
  return { files, left, manifest };
}

/** The kit as one zip: its files and `manifest.json`. */
export function zipped({ files, manifest }: Packed): Uint8Array {
  const entries: Zippable = {};
  for (const f of files)
    entries[f.name] = [f.bytes, { mtime: FIXED_DATE, level: /\.(?:docx|xlsx|pdf)$/.test(f.name) ? 0 : 6 }];
  entries['manifest.json'] = [new TextEncoder().encode(manifest), { mtime: FIXED_DATE, level: 6 }];
  return zipSync(entries);
}
