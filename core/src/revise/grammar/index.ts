/** Notes whose words no pattern holds: read clause by clause, by act and roles, everything else left over. All wishes are read, or none. */
import { COURTESIES, bareNote } from '../bare.ts';
import { QUOTED, asksFor, partsOf } from '../plainly.ts';
import type { Amount, Request, ReviseContext, Scope } from '../types.ts';
import { actsIn, readAct, restBeside, together, wish, type ActId } from './acts.ts';
import { MASK, maskAt, rolesOf, type Quote, type Roles } from './roles.ts';

/** Where one clause ends and another may begin: not between the members of a list. */
const JOINTS = new RegExp(
  `\\s*,\\s+(?!(?:and\\s+|or\\s+)?(?:the\\s+)?(?:\\d|${MASK}|one\\b|two\\b|three\\b|four\\b|five\\b|six\\b|seven\\b|eight\\b|nine\\b|ten\\b))(?:and\\s+|but\\s+|then\\s+|so\\s+)*|\\s+(?:and|but|then)\\s+(?=(?:then |also |please |maybe |perhaps |could |can |let |if |once |after that |don['’]t )|(?:lock|unlock|move|put|cut|drop|delete|remove|lose|leave|keep|make|give|add|split|join|merge|swap|change|replace|call|rename|trim|shorten|close|end|open|start|take|bring|stop|pause|wait|skip|say|write|use|round|tell|get|kill)\\b)|\\s+[-–—]+\\s+|:\\s+|\\?\\s+`,
  'giu',
);
/** What must stay as it is: a wish about nothing that changes. */
const STAYS = /\b(?:stays?|keep|same words|untouched|unchanged|as (?:it|they|she|he) (?:is|are)|only there|other \p{L}+ as they are|leave \S+(?: just| exactly)? as|nothing else)\b/iu; // prettier-ignore
const POLITE = new RegExp(`^(?:please|${COURTESIES})$`, 'i');
/** What it is about was said before. */
const POINTS = /\b(?:it|that|this|them|those|these|both)\b/i;
/** "…, and one after": another pause at the same place. */
const ONE_MORE = /^(?:and )?(?:one|another|the same) (?:more )?(after|before)(?: (?:it|that))?$/i;
/** "do not round it": holds back, and asks for nothing. */
const REFUSES = /^(?:but |and )?(?:please )?(?:do not|don['’]t|never) /i;
/** "…, to cut on": what it is for. */
const PURPOSE = /^(?:to|so (?:that )?(?:i|we|they|it)|for) /i;
/** "is that a section of its own?" */
const WONDERS = /^(?:is|are|was|were|do|does|did|isn['’]t|why|who|how come|how am) /i;
/** "we'd be grateful if", and the second "if" of such a sentence. */
const HOPES =
  /\b(?:grateful|glad|happy|nice|great|good|lovely|helpful|wonderful|better|appreciate it|appreciated|love it|like it) if\b|(?<=\b(?:grateful|glad|happy|nice|great|good|lovely|helpful|wonderful|better|appreciate it|appreciated|love it|like it) if\b.*,? and )if\b/gi;
/** What makes a wish depend on something; not the courtesy "if possible". */
const DEPENDS = /\b(?:if|unless|only when|in case|provided)\b(?! (?:possible|you can|you could|you like|you don['’]t mind|that works|that['’]s|it works|it['’]s|ok|okay)\b)/i; // prettier-ignore

/** "The same for whatever is like it": of which nobody knows what it takes in. */
const ALIKE = /\b(?:same|likewise|also|too)\b/i;

/** Whether the script writes a word in capitals among words that it doesn't. */
const isAcronym = (word: string, { sections }: ReviseContext) =>
  sections.some((s) => s.lines.some((l) => new RegExp(`(?<![\\p{L}\\p{N}])${word}(?![\\p{L}\\p{N}])`, 'u').test(l.text) && /\p{Ll}{3}/u.test(l.text))); // prettier-ignore

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
  /** The first place that was named and isn't there, in words. */
  missing: string | null;
}
/** A sentence, its quotations masked. */
interface Sentence {
  text: string;
  quoted: readonly string[];
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
    missing: null,
  };
  for (const part of partsOf(note)) {
    const failure = readSentence(maskedSentence(part, context), reading);
    if (failure && failure !== 'unread') return failure;
    if (failure) return unread(reading);
  }
  return reading.requests.length ? { requests: reading.requests } : unread(reading);
}

const unread = ({ missing }: Reading): NoteRead => (missing === null ? null : { unknown: missing });

/** Quotations, and words in capitals that the script has, as letters of their own. */
function maskedSentence(part: string, context: ReviseContext): Sentence {
  const quoted: string[] = [];
  const mask = (words: string) => maskAt(quoted.push(words) - 1);
  const text = part
    .replace(/\p{Co}/gu, ' ')
    .replace(/\s*(?:\.{2,}|…)\s*/g, ' ')
    .replace(HOPES, 'please')
    .replace(QUOTED, (q) => mask(q.slice(1, -1).replace(/[.,]$/, '')))
    .replace(/(?<![\p{L}\p{N}'’-])\p{Lu}{2,}(?![\p{L}\p{N}-])/gu, (w) =>
      isAcronym(w, context) ? mask(w) : w,
    );
  return { text, quoted };
}

function readSentence(sentence: Sentence, reading: Reading): Failure | null {
  if (DEPENDS.test(sentence.text)) return 'unread';
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
    if (anotherRest(clause, reading) || (REFUSES.test(clause) && !acts.includes('lock'))) {
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
    if (bare && last !== null && acts.includes(last)) continue;
    const next = clauses[i + 1];
    const beside = next && !actsIn(next).length ? next : null;
    const read = firstRead(triesOf(clause, open, beside, rolesIn), rolesIn, reading);
    if (read && 'unknown' in read && asksFor(clause)) return read;
    if (!read || 'unknown' in read) {
      if (read) reading.missing ??= read.unknown;
      // A clause that only gives a reason may have the words of an act.
      if (asksFor(clause)) return 'unread';
      open.push(clause);
      continue;
    }
    reading.requests.push(...read.requests.filter((r) => !reading.requests.some((q) => alike(q, r))));
    last = read.act;
    if (beside && read.text.endsWith(beside)) taken = i + 1;
    asked = true;
    open = [];
  }
  // A wish that nothing was made of must not be lost.
  if (open.some((c) => asksFor(c)) || (!asked && ALIKE.test(sentence.text) && !STAYS.test(sentence.text)))
    return 'unread';
  if (asked) return null;
  if (asksFor(sentence.text) && !(STAYS.test(sentence.text) && reading.requests.length)) return 'unread';
  const { places, amounts, quotes } = rolesIn(sentence.text);
  reading.said = quotes.find((q) => q.said) ?? null;
  if (amounts[0] && !places.length)
    lasting(reading, amounts[0].amount, sentence.text.slice(amounts[0].start, amounts[0].end));
  if (places.length) reading.before = together(places, reading.context);
  return null;
}

/** A clause alone and with what stands beside it, the likeliest first. */
function triesOf(
  clause: string,
  open: readonly string[],
  beside: string | null,
  rolesIn: (text: string) => Roles,
): string[] {
  const joined = open.length ? [`${open.join(', ')}, ${clause}`] : [];
  const [own, around] = [rolesIn(clause), rolesIn(open.join(', '))];
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
): { requests: Request[]; act: ActId; text: string } | { unknown: string } | null {
  for (const text of texts) {
    const roles = rolesIn(text);
    for (const act of actsIn(text)) {
      const read = readAct(act, { ...reading, roles });
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
