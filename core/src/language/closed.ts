/** Words of the closed classes, in the forms that rules want. The lists and their source are in `core/data`. */
import data from '../../data/closed.json';

const any = (...lists: readonly string[]) =>
  `(?:${[...new Set(lists.flatMap((l) => l.split(' ')))].join('|')})`;

/** Every word of the closed classes, in lower case. */
export const CLOSED: ReadonlySet<string> = new Set(data.closed.split(' '));
/** Prepositions of one word, rare ones and those in -ing too. */
export const PREPOSITIONS: ReadonlySet<string> = new Set(data.prepositions.split(' '));
/** A word that denies what it stands with, with short forms ("can’t"), as a part of a regular expression that folds case. */
export const DENIAL = `(?:${any(data.denials)}|cannot|\\w*n['’]t)`;
/** A word or mark that a clause begins behind or with. */
export const JOINS = any(data.coordinators, data.subordinators, data.relatives);
/** A form of an auxiliary that a question can open with. */
export const AUXILIARY = any(data.auxiliaries);
/** Lemmas that carry little of what a sentence says: auxiliaries, verbs of little content, quantifiers, particles. */
export const LIGHT: ReadonlySet<string> = new Set(data.light.split(' '));
