/** A note in plain words → requests: by patterns that hold for the whole note, else by its sentences and clauses (`plainly.ts`, `grammar/`). */
import { amountOf } from './amount.ts';
import { lineSaying } from './said.ts';
import { scopeOf, secondOf, whereOf, wholeScope } from './scope.ts';
import type { Amount, Operation, Request, ReviseContext, Scope } from './types.ts';
import { OPERATIONS } from './ops/index.ts';
import { bareNote } from './bare.ts';
import { CLOSED } from '../language/closed.ts';
import { readNote, type NoteRead } from './grammar/index.ts';
import { FIRST_WORDS } from './grammar/verbs.ts';
import { NEXT, ORDERED_BEHIND, ORDER_WORDS, formsOf, onlySays, partsOf, withoutSlips } from './plainly.ts';

export type Understood = { requests: Request[] } | { asks: string; took: string | null; nearest: string[] };

/** A pattern with slots → a regular expression. Slots in quotation marks may hold anything. */
const SLOT: Readonly<Record<string, string>> = {
  text: '[“"‘\'](?<text>.+?)[”"’\']',
  word: '[“"‘\']?(?<word>[\\p{L}’-]+(?: [\\p{L}’-]+){0,3}?)[”"’\']?',
  by: '[“"‘\']?(?<by>[\\p{L}’-]+(?: [\\p{L}’-]+){0,3}?)[”"’\']?',
  n: '(?<n>\\d+(?:[.,]\\d+)?|a|an|one|two|three|four|five|six|seven|eight|nine|ten|half a)',
  amount:
    '(?<amount>(?:(?:by|to|about|around|in|some|roughly|only|just) )*(?:\\d[\\d.,]*|an?|half|halve|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|fifteen|twenty|thirty|forty|fifty|sixty|ninety|slightly|somewhat|much|way|far)\\b[^“”"]*?)',
  scope: '(?<scope>.+?)',
  where:
    '(?<where>(?:(?:right|just|directly) )?(?:to|at|into|before|after|behind|below|above|in front of|under|ahead of|following|(?:first|last|up first|up front)$)\\b[^“”"]*?)',
  about: '(?<about>[^“”"]+?)',
  until: '[“"‘\'](?<until>.+?)[”"’\']',
};
const compiled = new Map<string, RegExp>();
function regexOf(pattern: string): RegExp {
  let made = compiled.get(pattern);
  if (!made) {
    made = new RegExp(`^(?:${pattern.replace(/\{([a-z]+)\}/g, (_, slot: string) => SLOT[slot])})$`, 'iu');
    compiled.set(pattern, made);
  }
  return made;
}

/** An amount as the note has it: "ten seconds shorter" is by how much, "ten seconds" to how much. */
function amountIn(note: string, words: string): Amount | null {
  const amount = amountOf(words);
  const behind = note.slice(note.indexOf(words) + words.length);
  return amount?.type === 'to' && /^ (?:shorter|longer|less|more|off)\b/i.test(behind) ? { ...amount, type: 'by' } : amount; // prettier-ignore
}

const QUOTES_FIRST = /^(?:the (?:words?|phrase) )?["“'‘]/i;
const TWO_QUOTES = /[”"’'][\s,.].*\s[“"‘']/;
const VERBLESS = '{scope} {where}(?:, please)?';
const NO_NAME = new RegExp(
  `^(?:could|can|should|would|might|may|it|i|we|they|he|she|you|please|${ORDER_WORDS})\\b`,
  'i',
);
const INTO_ONE = /\b(?:one|a single) sentence$/i;
const PRONOUN = /^(?:i|we|you|he|she|they|it|one|me|us|my|our|your)$/i;
const OWN_LINES: ReadonlySet<string> = new Set(['open-line', 'close-line', 'add-line']);
const CLOCK = /^\d+:\d\d$/;

type Read = { request: Request } | { unknown: string; operation: Operation } | null;

function readWith(operation: Operation, note: string, context: ReviseContext): Read {
  let failed: Read = null;
  for (const pattern of operation.patterns) {
    const m = regexOf(pattern).exec(note);
    if (!m) continue;
    const slots = Object.fromEntries(
      Object.entries(m.groups ?? {}).filter((e): e is [string, string] => e[1] !== undefined),
    );
    // "could it stop after …": no verb of moving, and no name either.
    if (pattern === VERBLESS && NO_NAME.test(slots.scope ?? '')) continue;
    // Two quotations are no one text.
    if (slots.text && TWO_QUOTES.test(slots.text)) continue;
    const amount = slots.amount === undefined ? null : amountIn(note, slots.amount);
    if (slots.amount !== undefined && !amount) continue;
    // "1:46 to 1:54" is a stretch, not one place and its length.
    if (CLOCK.test(slots.scope ?? '') && CLOCK.test(amount?.says ?? '')) continue;
    // Quoted words within a line are words to leave out; those that the script says are no line of somebody's own.
    if (operation.id === 'drop' && QUOTES_FIRST.test(slots.scope ?? '')) continue;
    if (OWN_LINES.has(operation.id) && slots.text && 'line' in lineSaying(slots.text, context.sections))
      continue;
    // One person for another is more than a word for another.
    if (operation.id === 'replace-word' && PRONOUN.test(slots.word ?? '')) continue;
    // "merge A and B into one sentence" is more than to put them into one line.
    if (operation.id === 'join' && INTO_ONE.test(slots.about ?? '')) continue;
    // What is named second ends where another wish begins.
    if (slots.about && ORDERED_BEHIND.test(slots.about)) continue;
    const beside = operation.id === 'rest-before' ? scopeOf(slots.about ?? '', context) : null;
    if (beside && 'unknown' in beside) {
      failed ??= { unknown: beside.unknown, operation };
      continue;
    }
    const where = slots.where === undefined ? null : whereOf(slots.where, context);
    if (where && 'unknown' in where) {
      failed ??= { unknown: where.unknown, operation };
      continue;
    }
    // "it" is the whole where a change is mostly asked of the whole, unless words are marked.
    const unsaid =
      slots.scope === undefined || (/^it$/i.test(slots.scope) && operation.otherwise !== 'selection');
    const scope = unsaid ? defaultScope(operation, context) : scopeOf(slots.scope, context);
    if ('unknown' in scope) {
      failed ??= { unknown: scope.unknown, operation };
      continue;
    }
    return { request: { operation, scope: scope.scope, amount, slots, where } };
  }
  return failed;
}

function defaultScope(operation: Operation, context: ReviseContext): { scope: Scope } | { unknown: string } {
  const { sections, selection } = context;
  if (operation.otherwise === 'opening') return scopeOf('the opening', context);
  if (operation.otherwise === 'ending') return scopeOf('the ending', context);
  if (operation.otherwise === 'whole')
    return selection?.marked ? scopeOf('this', context) : { scope: wholeScope(sections) };
  return scopeOf('this', context);
}

/** Reads one clause: the first operation all of whose parts are found. */
function readClause(note: string, context: ReviseContext): Read {
  let failed: Read = null;
  for (const operation of OPERATIONS) {
    const read = readWith(operation, note, context);
    if (read && 'request' in read) return read;
    failed ??= read;
  }
  return failed;
}

const JOINTS = new RegExp(
  `\\s*;\\s*|(?:\\s*,)?\\s+and ${NEXT}\\s*|\\s*,\\s*(?:then\\s+)?|\\s*\\.\\s+(?:then\\s+)?`,
  'i',
);

/**
 * What a note asks for: all of its wishes, or none. As it is written, else by its sentences or its clauses, whichever leaves fewer
 * wishes out; what gives a reason or is polite is let go. Slips of the pen are mended last.
 */
export function understand(note: string, context: ReviseContext): Understood {
  const direct = asWritten(note, context);
  if ('requests' in direct) return direct;
  const acts = readNote(note, context);
  const read = fuller(byParts(note, context), acts);
  if (read) return read;
  const mended = withoutSlips(note, knownWords(context));
  if (mended !== note) {
    const again = asWritten(mended, context);
    if ('requests' in again) return again;
    const parts = fuller(byParts(mended, context), readNote(mended, context));
    if (parts) return parts;
  }
  return acts && 'unknown' in acts ? { ...direct, asks: acts.unknown } : direct;
}

/** Of two readings the one that leaves fewer wishes out. */
function fuller(parts: Understood | null, acts: NoteRead): Understood | null {
  const byActs = acts && 'requests' in acts ? acts : null;
  const wishes = (u: Understood | null) => (u && 'requests' in u ? u.requests.length : 0);
  return wishes(byActs) > wishes(parts) ? byActs : parts;
}

/** Sentence by sentence, each in the first of its forms that can be read; null where one that asks can't be. */
function byParts(note: string, context: ReviseContext): Understood | null {
  const requests: Request[] = [];
  for (const part of partsOf(note)) {
    const read = formsOf(part)
      .map((form) => asWritten(form, context))
      .find((u) => 'requests' in u);
    if (read && 'requests' in read) requests.push(...read.requests);
    else if (!onlySays(part)) return null;
  }
  return requests.length ? { requests } : null;
}

/** Words that the script, its titles or a wish may have. */
function knownWords({ sections }: ReviseContext): ReadonlySet<string> {
  const script = sections.map((s) => `${s.title} ${s.lines.map((l) => l.text).join(' ')}`).join(' ');
  const wishes = OPERATIONS.flatMap((o) => o.patterns).join(' ').replace(/\{\w+\}|\?<\w+>|\\./g, ' '); // prettier-ignore
  return new Set(
    `${script} ${wishes} ${PLACES} ${FIRST_WORDS.join(' ')} ${[...CLOSED].join(' ')}`
      .toLowerCase()
      .match(/\p{L}+/gu) ?? [],
  );
}
const PLACES =
  'whole thing section paragraph sentence opening ending beginning second third fourth fifth sixth seventh eighth ninth tenth before after everything please shorter longer simpler question quotation';

/**
 * A note as it stands. Two wishes joined by "and" are both read, or neither. `unread`: ends of the note that were tried and can't be
 * read, each with what it points at, so that twenty joints aren't tried in a million ways.
 */
function asWritten(note: string, context: ReviseContext, unread = new Map<string, Understood>()): Understood {
  const bare = bareNote(note);
  if (!bare) return { asks: 'Nothing was asked for.', took: null, nearest: [] };
  const key = `${bare}\n${context.selection?.lines.join() ?? ''}`;
  const tried = unread.get(key);
  if (tried) return tried;
  const read = readClause(bare, context);
  if (read && 'request' in read) return { requests: [read.request] };
  // Outside quotation marks, at each joint in turn.
  for (let at = 1; at < bare.length; at++) {
    const m = JOINTS.exec(bare.slice(at));
    if (!m) break;
    const cut = at + m.index;
    const left = bare.slice(0, cut);
    const right = bareNote(bare.slice(cut + m[0].length));
    at = cut + Math.max(0, m[0].length - 1);
    if ((left.match(/[“"]/g)?.length ?? 0) % 2 && !left.includes('”')) continue;
    if (!left || !right) continue;
    const first = readClause(left, context);
    const rest =
      first && 'request' in first ? asWritten(right, pointedAt(right, first.request, context), unread) : null;
    if (first && 'request' in first && rest && 'requests' in rest)
      return { requests: [first.request, ...rest.requests] };
  }
  const failed = {
    asks: read ? read.unknown : 'I don’t know this change.',
    took: read ? read.operation.says : null,
    nearest: nearestOf(bare),
  };
  unread.set(key, failed);
  return failed;
}

const POINTS = /\b(?:it|both|them|those|these)\b/i;
/** "swap 4 and 5, then lock both": what the wish before was about is what the next one points at. */
function pointedAt(clause: string, { scope, slots, operation }: Request, context: ReviseContext): ReviseContext {
  if (!POINTS.test(clause) || scope.type === 'whole') return context;
  const other = operation.moves && slots.about ? secondOf(slots.about, context) : null;
  const lines = [...scope.lines, ...(other && 'scope' in other ? other.scope.lines : [])];
  return { ...context, selection: { lines, ...(scope.sections.length === 1 && !other ? { section: scope.sections[0] } : {}) } };
} // prettier-ignore

/** Operations whose own words the note shares, most first: what could be asked instead. */
function nearestOf(note: string): string[] {
  const words = new Set(note.toLowerCase().match(/\p{L}{3,}/gu) ?? []);
  return OPERATIONS.map((o) => ({
    says: o.says,
    n: new Set(
      o.patterns
        .flatMap((p) => p.toLowerCase().match(/\p{L}{3,}/gu) ?? [])
        .filter((w) => words.has(w) && !COMMON.has(w)),
    ).size,
  }))
    .filter((x) => x.n > 0)
    .sort((a, b) => b.n - a.n)
    .slice(0, 3)
    .map((x) => x.says);
}
const COMMON = new Set([
  'the',
  'and',
  'scope',
  'where',
  'amount',
  'text',
  'word',
  'about',
  'this',
  'that',
  'with',
  'for',
  'make',
  'into',
  'part',
  'section',
  'line',
]);
