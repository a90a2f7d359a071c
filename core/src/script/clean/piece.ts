/** What a pasted draft is taken apart into, before it becomes sections and lines. */

/** Why something is not spoken. */
export const CUT_KINDS = [
  'direction',
  'timing',
  'count',
  'speaker',
  'heading',
  'chatter',
  'brief',
  'mark',
] as const;
export type CutKind = (typeof CUT_KINDS)[number];

/** One piece of a draft, in reading order. */
export type Piece =
  /** `rests`: planned rests by their place in the text. */
  | { type: 'spoken'; text: string; speaker?: string; rests?: readonly { at: number; ms: number }[] }
  /** A title of the whole (level 0) or of a section. */
  | { type: 'heading'; text: string; level: 0 | 1 }
  | { type: 'cut'; text: string; kind: CutKind }
  /** A planned rest, in milliseconds. */
  | { type: 'rest'; ms: number; text: string }
  /** An empty line: the paragraph ends. */
  | { type: 'gap' };

export const cut = (kind: CutKind, text: string): Piece => ({ type: 'cut', kind, text: text.trim() });
export const gap: Piece = { type: 'gap' };

/** A form of draft that says by itself what is spoken. */
export interface Layout {
  id: string;
  /** Null when the draft is not laid out so. */
  read: (text: string) => Piece[] | null;
}

/** A row with what the rules for rows made of it. */
export interface JudgedRow {
  row: string;
  pieces: Piece[];
  /** Whether it stands under a label that says who speaks. */
  labelled: boolean;
}
export const isSpoken = (r: JudgedRow) => r.pieces.some((p) => p.type === 'spoken');
export const wordsOf = (text: string) => (text.match(/[\p{L}\p{N}][\p{L}\p{N}'’]*/gu) ?? []).length;
