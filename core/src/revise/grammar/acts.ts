/**
 * What a clause of a note asks for: an act by the words that name it (`actWords.ts`), whose places, quotations and amounts are taken
 * from wherever they stand.
 */
import { countWords } from '../ops/cut.ts';
import { OPERATIONS } from '../ops/index.ts';
import { unitNamed } from '../../draft/settle.ts';
import { literal } from '../../language/literal.ts';
import type { Amount, Request, ReviseContext, Scope, Where } from '../types.ts';
import { plainWords } from '../said.ts';
import { sectionScope, wholeScope } from '../scope.ts';
import { CUTS, FASTER, MOVES, NEGATES, PLACELESS, UNIT, act, type ActId } from './actWords.ts';
import { verbs } from './verbs.ts';
import { changedPart, pairIn, spanFor, unquotedPair } from './pairs.ts';
import { MASK, beyond, type Place, type Quote, type Roles, type Side } from './roles.ts';
import { asSection, behind, oneLineHas, phraseOf, sideBySide, together, wholeLine, whereIn, withFollowers } from './spots.ts'; // prettier-ignore

export type Read = Request[] | { unknown: string } | null;
const operation = (id: string) => OPERATIONS.find((o) => o.id === id)!;
const request = (id: string, scope: Scope, rest: Partial<Request> = {}): Request => ({ operation: operation(id), scope, amount: null, slots: {}, where: null, ...rest }); // prettier-ignore

/** A wish about the whole script. */
export const wish = (id: string, context: ReviseContext, slots: Request['slots']): Request =>
  request(id, wholeScope(context.sections), { slots });

/** Another title for a section. */
export const titleWish = (s: ReviseContext['sections'][number], text: string): Request =>
  request('rename', sectionScope(s), { slots: { text } });

/** A figure and nothing else, but for its unit. */
const FIGURE = /^[£$€]?\d[\d.,:]*(?: ?(?:%|\p{L}+))?$/u;
/** So many letters behind "no" stands what is meant. */
const NEAR = 12;
const CUT_TOO = act(`\\b${verbs(['remove'])}\\b`);

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
const targetsOf = ({ roles, before }: Frame): Place[] => {
  const own = roles.places.filter((p) => p.side === null && p.scope.type !== 'whole');
  if (own.length || !before) return own;
  return [{ start: 0, end: 0, says: before.says, scope: before, side: null }];
};
/** A pause before or after a place, as long as is said later. */
export const restBeside = (side: Side, scope: Scope, context: ReviseContext): Request =>
  side === 'after'
    ? request('rest', scope)
    : request('rest-before', wholeScope(context.sections), { slots: { about: phraseOf(scope, context) } });

const READERS: Readonly<Record<ActId, (frame: Frame) => Read>> = {
  undo: () => ({ unknown: 'The last step goes back by Ctrl Z; a note changes what stands now.' }),
  lock: (f) => locked(f, 'lock'),
  unlock: (f) => locked(f, 'unlock'),
  pause: ({ roles, context, before }) => {
    const { text, places, amounts } = roles;
    const whole = wholeScope(context.sections);
    if (has(text, NEGATES) && !amounts.length) {
      const ends = /\bbetween (?:the )?(?:sections?|parts?|paragraphs?)\b|\bends? of (?:the )?(?:sections?|parts?|paragraphs?)/i.test(text);
      const each = places.length > 1 && places.every((p) => p.start === places[0].start);
      return [request('no-rests', each ? whole : (places[0]?.scope ?? before ?? whole), { slots: ends ? { ends: 'ends' } : {} })];
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
    const own = roles.quotes.filter((q) => q.said && FIGURE.test(q.words));
    if (words && own.length)
      return own.map((q) =>
        request('said-in-words', wholeScope(context.sections), { slots: { text: q.words } }),
      );
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
    return [request('add-line', wholeScope(f.context.sections), { slots: { text: `${words.charAt(0).toUpperCase()}${words.slice(1)}.` }, where: whereIn(f.roles, f.context) ?? top })];
  }, // prettier-ignore
  active: ({ roles, context, before }) => [
    request('active', roles.places[0]?.scope ?? before ?? wholeScope(context.sections)),
  ],
  soften: () => ({
    unknown: 'How to say it more softly, no rule can tell: write it in your own words, or order the line.',
  }),
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
    // The video's own title, whatever the wish before was about.
    if (value && has(roles.text, /\b(?:call|title (?:of|for)) (?:the|this) (?:script|video|film|episode)\b/i)) return [request('retitle', wholeScope(context.sections), { slots: { text: value } })];
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
    // "swap the first two": both of them are one place.
    const one = (lines: readonly string[]): Scope => ({
      type: 'lines',
      says: 'one of them',
      sections: [],
      lines,
    });
    const halves =
      a?.scope.type === 'lines'
        ? a.scope.lines.map((id) => one([id]))
        : f.context.sections.filter((s) => a?.scope.sections.includes(s.id)).map(sectionScope);
    return a && halves.length === 2 ? [request('swap', halves[0], { slots: { about: phraseOf(halves[1], f.context) } })] : null; // prettier-ignore
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
    if (fresh && at && at.scope.lines.length === 1 && !has(roles.text, /\b(?:say|tell|mention|name) (?:where|when|who|what|how|that|which)\b/i)) {
      const line = context.sections.flatMap((s) => s.lines).find((l) => l.id === at.scope.lines[0])!.text;
      const span = spanFor(line, fresh.words);
      if (span) return [request('replace-text', at.scope, { slots: { text: span, by: fresh.words } })];
      // Few words for a long line are some of it, and nobody knows which.
      return countWords(fresh.words) * 2 < countWords(line) ? null : [request('set-line', at.scope, { slots: { text: fresh.words } })];
    }
    // "Nobody says slane. Say spade."
    const plain = said && /^(?:just |only )?(?:say|use|write|put|make it) (?:only |just )?(?:an? |the )?([\p{L}’'-]+)(?: instead| there)?$/iu.exec(roles.text.trim());
    if (plain) return [request('replace-text', wholeScope(context.sections), { slots: { text: said.words, by: plain[1] } })];
    const swap = unquotedPair(roles.text, context);
    if (swap) return [request('replace-text', wholeScope(context.sections), { slots: swap })];
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
    // "To 3:30, take it from 0:45-1:10": more than the place lasts is how long the whole is to be.
    const starts = at.type !== 'whole' && by?.type === 'to' ? context.startsMs?.() : undefined;
    if (starts && by?.type === 'to') {
      const lines = context.sections.flatMap((s) => s.lines);
      const lasts = lines.reduce(
        (n, l, i) => n + (at.lines.includes(l.id) ? starts[i + 1] - starts[i] : 0),
        0,
      );
      const over = starts[lines.length] - by.ms;
      if (by.ms > lasts)
        return over > 0
          ? [
              request('shorten', at, {
                amount: { type: 'by', ms: over, says: `${(over / 1000).toFixed(1)} s` },
              }),
            ]
          : { unknown: `It is shorter than ${by.says} already.` };
    }
    return [request(limit && by?.type === 'to' ? 'under' : 'shorten', at, { amount: by })];
  },
  move: (f) => {
    // "The vote before the fee": without a verb, the place stands first.
    if (!MOVES.test(f.roles.text) && !sideBySide(f.roles)) return null;
    const where = whereIn(f.roles, f.context);
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
    // "Get rid of half of section 3"; half of how often a word is said is somebody's choice.
    if (some?.amount.type === 'share') {
      const part = roles.places.find((p) => p.scope.type !== 'whole');
      return part && !quoted.length ? [request('shorten', part.scope, { amount: some.amount })] : null;
    }
    if (some && !roles.places.length && !quoted.length) return [request('shorten', f.before ?? wholeScope(context.sections), { amount: some.amount.type === 'to' ? { ...some.amount, type: 'by' } : some.amount })];
    const places = quoted.length ? targetsOf({ ...f, before: null }) : targetsOf(f);
    if (!places.length && !quoted.length) return null;
    const span = new RegExp(`\\bfrom (${MASK}) (?:right |all the way )?(?:up )?(?:to|till|until|through) (${MASK})`, 'iu').exec(roles.text);
    const ends = span && roles.quotes.filter((q) => q.start === roles.text.indexOf(span[1]) || q.start === roles.text.indexOf(span[2]));
    if (ends?.length === 2 && oneLineHas(ends[0].words, ends[1].words, context))
      return [request('cut-span', wholeScope(context.sections), { slots: { text: ends[0].words, until: ends[1].words } })];
    // "No past there": what "no" is said of stands behind it.
    if (/^no\b/i.test(roles.text) && !CUT_TOO.test(roles.text) && ![...places, ...quoted].some((p) => p.start > 0 && p.start < NEAR)) return null;
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

/** What a clause asks for; null where its act wants a place or words that it doesn't name. */
export function readAct(act: ActId, frame: Frame): Read {
  if (frame.roles.missing && !PLACELESS.has(act)) return { unknown: frame.roles.missing };
  return READERS[act](frame);
}
