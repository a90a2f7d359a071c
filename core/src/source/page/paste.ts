/** A page selected whole and pasted as text, a thread or a mail archive: read like a page, without its tags. */
import type { RawDocument } from '../document.ts';
import { literal } from '../../language/literal.ts';
import { MOST_JUDGED, SURELY_NOT, readAtoms } from './article.ts';
import { wordsOf, type Atom } from './atom.ts';
import { sureness } from './classify.ts';
import { CLOSED, hashOf, isProse } from './features.ts';
import { headOf } from './head.ts';
import { pasteModel } from './models.ts';
import { atomsOfText } from './ofText.ts';
import { DAY, isStamp } from './shapes.ts';

const IN = 0.5;
/** Before a subject in an archive or a thread: "Re:", the name of a list in brackets. */
export const PREFIX = /^(?:\[[\w.-]+\]\s+|(?:re|fwd?):\s+)+(?=\S)/i;
/** So many rows must surely be no article before a text is taken for a page. */
const FURNISHED = 6;
/** Or so many of a short one, of which there is no doubt at all. */
const FEW = 3;
const PLAINLY_NOT = 0.04;
/** Words that must be left of it. */
const FEWEST_WORDS = 40;

/** Reads a pasted page; null where the text is just a text. */
export async function readPaste(text: string): Promise<RawDocument | null> {
  const atoms = atomsOfText(text);
  if (atoms.length < 10 || atoms.length > MOST_JUDGED) return null;
  const model = await pasteModel();
  const first = sureness(atoms, '', model, false);
  const surely = atoms.filter((a, i) => first[i] < SURELY_NOT && !(a.type === 'item' && a.step) && wordsOf(a.text).length < 30).length; // prettier-ignore
  const plainly = first.filter((s) => s < PLAINLY_NOT).length;
  const few = plainly >= FEW && plainly >= atoms.length * 0.15;
  if (!few && (surely < FURNISHED || surely < atoms.length * 0.1)) return null;
  const title = titleIn(atoms, first);
  const head = title ? headOf(atoms, title, model.lexicon) : {};
  const [author] = head.authors ?? [];
  const read = readAtoms(atoms, { title: title ?? '', model, tagged: false, ...(author ? { author } : {}) });
  const words = read.blocks.filter((b) => b.type !== 'reply').reduce((n, b) => n + wordsOf(b.text).length, 0);
  if (words < FEWEST_WORDS) return null;
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

/** From here on a passage may be where the article opens. */
const OPENS = 0.3;
/** Rows above it that are looked at. */
const ABOVE = 25;
/** What a title must come to. */
const TITLED = 0.55;
const LABEL = /^\p{L}+:\s/u;
const BYLINE = /^(?:(?:words|report(?:ing|ed)?|story|text|written|posted)\s)?by:?\s+\p{Lu}/iu;

/** Whether a text begins with its subject, as entries of reference works do: "The cairn wren (…) is". */
export const opensWith = (text: string, title: string): boolean =>
  new RegExp(`^(?:(?:the|an?)\\s)?${literal(title)}\\b`, 'i').test(text) && title.length > 3;

/** The row above the article that is about the same: few words, mostly the article's own, with who wrote it or when below. */
export function titleIn(atoms: readonly Atom[], sure: readonly number[]): string | undefined {
  const opens = atoms.findIndex((a, i) => isProse(a) && sure[i] >= OPENS);
  if (opens < 1) return undefined;
  const stems = (text: string) =>
    wordsOf(text.toLowerCase())
      .filter((w) => w.length > 2 && !CLOSED.has(w))
      .map((w) => w.replace(/['’]s$/, '').slice(0, 6));
  const told = new Set(atoms.filter((_, i) => i >= opens && sure[i] >= IN).flatMap((a) => stems(a.text)));
  const opening = new Set(stems(atoms[opens].text));
  const seen = new Map<string, number>();
  const from = Math.max(0, opens - ABOVE);
  const rows = atoms.slice(from, opens).flatMap((a, k) =>
    (a.type === 'row' ? a.text.split('; ') : [a.text]).map((text) => ({ k: from + k, text: text.replace(PREFIX, '').replace(/\[edit\]$/, '').trim() })),
  ); // prettier-ignore
  for (const a of atoms) {
    const key = hashOf(a.text.replace(PREFIX, ''));
    seen.set(key, (seen.get(key) ?? 0) + 1);
  }
  const signed = (k: number) =>
    atoms
      .slice(k + 1, Math.min(k + 4, opens))
      .some((a) => BYLINE.test(a.text) || (a.text.length < 110 && DAY.test(a.text)));
  const scored = rows
    .filter(({ text }) => text.length <= 160 && /^["“‘'(]?[\p{Lu}\p{N}]/u.test(text) && !/[.:,]$/.test(text))
    // Paths, labels with a value, numbered contents, stamps.
    .filter(
      ({ text }) =>
        !/[›»|·]|->|\s\/\s|^\p{L}+(?: \p{L}+)?:\s\P{L}|^\d+(?:\.\d+)*\s\D/u.test(text) &&
        !BYLINE.test(text) &&
        !isStamp(text),
    )
    // A field among fields.
    .filter(
      ({ k }) => !(LABEL.test(atoms[k].text) && [k - 1, k + 1].some((i) => LABEL.test(atoms[i]?.text ?? ''))),
    )
    .map(({ text, k }) => {
      const words = [...new Set(stems(text))];
      const shared = words.reduce((n, w) => n + (opening.has(w) ? 1 : told.has(w) ? 0.8 : 0), 0);
      if (!shared) return { text, score: 0 };
      const again = seen.get(hashOf(text))! > 1 && words.length > 1;
      return {
        text,
        score:
          (shared / words.length) * Math.sqrt(Math.min(1, words.length / 3)) +
          (signed(k) ? 0.35 : 0) +
          (words.length > 2 ? 0.15 : 0) +
          (again ? 0.2 : 0) +
          (opensWith(atoms[opens].text, text) ? 0.6 : 0) -
          (LABEL.test(text) ? 0.4 : 0) +
          (0.2 * (k - from)) / ABOVE,
      };
    })
    .sort((a, b) => b.score - a.score);
  return scored[0]?.score >= TITLED ? scored[0].text : undefined;
}
