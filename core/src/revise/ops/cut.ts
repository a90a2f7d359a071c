/** Leaving out and making shorter. */
import { HOOK_KINDS } from '../../plan/hooks.ts';
import { longestKept } from '../shorten.ts';
import { repeats } from '../../review/rules/said-twice.ts';
import { linePreparer } from '../../review/prepare.ts';
import { ruleById } from '../../review/rules/index.ts';
import { spanOf } from '../said.ts';
import {
  isKept,
  linesIn,
  mapLines,
  withText,
  type Applied,
  type Operation,
  type ReviseContext,
  type ReviseTools,
  type Scope,
} from '../types.ts';
import { notSpeech } from '../../facts/speech.ts';
import { hasFiniteVerb } from '../../language/tagged.ts';
import { withEdits } from '../../review/mend.ts';
import type { PlainSection } from '../../script/data.ts';
import { clockLines } from '../../script/schema.ts';
import { literal } from '../../language/literal.ts';

const CUT =
  '(?:drop|cut|remove|delete|lose|skip|kill|ditch|scrap|omit|strike|take out|leave out|get rid of|throw out|do without|cut out|leave off)';

/** What is locked in a scope, in words; null when nothing is. */
export function lockedIn(scope: Scope, { sections }: ReviseContext): string | null {
  const ids = new Set(scope.lines);
  const n = sections.reduce((k, s) => k + s.lines.filter((l) => ids.has(l.id) && isKept(l, s)).length, 0);
  return n
    ? `${n === 1 ? 'One line is' : `${n} lines are`} locked or fixed and stay${n === 1 ? 's' : ''} as ${n === 1 ? 'it is' : 'they are'}.`
    : null;
}

function without(scope: Scope, context: ReviseContext): Applied {
  const ids = new Set(scope.lines);
  if (linesIn(context.sections).every((l) => ids.has(l.id)))
    return { refused: 'That is the whole script; nothing would be left.', nearest: 'leave out one part' };
  const sections = mapLines(context.sections, ids, () => null);
  const kept = lockedIn(scope, context);
  return { sections, notes: kept ? [kept] : [] };
}

/** Lines of the scope to a total of `ms`: the weakest go, exactly chosen. */
function shortened(scope: Scope, ms: number, context: ReviseContext, tools: ReviseTools): Applied {
  const result = longestKept(scope, ms, context, tools);
  if ('refused' in result) return result;
  return { sections: mapLines(context.sections, new Set(result.drop), () => null), notes: result.notes };
}

/** How long the lines of a scope are heard, in milliseconds. */
export function scopeMs(scope: Scope, { sections }: ReviseContext, clock: ReviseTools['clock']): number {
  const times = clock.lines(clockLines(sections));
  const ids = new Set(scope.lines);
  return linesIn(sections).reduce((n, l, i) => n + (ids.has(l.id) ? times[i].ms : 0), 0);
}

/** An opening too long in itself is told as another one that fits, where the sources carry it. */
function shorterHook(scope: Scope, ms: number, context: ReviseContext, tools: ReviseTools): Applied | null {
  if (!tools.teller || scope.type !== 'sections' || scope.sections.join() !== context.sections[0].id)
    return null;
  for (const kind of HOOK_KINDS) {
    const redone = tools.teller.hook(context.sections, kind);
    if ('refused' in redone) continue;
    const first = redone.sections[0];
    const own = { ...scope, sections: [first.id], lines: first.lines.map((l) => l.id) };
    if (scopeMs(own, { ...context, sections: redone.sections }, tools.clock) <= ms)
      return {
        sections: redone.sections,
        notes: [`No line of the opening is that short; it opens as a ${kind} instead.`],
      };
  }
  return null;
}

/** Mends of named rules in a scope. */
function mended(
  rules: readonly string[],
  scope: Scope,
  context: ReviseContext,
  tools: ReviseTools,
): { sections: PlainSection[]; n: number } {
  const ids = new Set(scope.lines);
  let sections = [...context.sections];
  let n = 0;
  for (let round = 0; round < 6; round++) {
    const lines = linePreparer({ ...tools, tagger: tools.tagger })(sections)
      .flatMap((s) => s.lines)
      .filter((l) => ids.has(l.id) && !l.fixed);
    const edits = lines.flatMap((l) => {
      const found = rules
        .flatMap((id) => ruleById(id)?.line?.(l, tools, null, null) ?? [])
        .find((f) => f.mend);
      return found?.mend ? [...found.mend.edits] : [];
    });
    if (!edits.length) break;
    n += edits.length;
    sections = withEdits(sections, edits);
  }
  return { sections, n };
}

/** The words from one phrase to another in a line, both of them gone; refused where no sentence would be left. */
function withoutSpan(from: string, to: string, context: ReviseContext): Applied {
  const spans = linesIn(context.sections).flatMap(({ id, text }) => {
    const head = spanOf(text, from);
    const tail = head && spanOf(text, to, head.start);
    return tail ? [{ id, start: head.start, end: tail.end, text }] : [];
  });
  if (spans.length !== 1) return { refused: spans.length ? 'These words stand in several lines.' : `No line runs from “${from}” to “${to}”.` }; // prettier-ignore
  const [{ id, start, end, text }] = spans;
  const [head, tail] = [
    text.slice(0, start).replace(/[\s,;:–—-]+$/, ''),
    text.slice(end).replace(/^[\s,;:–—-]+/, ''),
  ];
  const stop = /[.!?…]["”’]?$/.exec(text)?.[0] ?? '.';
  const joined = !head ? tail.charAt(0).toUpperCase() + tail.slice(1) : /^[.!?…]/.test(tail) ? head + tail : tail ? `${head} ${tail}` : head + stop; // prettier-ignore
  if (joined.split(/\s+/).length < FEWEST_LEFT) return { refused: 'Too little of the line would be left; leave it out whole.' }; // prettier-ignore
  const sections = mapLines(context.sections, new Set([id]), (l) => withText(l, joined));
  return linesIn(sections).find((l) => l.id === id)!.text === text ? { refused: 'That line is locked.' } : { sections }; // prettier-ignore
}
const FEWEST_LEFT = 3;

function dropped(ids: readonly string[], scope: Scope, context: ReviseContext, nothing: string): Applied {
  const lines = ids.filter((id) => scope.lines.includes(id));
  return lines.length ? without({ ...scope, type: 'lines', lines }, context) : { refused: nothing };
}
/** What only references have: pages, volumes, places of a shelf, initials behind a name, "Retrieved", titles alone in quotation marks. */
const REFERENCE =
  /\b(?:pp?|vol|no|ed|eds|op)\. ?\d|\bibid\b|\b\d+: ?\d+|\bfol(?:io|ios|\.)|^(?:\p{L}+, )?\p{L}+, (?:\p{Lu}\.)+|^retrieved\b|^[“"][^”"]+[”"]\.?$|\bpress\.$/iu;
/** So many rows without a verb, one after another, are no story. */
const FEWEST_ROWS = 3;
/** Of which so many have the marks of references. */
const REFERENCES = 0.3;
/** Lines of lists of references: rows without a verb one after another, many of them with a reference's marks. */
function references(sections: readonly PlainSection[], tagger: ReviseTools['tagger']): string[] {
  const lines = linesIn(sections).filter((l) => l.text.trim());
  const out: string[] = [];
  let run: typeof lines = [];
  const close = () => {
    const marked = run.filter((l) => REFERENCE.test(l.text)).length;
    if (run.length >= FEWEST_ROWS && marked >= run.length * REFERENCES) out.push(...run.map((l) => l.id));
    run = [];
  };
  for (const l of lines) {
    if (hasFiniteVerb(tagger(l.text))) close();
    else run.push(l);
  }
  close();
  return out;
}

export const cutOps: readonly Operation[] = [
  {
    id: 'cut-span',
    says: 'cut a stretch of a sentence',
    otherwise: 'whole',
    patterns: [
      `${CUT}(?: everything| all| it| what stands)? from {text} (?:up )?(?:to|till|until|through) {until}`,
      `from {text} (?:up )?(?:to|till|until|through) {until} (?:should |must |can )?(?:go|gone|out)`,
    ],
    apply: ({ slots }, context) => withoutSpan(slots.text, slots.until, context),
  },
  {
    id: 'no-greeting',
    says: 'leave out the greeting',
    otherwise: 'opening',
    patterns: [
      "(?:no|without|drop the|cut the|skip the|lose the|remove the|kill the|get rid of the|take out the|don[’']t) ?(?:greetings?|greet(?: (?:them|people|the (?:viewers?|listeners?|audience)))?|hellos?|welcome|say hello|intro greeting)(?: at the (?:start|beginning|top))?",
      'start without (?:a |the )?(?:greeting|hello|welcome)',
      "(?:it )?should(?:n[’']t| not) (?:start|begin|open) with (?:a )?(?:greeting|hello|welcome)",
    ],
    apply: ({ scope }, context, tools) => {
      const lines = linePreparer(tools)(context.sections)
        .flatMap((s) => s.lines)
        .filter((l) => scope.lines.includes(l.id));
      const rule = ruleById('greeting')!;
      const script = { lines } as unknown as Parameters<NonNullable<typeof rule.script>>[0];
      const ids = new Set(rule.script!(script, tools).flatMap((f) => (f.line ? [f.line] : [])));
      return ids.size
        ? without({ ...scope, type: 'lines', lines: [...ids] }, context)
        : { refused: 'There is no greeting in the opening.' };
    },
  },
  {
    id: 'no-filler',
    says: 'leave out filler',
    otherwise: 'whole',
    patterns: [
      '(?:no|less|drop(?: the| all)?|cut(?: the| all)?|remove(?: the| all)?|lose the|strip(?: the)?|take out(?: the)?) (?:filler|fillers|filler words|fluff|padding|waffle)(?: (?:in|from|of) {scope})?',
      '(?:tighten|tidy|clean up|trim) the (?:wording|language|phrasing)(?: (?:in|of) {scope})?',
      'tighten {scope}',
    ],
    apply: ({ scope }, context, tools) => {
      const { sections, n } = mended(['filler', 'doubled-word'], scope, context, tools);
      return n ? { sections } : { refused: 'No filler was found there.', nearest: 'shorten it by a third' };
    },
  },
  {
    id: 'said-twice',
    says: 'leave out what is said twice',
    otherwise: 'whole',
    patterns: [
      `${CUT} (?:what(?:[’']s| is)|anything|everything|lines|whatever is|stuff|things)(?: that (?:is|are))?(?: being)? (?:said|told|repeated) ?(?:twice|again|already)?(?: in {scope})?`,
      `(?:no|remove|cut|drop)(?: the| any| all)? (?:repeats?|repetitions?|duplicates?|redundanc(?:y|ies))(?: (?:in|from) {scope})?`,
      "(?:don[’']t|do not) (?:say (?:things|anything|the same(?: thing)?) twice|repeat (?:yourself|things|anything))",
    ],
    apply: ({ scope }, context, tools) => {
      const lines = linePreparer(tools)(context.sections).flatMap((s) => s.lines);
      const ids = repeats(lines)
        .map((r) => r.line.id)
        .filter((id) => scope.lines.includes(id));
      return ids.length
        ? without({ ...scope, type: 'lines', lines: ids }, context)
        : { refused: 'Nothing there is said twice.' };
    },
  },
  {
    id: 'drop-word',
    says: 'leave out a word',
    otherwise: 'whole',
    patterns: [
      `${CUT} (?:every|each|all|any|the words?|all the|all uses of|every use of) [“"‘']?(?:the )?(?:words? )?{text}(?: (?:in|from) {scope})?`,
      `${CUT} (?:every|each|all uses of|the word) {word}(?: (?:in|from) {scope})?`,
      `(?:never|don[’']t|do not|stop) (?:say|saying|use|using) {text}(?: in {scope})?`,
      '(?:no|without)(?: more)? {text}(?: in {scope})?',
    ],
    apply: ({ scope, slots }, context) => {
      const word = (slots.text ?? slots.word).trim();
      const pattern = new RegExp(`(?<![\\p{L}’-])${escaped(word)}(?![\\p{L}’-]),?\\s?`, 'giu');
      let n = 0;
      const sections = mapLines(context.sections, new Set(scope.lines), (l) => {
        if (!pattern.test(l.text)) return l;
        pattern.lastIndex = 0;
        const text = tidyLine(l.text.replace(pattern, ''));
        n++;
        return countWords(text) ? withText(l, text) : null;
      });
      return n ? { sections } : { refused: `“${word}” does not stand there.` };
    },
  },
  {
    id: 'no-brackets',
    says: 'leave out what stands in brackets',
    otherwise: 'whole',
    patterns: [
      `(?:no|${CUT}(?: the| all| any)?)(?: the)? (?:brackets|parentheses|parenthes[ei]s|asides|bracketed (?:bits|parts|words))(?: (?:in|from|of) {scope})?`,
      '(?:no|without|cut all|cut the|remove all|remove the|drop all|drop the) (?:text in brackets|brackets|asides)',
    ],
    apply: ({ scope }, context) =>
      changedText(scope, context, (t) => tidyLine(t.replace(/\s?\([^()]*\)/g, '')), 'There are no brackets.'),
  },
  {
    id: 'no-references',
    says: 'leave out references',
    otherwise: 'whole',
    patterns: [`(?:no|without|${CUT}(?: the| all)?) (?:foot-?notes|references|citations|bibliography)`],
    apply: ({ scope }, context, { tagger }) => dropped(references(context.sections, tagger), scope, context, 'No rows of references stand there.'),
  }, // prettier-ignore
  {
    id: 'no-labels',
    says: 'leave out what is no sentence',
    otherwise: 'whole',
    patterns: [`(?:no|without|${CUT}(?: the| all)?) (?:captions|labels|kickers)`],
    apply: ({ scope }, context, { tagger }) => {
      const ids = linesIn(context.sections).filter((l) => l.text.trim() && notSpeech(l.text, tagger(l.text)) !== null).map((l) => l.id);
      return dropped(ids, scope, context, 'Every line there is a sentence, or could be.');
    },
  }, // prettier-ignore
  {
    id: 'drop',
    says: 'leave out a part',
    otherwise: 'selection',
    patterns: [
      `${CUT} {scope}`,
      CUT,
      '{scope} (?:can|should|must|has to|needs to) (?:go|be (?:cut|dropped|removed|deleted))',
      "(?:we|i) (?:don[’']t|do not) need {scope}",
      '(?:not|no) {scope}',
      'without {scope}',
      '{scope} is (?:not needed|unnecessary|superfluous)(?:, (?:cut|drop|remove) it)?',
    ],
    apply: ({ scope }, context) => without(scope, context),
  },
  {
    id: 'under',
    says: 'bring a part under a length',
    otherwise: 'whole',
    patterns: [
      '(?:bring|get|keep|make|cut|trim|bring down|take|squeeze|fit|shorten)(?: down)? {scope} (?:down )?(?:to |in |into )?(?:be )?(?:under|below|within|to|at most|no (?:more|longer) than|less than|in|into|down to|shorter than) {amount}',
      '{scope} (?:should|must|has to) (?:be|take|last) (?:under|below|at most|less than|no more than|shorter than|within) {amount}',
      '{scope} (?:in|under|at most) {amount}',
      'no more than {amount} for {scope}',
    ],
    apply: ({ scope, amount }, context, tools) => {
      if (amount?.type === 'share')
        return shortened(scope, scopeMs(scope, context, tools.clock) * (1 - amount.share), context, tools);
      const result = shortened(scope, amount!.ms, context, tools);
      return 'refused' in result ? (shorterHook(scope, amount!.ms, context, tools) ?? result) : result;
    },
  },
  {
    id: 'shorten',
    says: 'make a part shorter',
    otherwise: 'selection',
    patterns: [
      '(?:shorten|trim|cut|reduce|tighten|condense|compress|cut down|trim down|bring down|cut back)(?: down)? {scope} {amount}',
      '(?:make|get|have) {scope} {amount} (?:shorter|less|off|long|as long)',
      '{scope} (?:at|to|in|down to) {amount}(?: (?:its|the|of its|of the) (?:length|time|size|seconds))?',
      '(?:halve) {scope}',
      '{scope} {amount} shorter',
      '(?:take|knock|shave|cut|trim) {amount} (?<off>off|from|out of) {scope}',
      '(?:shorten|trim|reduce|condense|compress|cut down) {scope}',
      '{scope} is (?:too long|far too long|much too long|a bit long|too slow)',
      '(?:make|get|have) {scope} shorter',
      '(?:make|have) {scope} half as long',
      'shorter',
      '(?:give me )?a shorter {scope}',
    ],
    apply: ({ scope, amount, slots }, context, tools) => {
      const now = scopeMs(scope, context, tools.clock);
      const target = !amount
        ? now * (2 / 3)
        : amount.type === 'share'
          ? now * (1 - amount.share)
          : amount.type === 'by' || slots.off
            ? now - amount.ms
            : amount.ms;
      return target <= 0
        ? { refused: `It lasts ${(now / 1000).toFixed(1)} s; that much can’t come off.` }
        : shortened(scope, target, context, tools);
    },
  },
];

/** A text as a pattern that finds it with either apostrophe. */
export const escaped = (text: string) => literal(text).replace(/['’]/g, "['’]");
export const countWords = (text: string) => text.match(/[\p{L}\p{N}]+/gu)?.length ?? 0;
/** Space, commas and the capital put right after something went. */
export function tidyLine(text: string): string {
  const out = text
    .replace(/\s+([,.;:!?])/g, '$1')
    .replace(/,\s*([,.;:!?])/g, '$1')
    .replace(/^[\s,;:–—-]+/, '')
    .replace(/\s{2,}/g, ' ')
    .trim();
  return out.charAt(0).toUpperCase() + out.slice(1);
}
/** Each line's words through `change`; refused when nothing changes. */
export function changedText(
  scope: Scope,
  context: ReviseContext,
  change: (text: string) => string,
  nothing: string,
): Applied {
  let n = 0;
  const sections = mapLines(context.sections, new Set(scope.lines), (l) => {
    const text = change(l.text);
    if (text === l.text) return l;
    n++;
    return countWords(text) ? withText(l, text) : null;
  });
  return n ? { sections } : { refused: nothing };
}
