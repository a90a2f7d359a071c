/**
 * What a clause of a note asks for: an act by the verbs, nouns or adjectives that name it, whose places and amounts are taken from
 * wherever they stand. Verbs of one act are synonyms of WordNet 3.1 (delete, omit, drop; join, merge, unite; separate, split),
 * those that people use of scripts first.
 */
import { countWords, escaped } from '../ops/cut.ts';
import { OPERATIONS } from '../ops/index.ts';
import { unitNamed } from '../../draft/settle.ts';
import { literal } from '../../language/literal.ts';
import { wordsValue } from '../../language/numbers.ts';
import type { Amount, Request, ReviseContext, Scope, Where } from '../types.ts';
import { plainWords } from '../said.ts';
import { sectionScope, wholeScope } from '../scope.ts';
import { verbs } from './verbs.ts';
import { MASK, beyond, type Place, type Quote, type Roles, type Side } from './roles.ts';

export type ActId = 'undo' | 'unlock' | 'lock' | 'pause' | 'title' | 'merge' | 'split' | 'swap' | 'replace' | 'length' | 'move' | 'remove' | 'question' | 'names' | 'restore' | 'round' | 'figures' | 'simple' | 'spelling' | 'short forms' | 'tense' | 'person' | 'end at' | 'twice' | 'units' | 'slower' | 'active' | 'soften' | 'references' | 'labels' | 'say so'; // prettier-ignore

const act = (source: string) => new RegExp(source, 'iu');
const ONE = '(?:just )?(?:one|a single)';
const UNIT = '(?:nautical miles?|kilomet(?:re|er)s?|kms?|met(?:re|er)s?|cent?imet(?:re|er)s?|millimet(?:re|er)s?|miles?|feet|foot|yards?|inch(?:es)?|kilos?|kilograms?|kg|grams?|ounces?|tonnes?|tons?|lit(?:re|er)s?|gallons?|pints?|hectares?|acres?)'; // prettier-ignore
const WHOLE_ROLE = '(?:cold open|opener|hook|opening line|closer|closing line|(?:very )?(?:first|last|final) (?:line|thing|sentence|words?))'; // prettier-ignore
/** Verbs that ask for a cut of some of a part as often as for its end. */
const EITHER = ['cut', 'lose', 'chop'];

/** What a place does, or is done to it, so that it stands elsewhere. */
const MOVED = `\\b(?:${verbs(['move'])}|comes?|goes?|belongs?|stands?|sits?|open(?:s|ing)? (?:with|on)|starts? (?:with|on|it)|begin(?:s|ning)? (?:with|on)|leads? with|end(?:s|ing)? (?:with|on)|clos(?:e|es|ing) (?:with|on)|finish(?:es|ing)? (?:with|on)|first|last)\\b|\\b(?:as|make|be(?:come)?)\\b.* ${WHOLE_ROLE}(?=$|[,.])`;
const PLACED = '\\b(?:at the (?:very )?(?:start|end|top|beginning|bottom)|up top|before|after|earlier|later)\\b';

/** By the first that is found. What is named by a noun (a pause, a title) is asked for whatever verb stands with it. */
const ACTS: readonly (readonly [ActId, RegExp])[] = [
  ['undo', act(`\\b(?:${verbs(['undo'])}|take (?:it|that) back|(?:as|like) it was(?: before)?$)`)],
  ['say so', act('\\b(?:say|mention|state) (?:so|that|this)(?: (?:just )?once)?(?=$|[,.;]| (?:near|at|in|right|up|before|after|early)\\b)')],
  ['unlock', act('\\b(?:un(?:lock|freeze)(?:ed)?)\\b')],
  ['lock', act('\\b(?:lock(?:ed)?(?: down)?|freeze|frozen|hands off|(?:do not|don[\'’]t|nobody|never|not to be) (?:touch|change|alter|edit)(?:e[sd]|s)?|nothing (?:\\S+ ){0,5}?(?:may|must|should|can|is to|will) (?:change|be (?:changed|touched|altered))|(?:signed off|final(?:ised)?)(?: now)?$)\\b')],
  ['pause', act('(?<!\\b(?:after|before|behind|at|in|of|during) the )(?:\\b(?:pauses?|beats?|silences?|breath(?:er)?s?|gaps?|dead air)\\b|(?<!\\bthe )\\brests?\\b)|\\b(?:sec(?:ond)?s?|moment) of (?:nothing|quiet|air|silence|black|room|space|rest)\\b|\\b(?:leave|give|add|allow|put) (?:\\S+ ){0,4}?(?:secs?|seconds?|\\ds|moment)(?: \\S+)? (?:after|before|between|behind)\\b|\\b(?:wait|hold|breathe|stop) (?:for )?(?:an?|one|two|\\d+s?)\\b|\\b(?:breathe|wait|pause) (?:right |just )?(?:after|before|between)\\b')],
  ['references', act('\\b(?:foot-?notes?|references|citations?|bibliograph(?:y|ies)|works cited|(?:reading|source) list)\\b')],
  ['labels', act('\\b(?:captions|labels|kickers|head(?:er|line)s|(?:everything|anything|whatever|lines?) (?:that|which)[’\']?(?:s| is| are|re)? (?:not|no|isn[’\']t|aren[’\']t) (?:an? |real |proper |complete |whole )*sentences?)\\b')],
  ['title', act(`\\b(?:titles?|headings?|headline|${verbs(['rename'], ['title', 'entitle'])}|call (?:it|this|that|the (?:section|part))|(?:should|could) be called|name (?:of )?the (?:section|part))\\b`)],
  ['restore', act(`\\b(?:restore|${verbs(['restore'])}|(?:original|source|paper)(?:['’]s)? (?:own )?(?:wording|words|phrasing|text)|as (?:the source|the paper|the article) (?:has|says|puts) it)\\b`)],
  ['question', act('\\bquestion\\b')],
  ['round', act(`(?<!\\b(?:turn|turned|change|way) (?:(?:it|that|this|them) )?(?:a)?)\\bround(?:ed|er)?\\b(?! (?:off )?the (?:script|film))|\\bdecimals?\\b|\\b${verbs(['round'])}\\b`)],
  ['figures', act('\\b(?:figures|numbers|digits|numerals)\\b.*\\b(?:words|figures|digits|numerals)\\b|\\b(?:in|as|into) words\\b')],
  ['units', act(`\\b(?:in|into|to|as|use|using|give|say|want|no|not|than|of) (?:the )?(?:${UNIT}|metric|imperial)\\b|\\b(?:metric|imperial) (?:units?|system|measures?|figures)\\b|\\bconvert\\b`)],
  ['spelling', act('\\b(?:british|american|us|uk) (?:english|spelling)')],
  ['short forms', act('\\bcontractions?\\b')],
  ['tense', act('\\b(?:present|past)(?: tense)?\\b(?= tense|$|[,.;])')],
  ['active', act('\\bactive(?: voice)?\\b|\\bturn (?:it|that|this) (?:a)?round\\b|\\bpassives?\\b')],
  ['person', act('\\b(?:first|second|third) person\\b|(?<![\\p{L}\\p{N}])[“"]?(?:i|we|you|he|she|they)[”"]? (?:to|into|instead of|rather than|not) [“"]?(?:i|we|you|he|she|they)\\b')],
  ['simple', act(`\\b(?:${verbs(['simplify'])}|simple(?:r)?|easier|plainer|plain (?:words|english)|difficult words|for (?:children|kids|beginners|lay ?(?:people|men)|(?:\\p{L}+[- ]){1,2}year[- ]olds?))\\b`)],
  ['soften', act(`\\b(?:${verbs(['soften'])}|softer|milder|less (?:strong|harsh|colou?rful|dramatic|salesy|hyped?)|toned down)\\b`)],
  ['end at', act('\\b(?:end|stop|finish)s? (?:right |just )?(?:before|after)\\b')],
  ['slower', act('\\b(?:slower|slow(?:ed)? down|more slowly|less (?:fast|quick(?:ly)?|rushed)|too (?:fast|quick)|\\d{2,3} ?(?:wpm|words (?:a|per) minute)|faster|quicker|speed(?:ier)?|(?:more|extra|a (?:bit|little) more) (?:room|air|space|breathing space)|room to breathe)\\b')],
  ['merge', act(`\\b(?:${verbs(['merge'], ['mix', 'link', 'connect', 'compound'])}|(?:in|into|as|make) ${ONE} (?:sentence|line|section|part|paragraph)|(?:be|become) (?:just )?(?:one|a single|the same)(?: (?:sentence|line|section|part|paragraph))?(?=$|[,.?!;])|(?:be|become) (?:just )?(?:one|a single|the same) (?:sentence|line|section|part|paragraph)|part of the (?:one|section|part|next|previous)|belongs? (?:together|with)|(?:put|run|pull|bring) (?:\\S+ ){0,4}together|(?<=^|, )${ONE} (?:sentence|line|section|part|paragraph)$)(?=$|[^\\p{L}])`)],
  ['split', act(`\\b(?:${verbs(['split'])}|break (?:it |this |that |the )?(?:up|in|into|after|at|before|\\S+ (?:in|up|into))|(?:in|into|as|make|makes|be|become|to|^)(?: it| that| this)? ?\\b(?:two|three) (?:separate )?(?:sentences|lines|sections|parts|paragraphs)|in two|(?:a |its |their )(?:own|new|separate) (?:section|paragraph|part)|new (?:sentence|section|part|paragraph|line)|full stop (?:after|before|at|from|with))\\b`)],
  ['swap', act(`\\b(?:${verbs(['swap'], ['trade', 'flip'])}|trade places|(?:the )?other way (?:a)?round|change (?:the )?(?:places?|positions?|order))\\b`)],
  ['names', act('\\b(?:anonymi[sz]e[d]?|(?:no|without|hide|change|drop|remove|take out|leave out)(?: the| any| real)* names?|(?:do not|don[\'’]t|never|not) (?:be )?named?|(?:hide|no|without|leave out|drop|remove|cut|take out) (?:\\S+ ){0,4}?(?:sur|first |last |full |real )?names?|nameless|unnamed)\\b')],
  ['replace', act(`\\b(?:${verbs(['replace'], ['right'])}|change[d]?|instead of|rather than|in place of|(?:should|must|ought to|has to|needs to) (?:read|say|be ${MASK})|say|write|use|read|(?:make|turn) (?:it|that|this|${MASK}) (?:in)?to\\b|['’]d rather|would (?:rather|prefer)|(?:put|prefer|have) ${MASK}|make ${MASK}[^.]*${MASK})|\\b(?:would|could|might|may|how about|what about|maybe|perhaps|better|try) ${MASK}|->|→|=>|${MASK} ?(?:for|not|=) ?${MASK}`)],
  ['remove', act(`\\b${verbs(['remove'], EITHER)}\\b|^no(?: more)? (?=\\S)|\\bnothing (?:more )?(?:after|before|behind)\\b`)],
  ['length', act(`\\b(?:${verbs(['shorten', 'lengthen'], EITHER)}|short(?:er|en|ened)|long(?:er)?(?! ago)|tighter|half (?:as long|(?:of )?(?:the (?:length|time|words)|it|that))|too long|drags?|at (?:the )?most|no (?:more|longer) than|max(?:imum)?|tops|under|(?:cut|chop) (?:it |this |that |the \\S+ )?(?:down|back|to|by)|(?:less|more) (?:time|room|air|seconds))\\b|(?:\\b|\\d)(?:seconds?|secs?|s) (?:off|less|more)\\b`)],
  ['twice', act('\\b(?:twice|two times?|repeats?|repeated|repetitions?)\\b')],
  ['move', act(`${MOVED}|${PLACED}`)],
  ['remove', act(`\\b(?:${verbs(['remove'])}|take[n]? (?:\\S+ ){0,4}?off|without|(?:don['’]t|do not|doesn['’]t|not) need(?:ed)?|no need|unnecessary|superfluous|redundant|not (?:useful|necessary|needed)|gone|nope|can go|has to go|must go|should go|needs to go|go away|goes)\\b|(?<!\\brun |\\bof )\\b(?:out|away)$|\\bmake .* (?:disappear|vanish)\\b`)],
]; // prettier-ignore

/** The acts whose words stand in a clause, the likeliest first. */
export const actsIn = (text: string): ActId[] => [
  ...new Set(ACTS.filter(([, r]) => r.test(text)).map(([id]) => id)),
];
export type Read = Request[] | { unknown: string } | null;
const operation = (id: string) => OPERATIONS.find((o) => o.id === id)!;
const request = (id: string, scope: Scope, rest: Partial<Request> = {}): Request => ({ operation: operation(id), scope, amount: null, slots: {}, where: null, ...rest }); // prettier-ignore

/** A wish about the whole script. */
export const wish = (id: string, context: ReviseContext, slots: Request['slots']): Request =>
  request(id, wholeScope(context.sections), { slots });

/** Another title for a section. */
export const titleWish = (s: ReviseContext['sections'][number], text: string): Request =>
  request('rename', sectionScope(s), { slots: { text } });

interface Frame {
  roles: Roles;
  context: ReviseContext;
  /** Words that the sentence before quoted. */
  said: Quote | null;
  /** Figures and words that a note says must stay. */
  kept: readonly string[];
  /** The sentence, or the clause, before it, as it was written. */
  stated: string | null;
  /** What the wish before it, or the sentence before, was about. */
  before: Scope | null;
}
const has = (text: string, words: RegExp) => words.test(text);
const scopeFor = (roles: Roles, context: ReviseContext) =>
  roles.places[0]?.scope ?? wholeScope(context.sections);
const NEGATES = act(`\\b(?:no|not|none|without|fewer|never|don['’]t|${verbs(['remove'])})\\b`);
const targetsOf = ({ roles, before }: Frame): Place[] => {
  const own = roles.places.filter((p) => p.side === null && p.scope.type !== 'whole');
  if (own.length || !before) return own;
  return [{ start: 0, end: 0, says: before.says, scope: before, side: null }];
};
/** A place in words that it is found by again. */
const phraseOf = (scope: Scope, context: ReviseContext): string => {
  if (scope.type === 'sections') return `section ${context.sections.findIndex((s) => s.id === scope.sections[0]) + 1}`; // prettier-ignore
  const at = context.sections.flatMap((s) => s.lines).filter((l) => l.text.trim());
  return `line ${at.findIndex((l) => l.id === scope.lines[0]) + 1}`;
};
/** Places named side by side as one. */
export function together(list: readonly Place[], context: ReviseContext): Scope {
  if (list.length === 1) return list[0].scope;
  const says = list.map((p) => p.says).join(' and ');
  const lines = context.sections.flatMap((s) => s.lines.map((l) => l.id)).filter((id) => list.some((p) => p.scope.lines.includes(id))); // prettier-ignore
  return list.every((p) => p.scope.type === 'sections')
    ? { type: 'sections', says, sections: context.sections.map((s) => s.id).filter((id) => list.some((p) => p.scope.sections.includes(id))), lines }
    : { type: 'lines', says, sections: [], lines };
} // prettier-ignore

/** A pause before or after a place, as long as is said later. */
export const restBeside = (side: Side, scope: Scope, context: ReviseContext): Request =>
  side === 'after'
    ? request('rest', scope)
    : request('rest-before', wholeScope(context.sections), { slots: { about: phraseOf(scope, context) } });

function whereIn({ roles, context }: Frame): Where | null {
  const { text } = roles;
  const edge = /\b(end|bottom|close|start|beginning|top) of (?:the )?$/i;
  const of = roles.places.find((p) => edge.test(text.slice(0, p.start)) && p.scope.type === 'sections');
  if (of) {
    const side = /^(?:end|bottom|close)/i.test(edge.exec(text.slice(0, of.start))![1]) ? 'after' : 'before';
    const line = side === 'after' ? of.scope.lines.at(-1)! : of.scope.lines[0];
    return { side, scope: { ...of.scope, type: 'lines', sections: [], lines: [line] }, says: `to the ${side === 'after' ? 'end' : 'start'} of ${of.says}` };
  }
  const own = /\b(first|last)(?: (?:line|sentence|thing))? (?:of|in) (?:its|the same|that) (?:own )?(?:section|part|paragraph|chapter)\b/i.exec(text);
  const within = own && context.sections.find((s) => s.lines.some((l) => l.id === roles.places[0]?.scope.lines[0]));
  if (own && within) {
    const last = /last/i.test(own[1]);
    return { side: last ? 'after' : 'before', scope: { ...sectionScope(within), type: 'lines', sections: [], lines: [last ? within.lines.at(-1)!.id : within.lines[0].id] }, says: `to the ${last ? 'end' : 'start'} of “${within.title}”` };
  }
  const beside = roles.places.findLast((p) => p.side !== null);
  if (beside) return { side: beside.side!, scope: beside.scope, says: `${beside.side} ${beside.says}` };
  if (
    has(
      text,
      /\b(?:to|at|on|into) the (?:very )?(?:end|bottom|close)\b|\b(?:as|come|comes|go|goes|be|put) (?:the )?(?:very )?last\b|\bend(?:s|ing)? (?:it )?(?:with|on)\b|\bclos(?:e|es|ing) (?:it )?(?:with|on)\b|\bfinish(?:es)? (?:it )?(?:with|on)\b|\bto the back\b|\blast (?:thing|of all)\b|\bat the (?:very )?end\b|\b(?:as|make|be(?:come)?)\b.* (?:closer|closing line|(?:very )?(?:last|final) (?:line|thing|sentence|words?))(?=$|[,.])/i,
    )
  )
    // prettier-ignore
    return { side: 'end', scope: null, says: 'to the end' };
  if (
    has(
      text,
      /\b(?:to|at|into) the (?:very )?(?:start|beginning|top|front|opening)\b|\b(?:come|comes|go|goes|be|put|stand) (?:up )?(?:the )?(?:very )?(?:first|up front)\b|\bfirst (?:thing|of all)\b|\b(?:open|start|begin|lead)(?:s|n?ing)? (?:it )?(?:with|on)\b|\bup (?:front|top)\b|\b(?:as|make|be(?:come)?)\b.* (?:cold open|opener|hook|opening line|(?:very )?first (?:line|thing|sentence|words?))(?=$|[,.])|\bfirst$/i,
    )
  )
    // prettier-ignore
    return { side: 'start', scope: null, says: 'to the start' };
  // "to section 2": it comes to stand there.
  const to = roles.places.find((p) => /\b(?:to|into)\s+(?:the )?$/i.test(text.slice(0, p.start)));
  return to && roles.places.length > 1 && to.scope.type === 'sections'
    ? { side: 'after', scope: to.scope, says: `to ${to.says}` }
    : null;
}

const MOVES = act(`${MOVED}|\\b(?:hear|told|tell|be)\\b`);

/** The words that are to stand in a line, and those they stand for: what the script has is what goes. */
function pairIn({ quotes, text }: Roles): { old: Quote; by: string } | null {
  const said = quotes.filter((q) => q.said);
  const fresh = quotes.filter((q) => !q.said);
  if (said.length === 1 && fresh.length === 1) return { old: said[0], by: fresh[0].words };
  if (said.length === 2 && !fresh.length) {
    const [a, b] = said;
    if (/^[\s,]*(?:and|or|,)[\s,]*$/i.test(text.slice(a.start + 1, b.start))) return null;
    const turned = has(text.slice(a.start, b.start), /\b(?:instead of|rather than|in place of|not|for)\b/i);
    return turned ? { old: b, by: a.words } : { old: a, by: b.words };
  }
  return null;
}

const READERS: Readonly<Record<ActId, (frame: Frame) => Read>> = {
  undo: () => ({ unknown: 'The last step goes back by Ctrl Z; a note changes what stands now.' }),
  lock: (f) => locked(f, 'lock'),
  unlock: (f) => locked(f, 'unlock'),
  pause: ({ roles, context, before }) => {
    const { text, places, amounts } = roles;
    const whole = wholeScope(context.sections);
    if (has(text, NEGATES) && !amounts.length) {
      const ends = /\bbetween (?:the )?(?:sections?|parts?|paragraphs?)\b|\bends? of (?:the )?(?:sections?|parts?|paragraphs?)/i.test(text);
      return [request('no-rests', places[0]?.scope ?? before ?? whole, { slots: ends ? { ends: 'ends' } : {} })];
    }
    const list = places.length ? places : before ? [{ start: 0, end: 0, says: before.says, scope: before, side: null }] : []; // prettier-ignore
    const both = /\bbefore and (?:one )?after\b|\bafter and (?:one )?before\b|\beither side|\bbefore\b.*\bafter\b(?! (?:the|that|he|she|they|it)\b)/i.test(text);
    return list.length === 0
      ? null
      : (both || (/\bbetween\b/i.test(text) && list.some((p) => p.start !== list[0].start)) ? list.slice(0, 1) : list).flatMap((p): Request[] => {
          const ms = amounts.filter((a) => a.amount.type !== 'share').findLast((a) => a.start < p.start) ?? amounts.find((a) => a.amount.type !== 'share');
          const amount = ms?.amount ?? null;
          const until: Request['slots'] = list[1] && list[1].start !== p.start && !both && /\bbetween\b/i.test(text) ? { about: phraseOf(list[1].scope, context) } : {};
          const rest = request('rest', p.scope, { amount, slots: { ...until, ...(ms ? { amount: text.slice(ms.start, ms.end) } : {}) } });
          const lead = request('rest-before', whole, { amount, slots: { about: phraseOf(p.scope, context) } });
          const first = p.side === 'before' || (p.side === null && /\bbefore$/i.test(text.trim()));
          return both ? [lead, rest] : [first ? lead : rest];
        });
  }, // prettier-ignore
  round: ({ roles, context, kept }) => {
    const named = (roles.text.match(/\d[\d.,]*\d|\d/g) ?? []).filter((n) => !kept.includes(n));
    const lines = context.sections.flatMap((s) => s.lines).filter((l) => named.some((n) => new RegExp(`(?<![\\d.,])${literal(n)}(?![\\d]|[.,]\\d)`).test(l.text)));
    const own: Scope = { type: 'lines', says: `the line with ${named.join(', ')}`, sections: [], lines: lines.map((l) => l.id) };
    return [request('round', lines.length ? own : scopeFor(roles, context), { keep: kept })];
  }, // prettier-ignore
  figures: ({ roles, context, kept }) => {
    const words = /\b(?:as|in|into|to) words\b|\bspell/i.test(roles.text);
    const own = roles.quotes.filter((q) => q.said && /\d/.test(q.words));
    if (words && own.length)
      return own.map((q) => request('said-in-words', wholeScope(context.sections), { slots: { text: q.words } }));
    return [
      request(words ? 'numbers-in-words' : 'numbers-in-figures', scopeFor(roles, context), { keep: kept }),
    ];
  },
  units: ({ roles, context, before }) => {
    const { text } = roles;
    const named = [...text.matchAll(new RegExp(`\\b(not|no|than|of) (?:the )?(${UNIT})\\b|\\b(?:the )?(${UNIT}|metric|imperial)\\b`, 'giu'))];
    const wanted = named.find((m) => m[3])?.[3]?.toLowerCase();
    const several = named.filter((m) => m[3]).length > 1;
    const unwanted = named.find((m) => m[2])?.[2]?.toLowerCase();
    const unit = wanted ?? unwanted;
    if (!unit) return null;
    const own = /^(?:metric|imperial)$/.test(unit) ? { system: unit, name: '' } : unitNamed(unit);
    if (!own) return { unknown: `“${unit}” is no unit that can be worked out.` };
    const other = own.system === 'metric' ? 'imperial' : 'metric';
    const both = has(text, /\b(?:as well|too|also|both|beside|brackets|alongside|next to)\b/i);
    const system = both ? 'both' : wanted ? own.system : other;
    return [request('units', roles.places[0]?.scope ?? before ?? wholeScope(context.sections), { slots: { system, ...(own.name && !several ? { unit } : {}) } })];
  }, // prettier-ignore
  'say so': (f) => {
    if (!f.stated) return null;
    const first = f.context.sections[0];
    const words = f.stated.trim().replace(/[.,;:]+$/, '');
    const top: Where = { side: 'after', scope: { ...sectionScope(first), type: 'lines', sections: [], lines: [first.lines.at(-1)!.id] }, says: 'near the top' };
    return [request('add-line', wholeScope(f.context.sections), { slots: { text: `${words.charAt(0).toUpperCase()}${words.slice(1)}.` }, where: whereIn(f) ?? top })];
  }, // prettier-ignore
  active: ({ roles, context, before }) => [request('active', roles.places[0]?.scope ?? before ?? wholeScope(context.sections))],
  soften: () => ({ unknown: 'How to say it more softly, no rule can tell: write it in your own words, or order the line.' }),
  slower: ({ roles, before, context }) => {
    const at = roles.places.find((p) => p.scope.type !== 'whole')?.scope ?? before;
    if (roles.amounts.length) return null;
    const wpm = /\b(\d{2,3}) ?(?:wpm|words (?:a|per) minute)\b/i.exec(roles.text);
    if (wpm) return [request('pace', wholeScope(context.sections), { slots: { n: wpm[1] } })];
    if (has(roles.text, FASTER)) return at ? { unknown: 'A part can’t be read faster than the rest: take its rests out, or shorten it.' } : [request('pace', wholeScope(context.sections), { slots: { way: 'faster' } })];
    return at && at.type !== 'whole' ? [request('slower', at)] : [request('pace', wholeScope(context.sections), { slots: { way: 'slower' } })];
  }, // prettier-ignore
  references: (f) => noSpeech(f, 'no-references'),
  labels: (f) => noSpeech(f, 'no-labels'),
  simple: ({ roles, context, before }) => [
    request('for-children', roles.places[0]?.scope ?? before ?? wholeScope(context.sections)),
  ],
  spelling: ({ roles, context }) => [
    request('spelling', scopeFor(roles, context), {
      slots: { variety: /british|uk/i.test(roles.text) ? 'british' : 'american' },
    }),
  ],
  'short forms': ({ roles, context }) => [
    request(has(roles.text, NEGATES) ? 'expand' : 'contract', scopeFor(roles, context)),
  ],
  tense: ({ roles, context }) => [
    request(
      /\bpresent\b/i.test(roles.text.replace(/\bfrom (?:the )?present\b/i, '')) ? 'to-present' : 'to-past',
      scopeFor(roles, context),
    ),
  ],
  person: ({ roles, context }) => {
    const named = /(first|second|third) person( plural)?/i.exec(roles.text);
    const turned = /["“]?\b(i|we|you|he|she|they)["”]? (to|into|instead of|rather than|not) ["“]?(i|we|you|he|she|they)\b/i.exec(roles.text);
    const wanted = turned && (/^(?:to|into)$/i.test(turned[2]) ? turned[3] : turned[1]).toLowerCase();
    const person = named ? (named[2] ? 'we' : named[1].toLowerCase()) : wanted === 'i' ? 'first' : wanted === 'we' ? 'we' : wanted === 'you' ? 'second' : 'third';
    return [request(`${person}-person`, scopeFor(roles, context))];
  }, // prettier-ignore
  twice: ({ roles, context }) =>
    roles.places.length || roles.quotes.length ? null : [request('said-twice', wholeScope(context.sections))],
  'end at': (f) => {
    const { roles, context } = f;
    const at = roles.places.find((p) => p.side !== null);
    if (!at) return null;
    const within =
      roles.places.find((p) => p.side === null && p.scope.type === 'sections')?.scope ??
      wholeScope(context.sections);
    const first =
      within.lines.indexOf(at.side === 'before' ? at.scope.lines[0] : at.scope.lines.at(-1)!) +
      (at.side === 'before' ? 0 : 1);
    const lines = within.lines.slice(first);
    return first > 0 && lines.length
      ? [
          request('drop', {
            type: 'lines',
            says: `what stands ${at.side === 'before' ? 'from' : 'after'} ${at.says}`,
            sections: [],
            lines,
          }),
        ]
      : null;
  },
  title: (f) => {
    const { roles, context } = f;
    const inTitles = roles.quotes.filter((q) => context.sections.some((s) => plainWords(s.title).includes(plainWords(q.words)) && plainWords(s.title) !== plainWords(q.words)));
    if (CUTS.test(roles.text) && inTitles.length) return inTitles.map((q) => request('title-without', wholeScope(context.sections), { slots: { text: q.words } }));
    const numbered = [...roles.text.matchAll(new RegExp(`(?<!\\d)(\\d{1,2}) ?(?:(?:should|could|must) be|to|is|as|->|→|:|=)? ?(${MASK})`, 'gu'))];
    if (numbered.length > 1) {
      const named = numbered.map((m) => [context.sections[Number(m[1]) - 1], roles.quotes.find((q) => q.start === m.index + m[0].length - 1)!.words] as const);
      return named.every(([s]) => s) ? named.map(([s, text]) => titleWish(s, text)) : { unknown: `There are only ${context.sections.length} sections.` };
    }
    const value =
      roles.quotes.filter((q) => !context.sections.some((s) => plainWords(s.title) === plainWords(q.words))).at(-1)?.words ??
      /(?:\bto|\bcalled|\binto|:|\bbe|\bit)\s+((?:the |an? )?\p{Lu}[^,.;:!?]{2,60})$/u.exec(roles.text)?.[1];
    const at = targetsOf(f).find((p) => p.says !== `“${value}”`) ?? (f.before ? { scope: f.before } : undefined);
    if (value && !at && has(roles.text, /\btitle\b/i)) return [request('retitle', wholeScope(context.sections), { slots: { text: value } })];
    return value && at ? [request('rename', at.scope, { slots: { text: value } })] : null;
  }, // prettier-ignore
  restore: (f) => {
    const at = targetsOf(f)[0];
    return at ? [request('source-words', at.scope)] : null;
  },
  question: ({ roles, context, before }) => {
    const own = roles.quotes.find((q) => q.words.trim().endsWith('?'));
    if (own && has(roles.text, /\b(?:first|start|open|begin|before (?:all|everything)|opening|top)\b/i))
      return [request('open-line', { ...wholeScope(context.sections), sections: [context.sections[0].id] }, { slots: { text: own.words } })];
    const at = roles.places.find((p) => p.side === 'before') ?? (has(roles.text, /\bbefore\b/i) ? (roles.places[0] ?? (before ? { scope: before } : undefined)) : undefined);
    return at ? [request('question-before', at.scope)] : null;
  }, // prettier-ignore
  merge: (f) => {
    const { roles, context } = f;
    const [a, b] = [...targetsOf(f), ...roles.places.filter((p) => p.side !== null)];
    if (!a) return null;
    const one = /\b(?:sentences?|lines?|breath)\b/i.test(roles.text);
    const held = asSection(a.scope, context);
    if (b && held && b.scope.type === 'sections')
      return [request('join', held, { slots: { about: phraseOf(b.scope, context) } })];
    if (b) {
      if (a.scope.type === 'lines' && b.scope.type === 'lines') return [request(one ? 'one-sentence' : 'join', together([a, b], context))]; // prettier-ignore
      return [request('join', a.scope, { slots: { about: phraseOf(b.scope, context) } })];
    }
    if (a.scope.lines.length < 2) return { unknown: 'Two lines or sections are needed to join.' };
    return [request(one && a.scope.type === 'lines' ? 'one-sentence' : 'join', a.scope)];
  },
  split: (f) => {
    const { roles } = f;
    const at = roles.quotes.find((q) => q.said);
    const own = /\b(?:sections?|parts?|paragraphs?)\b/i.test(roles.text.replace(/\b(?:in|of) (?:the )?(?:section|part|paragraph)\b.*/i, '')); // prettier-ignore
    if (at && !own && has(roles.text.slice(0, at.start), /\b(?:after|behind|at|before)\s*$/i)) return [request('split-line', wholeScope(f.context.sections), { slots: { text: at.words } })]; // prettier-ignore
    const place = roles.places.at(-1) ?? targetsOf(f)[0];
    if (!place) return null;
    if (place.scope.type === 'lines' && !own) return [request('two-sentences', place.scope)];
    return [request('split', place.side === 'after' ? behind(place.scope, f.context) : place.scope)];
  },
  swap: (f) => {
    const [a, b] = targetsOf(f);
    if (a && b) return [request('swap', a.scope, { slots: { about: phraseOf(b.scope, f.context) } })];
    if (a?.scope.type === 'lines' && a.scope.lines.length === 2) {
      const one = (id: string): Scope => ({ type: 'lines', says: 'one of them', sections: [], lines: [id] });
      return [request('swap', one(a.scope.lines[0]), { slots: { about: phraseOf(one(a.scope.lines[1]), f.context) } })];
    }
    if (a?.scope.type === 'sections' && a.scope.sections.length === 2) {
      const one = (id: string) => sectionScope(f.context.sections.find((s) => s.id === id)!);
      return [request('swap', one(a.scope.sections[0]), { slots: { about: phraseOf(one(a.scope.sections[1]), f.context) } })]; // prettier-ignore
    }
    return null;
  },
  names: ({ roles, context }) => {
    const { text } = roles;
    const inScript = (n: string) => context.sections.some((s) => s.lines.some((l) => l.text.includes(n)));
    const kept = /\b(?:leave|keep|except|but not)\s+(\p{Lu}\p{Ll}+)/u.exec(text)?.[1];
    const names = (text.match(/(?<![.!?] |^)\b\p{Lu}\p{Ll}+\b/gu) ?? []).filter((n) => n !== kept && inScript(n));
    // "the engineer's name": by what the script calls somebody.
    const role = /\b(?:the|our|her|his|my|their) ([\p{Ll} -]+?)['’]s? (?:sur|first |last |full |real )?names?\b|\bnames? of (?:the|our|her|his|my|their) ([\p{Ll} -]+)$/u.exec(text);
    const who = role && new RegExp(`\\b${literal(role[1] ?? role[2])},? ((?:\\p{Lu}[\\p{L}’'-]+ ?)+)`, 'u');
    const called = who ? context.sections.flatMap((s) => s.lines).map((l) => who.exec(l.text)?.[1]?.trim()).find(Boolean) : null;
    const out = called ? [called] : names;
    return out.length ? [request('names-out', wholeScope(context.sections), { slots: { about: out.join(', ') } })] : null;
  }, // prettier-ignore
  replace: (f) => {
    const { roles, context, said } = f;
    const offered = new RegExp(`\\b(?:would|could|might|may|how about|what about|maybe|perhaps|better|try) ${MASK}`, 'iu').test(roles.text);
    const lone = roles.quotes.length === 1 && (offered || !roles.quotes[0]!.said) ? roles.quotes[0]! : null;
    const near = lone && said && spanFor(said.words, lone.words);
    const pair = pairIn(roles) ?? (lone && said ? { old: near ? { ...said, words: near } : said, by: lone.words } : null);
    const within = roles.places.find((p) => p.says !== `“${pair?.old.words}”` && p.says !== `“${pair?.by}”` && p.side === null && p.scope.lines.length);
    const only = roles.quotes.length === 1 ? roles.quotes[0] : null;
    const titled = only && (!said || /\b(?:title|heading)\b/i.test(f.stated ?? '')) && f.before?.sections.length === 1 && context.sections.find((s) => s.id === f.before!.sections[0] && f.before!.says.includes(s.title));
    if (titled) return [request('rename', f.before!, { slots: { text: only.words } })];
    if (pair) return [request('replace-text', within?.scope ?? wholeScope(context.sections), { slots: changedPart(pair.old.words, pair.by) })];
    const fresh = roles.quotes.find((q) => !q.said);
    const at = targetsOf(f)[0];
    if (fresh && at && at.scope.lines.length === 1) {
      const line = context.sections.flatMap((s) => s.lines).find((l) => l.id === at.scope.lines[0])!.text;
      const span = spanFor(line, fresh.words);
      if (span) return [request('replace-text', at.scope, { slots: { text: span, by: fresh.words } })];
      // Few words for a long line are some of it, and nobody knows which.
      return countWords(fresh.words) * 2 < countWords(line) ? null : [request('set-line', at.scope, { slots: { text: fresh.words } })];
    }
    // "Nobody says slane. Say spade."
    const plain = said && /^(?:just |only )?(?:say|use|write|put|make it) (?:only |just )?(?:an? |the )?([\p{L}’'-]+)(?: instead| there)?$/iu.exec(roles.text.trim());
    if (plain) return [request('replace-text', wholeScope(context.sections), { slots: { text: said.words, by: plain[1] } })];
    // "say lorry instead of truck", "truck should be lorry"
    const words = new RegExp(`^(?:.*\\b(?:say|use|write|put) )?(?:an? |the )?([\\p{L}-]+(?: [\\p{L}-]+)?) (?:instead of|rather than|in place of|for|not) (?:an? |the )?([\\p{L}-]+(?: [\\p{L}-]+)?)$`, 'iu').exec(roles.text.trim());
    if (words) return [request('replace-text', wholeScope(context.sections), { slots: { text: words[2], by: words[1] } })];
    return null;
  }, // prettier-ignore
  length: (f) => {
    const { roles, context, before } = f;
    const { text, amounts } = roles;
    const at = roles.places.find((p) => p.scope.type !== 'whole')?.scope ?? (/\b(?:it|this|that|them)\b/i.test(text) && before ? before : wholeScope(context.sections)); // prettier-ignore
    const amount = amounts[0]?.amount ?? null;
    if (/\b(?:longer|lengthen|extend|expand|more (?:time|room|air|seconds))\b/i.test(text)) {
      if (!amount) return null;
      return [request('air', at, { amount: amount.type === 'share' ? amount : { ...amount, type: 'by' } })];
    }
    if (!amount && at.type === 'whole') return null;
    const limit = /\b(?:under|at (?:the )?most|no (?:more|longer) than|max(?:imum)?|tops|down to|to)\b/i.test(
      text,
    );
    const by: Amount | null = amount?.type === 'to' && !limit && /\b(?:shorter|off|less|by)\b/i.test(text) ? { ...amount, type: 'by' } : amount; // prettier-ignore
    return [request(limit && by?.type === 'to' ? 'under' : 'shorten', at, { amount: by })];
  },
  move: (f) => {
    // "The vote before the fee": without a verb, the place stands first.
    if (!MOVES.test(f.roles.text) && !sideBySide(f.roles)) return null;
    const where = whereIn(f);
    const at = targetsOf(f).filter((p) => p.scope !== where?.scope && !(where && f.roles.places.indexOf(p) > 0 && where.scope?.lines.every((id) => p.scope.lines.includes(id))));
    if (where && at.length && (where.scope || at[0].scope.lines.length)) return [request('move', together(at.slice(0, 1), f.context), { where })]; // prettier-ignore
    const fresh = f.roles.quotes.find((q) => !q.said);
    if (where && fresh) return [request('add-line', wholeScope(f.context.sections), { slots: { text: fresh.words }, where })];
    return null;
  }, // prettier-ignore
  remove: (f) => {
    const { roles, context } = f;
    const nothing = /\bnothing (?:more )?(after|before|behind)\b/i.exec(roles.text)?.[1];
    if (nothing && has(roles.text, /\babout\b/i)) return null;
    if (nothing && !roles.places.some((p) => p.start > 0) && f.before) {
      const rest = beyond(nothing, f.before, context);
      return rest ? [request('drop', rest)] : { unknown: `Nothing stands ${nothing} it.` };
    }
    const quoted = roles.quotes.filter((q) => q.said);
    // "Lose 5 seconds": so much of it.
    const [some] = roles.amounts;
    if (some && some.amount.type !== 'share' && !roles.places.length && !quoted.length) return [request('shorten', f.before ?? wholeScope(context.sections), { amount: some.amount.type === 'to' ? { ...some.amount, type: 'by' } : some.amount })];
    const places = quoted.length ? targetsOf({ ...f, before: null }) : targetsOf(f);
    if (!places.length && !quoted.length) return null;
    const span = new RegExp(`\\bfrom (${MASK}) (?:right |all the way )?(?:up )?(?:to|till|until|through) (${MASK})`, 'iu').exec(roles.text);
    const ends = span && roles.quotes.filter((q) => q.start === roles.text.indexOf(span[1]) || q.start === roles.text.indexOf(span[2]));
    if (ends?.length === 2 && oneLineHas(ends[0].words, ends[1].words, context))
      return [request('cut-span', wholeScope(context.sections), { slots: { text: ends[0].words, until: ends[1].words } })];
    const literal = quoted.filter((q) => !wholeLine(q.words, context) && !places.some((p) => p.end - p.start > 1 && q.start >= p.start && q.start < p.end));
    const lines = places.filter((p) => !literal.some((q) => q.start >= p.start && q.start < p.end));
    const out: Request[] = literal.map((q) => {
      const inside = lines.find((p) => /\b(?:in|from|of)\s+(?:the )?$/i.test(roles.text.slice(0, p.start)));
      return request('drop-word', inside?.scope ?? wholeScope(context.sections), { slots: { text: q.words } });
    });
    const whole = lines.filter((p) => !(literal.length && /\b(?:in|from|of)\s+(?:the )?$/i.test(roles.text.slice(0, p.start))));
    if (whole.length) out.push(request('drop', together(whole.map((p) => (p.subject ? { ...p, scope: withFollowers(p.scope, context) } : p)), context)));
    return out.length ? out : null;
  }, // prettier-ignore
};

/** What words in a line others with the same beginning and end stand for: "would have" for "would probably have". */
function spanFor(line: string, by: string): string | null {
  const words = by.match(/[\p{L}\p{N}’']+/gu) ?? [];
  if (words.length < 3) return null;
  const found = new RegExp(
    `(?<![\\p{L}\\p{N}])${escaped(words[0]!)}(?: [\\p{L}\\p{N}’']+){0,${words.length}} ${escaped(words.at(-1)!)}(?![\\p{L}\\p{N}])`,
    'iu',
  ).exec(line);
  return found?.[0] ?? null;
}
/** Of words for others that end in the same, said otherwise ("voted 7 to 2", "seven to two"), only what is meant. */
function changedPart(old: string, by: string): { text: string; by: string } {
  const [a, b] = [old.split(' '), by.split(' ')];
  const tail = a.slice(-b.length);
  // "say 'about 57'" of "57 days a year": the rest stays.
  const shared = a.length > b.length && b.at(-1)!.toLowerCase() === a[0].toLowerCase();
  if (shared && b.length > 1) return { text: old, by: [by, ...a.slice(1)].join(' ') };
  const value = (w: string) => (/^\d+$/.test(w) ? Number(w) : (wordsValue(w) ?? w.toLowerCase()));
  return a.length > b.length && tail.every((w, i) => value(w) === value(b[i]!))
    ? { text: tail.join(' '), by }
    : { text: old, by };
}
/** Whether quoted words are nearly all that a line says, so that the line is meant. */
function wholeLine(words: string, { sections }: ReviseContext): boolean {
  const line = sections
    .flatMap((s) => s.lines)
    .find((l) => l.text.toLowerCase().includes(words.toLowerCase()));
  return line !== undefined && countWords(words) >= countWords(line.text) * 0.8;
}
/** Whether one line has words, and others behind them. */
const oneLineHas = (from: string, to: string, { sections }: ReviseContext) =>
  sections.some((s) => s.lines.some((l) => l.text.includes(from) && l.text.indexOf(to) > l.text.indexOf(from)));
/** Lines about somebody, with those behind them that go on about her or him by pronoun: alone, they would point at somebody else. */
function withFollowers(scope: Scope, { sections }: ReviseContext): Scope {
  if (scope.type !== 'lines') return scope;
  const gone = new Set(scope.lines);
  for (const s of sections)
    s.lines.forEach((l, i) => {
      if (i > 0 && gone.has(s.lines[i - 1].id) && /^(?:he|she|they|his|her|their)\b/i.test(l.text)) gone.add(l.id);
    });
  return { ...scope, lines: sections.flatMap((s) => s.lines.map((l) => l.id)).filter((id) => gone.has(id)) };
}
/** "The vote before the fee": two places, and nothing between them but which side. */
function sideBySide({ text, places: [first, second] }: Roles): boolean {
  if (!first || !second?.side || first.start > 4) return false;
  return /^\s*(?:right |just |directly |straight )?(?:after|behind|following|below|before|above|ahead of|in front of)\s+(?:the )?$/i.test(text.slice(first.end, second.start));
} // prettier-ignore
/** The section that lines make up, all but a line or two. */
function asSection(scope: Scope, { sections }: ReviseContext): Scope | null {
  if (scope.type === 'sections') return scope;
  const s = sections.find((x) => x.lines.some((l) => l.id === scope.lines[0]));
  const inside = s?.lines.filter((l) => scope.lines.includes(l.id)).length ?? 0;
  return s && inside >= s.lines.length * 0.8 ? sectionScope(s) : null;
}
/** The line that stands behind a place. */
function behind(scope: Scope, { sections }: ReviseContext): Scope {
  const ids = sections.flatMap((s) => s.lines.map((l) => l.id));
  const next = ids[ids.indexOf(scope.lines.at(-1)!) + 1];
  return next ? { type: 'lines', says: `what follows ${scope.says}`, sections: [], lines: [next] } : scope;
}
const CUTS = act(`\\b${verbs(['remove'])}\\b|\\b(?:no|without|out|gone|off)\\b`);
/** Rows that nobody says, where they are to go and nothing else is named. */
function noSpeech({ roles, context }: Frame, id: 'no-references' | 'no-labels'): Read {
  if (roles.quotes.some((q) => q.said) || !CUTS.test(roles.text)) return null;
  return [request(id, wholeScope(context.sections))];
}
function locked(f: Frame, id: 'lock' | 'unlock'): Read {
  const whole = f.roles.places.find((p) => p.scope.type === 'whole') ?? (/\b(?:all|everything)\b/i.test(f.roles.text) ? { scope: wholeScope(f.context.sections) } : undefined); // prettier-ignore
  const list = targetsOf(f);
  return list.length ? [request(id, together(list, f.context))] : whole ? [request(id, whole.scope)] : null;
}

const FASTER = /\b(?:faster|quicker|speed (?:it |this |that |everything )?up)\b/i;
const PLACELESS: ReadonlySet<ActId> = new Set(['say so', 'replace', 'undo', 'soften', 'spelling', 'person', 'names', 'references', 'labels']);
/** What a clause asks for; null where its act wants a place or words that it doesn't name. */
export function readAct(act: ActId, frame: Frame): Read {
  if (frame.roles.missing && !PLACELESS.has(act)) return { unknown: frame.roles.missing };
  return READERS[act](frame);
}
