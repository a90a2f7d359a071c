/** Heavy text work in worker threads, never in the web loop. */
import { MessageChannel, type MessagePort } from 'node:worker_threads';
import { Piscina } from 'piscina';
import type { Carries, Draft, Redone } from '@ursprung/core/draft';
import type { Fact, PackedTags } from '@ursprung/core/facts';
import type { SourceKind } from '@ursprung/core/source';
import type { GrammarHit } from '@ursprung/core/review';
import type { HouseStyle, StyleDifference } from '@ursprung/core/measure';
import type { Revised } from '@ursprung/core/revise';
import type { CleanedDraft } from '@ursprung/core/script';
import type { XliffRead } from '@ursprung/core/handoff';
import type { Film } from '@ursprung/core/scenes';
import type { PlainSection } from '@ursprung/core/script';
import type { FilmTask, KitTask, PackTask, PackedKit, Sheet, Written } from './kits.ts';
import type { AgainstTask, ReviseTask, StyleTask, TellingsTask } from './texts.ts';
import type { StoredSource } from './drafting.ts';
import type {
  DraftTask,
  OwnTask,
  PromiseTask,
  Promised,
  ReadResult,
  RedoTask,
  WorkResult,
} from './worker.ts';
import { ApiError } from './errors.ts';

/** What is being done, how much of it is done, of how much. */
export type ReadProgress = (stage: string, done: number, of: number) => void;

export interface ReadOptions {
  kind?: SourceKind;
  progress?: ReadProgress;
  signal?: AbortSignal;
}

export interface TextWork {
  read: (bytes: Uint8Array, options?: ReadOptions) => Promise<ReadResult>;
  /** Reads a stored source again; its facts keep their ids where their words stand. */
  renew: (
    bytes: Uint8Array,
    before: readonly Fact[],
    kind: SourceKind,
  ) => Promise<ReadResult & { moved: [string, readonly string[]][]; lost: string[] }>;
  own: (task: OwnTask) => Promise<({ fact: Fact; tags: PackedTags } | null)[]>;
  draft: (source: StoredSource, options: DraftTask['options']) => Promise<Draft>;
  carries: (source: StoredSource, options: Omit<DraftTask['options'], 'target'>) => Promise<Carries>;
  promise: (task: PromiseTask) => Promise<Promised>;
  redo: (task: RedoTask) => Promise<Redone>;
  clean: (bytes: Uint8Array) => Promise<CleanedDraft>;
  revise: (task: ReviseTask) => Promise<Revised>;
  grammar: (texts: string[]) => Promise<GrammarHit[][]>;
  tellings: (task: TellingsTask) => Promise<string[]>;
  style: (task: StyleTask) => Promise<HouseStyle>;
  against: (
    task: AgainstTask,
  ) => Promise<{ figures: Record<string, number | null>; differences: StyleDifference[] }>;
  film: (task: FilmTask) => Promise<Film>;
  sheet: (task: KitTask & { before?: { title: string; sections: PlainSection[] } }) => Promise<Sheet>;
  write: (task: KitTask & { format: string; section?: string }) => Promise<Written | { refused: string }>;
  pack: (task: Omit<PackTask, 'port'>, progress: ReadProgress, signal?: AbortSignal) => Promise<PackedKit>;
  fromXliff: (text: string, sections: PlainSection[]) => Promise<XliffRead>;
  /** Resolves when a worker answers. */
  ping: () => Promise<void>;
  close: () => Promise<void>;
}

/** Longer than any honest source needs; a worker that takes longer is ended and made anew. */
const LONGEST_WORK_MS = 60_000;

/** What one worker may hold, in MB: far more than the largest source needs. */
const MEMORY_MB = 1024;

/** A pool of workers from the built worker file, or from its source under a TypeScript loader. */
export function startWork(file: URL, { memoryMb = MEMORY_MB } = {}): TextWork {
  const pool = new Piscina({
    filename: file.href,
    minThreads: 0,
    maxThreads: 2,
    // A worker that has warmed up drafts in a fraction of the time: it outlasts a writer's pauses.
    idleTimeout: 15 * 60_000,
    maxQueue: 32,
    resourceLimits: { maxOldGenerationSizeMb: memoryMb },
    ...(file.pathname.endsWith('.ts') ? { execArgv: ['--import', 'tsx'] } : {}),
  });
  // A worker that ends by itself, out of memory, ends its task; it must not end the server.
  pool.on('error', () => undefined);
  const run = async <T>(
    name: string,
    task: unknown,
    options: { signal?: AbortSignal; transfer?: MessagePort } = {},
  ): Promise<T> => {
    let result: WorkResult<T>;
    try {
      result = (await pool.run(task, {
        name,
        signal: options.signal
          ? AbortSignal.any([options.signal, AbortSignal.timeout(LONGEST_WORK_MS)])
          : AbortSignal.timeout(LONGEST_WORK_MS),
        ...(options.transfer ? { transferList: [options.transfer] } : {}),
      })) as WorkResult<T>;
    } catch (error) {
      if ((error as Error).name === 'AbortError')
        throw new ApiError(
          'source-unreadable',
          'This took longer than a minute and was stopped. Paste a shorter part.',
        );
      if ((error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY')
        throw new ApiError(
          'source-unreadable',
          'This needs more memory than a text may take here. Paste a shorter part.',
        );
      if (/queue/i.test((error as Error).message)) throw new ApiError('too-many');
      throw error;
    }
    if (result.ok) return result.value;
    throw new ApiError(result.code, result.message, result.extra);
  };
  return {
    read: async (bytes, { kind, progress, signal } = {}) => {
      const { port1, port2 } = new MessageChannel();
      port1.on('message', (m: { stage: string; done: number; of: number }) =>
        progress?.(m.stage, m.done, m.of),
      );
      try {
        return await run(
          'read',
          { bytes: new Uint8Array(bytes), ...(kind ? { kind } : {}), port: port2 },
          { transfer: port2, ...(signal ? { signal } : {}) },
        );
      } finally {
        port1.close();
      }
    },
    renew: (bytes, before, kind) => run('renew', { bytes: new Uint8Array(bytes), before, kind }),
    own: (task) => run('own', task),
    draft: (source, options) => run('draft', { source, options }),
    carries: (source, options) => run('carries', { source, options }),
    promise: (task) => run('promise', task),
    redo: (task) => run('redo', task),
    clean: (bytes) => run('clean', { bytes }),
    revise: (task) => run('revise', task),
    grammar: (texts) => run('grammar', { texts }),
    tellings: (task) => run('tellings', task),
    style: (task) => run('style', task),
    against: (task) => run('against', task),
    film: (task) => run('film', task),
    sheet: (task) => run('sheet', task),
    write: (task) => run('write', task),
    pack: async (task, progress, signal) => {
      const { port1, port2 } = new MessageChannel();
      port1.on('message', (m: { stage: string; done: number; of: number }) =>
        progress(m.stage, m.done, m.of),
      );
      try {
        return await run(
          'packKit',
          { ...task, port: port2 },
          { transfer: port2, ...(signal ? { signal } : {}) },
        );
      } finally {
        port1.close();
      }
    },
    fromXliff: (text, sections) => run('fromXliff', { text, sections }),
    ping: () => run('ping', {}),
    close: () => pool.destroy(),
  };
}
