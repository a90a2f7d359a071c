/** What a writer decided about the pieces of a source, over what its reader found. Pieces are known by their words, so that another reading keeps it. */
import { z } from 'zod';
import type { RawBlock, RawDocument, RawLeftOut } from './document.ts';

/** More pieces than a writer decides on by hand. */
const MOST_CHOICES = 2000;
const LONGEST_KEY = 200;
const keys = z.array(z.string().max(LONGEST_KEY)).max(MOST_CHOICES);
export const choicesSchema = z.object({
  /** Pieces that belong to the text. */
  in: keys,
  /** Pieces that don't. */
  out: keys,
  /** What alone is told: another post of a thread than the opening one, or the part under a heading (an item of a newsletter). */
  story: z.string().max(LONGEST_KEY).optional(),
});
export type Choices = Readonly<z.infer<typeof choicesSchema>>;
export const NO_CHOICES: Choices = { in: [], out: [] };

/** "as read" takes a decision back. */
export const CHOOSE = ['in', 'out', 'story', 'as read'] as const;
export type Choose = (typeof CHOOSE)[number];

/** What a piece is known by: the beginning of its letters and digits, whatever is set around them; marks of notes are gone from what is shown. */
export const pieceKey = (text: string): string =>
  text.normalize('NFKC').toLowerCase().replace(/\[[^\]]{0,30}\]/g, '').replace(/[^\p{L}\p{N}]+/gu, '').slice(0, LONGEST_KEY); // prettier-ignore

/** The choices with one more; what was decided of the piece before no longer holds. */
export function withChoice(choices: Choices, text: string, as: Choose): Choices {
  const key = pieceKey(text);
  const [into, out] = [choices.in, choices.out].map((list) => list.filter((k) => k !== key));
  const { story: told, ...rest } = choices;
  const story = as === 'story' ? key : told === key ? undefined : told;
  return {
    ...rest,
    in: as === 'in' ? [...into, key].slice(-MOST_CHOICES) : into,
    out: as === 'out' ? [...out, key].slice(-MOST_CHOICES) : out,
    ...(story === undefined ? {} : { story }),
  };
}

/** What a reader found, as the writer decided: pieces taken in at their place, taken out, another post as the story. */
export function applyChoices(raw: RawDocument, choices: Choices): RawDocument {
  const [wanted, unwanted] = [new Set(choices.in), new Set(choices.out)];
  const blocks: RawBlock[] = [];
  const leftOut: RawLeftOut[] = [];
  const left = (raw.leftOut ?? []).map((l) => ({ ...l, at: l.at ?? raw.blocks.length }));
  const takeUp = (from: number, to: number) => {
    for (const piece of left.filter((l) => l.at >= from && l.at < to)) {
      const { at: _, why: __, doubt: ___, type = 'paragraph', text } = piece;
      if (wanted.has(pieceKey(text))) blocks.push({ type, text, chosen: true });
      else leftOut.push({ ...piece, at: blocks.length });
    }
  };
  raw.blocks.forEach((block, i) => {
    takeUp(i, i + 1);
    const key = pieceKey(block.text);
    const { doubt: _, ...sure } = block;
    if (unwanted.has(key))
      leftOut.push({ text: block.text, why: 'you left it out', doubt: false, chosen: true, type: block.type, at: blocks.length }); // prettier-ignore
    else blocks.push(wanted.has(key) ? { ...sure, chosen: true } : block);
  });
  takeUp(raw.blocks.length, Infinity);
  return partOf(toldFrom({ ...raw, blocks, leftOut }, choices.story), choices.story);
}

/** The chosen reply is the story; what was the story, one piece, is a reply. */
function toldFrom(raw: RawDocument, story: string | undefined): RawDocument {
  const told = raw.blocks.find((b) => b.type === 'reply' && pieceKey(b.text) === story);
  if (!told) return raw;
  const before = raw.blocks.filter((b) => b.type !== 'reply' && b.type !== 'heading');
  const { speaker, ...post } = told;
  const [by] = raw.authors ?? [];
  const { authors: _, ...rest } = raw;
  return {
    ...rest,
    ...(speaker ? { authors: [speaker] } : {}),
    blocks: [
      { ...post, type: 'paragraph', chosen: true },
      ...(before.length ? [{ type: 'reply' as const, text: before.map((b) => b.text).join(' '), ...(by ? { speaker: by } : {}) }] : []), // prettier-ignore
      ...raw.blocks.filter((b) => b.type === 'reply' && b !== told),
    ],
  };
}

/** Only what stands under the chosen heading, which is the title; the other parts are left out, but for what was taken in. */
function partOf(raw: RawDocument, story: string | undefined): RawDocument {
  const at = raw.blocks.findIndex((b) => b.type === 'heading' && pieceKey(b.text) === story);
  if (at < 0) return raw;
  const next = raw.blocks.findIndex((b, i) => i > at && b.type === 'heading');
  const end = next < 0 ? raw.blocks.length : next;
  const other = (b: RawBlock, before: number): RawLeftOut => ({ text: b.text, why: 'it is another part', doubt: false, type: b.type, at: before }); // prettier-ignore
  // What was taken in besides stays, behind it.
  const besides = [...raw.blocks.slice(0, at), ...raw.blocks.slice(end)];
  const part = [...raw.blocks.slice(at + 1, end), ...besides.filter((b) => b.chosen)];
  return {
    ...raw,
    title: raw.blocks[at].text,
    blocks: [{ ...raw.blocks[at], chosen: true }, ...part],
    leftOut: [
      ...raw.blocks
        .slice(0, at)
        .filter((b) => !b.chosen)
        .map((b) => other(b, 0)),
      ...(raw.leftOut ?? []).map((l) => ({
        ...l,
        at: Math.min(part.length + 1, Math.max(0, (l.at ?? 0) - at)),
      })),
      ...raw.blocks
        .slice(end)
        .filter((b) => !b.chosen)
        .map((b) => other(b, part.length + 1)),
    ],
  };
}
