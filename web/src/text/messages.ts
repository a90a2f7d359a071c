/** What the page and its text worker say to each other. */
import type {
  CheckedReply,
  CommissionContext,
  Order,
  OrderScope,
  OrderedSection,
} from '@ursprung/core/commission/desk';
import type { NoveltyWindow } from '@ursprung/core/measure';
import type { Loop } from '@ursprung/core/plan';
import type { Laid } from '@ursprung/core/handoff/desk';
import type { PaceForCount, PaceWanted, Scene } from '@ursprung/core/scenes/desk';
import type {
  LineMark,
  LineSource,
  Mood,
  PlainSection,
  SceneOwn,
  SectionRole,
  Target,
} from '@ursprung/core/script';
import type {
  FactKeys,
  Finding,
  GrammarHit,
  ReviewInput,
  ReviewSource,
  ProvableClaim,
  Score,
  TellingCheck,
  Waiver,
} from '@ursprung/core/review';
import type { Unsupported } from '@ursprung/core/trace';

export interface WorkerLine {
  id: string;
  text: string;
  restMs: number;
  fixedMs?: number;
  endsSection: boolean;
  from?: readonly LineSource[];
  speaker?: string;
  marks?: readonly LineMark[];
  scene?: SceneOwn;
}
export interface WorkerSection {
  id: string;
  role: SectionRole;
  plannedMs: number;
  lines: WorkerLine[];
}
export interface LineTime {
  ms: number;
  startMs: number;
  words: number;
}
export interface LineTrace {
  /** Character ranges still in a source's words. */
  shared: { start: number; end: number }[];
  close: boolean;
  unsupported: Unsupported[];
}
export type SceneView = Scene;

export type ToWorker =
  | {
      type: 'setup';
      voice: string;
      pace: number;
      /** How long pictures should stay. */
      scenes: PaceWanted;
      sources: string[];
      /** The same with what the writer knows beside them: what lines may claim. */
      support: string[];
      /** How the channel says words. */
      sayings: readonly (readonly [string, string])[];
    }
  | { type: 'time'; turn: number; lines: WorkerLine[] }
  /** A recording to be laid against the script: its sound, its captions, or both. */
  | { type: 'lay'; turn: number; sections: WorkerSection[]; wav?: ArrayBuffer; captions?: string }
  /** How long pictures must be wanted for the script to have so many. */
  | { type: 'pace'; turn: number; sections: WorkerSection[]; count: number }
  | { type: 'trace'; turn: number; sections: WorkerSection[] };

export type FromWorker =
  | { type: 'ready' }
  | { type: 'times'; turn: number; times: LineTime[]; band: number }
  | {
      type: 'traces';
      turn: number;
      traces: Record<string, LineTrace>;
      overlap: number | null;
      scenes: SceneView[];
      loops: Loop[];
      novelty: NoveltyWindow[];
    }
  | { type: 'paced'; turn: number; pace: PaceForCount }
  | { type: 'laid'; turn: number; recording: LaidRecording }
  | { type: 'not laid'; turn: number; message: string }
  | { type: 'failed'; message: string };

export interface LaidRecording {
  laid: Laid;
  /** Words a minute it was read at. */
  pace: number;
  by: 'silence' | 'captions';
  /** Captions on the recording's time, as SubRip. */
  srt: string;
}

/** What is asked of the reviewer, and what it answers. */
export type ToReviewer =
  | {
      type: 'setup';
      voice: string;
      pace: number;
      sayings: readonly (readonly [string, string])[];
      sources: ReviewSource[];
    }
  | { type: 'review'; turn: number; input: Omit<ReviewInput, 'sources'>; waived: readonly Waiver[] }
  /** What the grammar checker said of texts. */
  | { type: 'grammar'; hits: readonly (readonly [string, GrammarHit[]])[] }
  /** A line being said in one's own words. */
  | { type: 'telling'; turn: number; text: string; from: readonly LineSource[] }
  | Asked;
/** Sources are in the worker already. */
export type SentContext = Omit<CommissionContext, 'sources'>;
export interface ReplyAsked {
  context: SentContext;
  sections: readonly OrderedSection[];
  text: string;
  /** The reply that `text` follows up, or null. */
  base: string | null;
  done: boolean;
}
/** Asked once, answered once, by number. */
export type Asked =
  | { type: 'order'; turn: number; context: SentContext; scope: OrderScope; letters: number }
  | ({ type: 'reply'; turn: number } & ReplyAsked)
  | { type: 'settle'; turn: number; sections: readonly PlainSection[]; target: Target; mood: Mood };
export interface Replied {
  checked: CheckedReply;
  /** An order for just what failed, once the reply is whole; null when nothing did. */
  followUp: string | null;
  failed: number;
}
export interface Reviewed {
  findings: readonly Finding[];
  waived: readonly Finding[];
  /** Null without a source. */
  score: Score | null;
  /** Without a source: what would need proof. */
  claims: readonly ProvableClaim[];
  grade: number | null;
  overlap: { share: number; longestRun: number } | null;
}
export interface Telling {
  check: TellingCheck;
  ms: number;
  words: number;
  keys: readonly FactKeys[];
}
export type FromReviewer =
  | { type: 'reviewed'; turn: number; review: Reviewed; tookMs: number }
  | { type: 'told'; turn: number; telling: Telling }
  | { type: 'answer'; turn: number; answer: Order[] | Replied | PlainSection[] }
  | { type: 'refused'; turn: number; message: string }
  | { type: 'failed'; message: string };
