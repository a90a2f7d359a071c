/** Text or bytes → SourceDocument. */
import { sentences } from '../language/sentences.ts';
import { checkedText, decodeText } from './decode.ts';
import {
  SourceError,
  type Block,
  type RawBlock,
  type RawDocument,
  type SourceDocument,
  type SourceKind,
} from './document.ts';
import { detectKind } from './kind.ts';
import { htmlReader } from './readers/html.ts';
import { markdownReader } from './readers/markdown.ts';
import type { SourceReader } from './readers/reader.ts';
import { textReader } from './readers/text.ts';

/** Every reader; the one surest of the text reads it. */
export const sourceReaders: readonly SourceReader[] = [htmlReader, markdownReader, textReader];

/** A passage longer than this is cut at sentence ends, so that a page without paragraphs is still read in passages. */
const LONGEST_PASSAGE = 3000;

export interface ReadOptions {
  /** The person's own word for what it is. */
  kind?: SourceKind;
  title?: string;
}

/** Reads a source. Throws SourceError, in the person's words, on anything that can't be one. */
export function readSource(input: string | Uint8Array, options: ReadOptions = {}): SourceDocument {
  const text = typeof input === 'string' ? checkedText(input) : decodeText(input);
  const reader = sourceReaders
    .map((r) => ({ r, sure: r.accepts(text) }))
    .sort((a, b) => b.sure - a.sure)[0].r;
  const raw = reader.read(text);
  const blocks = raw.blocks
    .map((b) => ({ ...b, text: cleanText(b.text) }))
    .filter((b) => b.text)
    .flatMap(cutLong);
  if (!blocks.some((b) => b.type !== 'heading'))
    throw new SourceError(
      'empty',
      'There is no running text in this: only headings or furniture were found.',
    );
  return place(raw, blocks, reader.id, options);
}

/** Typographic forms that later rooms rely on: one kind of space, no reference marks, no doubled marks. */
function cleanText(text: string): string {
  return text
    .replace(/[\u00a0\u2007]/g, ' ')
    .replace(/\s?\[(?:\d{1,3}|citation needed|note \d+|edit)\]/gi, '')
    .replace(/``|''/g, '"')
    .replace(/\s+([,.;:!?])(?=\s|$)/g, '$1')
    .replace(/\s+/g, ' ')
    .trim();
}

function cutLong(block: RawBlock): RawBlock[] {
  if (block.text.length <= LONGEST_PASSAGE) return [block];
  const out: RawBlock[] = [];
  let text = '';
  for (const sentence of sentences(block.text)) {
    if (text && text.length + sentence.text.length > LONGEST_PASSAGE) {
      out.push({ ...block, text });
      text = '';
    }
    text += (text ? ' ' : '') + sentence.text;
  }
  if (text) out.push({ ...block, text });
  return out;
}

function place(
  raw: RawDocument,
  rawBlocks: readonly RawBlock[],
  format: string,
  options: ReadOptions,
): SourceDocument {
  const title = (options.title?.trim() || raw.title || titleFrom(rawBlocks)).slice(0, 200);
  const detected = options.kind
    ? { kind: options.kind, reason: 'you said so' }
    : detectKind(title, rawBlocks);
  let at = 0;
  let under: string | undefined;
  const blocks = rawBlocks.map((b, i): Block => {
    if (b.type === 'heading') under = b.text;
    const start = at;
    at += b.text.length + 2;
    return {
      id: `p${i + 1}`,
      type: b.type,
      text: b.text,
      start,
      end: start + b.text.length,
      ...(under && b.type !== 'heading' ? { under } : {}),
      ...(b.step ? { step: b.step } : {}),
    };
  });
  return {
    version: 1,
    title,
    kind: detected.kind,
    kindReason: detected.reason,
    format,
    language: raw.language ?? 'en',
    ...(raw.published ? { published: raw.published } : {}),
    ...(raw.authors?.length ? { authors: raw.authors } : {}),
    ...(raw.publisher ? { publisher: raw.publisher } : {}),
    ...(raw.licence ? { licence: raw.licence } : {}),
    text: rawBlocks.map((b) => b.text).join('\n\n'),
    blocks,
  };
}

/** A working title from the first words when the source has none. */
function titleFrom(blocks: readonly RawBlock[]): string {
  const first = blocks.find((b) => b.type !== 'heading')?.text ?? '';
  const sentence = sentences(first)[0]?.text ?? first;
  const words = sentence.split(' ').slice(0, 9).join(' ');
  return words.replace(/[.,;:]$/, '') + (words.length < sentence.length - 1 ? '…' : '');
}
