/** A page selected whole and pasted as text, a thread or a mail archive: read like a page, without its tags. */
import type { RawDocument } from '../document.ts';
import { MOST_JUDGED, SURELY_NOT, readAtoms } from './article.ts';
import { wordsOf } from './atom.ts';
import { sureness } from './classify.ts';
import { headOf, titleInSubject } from './head.ts';
import { pasteModel } from './models.ts';
import { atomsOfText } from './ofText.ts';
import { recordGroups } from './records.ts';
import { subjectIn, titleIn } from './title.ts';

/** So many rows must surely be no article before a text is taken for a page. */
const FURNISHED = 6;
/** Or so many of a short one, of which there is no doubt at all. */
const FEW = 3;
const PLAINLY_NOT = 0.04;
/** A page has at least so many rows, unless so many people post on it. */
const FEWEST_ROWS = 10;
const SEVERAL = 2;
/** Words that must be left of it. */
const FEWEST_WORDS = 40;

/** Where words of a letter lead, in brackets behind them, as programs write it that send a page as text. */
const withoutLinks = (text: string) => text.replace(/\s?[[(<]\s?https?:\/\/[^\s\])>]+\s?[\])>]/g, '');

/** Reads a pasted page; null where the text is just a text. `subject`: what the letter that it came in says it is about. */
export async function readPaste(text: string, subject?: string): Promise<RawDocument | null> {
  const atoms = atomsOfText(text);
  if (atoms.length > MOST_JUDGED) return null;
  const groups = recordGroups(atoms);
  const people = groups.flatMap((g) => (g.kind === 'posts' ? g.records.flatMap((r) => r.author ?? []) : []));
  const thread = new Set(people).size >= SEVERAL;
  const fewest = subject === undefined ? FEWEST_ROWS : FEWEST_ROWS / 2;
  if (atoms.length < fewest && !thread) return null;
  const model = await pasteModel();
  const first = sureness(atoms, '', model, false);
  const surely = atoms.filter((a, i) => first[i] < SURELY_NOT && !(a.type === 'item' && a.step) && wordsOf(a.text).length < 30).length; // prettier-ignore
  const plainly = first.filter((s) => s < PLAINLY_NOT).length;
  // A letter may have only its sender's lines about it.
  const few = subject === undefined ? plainly >= FEW && plainly >= atoms.length * 0.15 : surely > 0;
  if (!thread && !few && (surely < FURNISHED || surely < atoms.length * 0.1)) return null;
  const title = subjectIn(atoms) ?? titleInSubject(atoms, subject, first) ?? (await titleIn(atoms, first));
  const head = title ? headOf(atoms, title, model.lexicon) : {};
  const [author] = head.authors ?? [];
  const read = readAtoms(atoms, {
    title: title ?? '',
    model,
    tagged: false,
    groups,
    ...(author ? { author } : {}),
  });
  const words = read.blocks.filter((b) => b.type !== 'reply').reduce((n, b) => n + wordsOf(b.text).length, 0);
  if (words < FEWEST_WORDS && !thread) return null;
  return {
    ...head,
    ...(title ? { title } : {}),
    ...(read.thread && read.teller ? { authors: [read.teller] } : {}),
    ...(read.thread ? { kind: { is: 'forum' as const, why: 'it is a thread of a board' } } : {}),
    ...(read.thread && read.day ? { published: read.day } : {}),
    blocks: read.blocks.map((b) => ({ ...b, text: withoutLinks(b.text) })),
    leftOut: read.leftOut,
  };
}
