/** How it opens, turns and ends; rests, stress, locks; another take. */
import type { HookKind } from '../../plan/hooks.ts';
import type { PlainLine, PlainSection } from '../../script/data.ts';
import { clockLines, emptyLine } from '../../script/schema.ts';
import type { Redone } from '../../draft/redo.ts';
import { breakScenes } from '../../scenes/breaks.ts';
import { MOST_PICTURES, paceForCount } from '../../scenes/count.ts';
import { FASTEST_PACE, SLOWEST_PACE, isPace } from '../../timing/clock.ts';
import { amountOf } from '../amount.ts';
import { scopeMs } from './cut.ts';
import { scopeOf } from '../scope.ts';
import { isKept, linesIn, mapLines, type Applied, type Operation } from '../types.ts';

const fromTeller = (redone: Redone | undefined, without: string): Applied =>
  redone === undefined
    ? { refused: without, nearest: 'choose among the takes in the Rundown' }
    : 'refused' in redone
      ? { refused: redone.refused }
      : { sections: redone.sections, notes: redone.notes };
const KIND_WORDS: Readonly<Record<string, HookKind>> = {
  question: 'question',
  scene: 'scene',
  figure: 'figure',
  number: 'figure',
  statistic: 'figure',
  contradiction: 'contradiction',
  paradox: 'contradiction',
  confession: 'confession',
  stakes: 'stakes',
  stake: 'stakes',
  promise: 'promise',
};
const KINDS = Object.keys(KIND_WORDS).join('|');
const NO_SOURCES = 'Without sources nothing can be told anew.';

const framing = (text: string, role: 'lead' | 'frame', fresh: () => string): PlainLine => ({
  ...emptyLine(`L${fresh()}`),
  text,
  role,
});
const TURNS =
  /^(?:but|yet|then|until|however|suddenly)\b|\b(?:turned out|collapsed|failed|broke|vanished|refused)\b/i;
const QUESTIONS_PAST = ['So what happened?', 'What came of it?', 'And then?'];
const QUESTIONS_NOW = ['So what happens now?', 'What comes of it?'];

/** Adds a question, told in the tense of what follows, that no line of the script asks yet. */
function asked(sections: readonly PlainSection[], at: number, fresh: () => string): Applied {
  const flat = linesIn(sections);
  const next = flat[at];
  const present =
    /\b(?:is|are|will|can|has|have)\b/.test(next.text) && !/\b(?:was|were|had|did)\b/.test(next.text);
  const used = new Set(flat.map((l) => l.text));
  const text = (present ? QUESTIONS_NOW : QUESTIONS_PAST).find((q) => !used.has(q));
  if (!text) return { refused: 'The script asks that already.' };
  const section = sections.find((s) => s.lines.includes(next))!;
  const k = section.lines.indexOf(next);
  // A question before a section's first line ends the section before it.
  const before = sections[sections.indexOf(section) - 1];
  const made = framing(text, 'lead', fresh);
  if (k === 0 && before && !before.locked)
    return { sections: sections.map((s) => (s === before ? { ...s, lines: [...s.lines, made] } : s)) };
  if (section.locked) return { refused: `“${section.title}” is locked.` };
  return {
    sections: sections.map((s) =>
      s === section ? { ...s, lines: [...s.lines.slice(0, k), made, ...s.lines.slice(k)] } : s,
    ),
  };
}

const SIGN_OFF: readonly string[] = [
  'There is more to tell. The next film goes on from here.',
  'The next film picks up where this one stops.',
];

/** A rest longer than this after every line is heard as a gap (common practice, no published source), in milliseconds. */
const LONGEST_AIR = 1500;
/** Rests shorter than this aren't heard as such, in milliseconds (common practice, no published source). */
const SHORTEST_AIR = 200;
/** "Faster" without a number. */
const A_LITTLE = 0.05;
/** So much longer a part is heard as slower (common practice, no published source). */
const SLOWER = 0.1;

export const shapeOps: readonly Operation[] = [
  {
    id: 'hook-kind',
    says: 'open in another way',
    otherwise: 'opening',
    patterns: [
      `(?:make |have |turn )?{scope} (?:as|into|with|be|is|should be|to) an? (?<kind>${KINDS})(?: instead)?`,
      `make {scope} an? (?<kind>${KINDS})`,
      `(?:start|open|begin)(?: it)? (?:with|on|as) an? (?:startling |surprising |bold |shocking )?(?<kind>${KINDS})(?: (?:to|for|at) (?:the |your |our )?(?:viewer|listener|audience|reader|public)s?)?(?: instead)?`,
      `an? (?<kind>${KINDS}) (?:as|for|in) (?:the |an )?(?:opening|hook|intro|start)(?: instead)?`,
    ],
    apply: ({ slots, scope }, context, { teller }) => {
      if (scope.sections[0] !== context.sections[0].id || scope.sections.length > 1)
        return { refused: 'Only the opening can be told in that way.' };
      return fromTeller(teller?.hook(context.sections, KIND_WORDS[slots.kind.toLowerCase()]), NO_SOURCES);
    },
  },
  {
    id: 'another-hook',
    says: 'show another opening',
    otherwise: 'opening',
    patterns: [
      '(?:give me |show(?: me)? |try |i want |use )?(?:another|a different|a new|a better|a stronger) (?:opening|hook|intro|introduction|beginning|start)',
      '(?:redo|rewrite|change) the (?:opening|hook|intro)',
      'open (?:it )?(?:differently|in another way)',
      'the (?:opening|hook|intro) is (?:weak|boring|too weak|dull)',
    ],
    apply: (_r, context, { teller }) => fromTeller(teller?.hook(context.sections), NO_SOURCES),
  },
  {
    id: 'another-take',
    says: 'show another take',
    otherwise: 'selection',
    patterns: [
      '(?:give me |show(?: me)? |try )?(?:another|a different|a new) (?:take|version|try)(?: (?:of|for|at|on) {scope})?',
      '(?:redo|rewrite|retell|rephrase|reword|try again with) {scope}(?: (?:again|differently))?',
      '(?:tell|say|put) {scope} (?:differently|another way|in another way|in other words)',
      '{scope} is (?:weak|boring|dull|not good(?: enough)?|not to my taste)',
    ],
    apply: ({ scope }, context, { teller }) => {
      if (!teller) return { refused: NO_SOURCES };
      if (scope.type === 'lines') {
        let sections = [...context.sections];
        const notes: string[] = [];
        for (const id of scope.lines) {
          const redone = teller.line(sections, id);
          if ('refused' in redone) notes.push(redone.refused);
          else sections = redone.sections;
        }
        return notes.length === scope.lines.length ? { refused: notes[0] } : { sections, notes };
      }
      if (scope.sections.length > 1)
        return { refused: 'One section at a time can be told anew.', nearest: 'select a section' };
      return fromTeller(teller.section(context.sections, scope.sections[0]), NO_SOURCES);
    },
  },
  {
    id: 'fit',
    says: 'fit it to its planned length',
    otherwise: 'whole',
    patterns: [
      '(?:fit|bring|get|make)(?: it| {scope})? (?:to|into|fit) (?:the |its )?(?:plan|planned (?:length|time)|target(?: length)?|length asked)',
      'hit the (?:target|length|plan)',
      'make it fit',
    ],
    apply: (_r, context, { teller }) => fromTeller(teller?.fit(context.sections), NO_SOURCES),
  },
  {
    id: 'question-before-turn',
    says: 'ask a question before the turn',
    otherwise: 'whole',
    moves: true,
    patterns: [
      '(?:ask|add|put|insert)(?: in)? a question (?:right |just )?(?:before|ahead of) (?:the (?:turn|twist|turning point)|it turns)',
      'a question (?:right |just )?before the (?:turn|twist|turning point)',
    ],
    apply: (_r, context) => {
      const flat = linesIn(context.sections);
      const section = context.sections.find((s, i) => i > 0 && (s.role === 'turn' || s.role === 'strain'));
      const at = section
        ? flat.indexOf(section.lines[0])
        : flat.findIndex((l, i) => i > 1 && TURNS.test(l.text));
      return at <= 0
        ? { refused: 'Nothing turns in this script that a question could come before.' }
        : asked(context.sections, at, context.fresh);
    },
  },
  {
    id: 'question-before',
    says: 'ask a question before something',
    otherwise: 'whole',
    moves: true,
    patterns: [
      '(?:ask|add|put|insert)(?: in)? a question (?:right |just )?(?:before|ahead of|in front of) {scope}',
      'a question (?:right |just )?before {scope}',
    ],
    apply: ({ scope }, context) => {
      const flat = linesIn(context.sections);
      const at = flat.findIndex((l) => l.id === scope.lines[0]);
      return at <= 0
        ? { refused: 'Nothing stands before it that could lead to a question.' }
        : asked(context.sections, at, context.fresh);
    },
  },
  {
    id: 'question-at-end',
    says: 'ask the listener something at the end',
    otherwise: 'ending',
    moves: true,
    patterns: [
      '(?:ask|add|put|end (?:on|with))(?: in)? a question (?:at|to|for) the end(?: of {scope})?',
      'ask the (?:listener|viewer|audience)s?(?: something| a question)?(?: at the end)?',
    ],
    apply: (_r, { sections, fresh }) => {
      const last = sections[sections.length - 1];
      if (last.locked) return { refused: 'The ending is locked.' };
      const text = 'What would you have done?';
      return last.lines.some((l) => l.text === text)
        ? { refused: 'The ending asks that already.' }
        : {
            sections: sections.map((s) =>
              s === last ? { ...s, lines: [...s.lines, framing(text, 'frame', fresh)] } : s,
            ),
          };
    },
  },
  {
    id: 'sign-off',
    says: 'add a sign-off',
    otherwise: 'ending',
    moves: true,
    patterns: [
      '(?:add|put|write|give it|end with|finish with|close with)(?: in)? an? (?:sign[- ]?off|outro|call to action|farewell|closing line|pointer)(?: (?:that|which))?(?: (?:points?|pointing|leads?|leading) (?:to|at|towards?) {about})?(?: at the end)?',
      '(?:point|lead|send) (?:the (?:viewer|listener|audience)s? |them )?(?:on )?to the next (?:film|video|episode|part)(?: at the end)?',
    ],
    apply: ({ slots }, { sections, fresh }) => {
      const last = sections[sections.length - 1];
      if (last.locked) return { refused: 'The ending is locked.' };
      const about =
        slots.about &&
        !/^(?:the |our )?(?:next|following) (?:film|video|episode|part|one)$/i.test(slots.about)
          ? slots.about.replace(/[“”"]/g, '')
          : null;
      const used = new Set(linesIn(sections).map((l) => l.text));
      const text = about ? `Next time: ${about}.` : SIGN_OFF.find((t) => !used.has(t));
      if (!text || used.has(text)) return { refused: 'The script has such a sign-off already.' };
      return {
        sections: sections.map((s) =>
          s === last ? { ...s, lines: [...s.lines, framing(text, 'frame', fresh)] } : s,
        ),
      };
    },
  },
  {
    id: 'no-rests',
    says: 'take out planned rests',
    otherwise: 'whole',
    patterns: [
      '(?:no|remove(?: the| all)?|drop(?: the| all)?|take out(?: the| all)?|cut(?: the| all)?|without) (?:pauses|rests|silences)(?: (?:in|from|after) {scope})?',
      '(?:no|remove(?: the| all)?|drop(?: the| all)?|take out(?: the| all)?|cut(?: the| all)?|without) (?:pauses|rests|silences) (?<ends>(?:at|after|behind) the ends? of (?:the )?(?:sections?|parts?|paragraphs?))',
    ],
    apply: ({ scope, slots }, context) => {
      const last = new Set(context.sections.flatMap((s) => s.lines.at(-1)?.id ?? []));
      const ids = scope.lines.filter((id) => !slots.ends || last.has(id));
      const sections = mapLines(context.sections, new Set(ids), (l) => (l.restMs ? { ...l, restMs: 0 } : l));
      return sections.some((s, i) => s.lines.some((l, k) => l !== context.sections[i]?.lines[k]))
        ? { sections }
        : { refused: 'No rest is planned there.' };
    },
  },
  {
    id: 'rest',
    says: 'plan a rest',
    otherwise: 'selection',
    patterns: [
      '(?:add|put|leave|make|plan|insert|have)(?: in)? (?:a )?(?:pause|rest|silence|beat|break) (?:of {amount} )?(?:after|behind|following|at the end of) {scope}',
      '(?:add|put|leave|make|insert)(?: in)? (?:a )?{amount} (?:pause|rest|silence|beat)(?: (?:after|behind|at the end of) {scope})?',
      '(?:add|put in|insert) (?:a )?(?:pause|rest|beat)(?: here)?',
      '(?:pause|rest|wait)(?: for)? {amount} (?:after|behind) {scope}',
      '{amount} (?:of )?(?:a )?(?:pause|rest|silence|nothing|quiet|air) (?:after|behind) {scope}',
    ],
    apply: ({ scope, slots }, context) => {
      const amount = slots.amount ? amountOf(slots.amount) : null;
      const ms = amount && amount.type !== 'share' ? Math.min(10_000, amount.ms) : 800;
      const id = scope.lines[scope.lines.length - 1];
      const sections = mapLines(context.sections, new Set([id]), (l) =>
        l.restMs === ms ? l : { ...l, restMs: ms },
      );
      return sections.some(
        (s, i) => s !== context.sections[i] && s.lines.some((l, k) => l !== context.sections[i].lines[k]),
      )
        ? { sections }
        : { refused: 'The line is locked, or rests as long already.' };
    },
  },
  {
    id: 'rest-before',
    says: 'plan a rest before something',
    otherwise: 'whole',
    patterns: [
      '(?:add|put|leave|make|plan|insert|have)(?: in)? (?:a )?(?:pause|rest|silence|beat|break)(?: of {amount})? (?:right |just )?(?:before|ahead of|in front of) {about}',
      '(?:add|put|leave|make|insert|have)(?: in)? (?:a )?{amount} (?:pause|rest|silence|beat|break) (?:right |just )?(?:before|ahead of|in front of) {about}',
    ],
    apply: ({ slots, amount }, context) => {
      const place = scopeOf(slots.about, context);
      if ('unknown' in place) return { refused: place.unknown };
      const all = linesIn(context.sections);
      const at = all.findIndex((l) => l.id === place.scope.lines[0]);
      if (at < 1) return { refused: 'Nothing is said before it.' };
      const ms = amount && amount.type !== 'share' ? Math.min(10_000, amount.ms) : 800;
      const sections = mapLines(context.sections, new Set([all[at - 1].id]), (l) => ({ ...l, restMs: ms }));
      return linesIn(sections)[at - 1] === all[at - 1]
        ? { refused: 'The line before it is locked.' }
        : { sections };
    },
  },
  {
    id: 'air',
    says: 'give a part more rests',
    otherwise: 'selection',
    patterns: [
      '(?:give|let|allow) {scope} (?:have )?{amount} (?:more )?(?:air|rest|room to breathe|breathing space)(?: in all)?',
      '(?:make|get) {scope} {amount} longer (?:with|by) (?:rests|pauses)',
    ],
    apply: ({ scope, amount }, context, { clock }) => {
      if (!amount) return { refused: 'Say how many seconds.' };
      const open = context.sections.flatMap((s) =>
        s.lines.filter((l) => scope.lines.includes(l.id) && !isKept(l, s)),
      );
      const more = amount.type === 'share' ? scopeMs(scope, context, clock) * amount.share : amount.ms;
      const each = open.length ? more / open.length : Infinity;
      if (each > LONGEST_AIR)
        return {
          refused: `Rests of ${(each / 1000).toFixed(1)} s after each line are no air but gaps; something more has to be said.`,
        };
      // Even tenths, the last of them taking what is left.
      let given = 0;
      const sections = mapLines(context.sections, new Set(open.map((l) => l.id)), (l) => {
        const upTo = Math.round(((open.findIndex((x) => x.id === l.id) + 1) * each) / 100) * 100;
        const more = upTo - given;
        given = upTo;
        return { ...l, restMs: l.restMs + more };
      });
      return { sections };
    },
  },
  {
    id: 'pace',
    says: 'read it at another pace',
    otherwise: 'whole',
    patterns: [
      '(?:read |put |set |make )?(?:it |the pace |everything |the whole(?: thing)? )?(?:at|to) {n} (?:wpm|words (?:a|per) minute)',
      '(?:the )?pace(?: of| to| at)? {n}(?: (?:wpm|words (?:a|per) minute))?',
      '{n} (?:wpm|words (?:a|per) minute)(?: please)?',
      '(?:read |make )?(?:it|everything|the whole(?: thing| script)?) {amount}? ?(?<way>faster|quicker|slower)(?: overall)?',
    ],
    apply: ({ slots, amount }, context, { clockAt }) => {
      if (!context.pace || !clockAt) return { refused: 'The pace can’t be changed here.' };
      const share = amount?.type === 'share' ? amount.share : A_LITTLE;
      const asked = slots.n ? Number(slots.n) : context.pace * (slots.way === 'slower' ? 1 - share : 1 + share);
      const pace = Math.round(asked);
      if (!isPace(pace)) return { refused: `A pace is between ${SLOWEST_PACE} and ${FASTEST_PACE} words a minute.` };
      return pace === context.pace
        ? { refused: `It is read at ${pace} words a minute already.` }
        : { sections: [...context.sections], settings: { pace }, notes: [`${context.pace} words a minute before, ${pace} after; the words stay.`] };
    }, // prettier-ignore
  },
  {
    id: 'pictures',
    says: 'cut it into so many pictures',
    otherwise: 'whole',
    patterns: [
      '(?:make |cut |use |have |give it |show |i want |we need )?(?:it |the script |everything |the whole(?: thing)? )?(?:in |into |with |to |from )?{n} (?:pictures|images|shots)(?: in all| in total| all in all)?',
      '(?:make |cut |use |show )?(?:it )?(?:to )?(?:one|a)(?: new)? (?:picture|image|shot) (?:every|each|per|for every) {amount}',
      '(?:a )?(?:new )?(?:picture|image|shot) (?:every|each) {amount}',
    ],
    apply: ({ slots, amount }, { sections, pictures }, { clock }) => {
      if (!pictures) return { refused: 'The pictures can’t be changed here.' };
      const before = breakScenes(sections, clock, pictures);
      const totalMs = before.at(-1)?.endMs ?? 0;
      const each = amount && amount.type !== 'share' ? amount.ms : 0;
      const count = slots.n ? Number(slots.n) : each ? Math.round(totalMs / each) : 0;
      if (!(count >= 1 && count <= MOST_PICTURES)) return { refused: `A script has between 1 and ${MOST_PICTURES} pictures.` };
      if (count === before.length) return { refused: `It has ${count} pictures already.` };
      const found = paceForCount(count, sections, clock, pictures);
      const near = found.count === count ? '' : `, as near to ${count} as these words, rests and cuts of your own allow`;
      return {
        sections: [...sections],
        settings: { paceCurve: found.handles },
        notes: [`${before.length} pictures before, ${found.count} after${near}: one every ${(totalMs / 1000 / found.count).toFixed(1)} s. The words stay.`],
      };
    }, // prettier-ignore
  },
  {
    id: 'slower',
    says: 'slow a part down by rests',
    otherwise: 'selection',
    patterns: [
      '(?:read |say |take |do )?{scope} (?:slower|more slowly)',
      '(?:slow(?:er)?)(?: down)?(?: (?:on|in|at|for|with))? {scope}',
      '(?:slow|take) {scope} down',
      '{scope} is too fast',
    ],
    apply: ({ scope }, context, { clock }) => {
      const open = context.sections.flatMap((s) => s.lines.filter((l) => scope.lines.includes(l.id) && !isKept(l, s) && l.text.trim()).map((l) => l.id));
      if (!open.length) return { refused: 'Those lines are locked.' };
      const times = clock.lines(clockLines(context.sections));
      const ms = new Map(linesIn(context.sections).map((l, i) => [l.id, times[i].ms]));
      const longer = (id: string) => Math.min(LONGEST_AIR, Math.max(SHORTEST_AIR, Math.round((ms.get(id)! * SLOWER) / 100) * 100));
      return {
        sections: mapLines(context.sections, new Set(open), (l) => ({ ...l, restMs: l.restMs + longer(l.id) })),
        notes: ['The words keep their pace; a rest after each line gives them time.'],
      };
    }, // prettier-ignore
  },
  {
    id: 'stress',
    says: 'stress words',
    otherwise: 'selection',
    patterns: [
      '(?:stress|emphasi[sz]e|lean on|accent) (?:the words? )?{text}(?: in {scope})?',
      '(?:put )?(?:the )?(?:stress|emphasis) on (?:the words? )?{text}(?: in {scope})?',
    ],
    apply: ({ scope, slots }, context) => {
      let n = 0;
      const sections = mapLines(context.sections, new Set(scope.lines), (l) => {
        const at = l.text.toLowerCase().indexOf(slots.text.toLowerCase());
        if (at < 0 || l.marks?.some((m) => m.type === 'stress' && m.start === at)) return l;
        n++;
        return {
          ...l,
          marks: [...(l.marks ?? []), { type: 'stress' as const, start: at, end: at + slots.text.length }],
        };
      });
      return n ? { sections } : { refused: `“${slots.text}” does not stand there, or is stressed already.` };
    },
  },
  {
    id: 'unlock',
    says: 'unlock a part',
    otherwise: 'selection',
    patterns: ['unlock {scope}', 'unlock'],
    apply: ({ scope }, { sections }) =>
      locking(
        scope.type === 'lines' ? new Set() : new Set(scope.sections),
        new Set(scope.type === 'lines' ? scope.lines : []),
        false,
        sections,
      ),
  },
  {
    id: 'lock',
    says: 'lock a part',
    otherwise: 'selection',
    patterns: [
      '(?:lock|freeze|protect) {scope}',
      '(?:keep|leave) {scope} (?:as it is|as they are|unchanged|exactly as (?:it is|they are))',
      "(?:don[’']t|do not|never) (?:touch|change|alter) {scope}",
      'lock',
    ],
    apply: ({ scope }, { sections }) =>
      locking(
        scope.type === 'lines' ? new Set() : new Set(scope.sections),
        new Set(scope.type === 'lines' ? scope.lines : []),
        true,
        sections,
      ),
  },
];

function locking(
  sectionIds: ReadonlySet<string>,
  lineIds: ReadonlySet<string>,
  locked: boolean,
  sections: readonly PlainSection[],
): Applied {
  let n = 0;
  const next = sections.map((s) => {
    const own = sectionIds.has(s.id) && s.locked !== locked;
    if (own) n++;
    const lines = s.lines.map((l) => {
      const hit = (lineIds.has(l.id) || (!locked && sectionIds.has(s.id))) && l.locked !== locked;
      if (hit) n++;
      return hit ? { ...l, locked } : l;
    });
    return own || lines.some((l, i) => l !== s.lines[i]) ? { ...s, ...(own ? { locked } : {}), lines } : s;
  });
  return n ? { sections: next } : { refused: locked ? 'It is locked already.' : 'Nothing there is locked.' };
}
