/**
 * Classes of nouns: what a word mostly names (WordNet 3.1, Fellbaum 1998; packed by `scripts/pack-lexicon.ts`). Rules ask
 * here instead of keeping lists of their own.
 */
import lexicon from '../../data/lexicon.json';
import { PERSON_TAILS } from './personTails.ts';

const wordSet = (words: string): ReadonlySet<string> => new Set(words.split(' '));

export type NounClass = keyof typeof lexicon.nouns;

const sets = new Map<NounClass, ReadonlySet<string>>();
/** The nouns of a class, singular and in lower case. */
export function nounsOf(name: NounClass): ReadonlySet<string> {
  let set = sets.get(name);
  if (!set) sets.set(name, (set = new Set(lexicon.nouns[name].split(' '))));
  return set;
}

const LOOKS_LIKE_PERSON = wordSet(lexicon.looksLikePerson);
/** The least letters before the last part of a compound. */
const LEAST_BEFORE = 3;

/**
 * Whether a noun mostly names one of these. With a hyphen its last part tells ("brother-in-law" its first), and people
 * also by how they are put together: "lockmaster".
 * @param lemma singular, any case.
 */
export function isA(lemma: string, ...classes: readonly NounClass[]): boolean {
  const word = lemma.toLowerCase();
  const parts = word.split('-');
  const forms = [word, parts.length > 2 ? parts[0] : parts[parts.length - 1]];
  if (forms.some((form) => classes.some((c) => nounsOf(c).has(form)))) return true;
  const tail = classes.includes('person') ? PERSON_TAILS.exec(word) : null;
  return tail !== null && tail.index >= LEAST_BEFORE && !LOOKS_LIKE_PERSON.has(word);
}

/** The nouns of some classes as a part of a regular expression, with their regular plurals. */
export const anyNoun = (...classes: readonly NounClass[]): string =>
  `(?:${[...new Set(classes.flatMap((c) => [...nounsOf(c)]))].sort((a, b) => b.length - a.length).join('|')})(?:e?s)?`;

const LOOKS_COMPARED = wordSet(lexicon.looksCompared);
/** Whether a word in -er or -est is no degree of anything: "forest", "proper", "number". */
export const looksCompared = (word: string): boolean => LOOKS_COMPARED.has(word.toLowerCase());

const ORDERS = wordSet(lexicon.orders);
/** Whether most of a word's uses are a verb's: “argue”, not “report”. */
export const mostlyVerb = (base: string): boolean => ORDERS.has(base);
const DOINGS = wordSet(lexicon.doings);
/** What follows a verb that is a noun or an adjective as often: "Dry the seal", "Work it in". */
const OBJECT =
  /^(?:the|an?|your|its|it|them|this|that|these|those|any|all|each|every|both|some|another|one|two|three|four|\d+)$/i;
/**
 * Whether a sentence that begins with these two words tells somebody to do something: a base form that is mostly a verb,
 * or one that is often a verb before a determiner (imperatives have no subject: Quirk et al. 1985, 11.24).
 */
export const opensOrder = (first: string, second = ''): boolean => {
  const verb = first.toLowerCase();
  return (
    (ORDERS.has(verb) && !/^(?:is|was|are|were|of)$/i.test(second)) ||
    (DOINGS.has(verb) && OBJECT.test(second))
  );
};
