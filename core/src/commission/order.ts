/**
 * The order: one text that any writer, a person or a text generator, can work from. What a source says stands in it as
 * quoted data on a line of its own, so that nothing in a source can pass for an instruction; what the script says by
 * now doesn't stand in it, only the facts it rests on.
 */
import { refsOf } from '../facts/ids.ts';
import { pointFinder } from '../plan/cover.ts';
import { MOOD_RULES, moodTells } from '../plan/moods.ts';
import type { Tagger } from '../language/tagged.ts';
import type { Clock } from '../timing/clock.ts';
import { lineOrder } from './lineOrder.ts';
import { AS_IT_STANDS, IN_MOOD } from './moodExample.ts';
import { keyOf } from './keys.ts';
import { factsByKey, orderedSections } from './ordered.ts';
import { RULES, asData, clockTime } from './parts.ts';
import { openingRows, sectionRows } from './sectionRows.ts';
import { soundOf, usualSentence } from './sound.ts';
import {
  LEAST_LETTERS,
  USUAL_LETTERS,
  type CommissionContext,
  type Order,
  type OrderScope,
  type OrderedSection,
} from './types.ts';
import { peopleIn } from './who.ts';

/** So many letters of a link of the spine stand in its list: its fact stands whole in its section. */
const LINK_LETTERS = 110;

export interface OrderTools {
  clock: Clock;
  tagger: Tagger;
}
export interface OrderOptions {
  /** The longest order, in letters. */
  letters?: number;
}

/** One order, or several where one would be too long. Throws RangeError when the scope names nothing of the script. */
export function makeOrders(
  context: CommissionContext,
  scope: OrderScope,
  tools: OrderTools,
  options: OrderOptions = {},
): Order[] {
  const letters = Math.max(LEAST_LETTERS, options.letters ?? USUAL_LETTERS);
  const all = orderedSections(context, tools.clock);
  const textOf = (sections: readonly OrderedSection[], part: Order['part']) =>
    orderText(context, all, sections, part, opens);
  const opens = openingRows(context, all, tools);
  const section = scope.line
    ? context.sections.find((s) => s.lines.some((l) => l.id === scope.line))
    : context.sections.find((s) => s.id === scope.section);
  if ((scope.section || scope.line) && !section) throw new RangeError('The script has no such part.');
  if (scope.line) return [lineOrder(context, all, section!, scope.line)];
  const wanted = section ? all.filter((s) => s.id === section.id) : all;
  const groups = inGroups(wanted, letters, (list) => textOf(list, { n: 1, of: 1 }).length);
  return groups.map((group, i) => {
    const part = { n: i + 1, of: groups.length };
    let sections = group;
    let dropped = 0;
    let text = textOf(sections, part);
    while (text.length > letters) {
      const next = withoutWeakest(sections);
      if (!next) break;
      sections = next;
      dropped++;
      text = textOf(sections, part);
    }
    return { text, sections, never: [...context.brief.avoid], part, dropped };
  });
}

/** Sections that go into one order: as many as leave room when only what must be said is kept. */
function inGroups(
  sections: readonly OrderedSection[],
  letters: number,
  lengthOf: (list: readonly OrderedSection[]) => number,
): OrderedSection[][] {
  const bare = (list: readonly OrderedSection[]) =>
    list.map((s) => ({ ...s, facts: s.facts.filter((f) => f.told) }));
  const out: OrderedSection[][] = [];
  let group: OrderedSection[] = [];
  for (const s of sections) {
    const next = [...group, s];
    if (group.length && lengthOf(bare(next)) > letters) {
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

const scopeSays = (all: readonly OrderedSection[], sections: readonly OrderedSection[]): string =>
  sections.length === all.length
    ? 'a whole script'
    : sections.length === 1
      ? `section ${sections[0].number} of ${all.length}`
      : `sections ${sections[0].number} to ${sections[sections.length - 1].number} of ${all.length}`;

function orderText(
  context: CommissionContext,
  all: readonly OrderedSection[],
  sections: readonly OrderedSection[],
  part: Order['part'],
  opens: readonly string[],
): string {
  const sound = soundOf(context);
  const whole = sections.length === all.length;
  const rows = [
    `ORDER: narration for ${scopeSays(all, sections)}, “${asData(context.title, 200)}”${part.of > 1 ? ` (order ${part.n} of ${part.of})` : ''}`,
    '',
    `It is read aloud by one voice over pictures${context.channel ? `, for the channel ${asData(context.channel, 80)}` : ''} (${context.frame}). Listeners: ${sound.audience}. Mood: ${context.mood}.`,
    ...(context.angle ? [`Told from this side: ${asData(context.angle, 300)}`] : []),
    ...(context.promise ? [`What the title promises, and the script must make good: ${asData(context.promise, 300)}`] : []), // prettier-ignore
    '',
    ...lengthRows(context, sections),
    ...spineRows(context, all, sections),
    ...peopleRows(context, sections),
    ...(sections[0].number === 1 ? opens : []),
    'HOW IT SOUNDS',
    ...moodRows(context),
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
    ...sections.flatMap((s) => sectionRows(context, all, s, whole)),
    'THE REPLY',
    sections.length === 1
      ? 'Only the words that are spoken, in plain paragraphs. No title, no headings, no lists, no notes, no count of words.'
      : `Only the words that are spoken, in plain paragraphs. Before each section a line with nothing but its number in square brackets, from [${sections[0].number}] to [${sections[sections.length - 1].number}]. No titles, no lists, no notes, no count of words.`,
  ];
  return `${rows.join('\n')}\n`;
}

const sentencesIn = (words: number, usual: number) => Math.max(1, Math.round(words / usual));
const plural = (n: number, one: string) => (n === 1 ? `1 ${one}` : `${n} ${one}s`);

function lengthRows(context: CommissionContext, sections: readonly OrderedSection[]): string[] {
  const usual = Math.round(usualSentence(context));
  const seconds = sections.reduce((n, s) => n + s.seconds, 0);
  const words = sections.reduce((n, s) => n + s.words, 0);
  return [
    'HOW LONG',
    `${words} words in all, counted as they are spoken (1984 is three words), as about ${plural(sentencesIn(words, usual), 'sentence')} of ${usual} words: this voice takes ${clockTime(seconds)} for them, figures as they are said and rests counted. It can’t hurry, so words are the only thing that sets the length.`,
    ...(sections.length > 1 ? sections.map((s) => `- section ${s.number}: ${plural(s.words, 'word')} (${clockTime(s.seconds)}), about ${plural(sentencesIn(s.words, usual), 'sentence')}`) : []), // prettier-ignore
    '',
  ];
}

/** The story from its beginning to its end, link by link, with the section that tells each. */
function spineRows(
  context: CommissionContext,
  all: readonly OrderedSection[],
  sections: readonly OrderedSection[],
): string[] {
  const facts = factsByKey(context);
  const refs = refsOf(context.sources);
  const rows = context.spine.flatMap(({ source, fact, kind }) => {
    const known = facts.get(keyOf(source, fact));
    // Where it is told in its place; the opening only takes it from there.
    const [place] = all.filter((s) => s.facts.some((f) => f.told && f.source === source && f.fact === fact)).sort((a, b) => b.number - a.number); // prettier-ignore
    if (!known || !place) return [];
    return [`- ${kind}, in section ${place.number}: ${refs.get(keyOf(source, fact))} «${asData(known.fact.text, LINK_LETTERS)}»`]; // prettier-ignore
  });
  if (rows.length < 2) return [];
  return [
    sections.length === all.length
      ? 'THE STORY, IN THE ORDER IT IS TOLD'
      : 'THE WHOLE STORY, SO THAT THIS PART STANDS IN IT',
    'Each link rests on those before it. What comes of something is never told before it, but for what the opening takes from there.',
    ...rows,
    '',
  ];
}

function peopleRows(context: CommissionContext, sections: readonly OrderedSection[]): string[] {
  const refs = refsOf(context.sources);
  const people = peopleIn(context.sources, sections);
  if (!people.length || context.brief.veil) return [];
  return [
    'WHO IS WHO',
    'At first mention say who it is; later the short name will do. Who neither speaks nor acts twice needs no name.',
    ...people.map((p) => `- ${asData(p.says, 160)} (${refs.get(keyOf(p.source, p.fact))})`),
    '',
  ];
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
}

/** The mood as what a writer can do about it, with a sentence before and after; the channel's own habits come behind it. */
function moodRows({ mood }: CommissionContext): string[] {
  const { says, longest, questions } = MOOD_RULES[mood];
  const tells = moodTells(mood);
  return [
    `- ${mood[0].toUpperCase()}${mood.slice(1)}: ${says}.${longest === null ? '' : ` Sentences of ${longest} words at most.`} ${questions ? `Up to ${questions} questions a minute to the listener.` : 'No questions to the listener.'}${tells ? ` ${tells}` : ''}`,
    `  Not so: «${AS_IT_STANDS}» But so: «${IN_MOOD[mood]}» (Both are made up; nothing in them is a fact.)`,
  ];
}
