/** What each section has to tell: its facts, which of them must be said, and its words. */
import { refsOf } from '../facts/ids.ts';
import type { Fact } from '../facts/facts.ts';
import { pointFinder } from '../plan/cover.ts';
import { MOOD_RULES } from '../plan/moods.ts';
import { isOpen, type PlainLine } from '../script/data.ts';
import type { Clock } from '../timing/clock.ts';
import { indexFacts } from '../trace/align.ts';
import { keyOf, keysIn, keysOf } from './keys.ts';
import { wordRate } from './length.ts';
import { usualSentence } from './sound.ts';
import type { CommissionContext, OrderedFact, OrderedSection } from './types.ts';

/** A fact that must be said takes so many words, with what leads to it: no section has to say more than its words hold. */
const WORDS_A_MUST = 12;
/** Where the spine asks for less, told facts that must be told again: the strongest half, at most so many. */
const MOST_MUST = 4;
/** Facts beside those told, offered in case a section needs more. */
const [MORE_FACTS, MORE_IN_OPENING] = [8, 2];
/** No section is ordered in fewer words. */
const FEWEST_WORDS = 3;

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
      lines.flatMap((l, i) => {
        const keys = keysIn(l);
        return keys.length ? keys : guessed[i].map((a) => keyOf(a.source, a.fact));
      }),
    ),
  ];
}

/** What each section has to tell: what it tells now, links of the spine and other facts that are owed, and some more that fits there. */
export function orderedSections(context: CommissionContext, clock: Clock): OrderedSection[] {
  const facts = factsByKey(context);
  const refs = refsOf(context.sources);
  const order = new Map([...facts.keys()].map((k, i) => [k, i]));
  const index = indexFacts([...facts].map(([, { letter, fact }]) => ({ source: letter, id: fact.id, text: fact.text }))); // prettier-ignore
  const mayTell = (k: string) => facts.has(k) && !context.out.includes(k);
  const told = context.sections.map((s) => toldIn(s.lines, index).filter(mayTell));
  const everywhere = new Set(told.flat());
  // What opens a script was moved there from its place: what stands beside it in its source isn't told beside it.
  const opens = context.sections.length > 1 && context.sections[0].role === 'hook' ? 1 : 0;
  /** The section that tells what stands nearest to a fact in its source. */
  const placeOf = (key: string, from = opens) => {
    const at = order.get(key)!;
    let best = { section: from, far: Infinity };
    told.forEach((keys, section) => {
      if (section < from) return;
      for (const k of keys) {
        if (k.split(':')[0] !== key.split(':')[0]) continue;
        const far = Math.abs(order.get(k)! - at);
        if (far < best.far) best = { section, far };
      }
    });
    return best.section;
  };
  const spine = context.spine.map((l) => keyOf(l.source, l.fact)).filter((k) => mayTell(k) && !facts.get(k)!.fact.silent); // prettier-ignore
  const owed = [...new Set([...context.must.filter((k) => facts.has(k)), ...spine, ...coveredBy(context)])].filter((k) => !everywhere.has(k)); // prettier-ignore
  const more = [...facts]
    .filter(([k, { fact }]) => !fact.silent && mayTell(k) && !everywhere.has(k) && !owed.includes(k))
    .sort((a, b) => b[1].fact.strength - a[1].fact.strength);
  const extra = new Map<number, string[]>();
  for (const [k] of more) {
    const beside = placeOf(k, 0);
    const full = beside < opens && (extra.get(beside)?.length ?? 0) >= MORE_IN_OPENING;
    const place = full ? placeOf(k) : beside;
    const list = extra.get(place) ?? extra.set(place, []).get(place)!;
    if (list.length < MORE_FACTS) list.push(k);
  }
  const rate = wordRate(
    clock,
    [...everywhere].map((k) => facts.get(k)!.fact.text),
    usualSentence(context),
  );
  const points = coveredBy(context);
  const last = context.sections.length - 1;
  return context.sections.map((s, i) => {
    const own = [...told[i], ...owed.filter((k) => placeOf(k) === i)];
    const seconds = Math.round((s.plannedMs || 0) / 100) / 10;
    const msAWord = rate.msAWord(own.map((k) => facts.get(k)!.fact.text));
    const restMs = i < last ? (s.lines.at(-1)?.restMs || MOOD_RULES[context.mood].restMs) + rate.sectionEndMs : 0; // prettier-ignore
    const words = Math.max(FEWEST_WORDS, Math.round((seconds * 1000 - restMs) / msAWord));
    const open = s.lines.flatMap((l) => (isOpen(l) ? keysOf(l.open!) : []));
    const must = mustOf([...context.must, ...open], own, told[i], words, { facts, spine, points });
    const entry = (k: string): OrderedFact => {
      const { letter, fact } = facts.get(k)!;
      return {
        ref: refs.get(keyOf(letter, fact.id))!,
        source: letter,
        fact: fact.id,
        text: fact.text,
        must: must.has(k),
        told: own.includes(k),
        strength: fact.strength,
      };
    };
    return {
      number: i + 1,
      id: s.id,
      title: s.title,
      seconds,
      words,
      msAWord,
      facts: [own, extra.get(i) ?? []].flatMap((keys) =>
        [...keys].sort((a, b) => order.get(a)! - order.get(b)!).map(entry),
      ),
    };
  });
}

/** The facts that have the points the writer wants covered, the best for each. */
function coveredBy({ brief, sources }: CommissionContext): string[] {
  if (!brief.cover.length) return [];
  const find = pointFinder(sources.map((s) => ({ letter: s.letter, source: s, facts: s.facts })));
  return brief.cover.flatMap((point) => {
    const [best] = find(point);
    return best ? [keyOf(best.source, best.fact)] : [];
  });
}

/**
 * Which of a section's facts must be said: what the writer marked or keeps a place for, warnings, points; then links of the spine, those
 * told first, as many as its words hold; where that asks for little, the strongest that are told.
 */
function mustOf(
  marked: readonly string[],
  own: readonly string[],
  told: readonly string[],
  words: number,
  known: {
    facts: ReadonlyMap<string, { fact: Fact }>;
    spine: readonly string[];
    points: readonly string[];
  },
): Set<string> {
  const fact = (k: string) => known.facts.get(k)!.fact;
  const by = (a: string, b: string) =>
    Number(told.includes(b)) - Number(told.includes(a)) || fact(b).strength - fact(a).strength;
  const sayable = own.filter((k) => !fact(k).silent);
  const must = new Set([
    ...own.filter((k) => marked.includes(k)),
    ...sayable.filter((k) => fact(k).type === 'warning' || known.points.includes(k)),
  ]);
  const room = Math.max(1, Math.floor(words / WORDS_A_MUST));
  for (const k of sayable.filter((x) => known.spine.includes(x)).sort(by)) if (must.size < room) must.add(k);
  const half = Math.min(MOST_MUST, Math.ceil(told.length / 2), room);
  for (const k of sayable.filter((x) => told.includes(x)).sort(by)) if (must.size < half) must.add(k);
  return must;
}
