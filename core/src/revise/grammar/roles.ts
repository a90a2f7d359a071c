/**
 * What stands in a clause of a note beside its verb: places of the script, quoted words, amounts. Found one by one wherever they
 * stand, so that what is said around them doesn't matter.
 */
import { amountOf } from '../amount.ts';
import { lineSaying, plainWords } from '../said.ts';
import { literal } from '../../language/literal.ts';
import { ORDER_WORDS } from '../plainly.ts';
import { escaped } from '../ops/cut.ts';
import { scopeOf, sectionScope } from '../scope.ts';
import { linesIn, type Amount, type ReviseContext, type Scope } from '../types.ts';

/** Each quotation is one letter of a private area while a clause is read. */
const FIRST_MASK = 0xe000;
export const MASK = '[\\uE000-\\uE0FF]';
export const maskAt = (i: number): string => String.fromCharCode(FIRST_MASK + i);
export const maskedAt = (letter: string) => letter.charCodeAt(0) - FIRST_MASK;

export type Side = 'before' | 'after';
export interface Place {
  start: number;
  end: number;
  says: string;
  scope: Scope;
  /** What stands before it: "after the bell", "before it". */
  side: Side | null;
  /** Whether it is named by what it tells of. */
  subject?: true;
}
export interface Quote {
  start: number;
  words: string;
  /** Whether the script has these words. */
  said: boolean;
}
export interface Quantity {
  start: number;
  end: number;
  amount: Amount;
}
export interface Roles {
  text: string;
  places: Place[];
  quotes: Quote[];
  amounts: Quantity[];
  /** A place that is named and isn't there, in words. */
  missing: string | null;
}

const COUNT = '(?:\\d{1,2}|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)';
const ORDINAL =
  '(?:first|second|third|fourth|fifth|sixth|seventh|eighth|ninth|tenth|\\d{1,2}(?:st|nd|rd|th)|last|final|penultimate|second to last|next to last)';
const PART = '(?:sections?|parts?|chapters?|paragraphs?|paras?|passages?|blocks?|segments?)';
const LINE = '(?:lines?|sentences?)';
/** What notes call a stretch whose subject they name. */
const STRETCH = '(?:(?:bit|stuff|thing|story|scene|episode|moment|joke|anecdote|business|caption|quote|quotation|question|detail)s?|figure|number)'; // prettier-ignore
const KIND = `(?:${PART}|${LINE}|${STRETCH}|one)`;
const WORD = "[\\p{L}\\p{N}][\\p{L}\\p{N}'’-]*";
const ENDS_NAME =
  '(?=$|[,;:()?!.]|\\s(?:to|after|before|behind|into|right|just|directly|should|could|can|must|might|may|would|will|is|are|was|were|be|there|needs?|has|have|goes?|comes?|in half|by|at|as|please|first|last|instead|and|then|so|because|for|up|down|out|off|away|back(?=$|[,.;])|with a|with the title|longer|shorter|too|with|altogether|completely|entirely|here|everywhere)\\b)';
const SUBJECT = `(?!(?:and|then)\\b)${WORD}(?:\\s(?!(?:and|then)\\b)${WORD}){0,6}?`;

interface Pattern {
  regex: RegExp;
  /** A place that is so plainly named must be there. */
  plain: boolean;
  /** The phrase as a place is asked for. */
  phrase?: (m: RegExpMatchArray) => string;
}
const pattern = (source: string, plain: boolean, phrase?: Pattern['phrase']): Pattern => ({ regex: new RegExp(source, 'giu'), plain, ...(phrase ? { phrase } : {}) }); // prettier-ignore

const PATTERNS: readonly Pattern[] = [
  pattern(`\\b(?:the )?(?:whole (?:thing|script|text|film|video)|everything|all of it|throughout|everywhere)(?! (?:up )?(?:to|till?|until|after|before|from|behind)\\b)(?: (?:but|except|apart from|other than) (?:the )?${SUBJECT}${ENDS_NAME})?`, false),
  pattern('(?<!\\d)\\d+:[0-5]\\d ?(?:to|till|until|through|and|-|–) ?\\d+:[0-5]\\d', true),
  pattern('^\\d+:[0-5]\\d(?= (?:to|till|until|through) )', true),
  pattern('(?:at|from|around|the (?:bit|part|line|section|sentence) at|\\() ?(\\d+:[0-5]\\d)\\)?', true, (m) => m[1]),
  pattern(`\\b(?:the )?${PART} ${COUNT}(?:(?:,| and| &| to| through| till| until|-|–)+ ?(?:and )?${COUNT}\\b)*`, true, (m) => m[0].replace(/^the /i, '').replace(/^para(?:graph)?s?/i, 'section')),
  pattern(`\\b${LINE} ${COUNT}(?: (?:to|and|-|–) ${COUNT})?(?: (?:of|in) (?:the )?(?:${ORDINAL} ${PART}|${PART} ${COUNT}|opening|ending))?`, true),
  pattern(`(?<!\\p{L})l(\\d{1,3})\\b`, true, (m) => `line ${m[1]}`),
  pattern(`\\b(?:the )?(?:very )?(${ORDINAL}|opening|closing) (${LINE}|${PART}|${STRETCH})(?: (?:of|in) (?:the )?(?:${ORDINAL} ${PART}|${PART} ${COUNT}|opening|intro|ending|script|film|video|${WORD}(?: ${WORD})? ${PART}))?`, true, (m) => ordinal(m[0])),
  pattern(`\\b(?:the )?(${ORDINAL}) (?:and|&) (?:the )?(${ORDINAL}) (${PART})`, true, (m) => `section ${place(m[1])} and ${place(m[2])}`),
  pattern(`\\b(?:the )?(first|last) (\\d|two|three|four|five) (?:${LINE}|${PART})(?: (?:of|in) (?:the )?(?:${ORDINAL} ${PART}|${PART} ${COUNT}|opening|intro|ending|${MASK}))?`, true),
  pattern(`^(?!(?:the|that|this|his|her|their|your|our|a|an|in|at|to|of|${ORDER_WORDS})\\b)(?:(?!(?:and|before|after|to|in|at|the)\\b)${WORD} ){1,3}?(?:bit|stuff|thing|part|section|line|paragraph)\\b`, false, (m) => `the ${m[0]}`),
  pattern(`\\b(?:the |this |that |his |her |their |your |our |whole )*(?:${KIND}) (?!of (?:the )?(?:one|next|previous|following|section|its|their|his|her)\\b)(?:about|on|with|where|when|in which|of|that (?:mentions|says|tells)|that|which|who|how|mentioning|saying) (?:the )?${SUBJECT}${ENDS_NAME}`, true, (m) => m[0].replace(/^(?:the |this |that |whole )+/i, 'the ')),
  pattern(`\\b(?:the|that|this|his|her|their|your|our) (?:(?!(?:and|before|after|to|in|at|its)\\b)${WORD} ){1,5}?${KIND}\\b`, true),
  pattern(`\\b(?:the )?(?:one|${PART}|${LINE}) (?:right |just )?(?:after|before)(?: (?:it|that|this|them))?(?=$|[,.;?!]|\\s(?:should|could|can|must|into|as|become)\\b)|\\b(?:the )?(?:next|previous|following|preceding) (?:one|${PART}|${LINE})|\\bthe (?:next|previous|following|preceding)(?=$|[,.;?!])`, true),
  pattern(`(?<=\\b(?:after|before|behind) )${COUNT}\\b(?! ?(?:s|secs?|seconds?|words?|minutes?|mins?)\\b)`, false, (m) => `section ${m[0]}`),
  pattern(`\\babout (?:the )?${SUBJECT}${ENDS_NAME}`, false, (m) => `the line ${m[0]}`),
  pattern(`\\b(?:where|when) (?:he|she|they|it|we|I|you|the ${WORD}) ${SUBJECT}${ENDS_NAME}`, true, (m) => `the line about ${m[0].replace(/^(?:where|when) (?:(?:he|she|they|it|we|I|you) (?:says?|tells?|gets? to|talks? (?:of|about)|mentions?)?|the)/i, '')}`),
  pattern('\\b(?:the )?(?:very )?(?:opening|intro(?:duction)?|hook|cold open|ending|outro|conclusion|closing)\\b(?! (?:on|with)\\b)', false),
  pattern('(?<=\\b(?:in|of|from|shorten|trim|cut|make|redo) )(?:the )?(?:beginning|start|end)\\b(?! of)', false),
  pattern('\\b(?:it|them|both|those|these)\\b(?! \\p{L}+ing)|\\b(?:this|that)\\b(?=$|[,.;?!]| (?:to|at|after|before|up|down|out|off|away|back|into|in|by|one|please|too|should|could|can|must|go|goes|be|a|an|by)\\b)', false),
]; // prettier-ignore

const ORDINALS = 'first second third fourth fifth sixth seventh eighth ninth tenth'.split(' ');
const place = (word: string) =>
  /^\d/.test(word) ? parseInt(word, 10) : ORDINALS.indexOf(word.toLowerCase()) + 1;
const ordinal = (phrase: string) =>
  phrase
    .replace(/(\d{1,2})(?:st|nd|rd|th)\b/gi, (m, n: string) => ORDINALS[Number(n) - 1] ?? m)
    .replace(/^the very /i, 'the ')
    .replace(/^(?:the )?opening (?=lines?|sentences?)/i, 'first ')
    .replace(/^(?:the )?closing (?=lines?|sentences?)/i, 'last ');

/** A name without a word for what it names: behind "after", or before "should". */
const NAME = `(?:the |that |this |his |her |their |our |your |what |an? )?(?!(?:that|this|it|them|a|an|the)\\b)${SUBJECT}`;
const OWNED = `(?:the|that|this|his|her|their|our|your) (?!(?:words?|phrase|name|title|${KIND})\\b)${SUBJECT}`;
const BARE = new RegExp(
  `(\\b(?:after|before|behind|following) (?:right )?|\\b(?:clos(?:e|es|ing)|end(?:s|ing)?|finish(?:es)?|open(?:s|ing)?|start(?:s|ing)?|begin(?:s|ning)?|lead)(?: it| the \\p{L}+)? (?:on|with) )(${NAME})${ENDS_NAME}|(\\b(?:drop|cut|delete|remove|lose|kill|skip|strike|omit|move|put|bring|shift|shorten|trim|lock|split) )(${OWNED})${ENDS_NAME}|^(${OWNED})(?=\\s(?:should|must|could|can|needs?|has to|have to|might|goes|comes|belongs)\\b)`,
  'giu',
);

const SIDE = new RegExp(`\\b(after|behind|following|below|before|above|ahead of|in front of|leading (?:up )?to)\\s+(?:right |just )?(?:(?:what|where|when) (?:${WORD} ){0,4})?$`, 'iu'); // prettier-ignore
const FIRST_SIDE = /^(?:before|above|ahead|in front|leading)/i;
const BETWEEN = /^(?:\s*,)?\s*(?:up )?(?:to|till?|until|through|thru|[-–—])\s*(?:and including )?(?:the )?$/i;
/** "'A' and everything up to 'B'": B stays. */
const UP_TO =
  /^[\s,+]*(?:and |plus )?(?:everything|all) (?:that comes )?(?:up )?(?:to|till?|until|before)\s+(?:the )?$/i;

/** Notes' words for stretches as places are called. */
const inScopes = (phrase: string) => /\bwhole\b/i.test(phrase) ? phrase : phrase.replace(/\bparas?\b/gi, 'section').replace(new RegExp(`(?<=^the (?:.+ )?)(?:${STRETCH}|one)\\b(?= (?:about|on|with|where|when|of|that)\\b|$)`, 'iu'), 'bit'); // prettier-ignore

const sectionOf = (scope: Scope, { sections }: ReviseContext, last: boolean) =>
  sections.findIndex((s) => s.lines.some((l) => l.id === (last ? scope.lines.at(-1) : scope.lines[0])));

/** Lines from one place to another, both of them in it. */
function stretch(from: Scope, to: Scope, says: string, context: ReviseContext): Scope | null {
  const ids = linesIn(context.sections).map((l) => l.id);
  const [a, b] = [ids.indexOf(from.lines[0]), ids.indexOf(to.lines.at(-1)!)];
  if (a < 0 || b < a) return null;
  const lines = ids.slice(a, b + 1);
  if (from.type === 'sections' && to.type === 'sections') {
    const sections = context.sections.filter((s) => s.lines.some((l) => lines.includes(l.id))).map((s) => s.id);
    return { type: 'sections', says, sections, lines };
  }
  return { type: 'lines', says, sections: [], lines };
} // prettier-ignore

/** Lines from one place on, up to but not with another. */
function behindOf(from: Scope, to: Scope, says: string, { sections }: ReviseContext): Scope | null {
  const ids = linesIn(sections).map((l) => l.id);
  const lines = ids.slice(ids.indexOf(from.lines[0]), ids.indexOf(to.lines[0]));
  return lines.length ? { type: 'lines', says, sections: [], lines } : null;
}
const BEYOND = /\b(?:everything|all|whatever|what comes|nothing(?: more)?) (?:that )?(?:comes |is |stands )?(after|from|before|behind)\s+$/i; // prettier-ignore
/** "everything after the bell": all the lines on one side of a place. */
export function beyond(side: string, place: Scope, { sections }: ReviseContext): Scope | null {
  const ids = linesIn(sections).map((l) => l.id);
  const [first, last] = [ids.indexOf(place.lines[0]), ids.indexOf(place.lines.at(-1)!)];
  const lines = /before/i.test(side) ? ids.slice(0, first) : ids.slice(/from/i.test(side) ? first : last + 1);
  return lines.length
    ? { type: 'lines', says: `everything ${side} ${place.says}`, sections: [], lines }
    : null;
}

const SO_MANY = /\b(?:(two|both|2)|(three|3)) $/i;
/** "the two sentences about the council": where one tells of it, those behind it go on about it. */
function counted(lead: string, scope: Scope, { sections }: ReviseContext): Scope {
  const said = SO_MANY.exec(lead);
  const n = said ? (said[1] ? 2 : 3) : 0;
  if (scope.type !== 'lines' || scope.lines.length >= n) return scope;
  const all = sections.find((s) => s.lines.some((l) => l.id === scope.lines[0]))!.lines.map((l) => l.id);
  const lines = all.slice(all.indexOf(scope.lines[0]), all.indexOf(scope.lines[0]) + n);
  return lines.length === n ? { ...scope, lines } : scope;
}

/** The section after or before a place; of a line, the line. */
function neighbour(phrase: string, base: Scope, context: ReviseContext): Scope | null {
  const later = /after|next|following/i.test(phrase);
  if (base.type === 'lines' && !new RegExp(`\\b${PART}\\b`, 'i').test(phrase)) {
    const all = linesIn(context.sections);
    const at = all.findIndex((l) => l.id === (later ? base.lines.at(-1) : base.lines[0])) + (later ? 1 : -1);
    return all[at] ? { type: 'lines', says: phrase, sections: [], lines: [all[at].id] } : null;
  }
  const s = context.sections[sectionOf(base, context, later) + (later ? 1 : -1)];
  return s ? sectionScope(s) : null;
}

/** Titles of the script's sections that stand in a clause as they are written. */
function titled(text: string, { sections }: ReviseContext): Omit<Place, 'side'>[] {
  return sections.flatMap((s) => {
    const title = s.title.replace(/\s*\[.*?\]$/, '');
    if (!title || /^opening$/i.test(title)) return [];
    const at = text.search(new RegExp(`(?<![\\p{L}\\p{N}])${escaped(title)}(?![\\p{L}\\p{N}'’])`, title.includes(' ') ? 'iu' : 'u')); // prettier-ignore
    if (at < 0) return [];
    return [{ start: at, end: at + title.length, says: s.title, scope: sectionScope(s) }];
  });
}

const EACH_PART = new RegExp(
  `\\b(?:each|every|all(?: the)?) (?:ends? of (?:the )?)?${PART}|(?<=\\bbetween )(?:the |all (?:the )?)?(?:sections|parts|chapters|paragraphs|paras|passages|blocks|segments)\\b|\\b(?:section|paragraph|part) breaks\\b`,
  'giu',
);
const EACH_TIME = new RegExp(
  `\\b(?:each|every|all(?: the)?) (?:mention|use|time|instance|occurrence)s?(?: of| (?:we|i|you|it|he|she|they) (?:says?|mentions?))? (?:the )?(${SUBJECT})${ENDS_NAME}`,
  'giu',
);
/** "after every section", "each mention of the Bull": many places named as one. */
function eachOf(text: string, { sections }: ReviseContext): Omit<Place, 'side'>[] {
  const parts = [...text.matchAll(EACH_PART)].flatMap((m) =>
    sections.slice(0, -1).map((s) => ({ start: m.index, end: m.index + m[0].length, says: s.title, scope: sectionScope(s) })),
  );
  const times = [...text.matchAll(EACH_TIME)].flatMap((m) =>
    linesIn(sections)
      .filter((l) => new RegExp(`(?<!\\p{L})${literal(m[1])}(?!\\p{L})`, 'iu').test(l.text))
      .map((l) => ({ start: m.index, end: m.index + m[0].length, says: `“${m[1]}”`, scope: { type: 'lines' as const, says: `the line that says “${m[1]}”`, sections: [], lines: [l.id] } })),
  );
  return [...parts, ...times];
} // prettier-ignore
const POINTED = /^(?:it|them|both|those|these|this|that)$/i;
/** What stands between two places, not over them. */
const RESTS = /\b(?:pause|rest|beat|silence|gap|breath(?:er)?|quiet|nothing)s?\b/i;
const TWO = /\b(?:swap|switch|exchange|merge|join|combine|replace)\b/i;
const FIRST_NAMED = new RegExp(
  `^((?:the |that |this |his |her |their |our |your )?(?!(?:yes|no|ok|okay|also|please|then|so|and|but|i|we|it|they|you|he|she|there)\\b)${WORD}(?: (?!(?:is|are|was|were|has|have|should|could|can|must|to|and|please)\\b)${WORD}){0,3})(?: (?:is|was|sounds?|feels?|reads?) [^,]*)?, (?=.*\\b(?:it|that|this|them)\\b)`,
  'iu',
);
/** "the fan reveal, move it to the end": what is named first is what is pointed at, where a line or a section tells of it. */
function namedFirst(text: string, context: ReviseContext): Scope | null {
  const name = FIRST_NAMED.exec(text)?.[1];
  if (!name || new RegExp(MASK).test(name)) return null;
  const plain = name.replace(/^(?:the|that|this|his|her|their|our|your) /i, '');
  const titled = context.sections.some((s) => s.title.toLowerCase() === plain.toLowerCase());
  const result = scopeOf(
    titled || new RegExp(`\\b${KIND}\\b`, 'iu').test(name) ? name : `the line about ${plain}`,
    context,
  );
  return 'scope' in result ? result.scope : null;
}
/** Reads a clause, its quotations masked. `before`: what the wish before it was about. */
export function rolesOf(said: string, quoted: readonly string[], earlier: Scope | null, context: ReviseContext): Roles {
  const before = namedFirst(said, context) ?? earlier;
  const inside: ReviseContext = before
    ? { ...context, selection: { lines: before.lines, ...(before.sections.length === 1 ? { section: before.sections[0] } : {}) } }
    : context;
  // "swap A with B": here "with" says nothing of what A is about.
  const text = TWO.test(said) ? said.replace(/\bwith\b/gi, 'plus') : said;
  const found: Omit<Place, 'side'>[] = [];
  const sides = new Map<Omit<Place, 'side'>, Side>();
  let missing: string | null = null;
  const free = (start: number, end: number) => found.every((p) => end <= p.start || start >= p.end);
  const quotes: Quote[] = [];
  for (const m of text.matchAll(new RegExp(MASK, 'g'))) {
    const words = quoted[maskedAt(m[0])];
    const line = lineSaying(words, context.sections);
    const said = 'line' in line || line.times > 0;
    quotes.push({ start: m.index, words, said });
    const named = context.sections.find((s) => plainWords(s.title) === plainWords(words));
    const exact = context.sections.find((s) => s.title.replace(/\s*\[.*?\]$/, '') === words);
    if (exact && 'line' in line && line.line.text !== words) found.push({ start: m.index, end: m.index + 1, says: exact.title, scope: sectionScope(exact) });
    else if ('line' in line) found.push({ start: m.index, end: m.index + 1, says: `“${words}”`, scope: { type: 'lines', says: `the line “${words}”`, sections: [], lines: [line.line.id] } });
    else if (named) found.push({ start: m.index, end: m.index + 1, says: named.title, scope: sectionScope(named) });
  }
  const opening = new RegExp(`\\b${PART} (?:beginning|starting|opening|(?:that|which) (?:begins|starts|opens))(?: with| on| at)?:? (${MASK})`, 'giu');
  for (const m of text.matchAll(opening)) {
    const at = found.find((p) => p.start === m.index + m[0].length - 1);
    const own = at && context.sections.find((s) => s.lines.some((l) => l.id === at.scope.lines[0]));
    if (own) Object.assign(at, { says: own.title, scope: sectionScope(own) });
  }
  for (const p of titled(text, context)) if (free(p.start, p.end)) found.push(p);
  const unmask = (phrase: string) => phrase.replace(new RegExp(MASK, 'g'), (q) => `“${quoted[maskedAt(q)]}”`);
  for (const p of eachOf(text, context)) found.push(p);
  for (const { regex, plain, phrase } of PATTERNS)
    for (const m of text.matchAll(regex)) {
      // "the first two lines of 'The bell'": the title belongs to it.
      const titleAt = found.findIndex((p) => p.end === m.index + m[0].length && p.end - p.start === 1 && p.start > m.index);
      const freed = titleAt >= 0 ? found.splice(titleAt, 1) : [];
      if (!m[0].trim() || !free(m.index, m.index + m[0].length)) {
        found.push(...freed);
        continue;
      }
      const base = found.filter((p) => p.start < m.index).at(-1)?.scope ?? before;
      const says = inScopes(unmask(phrase ? phrase(m) : m[0]).trim());
      const relative = /^(?:the )?(?:[a-z]+ (?:right |just )?(?:after|before)\b(?: (?:it|that|this|them))?$|(?:next|previous|following|preceding)\b)/i.test(says);
      if (relative && !base) continue;
      // "the smell line should have room after it": it is where the room goes.
      const lead = POINTED.test(says) && !before && base ? SIDE.exec(text.slice(0, m.index))?.[1] : undefined;
      if (lead) {
        const own = found.filter((p) => p.start < m.index).at(-1)!;
        sides.set(own, FIRST_SIDE.test(lead) ? 'before' : 'after');
        continue;
      }
      const near = relative ? neighbour(says, base!, context) : before && POINTED.test(says) ? before : null;
      // "where it was reported": a verb's kin say little of what a line tells.
      const result = near ? { scope: near } : scopeOf(says, /^(?:where|when)\b/i.test(m[0]) ? { ...inside, kin: undefined } : inside);
      if ('scope' in result) found.push({ start: m.index, end: m.index + m[0].length, says, scope: counted(text.slice(0, m.index), result.scope, context), ...(/\b(?:bit|stuff|thing|story|joke|anecdote|business)s?\b/i.test(m[0]) ? { subject: true as const } : {}) });
      else {
        found.push(...freed);
        if (plain) missing ??= result.unknown;
      }
    }
  for (const m of text.matchAll(/(?<=\b(?:in|from|off|of) (?:the )?)\p{L}{4,}(?=$|[,.;])/giu)) {
    const part = context.sections.filter((s) => new RegExp(`\\b${m[0]}\\b`, 'iu').test(s.title));
    if (part.length === 1 && free(m.index, m.index + m[0].length)) found.push({ start: m.index, end: m.index + m[0].length, says: part[0].title, scope: sectionScope(part[0]) });
  }
  for (const m of text.matchAll(BARE)) {
    const lead = m[1] ?? m[3] ?? '';
    const name = m[2] ?? m[4] ?? m[5];
    const [at, end] = [m.index + lead.length, m.index + m[0].length];
    if (!free(at, end)) continue;
    const result = scopeOf(`the line about ${unmask(name)}`, inside);
    if ('scope' in result) found.push({ start: at, end, says: unmask(name), scope: result.scope, subject: true });
    else if (lead) missing ??= result.unknown;
  }
  found.sort((a, b) => a.start - b.start);
  const places: Place[] = [];
  for (const p of found) {
    const lead = text.slice(0, p.start).replace(/\b(?:the|that)\s+$/i, '');
    const last = places.at(-1);
    const from = last && /\b(?:from|between)\s+(?:the )?$/i.test(text.slice(0, last.start)) && !RESTS.test(text);
    const range = last && (BETWEEN.test(text.slice(last.end, p.start)) || (from && /^\s+and\s+(?:the )?$/i.test(text.slice(last.end, p.start))));
    const on = /\bfrom\s+$/i.test(lead) && /^ (?:on|onwards?|down|to the (?:very )?end)\b/i.test(text.slice(p.end));
    const upTo = last && UP_TO.test(text.slice(last.end, p.start)) ? behindOf(last.scope, p.scope, `${last.says} up to ${p.says}`, context) : null;
    if (upTo) {
      places[places.length - 1] = { ...last!, end: p.end, says: upTo.says, scope: upTo };
      continue;
    }
    const side = on ? 'from' : BEYOND.exec(lead)?.[1];
    const rest = side ? beyond(side, { ...p.scope, says: p.says }, context) : null;
    if (rest) {
      if (last?.scope.type === 'whole') places.pop();
      places.push({ ...p, scope: rest, says: rest.says, side: null });
      continue;
    }
    const whole = range && (from || !/\b(?:move|put|bring|shift|change|turn)\b/i.test(text)) ? stretch(last.scope, p.scope, `${last.says} to ${p.says}`, context) : null;
    if (whole) places[places.length - 1] = { ...last!, end: p.end, says: whole.says, scope: whole };
    else {
      const at = SIDE.exec(lead)?.[1];
      places.push({ ...p, side: sides.get(p) ?? (at ? (FIRST_SIDE.test(at) ? 'before' : 'after') : null) });
    }
  }
  const amounts: Quantity[] = [];
  for (const m of text.matchAll(AMOUNT)) {
    if (places.some((p) => m.index < p.end && m.index + m[0].length > p.start)) continue;
    const ellipsis = /^(?:one|two|three|four|five|half)$/i.test(m[0]) && amounts.length > 0;
    const more = /\b(?:more|extra)\b/i.test(m[0]);
    const read = amountOf((ellipsis ? `${m[0]}${/^half$/i.test(m[0]) ? ' a' : ''} seconds` : m[0]).replace(/^(?:a|one)(?= s)/i, '1').replace(/\b(?:more|extra) (?=s|m)/i, ''));
    const amount: Amount | null = read?.type === 'to' && more ? { ...read, type: 'by' } : read;
    if (amount) amounts.push({ start: m.index, end: m.index + m[0].length, amount });
  }
  return { text, places, quotes, amounts, missing };
} // prettier-ignore

const AMOUNT =
  /\b(?:by |about |around |roughly |some )*(?:\d+(?:[.,]\d+)?|an?|one|two|three|four|five|six|seven|eight|nine|ten|fifteen|twenty|thirty|forty|half a) ?(?:more |extra )?(?:s|secs?|seconds?|m|mins?|minutes?)\b(?: and a half)?(?: (?:shorter|longer|less|more|off))?|\b\d+:[0-5]\d\b|\b(?:by )?\d+(?:[.,]\d+)? ?(?:%|per ?cent)|(?<=\band )(?:one|two|three|four|five|half)(?= (?:before|after|between)\b)|\b(?:by |in )?half\b|\b(?:by )?(?:a|one|two) (?:third|quarter|fifth)s?\b|\bhalve\b/gi;
