/** Told as earlier than the source tells it: words that put a thing before others, which the source has nowhere near. */
import { accuse, matched, type Check } from './fault.ts';

const EARLIER =
  /\b(?:before (?:that|then|any of (?:that|it|this)|all (?:that|this))|(?<=^)before \w+'d|the (?:year|month|week|day|night) before|(?:years|months|weeks|days) (?:before|earlier)|previously|beforehand|earlier|already|only then|by then)\b/i;
const THERE =
  /\b(?:before|earlier|previous\w*|already|ago|since|last (?:year|month|week|night)|by (?:then|the time)|once|after|when)\b/i;

export const earlier: Check = ({ told, evidence }) => {
  if (!evidence || told.question) return [];
  const m = EARLIER.exec(told.plain);
  if (!m || THERE.test(evidence.best.map((s) => s.plain).join(' '))) return [];
  return accuse('order', 'unsupported', matched(m), `The source does not put this “${m[0]}”.`);
};
