/** Atoms of a page or a paste → its article in passages, other people's posts apart, and what was left out, with why. */
import type { RawBlock, RawLeftOut } from '../document.ts';
import { APPARATUS, RUN_IN, BARE_APPARATUS, OF_PAPER, PART } from '../apparatus.ts';
import { isoDate } from '../tidy.ts';
import { isFurnitureLine } from '../readers/html/furniture.ts';
import { wordsOf, type Atom } from './atom.ts';
import { sureness, type PageModel } from './classify.ts';
import { hashOf, isProse } from './features.ts';
import {
  COMMENTED,
  mailHeads,
  nameBeside,
  isOwnStory,
  nameIn,
  recordGroups,
  type PageRecord,
  type RecordGroup,
} from './records.ts';
import { ADDRESS, CLOCK, CREDIT, DAY, isStamp } from './shapes.ts';

export interface PageReading {
  blocks: RawBlock[];
  leftOut: RawLeftOut[];
  /** A thread: one person's posts are the story, others' are replies. An article over comments is none. */
  thread: boolean;
  /** What was read is one of several posts, be it an article over comments. */
  opened: boolean;
  /** Who wrote the opening post, and on what day, in the page's words. */
  teller?: string;
  day?: string;
}
export interface PageAsked {
  title: string;
  model: PageModel;
  /** Whether the atoms come with markup. */
  tagged: boolean;
  /** The page says of itself that it is a board, or who wrote it. */
  board?: boolean;
  author?: string;
  /** Of a page on which nothing looks like an article, what looks most like one. */
  relative?: boolean;
  /** Its records, where they are known already. */
  groups?: readonly RecordGroup[];
  /** A text that somebody typed: it is all article unless so many pieces surely are none. */
  typed?: number;
}
/** A page of more pieces than this is a book or a list of links, and is not judged piece by piece. */
export const MOST_JUDGED = 5000;
/** Below this a piece surely is none of the article. */
export const SURELY_NOT = 0.15;
const SURELY = 0.9;
/** From here on sentences beside the article's may be its own. */
const MAY_BE = 0.3;
const TO_READER = /\b(?:you|your|yours|we|our|ours|us)\b/i;
/** What stands in the opening post among its words mostly is one of them, whatever it looks like. */
const NONE_OF_A_POST = 0.05;

/** From here on an atom is the article's. */
const IN = 0.5;
/** Between these it may be either. */
const DOUBT: readonly [number, number] = [0.3, 0.7];
/** The share of the article's words that may be marked as doubtful. */
const MOST_DOUBT = 0.05;
/** Words of one's own that make a later post another part of the story; with a mark of an update, fewer. */
const LONG_POST = 30;
const UPDATE = /^\W*(?:update|edit|edited to add|final update|follow-?up|eta)\b/i;
const SHORT_UPDATE = 10;
/** Whose a page is: the sign, or its word, with a year (Universal Copyright Convention, article III), or the old formula. */
const RIGHTS = /(?:©|\bcopyright\b)[^.]{0,40}\b(?:19|20)\d\d\b|\b(?:19|20)\d\d\s?©|\ball rights reserved\b/i;
const WHOSE_WORDS = 'it says whose words the quotation is';
type State = 'in' | 'out';
/** What is thought of each atom so far; `state` and `why` are changed in place. */
interface Judgement {
  atoms: readonly Atom[];
  sure: readonly number[];
  state: State[];
  /** Those that are left out for good, by their form. */
  why: Map<number, string>;
  inPosts: ReadonlySet<number>;
  /** Those that are said of a picture. */
  captions: Set<number>;
  title: string;
}

/** `known`: how sure it is of each atom, where that is known already. */
export function readAtoms(atoms: readonly Atom[], asked: PageAsked, known?: readonly number[]): PageReading {
  if (asked.typed !== undefined && atoms.length > MOST_JUDGED) return asTyped(atoms, asked.title);
  const sure = known ?? sureness(atoms, asked.title, asked.model, asked.tagged);
  atoms = withDeck(atoms);
  const least = asked.relative ? partition(atoms, sure) : IN;
  const none = sure.filter((s) => s < SURELY_NOT).length;
  const nothing = !sure.some((p, i) => p >= IN && atoms[i].type !== 'heading');
  if (asked.typed !== undefined && (none < asked.typed || nothing)) return asTyped(atoms, asked.title);
  const groups = asked.groups ?? recordGroups(atoms);
  const state = atoms.map((_, i): State => (sure[i] >= least ? 'in' : 'out'));
  const why = new Map<number, string>();
  const out = (i: number, reason: string) => {
    state[i] = 'out';
    why.set(i, reason);
  };

  leaveOutByForm(atoms, sure, asked.title, out);
  saidTwice(atoms, out);
  if (asked.author) aboutAuthor(atoms, asked.author, out);
  listsHeadings(atoms, out);
  const repeated = groups.filter((g) => g.kind === 'posts');
  for (const g of groups.filter((x) => x.kind === 'cards'))
    for (const r of g.records) for (const i of r.atoms) if (sure[i] < 0.9) out(i, 'it leads to another page');
  const found = threadIn(atoms, sure, repeated, asked);
  // An article that is signed and dated as the comments under it are is judged as an article; they stay posts.
  const thread: Thread | null = found?.article ? { article: true } : found;
  const posts = found?.article
    ? repeated.map((g) => ({ ...g, records: g.records.filter((r) => r !== found.opening) }))
    : repeated;
  const inPosts = new Set(posts.flatMap((g) => g.records.flatMap((r) => r.atoms)));
  const live = groups.find((g) => g.kind === 'entries' && isLive(atoms, g, state));
  if (live) for (const r of live.records) out(r.stamp, 'it says when');

  if (!thread?.opening) underComments(atoms, sure, inPosts, out);
  const captions = new Set<number>();
  if (!thread?.opening) decideTogether({ atoms, sure, state, why, inPosts, captions, title: asked.title });
  const order = live ? oldestFirst(atoms, live) : atoms.map((_, i) => i);
  const entryOf = live ? entriesOf(live, order) : new Map<number, number>();
  const blocks: RawBlock[] = [];
  const leftOut: RawLeftOut[] = [];
  /** Which atom each passage is. */
  const places: number[] = [];
  const told = new Set<number>();
  const add = (i: number, extra: Partial<RawBlock> = {}) => {
    const block = blockOf(atoms, i, asked.title);
    told.add(i);
    if (!block) return;
    places.push(i);
    blocks.push({
      ...block,
      ...(captions.has(i) ? { type: 'caption' as const } : {}),
      ...(doubtful.has(i) ? { doubt: true } : {}),
      ...extra,
    });
  };

  const taken = order.filter((i) => state[i] === 'in' && !inPosts.has(i));
  const doubtful = thread?.opening ? new Set<number>() : leastSure(atoms, sure, taken);
  // A sentence set as the post's others are is one of them, however short.
  const asOthers = (i: number, body: readonly number[]) => /[.!?…]["'”’)]*$/.test(atoms[i].text) && body.some((k) => k !== i && sure[k] >= SURELY && atoms[k].look === atoms[i].look); // prettier-ignore
  if (thread?.opening)
    for (const i of thread.opening.body)
      if (
        why.has(i) ||
        (!asOthers(i, thread.opening.body) && sure[i] < (isProse(atoms[i]) ? NONE_OF_A_POST : SURELY_NOT))
      )
        out(i, why.get(i) ?? 'it stands in a post and is none of its words');
      else if (onlyThanks(atoms[i], sure[i])) out(i, THANKS_WHY);
      else add(i);
  else
    for (const i of order)
      if (thread && state[i] === 'in' && onlyThanks(atoms[i], sure[i])) out(i, THANKS_WHY);
      else if (state[i] === 'in' && !inPosts.has(i) && !isTitle(atoms[i], asked.title))
        add(i, entryOf.has(i) ? { entry: entryOf.get(i)! } : {});
  const teller = thread?.opening?.author ?? thread?.teller;
  // Where nobody has a name of their own, the mark of who opened the thread tells whose a post is.
  const names = new Set(posts.flatMap((g) => g.records.map((r) => plainName(r.author ?? ''))));
  const marked = Boolean(thread) && names.size < 2 && posts.some((g) => g.records.some((r) => r.opener));
  for (const record of posts.flatMap((g) => g.records)) {
    if (record === thread?.opening) continue;
    const own = marked ? record.opener : teller !== undefined && sameName(record.author, teller);
    if (!own || !carriesOn(atoms, record)) continue;
    const under = record.day ? `Update, ${dayInWords(record.day)}` : 'Update';
    for (const i of record.body)
      // Among replies all looks like none of the article: there only what is no sentence goes.
      if (why.has(i) || (sure[i] < SURELY_NOT && !/[.!?…]['"”’)]*$/.test(atoms[i].text)))
        out(i, why.get(i) ?? 'it stands in a post and is none of its words');
      else if (onlyThanks(atoms[i], sure[i])) out(i, THANKS_WHY);
      else add(i, { under });
  }
  for (const record of posts.flatMap((g) => g.records)) {
    const body = record.body.filter((i) => !told.has(i));
    if (record === thread?.opening || !body.length) continue;
    const text = body.map((i) => atoms[i].text).join(' ');
    blocks.push({ type: 'reply', text, ...(record.author ? { speaker: record.author } : {}) });
    for (const i of body) told.add(i);
  }
  atoms.forEach((a, i) => {
    if (told.has(i) || isTitle(a, asked.title)) return;
    const reason = why.get(i) ?? (inPosts.has(i) ? 'it stands among the replies and is none' : 'it reads and stands like part of the site'); // prettier-ignore
    const before = places.filter((at) => at < i).length;
    leftOut.push({ text: a.text, why: reason, doubt: !why.has(i) && !inPosts.has(i) && sure[i] >= DOUBT[0], type: a.type, at: before }); // prettier-ignore
  });
  const day = thread?.opening?.day ?? thread?.day;
  return {
    blocks,
    leftOut,
    thread: Boolean(thread) && !thread?.article,
    opened: Boolean(thread),
    ...(teller ? { teller } : {}),
    ...(day ? { day } : {}),
  };
}

/** The day of a post as it can be a heading: one in digits alone is written out, unless its day might be its month. */
function dayInWords(day: string): string {
  const said = DAY.exec(day)?.[0] ?? day.slice(0, 10);
  const either = /^(?:0?\d|1[0-2])\D(?:0?\d|1[0-2])\D/.test(said);
  const iso = /\p{L}/u.test(said) || either ? undefined : isoDate(said);
  return iso?.length === 10 ? WRITTEN_DAY.format(new Date(`${iso}T00:00:00Z`)) : said;
}
const WRITTEN_DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' }); // prettier-ignore

/** Where the pieces part best into two sorts by how sure they are, by words (Otsu, IEEE Trans. Syst. Man Cybern. 9(1), 1979). */
function partition(atoms: readonly Atom[], sure: readonly number[]): number {
  const points = sure
    .map((s, i) => ({ x: Math.log((s + 1e-3) / (1 - s + 1e-3)), s, w: wordsOf(atoms[i].text).length }))
    .sort((a, b) => a.x - b.x);
  const all = points.reduce((n, p) => n + p.w, 0);
  const sum = points.reduce((n, p) => n + p.w * p.x, 0);
  let [w, below] = [0, 0];
  let best = { between: -1, at: IN };
  for (let i = 0; i + 1 < points.length; i++) {
    w += points[i].w;
    below += points[i].w * points[i].x;
    if (points[i + 1].s === points[i].s || w === 0 || w === all) continue;
    const between = w * (all - w) * (below / w - (sum - below) / (all - w)) ** 2;
    if (between > best.between) best = { between, at: (points[i].s + points[i + 1].s) / 2 };
  }
  return Math.min(best.at, IN);
}

/** What is least sure of all that is taken, at most so much of its words: on a page where all is doubtful, doubt says nothing. */
function leastSure(atoms: readonly Atom[], sure: readonly number[], taken: readonly number[]): Set<number> {
  let left = wordCount(atoms, taken) * MOST_DOUBT;
  const out = new Set<number>();
  for (const i of [...taken].filter((k) => sure[k] < DOUBT[1]).sort((a, b) => sure[a] - sure[b])) {
    left -= wordsOf(atoms[i].text).length;
    if (left < 0) break;
    out.add(i);
  }
  return out;
}

const asTyped = (atoms: readonly Atom[], title: string): PageReading => ({
  blocks: atoms.flatMap((a) =>
    isTitle(a, title) && a.type === 'heading' ? [] : [asBlock(a, a.type, a.text)],
  ),
  leftOut: [],
  thread: false,
  opened: false,
});

const asBlock = (a: Atom, type: RawBlock['type'], text: string): RawBlock => ({
  type,
  text,
  ...(a.step && type === 'item' ? { step: a.step } : {}),
  ...(a.within && type === 'item' ? { within: a.within } : {}),
  ...(a.heads ? { heads: [...a.heads] } : {}),
});

const wordCount = (atoms: readonly Atom[], list: readonly number[]) => list.reduce((n, i) => n + wordsOf(atoms[i].text).length, 0); // prettier-ignore
const plainName = (name: string) => name.toLowerCase().replace(/^(?:u\/|@)/, '').replace(/[^\p{L}\p{N}]/gu, ''); // prettier-ignore
const sameName = (a: string | undefined, b: string) => a !== undefined && plainName(a) === plainName(b) && plainName(b).length > 1; // prettier-ignore

/** What its form alone tells: buttons, what is repeated all over the page, what only says when. */
function leaveOutByForm(
  atoms: readonly Atom[],
  sure: readonly number[],
  title: string,
  out: (i: number, why: string) => void,
): void {
  const counts = new Map<string, number>();
  const alike = new Map<string, number>();
  // Numbers alone (years in a list) are each their own.
  const keys = atoms.map((a) => (/\p{L}/u.test(a.text) ? hashOf(a.text) : a.text));
  atoms.forEach((a, i) => {
    counts.set(keys[i], (counts.get(keys[i]) ?? 0) + 1);
    alike.set(`${a.look} ${keys[i]}`, (alike.get(`${a.look} ${keys[i]}`) ?? 0) + 1);
  });
  const all = atoms.reduce((n, a) => n + a.text.length, 0);
  const inCode = (a: Atom) => a.tag === 'PRE' || a.above.includes('PRE');
  const code = atoms.reduce((n, a) => n + (inCode(a) ? a.text.length : 0), 0) < all * 0.5;
  atoms.forEach((a, i) => {
    if (code && inCode(a)) out(i, 'it is set as code');
    else if (/^(?:BUTTON|LABEL|LEGEND)$/.test(a.tag)) out(i, 'it is a button or a field');
    else if (a.type !== 'row' && counts.get(keys[i])! >= 3 && wordsOf(a.text).length < 12) out(i, 'it stands on the page again and again'); // prettier-ignore
    else if (a.type === 'paragraph' && a.tag && alike.get(`${a.look} ${keys[i]}`)! >= 2 && wordsOf(a.text).length <= 3 && !/[.!?]$/.test(a.text)) out(i, 'it is a label'); // prettier-ignore
    else if (a.linked > a.text.length * 0.95 && a.type !== 'heading' && a.type !== 'row' && !/[.!?]["'”’]?$/.test(a.text.replace(/\.{3}$/, ''))) out(i, 'it leads to another page'); // prettier-ignore
    else if (a.type === 'paragraph' && isStamp(a.text) && wordsOf(a.text).length <= 12 && !/[.!?]$/.test(a.text)) out(i, 'it says when'); // prettier-ignore
    else if (a.type === 'paragraph' && RIGHTS.test(a.text) && wordsOf(a.text).length < 40 && !withCredit(a)) out(i, 'it says whose the page is'); // prettier-ignore
    else if (a.type === 'paragraph' && (allLabels(a) || isLabelRow(a.text))) out(i, 'it is a row of labels');
    else if (a.type === 'paragraph' && HATNOTE.test(a.text) && wordsOf(a.text).length < 40) out(i, 'it leads to another page'); // prettier-ignore
    else if (a.type === 'paragraph' && isHeadRow(a.text)) out(i, 'it says who wrote it and when');
    else if (a.type === 'paragraph' && a.tag && /^[[(]?\d{1,3}[\])]\s/.test(a.text) && sure[i] < SURELY) out(i, 'it is a note'); // prettier-ignore
    else if ((a.type === 'paragraph' || a.type === 'quote') && sure[i] < SURELY && wordsOf(a.text).length <= LONGEST_LINE && (isFurnitureLine(a.text) || (sure[i] < IN && isFurnitureLine(a.text.split(/(?<=[.?!])\s+/).at(-1)!)))) out(i, 'it reads like a line of the site'); // prettier-ignore
    else if (a.type === 'paragraph' && /^\[[^[\]]+\]$/.test(a.text) && sure[i] < SURELY) out(i, 'it is a note');
    else if (SUMS_UP.test(a.text)) out(i, 'it sums up what is told');
    else if (isCode(a.text)) out(i, 'it is code, not words');
    else if (a.type === 'quote' && /^[–—-]\s?\p{Lu}/u.test(a.text) && wordsOf(a.text).length <= 12) out(i, WHOSE_WORDS); // prettier-ignore
  });
  for (const i of mailHeads(atoms).flat()) out(i, 'it is the head of a letter');
  fieldsOfPage(atoms, out);
  fromElsewhere(atoms, out);
  boxesWithButtons(atoms, sure, out);
  behindTheEnd(atoms, sure, out);
  boxOverText(atoms, sure, out);
  overAbstract(atoms, sure, out);
  namesOfQuotations(atoms, out);
  greetings(atoms, title, out);
  advertised(atoms, out);
  underApparatus(atoms, sure, out);
}

/** Words of a line of the site between paragraphs, at most. */
const LONGEST_LINE = 25;
/** "Too long; didn't read": a post in one line, for those who won't hear it (common practice, no published source). */
const SUMS_UP = /^\W*tl;?\s?dr\b/i;
/** What encyclopedias say above an entry to those who looked for another (hatnotes; common practice, no published source). */
const HATNOTE =
  /^(?:this (?:article|entry|page|section) (?:is|describes|deals with)\b[^.]{2,80}\.\s+for\b.{2,80}\bsee\b|for (?:other|the|an?)\b[^.]{2,60}, see\b|not to be confused with\b|[^.]{2,60}\bredirects? here\b)/i;

/** "Share: Email | Print | Text size A A A": a few words, a sign, a few words, and no sentence. */
function isLabelRow(text: string): boolean {
  const parts = text.length < 160 ? text.split(/\s[|·•]\s/) : [];
  return parts.length >= 3 && !/[.!?…]["'”’]?$/.test(text) && !/\d/.test(text) && parts.every((p) => wordsOf(p).length <= 5); // prettier-ignore
}

/** "By Ann Hale · 3 May 2021 · 14 comments": parts in a row, of which one is a day and one a name. */
function isHeadRow(text: string): boolean {
  const parts = text.length < 240 ? text.split(/\s[·|•]\s/) : [];
  return (
    parts.length >= 3 &&
    parts.some((p) => /\bby\s\p{Lu}/iu.test(p) && wordsOf(p).length <= 9) &&
    parts.some((p) => isStamp(p))
  );
}

/** Rows of a table whose first cells are labels with a colon, an address or an hour among what they hold, are what the site keeps about the page. */
function fieldsOfPage(atoms: readonly Atom[], out: (i: number, why: string) => void): void {
  const tables = new Map<number, number[]>();
  atoms.forEach((a, i) => {
    const table = a.inside[1];
    if (a.type === 'row' && table !== undefined) (tables.get(table) ?? tables.set(table, []).get(table)!).push(i); // prettier-ignore
  });
  for (const rows of tables.values()) {
    const labelled = rows.filter((i) => /^[^;]{2,40}:(?:;|$)/.test(atoms[i].text));
    if (labelled.length < 2 || labelled.length < rows.length * 0.8) continue;
    if (
      rows.some((i) => ADDRESS.test(atoms[i].text) || (DAY.test(atoms[i].text) && CLOCK.test(atoms[i].text)))
    )
      for (const i of rows) out(i, 'it is what the site keeps about the page');
  }
}

/** "— Torrin City Museum (@torrinmuseum) June 8, 2022": whose the post is that is shown here. */
const POSTED_ELSEWHERE = /^[–—-]\s?.{2,60}\s\(@\w+\)/u;
/** A post from another site, shown between paragraphs: its words, then whose it is and when. */
function fromElsewhere(atoms: readonly Atom[], out: (i: number, why: string) => void): void {
  atoms.forEach((a, i) => {
    if (!POSTED_ELSEWHERE.test(a.text) || !DAY.test(a.text)) return;
    for (let k = i; k >= 0 && (k === i || (atoms[k].type === 'quote' && atoms[k].inside[1] === a.inside[1])); k--) out(k, 'it is a post from another site'); // prettier-ignore
    if (atoms[i - 1]?.type === 'quote' || !a.tag) out(i - 1, 'it is a post from another site');
  });
}

/** What stands with a button in a small element of its own is an offer of the site ("To get new posts … [Subscribe]"). */
function boxesWithButtons(
  atoms: readonly Atom[],
  sure: readonly number[],
  out: (i: number, why: string) => void,
): void {
  const boxes = new Map<number, number[]>();
  const pressed = new Set<number>();
  const often = new Map<string, number>();
  const key = (a: Atom) => a.text.toLowerCase();
  for (const a of atoms) often.set(key(a), (often.get(key(a)) ?? 0) + 1);
  // A link of a few words that no other box has ("Check price") is pressed as a button is.
  const calls = (a: Atom) => a.type === 'paragraph' && a.linked >= a.text.length * 0.9 && wordsOf(a.text).length <= 4 && often.get(key(a)) === 1; // prettier-ignore
  atoms.forEach((a, i) => {
    const box = a.tag === 'BUTTON' ? a.inside[1] : calls(a) ? a.inside[0] : undefined;
    if (box !== undefined) pressed.add(box);
    if (a.inside[1] !== undefined)
      (boxes.get(a.inside[1]) ?? boxes.set(a.inside[1], []).get(a.inside[1])!).push(i);
  });
  for (const box of pressed) {
    const held = boxes.get(box) ?? [];
    const said = held.filter((i) => isProse(atoms[i]));
    if (said.length === 0 || said.length > 2 || said.some((i) => sure[i] >= SURELY)) continue;
    if (atoms.some((a, i) => sure[i] >= SURELY && isProse(a) && !a.inside.includes(box)))
      for (const i of held) out(i, 'it stands in a box with a button');
  }
}

/** A table of labels and values that stands over the whole text is a box of facts about its subject. */
function boxOverText(
  atoms: readonly Atom[],
  sure: readonly number[],
  out: (i: number, why: string) => void,
): void {
  const first = atoms.findIndex((a, i) => isProse(a) && sure[i] >= IN);
  const rows = atoms.map((_, i) => i).filter((i) => i < first && atoms[i].type === 'row');
  const pairs = rows.filter((i) => /^[^;]{2,40};[^;]+$/.test(atoms[i].text));
  if (pairs.length >= 2 && pairs.length === rows.length) for (const i of rows) out(i, 'it is a box of facts beside the text'); // prettier-ignore
}

/** Between the title of a paper and its abstract stand its authors and where they work. */
function overAbstract(
  atoms: readonly Atom[],
  sure: readonly number[],
  out: (i: number, why: string) => void,
): void {
  const from = atoms.findIndex((a) => a.tag === 'H1');
  const to = atoms.findIndex((a, i) => i > from && /^H[1-6]$/.test(a.tag) && PART.test(a.text));
  if (from < 0 || to < 0 || !/^(?:abstract|summary)$/i.test(atoms[to].text)) return;
  for (let i = from + 1; i < to; i++) {
    if (atoms[i].type !== 'item' || sure[i] >= SURELY) continue;
    // Half of its words at least are names.
    const long = wordsOf(atoms[i].text).filter((w) => w.length > 3);
    if (long.filter((w) => /^\p{Lu}/u.test(w)).length >= long.length / 2) out(i, 'it says who wrote it and where they work'); // prettier-ignore
  }
}

/** The last row of a quotation set apart, no sentence itself, says whose words it is. */
function namesOfQuotations(atoms: readonly Atom[], out: (i: number, why: string) => void): void {
  atoms.forEach((a, i) => {
    const over = atoms[i - 1];
    if (a.type !== 'quote' || over?.type !== 'quote' || atoms[i + 1]?.type === 'quote') return;
    const box = [a.tag, ...a.above].indexOf('BLOCKQUOTE');
    if (box < 0 || !over.inside.includes(a.inside[box])) return;
    if (a.look !== over.look && wordsOf(a.text).length <= 12 && /^[–—-]?\s?\p{Lu}/u.test(a.text) && !/[.!?…]["'”’]?$/.test(a.text)) out(i, WHOSE_WORDS); // prettier-ignore
  });
}

/** What a press release or a wire story ends on; notes and addresses of those who sent it follow (common practice, no published source). */
const END_MARK = /^\W*(?:ends?|end of (?:release|story|text)|30)\W*$/i;
function behindTheEnd(
  atoms: readonly Atom[],
  sure: readonly number[],
  out: (i: number, why: string) => void,
): void {
  const end = atoms.findIndex(
    (a) => END_MARK.test(a.text) && (/^\W|\W$/.test(a.text) || /^ENDS?$/.test(a.text)),
  );
  const told = (list: readonly number[]) => wordCount(atoms, list.filter((i) => sure[i] >= IN)); // prettier-ignore
  const all = atoms.map((_, i) => i);
  if (end < 0 || told(all.slice(0, end)) < Math.max(60, told(all.slice(end)))) return;
  for (const i of all.slice(end)) out(i, 'it stands behind the end of the piece');
}

const GREETS =
  /^(?:good )?(?:morning|afternoon|evening|hello|hi|hey|dear|greetings|welcome(?: back)?|happy \p{L}+day)\b[^.?]{0,40}[,!.]?$/iu;
const SIGNS_OFF =
  /^(?:[–—-]+\s?|(?:best|love|yours|cheers|until|warmly|thanks|regards)\b[^.!?]{0,30}[,–—-]\s*)?\p{Lu}[\p{L}.'’-]*(?:\s(?:(?:and|&)\s)?\p{Lu}[\p{L}.'’-]*){0,3}$/u;
/** More paragraphs than these between a greeting and a name are the letter itself. */
const LONGEST_GREETING = 5;
/** The editor's words before the first item of a newsletter: from the greeting to the name under it, where headed items follow. */
function greetings(atoms: readonly Atom[], title: string, out: (i: number, why: string) => void): void {
  const from = atoms.findIndex(
    (a) => a.type !== 'heading' && GREETS.test(a.text) && wordsOf(a.text).length <= 7,
  );
  if (from < 0) return;
  const heads = atoms.map((_, i) => i).filter((i) => /^H[1-4]$/.test(atoms[i].tag) && i > from && atoms[i + 1] && isProse(atoms[i + 1])); // prettier-ignore
  const named = atoms.findIndex((a, i) => i > from && i <= from + LONGEST_GREETING && wordsOf(a.text).length <= 6 && SIGNS_OFF.test(a.text)); // prettier-ignore
  const ruled = atoms.findIndex((a, i) => i > from && i <= from + LONGEST_GREETING && a.ruled);
  const all = (part: readonly Atom[]) => part.filter(isProse).reduce((n, a) => n + wordsOf(a.text).length, 0);
  // A rule parts it from what is told.
  const apart = ruled > 0 && all(atoms.slice(ruled)) > all(atoms.slice(from, ruled)) * 2;
  // Without markup the title may be the first row that is set as one.
  const called = hashOf(title);
  const titled = atoms.findIndex((a, i) => i > from && !a.tag && hashOf(a.text) === called && isProse(atoms[i + 1] ?? a)); // prettier-ignore
  const to = titled > 0 ? titled - 1 : apart ? ruled - 1 : heads.length < 2 || heads[0] < named ? -1 : named;
  if (to < 0) return;
  for (let i = from; i <= to; i++) out(i, 'it greets the readers of a letter');
}

/** How a text without markup says that somebody pays for what comes next (common practice, no published source). */
const PAID =
  /^(?:advert(?:isement)?s?|ad|sponsored(?: (?:content|post|message))?|sponsor|our sponsors?|promoted|(?:a )?(?:message|word) from (?:our )?(?:sponsors?|partners?|friends)(?: at .{2,40})?|(?:partner|sponsor(?:ed)?) message|paid (?:post|content))[:.]?$/i;
/** Rows right below it that no blank line parts from it are what is paid for; behind a blank line the article may go on. */
function advertised(atoms: readonly Atom[], out: (i: number, why: string) => void): void {
  const WHY = 'it is an advertisement';
  atoms.forEach((a, i) => {
    if (a.tag || !PAID.test(a.text)) return;
    out(i, WHY);
    let k = i + 1;
    while (k < atoms.length && k <= i + 4 && !atoms[k].gap) out(k++, WHY);
  });
}

/** A sentence that is set apart once more stands in the text already. */
function saidTwice(atoms: readonly Atom[], out: (i: number, why: string) => void): void {
  const keys = atoms.map((a) => hashOf(a.text));
  const long = keys.map((_, i) => i).filter((i) => isProse(atoms[i]) && keys[i].length > 60);
  atoms.forEach((a, i) => {
    const words = wordsOf(a.text).length;
    // A quotation may be short; other words so few are said twice by chance.
    const quoted = a.type === 'quote' && /^["“‘'].*["”’']\.?$/u.test(a.text);
    if (
      words < (quoted ? 3 : 6) ||
      words > 40 ||
      a.type === 'heading' ||
      a.type === 'row' ||
      a.type === 'item'
    )
      return;
    // Set as the other it is a paragraph of its own, whatever it says.
    const said = (k: number) => keys[k].length > keys[i].length * 1.2 && (!a.tag || a.look !== atoms[k].look);
    if (long.some((k) => said(k) && keys[k].includes(keys[i])))
      return out(i, 'it repeats a sentence of the text');
    // A quotation set apart may leave out who says it between its sentences, and words of it.
    const parts = /^["“‘']/.test(a.text) ? a.text.split(/(?<=[.!?])\s+/).map(hashOf) : [];
    if (parts.length > 1 && long.some((k) => said(k) && parts.every((p) => p.length > 8 && keys[k].includes(p)))) out(i, 'it repeats a sentence of the text'); // prettier-ignore
    // A pronoun may stand where the sentence had none.
    const rest = quoted ? a.text.replace(/^\P{L}*\p{L}+\s/u, '') : '';
    const key = wordsOf(rest).length >= 5 ? hashOf(rest) : '';
    if (key && long.some((k) => said(k) && keys[k].includes(key))) return out(i, 'it repeats a sentence of the text'); // prettier-ignore
    if (parts.length > 0 && words >= CONDENSED && long.some((k) => said(k) && hasWordsOf(atoms[k].text, a.text))) out(i, 'it repeats a sentence of the text'); // prettier-ignore
  });
}

/** So many words, each of which stands in one paragraph of the text, don't by chance. */
const CONDENSED = 10;
const hasWordsOf = (text: string, quoted: string) => {
  const own = new Set(wordsOf(text.toLowerCase()));
  return wordsOf(quoted.toLowerCase()).every((w) => own.has(w));
};

/** More words than these tell something besides the thanks. */
const LONGEST_THANKS = 20;
const THANKS = /\bthank(?:s|\syou)\b/i;
const THANKS_WHY = 'it thanks those who replied';
/** A paragraph of a post that thanks its readers and, as it reads, tells nothing. */
const onlyThanks = (a: Atom, sure: number) => sure < SURELY && THANKS.test(a.text) && !/\bthanks to\b/i.test(a.text) && wordsOf(a.text).length <= LONGEST_THANKS && !/["“”]/.test(a.text); // prettier-ignore

/** So many of a run's rows must be headings of the page. */
const HEADINGS_OF_RUN = 0.6;
/** Rows in a run, most of which are the page's own headings further down, are its contents. */
function listsHeadings(atoms: readonly Atom[], out: (i: number, why: string) => void): void {
  const bare = (a: Atom) => hashOf(a.text.replace(/^\s*(?:\d+(?:\.\d+)*|[IVX]+|[a-z])[.)]?\s+/, ''));
  const heads = new Map<string, number>();
  atoms.forEach((a, i) => {
    if (/^H[1-6]$/.test(a.tag) || (!a.tag && headingLike(atoms, i))) heads.set(bare(a), i);
  });
  const isRow = (a: Atom) => a.type !== 'heading' && wordsOf(a.text).length <= 12 && !/[.!?]$/.test(a.text);
  for (let i = 0; i < atoms.length; i++) {
    let to = i;
    while (to < atoms.length && isRow(atoms[to]) && atoms[to].type === atoms[i].type) to++;
    const run = Array.from({ length: to - i }, (_, k) => i + k);
    const named = run.filter((k) => (heads.get(bare(atoms[k])) ?? -1) >= to);
    if (named.length >= 2 && named.length >= run.length * HEADINGS_OF_RUN)
      for (const k of run) out(k, 'it lists the headings of the page');
    i = Math.max(i, to - 1);
  }
}

/** Few words that begin with the name of who wrote the page say who that is; where the name stands more often, the page is about them. */
function aboutAuthor(atoms: readonly Atom[], author: string, out: (i: number, why: string) => void): void {
  const name = author.toLowerCase();
  const named = atoms.map((_, i) => i).filter((i) => wordsOf(atoms[i].text).length > 8 && atoms[i].text.toLowerCase().includes(name)); // prettier-ignore
  if (name.includes(' ') && named.length <= 2)
    for (const i of named) {
      const { text, type } = atoms[i];
      if (type === 'paragraph' && text.toLowerCase().startsWith(name) && wordsOf(text).length <= 80 && !/^\s*[:“"]/.test(text.slice(name.length))) out(i, 'it is about who wrote this'); // prettier-ignore
    }
}

/** Addresses, or the signs of programs, for a good part of it: scripts and data that a page lets through as text. */
function isCode(text: string): boolean {
  const addresses = text.match(/https?:\/\/\S+/g)?.join('').length ?? 0;
  const signs = text.match(/[{}[\]<>=\\_|]|";|":|'[,\]]/g)?.length ?? 0;
  const sentence = /[.!?]$/.test(text) && wordsOf(text).length >= 12;
  return (
    addresses > text.length * 0.3 || (text.length > 40 && signs > text.length * (sentence ? 0.15 : 0.05))
  );
}

/** What stands under a heading of notes, links or replies, up to the next of its rank; a row that only looks like a heading counts towards the end. */
function underApparatus(
  atoms: readonly Atom[],
  sure: readonly number[],
  out: (i: number, why: string) => void,
): void {
  const WHY = 'it stands under a heading of notes, links or replies';
  const goesOn = (i: number) =>
    atoms[i] !== undefined && (isProse(atoms[i]) || atoms[i].type === 'item') && sure[i] >= SURELY;
  let under = 0;
  let look: string | null = null;
  let box: number | undefined;
  // Names that papers have ("Permissions", "Abbreviations") are headings of other things elsewhere.
  const runsIn = (a: Atom) => a.type !== 'row' && (RUN_IN.test(a.text) || (a.bold > 0 && a.bold < a.text.length && OF_PAPER.test(a.spans?.[0] ?? '') && a.text.startsWith(a.spans![0]))); // prettier-ignore
  const paper = atoms.filter((a) => OF_PAPER.test(a.text) || runsIn(a)).length >= 2;
  const isNamed = (text: string) => APPARATUS.test(text) && (paper || !OF_PAPER.test(text));
  atoms.forEach((a, i) => {
    // What stands under a heading stands in the element that holds the heading and what follows it: a box amid the article ends there.
    if (level(a) <= under || (box !== undefined && !a.inside.includes(box))) under = 0;
    // A row that only has such a name ("Notes:") may stand amid the article, which surely goes on behind it.
    if (
      look !== null &&
      (level(a) < 7 || (goesOn(i) && goesOn(i + 1)) || (a.look === look && headingLike(atoms, i)))
    )
      look = null;
    if (level(a) > 1 && level(a) < 7 && isNamed(a.text)) {
      under = level(a);
      box = a.inside.find((id) => atoms[i + 1]?.inside.includes(id));
    }
    // Without a rank: such a name by itself, set otherwise than what follows.
    else if (level(a) === 7 && i > atoms.length * (paper ? 0.4 : 0.5) && a.type === 'paragraph' && a.linked === 0 && BARE_APPARATUS.test(a.text) && isNamed(a.text) && atoms[i + 1] && (atoms[i + 1].look !== a.look || (!a.tag && (a.gap ?? 0) > 0))) look = a.look; // prettier-ignore
    if (under || look !== null || (paper && runsIn(a))) out(i, WHY);
  });
}

/** A row that counts the comments, or names them alone. */
const COUNTS_COMMENTS =
  /^(?:[(•–—#]\s?)?(?:\d{1,3}(?:[.,]\d+)?k?|one|two|three)\s(?:comments?|replies|responses|reactions)[:)]?$|^(?:comments?|responses|replies|reactions|discussion)\s?[-:(–—·]\s?\d[\d.,]{0,6}k?\)?$/i;
const NAMES_COMMENTS =
  /^(?:(?:all|read|readers?['’]?|your|user|top|latest|recent) )?(?:comments?|replies|responses|reactions|discussion|letters)(?: (?:about|on|to) this \p{Ll}{2,12}| below)?:?$/iu;
const READERS_SAID =
  /^what (?:our |other |the )?(?:readers?|people|others|you) (?:said|say|think|thought|are saying)\b/i;
/** Below a row that names the comments, behind most of the article, stands what readers wrote. */
function underComments(
  atoms: readonly Atom[],
  sure: readonly number[],
  inPosts: ReadonlySet<number>,
  out: (i: number, why: string) => void,
): void {
  const said = atoms.map((_, i) => i).filter((i) => isProse(atoms[i]) && !inPosts.has(i));
  const kept = said.filter((i) => sure[i] >= IN);
  const all = wordCount(atoms, kept);
  const looks = new Set(kept.filter((i) => sure[i] >= SURELY && atoms[i].tag).map((i) => atoms[i].look));
  for (const [i, a] of atoms.entries()) {
    const counted = COUNTS_COMMENTS.test(a.text);
    if (
      (!counted &&
        !NAMES_COMMENTS.test(a.text) &&
        !(READERS_SAID.test(a.text) && wordsOf(a.text).length <= 7)) ||
      a.type === 'row'
    )
      continue;
    const above = wordCount(atoms, kept.filter((k) => k < i)); // prettier-ignore
    const below = said.filter((k) => k > i);
    if (above < ARTICLE_WORDS / 2 || above < all * (counted ? 0.6 : 0.7)) continue;
    // The article may go on behind a bare name, set as before; a heading with a count of them stands over comments.
    const goesOn = below.filter((k) => sure[k] >= SURELY && (!a.tag || looks.has(atoms[k].look)));
    if (goesOn.length > (counted && /^H\d$/.test(a.tag) ? Infinity : counted ? 1 : 0)) continue;
    for (let k = i; k < atoms.length; k++) if (!inPosts.has(k)) out(k, 'it stands under the comments');
    return;
  }
}

/** Names, dates, counts side by side, each set apart, and not a word between them. */
function allLabels(a: Atom): boolean {
  const spans = a.spans ?? [];
  if (spans.length < 2 || /[.!?…]["'”’)]*$/.test(a.text)) return false;
  const letters = (text: string) => text.replace(/[^\p{L}\p{N}]/gu, '').length;
  return spans.reduce((n, s) => n + letters(s), 0) >= letters(a.text) * 0.95;
}

interface Thread {
  opening?: PageRecord;
  teller?: string;
  day?: string;
  /** What looks like its opening is an article over comments. */
  article?: true;
}

/** A page is a thread where nothing of weight stands outside its posts, or where it says so and its teller posts again. */
function threadIn(
  atoms: readonly Atom[],
  sure: readonly number[],
  posts: readonly RecordGroup[],
  asked: PageAsked,
): Thread | null {
  const inside = new Set(posts.flatMap((g) => g.records.flatMap((r) => r.atoms)));
  const question = questionIn(atoms, sure, posts, inside);
  if (question) return question;
  if (!posts.length) return null;
  const posted = postedBy(atoms, inside);
  if (posted) return posted;
  const signed = signedAbove(atoms, sure, posts, inside);
  if (signed) return signed;
  const outside = atoms.map((_, i) => i).filter((i) => !inside.has(i) && sure[i] >= IN && isProse(atoms[i]));
  // A menu with hours in it stands in rows as posts do.
  const words = (r: PageRecord) =>
    wordCount(
      atoms,
      r.body.filter((i) => sure[i] >= SURELY_NOT),
    );
  const opening = posts.flatMap((g) => g.records).find((r) => words(r) >= 20);
  const weight = wordCount(atoms, outside);
  if (opening && weight < Math.max(60, wordCount(atoms, opening.body) * 0.4) && overComments(atoms, opening)) return { opening, article: true }; // prettier-ignore
  if (opening && weight < Math.max(60, wordCount(atoms, opening.body) * 0.4))
    return { opening: opening.author || !asked.author ? opening : { ...opening, author: asked.author } };
  return asked.board ? { ...(asked.author ? { teller: asked.author } : {}) } : null;
}

/** From so many words on a piece over comments may be an article that is signed and dated as they are. */
const ARTICLE_WORDS = 120;
/** Whether what looks like the first post is an article: long, nobody's own story, and the comments begin below it under their name. */
function overComments(atoms: readonly Atom[], opening: PageRecord): boolean {
  const last = opening.body.findLast((i) => isProse(atoms[i])) ?? -1;
  const named = opening.atoms.some((i) => i > last && wordsOf(atoms[i].text).length <= 8 && COMMENTED.test(atoms[i].text)); // prettier-ignore
  return named && wordCount(atoms, opening.body) >= ARTICLE_WORDS && !isOwnStory(atoms, opening.body);
}

/** Somebody's own story over the posts of others, among whom its teller posts again: the name stands by itself beside it. */
function signedAbove(
  atoms: readonly Atom[],
  sure: readonly number[],
  posts: readonly RecordGroup[],
  inside: ReadonlySet<number>,
): { teller: string; day?: string } | null {
  const first = Math.min(...inside);
  const above = atoms.map((_, i) => i).filter((i) => i < first && sure[i] >= IN && isProse(atoms[i]));
  if (!above.length || !isOwnStory(atoms, above)) return null;
  const authors = new Set(posts.flatMap((g) => g.records.flatMap((r) => r.author ?? [])));
  // Beside its beginning or behind its end.
  for (let i = Math.max(0, above[0] - 6); i < first; i++) {
    const a = atoms[i];
    if (isProse(a)) continue;
    const teller = [a.text, ...(a.spans ?? []), nameIn(a.text)].find((name) => name && authors.has(name));
    if (!teller) continue;
    const day = DAY.exec(a.time ?? '')?.[0] ?? DAY.exec(a.text)?.[0];
    return { teller, ...(day ? { day } : {}) };
  }
  return null;
}

/** "Posted by u/tea_urn 3 years ago": by a name as only boards have them, over the replies of others. */
function postedBy(
  atoms: readonly Atom[],
  inside: ReadonlySet<number>,
): { teller: string; day?: string } | null {
  const first = Math.min(...inside);
  for (const a of atoms.slice(0, first)) {
    const name = isStamp(a.text) ? /^(?:posted|submitted|started|asked)\b[^.]{0,40}?\bby\s+(?:u\/|@)?([\p{L}\p{N}_.-]{3,32})/iu.exec(a.text)?.[1] : undefined; // prettier-ignore
    if (!name || !(/[\d_]/.test(name) || /^\p{Ll}/u.test(name))) continue;
    const day = DAY.exec(a.time ?? '')?.[0] ?? DAY.exec(a.text)?.[0];
    return { teller: name, ...(day ? { day } : {}) };
  }
  return null;
}

/** How a row begins that counts the answers. */
const ANSWERS = /^\d+ (?:answers?|solutions?)$/i;
/** A question and its answers: posts say that they answer, or stand under a count of answers; what is above them is asked. */
function questionIn(
  atoms: readonly Atom[],
  sure: readonly number[],
  posts: readonly RecordGroup[],
  inside: ReadonlySet<number>,
): { teller?: string; day?: string } | null {
  const records = posts.flatMap((g) => g.records);
  const answered = records.filter((r) => /^answered\b/i.test(atoms[r.stamp].text));
  const asks = atoms.map((_, i) => i).filter((i) => !inside.has(i) && /^asked\b/i.test(atoms[i].text));
  const stamped = asks.some((i) => isStamp(atoms[i].text));
  const over = (i: number) => records.some((r) => r.atoms.some((k) => k >= i && k <= i + 4));
  const counted = atoms.findIndex((a, i) => ANSWERS.test(a.text) && (stamped || over(i)));
  if (!answered.length && counted < 0) return null;
  const end = counted < 0 ? Math.min(...answered.flatMap((r) => r.atoms)) : counted;
  const above = atoms.map((_, i) => i).filter((i) => i < end && !inside.has(i) && sure[i] >= IN && isProse(atoms[i])); // prettier-ignore
  if (wordCount(atoms, above) < 20) return null;
  const at = asks.find((i) => DAY.test(atoms[i].text));
  const day = at === undefined ? undefined : DAY.exec(atoms[at].text)?.[0];
  const teller = at === undefined ? undefined : nameBeside(atoms, at);
  return { ...(teller ? { teller } : {}), ...(day ? { day } : {}) };
}

const carriesOn = (atoms: readonly Atom[], record: PageRecord) =>
  wordCount(atoms, record.body) >=
  (UPDATE.test(atoms[record.body[0]]?.text ?? '') ? SHORT_UPDATE : LONG_POST);

/** Entries by the clock that hold most of what is told. */
function isLive(atoms: readonly Atom[], group: RecordGroup, state: readonly State[]): boolean {
  const told = atoms.map((_, i) => i).filter((i) => state[i] === 'in');
  const inside = new Set(group.records.flatMap((r) => r.atoms));
  return (
    wordCount(
      atoms,
      told.filter((i) => inside.has(i)),
    ) >
    wordCount(atoms, told) * 0.4
  );
}

/** A live page has its newest entry first; it is told from the oldest on. */
function oldestFirst(atoms: readonly Atom[], live: RecordGroup): number[] {
  const whens = live.records.map((r) => minutesOf(atoms[r.stamp]));
  const falls = whens.filter((w, k) => k > 0 && w < whens[k - 1]).length;
  const all = atoms.map((_, i) => i);
  if (falls < (whens.length - 1) * 0.7) return all;
  const inside = new Set(live.records.flatMap((r) => r.atoms));
  const first = live.records[0].atoms[0];
  return [
    ...all.filter((i) => i < first),
    ...[...live.records].reverse().flatMap((r) => r.atoms),
    ...all.filter((i) => i > first && !inside.has(i)),
  ];
}
/** Which entry each atom of a live page stands in, counted as they are told. */
function entriesOf(live: RecordGroup, order: readonly number[]): Map<number, number> {
  const place = new Map(order.map((i, k) => [i, k]));
  const told = [...live.records].sort((a, b) => place.get(a.stamp)! - place.get(b.stamp)!);
  return new Map(told.flatMap((r, k) => r.atoms.map((i) => [i, k + 1] as const)));
}
function minutesOf(stamp: Atom): number {
  if (stamp.time && !Number.isNaN(Date.parse(stamp.time))) return Date.parse(stamp.time) / 60_000;
  const clock = /(\d{1,2})[:.](\d{2})\s?(pm)?/i.exec(stamp.text);
  return clock
    ? (Number(clock[1]) % 24) * 60 + Number(clock[2]) + (clock[3] && clock[1] !== '12' ? 720 : 0)
    : 0;
}

/** Rows of one table, items of one list, a heading and what stands under it: what belongs together stays or goes together. */
function decideTogether(judgement: Judgement): void {
  const { atoms, sure, state, why, inPosts } = judgement;
  const forced = (i: number) => why.has(i);
  const mean = (list: readonly number[]) => list.reduce((n, i) => n + sure[i], 0) / list.length;
  const near = (from: number, step: 1 | -1) => {
    for (let i = from + step, n = 0; i >= 0 && i < atoms.length && n < 3; i += step, n++)
      if (state[i] === 'in' && isProse(atoms[i])) return true;
    return false;
  };
  setAlike(judgement);
  // What a guide needs stands in a list under a heading of its own, before the steps.
  const steps = atoms.map((_, i) => i).filter((i) => atoms[i].step && sure[i] >= IN);
  // Sentences in a list under a heading that stands among the article's paragraphs.
  const headed = (list: readonly number[]) => {
    const over = atoms[list[0] - 1];
    return over !== undefined && /^H[2-6]$/.test(over.tag) && sure[list[0] - 1] >= IN && !over.linked && list.every((i) => isProse(atoms[i]) || /[.!?]["'”’)]*$/.test(atoms[i].text)) && atoms.some((a, i) => i < list[0] && state[i] === 'in' && isProse(a) && a.inside[1] !== undefined && over.inside.includes(a.inside[1])); // prettier-ignore
  };
  const needed = (list: readonly number[]) => steps.length >= 3 && list.at(-1)! < steps[0] && list[0] > 0 && headingLike(atoms, list[0] - 1) && !atoms[list[0]].step; // prettier-ignore
  for (const list of together(atoms)) {
    const row = atoms[list[0]].type === 'row';
    // A list of paragraphs is a page laid out as a list: each is looked at by itself.
    const numbered = list.some((i) => atoms[i].step);
    if (!row && !numbered && list.filter((i) => isProse(atoms[i])).length >= 3) continue;
    const amid = list.length > 2 && near(list[0], -1) && near(list.at(-1)!, 1);
    // What happened in which year.
    const dated = amid && list.every((i) => !atoms[i].linked && /^(?:in )?(?:\d{1,2} )?(?:\p{L}+ )?(?:1\d|20)\d\d\s?[:–—,-]\s/iu.test(atoms[i].text)); // prettier-ignore
    const keep =
      mean(list) >= (row ? 0.3 : dated ? 0.03 : amid ? 0.25 : needed(list) || headed(list) ? 0.12 : 0.45) ||
      (row && amid);
    for (const i of list) {
      if (forced(i) || inPosts.has(i)) continue;
      if (keep && (row || amid || numbered || sure[i] >= 0.1)) state[i] = 'in';
      else if (!keep) state[i] = 'out';
    }
  }
  // A step within a step goes with it, and so does what is said under one without a number.
  atoms.forEach((a, i) => {
    if (
      (a.within ?? isUnderStep(atoms, i)) &&
      i > 0 &&
      !forced(i) &&
      !inPosts.has(i) &&
      atoms[i - 1].type === 'item'
    )
      state[i] = state[i - 1];
  });
  besideArticle(judgement);
  standfirst(judgement);
  underPictures(judgement);
  quotedAmid(judgement);
  atoms.forEach((_, i) => {
    if (!forced(i) && !inPosts.has(i) && sure[i] >= 0.05 && withCredit(atoms[i])) state[i] = 'in';
  });
  const heading = headingLooks(atoms, state);
  // A heading is kept for what stands under it.
  for (let i = 0; i < atoms.length; i++) {
    if (!headingLike(atoms, i) || forced(i) || inPosts.has(i)) continue;
    let next = i + 1;
    let passed = 0;
    while (next < atoms.length && state[next] !== 'in' && passed < 4 && !/^H[1-6]$/.test(atoms[next].tag)) {
      next++;
      passed++;
    }
    const stands = next < atoms.length && state[next] === 'in' && !headingLike(atoms, next);
    const tagged = /^H[2-6]$/.test(atoms[i].tag);
    // Over what surely is the article's, in one element with it.
    const over = tagged && next === i + 1 && stands && sure[next] >= SURELY && !atoms[i].linked && atoms[i].inside.slice(1, 2).some((id) => atoms[next].inside.includes(id)); // prettier-ignore
    const sub = next < atoms.length && headingLike(atoms, next) && level(atoms[next]) > level(atoms[i]);
    if (stands && PART.test(atoms[i].text)) state[i] = 'in';
    else if (stands || sub) {
      const set = next === i + 1 && setAmong(atoms, state, i);
      // Without tags: in its own row over what surely is the article's, and behind some of it, be a caption or an hour between.
      const amid = !atoms[i].tag && next === i + 1 && sure[next] >= SURELY && !isStamp(atoms[i].text) && [1, 2, 3].some((d) => state[i - d] === 'in'); // prettier-ignore
      if (
        sure[i] >= (over ? 0.02 : set || amid ? 0.04 : tagged ? 0.15 : heading.has(atoms[i].look) ? 0.02 : IN)
      )
        state[i] = 'in';
    } else if (state[i] === 'in') {
      state[i] = 'out';
      why.set(i, 'nothing of the article stands under it');
    }
  }
}
/** A few words set by themselves between two of the article's paragraphs, beside them in their element, are a heading of it. */
function setAmong(atoms: readonly Atom[], state: readonly State[], i: number): boolean {
  const [before, a, behind] = [atoms[i - 1], atoms[i], atoms[i + 1]];
  if (!before || !behind || !a.tag || wordsOf(a.text).length < 2 || wordsOf(a.text).length > 8) return false;
  if (a.text === a.text.toUpperCase() || a.linked || isStamp(a.text)) return false;
  const beside = before.inside[1] !== undefined && before.inside[1] === a.inside[1] && a.inside[1] === behind.inside[1]; // prettier-ignore
  return (
    beside &&
    before.look === behind.look &&
    before.look !== a.look &&
    state[i - 1] === 'in' &&
    isProse(before)
  );
}
/** Looks without a heading's tag that stand over the article again and again and seldom elsewhere. */
function headingLooks(atoms: readonly Atom[], state: readonly State[]): ReadonlySet<string> {
  const looks = new Map<string, { all: number; over: number }>();
  atoms.forEach((a, i) => {
    if (!a.tag || /^H[1-6]$/.test(a.tag) || !headingLike(atoms, i)) return;
    const l = looks.get(a.look) ?? { all: 0, over: 0 };
    l.all++;
    l.over += Number(atoms[i + 1] !== undefined && state[i + 1] === 'in');
    looks.set(a.look, l);
  });
  const bold = (look: string) => /^(?:B|STRONG|U|DT)\b/.test(look);
  return new Set(
    [...looks]
      .filter(([look, l]) => l.over >= (bold(look) ? 2 : 3) && l.over >= l.all * 0.5)
      .map(([look]) => look),
  );
}
const level = (a: Atom) => (/^H[1-6]$/.test(a.tag) ? Number(a.tag[1]) : 7);

/** What somebody says, or a short sentence between two long ones, is the article's where it is set like its paragraphs: it has little else to tell it by. */
function setAlike({ atoms, sure, state, why, inPosts }: Judgement): void {
  const looks = new Map<string, { all: number; kept: number; atoms: number }>();
  atoms.forEach((a, i) => {
    if (!isProse(a)) return;
    const l = looks.get(a.look) ?? { all: 0, kept: 0, atoms: 0 };
    l.all += a.text.length;
    l.kept += state[i] === 'in' ? a.text.length : 0;
    l.atoms++;
    looks.set(a.look, l);
  });
  atoms.forEach((a, i) => {
    const l = looks.get(a.look);
    if (!l || l.atoms < 5 || l.kept < l.all * 0.8 || why.has(i) || inPosts.has(i) || state[i] === 'in')
      return;
    const beside = (k: number) => atoms[k]?.look === a.look && sure[k] >= SURELY;
    const amid = beside(i - 1) && beside(i + 1) && /[.!?…]["'”’)]*$/.test(a.text);
    const said = /["“‘][^"“”‘’]{3,}[,.!?]["”’]/.test(a.text);
    if (sure[i] >= (said ? 0.05 : amid ? 0.1 : 0.3)) state[i] = 'in';
  });
}

/** A first or last paragraph has the site on one side: sentences that may be the article's, right beside its own, are. Those that speak to the reader are not, where the article never does. */
function besideArticle({ atoms, sure, state, why, inPosts }: Judgement): void {
  const kept = state.map((s, i) => s === 'in' && isProse(atoms[i]));
  const speaks = (list: readonly Atom[]) => list.filter((a) => TO_READER.test(a.text)).length;
  const article = atoms.filter((_, i) => kept[i]);
  const addressed = speaks(article) > article.length * 0.1;
  atoms.forEach((a, i) => {
    if (state[i] === 'in' || why.has(i) || inPosts.has(i) || sure[i] < MAY_BE) return;
    if (!/[.!?…]["'”’)]*$/.test(a.text) || wordsOf(a.text).length < 8 || isFurnitureLine(a.text)) return;
    if (!addressed && TO_READER.test(a.text)) return;
    if ([-3, -2, -1, 1, 2, 3].some((k) => kept[i + k])) state[i] = 'in';
  });
}

/** Whether an item stands in a list within a numbered step. */
function isUnderStep(atoms: readonly Atom[], i: number): boolean {
  const { type, linked, inside } = atoms[i];
  if (type !== 'item' || linked || inside.length < 3) return false;
  let outer = i - 1;
  while (atoms[outer]?.type === 'item' && atoms[outer].inside[1] === inside[1]) outer--;
  return atoms[outer]?.step !== undefined && inside.slice(2).includes(atoms[outer].inside[1]);
}

/** Runs of rows of one table, of items of one list, of short rows set alike in one element. */
function together(atoms: readonly Atom[]): number[][] {
  const out: number[][] = [];
  let key: string | undefined;
  /** Lists that the last item stands in, by their key: one goes on behind a list within it. */
  let open = new Map<string, number[]>();
  atoms.forEach((a, i) => {
    const own =
      a.type === 'row'
        ? `r${a.inside[1] ?? ''}`
        : (a.type === 'item' && a.tag === 'LI') ||
            (a.tag && a.type === 'paragraph' && !isProse(a) && a.tag !== 'P')
          ? `i${a.inside[1] ?? ''} ${a.type === 'item' ? '' : a.look.split('>').at(-3)}`
          : undefined;
    const isItem = own !== undefined && a.type === 'item';
    if (!isItem) open = new Map();
    if (own !== undefined && own === key && !isItem) out.at(-1)!.push(i);
    else if (own !== undefined && open.has(own)) open.get(own)!.push(i);
    else if (own !== undefined) {
      const list = [i];
      out.push(list);
      // Of another list only what this one stands in stays open.
      if (isItem) open = new Map([...open].filter(([k]) => a.inside.slice(2).some((id) => k === `i${id} `)).concat([[own, list]])); // prettier-ignore
    }
    key = own;
  });
  // A list of one sentence is one.
  return out.filter(
    (l) => l.length > 1 || (atoms[l[0]].tag === 'LI' && /[.!?]["'”’)]*$/.test(atoms[l[0]].text)),
  );
}

/** A sentence between the title and the text is the standfirst, however it is marked up. */
function standfirst({ atoms, state, why, inPosts, title }: Judgement): void {
  const head = atoms.findIndex(
    (a) => a.tag === 'H1' || ((!a.tag || a.type === 'heading') && isTitle(a, title)),
  );
  if (head < 0) return;
  for (let i = head + 1; i < Math.min(atoms.length, head + 4); i++) {
    const a = atoms[i];
    if (state[i] === 'in') return;
    const words = wordsOf(a.text).length;
    const overByline = i === head + 1 && words >= 3 && saysWho(atoms, i + 1);
    if (
      ((words >= 8 && /[.?!]["'”’]?$/.test(a.text)) || overByline) &&
      words <= 70 &&
      !isStamp(a.text) &&
      !isFurnitureLine(a.text) &&
      a.linked < a.text.length * 0.2 &&
      !inPosts.has(i) &&
      !why.has(i) &&
      !/^H\d$/.test(a.tag)
    ) {
      // prettier-ignore
      state[i] = 'in';
      return;
    }
  }
}

/** A byline or a day, or a name with the day under it. */
const saysWho = (atoms: readonly Atom[], i: number) =>
  [i, i + 1].some((k) => atoms[k] && isStamp(atoms[k].text)) || /^by\s\p{Lu}/iu.test(atoms[i]?.text ?? '');

/** Fewer words right under the title are a heading; more say what the piece is about. */
const DECK_WORDS = 7;
/** A second heading right under the title, set as no other one, is the standfirst. */
function withDeck(atoms: readonly Atom[]): readonly Atom[] {
  const at = atoms.findIndex((a) => a.tag === 'H1') + 1;
  const deck = atoms[at];
  if (!at || !deck || !/^H[2-6]$/.test(deck.tag)) return atoms;
  // Who wrote it and when stands between a standfirst and the text, and under no heading.
  const dated = saysWho(atoms, at + 1) && wordsOf(deck.text).length >= 3;
  if (wordsOf(deck.text).length < DECK_WORDS && !dated) return atoms;
  if (atoms.some((a, i) => i !== at && a.look === deck.look) || (atoms[at + 1] && isProse(atoms[at + 1]) && atoms.filter((a) => a.tag === deck.tag).length > 1)) return atoms; // prettier-ignore
  return atoms.map((a, i) => (i === at ? { ...a, tag: 'P', type: 'paragraph' as const } : a));
}

/** A quotation that is set apart between two of the article's paragraphs, beside them, is the article's. */
function quotedAmid({ atoms, sure, state, why, inPosts }: Judgement): void {
  atoms.forEach((a, i) => {
    if (a.type !== 'quote' || state[i] === 'in' || why.has(i) || inPosts.has(i) || a.linked || sure[i] < UNDER_PICTURE) return; // prettier-ignore
    // Whose words they are may stand between.
    const named = why.get(i + 1) === WHOSE_WORDS;
    const after = named ? i + 2 : i + 1;
    const [before, behind] = [atoms[i - 1], atoms[after]];
    const told = (k: number) => state[k] === 'in' && isProse(atoms[k]);
    // Side by side in one element, or outside all of them.
    const beside = before && behind && before.inside[1] === behind.inside[1] && (before.inside[1] === undefined ? a.tag !== '' : a.inside.includes(before.inside[1])); // prettier-ignore
    if (beside && told(i - 1) && told(after) && (named || /[.!?…]["'”’)]*$/.test(a.text))) state[i] = 'in';
  });
}

/** From here on what shares an element with a picture amid the article stands under it. */
const UNDER_PICTURE = 0.1;
/** Words beside a picture between the article's paragraphs are said of the picture, and are no part of the telling. */
function underPictures({ atoms, sure, state, why, inPosts, captions }: Judgement): void {
  const told = (i: number) => state[i] === 'in' && isProse(atoms[i]) && !atoms[i].pictured;
  const first = atoms.findIndex((_, i) => told(i));
  const last = atoms.reduce((n, _, i) => (told(i) ? i : n), -1);
  for (let i = 0; i < last; i++) {
    const a = atoms[i];
    const words = wordsOf(a.text).length;
    if (!a.pictured || inPosts.has(i) || why.has(i) || words < 5 || words > 60) continue;
    const called = a.named.slice(0, 2).some((n) => /caption/i.test(n));
    if ((!called && !/[.?!]["'”’)]*$/.test(a.text.replace(CREDIT, '').trim())) || a.linked > a.text.length * 0.2) continue; // prettier-ignore
    // The first picture stands over the text, in the box that holds it.
    if (i < first && !atoms[first].inside.slice(1).some((id) => a.inside.includes(id))) continue;
    if (state[i] === 'out' && sure[i] < (called ? 0.02 : UNDER_PICTURE)) continue;
    state[i] = 'in';
    captions.add(i);
  }
}

/** A sentence with a credit behind it stands under a picture. */
function withCredit(a: Atom): boolean {
  const said = a.text.replace(CREDIT, '').trim();
  return said !== a.text && /[.!?]["'”’]?$/.test(said) && wordsOf(said).length >= 6 && a.text.length < 400 && a.linked < a.text.length * 0.5; // prettier-ignore
}

function headingLike(atoms: readonly Atom[], i: number): boolean {
  const a = atoms[i];
  if (/^H[1-6]$/.test(a.tag)) return true;
  if (a.type !== 'paragraph' || a.text.length > 90 || isFurnitureLine(a.text) || /^[“"].*[”"]\s?[–—-]\s?\p{Lu}/u.test(a.text) || /[.!?:;,"”]$/.test(a.text) || wordsOf(a.text).length > 14) return false; // prettier-ignore
  if (!/^[\p{Lu}\p{N}“‘"']/u.test(a.text) || a.linked > a.text.length * 0.5) return false;
  const next = atoms[i + 1];
  // In text without tags a heading has a blank line under it.
  const apart = a.tag ? next?.look !== a.look : (next?.gap ?? 0) > 0 || PART.test(a.text);
  return next !== undefined && (isProse(next) || next.type === 'item') && apart;
}

const isTitle = (a: Atom, title: string) => {
  const own = hashOf(a.text);
  return own.length > 3 && (own === hashOf(title) || (/^H[1-6]$/.test(a.tag) && hashOf(title).includes(own) && own.length > title.length * 0.45) || (a.tag === 'H1' && own.includes(hashOf(title)))); // prettier-ignore
};

/** "Fig. 1. Barks per van": what is said of a figure, wherever it is set. */
const LEGEND = /^(?:Fig(?:ure)?|Table|Plate|Scheme)\.?\s?\d{1,2}[A-Za-z]?[.:|]\s/;

function blockOf(atoms: readonly Atom[], i: number, title: string): RawBlock | null {
  const a = atoms[i];
  if (isTitle(a, title) && a.type === 'heading') return null;
  const heading = a.type === 'heading' || headingLike(atoms, i);
  const type = heading ? 'heading' : withCredit(a) || LEGEND.test(a.text) ? 'caption' : a.type;
  const text = type === 'caption' || a.above.includes('FIGURE') || CREDIT.test(a.text.slice(-120)) ? a.text.replace(CREDIT, '').trim() : a.text; // prettier-ignore
  if (!/\p{L}|\d/u.test(text)) return null;
  return asBlock(a, type, text);
}
