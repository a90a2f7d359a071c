/**
 * The order: one text that any writer, a person or a text generator, can work from. What a source says stands in it as
 * quoted data on a line of its own, so that nothing in a source can pass for an instruction.
 */
import { refsOf } from '../facts/ids.ts';
import type { Fact } from '../facts/facts.ts';
import { pointFinder } from '../plan/cover.ts';
import { loopsOf } from '../plan/loops.ts';
import { MOOD_RULES, moodTells } from '../plan/moods.ts';
import type { LineRole, PlainLine, PlainSection, SectionRole } from '../script/data.ts';
import { indexFacts } from '../trace/align.ts';
import { RULES, asData, soundRows } from './parts.ts';
import { soundOf } from './sound.ts';
import type { CommissionContext, Order, OrderScope, OrderedFact, OrderedSection } from './types.ts';

/** The longest order, in letters, unless the person sets another: about 4,000 tokens, which any service takes. */
export const USUAL_LETTERS = 16_000;
export const LEAST_LETTERS = 2_000;
/** Told facts of a section that must be told again: the strongest half, at most so many. */
const MOST_MUST = 5;
/** Facts beside those told, offered in case a section needs more. */
const MORE_FACTS = 4;
/** Lines before and behind that the writer is shown. */
const LINES_AROUND = 2;

const ROLE: Readonly<Record<SectionRole, string>> = {
  hook: 'the opening: it confirms what the title promised, says what is at stake, and gives a reason to stay',
  ground: 'what must be known before the rest can be understood',
  turn: 'where the story turns',
  workings: 'how it works, step by step',
  strain: 'what is unsettled: the trouble, the doubt, the conflict',
  settle: 'what settles it',
  close: 'the end: the last strong fact, and a way on; no summary',
};

const keyOf = (source: string, fact: string) => `${source}:${fact}`;
const clock = (seconds: number) =>
  `${Math.floor(seconds / 60)}:${String(Math.round(seconds % 60)).padStart(2, '0')}`;
export const wordsFor = (seconds: number, pace: number): number => Math.round((seconds * pace) / 60);

/** Every fact with its source, by "A:f3". */
export function factsByKey(context: CommissionContext): Map<string, { letter: string; fact: Fact }> {
  return new Map(
    context.sources.flatMap((s) =>
      s.facts.map((fact) => [keyOf(s.letter, fact.id), { letter: s.letter, fact }] as const),
    ),
  );
}

/** The facts that a section's lines rest on: by their links, else by their words. */
function toldIn(lines: readonly PlainLine[], index: ReturnType<typeof indexFacts>): string[] {
  // A drafted section says by itself what it rests on; one that was pasted is looked at by its words.
  const linked = lines.some((l) => l.from.length);
  const guessed = index.align(lines.map((l) => (linked || l.fixed ? '' : l.text)));
  return [
    ...new Set(
      lines.flatMap((l, i) =>
        l.from.length
          ? l.from.flatMap((f) => (f.fact ? [keyOf(f.source, f.fact)] : []))
          : guessed[i].map((a) => keyOf(a.source, a.fact)),
      ),
    ),
  ];
}

/** What each section has to tell: what it tells now, what must be told and is not yet, and some more that fits there. */
export function orderedSections(context: CommissionContext): OrderedSection[] {
  const facts = factsByKey(context);
  const refs = refsOf(context.sources);
  const order = new Map([...facts.keys()].map((k, i) => [k, i]));
  const index = indexFacts([...facts].map(([, { letter, fact }]) => ({ source: letter, id: fact.id, text: fact.text }))); // prettier-ignore
  const told = context.sections.map((s) => toldIn(s.lines, index).filter((k) => facts.has(k) && !context.out.includes(k))); // prettier-ignore
  const everywhere = new Set(told.flat());
  /** The section that tells what stands nearest to a fact in its source. */
  const placeOf = (key: string) => {
    const at = order.get(key)!;
    let best = { section: 0, far: Infinity };
    told.forEach((keys, section) => {
      for (const k of keys) {
        if (k.split(':')[0] !== key.split(':')[0]) continue;
        const far = Math.abs(order.get(k)! - at);
        if (far < best.far) best = { section, far };
      }
    });
    return best.section;
  };
  const owed = context.must.filter((k) => facts.has(k) && !everywhere.has(k));
  const more = [...facts]
    .filter(
      ([k, { fact }]) => !fact.silent && !everywhere.has(k) && !owed.includes(k) && !context.out.includes(k),
    )
    .sort((a, b) => b[1].fact.strength - a[1].fact.strength);
  const extra = new Map<number, string[]>();
  for (const [k] of more) {
    const place = placeOf(k);
    const list = extra.get(place) ?? extra.set(place, []).get(place)!;
    if (list.length < MORE_FACTS) list.push(k);
  }
  return context.sections.map((s, i) => {
    const own = [...told[i], ...owed.filter((k) => placeOf(k) === i)];
    const strongest = [...told[i]]
      .sort((a, b) => facts.get(b)!.fact.strength - facts.get(a)!.fact.strength)
      .slice(0, Math.min(MOST_MUST, Math.ceil(told[i].length / 2)));
    const must = (k: string) =>
      context.must.includes(k) ||
      (!facts.get(k)!.fact.silent && (strongest.includes(k) || facts.get(k)!.fact.type === 'warning'));
    const entry = (k: string): OrderedFact => {
      const { letter, fact } = facts.get(k)!;
      return {
        ref: refs.get(keyOf(letter, fact.id))!,
        source: letter,
        fact: fact.id,
        text: fact.text,
        must: own.includes(k) && must(k),
        told: own.includes(k),
        strength: fact.strength,
      };
    };
    const ms = s.plannedMs || 0;
    const seconds = Math.round(ms / 100) / 10;
    return {
      number: i + 1,
      id: s.id,
      title: s.title,
      seconds,
      words: wordsFor(seconds, context.pace),
      facts: [...[...own].sort((a, b) => order.get(a)! - order.get(b)!), ...(extra.get(i) ?? [])].map(entry),
    };
  });
}

export interface OrderOptions {
  /** The longest order, in letters. */
  letters?: number;
}

/** One order, or several where one would be too long. Throws RangeError when the scope names nothing of the script. */
export function makeOrders(
  context: CommissionContext,
  scope: OrderScope,
  options: OrderOptions = {},
): Order[] {
  const letters = Math.max(LEAST_LETTERS, options.letters ?? USUAL_LETTERS);
  const all = orderedSections(context);
  const section = scope.line
    ? context.sections.find((s) => s.lines.some((l) => l.id === scope.line))
    : context.sections.find((s) => s.id === scope.section);
  if ((scope.section || scope.line) && !section) throw new RangeError('The script has no such part.');
  if (scope.line) return [lineOrder(context, all, section!, scope.line)];
  const wanted = section ? all.filter((s) => s.id === section.id) : all;
  const groups = inGroups(context, wanted, letters);
  return groups.map((group, i) => {
    const part = { n: i + 1, of: groups.length };
    let sections = group;
    let dropped = 0;
    let text = orderText(context, all, sections, part);
    while (text.length > letters) {
      const next = withoutWeakest(sections);
      if (!next) break;
      sections = next;
      dropped++;
      text = orderText(context, all, sections, part);
    }
    return { text, sections, never: neverOf(context), part, dropped };
  });
}

/** Sections that go into one order: as many as leave room when only what must be said is kept. */
function inGroups(
  context: CommissionContext,
  sections: readonly OrderedSection[],
  letters: number,
): OrderedSection[][] {
  const bare = (list: readonly OrderedSection[]) =>
    list.map((s) => ({ ...s, facts: s.facts.filter((f) => f.told) }));
  const out: OrderedSection[][] = [];
  let group: OrderedSection[] = [];
  for (const s of sections) {
    const next = [...group, s];
    if (group.length && orderText(context, sections, bare(next), { n: 1, of: 1 }).length > letters) {
      out.push(group);
      group = [s];
    } else group = next;
  }
  return group.length ? [...out, group] : out;
}

/** The weakest fact goes that need not be said: first what is only offered, then what is told; null when nothing may go. */
function withoutWeakest(sections: readonly OrderedSection[]): OrderedSection[] | null {
  const loose = sections.flatMap((s, at) => s.facts.filter((f) => !f.must).map((f) => ({ f, at })));
  if (!loose.length) return null;
  const [first] = loose.sort((a, b) => Number(a.f.told) - Number(b.f.told) || a.f.strength - b.f.strength);
  return sections.map((s, i) => (i === first.at ? { ...s, facts: s.facts.filter((f) => f !== first.f) } : s));
}

/** Words that are never said: the brief's, and ways of speaking that no narration needs. */
const neverOf = (context: CommissionContext): string[] => [...context.brief.avoid];

function orderText(
  context: CommissionContext,
  all: readonly OrderedSection[],
  sections: readonly OrderedSection[],
  part: { n: number; of: number },
): string {
  const sound = soundOf(context.brief, context.style);
  const whole = sections.length === all.length;
  const seconds = sections.reduce((n, s) => n + s.seconds, 0);
  const words = sections.reduce((n, s) => n + s.words, 0);
  const rows = [
    `ORDER: narration for ${whole ? 'a whole script' : sections.length === 1 ? `section ${sections[0].number} of ${all.length}` : `sections ${sections[0].number} to ${sections[sections.length - 1].number} of ${all.length}`}, “${asData(context.title, 200)}”${part.of > 1 ? ` (order ${part.n} of ${part.of})` : ''}`,
    '',
    `It is read aloud by one voice over pictures${context.channel ? `, for the channel ${asData(context.channel, 80)}` : ''} (${context.frame}). Listeners: ${sound.audience}. Mood: ${context.mood}.`,
    ...(context.promise ? [`What the title promises, and the script must make good: ${asData(context.promise, 300)}`] : []), // prettier-ignore
    '',
    'HOW LONG',
    `${words} words in all, counted: at ${context.pace} words a minute that lasts ${clock(seconds)}. A voice can’t hurry, so words are the only thing that sets the length.`,
    ...sections.map((s) => `- section ${s.number}: ${s.words} words (${clock(s.seconds)}), about ${Math.max(1, Math.round(s.words / usualSentence(context)))} sentences`), // prettier-ignore
    '',
    'HOW IT SOUNDS',
    `- ${moodSays(context)}`,
    ...sound.rows.map((r) => `- ${r}`),
    ...(sound.examples.length
      ? [
          'So the channel speaks; the words are only an example:',
          ...sound.examples.map((e) => `  «${asData(e)}»`),
        ]
      : []),
    '',
    'WHAT MUST NOT HAPPEN',
    ...RULES.map((r) => `- ${r}`),
    ...(context.brief.avoid.length ? [`- Never say: ${context.brief.avoid.map((w) => asData(w, 60)).join(', ')}.`] : []), // prettier-ignore
    '',
    ...coverRows(context, whole),
    ...sections.flatMap((s) => sectionRows(context, all, s)),
    'THE REPLY',
    sections.length === 1
      ? 'Only the words that are spoken, in plain paragraphs. No title, no headings, no lists, no notes, no count of words.'
      : `Only the words that are spoken, in plain paragraphs. Before each section a line with nothing but its number in square brackets, from [${sections[0].number}] to [${sections[sections.length - 1].number}]. No titles, no lists, no notes, no count of words.`,
  ];
  return `${rows.join('\n')}\n`;
}

/** Points that the writer wants covered, in an order for the whole: with the facts that have them, or that none has. */
function coverRows(context: CommissionContext, whole: boolean): string[] {
  const { cover } = context.brief;
  if (!whole || !cover.length) return [];
  const refs = refsOf(context.sources);
  const find = pointFinder(context.sources.map((s) => ({ letter: s.letter, source: s, facts: s.facts })));
  return [
    'MUST COME UP',
    ...cover.map((point) => {
      const [best] = find(point);
      return best
        ? `- ${asData(point, 200)}: ${refs.get(keyOf(best.source, best.fact))} «${asData(best.quote)}»`
        : `- ${asData(point, 200)}: no fact has it, so say nothing of it`;
    }),
    '',
  ];
} // prettier-ignore

/** The mood as what a writer can do about it; the channel's own habits, where they are known, come behind it. */
const moodSays = ({ mood }: CommissionContext): string => {
  const { says } = MOOD_RULES[mood];
  const tells = moodTells(mood);
  return `${mood[0].toUpperCase()}${mood.slice(1)}: ${says}.${tells ? ` ${tells}` : ''}`;
};

const usualSentence = (context: CommissionContext) =>
  context.style?.measures.find((m) => m.id === 'sentence')?.middle ?? 13;

function sectionRows(
  context: CommissionContext,
  all: readonly OrderedSection[],
  s: OrderedSection,
): string[] {
  const plain = context.sections.find((x) => x.id === s.id)!;
  const shown = (f: OrderedFact) => `- ${f.ref} «${asData(f.text)}»`;
  const must = s.facts.filter((f) => f.must);
  const may = s.facts.filter((f) => !f.must && f.told);
  const more = s.facts.filter((f) => !f.told);
  const exact = exactOf(context, s);
  return [
    `SECTION ${s.number} of ${all.length}: ${asData(s.title, 120)}, ${s.words} words`,
    `It is ${ROLE[plain.role]}.`,
    ...loopRows(context, s),
    ...aroundRows(context, s),
    ...(must.length ? ['Must be said:', ...must.map(shown)] : []),
    ...(may.length ? ['Say as many of these as fit:', ...may.map(shown)] : []),
    ...(more.length ? ['Only if there is room:', ...more.map(shown)] : []),
    ...(exact.length ? [`Said exactly as here: ${exact.join('; ')}`] : []),
    ...passageRows(context, s),
    ...keptRows(plain),
    '',
  ];
}

/** What a section raises and what it settles, from the script as it stands. */
function loopRows(context: CommissionContext, s: OrderedSection): string[] {
  const sectionOf = (line: string | null) => (line === null ? -1 : context.sections.findIndex((x) => x.lines.some((l) => l.id === line))); // prettier-ignore
  const at = s.number - 1;
  return loopsOf(context.sections).flatMap((loop) => {
    const [from, to] = [sectionOf(loop.from), sectionOf(loop.to)];
    if (from === at && to > at) return [`It raises: ${asData(loop.asks, 120)}; section ${to + 1} settles it, so don’t answer it here.`]; // prettier-ignore
    if (to === at && from < at)
      return [`It settles what section ${from + 1} raised: ${asData(loop.asks, 120)}.`];
    return [];
  });
}

function aroundRows(context: CommissionContext, s: OrderedSection): string[] {
  const said = (section: PlainSection | undefined, from: 'end' | 'start') => {
    const lines = (section?.lines ?? []).filter((l) => l.text.trim());
    return (from === 'end' ? lines.slice(-LINES_AROUND) : lines.slice(0, 1))
      .map((l) => asData(l.text))
      .join(' ');
  };
  const before = said(context.sections[s.number - 2], 'end');
  const behind = said(context.sections[s.number], 'start');
  return [
    ...(before ? [`Heard just before it: «${before}»`] : []),
    ...(behind ? [`Heard right behind it: «${behind}»`] : []),
  ];
}

/** Names, numbers and quotations of the section's own facts. */
function exactOf(context: CommissionContext, s: OrderedSection): string[] {
  const facts = factsByKey(context);
  const own = s.facts.filter((f) => f.told).map((f) => facts.get(keyOf(f.source, f.fact))!.fact);
  const list = own.flatMap((f) => [
    ...f.quotes.map((q) => `“${asData(q.text.replace(/[,.]$/, ''), 300)}”`),
    ...f.names.map((n) => asData(n.text, 80)),
    ...f.numbers.map((n) => asData(n.text, 60)),
    ...f.dates.map((d) => asData(d.text, 60)),
  ]);
  return [...new Set(list)].filter((x, i, all) => !all.some((y, k) => k !== i && y !== x && y.includes(x)));
}

/** The passages the facts stand in, where these say more than the facts. */
function passageRows(context: CommissionContext, s: OrderedSection): string[] {
  const facts = factsByKey(context);
  const blocks = new Map<string, { refs: string[]; texts: string[] }>();
  for (const f of s.facts.filter((x) => x.told)) {
    const { fact } = facts.get(keyOf(f.source, f.fact))!;
    const key = `${f.source} ${fact.block}`;
    const entry = blocks.get(key) ?? blocks.set(key, { refs: [], texts: [] }).get(key)!;
    entry.refs.push(f.ref);
    entry.texts.push(fact.text);
  }
  const rows = [...blocks].flatMap(([key, { refs }]) => {
    const [letter, block] = key.split(' ');
    const whole = context.sources.find((x) => x.letter === letter)!.facts.filter((f) => f.block === block);
    // Half a quotation is no use without the other.
    const open = whole.map((f) => f.text).some((t) => (t.match(/[“”]/g) ?? []).length % 2 === 1);
    if (whole.length <= refs.length && !open) return [];
    return [`- ${refs.join(', ')} in: «${asData(whole.map((f) => f.text).join(' '))}»`];
  });
  return rows.length ? ['Their passages, so that nothing is taken out of its place:', ...rows] : [];
}

/** Lines that are locked or fixed stay as they are: the writer works round them. */
function keptRows(section: PlainSection): string[] {
  const kept = section.lines.filter((l) => (l.locked || l.fixed || section.locked) && l.text.trim());
  return kept.length
    ? ['These lines stay and are not to be written again:', ...kept.map((l) => `- «${asData(l.text)}»`)]
    : [];
}

const LINE_ROLE: Readonly<Record<LineRole, string>> = {
  pull: 'gives a reason to stay',
  ground: 'says what must be known',
  strain: 'says what is unsettled',
  settle: 'settles something',
  lead: 'leads on to what comes next',
  frame: 'frames what comes',
};

function lineOrder(
  context: CommissionContext,
  all: readonly OrderedSection[],
  section: PlainSection,
  lineId: string,
): Order {
  const own = all.find((s) => s.id === section.id)!;
  const at = section.lines.findIndex((l) => l.id === lineId);
  const line = section.lines[at];
  const facts = own.facts.filter((f) => line.from.some((x) => x.source === f.source && x.fact === f.fact));
  const words = Math.max(3, line.text.trim().split(/\s+/).length);
  const said = (l: PlainLine | undefined) => (l?.text.trim() ? `«${asData(l.text)}»` : '');
  const sound = soundOf(context.brief, context.style);
  const ordered: OrderedSection = { ...own, words, seconds: Math.round((words * 600) / context.pace) / 10, facts: facts.map((f) => ({ ...f, must: true })) }; // prettier-ignore
  const rows = [
    `ORDER: one line of narration, in section ${own.number} of ${all.length} of “${asData(context.title, 200)}”`,
    '',
    `It ${LINE_ROLE[line.role]}. Mood: ${context.mood}. Listeners: ${sound.audience}.`,
    `About ${words} words, one or two sentences.`,
    ...(section.lines[at - 1] ? [`Heard just before it: ${said(section.lines[at - 1])}`] : []),
    ...(section.lines[at + 1] ? [`Heard right behind it: ${said(section.lines[at + 1])}`] : []),
    `As it stands: ${said(line)}`,
    '',
    facts.length ? 'It rests on:' : 'It claims nothing that a source says, and must not begin to.',
    ...facts.map((f) => `- ${f.ref} «${asData(f.text)}»`),
    '',
    ...soundRows(sound),
    '',
    'THE REPLY',
    'Only the words that are spoken.',
  ];
  return { text: `${rows.join('\n')}\n`, sections: [ordered], never: neverOf(context), part: { n: 1, of: 1 }, dropped: 0 }; // prettier-ignore
}
