/** What the rows around a title say of the piece: who wrote it, when it came out, when it was changed. */
import { isoDate } from '../tidy.ts';
import { bylineNames } from '../readers/html/metadata.ts';
import { wordsOf, type Atom } from './atom.ts';
import { hashOf, isProse } from './features.ts';
import { ADDRESS, DAY, isStamp, withoutTimes } from './shapes.ts';

export interface Head {
  /** It is a letter of a list's archive: who sent it stands with an address in words. */
  listed?: true;
  authors?: string[];
  published?: string;
  updated?: string;
}

const NAME =
  "\\p{Lu}(?:\\.|[\\p{L}'’-]*)(?:\\s(?:de|van|von|der|den|la|le|del|di|da|bin|al|\\p{Lu}\\.|\\p{Lu}[\\p{L}'’-]*)){1,3}";
const BY = new RegExp(
  `(?:^|[\\s·|•—–-])(?:(?:[Ww]ords|[Rr]eport(?:ing|ed)?|[Ss]tory|[Tt]ext|[Ww]ritten|[Pp]osted|[Pp]ublished|[Ss]ent in|[Ss]ubmitted|[Tt]old)\\s)?(?:[Bb]y|BY):?\\s+(${NAME}(?:\\s*(?:,|,?\\sand|&|;)\\s*${NAME}){0,5})`,
  'u',
);
/** "Words Petra Lund / Photographs Anders Moe". */
const CREDITED = new RegExp(`^(?:Words|Text|Story|Report)(?:\\s+by|:)?\\s+(${NAME})(?=$|\\s*[/|·•&,])`, 'u');
/** "From Nils Ferrand in Torrin". */
const FROM_PLACE = new RegExp(
  `^From\\s(${NAME})\\s+in\\s\\p{Lu}[\\p{L}'’-]+(?:\\s\\p{Lu}[\\p{L}'’-]+){0,2}$`,
  'u',
);
/** "Ann Hale ann at mill.example": archives of lists hide addresses so. */
const SENDER = new RegExp(`^(${NAME})\\s[<(]?[\\w.+-]+ at [\\w-]+(?:\\.[\\w-]+)+[>)]?$`, 'u');
/** "by hedgehand · posted 2 years ago": a name as boards have them, set apart in a row that says when. */
const HANDLE = /(?:^|[\s·|•—–-])by\s(?:u\/|@)?([\p{L}\p{N}_.-]{3,32})(?=$|\s*[·|•,—–-])/u;
const UPDATED = /\b(?:updated|modified|amended|edited|changed|reviewed|revised)\b/i;
const PUBLISHED = /\b(?:published|posted|first published|added|issued|written|asked|created|date)\b/i;
/** Wherever it stands, such a row says when the piece came out. */
const SAYS_PUBLISHED = /^(?:date |first |originally )*(?:published|issued)\b/i;
/** The year of the first page (Berners-Lee 1991). */
const FIRST_PAGES = '1991';
/** Atoms around the title that are looked at. */
const NEAR = 9;

/** "Printable version - Re: The lodger": an answer's subject is that of what it answers (RFC 5322, 3.6.5). */
const REPLY = /((?:^|[-–—|•»·:]\s))(?:re|fwd?):\s(?=\S)/gi;

/** The title as it stands on the page among the parts of the window's title ("Site :: View topic - The piece"). */
export function titleAmong(atoms: readonly Atom[], windowTitle: string): string | undefined {
  const window = windowTitle.replace(REPLY, '$1');
  const parts = window.split(/\s+(?:[-–—|•»·:]|::)\s+|\s*\|\s*/).filter(Boolean);
  const runs: string[] = [];
  for (let i = 0; i < parts.length; i++)
    for (let k = parts.length; k > i; k--) {
      const from = window.indexOf(parts[i]);
      const to = window.indexOf(parts[k - 1], from) + parts[k - 1].length;
      if (to > from) runs.push(window.slice(from, to));
    }
  const said = new Map<string, number>();
  for (const a of atoms) {
    const keys = [a.text, ...(a.spans ?? []), ...(isStamp(a.text) ? [a.text.replace(/^.*:\s+/, '')] : [])];
    for (const key of keys) said.set(hashOf(key), (said.get(hashOf(key)) ?? 0) + 1);
  }
  const stands = (r: string) => hashOf(r).length > 3 && said.has(hashOf(r)) && r.split(' ').length > 1;
  // A number of the site's may stand before the title in the window alone ("#4120 The wrong wedding"): the rest stands over the text.
  const overText = (name: string) => atoms.some((a, i) => [a.text, ...(a.spans ?? [])].some((t) => hashOf(t) === hashOf(name)) && atoms.slice(i + 1, i + 4).some((b) => wordsOf(b.text).length >= 20)); // prettier-ignore
  const numbered = parts.map((p) => p.replace(/^(?:#|No\.?\s?)\d+[.:]?\s+/i, '')).find((p, i) => p !== parts[i] && stands(p) && overText(p)); // prettier-ignore
  // The longest run that stands on the page by itself; a site's name is short and stands there often.
  return numbered ?? runs.filter(stands).sort((a, b) => b.length - a.length)[0];
}

/** The part of a letter's subject that stands in it as its title ("The Lamp #41: Who moved the milestones?"). */
export const titleInSubject = (
  atoms: readonly Atom[],
  subject: string | undefined,
  sure?: readonly number[],
): string | undefined => {
  const row = subject ? titleAmong(atoms, subject.replace(/:\s+|\s\/\s/g, ' | ')) : undefined;
  return row && atoms.some((a, i) => hashOf(a.text) === hashOf(row) && startsText(atoms, i, sure))
    ? row
    : undefined;
};
/** Prose stands right below it. */
const startsText = (atoms: readonly Atom[], i: number, sure?: readonly number[]) => atoms.slice(i + 1, i + 5).some((a, k) => isProse(a) && wordsOf(a.text).length >= 20 && (sure?.[i + 1 + k] ?? 1) >= 0.5); // prettier-ignore

/** Reads the rows near the title; a day at "published" goes before one at "updated", a bare one stands for published. */
export function headOf(
  atoms: readonly Atom[],
  title: string,
  /** Words that pages have; without it a bare name is not told from a paper's. */
  lexicon?: Readonly<Record<string, number>>,
): Head {
  const own = hashOf(title);
  const named = atoms.flatMap((a, i) => (hashOf(a.text) === own ? [i] : []));
  // In a list of contents it stands too.
  const whole = named.find((i) => startsText(atoms, i)) ?? named[0] ?? -1;
  // A letter of several things names the first of them behind its own name.
  const at =
    whole >= 0 ? whole : atoms.findIndex((a) => wordsOf(a.text).length >= 3 && own.endsWith(hashOf(a.text)));
  const from = at < 0 ? 0 : Math.max(0, at - 3);
  const near = atoms.slice(from, (at < 0 ? 0 : at) + NEAR).filter((_, i) => from + i !== at);
  const rows = near.filter((a) => a.text.length < 220 && a.type !== 'quote');
  const head: Head = {};
  for (const a of rows) {
    // The head of a letter in an archive: the name goes before the address (RFC 5322, 3.4).
    const from = /^From:\s"?([^<"(@\s][^<"(@]{2,60})/i
      .exec(a.text)?.[1]
      .replace(/\s\S+ at$/, '')
      .trim();
    if (from && !head.authors && bylineNames(from).length) head.authors = bylineNames(from);
    const sender = SENDER.exec(a.text)?.[1];
    if (sender) head.listed = true;
    if (sender && !head.authors && bylineNames(sender).length) head.authors = bylineNames(sender);
    const found = BY.exec(a.text);
    // In a sentence only its first words are a byline.
    const by =
      (found && (found.index === 0 || !isSentence(a.text)) ? found : null) ??
      CREDITED.exec(a.text) ??
      FROM_PLACE.exec(a.text);
    const names = by && !head.authors ? bylineNames(by[1]) : [];
    if (names.length) head.authors = names;
    // Each day belongs to the word before it.
    for (const part of a.text.split(/[·|•]|(?=\b(?:Updated|Modified|Published|Posted|Last)\b)/)) {
      // The number of a record looks like a day: "doi: 10.1000/2023.04.11".
      if (ADDRESS.test(part) || /\bdoi\b/i.test(part)) continue;
      const day = DAY.exec(part)?.[0] ?? (a.text.length < 60 && a.time ? a.time : undefined);
      const iso = isoDate(day?.replace(/(\d)(?:st|nd|rd|th)\b/, '$1'));
      if (!iso || !/^\d{4}-\d\d-\d\d$/.test(iso)) continue;
      // A bare day from before there were pages stands in the text.
      if (iso < FIRST_PAGES && !PUBLISHED.test(part)) continue;
      if (UPDATED.test(part) && !PUBLISHED.test(part)) head.updated ??= iso;
      else if (PUBLISHED.test(part) || a.text.length < 60) head.published ??= iso;
    }
  }
  head.published ??= atoms.map((a) => (a.text.length < 120 && SAYS_PUBLISHED.test(a.text) && !/[.!?]$/.test(a.text) ? isoDate(DAY.exec(a.text)?.[0]) : undefined)).find((d) => d && /^\d{4}-\d\d-\d\d$/.test(d)); // prettier-ignore
  if (!head.published) delete head.published;
  const signed = head.authors ? [] : signedBy(at < 0 ? near : atoms.slice(at + 1, at + 6));
  if (signed.length) head.authors = signed;
  if (!head.authors && lexicon) {
    const name = bareName(atoms, rows, lexicon) ?? signedBelow(atoms);
    if (name) head.authors = [name];
  }
  const handle = head.authors ? undefined : rows.map((a) => (isStamp(a.text) ? HANDLE.exec(a.text)?.[1] : undefined)).find((h, i) => h && rows[i].spans?.some((s) => s.endsWith(h))); // prettier-ignore
  if (handle) head.authors = [handle];
  const set = head.authors ? undefined : rows.map(nameSetApart).find(Boolean);
  if (set) head.authors = [set];
  return head;
}

const isSentence = (text: string) => wordsOf(text).length > 12 && /[.!?]["'”’]?$/.test(text);

/** Who signs a paper: names under the title, with the marks of where they work, or several in one row, the last behind "and". */
function signedBy(below: readonly Atom[]): string[] {
  const whole = new RegExp(`^${NAME}$`, 'u');
  const marked = /(?<=\p{L})[\d*†‡§¶]+(?:,\s?[\d*†‡§¶]+)*/gu;
  const out: string[] = [];
  for (const a of below) {
    const names = a.text.replace(marked, ' , ').split(/\s*(?:,|;|&|\band\b)\s*/).map((n) => n.trim()).filter(Boolean); // prettier-ignore
    const all = names.length > 0 && names.every((n) => whole.test(n));
    const signed =
      /\p{L}[\d*†‡§¶]|,$/u.test(a.text) ||
      out.length > 0 ||
      (names.length > 1 && /\s(?:and|&)\s/.test(a.text)) ||
      names.length > 2;
    if (all && signed) out.push(...names);
    else if (out.length) break;
  }
  return out;
}

/** "by Ann, 61, from the coast": one name set apart behind "by". */
function nameSetApart(a: Atom): string | undefined {
  if (isSentence(a.text)) return undefined;
  // How old somebody is follows a name alone.
  const aged = /(?:^|\s)by\s(\p{Lu}[\p{L}'’-]+),\s\d{2}\b/u.exec(a.text)?.[1];
  if (aged) return aged;
  for (const row of [a.text, ...(a.spans ?? [])]) {
    const name = /^by\s(\p{Lu}[\p{L}'’-]+)(?:,|$)/iu.exec(row)?.[1];
    if (name && /^\p{Lu}/u.test(name) && a.spans?.includes(name)) return name;
  }
  return undefined;
}

/** A name alone right behind the last paragraph, with initials as signatures under entries have it. */
function signedBelow(atoms: readonly Atom[]): string | undefined {
  const initials = /^(?:\p{Lu}\.\s?){1,3}\p{Lu}[\p{L}'’-]+(?:\s\p{Lu}[\p{L}'’-]+)?$/u;
  const at = atoms.findIndex((a, i) => i > 0 && isProse(atoms[i - 1]) && initials.test(a.text));
  return at > 0 && atoms.slice(at + 1).filter((a) => isProse(a)).length <= atoms.slice(0, at).filter((a) => isProse(a)).length ? atoms[at].text : undefined; // prettier-ignore
}

/** How letters close, before the name of whoever wrote them (common practice, no published source). */
const CLOSES =
  /^(?:(?:with )?(?:very )?(?:best|kind(?:est)?|warm(?:est)?|all good) (?:wishes|regards)|yours(?: (?:sincerely|faithfully|truly|ever))?|sincerely(?: yours)?|regards|cheers|warmly|(?:with )?love|until (?:next|then)\b[^.!?]{0,20}),?$/i;
const SIGNED_AS = new RegExp(`^(${NAME})(?:,\\s\\p{L}.{1,40})?$`, 'u');
/** Who closes a letter with their name. */
export function closedBy(rows: readonly string[]): string | undefined {
  const at = rows.findIndex((r) => CLOSES.test(r.trim()));
  return at < 0 ? undefined : SIGNED_AS.exec(rows[at + 1]?.trim() ?? '')?.[1];
}

/** Word by word: a pattern around the sign would go through a long word again from each letter. */
const withoutAddresses = (text: string) => (text.includes('@') ? text.split(/\s/).filter((w) => !w.includes('@')).join(' ') : text); // prettier-ignore

const near = (rows: readonly Atom[], i: number) => [rows[i - 1], rows[i + 1], rows[i + 2]].some((r) => r && isStamp(r.text)); // prettier-ignore

/** A row that is a name and nothing else, right beside one that says when; a name has no word that the page has in small letters, or pages have besides articles. */
function bareName(
  atoms: readonly Atom[],
  rows: readonly Atom[],
  lexicon: Readonly<Record<string, number>>,
): string | undefined {
  const whole = new RegExp(`^${NAME}$`, 'u');
  const small = new Set(
    atoms.flatMap((a) => withoutAddresses(a.text).match(/(?<![\p{L}'’])\p{Ll}[\p{L}'’-]+/gu) ?? []),
  );
  const isName = (text: string) => whole.test(text) && !/^(?:dear|hello|hi|hey)\s/i.test(text) && withoutTimes(text) === text && !text.split(/[\s-]/).some((w) => (small.has(w.toLowerCase()) && w.length > 3) || w.toLowerCase() in lexicon); // prettier-ignore
  for (const [i, a] of rows.entries()) {
    if (/^H[1-6]$/.test(a.tag)) continue;
    const parts = a.text.split(/\s*[·|•–—]\s*|,\s(?=\p{Ll})/u);
    if (isStamp(a.text) && parts.length > 1) {
      const name = parts.find(isName);
      if (name) return name;
    }
    // Set apart beside the day, with nothing else in the row.
    const [set] = a.spans ?? [];
    if (set && DAY.test(a.text) && withoutTimes(a.text).replace(/[\s,|·•–—-]+$/, '') === set && isName(set))
      return set;
    // A role may stand behind it, in small letters or as a title that ends as names of trades do ("Arts Editor").
    const [name, role] = a.text.split(/,\s/);
    const trade = role && !/[\d,]/.test(role) && wordsOf(role).length <= 4 ? /\p{L}+(?:or|er|ist|ent|ian)$/u.exec(role)?.[0].toLowerCase() : undefined; // prettier-ignore
    if (trade && trade in lexicon && isName(name) && near(rows, i)) return name;
    const alone = parts.length === 1 || (parts.length === 2 && /^\p{Ll}/u.test(parts[1]));
    if (alone && isName(parts[0]) && near(rows, i)) return parts[0];
  }
  return undefined;
}
