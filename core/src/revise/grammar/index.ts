/** Notes whose words no pattern holds: read clause by clause, by act and roles, everything else left over. All wishes are read, or none. */
import { COURTESIES, bareNote } from '../bare.ts';
import { ORDER_WORDS, asksFor, partsOf } from '../plainly.ts';
import type { Amount, Request, ReviseContext, Scope } from '../types.ts';
import { actsIn, type ActId } from './actWords.ts';
import { readAct, restBeside, titleWish, wish } from './acts.ts';
import { lineSaying, plainWords } from '../said.ts';
import { scopeOf } from '../scope.ts';
import { together } from './spots.ts';
import { isAcronym, maskedSentence, saysWord, spoken, type Sentence } from './masked.ts';
import { MASK, maskedAt, rolesOf, type Quote, type Roles } from './roles.ts';

/** Where one clause ends and another may begin: not between the members of a list. */
const JOINTS = new RegExp(
  `\\s*,\\s+(?!(?:and\\s+|or\\s+)?(?:the\\s+)?(?:\\d|${MASK}|one\\b|two\\b|three\\b|four\\b|five\\b|six\\b|seven\\b|eight\\b|nine\\b|ten\\b))(?:and\\s+|but\\s+|then\\s+|so\\s+)*|\\s+(?:and|but|then)\\s+(?=(?:then |also |please |maybe |perhaps |could |can |let |if |once |after that |don['’]t )|(?:${ORDER_WORDS})\\b)|\\s+[-–—]+\\s+|:\\s+|\\?\\s+`,
  'giu',
);
/** What must stay as it is: a wish about nothing that changes. */
const STAYS = /\b(?:stays?|keep|same words|untouched|unchanged|as (?:it|they|she|he) (?:is|are)|only there|other \p{L}+ as they are|leave \S+(?: just| exactly)? as|nothing else)\b/iu; // prettier-ignore
const POLITE = new RegExp(`^(?:please|${COURTESIES})$`, 'i');
/** What it is about was said before. */
const POINTS = /\b(?:it|that|this|them|those|these|both)\b/i;
/** "…, before the cow": where it is to go, behind a comma. */
const WHERE = /^(?:right |just |directly )?(?:before|after|behind|to the|at the) /i;
/** "…, and one after": another pause at the same place. */
const ONE_MORE = /^(?:and )?(?:one|another|the same) (?:more )?(after|before)(?: (?:it|that))?$/i;
/** "do not round it": holds back, and asks for nothing. */
const REFUSES = /^(?:but |and )?(?:please )?(?:do not|don['’]t|never) /i;
/** "do not say slane, say …" */
const UNSAID = /\b(?:do not|don['’]t|never|not|no longer) (?:say|use|call|write|mention)\b/i;
/** "…, to cut on": what it is for. */
const PURPOSE = /^(?:to|so (?:that )?(?:i|we|they|it)|for) /i;
/** "is that a section of its own?" */
const WONDERS =
  /^(?:is|are|was|were|does|did|isn['’]t|why|who|how come|how am|do (?:you|we|i|they|people)) /i;
/** What makes a wish depend on something; not the courtesy "if possible". */
const DEPENDS = /\b(?:(?<!\bas )if|unless|only when|in case|provided)\b(?! (?:possible|you can|you could|you like|you don['’]t mind|that works|that['’]s|it works|it['’]s|ok|okay)\b)/i; // prettier-ignore

/** "Remove it or attribute it": the choice is somebody's. */
const EITHER = new RegExp(
  `(?:^|, )(?:please )?(?:${ORDER_WORDS})\\b[^,]* or (?:else )?(?:${ORDER_WORDS})\\b|\\bor (?:go|else)\\b`,
  'iu',
);

/** "The same for whatever is like it": of which nobody knows what it takes in. */
const ALIKE = /\b(?:same|likewise|also)\b|\btoo\b(?=$|[,.;])/i;

export type NoteRead = { requests: Request[] } | { unknown: string } | null;

/** Figures that a note says must not change: those of its sentences that say so. */
const keptIn = (note: string): string[] =>
  note
    .split(/(?<=[.;!?])\s+|, (?=while|but)/)
    .filter(
      (s) =>
        /\b(?:do not|don['’]t|not|stays?|keep|exact(?:ly)?|as (?:it|they) (?:is|are))\b/i.test(s) &&
        !/\b(?:no|without) decimals?\b/i.test(s),
    )
    .flatMap((s) => s.match(/\d[\d.,:]*\d|\d/g) ?? []);

/** "say OIHC in full, it's Outer Isles Harbour Commission": an acronym, and words of the note that begin with its letters. */
function inFull(note: string, context: ReviseContext): Request[] | null {
  if (
    !/\b(?:(?:write|spell|say|read|give) (?:it |that |this |\p{Lu}+ )?(?:out|in full)|in full|full name|stands? for|means)\b/iu.test(
      note,
    )
  )
    return null;
  for (const [word] of note.matchAll(/(?<![\p{L}\p{N}])\p{Lu}{2,6}(?![\p{L}\p{N}])/gu)) {
    if (
      !isAcronym(word, context) &&
      !context.sections.some((s) => s.lines.some((l) => l.text.includes(word)))
    )
      continue;
    const words = [...word].map((c) => `${c}[\\p{L}’'-]*`).join('(?: (?:of|the|and|for|in))? ');
    const full = new RegExp(`(?<![\\p{L}])${words}(?![\\p{L}])`, 'iu').exec(note.replace(word, ''))?.[0];
    if (full) return [wish('replace-text', context, { text: word, by: full })];
  }
  return null;
}

/** What has been read of a note so far. */
interface Reading {
  context: ReviseContext;
  requests: Request[];
  kept: readonly string[];
  /** What the wish, or the sentence, before was about. */
  before: Scope | null;
  /** Words that the sentence before quoted. */
  said: Quote | null;
  /** The sentence before, as it was written. */
  stated: string | null;
  /** The first place that was named and isn't there, in words. */
  missing: string | null;
  /** Quotations that the script lacks, of sentences that nothing was made of: what they are for must come out later. */
  loose: string[];
}
/** Why a note can't be read: a place that isn't there, or nothing that can be said. */
type Failure = { unknown: string } | 'unread';

/** Reads a note; null where a wish of it can't be read. */
export function readNote(note: string, context: ReviseContext): NoteRead {
  const full = inFull(note, context);
  if (full) return { requests: full };
  const reading: Reading = {
    context,
    requests: [],
    kept: keptIn(note),
    before: null,
    said: null,
    stated: null,
    missing: null,
    loose: [],
  };
  for (const part of partsOf(note)) {
    const failure = readSentence(maskedSentence(part, context), reading);
    reading.stated = part;
    if (failure && failure !== 'unread') return failure;
    if (failure) return unread(reading);
  }
  if (reading.loose.some((q) => !uses(reading.requests, q, context))) return unread(reading);
  return reading.requests.length ? { requests: reading.requests } : unread(reading);
}

/** Whether some wish has quoted words: as its own, or as its place. */
function uses(requests: readonly Request[], words: string, context: ReviseContext): boolean {
  const quoted = plainWords(words);
  const line = lineSaying(words, context.sections);
  const placeOf = (about: string) => {
    const at = scopeOf(about, context);
    return 'scope' in at ? at.scope : null;
  };
  return requests.some(
    ({ slots, scope, where }) =>
      [...Object.values(slots), scope.says, where?.says ?? ''].some((s) => plainWords(s).includes(quoted)) ||
      Object.values(slots).some((s) => s && quoted.includes(plainWords(s))) ||
      ('line' in line && [scope, where?.scope, slots.about ? placeOf(slots.about) : null].some((s) => s?.lines.includes(line.line.id))),
  );
} // prettier-ignore

const unread = ({ missing }: Reading): NoteRead => (missing === null ? null : { unknown: missing });

function readSentence(sentence: Sentence, reading: Reading): Failure | null {
  if (DEPENDS.test(sentence.text) || EITHER.test(sentence.text)) return 'unread';
  const clauses = sentence.text
    .split(JOINTS)
    .map(bareNote)
    .filter((c) => c && !POLITE.test(c));
  /** Clauses that no wish has taken in yet. */
  let open: string[] = [];
  let asked = false;
  let last: ActId | null = null;
  // A clause is looked at alone and beside others: once, for as long as what is pointed at stays the same.
  let known: { before: Scope | null; roles: Map<string, Roles> } = {
    before: reading.before,
    roles: new Map(),
  };
  const rolesIn = (text: string): Roles => {
    if (known.before !== reading.before) known = { before: reading.before, roles: new Map() };
    const roles = known.roles.get(text) ?? rolesOf(text, sentence.quoted, reading.before, reading.context);
    known.roles.set(text, roles);
    return roles;
  };
  const pairs = pairsIn(sentence);
  if (pairs.length) {
    reading.requests.push(
      ...pairs.map(
        ([text, by]) =>
          renamed(text, by, sentence, reading.context) ?? wish('replace-text', reading.context, { text, by }),
      ),
    );
    return null;
  }
  let taken = -1;
  for (const [i, clause] of clauses.entries()) {
    if (i === taken) continue;
    const acts = actsIn(clause);
    if (
      STAYS.test(clause) &&
      (reading.requests.length || clauses.length > 1) &&
      acts.every((a) => a === 'lock')
    )
      continue;
    if (PURPOSE.test(clause) && reading.requests.length) continue;
    const unsaid = UNSAID.test(clause) ? rolesIn(clause).quotes.find((q) => q.said) : undefined;
    if (unsaid) {
      reading.said = unsaid;
      open.push(clause);
      continue;
    }
    if (
      anotherRest(clause, reading) ||
      (REFUSES.test(clause) && !acts.some((a) => a === 'lock' || a === 'names'))
    ) {
      asked = true;
      continue;
    }
    if (!acts.length || WONDERS.test(clause)) {
      open.push(clause);
      continue;
    }
    const own = rolesIn(clause);
    const bare = !own.places.length && !own.quotes.length && !own.amounts.length;
    // "…, leave more air": the same once more, with nothing of its own.
    if (bare && last !== null && acts.includes(last) && !/\d/.test(clause)) continue;
    const next = clauses[i + 1];
    const beside = next && (!actsIn(next).length || WHERE.test(next)) ? next : null;
    const read = firstRead(triesOf(clause, open, beside, rolesIn), rolesIn, reading, open.at(-1) ?? null);
    if (read && 'unknown' in read && asksFor(clause)) return read;
    if (!read || 'unknown' in read) {
      if (read) reading.missing ??= read.unknown;
      // A clause that only gives a reason may have the words of an act.
      if (asksFor(clause)) return 'unread';
      open.push(clause);
      continue;
    }
    // "Part four is too long, can it be 8 seconds shorter?": of two the one that says how much.
    reading.requests = reading.requests.filter((q) => q.amount || !read.requests.some((r) => (r.amount || r.operation.id === 'pace') && r.operation === q.operation && r.scope.lines.join() === q.scope.lines.join())); // prettier-ignore
    reading.requests.push(...read.requests.filter((r) => !reading.requests.some((q) => alike(q, r))));
    last = read.act;
    if (beside && read.text.endsWith(beside)) taken = i + 1;
    asked = true;
    open = [];
  }
  // A place is no wish, though it has a time or a number; figures of the script are spoken of.
  const wishes = (text: string) => {
    const beside = rolesIn(text).places.reduceRight(
      (t, p) => `${t.slice(0, p.start)} ${t.slice(p.end)}`,
      text,
    );
    return asksFor(beside.replace(/\d[\d.,:]*\d|\d/g, (n) => (saysWord(n, reading.context) ? 'so many' : n)));
  };
  // A wish that nothing was made of must not be lost.
  if (open.some(wishes) || (!asked && ALIKE.test(sentence.text) && !STAYS.test(sentence.text)))
    return 'unread';
  const quotations = sentence.quoted.slice(0, sentence.marked);
  if (asked) {
    // Nor is an amount: one that nothing has was how much of something.
    const { amounts: named } = rolesIn(sentence.text);
    if (
      named.length &&
      !reading.requests.some((r) => r.amount || r.slots.amount || r.slots.n || r.operation.id === 'round')
    )
      return 'unread';
    // Quoted words are never said for nothing: what nothing was made of was a wish of its own.
    return quotations.some((q) => q !== reading.said?.words && !uses(reading.requests, q, reading.context)) ? 'unread' : null; // prettier-ignore
  }
  if (pairOf(sentence, rolesIn, reading)) return null;
  reading.loose.push(...quotations.filter((q) => !spoken(q, reading.context)));
  const { places, amounts, quotes } = rolesIn(sentence.text);
  if (wishes(sentence.text) && !(STAYS.test(sentence.text) && reading.requests.length)) return 'unread';
  reading.said = quotes.find((q) => q.said) ?? null;
  if (amounts[0] && !places.length)
    lasting(reading, amounts[0].amount, sentence.text.slice(amounts[0].start, amounts[0].end));
  if (places.length) reading.before = together(places, reading.context);
  return null;
}

const BARE_QUOTE = new RegExp(
  `^\\W*(?:(?:maybe|perhaps|just|better|rather|or|more like|please|try|simply|so) )*${MASK}(?:,? (?:please|instead|maybe|perhaps|then|is (?:better|enough|fine)|works|will do|would do))*\\W*$`,
  'iu',
);
/** "I can't say 'A' with a straight face, 'B'?": words of the script, and others beside them, without a verb of change. */
function pairOf(sentence: Sentence, rolesIn: (text: string) => Roles, reading: Reading): boolean {
  const quotations = sentence.quoted.slice(0, sentence.marked);
  // "The title's boring. 'Eleven centuries'": what it could be called.
  if (
    quotations.length === 1 &&
    new RegExp(`^\\W*${MASK}\\W*$`, 'u').test(sentence.text) &&
    /\b(?:title|heading)\b/i.test(reading.stated ?? '')
  ) {
    const s =
      reading.before?.sections.length === 1 &&
      reading.context.sections.find((x) => x.id === reading.before!.sections[0]);
    reading.requests.push(
      s ? titleWish(s, quotations[0]) : wish('retitle', reading.context, { text: quotations[0] }),
    );
    return true;
  }
  // "'Radiocarbon' trips me up. 'Carbon dating', please": what is said is followed by what is to be.
  if (
    quotations.length === 1 &&
    reading.said &&
    BARE_QUOTE.test(sentence.text) &&
    !spoken(quotations[0], reading.context)
  ) {
    reading.requests.push(
      wish('replace-text', reading.context, { text: reading.said.words, by: quotations[0] }),
    );
    return true;
  }
  if (sentence.quoted.length !== 2 || actsIn(sentence.text).some((a) => a !== 'replace')) return false;
  if (sentence.quoted.filter((q) => spoken(q, reading.context)).length !== 1) return false;
  const read = readAct('replace', { ...reading, roles: rolesIn(sentence.text) });
  if (!Array.isArray(read)) return false;
  reading.requests.push(...read);
  return true;
}

/** Words that are a section's title, where titles are spoken of or no line has them. */
function renamed(title: string, text: string, sentence: Sentence, context: ReviseContext): Request | null {
  const s = context.sections.find((x) => plainWords(x.title) === plainWords(title));
  const meant = /\b(?:rename|retitle|titles?|headings?)\b/i.test(sentence.text);
  return s && (meant || !spoken(title, context)) ? titleWish(s, text) : null;
}
const PAIR = new RegExp(
  `(${MASK})\\s*(?:->|→|=>|to|into|should (?:be|read)|reads?|becomes?)\\s*(${MASK})`,
  'gu',
);
/** "'A' -> 'B', and 'C' -> 'D'": words for others and nothing else. */
function pairsIn({ text, quoted }: Sentence): [string, string][] {
  const rest = text.replace(PAIR, ' ').replace(/[\s,;:&]+|\b(?:and|also|please|change|rename|retitle|replace|everywhere|but|titles?|headings?|:)\b/giu, '');
  if (rest) return [];
  return [...text.matchAll(PAIR)].map((m) => [quoted[maskedAt(m[1])], quoted[maskedAt(m[2])]]);
} // prettier-ignore

/** "give the year first": it has something of its own to do, and isn't about what was said before. */
const OBJECT =
  /^(?:and |but |then |so )*\p{L}+ (?:the|his|her|their|our|your|its) (?!(?:end|start|top|beginning|bottom|words?|phrase|name|title|same|wording|length|time|rest|order|line|sentence|section|part|paragraph|bit)\b)\p{L}+/iu;
/** A clause alone and with what stands beside it, the likeliest first. */
function triesOf(
  clause: string,
  open: readonly string[],
  beside: string | null,
  rolesIn: (text: string) => Roles,
): string[] {
  const joined = open.length ? [`${open.join(', ')}, ${clause}`] : [];
  const [own, around] = [rolesIn(clause), rolesIn(open.join(', '))];
  if (!own.places.length && !POINTS.test(clause) && OBJECT.test(clause)) return beside ? [clause, `${clause}, ${beside}`] : [clause]; // prettier-ignore
  // A place beside it is where it is wished, unless it names one itself.
  const placed = !own.places.length && (around.places.length > 0 || around.missing !== null);
  const first = POINTS.test(clause) || placed ? [...joined, clause] : [clause, ...joined];
  if (!beside) return first;
  // "…, by 4 seconds": how much, behind its comma.
  const measured = !own.amounts.length && rolesIn(beside).amounts.length > 0;
  const both = `${clause}, ${beside}`;
  return measured ? [both, ...first] : [...first, both];
}

/** The first of several texts, and of their acts, that a wish can be made of. */
function firstRead(
  texts: readonly string[],
  rolesIn: (text: string) => Roles,
  reading: Reading,
  beside: string | null,
): { requests: Request[]; act: ActId; text: string } | { unknown: string } | null {
  for (const text of texts) {
    const roles = rolesIn(text);
    for (const act of actsIn(text)) {
      const read = readAct(act, { ...reading, roles, ...(beside ? { stated: beside } : {}) });
      if (!read) continue;
      if (!Array.isArray(read)) return read;
      const { scope } = read.at(-1)!;
      reading.before = scope.type === 'whole' ? (roles.places[0]?.scope ?? reading.before) : scope;
      return { requests: read, act, text };
    }
  }
  return null;
}

/** "…, and one after": adds it; false where the clause says no such thing. */
function anotherRest(clause: string, { requests, before, context }: Reading): boolean {
  const side = ONE_MORE.exec(clause)?.[1]?.toLowerCase();
  if (!side || !before || !requests.at(-1)?.operation.id.startsWith('rest')) return false;
  requests.push(restBeside(side === 'before' ? 'before' : 'after', before, context));
  return true;
}
/** "A second each": how long the rests are to be that were wished before. */
function lasting({ requests }: Reading, amount: Amount, words: string): void {
  for (const [i, r] of requests.entries())
    if (/^rest/.test(r.operation.id) && !r.amount)
      requests[i] = { ...r, amount, slots: { ...r.slots, amount: words } };
}
const alike = (a: Request, b: Request) =>
  a.operation === b.operation &&
  a.scope.says === b.scope.says &&
  JSON.stringify(a.slots) === JSON.stringify(b.slots);
