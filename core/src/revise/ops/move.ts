/** Moving, swapping, joining, splitting, naming. */
import { stems } from '../../facts/centrality.ts';
import type { PlainLine, PlainSection } from '../../script/data.ts';
import { emptyLine } from '../../script/schema.ts';
import { literal } from '../../language/literal.ts';
import { joinedLine, partedLine } from '../parting.ts';
import { lineSaying, spanOf } from '../said.ts';
import { secondOf } from '../scope.ts';
import {
  isKept,
  linesIn,
  mapLines,
  type Applied,
  type Operation,
  type ReviseContext,
  type Scope,
  type Where,
} from '../types.ts';

const MOVE = '(?:move|put|bring|shift|place|push|pull|take|send)';

function movedSections(scope: Scope, where: Where, { sections }: ReviseContext): Applied {
  const ids = new Set(scope.sections);
  const moving = sections.filter((s) => ids.has(s.id));
  if (moving.length === sections.length) return { refused: 'That is everything there is to move.' };
  const locked = moving.find((s) => s.locked);
  if (locked) return { refused: `“${locked.title}” is locked.`, nearest: 'unlock it first' };
  const rest = sections.filter((s) => !ids.has(s.id));
  const anchor =
    where.scope?.type === 'lines'
      ? sections.find((s) => s.lines.some((l) => where.scope!.lines.includes(l.id)))?.id
      : where.side === 'after'
        ? where.scope?.sections.slice(-1)[0]
        : where.scope?.sections[0];
  let at =
    where.side === 'start' ? 0 : where.side === 'end' ? rest.length : rest.findIndex((s) => s.id === anchor);
  if (at < 0) return { refused: 'It can’t be moved beside itself.' };
  if (where.side === 'after') at++;
  const next = [...rest.slice(0, at), ...moving, ...rest.slice(at)];
  return next.every((s, i) => s === sections[i])
    ? { refused: 'It stands there already.' }
    : { sections: next, notes: leaning(next, sections) };
}

/** Sections that now open on a word that points back, at something else than before. */
function leaning(next: readonly PlainSection[], before: readonly PlainSection[]): string[] {
  const previous = (list: readonly PlainSection[], id: string) =>
    list[list.findIndex((s) => s.id === id) - 1]?.id;
  return next.flatMap((s) =>
    previous(next, s.id) !== previous(before, s.id) &&
    /^(?:it|they|he|she|this|that|these|those|but|so|then)\b/i.test(s.lines[0]?.text ?? '')
      ? [`“${s.title}” opens with “${s.lines[0].text.split(' ')[0]}”, which now points at something else.`]
      : [],
  );
}

function movedLines(ids: ReadonlySet<string>, where: Where, { sections }: ReviseContext): Applied {
  const moving: PlainLine[] = [];
  for (const s of sections)
    for (const l of s.lines)
      if (ids.has(l.id)) {
        if (isKept(l, s)) return { refused: 'A locked line stays where it is.', nearest: 'unlock it first' };
        moving.push(l);
      }
  if (!moving.length) return { refused: 'There is nothing to move.' };
  const rest = sections.map((s) => ({ ...s, lines: s.lines.filter((l) => !ids.has(l.id)) }));
  const targetId = where.scope?.lines[where.side === 'after' ? where.scope.lines.length - 1 : 0];
  const out = rest.map((s, i) => {
    const at =
      where.side === 'start'
        ? i === 0
          ? 0
          : -1
        : where.side === 'end'
          ? i === rest.length - 1
            ? s.lines.length
            : -1
          : s.lines.findIndex((l) => l.id === targetId) +
            (where.side === 'after' && s.lines.some((l) => l.id === targetId) ? 1 : 0);
    const here =
      where.side === 'start' || where.side === 'end' ? at >= 0 : s.lines.some((l) => l.id === targetId);
    if (!here) return s;
    if (s.locked) return null;
    return { ...s, lines: [...s.lines.slice(0, at), ...moving, ...s.lines.slice(at)] };
  });
  if (out.includes(null))
    return { refused: 'The section it would go to is locked.', nearest: 'unlock it first' };
  const next = (out as PlainSection[]).filter((s) => s.lines.length);
  if (linesIn(next).length !== linesIn(sections).length)
    return { refused: 'It can’t be moved beside itself.' };
  const order = (list: readonly PlainSection[]) =>
    linesIn(list)
      .map((l) => l.id)
      .join();
  return order(next) === order(sections) ? { refused: 'It stands there already.' } : { sections: next };
}

const moved = (scope: Scope, where: Where, context: ReviseContext): Applied =>
  scope.type === 'lines'
    ? movedLines(new Set(scope.lines), where, context)
    : movedSections(scope, where, context);

/** Lines about something, the best first. */
function linesAbout(topic: string, { sections }: ReviseContext): PlainLine[] {
  const future =
    /^(?:what (?:happens|comes|will happen) (?:next|now)|the future|next steps?|what(?:[’']s| is) next)$/i.test(
      topic.trim(),
    );
  const lines = linesIn(sections).filter((l) => l.text.trim() && l.role !== 'frame' && l.role !== 'lead');
  if (future) {
    const ahead = lines.filter((l) =>
      /\b(?:will|going to|plans? to|hopes? to|until|next (?:week|month|year|spring|summer|autumn|winter)|tomorrow|is to be|are to be|proposed|to be (?:lifted|opened|decided|built))\b/i.test(
        l.text,
      ),
    );
    return ahead.slice(-1);
  }
  const wanted = stems(topic);
  if (!wanted.length) return [];
  const scored = lines.map((l) => {
    const own = new Set(stems(l.text));
    return { l, n: wanted.filter((w) => own.has(w)).length };
  });
  const best = Math.max(0, ...scored.map((x) => x.n));
  return best ? scored.filter((x) => x.n === best).map((x) => x.l) : [];
}

/** A line of the person's own words; it claims what they say, and rests on nothing yet. `at` null: at the end. */
function added(
  sectionId: string | undefined,
  at: number | null,
  words: string,
  { sections, fresh }: ReviseContext,
): Applied {
  const section = sections.find((s) => s.id === sectionId);
  if (!section) return { refused: 'There is no such place.' };
  if (section.locked) return { refused: `“${section.title}” is locked.`, nearest: 'unlock it first' };
  const text = words.trim();
  const made: PlainLine = { ...emptyLine(`L${fresh()}`), text: /[.!?…”"]$/.test(text) ? text : `${text}.` };
  const place = at ?? section.lines.length;
  return {
    sections: sections.map((s) =>
      s === section ? { ...s, lines: [...s.lines.slice(0, place), made, ...s.lines.slice(place)] } : s,
    ),
  };
}

export const moveOps: readonly Operation[] = [
  {
    id: 'person-first',
    says: 'put one person’s story first',
    otherwise: 'whole',
    moves: true,
    patterns: [
      "(?:start|open|begin|lead) with (?:a |one |the )?(?:single )?person(?:[’']s)?(?: story)?(?: first)?",
      "(?:one|a|a single) (?:person|human)(?:[’']s)?(?: story)? first",
      "(?:put|move|bring) (?:one|a|the) person(?:[’']s)?(?: story)? (?:first|up front|to the (?:front|start))",
      '(?:start|open|begin) with (?:somebody|someone|a human(?: story)?)',
    ],
    apply: (_request, context) => {
      const people = new Map<string, { n: number; section: PlainSection }>();
      for (const s of context.sections)
        for (const l of s.lines)
          for (const m of l.text.matchAll(
            /(?<=[\p{Ll},“] |^)(?:Mr |Mrs |Ms |Dr )?\p{Lu}[\p{Ll}’]+ \p{Lu}[\p{Ll}’]+(?=[^\p{L}]|$)/gu,
          )) {
            const known = people.get(m[0]) ?? { n: 0, section: s };
            people.set(m[0], {
              ...known,
              n:
                known.n +
                1 +
                s.lines.filter((x) => x !== l && x.text.includes(m[0].split(' ').pop()!)).length,
            });
          }
      const best = [...people]
        .filter(
          ([name]) =>
            !/\b(?:Street|Road|Bridge|River|Cut|Hill|City|Council|Company|Polytechnic|University|Lane|Square|House|Hall|Valley|Station)\b/.test(
              name,
            ),
        )
        .sort((a, b) => b[1].n - a[1].n)[0];
      if (!best)
        return {
          refused: 'No person is named in this script; a draft can’t invent one.',
          nearest: 'add a source in which somebody tells it',
        };
      const { section } = best[1];
      if (section === context.sections[0]) return { refused: `${best[0]} is in the opening already.` };
      const result = movedSections(
        { type: 'sections', says: '', sections: [section.id], lines: section.lines.map((l) => l.id) },
        { side: 'start', scope: null, says: 'to the start' },
        context,
      );
      return 'sections' in result
        ? {
            ...result,
            notes: [`${best[0]}’s part, “${section.title}”, now opens the script.`, ...(result.notes ?? [])],
          }
        : result;
    },
  },
  {
    id: 'swap',
    says: 'swap two parts',
    otherwise: 'whole',
    moves: true,
    patterns: ['(?:swap|switch|exchange)(?: around)? {scope} (?:and|with|for) {about}'],
    apply: ({ scope, slots }, context) => {
      const other = secondOf(slots.about, context);
      if ('unknown' in other) return { refused: other.unknown };
      const { sections } = context;
      if (scope.type === 'lines' && other.scope.type === 'lines') {
        const [a, b] = [scope.lines[0], other.scope.lines[0]];
        const get = (id: string) => linesIn(sections).find((l) => l.id === id)!;
        if (sections.some((s) => s.lines.some((l) => (l.id === a || l.id === b) && isKept(l, s))))
          return { refused: 'A locked line stays where it is.' };
        return {
          sections: sections.map((s) => ({
            ...s,
            lines: s.lines.map((l) => (l.id === a ? get(b) : l.id === b ? get(a) : l)),
          })),
        };
      }
      const [a, b] = [scope.sections[0], other.scope.sections[0]];
      const get = (id: string) => sections.find((s) => s.id === id)!;
      if (!a || !b || a === b) return { refused: 'Two different sections are needed to swap.' };
      if (get(a).locked || get(b).locked) return { refused: 'A locked section stays where it is.' };
      const next = sections.map((s) => (s.id === a ? get(b) : s.id === b ? get(a) : s));
      return { sections: next, notes: leaning(next, sections) };
    },
  },
  {
    id: 'end-on',
    says: 'end on something',
    otherwise: 'whole',
    moves: true,
    patterns: [
      '(?:end|finish|close|conclude)(?: it)? (?:on|with) (?:the (?:line|sentence|fact|part|bit) (?:about |on |that )?)?{about}',
      'make {about} the (?:end|ending|last (?:line|thing))',
      'the last (?:line|thing) should be (?:about )?{about}',
    ],
    apply: ({ slots }, context) => {
      const about = slots.about.replace(/^(?:the|a|an)\s+/i, '');
      if (/^(?:a |the )?question$/i.test(slots.about)) {
        const asks = linesIn(context.sections).filter((l) => /\?["”]?$/.test(l.text));
        return asks.length
          ? movedLines(new Set([asks[asks.length - 1].id]), { side: 'end', scope: null, says: '' }, context)
          : {
              refused: 'The script asks nothing that it could end on.',
              nearest: 'add a question at the end',
            };
      }
      const lines = linesAbout(about, context);
      if (!lines.length)
        return {
          refused: /next|future/.test(about)
            ? 'No line of the script tells of what is still to come, so it can’t end on it.'
            : `No line is about ${about}.`,
        };
      // A line with those that lean on it.
      return movedLines(
        new Set([lines[lines.length - 1].id]),
        { side: 'end', scope: null, says: '' },
        context,
      );
    },
  },
  {
    id: 'open-with',
    says: 'open with something',
    otherwise: 'whole',
    moves: true,
    patterns: [
      '(?:start|open|begin|lead)(?: it)? with the (?:line|sentence|fact|part|bit) (?:about |on |that (?:says|tells) )?{about}',
      '(?:start|open|begin) (?:it )?with (?:the )?{about} first',
      'make {about} the (?:opening|first line)',
    ],
    apply: ({ slots }, context) => {
      const lines = linesAbout(slots.about, context);
      if (!lines.length) return { refused: `No line is about ${slots.about}.` };
      return movedLines(new Set([lines[0].id]), { side: 'start', scope: null, says: '' }, context);
    },
  },
  {
    id: 'move',
    says: 'move a part',
    otherwise: 'selection',
    moves: true,
    patterns: [
      `${MOVE} {scope} (?:up |down |back |over )?{where}`,
      '{scope} (?:should|must) (?:come|go|be|stand) {where}',
      '{scope} {where}(?:, please)?',
    ],
    apply: ({ scope, where }, context) => moved(scope, where!, context),
  },
  {
    id: 'move-step',
    says: 'move a part up or down',
    otherwise: 'selection',
    moves: true,
    patterns: [
      `${MOVE} {scope} (?:one (?:place |step |section )?)?(?<dir>up|down|earlier|later|forward|back)(?: (?:one|a) (?:place|step|section|line))?`,
    ],
    apply: ({ scope, slots }, context) => {
      const by = /^(?:up|earlier|forward)$/i.test(slots.dir) ? -1 : 1;
      if (scope.type === 'lines') {
        const flat = linesIn(context.sections);
        const at = flat.findIndex((l) => l.id === scope.lines[by < 0 ? 0 : scope.lines.length - 1]);
        const other = flat[at + by];
        if (!other) return { refused: 'It stands at the edge already.' };
        return movedLines(
          new Set(scope.lines),
          {
            side: by < 0 ? 'before' : 'after',
            scope: { type: 'lines', says: '', sections: [], lines: [other.id] },
            says: '',
          },
          context,
        );
      }
      const at = context.sections.findIndex(
        (s) => s.id === scope.sections[by < 0 ? 0 : scope.sections.length - 1],
      );
      const other = context.sections[at + by];
      if (!other) return { refused: 'It stands at the edge already.' };
      return movedSections(
        scope,
        {
          side: by < 0 ? 'before' : 'after',
          scope: { type: 'sections', says: '', sections: [other.id], lines: [] },
          says: '',
        },
        context,
      );
    },
  },
  {
    id: 'join',
    says: 'join parts or lines',
    otherwise: 'selection',
    moves: true,
    patterns: [
      '(?:join|merge|combine|put together)(?: together)? {scope} (?:and|with|to|into) {about}',
      '(?:join|merge|combine) {scope}(?: (?:together|into one))?',
    ],
    apply: ({ scope, slots }, context) => {
      const { sections } = context;
      const other = slots.about ? secondOf(slots.about, context) : null;
      if (other && 'unknown' in other) return { refused: other.unknown };
      if (scope.type === 'lines') {
        const ids = [...scope.lines, ...(other && 'scope' in other ? other.scope.lines : [])];
        if (ids.length < 2) return { refused: 'Two lines are needed to join.' };
        const section = sections.find((s) => s.lines.some((l) => l.id === ids[0]))!;
        const own = section.lines.filter((l) => ids.includes(l.id));
        if (own.length < ids.length) return { refused: 'Lines of different sections can’t be joined.' };
        if (own.some((l) => isKept(l, section))) return { refused: 'A locked line stays as it is.' };
        const [first, ...more] = own;
        const joined = joinedLine(own, own.map((l) => l.text).join(' '));
        return {
          sections: sections.map((s) =>
            s === section
              ? {
                  ...s,
                  lines: s.lines.flatMap((l) => (l === first ? [joined] : more.includes(l) ? [] : [l])),
                }
              : s,
          ),
        };
      }
      const ids = [...scope.sections, ...(other && 'scope' in other ? other.scope.sections : [])];
      const at = sections.map((s, i) => (ids.includes(s.id) ? i : -1)).filter((i) => i >= 0);
      if (at.length < 2) return { refused: 'Two sections are needed to join.' };
      if (at.some((i, k) => k > 0 && i !== at[k - 1] + 1))
        return {
          refused: 'Only sections that follow one another can be joined.',
          nearest: 'move one beside the other first',
        };
      if (at.some((i) => sections[i].locked)) return { refused: 'A locked section stays as it is.' };
      const first = sections[at[0]];
      const joined: PlainSection = {
        ...first,
        plannedMs: at.reduce((n, i) => n + sections[i].plannedMs, 0),
        lines: at.flatMap((i) => [...sections[i].lines]),
      };
      return { sections: sections.flatMap((s, i) => (i === at[0] ? [joined] : at.includes(i) ? [] : [s])) };
    },
  },
  {
    id: 'split-line',
    says: 'make two sentences of one',
    otherwise: 'whole',
    patterns: [
      '(?:split|break|divide)(?: up)?(?: (?:it|that|this|the (?:line|sentence)))?(?: (?:in|into) two(?: sentences)?)? (?:right )?(?:after|behind|at) {text}',
      '(?:(?:make|in|as) )?two sentences,? (?:split|break|cut|divided?)? ?(?:right )?after {text}',
    ],
    apply: ({ slots }, context) => {
      const hit = lineSaying(slots.text, context.sections);
      if ('unknown' in hit) return { refused: hit.unknown };
      const { line } = hit;
      const { end } = spanOf(line.text, slots.text)!;
      const rest = line.text.slice(end).replace(/^[\s,;:–—-]+(?:and|but)?\s*/i, '');
      // "…, which sank": what hangs on a word before can't stand alone.
      if (/^(?:which|who|whom|whose|that|where|when)\b/i.test(rest) || rest.split(/\s+/).length < 3)
        return { refused: 'What comes behind can’t stand alone as a sentence; say it in your own words.' };
      const texts = [
        `${line.text.slice(0, end).replace(/[\s,;:–—-]+$/, '')}.`,
        rest.charAt(0).toUpperCase() + rest.slice(1),
      ];
      const sections = mapLines(context.sections, new Set([line.id]), (l) =>
        partedLine(l, texts, context.fresh),
      );
      return linesIn(sections).some((l) => l.id === line.id && l.text === line.text)
        ? { refused: 'That line is locked.' }
        : { sections };
    },
  },
  {
    id: 'split',
    says: 'split a part in two',
    otherwise: 'selection',
    moves: true,
    patterns: [
      '(?:split|divide|break)(?: up)? {scope}(?: (?:in|into) (?:two|half|2)(?: (?:parts|sections))?)?',
      '(?:start|begin|make) a new (?:section|part) (?:at|with|from) {scope}',
    ],
    apply: ({ scope }, context) => {
      const { sections, fresh } = context;
      if (scope.type === 'lines') {
        const s = sections.find((x) => x.lines.some((l) => l.id === scope.lines[0]))!;
        const at = s.lines.findIndex((l) => l.id === scope.lines[0]);
        return at === 0 ? { refused: 'A section begins there already.' } : cutAt(s, at);
      }
      const s = sections.find((x) => x.id === scope.sections[0])!;
      if (scope.sections.length > 1) return { refused: 'One section at a time can be split.' };
      return s.lines.length < 2
        ? { refused: `“${s.title}” has one line only.` }
        : cutAt(s, Math.ceil(s.lines.length / 2));
      function cutAt(section: PlainSection, at: number): Applied {
        if (section.locked) return { refused: `“${section.title}” is locked.` };
        const share = at / section.lines.length;
        const right: PlainSection = {
          ...section,
          id: `S${fresh()}`,
          title: `${section.title}, part two`,
          takes: [],
          plannedMs: Math.round(section.plannedMs * (1 - share)),
          lines: section.lines.slice(at),
        };
        return {
          sections: sections.flatMap((x) =>
            x === section
              ? [
                  {
                    ...section,
                    plannedMs: section.plannedMs - right.plannedMs,
                    lines: section.lines.slice(0, at),
                  },
                  right,
                ]
              : [x],
          ),
        };
      }
    },
  },
  {
    id: 'retitle',
    says: 'give the script another title',
    otherwise: 'whole',
    patterns: [
      '(?:change |set |rename )?(?:the )?(?:title|name) of the (?:script|video|film|episode|whole(?: thing)?)(?: to| should be|:| is)? {text}',
      '(?:call|title|name|rename) (?:the|this) (?:script|video|film|episode)(?: to)? {text}',
      '(?:the |a )?(?:script|video|film|main|overall|working) title(?: to| should be|:| is)? {text}',
    ],
    apply: ({ slots }, { sections, title }) => {
      const next = slots.text.trim().slice(0, 200);
      if (!next) return { refused: 'A title has at least one letter.' };
      return next === title
        ? { refused: 'It is called that already.' }
        : { sections: [...sections], settings: { title: next }, notes: [`The script is called “${next}”.`] };
    },
  },
  {
    id: 'rename',
    says: 'name a part',
    otherwise: 'selection',
    patterns: [
      '(?:rename|retitle|call|name|title) {scope} (?:to |as |into )?{text}',
      'change the (?:title|name|heading) of {scope} to {text}',
    ],
    apply: ({ scope, slots }, { sections }) => {
      const id =
        scope.sections[0] ?? sections.find((s) => s.lines.some((l) => scope.lines.includes(l.id)))?.id;
      return {
        sections: sections.map((s) => (s.id === id ? { ...s, title: slots.text.trim().slice(0, 120) } : s)),
      };
    },
  },
  {
    id: 'title-without',
    says: 'take words out of the titles',
    otherwise: 'whole',
    patterns: [
      '(?:remove|drop|cut|delete|take) {text} (?:out )?(?:from|of|in) (?:the |all )?(?:titles|headings)',
    ],
    apply: ({ slots }, { sections }) => {
      const words = new RegExp(`\\s*(?<![\\p{L}\\p{N}])${literal(slots.text)}(?![\\p{L}\\p{N}])\\s*`, 'giu');
      const out = sections.map((s) => (s.locked ? s : { ...s, title: s.title.replace(words, ' ').trim() || s.title }));
      return out.some((s, i) => s.title !== sections[i].title) ? { sections: out } : { refused: `No title has “${slots.text}”.` };
    }, // prettier-ignore
  },
  {
    id: 'open-line',
    says: 'open with a line of yours',
    otherwise: 'opening',
    patterns: ['(?:start|open|begin)(?: {scope})? with(?: the (?:line|words|sentence))?:? {text}'],
    apply: ({ scope, slots }, context) => added(scope.sections[0], 0, slots.text, context),
  },
  {
    id: 'close-line',
    says: 'end with a line of yours',
    otherwise: 'ending',
    patterns: ['(?:end|finish|close)(?: {scope})? (?:on|with)(?: the (?:line|words|sentence))?:? {text}'],
    apply: ({ scope, slots }, context) =>
      added(scope.sections[scope.sections.length - 1], null, slots.text, context),
  },
  {
    id: 'add-line',
    says: 'add a line of yours',
    otherwise: 'whole',
    patterns: ['(?:add|insert|put(?: in)?|write|say)(?: a line| the line| the words)?:? {text} {where}'],
    apply: ({ slots, where }, context) => {
      const { sections } = context;
      const { side, scope } = where!;
      if (side === 'start') return added(sections[0].id, 0, slots.text, context);
      if (side === 'end' || !scope) return added(sections[sections.length - 1].id, null, slots.text, context);
      const id = side === 'before' ? scope.lines[0] : scope.lines[scope.lines.length - 1];
      const section = sections.find((s) => s.lines.some((l) => l.id === id));
      return section
        ? added(
            section.id,
            section.lines.findIndex((l) => l.id === id) + (side === 'before' ? 0 : 1),
            slots.text,
            context,
          )
        : { refused: 'There is no such place.' };
    },
  },
  {
    id: 'set-line',
    says: 'put other words in a line’s place',
    otherwise: 'selection',
    patterns: [
      '(?:change|rewrite|turn|replace|make) {scope} (?:to|into|with|by|say|read|so it says)(?: read| say)?:? {text}',
      '(?:say|write) {text} (?:instead of|in place of|for) {scope}',
    ],
    apply: ({ scope, slots }, context) => {
      if (scope.lines.length !== 1 && scope.type !== 'lines')
        return { refused: 'One line at a time can be given new words.', nearest: 'select the line' };
      const [first, ...rest] = scope.lines;
      const section = context.sections.find((s) => s.lines.some((l) => l.id === first))!;
      if (section.locked || section.lines.some((l) => l.id === first && l.locked))
        return { refused: 'This line is locked.', nearest: 'unlock it first' };
      return {
        sections: context.sections.map((s) => ({
          ...s,
          lines: s.lines.flatMap((l) =>
            l.id === first ? [{ ...l, text: slots.text.trim(), marks: [] }] : rest.includes(l.id) ? [] : [l],
          ),
        })),
      };
    },
  },
];
