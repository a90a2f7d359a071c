/** An order for one line: for one that stands, or for a place that is kept open. */
import { refsOf } from '../facts/ids.ts';
import { isOpen, type LineRole, type PlainLine, type PlainSection } from '../script/data.ts';
import { keysOf } from './keys.ts';
import { factsByKey } from './ordered.ts';
import { asData, soundRows } from './parts.ts';
import { soundOf } from './sound.ts';
import type { CommissionContext, Order, OrderedSection } from './types.ts';

const LINE_ROLE: Readonly<Record<LineRole, string>> = {
  pull: 'gives a reason to stay',
  ground: 'says what must be known',
  strain: 'says what is unsettled',
  settle: 'settles something',
  lead: 'leads on to what comes next',
  frame: 'frames what comes',
};
/** No line is ordered in fewer words. */
const FEWEST_WORDS = 3;

/** `all`: the ordered sections of the whole script, `lineId` a line of `section`. */
export function lineOrder(
  context: CommissionContext,
  all: readonly OrderedSection[],
  section: PlainSection,
  lineId: string,
): Order {
  const own = all.find((s) => s.id === section.id)!;
  const at = section.lines.findIndex((l) => l.id === lineId);
  const line = section.lines[at];
  const open = isOpen(line);
  const facts = factsByKey(context);
  const refs = refsOf(context.sources);
  const rests = keysOf(open ? line.open! : line.from).filter((k) => facts.has(k));
  const words = Math.max(
    FEWEST_WORDS,
    open ? Math.round((line.fixedMs ?? 0) / own.msAWord) : line.text.trim().split(/\s+/).length,
  );
  const beside = (l: PlainLine | undefined): string => {
    if (!l) return '';
    const keys = keysOf(l.from).filter((k) => facts.has(k));
    // What somebody wrote is heard as it is; a drafted line may still be told otherwise.
    if (l.by || !keys.length) return l.text.trim() ? `«${asData(l.text)}»` : '';
    return keys.map((k) => `${refs.get(k)} «${asData(facts.get(k)!.fact.text)}»`).join(' ');
  };
  const [before, behind] = [beside(section.lines[at - 1]), beside(section.lines[at + 1])];
  const sound = soundOf(context);
  const ordered: OrderedSection = {
    ...own,
    words,
    seconds: Math.round((words * own.msAWord) / 100) / 10,
    facts: rests.map((k) => {
      const { letter, fact } = facts.get(k)!;
      return { ref: refs.get(k)!, source: letter, fact: fact.id, text: fact.text, must: true, told: true, strength: fact.strength }; // prettier-ignore
    }),
  };
  const rows = [
    `ORDER: one line of narration, in section ${own.number} of ${all.length} of “${asData(context.title, 200)}”`,
    '',
    `It ${LINE_ROLE[line.role]}. Mood: ${context.mood}. Listeners: ${sound.audience}.`,
    `About ${words} words, one or two sentences.`,
    ...(before ? [`Told just before it: ${before}`] : []),
    ...(behind ? [`Told right behind it: ${behind}`] : []),
    '',
    rests.length ? 'It rests on:' : 'It claims nothing that a source says, and must not begin to.',
    ...ordered.facts.map((f) => `- ${f.ref} «${asData(f.text)}»`),
    ...(rests.length || !line.text.trim() ? [] : [`As it stands: «${asData(line.text)}»`]),
    '',
    ...soundRows(sound),
    '',
    'THE REPLY',
    'Only the words that are spoken.',
  ];
  return { text: `${rows.join('\n')}\n`, sections: [ordered], never: [...context.brief.avoid], part: { n: 1, of: 1 }, dropped: 0 }; // prettier-ignore
}
