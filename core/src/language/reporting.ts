/** Verbs that report what somebody says, thinks or finds, as parts of regular expressions. The list and its source are in `core/data`. */
import reporting from '../../data/reporting.json';
import { mostlyVerb } from './classes.ts';
import { inflect, type VerbForm } from './inflect.ts';

type Reporting = Exclude<keyof typeof reporting, 'source'>;
/**
 * Forms of verbs of these kinds, the longest first. Where no quotation stands beside them, only a past says that a word
 * is a verb at all ("reports", "claims"), unless it mostly is one.
 */
const formsOf = (kinds: readonly Reporting[], forms: readonly VerbForm[], quoting = false): string =>
  [
    ...new Set(
      kinds
        .flatMap((kind) => reporting[kind].split(' '))
        .flatMap((verb) =>
          forms.filter((f) => quoting || f === 'past' || mostlyVerb(verb)).map((f) => inflect(verb, f)),
        ),
    ),
  ]
    .sort((a, b) => b.length - a.length)
    .join('|');

/** What stands beside a quotation: "said", "replies", "told". */
export const SPOKE = `(?:${formsOf(['assert', 'voice', 'inform'], ['past', 'third'], true)})`;
/** What reports without quoting: "said", "warns", "told". Of the base forms too many are nouns: "the report", "a claim". */
export const ASSERTS = `(?:${formsOf(['assert', 'inform'], ['past', 'third'])}|say)`;
/** What somebody holds to be so: "thought", "believes", "hope". */
export const THINKS = `(?:${formsOf(['think'], ['past', 'third', 'base'])})`;
/** What work brings to light: "found", "shows". */
export const FINDS = `(?:${formsOf(['find'], ['past', 'third'])})`;
