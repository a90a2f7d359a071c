/** What a rule of the Read-through is, and what it finds. */
import type { Fact } from '../facts/facts.ts';
import type { Kin } from '../language/kin.ts';
import type { Pronouncer } from '../language/phones.ts';
import type { TaggedToken, Tagger } from '../language/tagged.ts';
import type { WordSpan } from '../language/sentences.ts';
import type { HouseStyle } from '../measure/style.ts';
import type { NoveltyWindow } from '../measure/novelty.ts';
import type { Loop } from '../plan/loops.ts';
import type { Target } from '../script/file.ts';
import type { SourceDocument } from '../source/document.ts';
import type { LineRole, LineSource, SectionRole } from '../script/data.ts';
import type { Clock, TimedToken } from '../timing/clock.ts';
import type { ClaimContext } from '../trace/claims.ts';
import type { Level } from '../trace/retold/index.ts';
import type { LineOverlap, SourceIndex } from '../trace/overlap.ts';
import type { SourceStock } from '../trace/support.ts';

export const AREAS = ['speech', 'language', 'hold', 'truth', 'overlap', 'care'] as const;
export type Area = (typeof AREAS)[number];

/** A change of one line: its new words, its rest, or the line gone. */
export type LineEdit =
  { line: string; text: string } | { line: string; restMs: number } | { line: string; remove: true };

export interface Mend {
  /** What would be done, as a press says it. */
  says: string;
  edits: readonly LineEdit[];
  /** Whether it may be done without being read first: it changes no claim and no sense. */
  safe: boolean;
}

export interface Finding {
  rule: string;
  area: Area;
  /** A line's id; empty for the whole script. */
  line: string;
  /** Range in the line, where the finding is about words. */
  start?: number;
  end?: number;
  /** What stands there. */
  text?: string;
  /** One sentence. */
  reason: string;
  mend?: Mend;
  /** The passage it is about. */
  passage?: { source: string; fact?: string; text: string };
  /** Of a claim that is held against the sources: which slot of it, and whether they contradict it or only don't say so. */
  claim?: { slot: string; level: Level };
}
/** A finding before its rule, area and line are written on it. */
export type Found = Omit<Finding, 'rule' | 'area' | 'line'> & { line?: string };

export interface ReviewSource {
  letter: string;
  title?: string;
  text: string;
  facts: readonly Fact[];
  kind?: SourceDocument['kind'];
  published?: string;
}

/** Sources made ready once. */
export interface PreparedSources {
  list: readonly ReviewSource[];
  index: SourceIndex;
  stock: SourceStock;
  claims: ClaimContext;
  factOf: (ref: LineSource) => { fact: Fact; source: ReviewSource } | null;
  /** The passage a line rests on: its own link, or the best match of at least this likeness. */
  passageOf: (line: ReviewLine, least?: number) => { fact: Fact; source: ReviewSource } | null;
}

export interface ReviewLine {
  id: string;
  text: string;
  role: LineRole;
  from: readonly LineSource[];
  restMs: number;
  locked: boolean;
  /** A fixed part: its words and seconds are not judged. */
  fixed: boolean;
  section: number;
  /** Place in its section, and whether it ends it. */
  at: number;
  endsSection: boolean;
  startMs: number;
  ms: number;
  words: readonly WordSpan[];
  tokens: readonly TimedToken[];
  /** Quoted stretches. */
  quotes: readonly (readonly [number, number])[];
  /** Null without a tagger. */
  tags: readonly TaggedToken[] | null;
  stems: readonly string[];
}
export interface ReviewSection {
  id: string;
  title: string;
  role: SectionRole;
  startMs: number;
  ms: number;
  lines: readonly ReviewLine[];
  /** Places kept for words to come. */
  open: readonly { startMs: number; ms: number; says: string }[];
}

export interface ReviewScript {
  title: string;
  sections: readonly ReviewSection[];
  lines: readonly ReviewLine[];
  ms: number;
  target: Target | null;
  pays: { source: string; fact: string } | null;
  sources: PreparedSources | null;
  style: HouseStyle | null;
  /** Computed for all rules once. */
  overlap: { share: number; longestRun: number; lines: readonly LineOverlap[] } | null;
  loops: readonly Loop[];
  novelty: readonly NoveltyWindow[];
  grade: number | null;
}

export interface ReviewTools {
  clock: Clock;
  pronouncer: Pronouncer;
  /** Rules that need parts of speech are passed over without it. */
  tagger: Tagger | null;
  /** Words of one meaning: without it only the same words compare. */
  kin?: Kin | null;
}

export interface Rule {
  id: string;
  area: Area;
  /** Its name, as a channel's switch says it. */
  name: string;
  /** What one finding takes off the score of 100, and all of them at most. */
  cost: { each: number; most: number };
  /** Judges one line by itself: kept while the line stays as it is. */
  line?: (
    line: ReviewLine,
    tools: ReviewTools,
    sources: PreparedSources | null,
    style: HouseStyle | null,
  ) => Found[];
  /** Judges the whole. */
  script?: (script: ReviewScript, tools: ReviewTools) => Found[];
}

/** A finding about words of a line. */
export const at = (line: ReviewLine, start: number, end: number, reason: string, mend?: Mend): Found => ({
  start,
  end,
  text: line.text.slice(start, end),
  reason,
  ...(mend ? { mend } : {}),
});

/** A line's text with a stretch replaced; space and capitals at the edges evened out. */
export function replaced(text: string, start: number, end: number, by: string): string {
  const out = `${text.slice(0, start)}${by}${text.slice(end)}`
    .replace(/\s+([,.;:!?])/g, '$1')
    .replace(/^[\s,;:—–-]+/, '')
    .replace(/\s{2,}/g, ' ')
    .trim();
  return start === 0 || !/\S/.test(text.slice(0, start)) ? out.charAt(0).toUpperCase() + out.slice(1) : out;
}

export const isQuoted = (line: ReviewLine, start: number, end: number): boolean =>
  line.quotes.some(([s, e]) => start < e && end > s);
