/** Which part of the script a note means. A small grammar of noun phrases, after the semantic grammars of Burton (1976). */
import { stems } from '../facts/centrality.ts';
import { baseForm, type Kin } from '../language/kin.ts';
import { wordsValue } from '../language/numbers.ts';
import type { PlainLine, PlainSection } from '../script/data.ts';
import { QUOTED } from './plainly.ts';
import { lineSaying } from './said.ts';
import type { ReviseContext, Scope, Where } from './types.ts';

const ORDINALS: Readonly<Record<string, number>> = {
  first: 0,
  opening: 0,
  second: 1,
  third: 2,
  fourth: 3,
  fifth: 4,
  sixth: 5,
  seventh: 6,
  eighth: 7,
  ninth: 8,
  tenth: 9,
  last: -1,
  final: -1,
  'second to last': -2,
  'next to last': -2,
  penultimate: -2,
};
const ORD = Object.keys(ORDINALS)
  .sort((a, b) => b.length - a.length)
  .join('|');
const PART = '(?:section|part|chapter|segment|block|bit|passage|paragraph|scene|beat)';
const LINE = '(?:line|sentence)';
const ROLES = 'hook|ground|turn|workings|strain|settle|close';

export type ScopeResult = { scope: Scope } | { unknown: string };

const found = (scope: Scope): ScopeResult => ({ scope });
const ofSections = (sections: readonly PlainSection[], says: string): ScopeResult =>
  found({
    type: 'sections',
    says,
    sections: sections.map((s) => s.id),
    lines: sections.flatMap((s) => s.lines.map((l) => l.id)),
  });
const ofLines = (lines: readonly PlainLine[], says: string): ScopeResult =>
  found({ type: 'lines', says, sections: [], lines: lines.map((l) => l.id) });
/** One section, by its title. */
export const sectionScope = (s: PlainSection): Scope => ({
  type: 'sections',
  says: `“${s.title}”`,
  sections: [s.id],
  lines: s.lines.map((l) => l.id),
});
export const wholeScope = (sections: readonly PlainSection[]): Scope => ({
  type: 'whole',
  says: 'the whole script',
  sections: sections.map((s) => s.id),
  lines: sections.flatMap((s) => s.lines.map((l) => l.id)),
});

const number = (text: string): number | null => (/^\d+$/.test(text) ? Number(text) : wordsValue(text));
const pick = <T>(list: readonly T[], index: number): T | undefined =>
  list[index < 0 ? list.length + index : index];
/** "the" and its like before, and words that add nothing behind. */
const plain = (text: string) =>
  text
    .toLowerCase()
    .replace(/[.!?]+$/, '')
    .replace(/[“”"]/g, '')
    .replace(/^(?:in|of|from|within|throughout|for|across|to|at)\s+/, '')
    .replace(/^(?:all|both|every|the|a|an|that|those|these|whole)\s+(?!of\b)/, '')
    .replace(/\s+/g, ' ')
    .replace(/\s(?:please\s)?(?:make|do|take|put|leave)$/, '')
    .trim();

/** The scope a noun phrase names, or why none. */
export function scopeOf(phrase: string, context: ReviseContext): ScopeResult {
  const { sections, selection } = context;
  const raw = phrase
    .toLowerCase()
    .replace(/[.!?]+$/, '')
    .trim();
  const text = plain(phrase);
  if (
    /^(?:(?:the )?(?:whole|entire|full|complete) (?:thing|script|text|piece|film|video|story|page)|everything|all of it|all|it all|(?:the|this) (?:script|text|film|video|story|narration)|script|throughout|everywhere|(?:the )?whole|thing|story)$/.test(
      raw,
    ) ||
    /^(?:script|whole script|entire script|film|video)$/.test(text)
  )
    return found(wholeScope(sections));
  if (
    /^(?:this|that|it|both|here|selection|the selection|what(?:[’']s| is) selected|these|them|those|(?:this|that|the selected|the current|current|these|those) (?:section|part|lines?|sentences?|bit|paragraph|passage|words|scene|segment|chapter|block)|(?:the )?(?:selected|marked|highlighted) .{0,20})$/.test(
      raw,
    )
  )
    return selected(raw, context);
  const except =
    /^(?:everything|all|the rest|all of it|the whole (?:thing|script)) (?:except|but|apart from|other than|besides)(?: for)? (.+)$/.exec(
      raw,
    );
  if (except) {
    const inner = scopeOf(except[1], context);
    if ('unknown' in inner) return inner;
    const kept = new Set(inner.scope.lines);
    if (inner.scope.type === 'sections')
      return ofSections(
        sections.filter((s) => !inner.scope.sections.includes(s.id)),
        raw,
      );
    return ofLines(
      sections.flatMap((s) => s.lines.filter((l) => !kept.has(l.id))),
      raw,
    );
  }
  // A place beside another place is none by itself.
  if (/\S (?:after|before|behind) \S/.test(text) && !/["“'‘]/.test(phrase))
    return { unknown: `“${raw}” names no part of this script.` };
  const says = SAYING.exec(text);
  if (says) return scopeOf(`the line about ${says[1]}`, context);
  const literal = phrase.trim().replace(/[.!?,]+$/, '');
  const stretch = byWords(literal, context) ?? byTime(literal, context);
  if (stretch) return stretch;
  const listed = LISTED.exec(text);
  if (listed) return listedSections(listed[1], sections, phrase);
  const many = /^(?:first|last) (\d+|two|three|four|five) (?:lines|sentences)(?: of (.+))?$/.exec(text);
  if (many)
    return linesWithin(
      many[2],
      context,
      (lines) =>
        text.startsWith('first') ? lines.slice(0, number(many[1])!) : lines.slice(-number(many[1])!),
      phrase,
    );
  const line = new RegExp(`^(${ORD}) ${LINE}(?: (?:of|in) (.+))?$`).exec(text);
  if (line)
    return linesWithin(
      line[2],
      context,
      (lines) => [pick(lines, ORDINALS[line[1]])].flatMap((l) => l ?? []),
      phrase,
    );
  const lineNumber = new RegExp(`^${LINE}s? (\\w+)(?: (?:to|and|-|–) (\\w+))?(?: (?:of|in) (.+))?$`).exec(
    text,
  );
  if (lineNumber && number(lineNumber[1]) !== null) {
    const from = number(lineNumber[1])!;
    const to = lineNumber[2] ? (number(lineNumber[2]) ?? from) : from;
    const both = /^\S+ \w+ and /.test(text);
    return linesWithin(
      lineNumber[3],
      context,
      (lines) => (both ? lines.filter((_, i) => i === from - 1 || i === to - 1) : lines.slice(from - 1, to)),
      phrase,
    );
  }
  if (
    /^(?:opening|intro|introduction|beginning|start|hook|cold open|opener|first part|opening part|opening section|intro section)$/.test(
      text,
    )
  )
    return ofSections(sections.slice(0, 1), 'the opening');
  if (
    /^(?:ending|end|close|closing|conclusion|outro|finish|finale|last part|ending section|closing section)$/.test(
      text,
    )
  )
    return ofSections(sections.slice(-1), 'the ending');
  if (/^middle(?: (?:section|part|bit))?$/.test(text))
    return ofSections(sections.length > 2 ? sections.slice(1, -1) : sections, 'the middle');
  const ordinal = new RegExp(`^(${ORD}) ${PART}$`).exec(text);
  if (ordinal)
    return one(pick(sections, ORDINALS[ordinal[1]]), phrase, `There are only ${sections.length} sections.`);
  const numbered = new RegExp(`^${PART} (\\w+)$`).exec(text);
  if (numbered && number(numbered[1]) !== null)
    return one(sections[number(numbered[1])! - 1], phrase, `There are only ${sections.length} sections.`);
  const neighbour = new RegExp(`^(next|previous) ${PART}$`).exec(text);
  if (neighbour) {
    const at = sections.findIndex((s) => s.id === selection?.section);
    return at < 0
      ? { unknown: 'Nothing is selected to count from.' }
      : one(
          sections[at + (neighbour[1] === 'next' ? 1 : -1)],
          phrase,
          `There is no ${neighbour[1]} section.`,
        );
  }
  const firstParts = new RegExp(`^(first|last) (\\w+) ${PART}s$`).exec(text);
  if (firstParts && number(firstParts[2]))
    return ofSections(
      firstParts[1] === 'first'
        ? sections.slice(0, number(firstParts[2])!)
        : sections.slice(-number(firstParts[2])!),
      phrase,
    );
  const kind = new RegExp(
    `^(questions?|quotes?|quotations?|brackets|parentheses)(?: (?:in|of|from) (.+))?$`,
  ).exec(text);
  if (kind) {
    const test = kind[1].startsWith('quest') ? /\?/ : kind[1].startsWith('quot') ? /["“]/ : /\(/;
    return linesWithin(kind[2], context, (lines) => lines.filter((l) => test.test(l.text)), phrase);
  }
  const role = new RegExp(`^(${ROLES})(?: ${PART})?$`).exec(text);
  const byRole = role && sections.filter((s) => s.role === role[1]);
  if (byRole?.length) return ofSections(byRole.slice(0, 1), phrase);
  // Several quotations are several places.
  if ((phrase.match(QUOTED) ?? []).length > 1) return { unknown: `“${raw}” names no one part of this script.` }; // prettier-ignore
  return byTopic(text, raw, context);
}

const SMALL = '(?:\\d+|one|two|three|four|five|six|seven|eight|nine|ten)';
const BARE_NUMBER = new RegExp(`^${SMALL}$`, 'i');
const LISTED = new RegExp(`^${PART}s?((?: ?(?:,|and|&|to|-|–|through|until|till)? ?${SMALL}\\b){2,})$`);
/** A second place beside a first: "swap section 4 and 5". */
export const secondOf = (phrase: string, context: ReviseContext): ScopeResult =>
  scopeOf(BARE_NUMBER.test(phrase.trim()) ? `section ${phrase.trim()}` : phrase, context);

/** "5, 6 and 7", "5 to 7": sections by their numbers. */
function listedSections(list: string, sections: readonly PlainSection[], says: string): ScopeResult {
  const wanted = new Set<number>();
  let [last, span] = [0, false];
  for (const word of list.match(/\d+|[a-z]+|[-–]/g) ?? []) {
    const n = number(word);
    if (n === null) span ||= /^(?:to|-|–|through|until|till)$/.test(word);
    else {
      for (let k = span ? last + 1 : n; k <= n; k++) wanted.add(k);
      [last, span] = [n, false];
    }
  }
  const missing = [...wanted].some((n) => !sections[n - 1]);
  return missing || !wanted.size
    ? { unknown: `There are only ${sections.length} sections.` }
    : ofSections(sections.filter((_, i) => wanted.has(i + 1)), says); // prettier-ignore
}

const QUOTE = '[“"‘\'](.+?)[”"’\']';
const ALL_FROM = '^(?:(?:everything|all|the (?:bit|part|lines?|sentences?|stretch))\\s+)?from ';
const FROM_ON = new RegExp(
  `${ALL_FROM}${QUOTE} (?:on|onwards?|to the (?:very )?end|down|until the end)$`,
  'iu',
);
const FROM_TO = new RegExp(
  `${ALL_FROM}${QUOTE} (?:up )?(?:to|till|until|through) ${QUOTE}(?: inclusive)?$`,
  'iu',
);
const ALONE = new RegExp(
  `^(?:the )?(?:(?:line|sentence|bit|part) (?:that says |with |where it says |saying )?)?${QUOTE}(?: (?:line|sentence|bit|part))?$`,
  'iu',
);
/** Fewer words than these are a title, or what is to be changed. */
const PHRASE = 3;

/** "everything from 'A' on", "from 'A' to 'B'", "'A'": lines by their words. */
function byWords(text: string, { sections }: ReviseContext): ScopeResult | null {
  const [, from, to] = FROM_ON.exec(text) ?? FROM_TO.exec(text) ?? [];
  const all = sections.flatMap((s) => s.lines);
  if (from) {
    const first = lineSaying(from, sections);
    if ('unknown' in first) return first;
    const last = to === undefined ? { at: all.length - 1 } : lineSaying(to, sections);
    if ('unknown' in last) return last;
    return last.at >= first.at ? ofLines(all.slice(first.at, last.at + 1), text) : null;
  }
  const [, words] = ALONE.exec(text) ?? [];
  if (!words || words.split(' ').length < PHRASE || /[“"‘'”’]\s*(?:and|,)\s*[“"‘']/.test(text)) return null;
  const said = lineSaying(words, sections);
  return 'line' in said ? ofLines([said.line], text) : null;
}

const TIMES =
  /^(?:(?:everything|all|the (?:bit|part|lines?|section|stretch)|what is)\s+)?(?:from |between |at )?(\d+):([0-5]\d)(?:\s*(?:to|till|until|through|and|-|–)\s*(\d+):([0-5]\d))?$/i;
/** A line that begins so little later is meant too by who reads it off a clock. */
const READ_OFF_MS = 500;

/** "1:46 to 1:54", "at 2:31": lines by when they are heard. */
function byTime(text: string, { sections, startsMs }: ReviseContext): ScopeResult | null {
  const span = TIMES.exec(text);
  if (!span || !startsMs) return null;
  const starts = startsMs();
  const all = sections.flatMap((s) => s.lines);
  const ms = (minutes: string, seconds: string) => (Number(minutes) * 60 + Number(seconds)) * 1000;
  const from = ms(span[1], span[2]);
  if (from >= starts[all.length]) return { unknown: `It is over before ${span[1]}:${span[2]}.` };
  const to = span[3] === undefined ? null : ms(span[3], span[4]);
  // A stretch has the lines of which it holds half or more; a moment has the line that is heard then.
  const lines = all.filter((_, i) => {
    const [start, end] = [starts[i], starts[i + 1]];
    if (to === null) return start <= from + READ_OFF_MS && end > from + READ_OFF_MS;
    return (Math.min(end, to) - Math.max(start, from)) * 2 >= end - start;
  });
  return lines.length ? ofLines(lines, text) : { unknown: `Nothing is said at ${text}.` };
}

/** "he says the smell thing", "they get to the wreck": where something is told. */
const SAYING =
  /^(?:he|she|they|we|i|it|you|one|the narrator) (?:says?|tells?|mentions?|talks?|gets?|comes?|reach(?:es)?) (?:(?:of|about|to) )?(?:the )?(.+?)(?: (?:thing|bit|part|line|stuff))?$/;

function selected(raw: string, { sections, selection }: ReviseContext): ScopeResult {
  const whole = /section|part|bit|paragraph|passage|segment|chapter|block|scene/.test(raw);
  const section = sections.find(
    (s) => s.id === selection?.section || s.lines.some((l) => selection?.lines.includes(l.id)),
  );
  if (!selection || (!selection.lines.length && !section))
    return { unknown: 'Nothing is selected, so “this” could be anything.' };
  if (whole || !selection.lines.length)
    return section
      ? ofSections([section], `“${section.title}”`)
      : { unknown: 'The selection is in no section.' };
  const lines = sections.flatMap((s) => s.lines.filter((l) => selection.lines.includes(l.id)));
  return ofLines(lines, lines.length === 1 ? 'this line' : `${lines.length} lines`);
}

const one = (section: PlainSection | undefined, says: string, why: string): ScopeResult =>
  section ? ofSections([section], says.replace(/[.!?]+$/, '')) : { unknown: why };

function linesWithin(
  within: string | undefined,
  context: ReviseContext,
  take: (lines: readonly PlainLine[]) => readonly PlainLine[],
  says: string,
): ScopeResult {
  const outer = within ? scopeOf(within, context) : null;
  if (outer && 'unknown' in outer) return outer;
  const ids = new Set(outer ? outer.scope.lines : context.sections.flatMap((s) => s.lines.map((l) => l.id)));
  const lines = take(context.sections.flatMap((s) => s.lines.filter((l) => ids.has(l.id) && l.text.trim())));
  return lines.length
    ? ofLines(lines, says.replace(/[.!?]+$/, ''))
    : { unknown: `There is no such line${within ? ` in ${within}` : ''}.` };
}

/** So much of what a place is called by must be said there: of two words both, one of them perhaps by its kin; of three two. */
const ENOUGH = 0.6;
/** Sums of rarity that differ by less are the same. */
const SAME = 1e-6;
/** A word's place is taken by one of its kin at less than its own weight. */
const KIN = 0.6;
const keys = (text: string) => stems(text).map(baseForm);
interface ScriptWords {
  /** Of each line, in order. */
  lines: readonly ReadonlySet<string>[];
  known: ReadonlySet<string>;
}
const counted = new WeakMap<readonly PlainSection[], ScriptWords>();
/** The words of a script: looked at once, however many places of it a note names. */
function wordsOf(sections: readonly PlainSection[]): ScriptWords {
  let words = counted.get(sections);
  if (!words) {
    const lines = sections.flatMap((s) => s.lines.map((l) => new Set(keys(l.text))));
    words = { lines, known: new Set(lines.flatMap((own) => [...own])) };
    counted.set(sections, words);
  }
  return words;
}
/**
 * How much of a topic's words a text has, its own or (at less weight) their kin; how rare in the script those are together (inverse
 * document frequency, Spärck Jones 1972).
 */
function matcher(wanted: readonly string[], sections: readonly PlainSection[], kin: Kin | undefined) {
  const { lines, known } = wordsOf(sections);
  const weights = wanted.map((word) => {
    const like = known.has(word) || !kin ? [] : [...known].filter((k) => kin.likeness(k, word) >= KIN);
    const words = new Set([word, ...like]);
    const n = lines.filter((own) => [...words].some((w) => own.has(w))).length;
    return { word, words: [...words], n };
  });
  return (text: string) => {
    const own = new Set(keys(text));
    const found = weights.flatMap(({ word, words, n }) => (own.has(word) ? [{ n, weight: 1 }] : words.some((w) => own.has(w)) ? [{ n, weight: KIN }] : [])); // prettier-ignore
    return {
      share: found.reduce((sum, { weight }) => sum + weight, 0) / wanted.length,
      rare: found.reduce((sum, { n }) => sum + Math.log(lines.length / Math.max(1, n)), 0),
    };
  };
}

/** By a title, or by what it is about. */
function byTopic(text: string, raw: string, { sections, kin }: ReviseContext): ScopeResult {
  const about = new RegExp(
    `^(?:${PART}|${LINE}s?|${PART}s|stuff|things?|everything|bits) (?:about|on|with|where|that (?:mentions?|says|tells(?: of)?)|mentioning|called|titled|named|containing|which mentions?|saying|of)\\s+(\\S.*)$`,
  ).exec(text);
  const before = new RegExp(`^(.+?) (?:${PART}s?|${LINE}s?)$`).exec(text);
  const topic = (about?.[1] ?? before?.[1] ?? '').replace(/^(?:the|a|an|how|what|that)\s+/, '').trim();
  const wantsLines =
    new RegExp(`^(?:the |that |this |every |all )?(?:.+ )?${LINE}s?\\b`).test(raw) ||
    new RegExp(`${LINE}s?$`).test(text);
  const exact = sections.filter((s) => s.title && plain(s.title) === text);
  if (exact.length) return ofSections(exact, `“${exact[0].title}”`);
  if (!topic) return byName(text, raw, sections);
  const wanted = keys(topic);
  if (!wanted.length) return { unknown: `“${raw}” names no part of this script.` };
  const share = matcher(wanted, sections, kin);
  const hits = (t: string) => share(t).share;
  if (wantsLines) {
    // Of two that have its words, the one that has them side by side, then the one with the rarer of them.
    const exact = (t: string) => (t.toLowerCase().includes(topic.toLowerCase()) ? 0.1 : 0);
    const scored = sections
      .flatMap((s) => s.lines.map((l) => ({ l, ...share(l.text), n: hits(l.text) + exact(l.text) })))
      .filter((x) => x.share >= ENOUGH);
    const best = Math.max(0, ...scored.map((x) => x.n));
    const alike = scored.filter((x) => x.n === best);
    const rarest = Math.max(0, ...alike.map((x) => x.rare));
    const lines = alike.filter((x) => x.rare > rarest - SAME).map((x) => x.l);
    const single = !new RegExp(`${LINE}s\\b`).test(raw);
    return lines.length
      ? ofLines(single ? lines.slice(0, 1) : lines, raw)
      : { unknown: `No line here is about ${topic}.` };
  }
  const titled = sections.filter((s) => hits(s.title) === 1);
  if (titled.length === 1) return ofSections(titled, `“${titled[0].title}”`);
  // The section that speaks of it most, by its share of lines with as many of its words as any.
  const most = Math.max(0, ...sections.flatMap((s) => s.lines.map((l) => hits(l.text))));
  const tells = (l: PlainLine) => most >= 0.5 && hits(l.text) === most;
  const scored = sections
    .map((s) => ({
      s,
      n: s.lines.filter(tells).length / s.lines.length + hits(s.title) * 0.5,
      any: s.lines.filter(tells).length,
    }))
    .filter((x) => x.any > 0)
    .sort((a, b) => b.n - a.n);
  if (!scored.length) return { unknown: `Nothing here is about ${topic}.` };
  // A "bit" about something that a section only touches is the lines that do.
  const [{ s, any }] = scored;
  if (
    /^(?:bit|stuff|things?|bits)\b|\b(?:bit|stuff|thing|bits)$/.test(text) &&
    any * 2 < s.lines.length &&
    !hits(s.title)
  )
    return ofLines(
      s.lines.filter((l) => hits(l.text) >= 0.5),
      raw,
    );
  return ofSections([s], `“${s.title}”, which tells of ${topic}`);
}

/** Words of the wish itself are no place. */
const WISHES =
  /^(?:open|start|begin|end|finish|close|say|tell|make|put|move|cut|drop|add|ask|use|lock|split|join|mood|tone|voice|style|length|sound|pace|speed)\b/;

/** A bare name or noun, when it is plain where it is: one line, or one section. */
function byName(text: string, raw: string, sections: readonly PlainSection[]): ScopeResult {
  const nothing = { unknown: `“${raw}” names no part of this script.` };
  const wanted = stems(text);
  if (!wanted.length || text.split(' ').length > 4 || WISHES.test(text)) return nothing;
  const tells = (l: PlainLine) => {
    const own = new Set(stems(l.text));
    return wanted.every((w) => own.has(w));
  };
  const where = sections.filter((s) => s.lines.some(tells));
  if (!where.length) return nothing;
  if (where.length > 1) return { unknown: `“${raw}” is told of in ${where.length} sections; say which.` };
  const lines = where[0].lines.filter(tells);
  return lines.length === 1 && where[0].lines[0] !== lines[0]
    ? ofLines(lines, `the line about ${text}`)
    : ofSections(where, `“${where[0].title}”, which tells of ${text}`);
}

/** Where something is to go: "to the end", "before the turn", "after the second section". */
export function whereOf(phrase: string, context: ReviseContext): Where | { unknown: string } {
  const text = phrase
    .toLowerCase()
    .replace(/[.!?]+$/, '')
    .trim();
  if (/^(?:to |at |into )?(?:the )?(?:very )?(?:end|bottom|close|back)$/.test(text) || /^last$/.test(text))
    return { side: 'end', scope: null, says: 'to the end' };
  if (
    /^(?:to |at |into )?(?:the )?(?:very )?(?:start|beginning|top|front|opening)$/.test(text) ||
    /^(?:up )?(?:first|front)$/.test(text)
  )
    return { side: 'start', scope: null, says: 'to the start' };
  const m =
    /^(?:to )?(?:right |just |directly )?(before|after|behind|below|above|in front of|under|ahead of|following)\s+(\S.*)$/.exec(
      text,
    );
  if (!m) return { unknown: `“${phrase}” names no place.` };
  // "under 2:30" is a length.
  if (/^(?:under|below)$/.test(m[1]) && /^\d/.test(m[2])) return { unknown: `“${phrase}” names no place.` };
  const target = scopeOf(m[2], context);
  if ('unknown' in target) return target;
  return {
    side: /^(?:before|above|in front of|ahead of)$/.test(m[1]) ? 'before' : 'after',
    scope: target.scope,
    says: text,
  };
}
