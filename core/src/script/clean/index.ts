/** Drafts from anywhere: the narration becomes sections and lines; what is not spoken is kept as notes at its place. */
import { sentences } from '../../language/sentences.ts';
import { freePieces } from './free.ts';
import { LAYOUTS } from './layouts.ts';
import type { CutKind, Piece } from './piece.ts';

export { CUT_KINDS, type CutKind } from './piece.ts';

/** Something that stood in the draft and is not spoken. */
export interface TakenOut {
  kind: CutKind;
  text: string;
}
export interface DraftLine {
  text: string;
  speaker: string;
  restMs: number;
  /** What stood before this line's words, or within them. */
  taken: TakenOut[];
  /** Whether a paragraph of the draft ends here. */
  endsParagraph: boolean;
}
export interface DraftSection {
  title: string;
  lines: DraftLine[];
  /** What stood behind the last line. */
  takenAfter: TakenOut[];
}
export interface CleanedDraft {
  /** captions, columns, screenplay or free. */
  layout: string;
  title: string | null;
  sections: DraftSection[];
}

function piecesOf(text: string): { layout: string; pieces: Piece[] } {
  for (const layout of LAYOUTS) {
    const pieces = layout.read(text);
    if (pieces) return { layout: layout.id, pieces };
  }
  return { layout: 'free', pieces: freePieces(text) };
}

interface Paragraph {
  text: string;
  speaker: string;
  rests: { at: number; ms: number }[];
  taken: TakenOut[];
}

/** Most spoken pieces set in quotation marks: the marks are the writer's way to show what is said, and are no part of it. */
const QUOTED = /^(?:"[^"]*"|“[^“”]*”)$/;
const MOST_QUOTED = 0.8;
function unquoted(pieces: readonly Piece[]): readonly Piece[] {
  const spoken = pieces.filter((p) => p.type === 'spoken');
  const marked = spoken.filter((p) => QUOTED.test(p.text.trim())).length;
  if (spoken.length < 3 || marked < spoken.length * MOST_QUOTED) return pieces;
  return pieces.map((p) =>
    p.type === 'spoken' && QUOTED.test(p.text.trim())
      ? {
          ...p,
          text: p.text.trim().slice(1, -1),
          ...(p.rests ? { rests: p.rests.map((r) => ({ ...r, at: Math.max(0, r.at - 1) })) } : {}),
        }
      : p,
  );
}

/** A draft taken apart. Any text is taken; a draft without narration has no lines. Linear in its length. */
export function readDraft(text: string): CleanedDraft {
  const { layout, pieces } = piecesOf(
    text
      .replace(/\r\n?/g, '\n')
      .replace(/\u00a0/g, ' ')
      // What is nowhere seen: soft hyphens, joiners of no width.
      .replace(/[\u00ad\u200b\u2060]/g, '')
      .replace(/^\uFEFF/, ''),
  );
  let title: string | null = null;
  const sections: { title: string; paragraphs: Paragraph[]; waiting: TakenOut[] }[] = [];
  const current = () => {
    if (!sections.length) sections.push({ title: '', paragraphs: [], waiting: [] });
    return sections[sections.length - 1];
  };
  let open = false;
  for (const piece of unquoted(pieces)) {
    const section = current();
    const last = section.paragraphs[section.paragraphs.length - 1] as Paragraph | undefined;
    switch (piece.type) {
      case 'gap':
        open = false;
        break;
      case 'heading':
        open = false;
        if (piece.level === 0 && title === null) title = piece.text;
        else if (!section.paragraphs.length) {
          // Two headings with nothing between: the second is the section's, the first is kept as a note.
          if (section.title) section.waiting.push({ kind: 'heading', text: section.title });
          section.title = piece.text;
        } else sections.push({ title: piece.text, paragraphs: [], waiting: [] });
        break;
      case 'cut':
        section.waiting.push({ kind: piece.kind, text: piece.text });
        break;
      case 'rest':
        if (last) last.rests.push({ at: last.text.length, ms: piece.ms });
        else if (piece.text) section.waiting.push({ kind: 'direction', text: piece.text });
        break;
      case 'spoken': {
        const speaker = piece.speaker ?? '';
        if (open && last && last.speaker === speaker) {
          const shift = last.text.length + 1;
          last.text += ` ${piece.text}`;
          last.rests.push(...(piece.rests ?? []).map((r) => ({ ...r, at: r.at + shift })));
          last.taken.push(...section.waiting.splice(0));
        } else
          section.paragraphs.push({
            text: piece.text,
            speaker,
            rests: [...(piece.rests ?? [])],
            taken: section.waiting.splice(0),
          });
        open = true;
      }
    }
  }
  return {
    layout,
    title,
    sections: sections
      .filter((s) => s.paragraphs.length || s.waiting.length)
      .map((s) => ({ title: s.title, takenAfter: s.waiting, lines: s.paragraphs.flatMap(linesOf) })),
  };
}

function linesOf({ text, speaker, rests, taken }: Paragraph): DraftLine[] {
  const found = sentences(text);
  return found.map((s, i) => ({
    text: s.text,
    speaker,
    // A rest belongs to the sentence it stands in or right behind.
    restMs: Math.max(
      0,
      ...rests
        .filter((r) => r.at > s.start && (r.at <= s.end + 1 || i === found.length - 1))
        .filter((r) => !found.some((o, k) => k < i && r.at <= o.end + 1))
        .map((r) => r.ms),
    ),
    taken: i === 0 ? taken : [],
    endsParagraph: i === found.length - 1,
  }));
}

/** The narration alone: one paragraph a narration paragraph, separated by blank lines. Spoken words are kept as they stand. */
export function cleanDraft(text: string): string {
  const paragraphs: string[] = [''];
  for (const { lines } of readDraft(text).sections)
    for (const line of lines) {
      paragraphs[paragraphs.length - 1] += (paragraphs[paragraphs.length - 1] ? ' ' : '') + line.text;
      if (line.endsParagraph) paragraphs.push('');
    }
  return paragraphs.filter(Boolean).join('\n\n');
}
