/** A page selected whole and pasted as text, a thread or a mail archive: read like a page, without its tags. */
import type { RawDocument } from '../document.ts';
import { MOST_JUDGED, SURELY_NOT, readAtoms } from './article.ts';
import { wordsOf, type Atom } from './atom.ts';
import { sureness } from './classify.ts';
import { hashOf, isProse } from './features.ts';
import { headOf } from './head.ts';
import { pasteModel } from './models.ts';
import { atomsOfText } from './ofText.ts';

/** So many rows must surely be no article before a text is taken for a page. */
const FURNISHED = 6;
/** Words that must be left of it. */
const FEWEST_WORDS = 60;

/** Reads a pasted page; null where the text is just a text. */
export async function readPaste(text: string): Promise<RawDocument | null> {
  const atoms = atomsOfText(text);
  if (atoms.length < 10 || atoms.length > MOST_JUDGED) return null;
  const model = await pasteModel();
  const first = sureness(atoms, '', model, false);
  const surely = atoms.filter((a, i) => first[i] < SURELY_NOT && !(a.type === 'item' && a.step) && wordsOf(a.text).length < 30).length; // prettier-ignore
  if (surely < FURNISHED || surely < atoms.length * 0.1) return null;
  const title = titleIn(atoms, first);
  const read = readAtoms(atoms, { title: title ?? '', model, tagged: false });
  const words = read.blocks.filter((b) => b.type !== 'reply').reduce((n, b) => n + wordsOf(b.text).length, 0);
  if (words < FEWEST_WORDS) return null;
  const head = title ? headOf(atoms, title) : {};
  return {
    ...head,
    ...(title ? { title } : {}),
    ...(read.thread && read.teller ? { authors: [read.teller] } : {}),
    ...(read.thread ? { kind: { is: 'forum' as const, why: 'it is a thread of a board' } } : {}),
    ...(read.thread && read.day ? { published: read.day } : {}),
    blocks: read.blocks,
    leftOut: read.leftOut,
  };
}

/** The row above the article that the opening is about. */
export function titleIn(atoms: readonly Atom[], sure: readonly number[]): string | undefined {
  const opens = atoms.findIndex((a, i) => isProse(a) && sure[i] >= 0.6);
  if (opens < 0) return undefined;
  const kept = atoms.filter((_, i) => sure[i] >= 0.5 && i >= opens);
  const stems = (text: string) =>
    wordsOf(text.toLowerCase())
      .filter((w) => w.length > 3)
      .map((w) => w.slice(0, 6));
  const opening = new Set(kept.slice(0, 4).flatMap((a) => stems(a.text)));
  const all = new Set(kept.flatMap((a) => stems(a.text)));
  const seen = new Map<string, number>();
  for (const a of atoms) seen.set(hashOf(a.text), (seen.get(hashOf(a.text)) ?? 0) + 1);
  const from = Math.max(0, opens - 25);
  const scored = atoms
    .slice(from, opens)
    .filter(({ text }) => text.length <= 160 && /^["“‘'(]?[\p{Lu}\p{N}]/u.test(text) && !/[.:,]$/.test(text))
    // Paths, labels with a value, numbered contents.
    .filter(({ text }) => !/[›»|·]|->|\s\/\s|^\p{L}+(?: \p{L}+)?:\s|^\d+(?:\.\d+)*\s\D/u.test(text))
    .map(({ text }, k) => {
      const words = stems(text);
      const shared = words.reduce((n, w) => n + (opening.has(w) ? 1 : all.has(w) ? 0.6 : 0), 0);
      const score = (shared / (words.length + 3)) * (0.4 + (0.6 * k) / 25);
      return { text, score: score / Math.sqrt(Math.max(1, seen.get(hashOf(text))! - 1)) };
    })
    .sort((a, b) => b.score - a.score);
  return scored[0]?.score > 0.12 ? scored[0].text : undefined;
}
