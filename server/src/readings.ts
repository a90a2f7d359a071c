/**
 * Reading as a job: put into PostgreSQL, done by whichever server process is free (pg-boss), with progress told to all of
 * them (NOTIFY). It can be stopped and goes on after a restart.
 */
import { randomUUID } from 'node:crypto';
import type PgBoss from 'pg-boss';
import type { z } from 'zod';
import { LARGEST_FILE } from '@ursprung/core/source';
import type { Reading, readingInput } from './api.ts';
import type { Models, ReadingRow } from './db/models.ts';
import { ApiError } from './errors.ts';
import { fetchLink, type LinkSettings } from './link.ts';
import { startJobs } from './jobs.ts';
import { Notices } from './notices.ts';
import type { Sources } from './sources.ts';

const QUEUE = 'reading';
const CHANNEL = 'ursprung_reading';
/** Readings side by side in one process: the workers do the work, so more would only wait. */
const AT_ONCE = 2;
/** Progress is written at most this often, in milliseconds. */
const TELL_EVERY_MS = 250;

export interface ReadingsDeps {
  databaseUrl: string;
  models: Models;
  sources: Sources;
  workspaceId: string;
  links: LinkSettings;
  now: () => Date;
  log: (line: string) => void;
}

export class Readings {
  private readonly stopping = new Map<string, AbortController>();
  private leaving = false;
  private constructor(
    private readonly deps: ReadingsDeps,
    private readonly boss: PgBoss,
    private readonly notices: Notices,
  ) {}

  static async start(deps: ReadingsDeps): Promise<Readings> {
    const boss = await startJobs(deps.databaseUrl, QUEUE, { max: 4 }, deps.log);
    const notices = await Notices.start(deps.databaseUrl, CHANNEL, deps.log);
    const readings = new Readings(deps, boss, notices);
    notices.onAny((id, word) => {
      if (word === 'stop') readings.stopping.get(id)?.abort();
    });
    for (let i = 0; i < AT_ONCE; i++)
      await boss.work<{ id: string }>(QUEUE, { pollingIntervalSeconds: 0.5 }, ([job]) =>
        readings.run(job.data.id),
      );
    return readings;
  }

  /** What is being read goes back to its place in the line, for the next process. */
  async stop(): Promise<void> {
    this.leaving = true;
    for (const c of this.stopping.values()) c.abort();
    await this.boss.stop({ graceful: true, timeout: 5000, wait: true });
    await this.notices.stop();
  }

  private row = async (id: string) => {
    const row = await this.deps.models.readings.findOne({
      where: { id, workspaceId: this.deps.workspaceId },
    });
    if (!row) throw new ApiError('not-found', 'This reading is not here, or no longer.');
    return row;
  };

  async add(input: z.infer<typeof readingInput>): Promise<Reading> {
    const original =
      input.text !== undefined
        ? Buffer.from(input.text, 'utf8')
        : input.base64 !== undefined
          ? Buffer.from(input.base64, 'base64')
          : null;
    if (original && original.length > LARGEST_FILE) throw new ApiError('too-large');
    const row = await this.deps.models.readings.create({
      id: randomUUID(),
      workspaceId: this.deps.workspaceId,
      state: 'waiting',
      stage: 'waiting its turn',
      done: 0,
      of: 0,
      address: input.address ?? null,
      original,
      kind: input.kind ?? null,
      message: null,
      sourceId: null,
      createdAt: this.deps.now(),
    });
    // Taken up again if the server that has it read stops or dies; a failure of its own is an answer and not tried again.
    await this.boss.send(QUEUE, { id: row.id }, { retryLimit: 2, retryDelay: 0, expireInSeconds: 600 });
    return view(row);
  }

  async one(id: string): Promise<Reading> {
    return view(await this.row(id));
  }

  /** Calls `tell` now and at every change, until it is over or the caller unsubscribes. */
  watch = (id: string, tell: (reading: Reading) => void): Promise<() => void> =>
    this.notices.follow(id, () => this.one(id), tell);

  async cancel(id: string): Promise<Reading> {
    const [stopped] = await this.deps.models.readings.update(
      { state: 'stopped', stage: 'stopped', original: null },
      { where: { id, workspaceId: this.deps.workspaceId, state: ['waiting', 'reading'] } },
    );
    if (stopped) await this.notices.tell(id, 'stop').catch(this.failed(id));
    return this.one(id);
  }

  private async run(id: string): Promise<void> {
    const row = await this.deps.models.readings.findOne({ where: { id } });
    if (!row || row.state === 'stopped' || row.state === 'done' || row.state === 'failed') return;
    const stopper = new AbortController();
    this.stopping.set(id, stopper);
    let told = 0;
    const progress = (stage: string, done: number, of: number) => {
      const now = Date.now();
      if (now - told < TELL_EVERY_MS && done < of) return;
      told = now;
      this.save(id, { state: 'reading', stage, done, of }).catch(this.failed(id));
    };
    try {
      progress(row.address ? 'fetching the page' : 'opening', 0, 0);
      let bytes: Uint8Array | null = row.original;
      let address: string | undefined;
      if (row.address) {
        const fetched = await fetchLink(row.address, this.deps.links);
        ({ bytes, address } = fetched);
      }
      stopper.signal.throwIfAborted();
      // The source and the word that it is read are written together: a process that dies between can't read it twice.
      await this.deps.sources.add(bytes ?? new Uint8Array(), {
        ...(row.kind ? { kind: row.kind } : {}),
        ...(address ? { address } : {}),
        progress,
        signal: stopper.signal,
        with: async (sourceId, transaction) => {
          const [read] = await this.deps.models.readings.update(
            { state: 'done', stage: 'read', sourceId, original: null },
            { where: { id, state: ['waiting', 'reading'] }, transaction },
          );
          if (!read) throw new Stopped();
        },
      });
      await this.notices.tell(id).catch(this.failed(id));
    } catch (error) {
      if (this.leaving && stopper.signal.aborted) {
        await this.save(id, { state: 'waiting', stage: 'waiting its turn', done: 0, of: 0 });
        // The job is not done: the next process takes it up.
        throw error;
      }
      if (stopper.signal.aborted || error instanceof Stopped) return;
      if (!(error instanceof ApiError)) {
        this.deps.log(`reading ${id}: ${(error as Error).stack ?? String(error)}`);
      }
      await this.save(id, {
        state: 'failed',
        stage: 'not read',
        message:
          error instanceof ApiError
            ? error.message
            : 'Something went wrong while reading. Try again, or paste the text.',
        original: null,
      });
    } finally {
      this.stopping.delete(id);
    }
  }

  /** Writes a state unless somebody stopped the reading meanwhile, and tells everyone. */
  private async save(id: string, change: Partial<ReadingRow>): Promise<void> {
    const [n] = await this.deps.models.readings.update(change, {
      where: { id, state: ['waiting', 'reading'] },
    });
    if (n) await this.notices.tell(id).catch(this.failed(id));
  }
  private failed = (id: string) => (error: Error) => this.deps.log(`reading ${id}: ${error.message}`);
}

/** Somebody stopped it while it was written down. */
class Stopped extends Error {}

const view = ({ id, state, stage, done, of, message, sourceId }: ReadingRow): Reading => ({
  id,
  state,
  stage,
  done,
  of,
  message,
  sourceId,
});
