/** What the page and its text worker say to each other. */
import type { NoveltyWindow } from '@ursprung/core/measure';
import type { Loop } from '@ursprung/core/plan';
import type { LineSource } from '@ursprung/core/script';
import type { Unsupported } from '@ursprung/core/trace';

export interface WorkerLine {
  id: string;
  text: string;
  restMs: number;
  fixedMs?: number;
  endsSection: boolean;
  from?: readonly LineSource[];
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
export interface SceneView {
  id: string;
  startMs: number;
  endMs: number;
  words: number;
  section: string;
  text: string;
  why: string;
  parts: { line: string; from: number; to: number }[];
}

export type ToWorker =
  | { type: 'setup'; voice: string; pace: number; frame: string; sources: string[] }
  | { type: 'time'; turn: number; lines: WorkerLine[] }
  | { type: 'trace'; turn: number; sections: { id: string; lines: WorkerLine[] }[] };

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
  | { type: 'failed'; message: string };
