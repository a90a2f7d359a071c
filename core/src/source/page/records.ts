/**
 * Posts, comments, entries of a live page: pieces that repeat, each with when it was said and mostly by whom. Found by how
 * they repeat, not by what they are called (after Liu, Grossman and Zhai, Mining Data Records in Web Pages, KDD 2003; here
 * a record is what stands around a stamp up to the next of its like).
 */
import { wordsOf, type Atom } from './atom.ts';
import { hashOf, isProse } from './features.ts';
import { AGO, CLOCK, DAY, isStamp, tellsAge, withoutAge, withoutTimes } from './shapes.ts';

export interface PageRecord {
  /** Atoms of it, by number, the stamp and what is said about the teller included. */
  atoms: readonly number[];
  stamp: number;
  author?: string;
  /** Atoms of what is said in it. */
  body: readonly number[];
  /** The day it was said, in the page's own words. */
  day?: string;
  /** It is marked as by who opened the thread. */
  opener?: true;
}

export interface RecordGroup {
  /** `posts` have authors; `entries` are a page's own, by the clock; `cards` lead to other pages. */
  kind: 'posts' | 'entries' | 'cards';
  records: readonly PageRecord[];
}

/** Fewer than this make no row of records. */
const FEWEST = 2;
const QUOTED = /^[>|»]|\bwrote:\s*$|^quote:?$|^originally posted by\b/i;
const SIGNED = /\+signed$/;
const NO_NAME =
  /^(?:(?:back|go|jump|return) to\b.*|reply|quote|share|like|report|edit|delete|link|permalink|follow|says?:?|wrote:?|posted|by|re:?|on|at|in|an?|the|author|message|op|new|top|up|down|member|guest|admin|moderator|unread|answered|asked|edited|commented|joined|registered|active|seen|(?:last )?updated?|published)$/i;

export function recordGroups(atoms: readonly Atom[]): RecordGroup[] {
  const out: RecordGroup[] = [];
  const taken = new Set<number>();
  const keep = (group: RecordGroup) => {
    for (const r of group.records) for (const i of r.atoms) taken.add(i);
    out.push(group);
  };
  const mails = mailPosts(atoms);
  if (mails) keep(mails);
  const labels = stampLabels(atoms);
  const ofMembers = new Set(atoms.filter((_, i) => saysSince(atoms, i)));
  // First short comments that end on their stamp, then posts set alike, then those set nearly alike.
  for (const own of alike(atoms, (a) => (endsOnStamp(a.text) ? a.look : undefined)))
    keep({
      kind: 'posts',
      records: own.map((i) => ({ atoms: [i], stamp: i, body: [i], ...authorAtEnd(atoms[i]) })),
    });
  for (const own of alike(atoms, (a) => (saidAtOnce(a.text) ? a.look : undefined)))
    keep({
      kind: 'posts',
      records: own.map((i) => ({ atoms: [i], stamp: i, body: [i], author: saidAtOnce(atoms[i].text) })),
    });
  for (const key of [
    (a: Atom) => a.look,
    (a: Atom) => `${a.look.split('>')[0]}>${a.above.slice(0, 2).join('>')}`,
  ])
    for (const stamps of alike(atoms, (a) =>
      stampLike(a) && !ofMembers.has(a) && (a.tag || !CHANGED.test(a.text))
        ? `${key(a)}|${stampShape(a)}|${labels.get(a) ?? ''}|${a.tag ? '' : isSigned(a.text)}`
        : undefined,
    )) {
      const free = stamps.filter((i) => !taken.has(i));
      const group = free.length >= FEWEST ? groupOf(atoms, free, taken) : null;
      if (group) keep(group);
    }
  const signed =
    signedPosts(atoms, taken) ?? (out.some((g) => g.kind === 'posts') ? null : namedLines(atoms));
  if (signed) keep(signed);
  return withoutBadges(withOpeners(atoms, out)).sort((a, b) => a.records[0].stamp - b.records[0].stamp);
}

/** How boards mark whoever opened the thread (common practice, no published source). */
const OPENER = /^[([]?(?:op|s|original poster|(?:thread|topic) (?:starter|author)|author)[)\]]?$/i;
/** Marked so are some of the posts, never all: a label of that name stands in each. */
function withOpeners(atoms: readonly Atom[], groups: readonly RecordGroup[]): RecordGroup[] {
  return groups.map((g) => {
    const own = g.records.map((r) => r.atoms.some((i) => i <= r.stamp + 3 && !r.body.includes(i) && [atoms[i].text, ...(atoms[i].spans ?? [])].some((t) => OPENER.test(t)))); // prettier-ignore
    return g.kind === 'posts' && own.includes(false)
      ? { ...g, records: g.records.map((r, k) => (own[k] ? { ...r, opener: true as const } : r)) }
      : g;
  });
}

/** "moss Moderator" is moss, where moss posts too. */
function withoutBadges(groups: readonly RecordGroup[]): RecordGroup[] {
  const names = new Set(groups.flatMap((g) => g.records.flatMap((r) => r.author ?? [])));
  const bare = (name: string) => {
    const words = name.split(' ');
    return [1, 2].map((n) => words.slice(0, -n).join(' ')).find((n) => n.length > 2 && names.has(n)) ?? name;
  };
  return groups.map((g) => ({
    ...g,
    records: g.records.map((r) => (r.author ? { ...r, author: bare(r.author) } : r)),
  }));
}

/** Fields of a letter's head (RFC 5322, 3.6, RFC 5536, 3.1) as archives and readers of newsgroups show them. */
const MAIL_HEAD =
  /^(?:from|to|cc|date|sent|subject|reply-to|message-id|in-reply-to|references|list-id|newsgroups|organization|lines|path):\s/i;
/** Who a letter is from: "Ann Hale <ann@mill.example>", "ann@mill.example (Ann Hale)", or the address itself (RFC 5322, 3.4). */
function senderIn(row: string): string | undefined {
  const said = row.replace(/^from:\s*/i, '').trim();
  const [, inBrackets] = /^[^\s@]+@\S+\s\(([^)]{2,60})\)/.exec(said) ?? [];
  const [, before] = /^"?([^<"(]{2,60}?)"?\s*(?:<|\(|\[|$)/.exec(said) ?? [];
  return (
    nameLike(inBrackets ?? before?.replace(/\s+(?:at|@)\s.*$/i, '') ?? '') ?? /[\w.+-]+(?=@)/.exec(said)?.[0]
  );
}

/** Heads of letters: two fields or more, one below the other; a sentence may begin with such a word. */
export function mailHeads(atoms: readonly Atom[]): number[][] {
  const out: number[][] = [];
  atoms.forEach((a, i) => {
    if (!MAIL_HEAD.test(a.text)) return;
    if (out.at(-1)?.at(-1) === i - 1) out.at(-1)!.push(i);
    else out.push([i]);
  });
  return out.filter((rows) => rows.length >= 2);
}

/** Letters one under the other, each with a head that says who sent it. */
function mailPosts(atoms: readonly Atom[]): RecordGroup | null {
  const found = mailHeads(atoms).filter((rows) => rows.some((k) => /^from:/i.test(atoms[k].text)));
  const starts = found.map(([first]) => first);
  if (starts.length < FEWEST) return null;
  const inHead = new Set(found.flat());
  const records = starts.map((start, k): PageRecord => {
    const list = Array.from({ length: (starts[k + 1] ?? atoms.length) - start }, (_, n) => start + n);
    const own = list.filter((i) => inHead.has(i)).map((i) => atoms[i].text);
    const author = senderIn(own.find((t) => /^from:/i.test(t))!);
    const day = own.map((t) => DAY.exec(t)?.[0]).find(Boolean);
    const body = bodyOf(
      atoms,
      list.filter((i) => !inHead.has(i)),
      start,
      author,
      () => false,
    );
    return { atoms: list, stamp: start, body, ...(author ? { author } : {}), ...(day ? { day } : {}) };
  });
  return { kind: 'posts', records };
}

/** Fewer than this make no row of comments where nothing says when they were written. */
const FEWEST_SIGNED = 3;
export const COMMENTED = /\b(?:comments?|replies|responses|reactions|opinions|discussion)\b/i;
/** Comments that say who but not when: names set alike, each over words that are set as nothing in the article above is. */
function signedPosts(atoms: readonly Atom[], taken: ReadonlySet<number>): RecordGroup | null {
  const nameOf = (a: Atom) => {
    if (!a.tag || /^H[1-6]$/.test(a.tag) || wordsOf(a.text).length > 6) return undefined;
    return a.spans?.length ? a.spans.map(nameLike).find((s) => s !== undefined) : nameLike(a.text);
  };
  const set = [
    (a: Atom) => a.above.slice(0, 4).join('>') + a.named.slice(1, 3).join('>'),
    (a: Atom) => `${a.tag}>${a.above.slice(0, 2).join('>')}`,
  ];
  for (const labels of set.flatMap((key) =>
    alike(atoms, (a) => (nameOf(a) === undefined ? undefined : key(a))),
  )) {
    const heads = labels.filter((i) => !taken.has(i));
    const names = new Set(heads.map((i) => nameOf(atoms[i])));
    if (heads.length < FEWEST_SIGNED || names.size < FEWEST_SIGNED) continue;
    const within = atoms[heads[0]].inside.find((id) => heads.every((i) => atoms[i].inside.includes(id)));
    const records = heads.map((stamp, k): PageRecord => {
      const end = heads[k + 1] ?? closing(atoms, stamp);
      const list: number[] = [];
      for (let i = stamp; i < end && (within === undefined || atoms[i].inside.includes(within)); i++)
        list.push(i);
      const author = nameOf(atoms[stamp])!;
      return { atoms: list, stamp, author, body: bodyOf(atoms, list, stamp, author, () => false) };
    });
    if (records.some((r) => r.atoms.some((i) => taken.has(i)))) continue;
    const told = records.filter((r) => wordsOf(r.body.map((i) => atoms[i].text).join(' ')).length >= 3);
    if (told.length < records.length * 0.7) continue;
    if (isThread(atoms, records)) return { kind: 'posts', records: withoutArticle(atoms, records) };
    const looks = new Set(
      told.flatMap((r) => r.body.filter((i) => isProse(atoms[i])).map((i) => atoms[i].look)),
    );
    const above = atoms.slice(0, heads[0]).filter(isProse);
    const article = above.filter((a) => !looks.has(a.look)).reduce((n, a) => n + wordsOf(a.text).length, 0);
    if (!looks.size || article < 60 || above.some((a) => looks.has(a.look))) continue;
    const handles = [...names].filter((n) => n && !n.includes(' ')).length;
    const called = atoms.slice(Math.max(0, heads[0] - 15), heads[0]).some((a) => COMMENTED.test(a.text) && wordsOf(a.text).length <= 8); // prettier-ignore
    if (called || handles >= names.size * 0.5) return { kind: 'posts', records };
  }
  return null;
}

/** Words of somebody: a paragraph, or what ends as a sentence does. */
const isSaid = (a: Atom) => isProse(a) || /\p{L}[.!?…]["'”’)]*$/u.test(a.text);
/** Actions under posts are alike but for their counts. */
const unnumbered = (text: string) => text.replace(/\d+/g, '');
/** How often each row stands on the page, whatever numbers are in it. */
function howOften(atoms: readonly Atom[]): (i: number) => number {
  const counts = new Map<string, number>();
  for (const a of atoms) counts.set(unnumbered(a.text), (counts.get(unnumbered(a.text)) ?? 0) + 1);
  return (i) => (atoms[i] ? counts.get(unnumbered(atoms[i].text))! : 0);
}

/** A thread without markup in which nothing says when: a name on a line of its own over each post, other short lines between. */
function namedLines(atoms: readonly Atom[]): RecordGroup | null {
  if (atoms.some((a) => a.tag)) return null;
  const short: number[][] = [];
  atoms.forEach((_, i) => {
    if (isSaid(atoms[i])) return;
    if (short.at(-1)?.at(-1) === i - 1) short.at(-1)!.push(i);
    else short.push([i]);
  });
  const alikeIn = new Map<string, number>();
  const plain = (i: number) => unnumbered(atoms[i].text);
  for (const run of short) for (const text of new Set(run.map(plain))) alikeIn.set(text, (alikeIn.get(text) ?? 0) + 1); // prettier-ignore
  // What stands between most posts is an action, above their names.
  const isAction = (i: number) => alikeIn.get(plain(i))! >= Math.max(3, short.length * 0.7);
  const heads = short.flatMap((run) => {
    const head = run.find((i) => !isAction(i) && wordsOf(atoms[i].text).length <= 4 && nameLike(atoms[i].text)); // prettier-ignore
    return head !== undefined && run.at(-1)! + 1 < atoms.length ? [head] : [];
  });
  if (heads.length < FEWEST_SIGNED || heads.length < short.length * 0.6) return null;
  const records = heads.map((stamp, k): PageRecord => {
    const end = heads[k + 1] ?? closing(atoms, stamp);
    const list = Array.from({ length: end - stamp }, (_, n) => stamp + n);
    const author = nameLike(atoms[stamp].text)!;
    return { atoms: list, stamp, author, body: bodyOf(atoms, list, stamp, author, isAction) };
  });
  return isThread(atoms, records) ? { kind: 'posts', records } : null;
}

/**
 * Whether names over words are the heads of posts, where nothing says when: a glossary has such rows, an interview, a cast.
 * Two of four signs: somebody comes back after another, most names are made up as on boards, each piece ends on the same
 * actions, one quotes another by name.
 */
function isThread(atoms: readonly Atom[], records: readonly PageRecord[]): boolean {
  const names = records.map((r) => r.author!);
  const comesBack = names.some((n, k) => k > 1 && names[k - 1] !== n && names.slice(0, k - 1).includes(n));
  const handles = new Set(names.filter((n) => !/\s/.test(n) && /^\p{Ll}|[\d_]|\p{Ll}\p{Lu}/u.test(n)));
  const same = new Map<string, number>();
  for (const r of records)
    for (const text of new Set(
      r.atoms
        .filter((i) => i !== r.stamp && wordsOf(atoms[i].text).length <= 8)
        .map((i) => unnumbered(atoms[i].text)),
    ))
      // prettier-ignore
      same.set(text, (same.get(text) ?? 0) + 1);
  const actions = [...same.values()].some((n) => n >= Math.max(3, records.length * 0.6));
  const quoted = records.some((r) => r.atoms.some((i) => QUOTED.test(atoms[i].text) && names.some((n) => n !== r.author && atoms[i].text.startsWith(n)))); // prettier-ignore
  return [comesBack, handles.size >= new Set(names).size * 0.5, actions, quoted].filter(Boolean).length >= 2;
}

/** Atoms with the same key, most first; those that have none are left out. */
function alike(atoms: readonly Atom[], key: (atom: Atom) => string | undefined): number[][] {
  const lists = new Map<string, number[]>();
  atoms.forEach((a, i) => {
    const k = key(a);
    if (k === undefined) return;
    const list = lists.get(k);
    if (list) list.push(i);
    else lists.set(k, [i]);
  });
  // Posts have a clock: "Joined: 2 Apr 2004" stands as often as they do and is no head of one.
  const clocked = (list: readonly number[]) => (list.filter((i) => isClocked(atoms[i])).length >= list.length / 2 ? 1 : 0); // prettier-ignore
  return [...lists.values()].filter((l) => l.length >= FEWEST).sort((a, b) => clocked(b) - clocked(a) || b.length - a.length); // prettier-ignore
}

/** "… two weeks ago it still worked. – Ann B. Jan 27, 2023 at 8:15" */
function endsOnStamp(text: string): boolean {
  const end = text.slice(-60);
  return (
    text.length > 40 &&
    /[–—-]\s/.test(end) &&
    DAY.test(end) &&
    /\d\s?(?:[ap]\.?m\.?)?$/i.test(end) &&
    CLOCK.test(end)
  );
}
function authorAtEnd(a: Atom): { author?: string } {
  const name = (a.spans ?? []).map((s) => nameLike(s)).filter((s) => s && a.text.lastIndexOf(s) > a.text.length - 90).at(-1); // prettier-ignore
  return name ? { author: name } : {};
}

/** "L. Tarrant wrote on 18 January: Wonderful news." is somebody's whole comment: who wrote it. */
function saidAtOnce(text: string): string | undefined {
  const [, name, when] = /^([^.!?:]{2,40}?|\p{Lu}\.[^.!?:]{2,40}?)\s(?:wrote|writes|posted|commented|replied)\b([^:]{4,50}|[^:]{2,40}:\d\d[^:]{0,10}):\s[^\s"“‘']/iu.exec(text) ?? []; // prettier-ignore
  return name && (DAY.test(when) || AGO.test(when)) ? nameLike(name) : undefined;
}

/** How a row begins that says who posted something, and when. */
const POSTED = /^(?:posted|asked|answered|started|submitted|written|by)\b/i;
/** "Author:; Pilchard [ Sun Sep 02, 2012 9:41 pm ]": two fields of a table, as versions for printing have them. */
const SIGNED_FIELD = /^(?:author|from|posted by|by):?;\s[^;]{2,80}$/i;
const stampLike = (a: Atom) =>
  (a.type === 'row' ? SIGNED_FIELD.test(a.text) && CLOCK.test(a.text) : true) &&
  (isStamp(a.text) ||
    (a.text.length <= 70 && !!a.spans?.length && isStamp(unnamed(a))) ||
    (!a.tag && POSTED.test(a.text) && DAY.test(a.text) && wordsOf(a.text).length <= 10) ||
    (CLOCK.test(a.text) && !withoutTimes(a.text)) ||
    ageIn(a) ||
    (a.time !== undefined && a.text.length <= 60));
/** What a row says beside the names and counts that are set apart in it. */
const unnamed = (a: Atom) => (a.spans ?? []).reduce((text, s) => (/\d$/.test(s) || withoutTimes(s) !== s ? text : text.replace(s, ' ')), a.text).replace(/\s+/g, ' ').trim(); // prettier-ignore
/** How long ago, in a row of its own or beside a name set apart ("19h hollis"). */
const ageIn = (a: Atom) => tellsAge(a.text) || (a.text.length <= 60 && (a.spans ?? []).some((s) => a.text.endsWith(s) && tellsAge(a.text.slice(0, -s.length).trim()))); // prettier-ignore
/** It says how long ago, or at what o'clock. */
const isClocked = (a: Atom) => CLOCK.test(a.text) || AGO.test(a.text) || ageIn(a) || (a.time ?? '').includes('T'); // prettier-ignore

/** The label before a stamp's time ("Joined: 2 Apr", "answered 31 Jan") where several have it: what is labelled alike is one thing. */
function stampLabels(atoms: readonly Atom[]): Map<Atom, string> {
  const found = atoms.filter(stampLike).map((a) => {
    const [, label, colon] = /^(\p{L}+(?:\s\p{L}+)?)(?!\p{L})(:?)\s*(?=(?:\p{Lu}\p{L}{2,8},?\s)?(?:\d|an?\s|\p{Lu}\p{L}{2,8}\.?\s\d))/u.exec(a.text) ?? []; // prettier-ignore
    // Somebody's name is no label.
    const named = !colon && (a.tag ? (a.spans ?? []).some((t) => t === label && nameLike(t) !== undefined) : !NO_NAME.test(label ?? '')); // prettier-ignore
    return { a, label: named ? undefined : label?.toLowerCase(), colon };
  });
  const counts = new Map<string, number>();
  for (const f of found) if (f.label) counts.set(f.label, (counts.get(f.label) ?? 0) + 1);
  return new Map(found.filter((f) => f.label && counts.get(f.label)! >= (f.colon ? 2 : 3)).map((f) => [f.a, f.label!])); // prettier-ignore
}

/** Since when somebody is a member, or was last seen, in one row with its label or below it. */
const SINCE =
  /^(?:joined|join(?:ed)? date|registered|member since|last (?:seen|active|visit(?:ed)?|activity)|born|birthday)\b:?/i;
const saysSince = (atoms: readonly Atom[], i: number) => SINCE.test(atoms[i].text) || (!atoms[i].tag && i > 0 && SINCE.test(atoms[i - 1].text) && wordsOf(atoms[i - 1].text).length <= 2); // prettier-ignore

/** When a page was changed is said of the page. */
const CHANGED = /^(?:last\s)?(?:updated?|modified|edited|changed|revised|reviewed)\b/i;
/** Without markup, the stamps of posts are told from the page's own by the name in them. */
const isSigned = (text: string) => nameLike(withoutTimes(text).replace(/[,|·•–—-]+/g, ' ').replace(/\s+/g, ' ').trim()) !== undefined; // prettier-ignore

/** What kind of time a stamp tells: so that a line of a table is not taken for the head of a post. */
const stampShape = (a: Atom) => (AGO.test(a.text) || ageIn(a) ? 'ago' : DAY.test(a.text) ? 'day' : 'clock'); // prettier-ignore

function groupOf(
  atoms: readonly Atom[],
  stamps: readonly number[],
  taken: ReadonlySet<number>,
): RecordGroup | null {
  // What is said in the same words again and again is an advertisement with a date, no head of a post.
  const around = (i: number) =>
    [i - 1, i, i + 1].map((k) => `${atoms[k]?.text} ${atoms[k]?.time ?? ''}`).join('|');
  if (new Set(stamps.map(around)).size < stamps.length * 0.5) return null;
  // Two days in a text without markup are two days.
  if (!atoms[stamps[0]].tag && stamps.length < 3 && !stamps.every((i) => isClocked(atoms[i]) && (CLOCK.test(atoms[i].text) || AGO.test(atoms[i].text)))) return null; // prettier-ignore
  if (!atoms[stamps[0]].tag && new Set(stamps.map((i) => stampShape(atoms[i]))).size > 1) return null;
  const among = new Map<number, number>();
  for (const i of stamps) for (const id of atoms[i].inside) among.set(id, (among.get(id) ?? 0) + 1);
  const roots = stamps.map((i) => atoms[i].inside.filter((id) => among.get(id) === 1).at(-1));
  const members = roots.map((root, k) => {
    if (root === undefined) return [stamps[k]];
    const list: number[] = [];
    for (let i = stamps[k]; i >= 0 && atoms[i].inside.includes(root); i--) list.unshift(i);
    for (let i = stamps[k] + 1; i < atoms.length && atoms[i].inside.includes(root); i++) list.push(i);
    return list;
  });
  const thin = members.filter((list, k) => !list.some((i) => i !== stamps[k] && !stampLike(atoms[i]) && wordsOf(atoms[i].text).length >= 5)).length; // prettier-ignore
  const beside = thin > members.length / 2;
  const deeper = answeredWithin(atoms, stamps);
  const records = deeper ?? (beside ? flat(atoms, stamps, among) : members);
  const apart = deeper ? { stamps, lists: deeper } : records && withNested(atoms, stamps, records);
  const group = apart && judged(atoms, apart.stamps, apart.lists.map((list) => list.filter((i) => !taken.has(i)))); // prettier-ignore
  // Rows side by side that nobody signs are a text with dates in it.
  if (!group || (beside && group.kind === 'cards')) return null;
  return group.kind === 'posts' ? { ...group, records: withoutArticle(atoms, group.records) } : group;
}

const FIRST_PERSON = /\b(?:I|I['’](?:m|d|ve|ll)|my|me)\b/g;
/** Whether somebody tells it of themselves, what is quoted in it aside. */
export function isOwnStory(atoms: readonly Atom[], list: readonly number[]): boolean {
  const said = list.map((i) => atoms[i].text).join(' ').replace(/“[^”]*”|"[^"]*"/g, ''); // prettier-ignore
  return (said.match(FIRST_PERSON) ?? []).length >= wordsOf(said).length * 0.01;
}

/** An article over its comments may be signed and dated as they are: nobody's own story, set as nothing below it is. */
function withoutArticle(atoms: readonly Atom[], records: readonly PageRecord[]): readonly PageRecord[] {
  const [first, ...others] = records;
  const set = (i: number) => [atoms[i].tag, ...atoms[i].above.slice(0, 2)].join('>');
  const prose = (r: PageRecord) => r.body.filter((i) => isProse(atoms[i]));
  const below = new Set(others.flatMap(prose).map(set));
  const article = others.length >= FEWEST && prose(first).length > 1 && atoms[first.stamp].tag && below.size > 0 && !prose(first).some((i) => below.has(set(i))) && !isOwnStory(atoms, first.body); // prettier-ignore
  return article ? others : records;
}

/**
 * Posts that hold the posts that answer them, set alike: what holds one is as far above its stamp as with all others, and only
 * deeper stamps stand in it. Each has what none of its answers holds.
 */
function answeredWithin(atoms: readonly Atom[], stamps: readonly number[]): number[][] | null {
  const depth = (i: number) => atoms[i].inside.length;
  const deepest = Math.max(...stamps.map(depth));
  if (stamps.every((i) => depth(i) === deepest)) return null;
  // By element: how far up its highest stamp stands, how many stand there, how many there are.
  const held = new Map<number, { top: number; there: number; all: number }>();
  for (const i of stamps)
    for (const id of atoms[i].inside) {
      const h = held.get(id) ?? { top: Infinity, there: 0, all: 0 };
      if (depth(i) < h.top) Object.assign(h, { top: depth(i), there: 0 });
      if (depth(i) === h.top) h.there++;
      h.all++;
      held.set(id, h);
    }
  const free = (i: number) => (id: number) => held.get(id)!.top === depth(i) && held.get(id)!.there === 1;
  const level = Math.min(...stamps.map((i) => atoms[i].inside.filter(free(i)).length - 1));
  if (level < 0) return null;
  const root = new Map(stamps.map((i) => [atoms[i].inside[level], i]));
  if (![...root.keys()].some((id) => held.get(id)!.all > 1)) return null;
  const lists = new Map(stamps.map((i) => [i, [] as number[]]));
  atoms.forEach((a, k) => {
    const owner = root.get(a.inside.find((id) => root.has(id)) ?? -1);
    if (owner !== undefined) lists.get(owner)!.push(k);
  });
  const said = [...lists].filter(([i, list]) => list.some((k) => k !== i && wordsOf(atoms[k].text).length >= 5)); // prettier-ignore
  return said.length >= stamps.length * 0.8 ? [...lists.values()] : null;
}

/** Replies to replies stand in the post that they answer: each record ends where a stamp set like its own stands deeper down. */
function withNested(
  atoms: readonly Atom[],
  stamps: readonly number[],
  lists: readonly (readonly number[])[],
): { stamps: number[]; lists: number[][] } {
  const out = { stamps: [] as number[], lists: [] as number[][] };
  lists.forEach((list, k) => {
    const own = atoms[stamps[k]];
    const [set] = own.look.split('>');
    const listed = new Set(list);
    const signed = (i: number) => candidates(atoms, [i - 1, i].filter((j) => listed.has(j)), i).length > 0; // prettier-ignore
    const inner = list.filter((i) => i > stamps[k] && stampLike(atoms[i]) && atoms[i].look.startsWith(`${set}>`) && stampShape(atoms[i]) === stampShape(own) && (/\.\S/.test(set) || (atoms[i].inside.length > own.inside.length && signed(i)))); // prettier-ignore
    const heads = [stamps[k], ...inner];
    // What holds a reply begins before its stamp where the name stands first, or its words do.
    const holding = new Map<number, number>();
    const firstIn = new Map<number, number>();
    for (const h of heads) for (const e of atoms[h].inside) if (!firstIn.has(e)) firstIn.set(e, h);
    for (const i of inner) {
      const id = atoms[i].inside.findLast((e) => !own.inside.includes(e) && firstIn.get(e) === i); // prettier-ignore
      if (id !== undefined) holding.set(id, i);
    }
    const slice = (i: number) => heads.findLast((h) => h <= i) ?? stamps[k];
    const ownerOf = (i: number) => holding.get(atoms[i].inside.find((id) => holding.has(id)) ?? -1) ?? stamps[k]; // prettier-ignore
    const told = new Set(list.filter((j) => isProse(atoms[j])).flatMap((j) => atoms[j].inside.filter((id) => (holding.get(id) ?? j) !== j))); // prettier-ignore
    const owner = told.size === inner.length ? ownerOf : slice;
    for (const head of heads) {
      out.stamps.push(head);
      out.lists.push(list.filter((i) => owner(i) === head));
    }
  });
  return out;
}

/** Rows that say who wrote a post, above its stamp, at most; a page without markup has each count in rows of its own. */
const SHORT_CARD = 8;
const LONGEST_CARD = 14;
/** Heads and texts side by side in one element (or a text without any): each reaches to the next head. */
function flat(
  atoms: readonly Atom[],
  stamps: readonly number[],
  among: ReadonlyMap<number, number>,
): number[][] | null {
  // A record stays within what holds it and another: the same box may stand at both ends of a page.
  const held = new Map(stamps.map((i) => [i, atoms[i].inside.find((id) => among.get(id)! > 1)]));
  const within = (i: number, stamp: number) => held.get(stamp) === undefined || atoms[i].inside.includes(held.get(stamp)!); // prettier-ignore
  // Who wrote it, with rank and counts, may stand before the stamp: short rows, the first of them a name.
  const often = howOften(atoms);
  const heads = new Set(stamps);
  const bare = !atoms[stamps[0]].tag;
  /** Rows right above a stamp that may be a name. */
  const namesOver = (stamp: number) => {
    const found: number[] = [];
    for (
      let j = stamp - 1;
      j >= 0 && j >= stamp - (bare ? LONGEST_CARD : SHORT_CARD) && within(j, stamp);
      j--
    ) {
      const { text } = atoms[j];
      if (
        heads.has(j) ||
        SIGNED.test(atoms[j].look) ||
        wordsOf(text).length > 8 ||
        (/[.!?…]["'”’]?$/.test(text) && wordsOf(text).length > 3)
      )
        break;
      // An action under the post before ("Back to top") ends the card.
      if (often(j) >= Math.max(3, stamps.length * (bare ? 0.95 : 0.6))) {
        if (found.length) break;
      } else if (nameLike(text) !== undefined && !(bare && isLabel(j, stamp))) found.push(j);
    }
    return found;
  };
  // Without markup, what has a number or a day below it is a label ("Messages", "14").
  const isLabel = (j: number, stamp: number) => j + 1 < stamp && (/^[\d.,]+k?$/i.test(atoms[j + 1].text) || DAY.test(atoms[j + 1].text) || SINCE.test(atoms[j].text)); // prettier-ignore
  const over = stamps.map(namesOver);
  const times = new Map<string, number>();
  for (const own of over) for (const name of new Set(own.map((j) => nameLike(atoms[j].text)!))) times.set(name, (times.get(name) ?? 0) + 1); // prettier-ignore
  // The first row; without markup the one of them that most cards have: pages' own rows may stand above.
  const cards = over.map((own, k) => {
    const [best] = bare ? own.toSorted((a, b) => times.get(nameLike(atoms[b].text)!)! - times.get(nameLike(atoms[a].text)!)! || a - b) : own.toReversed(); // prettier-ignore
    return best ?? stamps[k];
  });
  const carded = cards.filter((c, k) => c < stamps[k] && nameLike(atoms[c].text) !== undefined).length;
  const signed = stamps.filter((i) => candidates(atoms, [i], i).length > 0).length;
  const starts = carded >= stamps.length * 0.7 && signed < stamps.length * 0.5 ? cards : [...stamps];
  const ends = endedBy(atoms, stamps, within, often);
  const out =
    ends ??
    starts.map((start, k) => {
      const end = starts[k + 1] ?? closing(atoms, start);
      const list: number[] = [];
      for (let j = start; j < end && within(j, stamps[k]); j++) list.push(j);
      return list;
    });
  const told = out.filter((list, k) =>
    list.some((i) => i !== stamps[k] && wordsOf(atoms[i].text).length >= 5),
  );
  const fewest = atoms[stamps[0]].tag ? 1 : FEWEST;
  return told.length >= Math.max(fewest, out.length / 2) ? out : null;
}

/** Posts that end on who wrote them and when: words stand before the first stamp, and none behind the last. */
function endedBy(
  atoms: readonly Atom[],
  stamps: readonly number[],
  within: (i: number, stamp: number) => boolean,
  often: (i: number) => number,
): number[][] | null {
  const [first, last] = [stamps[0], stamps.at(-1)!];
  const says = (a: Atom | undefined) => a !== undefined && !SIGNED.test(a.look) && isSaid(a);
  const told = (from: number, to: number, stamp: number) => {
    for (let i = from + 1; i < to; i++) if (within(i, stamp) && says(atoms[i])) return true;
    return false;
  };
  // The opening may say it first, set otherwise than what answers it.
  const run = (from: number, step: 1 | -1) => {
    let n = 0;
    while (says(atoms[from + step * (n + 1)])) n++;
    return n;
  };
  const apart = stamps.length > FEWEST && (!told(-1, first, first) || run(first, -1) < run(first, 1));
  const before = stamps.every((stamp, k) => (k === 0 && apart) || told(stamps[k - 1] ?? -1, stamp, stamp));
  if (!before) return null;
  // Without markup nothing says where the posts end: what stands right before and behind a stamp does.
  const closed = stamps.filter((i) => says(atoms[i - 1]) || SIGNED.test(atoms[i - 1]?.look ?? '')).length;
  // Actions of a post may stand under its head.
  const nextOf = (stamp: number) => {
    let next = stamp + 1;
    while (often(next) > 1 && !says(atoms[next])) next++;
    return next;
  };
  // A gap that no other has parts it from the foot of the page.
  const gap = (stamp: number) => atoms[nextOf(stamp)]?.gap ?? 0;
  const behind = says(atoms[nextOf(last)]) && gap(last) <= Math.max(...stamps.slice(0, -1).map(gap));
  if (atoms[first].tag ? told(last, atoms.length, last) : behind || closed < stamps.length * 0.6) return null; // prettier-ignore
  const rows = Array.from({ length: stamps[1] - first - 1 }, (_, n) => first + 1 + n).filter((i) => !says(atoms[i])); // prettier-ignore
  const openingEnds = apart ? (rows.at(-1) ?? stamps[1] - 1) : first;
  return stamps.map((stamp, k) => {
    const [from, to] = k === 0 ? [apart ? first : 0, openingEnds] : [(k === 1 ? openingEnds : stamps[k - 1]) + 1, stamp]; // prettier-ignore
    return Array.from({ length: Math.max(0, to - from + 1) }, (_, n) => from + n).filter((j) => within(j, stamp)); // prettier-ignore
  });
}

/** Where the last record ends: before a run of rows that are no sentences. */
function closing(atoms: readonly Atom[], start: number): number {
  let said = false;
  let short = 0;
  for (let i = start; i < atoms.length; i++) {
    const sentence = /[.!?…]["'”’)]*$/.test(atoms[i].text) || wordsOf(atoms[i].text).length >= 12;
    said ||= sentence && i > start;
    short = sentence ? 0 : short + 1;
    if (said && short >= 3) return i - 2;
  }
  return atoms.length;
}

/** "Ann, Bo and 12 others", "moss likes this". */
const REACTION =
  /\band (?:\d+|one|two|three) others?\b|\b(?:likes?|liked|loves?|reacted to|upvoted) (?:this|it)\b/i;
/** A name as people have on pages: one to four words, no sentence, no number alone. */
function nameLike(text: string): string | undefined {
  const clean = text.replace(/^#\d+\s+/, '').replace(/\s\d[\d.,]*k?\s\p{L}+$/u, '').replace(/\s(?:\((?:OP|author|mod)\)|OP|online|offline)$/i, '').replace(/^(?:(?:posted |submitted |written |asked |answered )?by|from:?)\s+/i, '').replace(/\s*(?:\([^)]*\)|says:?|wrote:?|:)\s*$/i, '').trim(); // prettier-ignore
  if (
    !clean ||
    clean.length > 32 ||
    clean.split(' ').length > 5 ||
    /\p{L}:|[;|·•∙›»>]/u.test(clean) ||
    REACTION.test(clean) ||
    NO_NAME.test(clean)
  )
    return undefined;
  // One letter is somebody's picture.
  if (!/\p{L}/u.test(clean) || /^\p{L}$/u.test(clean) || /[.!?…]$/.test(clean.replace(/\b\p{L}\.$/u, '')) || CLOCK.test(clean) || DAY.test(clean) || AGO.test(clean) || withoutAge(clean) === '') return undefined; // prettier-ignore
  if (/^\d[\d,.]*\s?\p{L}*$/u.test(clean) && !/^\d+\p{L}/u.test(clean)) return undefined;
  return clean;
}

/** The name in a row that says who and when. */
export function nameIn(text: string): string | undefined {
  const bare = withoutAge(withoutTimes(text));
  const by = /(?:\b[Bb]y|\b[Ff]rom)\s+([^\s,|·•]+(?:\s\p{Lu}[^\s,|·•]*){0,2})/u.exec(bare)?.[1] ?? /^(.{2,32}?)\s+(?:says|wrote|said|posted|replied|commented)\b/iu.exec(text)?.[1]; // prettier-ignore
  const rest = bare.replace(/^(?:author|from|posted by):?;\s/i, '').replace(/[([]\s*[)\]]|\bNo\.?\s?#?\d+/gi, ' ').replace(/[,|·•–—-]+/g, ' ').replace(/\s+/g, ' ').trim().replace(/\s(?:on|at|in)$/i, ''); // prettier-ignore
  return nameLike(by ?? '') ?? nameLike(rest);
}

/** Places in a record where a name may stand, in order, each with what says where it is. */
function candidates(
  atoms: readonly Atom[],
  list: readonly number[],
  stamp: number,
): { key: string; name: string }[] {
  const out: { key: string; name: string }[] = [];
  for (const i of list) {
    const a = atoms[i];
    if (i > stamp + 4) break;
    if (isProse(a)) continue;
    // Rows of a board alternate in colour: the tags alone say where in a record it stands.
    const at = [a.tag, ...a.above.slice(0, 2)].join('<');
    const side = i < stamp ? 'before' : i === stamp ? 'at' : 'after';
    (a.spans ?? []).slice(0, 6).forEach((s, k) => {
      const name = nameLike(s);
      if (name) out.push({ key: `${side} ${at} ${k}`, name });
    });
    if (i === stamp) {
      const name = nameIn(a.text);
      if (name) out.push({ key: 'at stamp', name });
    } else {
      const name = nameLike(a.text);
      if (name) out.push({ key: `${side} ${at}`, name });
    }
  }
  return out;
}

function judged(
  atoms: readonly Atom[],
  stamps: readonly number[],
  lists: readonly (readonly number[])[],
): RecordGroup | null {
  const n = lists.length;
  const perRecord = lists.map((list, k) => candidates(atoms, list, stamps[k]));
  // What every record says alike in one place is an action or a label, no name.
  const saidBy = new Map<string, number>();
  const placed = (c: { key: string; name: string }) => `${c.key} ${c.name.replace(/\(\d+\)/g, '')}`;
  for (const own of perRecord) for (const said of new Set(own.map(placed))) saidBy.set(said, (saidBy.get(said) ?? 0) + 1); // prettier-ignore
  const keys = new Map<string, { records: number; names: Set<string>; first: number }>();
  perRecord.forEach((own) =>
    own.forEach((c, order) => {
      if (n > 3 && saidBy.get(placed(c))! >= n * (/\(\d+\)/.test(c.name) ? 0.6 : 0.9)) return;
      if (own.findIndex((o) => o.key === c.key) !== order) return;
      const at = keys.get(c.key) ?? { records: 0, names: new Set<string>(), first: 0 };
      at.records++;
      at.names.add(c.name);
      at.first += order;
      keys.set(c.key, at);
    }),
  );
  const often = [...keys].filter(([, v]) => v.records >= Math.max(2, n * 0.6));
  // Where one place has several names and another always the same words, those are an action.
  const several = often.filter(([, v]) => v.names.size > 1);
  const [best] = (several.length ? several : often).sort(([, a], [, b]) => (a.first / a.records) - (b.first / b.records) || b.names.size - a.names.size); // prettier-ignore
  const authors = perRecord.map(
    (own, k) => own.find((c) => best && c.key === best[0])?.name ?? beside(atoms, lists[k]),
  );

  const repeated = new Map<string, number>();
  const signed = new Map<string, number>();
  const ownKey = (i: number, k: number) => `${authors[k]} ${hashOf(atoms[i].text)}`;
  lists.forEach((list, k) => {
    for (const key of new Set(list.map((i) => hashOf(atoms[i].text)))) repeated.set(key, (repeated.get(key) ?? 0) + 1); // prettier-ignore
    for (const key of new Set(list.map((i) => ownKey(i, k)))) signed.set(key, (signed.get(key) ?? 0) + 1);
  });
  // What stands in most records, or twice under one name, is an action, a label or a signature.
  const everywhere = (i: number, k: number) => (repeated.get(hashOf(atoms[i].text))! >= Math.max(2, Math.min(3, n * 0.6)) || (authors[k] !== undefined && signed.get(ownKey(i, k))! > 1)) && wordsOf(atoms[i].text).length < 15; // prettier-ignore
  // A card leads to a page of its own; the thread's title over each post leads nowhere else.
  const linkHeads = lists.filter((list, k) => list.some((i) => (atoms[i].type === 'heading' || atoms[i].text.length > 20) && atoms[i].linked > atoms[i].text.length * 0.8 && !everywhere(i, k))).length; // prettier-ignore

  // Where the words stand behind the stamps, what comes before one is about the teller.
  const prose = (list: readonly number[]) => list.filter((i) => isProse(atoms[i])).reduce((w, i) => w + wordsOf(atoms[i].text).length, 0); // prettier-ignore
  const behind = lists.reduce((w, list, k) => w + prose(list.filter((i) => i > stamps[k])), 0);
  const from = behind > 0 && behind >= lists.reduce((w, list) => w + prose(list), 0) * 0.7 ? (k: number) => stamps[k] : () => -1; // prettier-ignore

  const records = lists.map((list, k): PageRecord => {
    const author = authors[k];
    const body = bodyOf(atoms, list.filter((i) => i >= from(k)), stamps[k], author, (i) => everywhere(i, k)); // prettier-ignore
    const { time, text } = atoms[stamps[k]];
    // What the markup gives is whole where the words are short ("Mar '20", "2d").
    const day = DAY.exec(time ?? '')?.[0] ?? DAY.exec(text)?.[0] ?? time;
    return { atoms: list, stamp: stamps[k], body, ...(author ? { author } : {}), ...(day ? { day } : {}) };
  });
  const spoken = records.filter(
    (r) => r.body.reduce((w, i) => w + wordsOf(atoms[i].text).length, 0) >= 3,
  ).length;
  if (spoken < n * 0.5 || spoken < FEWEST) return null;
  const bare = stamps.filter((i) => CLOCK.test(atoms[i].text) && !withoutTimes(atoms[i].text) && !DAY.test(atoms[i].text)).length; // prettier-ignore
  if (bare >= n * 0.8 && n >= 3) return { kind: 'entries', records };
  const clocked = stamps.filter((i) => isClocked(atoms[i])).length;
  if (linkHeads >= n * 0.6) return { kind: 'cards', records };
  const answers = stamps.filter((i) => /^answered\b/i.test(atoms[i].text)).length;
  if (answers >= n * 0.6) return { kind: 'posts', records };
  if (best && authors.filter(Boolean).length >= n * 0.6 && clocked + (n > 2 ? n : 0) >= n * 0.5)
    return { kind: 'posts', records };
  return clocked >= n * 0.8 && n >= 3 ? { kind: 'entries', records } : { kind: 'cards', records };
}

/** Counts of badges and points stand behind a name. */
const withoutCounts = (text: string) => (isStamp(text) ? text : text.replace(/\s\d[\d,.]*k?\b.*$/, ''));

/** Who a stamp is of: a name set apart in one of these places, or a name by itself behind it. */
export function nameBeside(
  atoms: readonly Atom[],
  stamp: number,
  places: readonly number[] = [stamp, stamp + 1, stamp + 2],
): string | undefined {
  for (const k of places)
    for (const s of atoms[k]?.spans ?? (k > stamp && atoms[k] ? [withoutCounts(atoms[k].text)] : [])) {
      const name = nameLike(s);
      if (name) return name;
    }
  return undefined;
}

/** A name beside another stamp of the record ("asked 26 January", then who asked). */
function beside(atoms: readonly Atom[], list: readonly number[]): string | undefined {
  for (const i of list) {
    const near = stampLike(atoms[i]) ? [i, i + 1].filter((k) => list.includes(k)) : [];
    const name = nameBeside(atoms, i, near);
    if (name) return name;
  }
  return undefined;
}

/** What is said in a record: not its stamp, its teller's card, a signature, what it quotes, what every record has. */
function bodyOf(
  atoms: readonly Atom[],
  list: readonly number[],
  stamp: number,
  author: string | undefined,
  everywhere: (i: number) => boolean,
): number[] {
  let quoting = false;
  const kept = list.filter((i) => {
    const a = atoms[i];
    if (i === stamp || stampLike(a) || SIGNED.test(a.look) || everywhere(i)) return false;
    // Fields side by side that say when.
    if (a.type === 'row' && POSTED.test(a.text) && CLOCK.test(a.text)) return false;
    if (a.linked > a.text.length * 0.9 || /^(?:BUTTON|LABEL)$/.test(a.tag)) return false;
    if (REACTION.test(a.text) && !isSaid(a)) return false;
    // In one piece with who wrote it.
    if (/\bwrote:\s*>/.test(a.text)) return false;
    if (QUOTED.test(a.text) && a.text.length < 80) {
      quoting = true;
      return false;
    }
    // The words quoted stand in one piece behind "X wrote:".
    if (quoting) {
      quoting = false;
      return false;
    }
    if (a.type === 'quote') return false;
    if (author && a.text.startsWith(author) && !isProse(a)) return false;
    return true;
  });
  // Before the first sentence of the post stand rank, counts and badges.
  const first = kept.findIndex(
    (i) => /[.!?…]["'”’)]*$/.test(atoms[i].text) || wordsOf(atoms[i].text).length >= 8,
  );
  const from = first < 0 ? kept.findIndex((i) => i > stamp) : first;
  const own = from < 0 ? kept : kept.slice(headBefore(atoms, kept, from, stamp));
  return withoutTail(atoms, own);
}

/** A heading right before the first sentence goes with it. */
function headBefore(atoms: readonly Atom[], kept: readonly number[], from: number, stamp: number): number {
  const before = kept[from - 1];
  return before !== undefined && before > stamp && atoms[before].type === 'heading' ? from - 1 : from;
}

/** Actions, counts and badges behind the last sentence. */
function withoutTail(atoms: readonly Atom[], kept: readonly number[]): number[] {
  let end = kept.length;
  while (end > 1) {
    const a = atoms[kept[end - 1]];
    if (
      a.type === 'item' ||
      a.type === 'row' ||
      /[.!?…:]["'”’)]*$/.test(a.text) ||
      wordsOf(a.text).length >= 8
    )
      break;
    end--;
  }
  return kept.slice(0, end);
}
