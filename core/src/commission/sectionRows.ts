/** What an order says of a section: what it does, what comes before and behind it as facts, what it must say, what stays. */
import { refsOf } from '../facts/ids.ts';
import { loopsOf } from '../plan/loops.ts';
import type { Tagger } from '../language/tagged.ts';
import { hooksOf, type Hook, type HookKind } from '../plan/hooks.ts';
import type { LinkKind } from '../plan/spine.ts';
import type { FactRef } from '../plan/kept.ts';
import type { PlainSection, SectionRole } from '../script/data.ts';
import type { Clock } from '../timing/clock.ts';
import { exactIn } from './exact.ts';
import { keyOf, keysOf } from './keys.ts';
import { factsByKey } from './ordered.ts';
import { asData } from './parts.ts';
import type { CommissionContext, OrderedFact, OrderedSection } from './types.ts';

const ROLE: Readonly<Record<SectionRole, string>> = {
  hook: 'the opening: it confirms what the title promised, says what is at stake, and gives a reason to stay',
  ground: 'what must be known before the rest can be understood',
  turn: 'where the story turns',
  workings: 'how it works, step by step',
  strain: 'what is unsettled: the trouble, the doubt, the conflict',
  settle: 'what settles it',
  close: 'the end: the last strong fact, and a way on; no summary',
};

interface FactRow {
  must: boolean;
  told: boolean;
  text: string;
}
/** Facts as rows. Those that one quotation runs through stand in one row, because half of it can't be said. */
function factRows(facts: readonly OrderedFact[]): FactRow[] {
  const byRef = new Map(facts.map((f) => [f.ref, f]));
  const joined = new Set<OrderedFact>();
  return facts.flatMap((first) => {
    if (joined.has(first)) return [];
    const group = [first];
    const text = () => group.map((f) => f.text).join(' ');
    while (/“[^”]*$/.test(text())) {
      const next = byRef.get(first.ref[0] + (Number(group.at(-1)!.ref.slice(1)) + 1));
      if (!next || joined.has(next)) break;
      group.push(next);
      joined.add(next);
    }
    const some = (is: (f: OrderedFact) => boolean) => group.some(is);
    return {
      must: some((f) => f.must),
      told: some((f) => f.told),
      text: `- ${group.map((f) => f.ref).join(', ')} «${asData(text())}»`,
    };
  });
}

/** `whole`: whether the order has every section, so that others need only be named. */
export function sectionRows(
  context: CommissionContext,
  all: readonly OrderedSection[],
  s: OrderedSection,
  whole: boolean,
): string[] {
  const plain = context.sections.find((x) => x.id === s.id)!;
  const facts = factsByKey(context);
  const rows = factRows(s.facts);
  const listed = (title: string, of: readonly FactRow[]) => (of.length ? [title, ...of.map((r) => r.text)] : []); // prettier-ignore
  const exact = exactIn(s.facts.filter((f) => f.told).map((f) => facts.get(keyOf(f.source, f.fact))!.fact));
  return [
    `SECTION ${s.number} of ${all.length}: ${asData(s.title, 120)}, ${s.words} words`,
    `It is ${ROLE[plain.role]}.`,
    ...loopRows(context, s),
    ...aroundRows(context, all, s, whole),
    ...listed(
      'Must be said:',
      rows.filter((r) => r.must),
    ),
    ...listed(
      'Say as many of these as fit:',
      rows.filter((r) => !r.must && r.told),
    ),
    ...listed(
      'Only if there is room:',
      rows.filter((r) => !r.must && !r.told),
    ),
    ...(exact.length ? [`Where they are said, said exactly as here: ${exact.join('; ')}`] : []),
    ...passageRows(context, s),
    ...keptRows(plain),
    '',
  ];
}

const HOOK: Readonly<Record<HookKind, string>> = {
  question: 'a question, left open',
  scene: 'a moment: when, who, and what they did',
  figure: 'its figure, short of how it came to that',
  contradiction: 'what goes against all that one would expect, unexplained',
  confession: 'what the teller owns up to, short of why',
  stakes: 'what was lost or could be, short of how',
  promise: 'what will be shown or told',
};

/** Hooks of sources, found once for each state of their facts: an order is written anew with every key. */
const found = new WeakMap<object, { beside: readonly object[]; hooks: Hook[] }>();
function hooksIn(sources: CommissionContext['sources'], tools: { clock: Clock; tagger: Tagger }): Hook[] {
  const [first, ...beside] = sources.map((s) => s.facts);
  if (!first) return [];
  const known = found.get(first);
  if (known && known.beside.length === beside.length && beside.every((f, i) => f === known.beside[i])) return known.hooks; // prettier-ignore
  const material = sources.map(({ letter, title, kind, facts }) => ({ letter, source: { title, kind }, facts })); // prettier-ignore
  const hooks = hooksOf(material, tools);
  found.set(first, { beside, hooks });
  return hooks;
}

const AT_STAKE = 'One or two sentences; by 0:15 it is clear what is at stake. Then from the beginning.';
/** Links that can open where no hook is carried. */
const STRONG: ReadonlySet<LinkKind> = new Set(['turn', 'obstacle', 'cost', 'decision', 'result']);

/** What the script opens on: the hook that it has, else the best that its sources carry, and where that is told whole. */
export function openingRows(
  context: CommissionContext,
  all: readonly OrderedSection[],
  tools: { clock: Clock; tagger: Tagger },
): string[] {
  const key = (r: FactRef) => keyOf(r.source, r.fact);
  const hooks = hooksIn(context.sources, tools).filter((h) => !context.out.includes(key(h.rests)));
  const [line] = context.sections[0]?.lines.filter((l) => l.text.trim()) ?? [];
  const opens = line ? keysOf(line.from)[0] : undefined;
  const refs = refsOf(context.sources);
  const now = hooks.find((h) => h.text === line?.text || (h.own && key(h.rests) === opens));
  const opensOn = opens === undefined ? undefined : factsByKey(context).get(opens);
  if (!now && opensOn) return ['HOW IT OPENS', `On what the script opens with: ${refs.get(opens!)} «${asData(opensOn.fact.text)}»`, AT_STAKE, '']; // prettier-ignore
  const hook = now ?? hooks.find((h) => h.kind !== 'promise') ?? hooks[0];
  if (!hook) {
    const [link] = context.spine.filter((l) => STRONG.has(l.kind));
    const strong = link && factsByKey(context).get(keyOf(link.source, link.fact));
    return strong
      ? ['HOW IT OPENS', `On what happened, short of how it came to that: ${refs.get(keyOf(link.source, link.fact))} «${asData(strong.fact.text)}»`, AT_STAKE, ''] // prettier-ignore
      : [];
  }
  const { fact } = factsByKey(context).get(key(hook.rests))!;
  const place = all.find((s) => s.number > 1 && s.facts.some((f) => f.told && keyOf(f.source, f.fact) === key(hook.rests))); // prettier-ignore
  const pays = hook.pays.flatMap((r) => refs.get(key(r)) ?? []);
  return [
    'HOW IT OPENS',
    `On ${HOOK[hook.kind]}: ${refs.get(key(hook.rests))} «${asData(fact.text)}»`,
    `One or two sentences; by 0:15 it is clear what is at stake.${place ? ` Section ${place.number} comes back to it in its place; that it was heard at the opening is no repeat.` : ''}${pays.length ? ` What it raises is settled by ${pays.join(' and ')}.` : ''} Then from the beginning.`,
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

/** Which fact is told right before a section and which right behind it; lines that somebody wrote are heard, and shown as they are. */
function aroundRows(
  context: CommissionContext,
  all: readonly OrderedSection[],
  s: OrderedSection,
  whole: boolean,
): string[] {
  const beside = (at: number, from: 'end' | 'start') => {
    const [section, ordered] = [context.sections[at], all[at]] as const;
    const lines = (section?.lines ?? []).filter((l) => l.text.trim());
    const line = from === 'end' ? lines.at(-1) : lines[0];
    if (line?.by && !whole) return `«${asData(line.text)}»`;
    const told = (ordered?.facts ?? []).filter((f) => f.told);
    const own = line ? keysOf(line.from) : [];
    const fact = told.find((f) => own.includes(keyOf(f.source, f.fact))) ?? (from === 'end' ? told.at(-1) : told[0]); // prettier-ignore
    return fact && (whole ? fact.ref : `${fact.ref} «${asData(fact.text)}»`);
  };
  const [before, behind] = [beside(s.number - 2, 'end'), beside(s.number, 'start')];
  return [
    ...(before ? [`Told just before it: ${before}`] : []),
    ...(behind ? [`Told right behind it: ${behind}`] : []),
  ];
}

/** The passages the facts stand in, where these say more than the facts. */
function passageRows(context: CommissionContext, s: OrderedSection): string[] {
  const facts = factsByKey(context);
  const blocks = new Map<string, string[]>();
  for (const f of s.facts.filter((x) => x.told)) {
    const { fact } = facts.get(keyOf(f.source, f.fact))!;
    const key = keyOf(f.source, fact.block);
    (blocks.get(key) ?? blocks.set(key, []).get(key)!).push(f.ref);
  }
  const rows = [...blocks].flatMap(([key, refs]) => {
    const [letter, block] = key.split(':');
    const passage = context.sources.find((x) => x.letter === letter)!.facts.filter((f) => f.block === block);
    // Half a quotation is no use without the other.
    const open = passage.some((f) => (f.text.match(/[“”]/g) ?? []).length % 2 === 1);
    if (passage.length <= refs.length && !open) return [];
    const text = passage.filter((f) => !f.silent).map((f) => f.text).join(' '); // prettier-ignore
    return [`- ${refs.join(', ')} in: «${asData(text)}»`];
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
