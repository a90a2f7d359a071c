/** What an order is written from, and what it asks for. */
import type { Fact } from '../facts/facts.ts';
import type { HouseStyle } from '../measure/style.ts';
import type { Brief } from '../plan/brief.ts';
import type { Frame, Mood, Target } from '../script/file.ts';
import type { SourceDocument } from '../source/document.ts';
import type { SpineLink } from '../plan/spine.ts';
import type { PlainSection } from '../script/data.ts';

/** The longest order, in letters, unless the person sets another: about 5,000 tokens, which any service takes. */
export const USUAL_LETTERS = 20_000;
export const LEAST_LETTERS = 4_000;

/** More rounds than this change nothing: what fails so often is for a person. */
export const MOST_ROUNDS = 6;

export interface CommissionSource {
  letter: string;
  title: string;
  kind: SourceDocument['kind'];
  publisher?: string;
  published?: string;
  text: string;
  facts: readonly Fact[];
}

export interface CommissionContext {
  title: string;
  /** The one sentence that the script must make good. */
  promise: string;
  /** From which side it is told; empty when nobody chose one. */
  angle: string;
  /** What a telling of the sources hangs on, in telling order. */
  spine: readonly Pick<SpineLink, 'source' | 'fact' | 'kind'>[];
  channel: string;
  frame: Frame;
  mood: Mood;
  /** Words a minute. */
  pace: number;
  target: Target;
  brief: Brief;
  /** What the channel's own scripts measure; null while nothing was measured. */
  style: HouseStyle | null;
  sections: readonly PlainSection[];
  sources: readonly CommissionSource[];
  /** Facts that must be told and that must not, as "A:f3". */
  must: readonly string[];
  out: readonly string[];
}

/** What is ordered: the whole, a section, or a line. */
export interface OrderScope {
  section?: string;
  line?: string;
}

/** A fact as an order names it: "A3" is fact f3 of source A. */
export interface OrderedFact {
  ref: string;
  source: string;
  fact: string;
  text: string;
  must: boolean;
  /** Told in the script as it stands. */
  told: boolean;
  strength: number;
}
export interface OrderedSection {
  /** Its number in the whole script, from 1: the reply names it so. */
  number: number;
  id: string;
  title: string;
  seconds: number;
  /** Words that fill its seconds, its rests taken off. */
  words: number;
  /** What one of its words takes, in milliseconds, with its share of the rests between sentences. */
  msAWord: number;
  facts: readonly OrderedFact[];
}
export interface Order {
  text: string;
  sections: readonly OrderedSection[];
  /** Words and phrases that must not be said. */
  never: readonly string[];
  /** Which of how many orders; a long script takes several. */
  part: { n: number; of: number };
  /** Facts left out so that the order keeps its length. */
  dropped: number;
}
