/** What a shape is: named parts with roles and shares of the runtime, what facts each part wants, and for which sources it does not work. */
import { wordsValue } from '../../language/numbers.ts';
import type { Fact } from '../../facts/facts.ts';
import type { LineRole, SectionRole } from '../../script/data.ts';
import type { SourceDocument } from '../../source/document.ts';

export const SHAPE_IDS = [
  'news',
  'chronicle',
  'case',
  'question',
  'countdown',
  'steps',
  'whatif',
  'journey',
  'confession',
  'study',
  'own',
] as const;
export type ShapeId = (typeof SHAPE_IDS)[number];

/** What is known of the sources when a shape is chosen. */
export interface ShapeMaterial {
  source: SourceDocument;
  /** Empty while no facts are extracted: then the kind alone decides. */
  facts: readonly Fact[];
  /** How many sources there are. */
  sources: number;
}

/** A fact at its place in the reading. */
export interface PlacedFact {
  fact: Fact;
  /** 0 to 1. */
  at: number;
  /** The heading or study part it stands under. */
  label: string;
}

export interface Part {
  id: string;
  name: string;
  role: SectionRole;
  /** Of the runtime, 0 to 1; the shares of a shape add up to 1. */
  share: number;
  /** What roles its lines play, in order, as a reader would name them. */
  lines: readonly LineRole[];
  /** How well a fact belongs here, 0 to 1; order in the reading decides among equals. */
  wants: (placed: PlacedFact) => number;
  /** A line that may open it, when there is room. */
  lead?: string;
}

export interface Suits {
  /** 0 to 1; 0: it can't be told this way. */
  score: number;
  reason: string;
}

/** How a story runs. */
export interface Shape {
  id: ShapeId;
  name: string;
  /** In one sentence, for the writer. */
  says: string;
  parts: readonly Part[];
  suits: (material: ShapeMaterial) => Suits;
  /** The order facts are told in, where their references allow. */
  order: 'source' | 'time' | 'places' | 'parts' | 'down';
  /** Whether sections open with a question on their own subject. */
  asks: boolean;
  /** Whether numbered steps are told all and in order. */
  counts: boolean;
  /** How much more or less a fact is worth in this shape, where the writer asked for it. */
  weigh: (placed: PlacedFact) => number;
}

export const TROUBLE =
  /\b(?:failed|failure|broke|broken|parted|collapsed?|cracked?|fire|flood(?:ed)?|wreck(?:ed)?|lost|closed|shut|died|killed|stuck|stopped|missing|wrong|trouble|accident|refused|drowned|burned|danger|slack|swayed)\b/i;
export const CAUSE =
  /\b(?:because|since it|due to|as a result|that is why|which is why|the reason|led to|so that|turned out)\b/i;
export const TURN =
  /\b(?:but|instead|until|then|however|turned out|discovered|noticed|found|one day|last (?:week|month|summer|year)|suddenly|answered)\b/i;
export const TODAY =
  /\b(?:today|now|still|at present|since (?:19[5-9]|20)\d\d|currently|will|next|planned|hopes?)\b/i;
export const HOW =
  /\b(?:works?|worked|by means of|pulls?|turns?|pushes|opens?|through|made of|consists?|measures?|each|both|when)\b/i;
export const year = (fact: Fact): number | null => {
  const iso = fact.dates.find((d) => /^\d{4}/.test(d.iso) && !d.resolved)?.iso;
  return iso ? Number(iso.slice(0, 4)) : null;
};

/** Between two places in the reading, fading outside. */
export const place = (at: number, from: number, to: number): number =>
  at >= from && at <= to ? 1 : Math.max(0, 1 - 4 * Math.min(Math.abs(at - from), Math.abs(at - to)));

const rising = (facts: readonly Fact[]): number => {
  const years = facts.map(year).filter((y): y is number => y !== null);
  return years.filter((y, i) => i > 0 && y >= years[i - 1]).length;
};
/** From this share of sentences on a source is told by an “I”: any, and a board's story, which mostly is. */
export const SAID_BY_I = 0.35;
export const STORY_BY_I = 0.15;

export const signs = {
  rising,
  firstPerson: (facts: readonly Fact[]) =>
    facts.filter((f) => /\b(?:I|my|me)\b/.test(f.text) && !f.quotes.length).length /
    Math.max(1, facts.length),
  steps: (source: SourceDocument) => source.blocks.filter((b) => b.step).length,
  hypothetical: (facts: readonly Fact[]) =>
    facts.filter((f) => /\b(?:if|would|could|may|might|will|unless|suppose)\b/i.test(f.text)).length,
  causes: (facts: readonly Fact[]) => facts.filter((f) => CAUSE.test(f.text)).length,
  places: (facts: readonly Fact[]) =>
    new Set(facts.flatMap((f) => f.names.filter((n) => n.type === 'place').map((n) => n.text))).size,
  perfectRun: (facts: readonly Fact[]) => {
    const counts = facts.map(
      (f) => (f.text.match(/\bhad (?:\w+ )?\w+(?:ed|en|n|t|ne|de|ng)\b/g) ?? []).length,
    );
    let best = 0;
    for (let i = Math.floor(facts.length * 0.45); i + 4 <= facts.length; i++)
      best = Math.max(
        best,
        counts.slice(i, i + 4).reduce((a, b) => a + b, 0),
      );
    return best;
  },
  /** How many things a list article tells of, each under a heading: numbered in turn, or as many as its title counts; 0 for any other. */
  list: (source: SourceDocument) => {
    const heads = source.blocks.filter((b) => b.type === 'heading').map((b) => b.text);
    const numbers = heads.flatMap((h) => /^(?:number |no\. ?)?(\d{1,2})(?:[.):]|:)?(?=\s|$)/i.exec(h)?.[1] ?? []).map(Number); // prettier-ignore
    const inTurn = (up: boolean) => numbers.every((n, i) => n === (up ? i + 1 : numbers.length - i));
    if (numbers.length >= 3 && (inTurn(true) || inTurn(false))) return numbers.length;
    const counted = source.title
      .split(/[^\p{L}\d]+/u)
      .map((w) => (/^\d{1,2}$/.test(w) ? Number(w) : wordsValue(w)))
      .find((n) => n !== null && n >= 3 && n <= 20);
    return counted && Math.abs(heads.length - counted) <= 1 ? counted : 0;
  },
};
