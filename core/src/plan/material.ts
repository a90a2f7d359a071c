/** Sources with their facts, and what their words give away: tension, trouble, a cause, what is not known. */
import { stems } from '../facts/centrality.ts';
import type { Fact } from '../facts/facts.ts';
import type { SourceDocument } from '../source/document.ts';
import type { FactRef } from './kept.ts';

/** A source with its facts, under its letter. */
export interface Material {
  letter: string;
  source: SourceDocument;
  facts: readonly Fact[];
}

/** Words of titles and points that ask or frame, and claim nothing. */
const FRAMING = new Set(
  stems(
    'how why what when where who the a an and or of in on at to for from with by is are was were be been it its this that step story truth really inside behind every one day ever about happened nobody knows most people',
  ),
);
/** What a title or a point is about: its content stems, each once. */
export const claimedStems = (text: string): string[] => [
  ...new Set(stems(text).filter((s) => !FRAMING.has(s))),
];

export const TENSION =
  /\b(?:but|not|no|never|nobody|without|only|until|failed|broke|broken|lost|wrong|refused|closed|shut|stopped|vanished|stuck|against|instead|still|last|first|secret|died|killed|missing|stolen|angry|ashamed|alone)\b/i;
export const TROUBLE =
  /\b(?:failed|broke|broken|parted|collapsed?|fire|flood(?:ed)?|wreck(?:ed)?|lost|closed|shut|died|killed|stuck|stopped|missing|wrong|trouble|accident|refused|drowned|burned|slack|cracked?|swayed)\b/i;
export const CAUSE = /\b(?:because|since it|due to|as a result|that is why|the reason|so that)\b/i;
export const UNKNOWN =
  /\b(?:not (?:yet )?(?:known|clear|decided|settled)|unknown|unclear|nobody (?:knows|has found)|has not said)\b/i;
export const DISPUTE =
  /\b(?:disputed?|argue[ds]?|critics?|opposed|rejected|denied|disagree\w*|warned|complain\w*|angry|not everyone|turned down|refused)\b/i;
export const HOW =
  /\b(?:works?|worked|by means of|pulls?|turns?|pushes|lets?|opens?|through|so that|each|both)\b/i;

/** Whether a fact gives the reason for its own main clause: the clause stands before the "because". */
export function explained(f: Fact): boolean {
  const at = /,? \b(?:because|since it|due to)\b/i.exec(f.text)?.index ?? -1;
  const end = f.statement?.object?.end ?? f.statement?.verb.end ?? Infinity;
  return at > 0 && (f.statement?.verb.end ?? Infinity) <= at && end <= at + 12;
}

export const ref = (m: Material, f: Fact): FactRef => ({ source: m.letter, fact: f.id });
export const capital = (text: string) => text[0].toUpperCase() + text.slice(1);
const shorten = (text: string, most: number) => {
  if (text.length <= most) return text;
  const cut = text.slice(0, most).replace(/\s+\S*$/, '');
  return cut.replace(/[,;:]?\s+(?:and|or|of|the|a|an|in|on|to|by|for|with|that|which|at|from)$/i, '');
};

/** The subject a source is about, as one would name it: its title without what comes after a colon, or its central noun phrase. */
export function topicOf(source: SourceDocument): string {
  const title = source.title
    .replace(/^How to /i, '')
    .split(/[:–—|]| (?:after|when|while|because|as) /)[0]
    .trim();
  return title.length <= 50 ? title : shorten(title, 50);
}

export const factOf = (material: readonly Material[], r: FactRef) =>
  material.find((m) => m.letter === r.source)?.facts.find((f) => f.id === r.fact);
