/** Sentences of a passage, aware of quotes, abbreviations, initials and decimal points. */
import { SPOKE } from './reporting.ts';
import { isA } from './classes.ts';
import { ABBREVIATIONS, STATES } from './lexicon.ts';

export interface SentenceSpan {
  /** The sentence without surrounding space. */
  text: string;
  start: number;
  end: number;
}

/** A stretch without a sentence end is cut at a space after this many characters, so that nothing downstream meets an endless sentence. */
export const LONGEST_SENTENCE = 1200;

const STOP = /[.!?…]+["'”’)\]]*(?=\s|$)|\n\s*\n/gu;
/** Shortened words that end no sentence when a small letter follows. */
const SHORTENED = /(?:^|\s)(?:co|st|ave|inc|ltd|dept|approx|etc|vs|jr|sr|bros|corp|est|no)$/i;
/** What belongs to a state whose name is shortened ("the U.S. Government"). */
const OF_THE_STATE =
  /^\s(?:Government|Army|Navy|Congress|Senate|Supreme|President|Department|House|Air|Coast|Treasury|State|Embassy|Geological|Census|Postal)\b/;
/** Names in a row behind a state's letters ("the U.S. District Court"), joined as names of bodies are. */
const NAMES_BEHIND = /^\s\p{Lu}[\p{L}'’-]+(?:\s(?:(?:and|of|for|the|&)\s){0,2}\p{Lu}[\p{L}'’-]+)+/u;
/** What bodies of a state are called that WordNet's institutions don't hold, and who speaks for them. */
const OF_A_BODY = /^(?:administration|force|court|service|office)$/;
/** Zones and halves of a day behind an hour: "3:35 p.m. PT", "5 p.m. Eastern Time". */
const OF_THE_HOUR = /^(?:\p{Lu}{2,4}\b|\p{Lu}\p{Ll}+ (?:\p{Lu}\p{Ll}+ )?Time\b)/u;
/** A bracket behind a shortened word, and what stands behind it: "Corp. (STAR), a distributor". */
const ASIDE = /^\s\([^()]{1,80}\)(.{0,2})/su;
/** Letters without a vowel are a word cut short ("Jn. Pell"), unless they are a sound. */
const CUT_SHORT = /\s(?!(?:[HM]m+|Sh+|Br+|Gr+|Psst|Pfft)\.)[B-DF-HJ-NP-TV-XZ][b-df-hj-np-tv-xz]{1,3}\.$/u;
/** A sum or measure cut short before a small letter: "2s. and ale". */
const SHORT_SUM = /\d\p{Ll}{1,2}$/u;
/** Letters behind a word that is no article or preposition: they stand before a noun. */
const ATTRIBUTE = /\b(?!(?:the|in|of|to|from|for|by|with|at|and|or)\b)\p{Ll}+\s(?:\p{Lu}\.)+$/u;
/** Words that no name begins with. */
const SMALL_WORD =
  /^(?:The|An?|It|He|She|They|We|You|I|His|Her|Its|Their|Our|My|This|That|These|Those|There|But|And|Or|So|In|On|At|By|For|With|From|When|If|As|Then|Not|No)\b/;
/** Who said what was just quoted: "Ann Ware said". */
const TAG = new RegExp(String.raw`^\s(?:\p{Lu}[\p{L}’'.-]*\s){1,4}${SPOKE}\b`, 'u');
const OPENER = /^["'“‘([]*/;
/** Whether a text begins with a small letter, behind marks that open it, and not with a name that has one ("iPhone"). */
export const beginsSmall = (text: string): boolean => /^["'“‘([]*\p{Ll}(?!\p{Ll}{0,3}\p{Lu})/u.test(text);

const isBody = (names: string) =>
  names
    .trim()
    .split(/\s+/)
    .map((w) => w.replace(/['’]s?$/, ''))
    .some((w) => OF_A_BODY.test(w.toLowerCase()) || isA(w, 'institution', 'person'));

function isAbbreviation(text: string, stop: number): boolean {
  const head = /(?:^|[\s("“‘[])((?:[A-Za-z]\.)+|[A-Za-z]+\.|et al\.)$/.exec(
    text.slice(Math.max(0, stop - 16), stop + 1),
  )?.[1];
  if (!head) return false;
  const next = text
    .slice(stop + 1, stop + 40)
    .replace(/^["'”’)\]]*\s+/, '')
    .replace(OPENER, '');
  // "a former U.N. Envoy" goes on; "in the U.S. Storms followed" ends, and so does any before a word that no name begins with.
  if (
    /^(?:\p{Lu}\.){2,}$/u.test(head) &&
    /^\p{Lu}\p{Ll}/u.test(next) &&
    !SMALL_WORD.test(next) &&
    ATTRIBUTE.test(text.slice(Math.max(0, stop - 30), stop + 1))
  )
    return true;
  // "b. 3 Feb. 1841", "d. 1919", "m. 1868", "fl. 1790": what entries of lives have before a date.
  if (/^(?:b|d|m|fl)\.$/.test(head) && /^(?:c(?:a|irca)?\.?\s)?\d/.test(next) && !/\d\s?\p{L}\.$/u.test(text.slice(Math.max(0, stop - 6), stop + 1))) return true; // prettier-ignore
  const rest = text.slice(stop + 1, stop + 90);
  if (/^U\.(?:S|K|N)\.$/.test(head)) {
    // No sentence is "The U.S." alone.
    if (/(?:^|[.!?]["”’)]*\s)(?:The )?U\.\p{Lu}\.$/u.test(text.slice(Math.max(0, stop - 11), stop + 1)) && next !== '') return true; // prettier-ignore
    const names = NAMES_BEHIND.exec(rest)?.[0];
    if (names && !SMALL_WORD.test(next) && isBody(names)) return true;
  }
  const behindPlace = STATES.get(head.toLowerCase());
  if (behindPlace && /^\p{Lu}/u.test(head)) {
    if (beginsSmall(next)) return true;
    if (/\p{L},\s$/u.test(text.slice(Math.max(0, stop - head.length - 3), stop - head.length + 1)))
      return !/^\p{Lu}|^$/u.test(next);
  }
  const known = ABBREVIATIONS.get(head.toLowerCase());
  const entry = known && (!known.name || /^\p{Lu}/u.test(head)) ? known : undefined;
  if (entry && /^[ap]\.m\.$/.test(head) && OF_THE_HOUR.test(next)) return true;
  const aside = entry && ASIDE.exec(rest);
  if (aside) return !/^\s?\p{Lu}/u.test(aside[1]) || !entry.ends;
  // "no." is an abbreviation only before a figure; short month forms only when written with a capital.
  if (/^(no|nos|p|pp|ch|fig|vol|sec)\.$/i.test(head) && !/^\p{Lu}\.$/u.test(head)) return /^\d/.test(next);
  if (entry && /^(mar|sen|col|gen|est|ed|co|rev|hon|mt|v|c|ca)\.$/i.test(head) && /^[a-z]/.test(head))
    return /^(v|c|ca)\.$/.test(head);
  if (entry && !/^\p{Lu}\.$/u.test(head)) return !(entry.ends && (/^\p{Lu}/u.test(next) || next === ''));
  if (CUT_SHORT.test(text.slice(Math.max(0, stop - 6), stop + 1)) && /^\p{Lu}\p{Ll}/u.test(next)) return true;
  // A single capital is an initial when a name follows, but "plan B." ends, and so do "an A." and, but for "the J. Edgar Moss Hall", "the D."
  if (/^\p{Lu}\.$/u.test(head) && /^\p{Ll}/u.test(next)) return true;
  if (/^\p{Lu}\.$/u.test(head))
    return (
      /^\p{Lu}[\p{Ll}.]/u.test(next) &&
      !SMALL_WORD.test(next) &&
      !/\ban? \p{Lu}\.$/iu.test(text.slice(Math.max(0, stop - 4), stop + 1)) &&
      !(
        /\bthe \p{Lu}\.$/iu.test(text.slice(Math.max(0, stop - 5), stop + 1)) &&
        !/^\p{Lu}\S*\s\p{Lu}/u.test(next)
      ) &&
      !/\b(?:plan|part|vitamin|group|type|grade|class|section|option|letter)\s\p{Lu}\.$/iu.test(
        text.slice(Math.max(0, stop - 16), stop + 1),
      ) &&
      // "Plans A and B. Neither …" ends; "Ann Ware and J. Edgar Moss" is a name, which has another behind its first.
      !(
        /\b(?:and|or)\s\p{Lu}\.$/iu.test(text.slice(Math.max(0, stop - 6), stop + 1)) &&
        !/^\p{Lu}\p{Ll}+\s\p{Lu}/u.test(next)
      )
    );
  return /^(?:\p{Lu}\.){2,}$/u.test(head) && /^\p{Ll}/u.test(next);
}

/**
 * The sentences of a text with their offsets. Together they cover every character that is not space between sentences.
 * A quotation of several sentences is kept together while its quote is open, up to three stops.
 */
export function sentences(text: string): SentenceSpan[] {
  const out: SentenceSpan[] = [];
  let from = 0;
  const push = (to: number) => {
    let start = from;
    while (start < to && /\s/.test(text[start])) start++;
    let end = to;
    while (end > start && /\s/.test(text[end - 1])) end--;
    for (; end - start > LONGEST_SENTENCE;) {
      const space = text.lastIndexOf(' ', start + LONGEST_SENTENCE);
      const cut = space > start ? space : start + LONGEST_SENTENCE;
      out.push({ text: text.slice(start, cut), start, end: cut });
      start = cut;
      while (start < end && /\s/.test(text[start])) start++;
    }
    if (end > start) out.push({ text: text.slice(start, end), start, end });
    from = to;
  };
  for (const match of text.matchAll(STOP)) {
    const at = match.index;
    const end = at + match[0].length;
    if (match[0].startsWith('\n')) {
      push(at);
      continue;
    }
    const following = text.slice(end, end + 8).trimStart();
    const lower = /^["'“‘([]*\p{Ll}/u.test(following);
    // “MENLO FORD, Cal. -- In a bid”: what a dash goes on with has not ended.
    if (match[0] === '.' && /^(?:--|—|–)\s/.test(following)) continue;
    // “Why?” Tom Ware asked. — who said it belongs to it.
    if (/[!?…]['’]?["”]$/.test(match[0]) && TAG.test(text.slice(end, end + 80))) continue;
    // “Why?” he asked. — the stop belongs to what is quoted.
    if (lower && /[!?…]|["”’']$/.test(match[0])) continue;
    if (lower && (match[0] === '...' || SHORT_SUM.test(text.slice(Math.max(0, at - 5), at)))) continue;
    if (lower && (match[0].endsWith(')') || SHORTENED.test(text.slice(Math.max(0, at - 8), at)))) continue;
    // A spaced ellipsis (". . .") ends with its last point; a numero sign waits for its number.
    if (match[0] === '.' && /^\s?\./.test(text.slice(end, end + 2))) continue;
    if (/N[°º]$/.test(text.slice(Math.max(0, at - 2), at)) && /^\d/.test(following)) continue;
    if (/\bU\.S$/.test(text.slice(Math.max(0, at - 4), at)) && OF_THE_STATE.test(text.slice(end))) continue;
    if (match[0][0] === '.' && match[0].replace(/["'”’)\]]/g, '').length === 1 && isAbbreviation(text, at))
      continue;
    push(end);
  }
  push(text.length);
  return out;
}

const WORD = /[\p{L}\p{N}]+(?:[’'.,][\p{L}\p{N}]+)*/gu;

export interface WordSpan {
  text: string;
  start: number;
  end: number;
}

/** Written words with offsets: letters and figures, joined by an inner apostrophe, point or comma. Hyphenated words count as their parts. */
export function writtenWords(text: string): WordSpan[] {
  return [...text.matchAll(WORD)].map((m) => ({ text: m[0], start: m.index, end: m.index + m[0].length }));
}

/** How many words a person would count: runs without space that hold a letter or a figure. */
export function countWords(text: string): number {
  let n = 0;
  for (const run of text.split(/\s+/)) if (/[\p{L}\p{N}]/u.test(run)) n++;
  return n;
}
