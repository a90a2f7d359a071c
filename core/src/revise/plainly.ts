/**
 * A note as people write it → wishes in the words that operations know. By form alone: sentences are parted, what only
 * gives a reason or is polite is told from what asks, and frames of asking ("could X be left out", "A -> B", "X, gone",
 * "2:30 tops") become plain orders. Where a sentence asks for something that can't be read, nothing is done.
 */

import { COURTESIES, bareNote } from './bare.ts';
import { FIRST_WORDS } from './grammar/verbs.ts';

/** What stands in quotation marks: literal, so that no frame looks into it. */
export const QUOTED =
  /[“"][^”"]*[”"]|(?<![\p{L}\p{N}])['‘’](?:[^'‘’]|(?<=\p{L})['’](?=\p{L}))+['’](?!\p{L})/gu;
const MASK = '\u0001';
const masked = (text: string) => text.replace(QUOTED, (q) => MASK.repeat(q.length));

/** Applies a change to what stands outside quotation marks. */
function outside(text: string, change: (plain: string) => string): string {
  let out = '';
  let from = 0;
  for (const m of text.matchAll(QUOTED)) {
    out += change(text.slice(from, m.index)) + m[0];
    from = m.index + m[0].length;
  }
  return out + change(text.slice(from));
}

/** Short forms of notes and chats, and what is only polite. */
const SHORT: readonly (readonly [RegExp, string])[] = [
  [new RegExp(`\\b(?:${COURTESIES})\\b`, 'gi'), ''],
  [/\bparas?\.?\s+(?=\w)/gi, 'section '],
  [/\b(?:sect|pt|ch)\.?\s+(?=\d)/gi, 'section '],
  [/\bln?\.?\s?(?=\d)/gi, 'line '],
  [/#(?=\d)/g, 'section '],
  [/\b(lines?|sections?|parts?|paragraphs?|L) ?(\d{1,2}) ?[-–] ?(?:L ?)?(?=\d{1,2}\b(?!:))/gi, '$1 $2 to '],
  [/\b(two|three|four|five) (first|last) (?=lines?|sentences?|sections?|parts?|paragraphs?)/gi, '$2 $1 '],
  [/\bw\/o\b/gi, 'without'],
  [/\s&\s/g, ' and '],
]; // prettier-ignore

const tidy = (text: string) =>
  outside(text, (plain) => SHORT.reduce((t, [short, long]) => t.replace(short, long), plain))
    .replace(/\s+/g, ' ')
    .replace(/\s+(?=[,.!?;])/g, '')
    .replace(/,(?:\s*,)+/g, ',')
    .replace(/^[,\s–—-]+|[,\s–—-]+$/g, '');

/** The sentences of a note. A stop within quotation marks, a figure or a time parts nothing. */
export function partsOf(note: string): string[] {
  const text = note.replace(/\r\n?/g, '\n');
  const plain = masked(text);
  const out: string[] = [];
  let from = 0;
  for (const m of plain.matchAll(/(?<=[\p{L}\p{N}\u0001%)])[.!?…]+(?=\s|$)|\n+|;(?=\s|$)/gu)) {
    out.push(text.slice(from, m.index));
    from = m.index + m[0].length;
  }
  out.push(text.slice(from));
  // "keg -> barrel. everywhere": where nothing else is said, it is meant of the whole.
  return out
    .map(tidy)
    .filter((part) => /[\p{L}\p{N}]/u.test(part) && !/^(?:everywhere|throughout)$/i.test(part));
}

/** What a note says of what must stay, or of what holds its wish back: never left unread. */
const HOLDS =
  /\b(?:only|except|but not|unless|if|stays?|keep|leave|untouched|unchanged|as (?:it|they) (?:is|are)|same words|instead|without|exactly|at most|at least|no (?:more|less|fewer)|same|also|too$|both|likewise|the rest|others|whenever|wherever|everywhere)\b/i;
/** What asks for something, by its frame or by the verb that it begins with. */
const ASKS =
  /\b(?:please|could|can (?:you|we|i|it|this|that|the)|(?:would|will|might|may) (?:you|we|i|it|this|that|the)|wonder(?:ed|ing)?|should|must|needs?|want|would (?:like|love|prefer)|[’']d (?:like|love|prefer)|let[’']s|make sure|(?<!\b(?:i|we|you|they|people|listeners|viewers|who) )(?:don[’']t|do not)|(?:don[’']t|do not) (?:need|want)|how about|what about|suggest|prefer|rather)\b|->|→|=>/i;
/** What notes order, by its first word. */
const OWN_VERBS =
  'add|allow|ask|attribute|begin|break|bring|call|change|check|cite|close|condense|correct|cut|delete|divide|drop|end|expand|explain|finish|fix|give|have|insert|join|keep|kill|leave|lengthen|let|lock|lose|make|mark|mention|merge|move|name|omit|open|pause|put|remove|rename|repeat|replace|rephrase|restore|reword|rewrite|round|say|scrap|shorten|show|simplify|skip|slow|soften|speed|spell|split|start|stress|strike|swap|switch|take|tell|tighten|translate|trim|turn|undo|unlock|use|verify|write';
export const ORDER_WORDS = [...new Set([...OWN_VERBS.split('|'), ...FIRST_WORDS])].join('|');
const ORDERS = new RegExp(`^(?:and |then |also |now |so |ok(?:ay)?,? )*(?:${ORDER_WORDS})\\b`, 'i');
/** What leads from one wish to the next. */
export const NEXT = "(?:then |also |once (?:that|this)[’']s done,? |after (?:that|this),? )?";
/** Another order behind a joint: "…, and then lock both". */
export const ORDERED_BEHIND = new RegExp(`(?:,|;|\\band\\b) ${NEXT}(?:${ORDER_WORDS})\\b`, 'i');
/** A quantity is a wish in short: "30 sec", "2:30". */
const QUANTITY =
  /\b\d+(?:[.,:]\d+)?\s?(?:s|secs?|seconds?|mins?|minutes?|words?|wpm|%|per ?cent)\b|\b\d:\d\d\b/i;

/** Whether a clause asks for something: by its frame, by the verb it begins with, or by an amount. */
export const asksFor = (clause: string): boolean => ASKS.test(clause) || ORDERS.test(clause) || QUANTITY.test(clause); // prettier-ignore

/** Whether a sentence only says why, or is polite: it asks for nothing, holds nothing back and names no quantity. */
export function onlySays(part: string): boolean {
  const plain = masked(part);
  return !ASKS.test(plain) && !ORDERS.test(plain) && !HOLDS.test(plain) && !QUANTITY.test(plain) && !plain.includes(MASK);
} // prettier-ignore

/** A clause behind a comma that gives the reason: "…, we're recutting", "…, I do my own". */
const REASON_BEHIND =
  /,\s?(?:(?:as|because|since|cos|for) )?(?:i|we|they|he|she|it|that|this|there|you|nobody)(?:[’']| )[^\u0001]*$|,\s?(?:is|are|was|were) [^\u0001]*$/i;
const BEFORE_WISH = /^.*?,\s*(?:so|and so|therefore)\s+/i;

/** How participles of verbs of change are spelled otherwise than with -ed (Quirk et al. 1985, 3.11 ff., from memory). */
const IRREGULAR: Readonly<Record<string, string>> = {
  cut: 'cut', put: 'put', split: 'split', left: 'leave', told: 'tell', said: 'say', made: 'make', taken: 'take',
  given: 'give', kept: 'keep', brought: 'bring', written: 'write', begun: 'begin', lost: 'lose', spelt: 'spell',
  rewritten: 'rewrite', shown: 'show', broken: 'break', thrown: 'throw', struck: 'strike',
}; // prettier-ignore
function baseOf(participle: string): string | null {
  const p = participle.toLowerCase();
  if (IRREGULAR[p]) return IRREGULAR[p];
  if (!p.endsWith('ed') || p.length < 5) return null;
  const stem = p.slice(0, -2);
  if (/([bdgmnprt])\1$/.test(stem)) return stem.slice(0, -1);
  if (/i$/.test(stem)) return `${stem.slice(0, -1)}y`;
  return ORDERS.test(stem) ? stem : `${stem}e`;
}

/** Learners' comparatives and order of words: "make more short the part about X" (Swan 2005, from memory). */
const straight = (text: string): string =>
  text
    .replace(
      /\bmore (short|long|simple|slow|quick|quiet)\b/gi,
      (_, a: string) => `${a.toLowerCase()}${/e$/i.test(a) ? 'r' : 'er'}`,
    )
    .replace(/^(?:make|do) (shorter|longer|simpler|easier|slower) (?:the )?(\S.*?)$/i, 'make the $2 $1');

/** What is said of a place before the wish: "… is my best part". */
const SAYS_OF_IT = / (?:is|are|was|were|feels?|sounds?|runs?) .*$/is;

/** That it is meant of the whole script. */
const EVERYWHERE =
  /[,.]? (?:everywhere|throughout|always|all over|every time|in all places|(?:in )?all of (?:it|them))$/i;
/** A frame of asking, and the order that it stands for. */
const FRAMES: readonly (readonly [RegExp, (...found: string[]) => string | null])[] = [
  // "keg -> barrel", "'7 to 2' should read '7 to 3'"
  [/^([^>→:]+?) ?(?:->|→|=>) ?(\u0001+|[^>→,]{1,40}(?:, (?:everywhere|throughout|always|all over|every time|all of (?:it|them)))?)$/, (a, b) => `replace ${marked(a)} with ${marked(b.replace(EVERYWHERE, ''))}`],
  [/^(\u0001+) (?:should|must|ought to) (?:read|say|be) (\u0001+)$/s, (a, b) => `replace ${a} with ${b}`],
  // "dear reader, nope"; "the tide bit out"
  [/^(\u0001+),? (?:out|gone|nope|away|cut|off)$/, (a) => `leave out the words ${a}`],
  // "the line over the shot, 'A' as the very first thing"
  [/^(?:[^\u0001]*[^\u0001 ] )?(\u0001+) as the (?:very )?first (?:thing|line|sentence|words?)$/is, (a) => `move the line ${a} to the start`],
  // "two facts. Split after 'A'"
  [/^(?:in )?two sentences,? (?:split |cut |break )?after (\u0001+)$/is, (a) => `split after ${a}`],
  [/^(.+?),? (?:out|gone|nope|away|go away|off|can go|has to go|must go|needs to go)$/s, (a) => (ORDERS.test(a) ? null : `leave out ${a.replace(/^no /i, '')}`)],
  [/^(.+?),? cut$/s, (a) => (ORDERS.test(a) ? null : `leave out ${a}`)],
  // "2:30 tops", "max two minutes"
  [/^(?:it (?:should be|must be|is) )?(\d+:\d\d|\d+ ?(?:s|secs?|seconds|mins?|minutes)) (?:tops|max|maximum|at (?:the )?most|and no more)$/i, (a) => `bring everything under ${a}`],
  [/^(?:max(?:imum)?|no more than|at most|not over) (\d+:\d\d|\d+ ?(?:s|secs?|seconds|mins?|minutes))$/i, (a) => `bring everything under ${a}`],
  [/^(?:need|want|give me|make) an? (\d+)[ -]?(s|secs?|seconds?|mins?|minutes?)[ -]?(?:cut|version|edit)(?: of (?:this|it))?$/i, (a, b) => `bring everything under ${a} ${b}`],
  // "could the second part be left out", "the vote should be moved to the end"
  [/^(?:(?:could|can|should|might|may|would it be possible (?:for|to have)) )(.+?)(?: please| also| just)* be (\w+)(?: (out|up|down|off|back))?( .*)?$/is, (a, v, x, rest) => ordered(v, a, x, rest)],
  [/^(.+?) (?:should|could|can|must|has to|needs to|have to|need to|is to|are to)(?: please| also| just)* be (\w+)(?: (out|up|down|off|back))?( .*)?$/is, (a, v, x, rest) => ordered(v, a, x, rest)],
  // "the kiln part needs 6 seconds more air", "can the pots get 3 secs more"
  [/^(?:can |could |let )?(.+?) (?:gets?|have|has|needs?|takes?) ((?:about |another |some )?\d+(?:[.,]\d+)? ?(?:s|secs?|seconds)) (?:more|longer|extra|on top)(?: (?:air|time|room))?(?:, same words)?$/is, (a, n) => `give ${a.replace(SAYS_OF_IT, '')} ${n} more air`],
  [/^(.+?), give it ((?:about |another )?\d+(?:[.,]\d+)? ?(?:s|secs?|seconds)) (?:more|longer|extra)(?: (?:air|time|room))?(?:, same words)?$/is, (a, n) => `give ${a.replace(SAYS_OF_IT, '')} ${n} more air`],
  // "Title of the second part, I would like 'A'", "the title of part 2: 'A'"
  [/^(?:the )?(?:title|heading|name) of (.+?)(?:,|:|,? should be|,? must be|,? i would like) (\u0001+)(?: .*)?$/is, (a, b) => `rename ${a} to ${b}`],
  [/^(?:put|say|open|start|begin)(?: with)?(?: before (?:all|everything)| first| at the (?:start|top))?(?: an?)? ?(?:question|line|sentence)?,? (?:like|such as|namely|:)? ?(\u0001+)(?: (?:first|before (?:all|everything)|at the (?:very )?(?:start|top|beginning)|as the very first (?:thing|line)))?$/is, (a) => `start with the line ${a}`],
]; // prettier-ignore
const marked = (word: string) => (/^[\u0001'"“‘]/.test(word) ? word : `"${word.trim()}"`);
function ordered(participle: string, what: string, particle = '', rest = ''): string | null {
  const verb = baseOf(participle);
  return verb && ORDERS.test(verb) ? `${verb}${particle ? ` ${particle}` : ''} ${what}${rest}` : null;
}

/** A sentence as the orders that it may stand for, the nearest to its words first. */
export function formsOf(part: string): string[] {
  const forms = [part];
  const plain = bareNote(masked(part));
  const quotes = [...part.matchAll(QUOTED)].map((m) => `“${m[0].slice(1, -1)}”`);
  // Quotations stand for themselves while a frame is looked for, and go back in their order.
  const restored = (text: string) => {
    let n = 0;
    return text.replace(/\u0001+/g, () => quotes[n++] ?? '');
  };
  const short = [plain, plain.replace(REASON_BEHIND, ''), plain.replace(BEFORE_WISH, '')];
  for (const bare of [...new Set(short)]) {
    const text = straight(bare);
    if (bare !== plain && ASKS.test(plain.slice(bare.length)) && plain.startsWith(bare)) continue;
    if (text !== plain && text.trim()) forms.push(restored(text));
    for (const [frame, order] of FRAMES) {
      const m = frame.exec(text);
      const said = m && order(...m.slice(1));
      if (said) forms.push(restored(said));
    }
  }
  return [...new Set(forms.map((f) => f.replace(/\s+/g, ' ').trim()))].filter(Boolean);
}

/** So many letters a word must have before any slip in it is mended; in a shorter one only letters that changed places. */
const LONG = 5;
const SHORTEST = 3;
/** Whether two neighbouring letters of one word stand changed about in the other. */
function swapped(a: string, b: string): boolean {
  const i = [...a].findIndex((x, k) => x !== b[k]);
  return i >= 0 && a.length === b.length && a[i] === b[i + 1] && a[i + 1] === b[i] && a.slice(i + 2) === b.slice(i + 2);
} // prettier-ignore
/** Two words with one letter more, less, other or changed about: four in five slips of the pen (Damerau 1964). */
export function oneSlip(a: string, b: string): boolean {
  if (a === b || Math.abs(a.length - b.length) > 1) return false;
  let i = 0;
  while (i < a.length && a[i] === b[i]) i++;
  const [x, y] = [a.slice(i), b.slice(i)];
  return x.slice(1) === y || x === y.slice(1) || x.slice(1) === y.slice(1) || swapped(a, b);
}
/** A note with slips of the pen mended: words that neither the script nor any wish knows, one slip away from a single one that is known. */
export function withoutSlips(note: string, known: ReadonlySet<string>): string {
  return outside(note, (plain) =>
    plain.replace(/\p{L}+/gu, (word) => {
      const w = word.toLowerCase();
      if (known.has(w) || w.length < SHORTEST) return word;
      const near = [...known].filter((k) => (w.length < LONG ? swapped(w, k) : k.length >= LONG && oneSlip(w, k)));
      return near.length === 1 ? near[0] : word;
    }),
  ); // prettier-ignore
}
