/** Heavy text work in worker threads, and reading in processes of its own (`apart.ts`): never in the web loop. */
import { MessageChannel, type MessagePort } from 'node:worker_threads';
import { Piscina } from 'piscina';
import type { Carries, Draft, Redone } from '@ursprung/core/draft';
import type { Choices, SourceKind } from '@ursprung/core/source';
import type { GrammarHit } from '@ursprung/core/review';
import type { HouseStyle, StyleDifference } from '@ursprung/core/measure';
import type { Revised } from '@ursprung/core/revise';
import type { CleanedDraft } from '@ursprung/core/script';
import type { XliffRead } from '@ursprung/core/handoff';
import type { Film } from '@ursprung/core/scenes';
import type { PlainSection } from '@ursprung/core/script';
import type { FilmTask, KitTask, PackTask, PackedKit, Sheet, Written } from './kits.ts';
import type { AgainstTask, ReviseTask, StyleTask, TellingsTask } from './texts.ts';
import { readApart, tookTooMuch, type Limits, type ReadHow, type ReadProgress } from './apart.ts';
import type { StoredOwnFact } from './db/models.ts';
import type { Renewed, Reread } from './reader.ts';
import type { RoundsTaken } from '@ursprung/core/commission';
import type { HandTask, NextAsked, RoundsTask, TakeTask } from './roundsTask.ts';
import type { KeptTexts, SourceText } from './sourceText.ts';
import type { ScriptSummary, SummaryTask } from './summaries.ts';
import { timeLimit } from './timeLimit.ts';
import { Turns } from './turns.ts';
import type { DraftTask, OwnTask, PromiseTask, Promised, RedoTask, WorkResult } from './worker.ts';
import { ApiError } from './errors.ts';

export type { ReadProgress } from './apart.ts';

export interface ReadOptions extends ReadHow {
  kind?: SourceKind;
  /** The link it was fetched from. */
  address?: string;
  choices?: Choices;
}

export interface TextWork {
  read: (bytes: Uint8Array, options?: ReadOptions) => Promise<KeptTexts>;
  /** Reads a stored source again; its facts keep their ids where their words stand. */
  renew: (
    bytes: Uint8Array,
    before: { document: string; facts: string },
    own: readonly StoredOwnFact[],
    how?: { kind?: SourceKind; choices?: Choices },
  ) => Promise<Renewed>;
  reread: (
    bytes: Uint8Array,
    before: { document: string; facts: string },
    choices?: Choices,
  ) => Promise<Reread>;
  own: (task: OwnTask) => Promise<(Omit<StoredOwnFact, 'id'> | null)[]>;
  outlook: (task: { document: string; facts: string }) => Promise<{ outlook: string; summary: string }>;
  summaries: (task: SummaryTask) => Promise<ScriptSummary[]>;
  compare: (task: { sources: ({ letter: string } & SourceText)[] }) => Promise<string>;
  draft: (source: SourceText, options: DraftTask['options']) => Promise<Draft>;
  carries: (source: SourceText, options: Omit<DraftTask['options'], 'target'>) => Promise<Carries>;
  promise: (task: PromiseTask) => Promise<Promised>;
  redo: (task: RedoTask) => Promise<Redone>;
  nextAsked: (task: RoundsTask) => Promise<NextAsked>;
  takeRounds: (task: TakeTask) => Promise<RoundsTaken | null>;
  takeByHand: (task: HandTask) => Promise<RoundsTaken>;
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

export interface WorkSettings extends Partial<Limits> {
  /** What one worker may hold, in MB: far more than the largest source needs. */
  workerMb?: number;
  /** Longer than any honest work takes, in milliseconds; a worker that takes longer is ended and made anew. */
  withinMs?: number;
}
const WORKER_MB = 1024;
const WITHIN_MS = 60_000;
const WORKERS = 2;

/** A pool of workers from the built worker file and the reader beside it, or from their sources under a TypeScript loader. */
export function startWork(file: URL, settings: WorkSettings = {}): TextWork {
  const { workerMb = WORKER_MB, withinMs = WITHIN_MS, ...limits } = settings;
  const isSource = file.pathname.endsWith('.ts');
  const pool = new Piscina({
    filename: file.href,
    minThreads: 0,
    maxThreads: WORKERS,
    // A worker that has warmed up drafts in a fraction of the time: it outlasts a writer's pauses.
    idleTimeout: 15 * 60_000,
    resourceLimits: { maxOldGenerationSizeMb: workerMb },
    ...(isSource ? { execArgv: ['--import', 'tsx'] } : {}),
  });
  // A worker that ends by itself, out of memory, ends its task; it must not end the server.
  pool.on('error', () => undefined);
  const reader = readApart(new URL(isSource ? './reader.ts' : './reader.js', file), limits);
  const turns = new Turns(WORKERS);

  const work = async <T>(name: string, task: unknown, { signal, transfer }: Sent): Promise<T> => {
    const limit = timeLimit(withinMs, signal);
    let result: WorkResult<T>;
    try {
      result = (await pool.run(task, {
        name,
        signal: limit.signal,
        ...(transfer ? { transferList: [transfer] } : {}),
      })) as WorkResult<T>;
    } catch (error) {
      if (limit.isLate()) throw tookTooMuch('time');
      if (limit.signal.aborted) throw new ApiError('source-unreadable', 'This was stopped.');
      if ((error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY') throw tookTooMuch('memory');
      throw error;
    } finally {
      limit.over();
    }
    if (result.ok) return result.value;
    throw new ApiError(result.code, result.message, result.extra);
  };
  // Waiting for a turn is no work: the limit begins with the work.
  const run = <T>(name: string, task: unknown, sent: Sent = {}): Promise<T> =>
    turns.take(() => work<T>(name, task, sent), sent.signal);

  return {
    read: (bytes, { kind, address, choices, ...how } = {}) =>
      reader.run({ what: 'read', bytes, ...(kind ? { kind } : {}), ...(address ? { address } : {}), ...(choices ? { choices } : {}) }, how), // prettier-ignore
    renew: (bytes, before, own, how = {}) => reader.run({ what: 'renew', bytes, before, own, ...how }),
    reread: (bytes, before, choices) =>
      reader.run({ what: 'reread', bytes, before, ...(choices ? { choices } : {}) }),
    clean: (bytes) => reader.run({ what: 'clean', bytes }),
    fromXliff: (text, sections) => reader.run({ what: 'xliff', text, sections }),
    own: (task) => run('own', task),
    outlook: (task) => run('outlook', task),
    compare: (task) => run('compare', task),
    summaries: (task) => run('summaries', task),
    draft: (source, options) => run('draft', { source, options }),
    carries: (source, options) => run('carries', { source, options }),
    promise: (task) => run('promise', task),
    redo: (task) => run('redo', task),
    nextAsked: (task) => run('nextAsked', task),
    takeRounds: (task) => run('takeRounds', task),
    takeByHand: (task) => run('takeByHand', task),
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
    ping: () => run('ping', {}),
    close: async () => {
      await Promise.all([pool.destroy(), reader.close()]);
    },
  };
}

interface Sent {
  signal?: AbortSignal;
  transfer?: MessagePort;
}
