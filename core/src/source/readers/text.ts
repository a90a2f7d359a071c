/** Plain text: paragraphs by blank lines, or by lines where there are none; titles, lists and wrapped lines recognised. */
import type { RawBlock, RawDocument } from '../document.ts';
import { readPaste } from '../page/paste.ts';
import { partedSteps } from '../subSteps.ts';
import type { SourceReader } from './reader.ts';

const ITEM = /^\s*(?:[-*•–]\s+|(\d{1,2})[.)]\s+|(?:step|Step)\s+(\d{1,2})\s*[:.]\s*)(?=\S)/;
const DATELINE =
  /^(?:published|updated|posted)?\s*(?::\s*)?(?:on\s+)?((?:\d{1,2}\s\p{L}+\s\d{4})|(?:\p{L}+\s\d{1,2},\s\d{4})|\d{4}-\d{2}-\d{2})\s*$/iu;
const BYLINE = /^[Bb]y\s+(\p{Lu}[\p{L}.'’-]+(?:\s\p{Lu}[\p{L}.'’-]+){0,3})\s*$/u;

/** A short line without a full stop that stands alone: a heading or a title. */
const isHeading = (line: string) =>
  line.length <= 90 &&
  !/[.!?,;:"”]$/.test(line) &&
  /^[\p{Lu}\p{N}“"]/u.test(line) &&
  line.split(/\s+/).length <= 14 &&
  line.split(/\s+/).length >= 1;

export const textReader: SourceReader = {
  id: 'text',
  accepts: () => 0.1,
  read: async (text, subject) => {
    const page = await readPaste(text, subject);
    if (page) return page;
    const chunks = /\n\s*\n/.test(text) ? text.split(/\n\s*\n/) : text.split('\n');
    const raw: RawDocument = { blocks: [] };
    chunks
      .map((c) => c.trim())
      .filter(Boolean)
      .forEach((chunk, i, all) => addChunk(raw, chunk, i, all));
    return raw;
  },
};

function addChunk(raw: RawDocument, chunk: string, i: number, all: readonly string[]): void {
  const lines = chunk.split('\n').map((l) => l.trim());
  if (lines.some((l) => ITEM.test(l)) && lines.length > 1) {
    raw.blocks.push(...listBlocks(lines));
    return;
  }
  const item = ITEM.exec(chunk);
  const joined = lines.join(' ').replace(/\s+/g, ' ');
  if (item) {
    const step = Number(item[1] ?? item[2]) || undefined;
    raw.blocks.push({ type: 'item', text: joined.replace(ITEM, ''), ...(step ? { step } : {}) });
  } else if (DATELINE.test(joined)) raw.published ??= DATELINE.exec(joined)![1];
  else if (BYLINE.test(joined) && i < 4) raw.authors ??= [BYLINE.exec(joined)![1]];
  else if (
    i === 0 &&
    all.length > 1 &&
    lines.length <= 2 &&
    joined.length <= 200 &&
    !/[.!?;,”"]$/.test(joined)
  )
    raw.title = joined;
  else if (lines.length === 1 && all.length > 1 && isHeading(joined)) {
    if (!raw.title && raw.blocks.length === 0) raw.title = joined;
    else raw.blocks.push({ type: 'heading', text: joined });
  } else if (/^>/.test(chunk))
    raw.blocks.push({ type: 'quote', text: joined.replace(/(^|\s)>\s?/g, '$1').trim() });
  else raw.blocks.push({ type: 'paragraph', text: joined });
}

/** Items of a list written line by line; a wrapped line belongs to the item before it. */
function listBlocks(lines: readonly string[]): RawBlock[] {
  const out: RawBlock[] = [];
  for (const line of lines) {
    const item = ITEM.exec(line);
    const step = item ? Number(item[1] ?? item[2]) || undefined : undefined;
    if (item) out.push({ type: 'item', text: line.replace(ITEM, ''), ...(step ? { step } : {}) });
    else if (out.length && out[out.length - 1].type === 'item') out[out.length - 1].text += ` ${line}`;
    else if (line) out.push({ type: isHeading(line) ? 'heading' : 'paragraph', text: line });
  }
  return out.flatMap((b) => {
    const parted = b.step === undefined ? null : partedSteps(b.text);
    return parted
      ? [
          { ...b, text: parted.step },
          ...parted.within.map((text, k): RawBlock => ({ type: 'item', text, step: k + 1, within: b.step! })),
        ]
      : [b];
  });
}
