/** How a draft opens and ends: on the source's own facts. */
import type { SourceDocument } from '../source/document.ts';
import { stems } from '../facts/centrality.ts';
import type { Fact } from '../facts/facts.ts';
import { superlativesIn } from '../facts/strength.ts';
import type { Tagger } from '../language/tagged.ts';
import { storyBeats } from '../plan/beats.ts';
import type { Unit } from './units.ts';

const STRIKING =
  /\b(?:but|yet|only|never|nobody|nothing|no|without|not|still|first|last|stranger|wrong|failed|refused|alone|secret|until|even)\b/gi;
const TROUBLE =
  /\b(?:failed|broke|parted|collapsed|vanished|refused|lost|died|swayed|stuck|shut|wrong|drowned|burned)\b/i;
/** Said beside something else. */
const BESIDE = /\b(?:more|less|fewer|times|twice|half|record)\b/i;
/** An opening line longer than this is not taken in (common practice, no published source). */
const LONGEST_OPENING = 26;

const words = (text: string) => text.split(/\s+/).length;

/** Nobody and nowhere that a listener has not heard of: names are of the title. */
const knowsNames = (fact: Fact, known: ReadonlySet<string>) =>
  fact.names.every((name) => stems(name.text).every((s) => known.has(s)));

/** "The gap": what was never told of can't open, nor somebody or somewhere that a listener has not heard of. */
const knownToListeners = (unit: Unit, known: ReadonlySet<string>) =>
  definiteNouns(unit.sentence.tokens).every((n) => known.has(n)) && knowsNames(unit.sentence.fact, known);

/** Whether a unit can be told to somebody who knows the title and nothing else. */
export const introducesItself = (unit: Unit, source: SourceDocument): boolean =>
  knownToListeners(unit, new Set(stems(source.title))) &&
  unit.needs.every((n) => /opens there$/.test(n.why)) &&
  unit.lines.length <= 2;

export const namesNobodyNew = (fact: Fact, source: SourceDocument): boolean =>
  knowsNames(fact, new Set(stems(source.title)));

/** How well a unit would open: it stands alone, is short, turns or surprises, and has something to see or count. */
function openingScore(unit: Unit, kind: SourceDocument['kind'], known: ReadonlySet<string>): number {
  const { fact } = unit.sentence;
  const first = unit.lines[0];
  if (
    unit.needs.some((n) => n.adjacent || !/opens there$/.test(n.why)) ||
    unit.needsNext ||
    words(first) > LONGEST_OPENING ||
    words(first) < 5 ||
    /\?$|:$/.test(fact.text) ||
    unit.lines.length > 2
  )
    return -1;
  if (!knownToListeners(unit, known)) return -1;
  const striking = Math.min(3, (first.match(STRIKING) ?? []).length);
  const trouble = TROUBLE.test(first) ? 0.7 : 0;
  // A figure alone, against nothing, is no surprise.
  if (!striking && !trouble && !BESIDE.test(first) && !superlativesIn(first).length) return -1;
  const brief = words(first) <= 14 ? 0.3 : 0;
  const concrete = Math.min(2, fact.numbers.length + fact.names.length * 0.5);
  const definition =
    fact.type === 'definition' || /^(?:The )?[\p{L} ]+ (?:is|was) (?:a|an|the) /u.test(fact.text) ? 0.6 : 0;
  return (
    0.4 * striking +
    trouble +
    brief +
    0.2 * concrete +
    fact.strength -
    definition -
    (kind === 'encyclopedia' && fact.quotes.length ? 0.2 : 0)
  );
}

/** Stems of nouns with "the" and nothing that says of what. */
function definiteNouns(tokens: Unit['sentence']['tokens']): string[] {
  return tokens.flatMap((t, i) => {
    if (!/^the$/i.test(t.text)) return [];
    let j = i + 1;
    while (
      j < tokens.length &&
      ['ADJ', 'NUM', 'ADV', 'NOUN'].includes(tokens[j].pos) &&
      tokens[j + 1]?.pos === 'NOUN'
    )
      j++;
    const noun = tokens[j];
    if (noun?.pos !== 'NOUN' || /^(?:of|that|which|who|where|for)$/i.test(tokens[j + 1]?.text ?? ''))
      return [];
    return /^(?:world|sea|sun|sky|country|city|town|day|night|morning|evening|year|week|time|first|last|end|same|only|most)$/.test(
      noun.lemma,
    )
      ? []
      : stems(noun.text).slice(0, 1);
  });
}

/** Units others can't do without straight before them stay where they are. */
const leanedOn = (unit: Unit, units: readonly Unit[]) =>
  units.some((u) => u.needs.some((n) => n.to === unit.index && n.adjacent));

/**
 * The unit that opens. Reports, stories and guides open as the source does; an entry with its most striking sentence
 * that stands alone and that nothing leans on; a study with its background.
 */
export function openingUnit(units: readonly Unit[], source: SourceDocument): number {
  if (source.kind !== 'encyclopedia' || units.length < 12) return 0;
  const body = units.slice(1).filter((u) => !leanedOn(u, units));
  const known = new Set(stems(source.title));
  const best = body
    .map((u) => ({ u, score: openingScore(u, source.kind, known) }))
    .sort((a, b) => b.score - a.score)[0];
  return best && best.score > openingScore(units[0], source.kind, known) + 0.4 ? best.u.index : 0;
}

/** How many sentences must be told straight before a unit. */
function chain(units: readonly Unit[], index: number): number {
  const need = units[index].needs.find((n) => n.adjacent);
  return need ? 1 + chain(units, need.to) : 0;
}

/** The unit that ends: the source's last strong words, unless they ask, announce, run on, or lean on too much. */
export function endingUnit(units: readonly Unit[], source: SourceDocument): number {
  const last = units.length - 1;
  if (source.kind === 'forum') return last;
  // A guide ends before its readers' questions.
  const asked = new Set(
    source.kind === 'howto'
      ? units.flatMap((u) =>
          /\?["”]?$/.test(u.sentence.fact.text) && !u.sentence.fact.step ? [u.block.under] : [],
        )
      : [],
  );
  asked.delete(undefined);
  for (let i = last; asked.size && i > units.length / 2; i--)
    if (!asked.has(units[i].block.under) && !units[i].needsNext) return i;
  for (let i = last; i > Math.max(0, units.length * 0.7); i--) {
    const { fact } = units[i].sentence;
    if (!units[i].needsNext && words(fact.text) <= 34 && chain(units, i) <= 4) return i;
  }
  return last;
}

/** The reveal of a first-person story, whole: the passage the writer confirmed, else the best guess. */
export function revealUnits(units: readonly Unit[], source: SourceDocument, confirmed?: string): number[] {
  if (source.kind !== 'forum') return [];
  const own = units.filter((u) => u.letter === units[0]?.letter && !u.sentence.fact.own);
  const id = confirmed ?? storyBeats(own.map((u) => u.sentence.fact)).reveals[0];
  const passage = own.find((u) => u.sentence.fact.id === id)?.block.id;
  return passage === undefined ? [] : own.filter((u) => u.block.id === passage).map((u) => u.index);
}

/** A guide's task as words to follow "how to", from its title: "Freeing a stuck sash window" → "free a stuck sash window". */
export function taskOf(title: string, tagger: Tagger): string | null {
  const how = /^how to (.+?)[.!]?$/i.exec(title);
  if (how) return how[1];
  const gerund = /^(\p{Lu}\p{Ll}+ing) (.+)$/u.exec(title);
  if (!gerund) return null;
  const lemma = tagger(`They were ${gerund[1].toLowerCase()} ${gerund[2]}`)[2]?.lemma;
  return lemma && !lemma.endsWith('ing') ? `${lemma} ${gerund[2]}` : null;
}
