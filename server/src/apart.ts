/**
 * Files from outside are read in processes of their own, ended from outside when they take too much memory or time: what a
 * file does to its reader it does to nobody else. Such a process has no database, no key and no secret in its environment.
 */
import { fork, type ChildProcess } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { ApiError } from './errors.ts';
import { Turns } from './turns.ts';
import type { WorkResult } from './drafting.ts';
import type { ReaderTask } from './reader.ts';

export interface Limits {
  /** What a process may hold in all, in MB. */
  memoryMb: number;
  /** What a reading may take of a processor, in milliseconds: a busy machine takes nothing from it. */
  busyMs: number;
  /** However long it waits for a processor, in milliseconds. */
  wholeMs: number;
}
const LIMITS: Limits = { memoryMb: 1200, busyMs: 60_000, wholeMs: 240_000 };
/** Readings side by side. */
const AT_ONCE = 2;
/** A process that has nothing to do for so long is let go, in milliseconds. */
const IDLE_MS = 15 * 60_000;
const LOOK_EVERY_MS = 100;
/** A process that has grown to more than this share of its memory is not used again. */
const GROWN = 0.5;

export type ReadProgress = (stage: string, done: number, of: number) => void;
export interface ReadHow {
  progress?: ReadProgress;
  signal?: AbortSignal;
}
export interface Apart {
  run: <T>(task: ReaderTask, how?: ReadHow) => Promise<T>;
  close: () => Promise<void>;
}

/** The reading killed its process, or was ended for what it took. It is not tried again. */
export const tookTooMuch = (what: 'memory' | 'time' | 'died'): ApiError =>
  new ApiError(
    'source-unreadable',
    {
      memory: 'This needs more memory than a text may take here, so reading it was stopped. Paste a shorter part.', // prettier-ignore
      time: 'This took longer than a minute of work and was stopped. Paste a shorter part.',
      died: 'Reading this ended the program that read it, so it was not read. Nothing else was touched. Paste its words instead.', // prettier-ignore
    }[what],
  );

/** Milliseconds of processor and MB held, as Linux tells them (proc(5)); null elsewhere, or when it is gone. */
async function taken(pid: number): Promise<{ busyMs: number; memoryMb: number } | null> {
  try {
    const stat = await readFile(`/proc/${pid}/stat`, 'latin1');
    // Its name stands in brackets and may hold anything.
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    // Ticks of a hundredth of a second, pages of 4 kB: what Linux tells every program.
    return { busyMs: (Number(fields[11]) + Number(fields[12])) * 10, memoryMb: Number(fields[21]) / 256 };
  } catch {
    return null;
  }
}

interface Reader {
  process: ChildProcess;
  idle: NodeJS.Timeout | null;
}

export function readApart(file: URL, given: Partial<Limits> = {}): Apart {
  const limits = { ...LIMITS, ...given };
  const free: Reader[] = [];
  const all = new Set<Reader>();
  const turns = new Turns(AT_ONCE);

  const start = (): Reader => {
    const { PATH, TZ, LANG } = process.env;
    const child = fork(fileURLToPath(file), [], {
      execArgv: [
        `--max-old-space-size=${limits.memoryMb}`,
        ...(file.pathname.endsWith('.ts') ? ['--import', 'tsx'] : []),
      ],
      env: {
        ...(PATH ? { PATH } : {}),
        ...(TZ ? { TZ } : {}),
        ...(LANG ? { LANG } : {}),
        NODE_ENV: 'production',
      },
      serialization: 'advanced',
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    });
    const reader: Reader = { process: child, idle: null };
    all.add(reader);
    child.once('exit', () => {
      all.delete(reader);
      if (free.includes(reader)) free.splice(free.indexOf(reader), 1);
      if (reader.idle) clearTimeout(reader.idle);
    });
    return reader;
  };
  const end = (reader: Reader) => {
    reader.process.kill('SIGKILL');
  };
  const letGo = async (reader: Reader) => {
    const now = await taken(reader.process.pid ?? 0);
    if (closed || !reader.process.connected || (now && now.memoryMb > limits.memoryMb * GROWN))
      return end(reader);
    reader.idle = setTimeout(() => end(reader), IDLE_MS).unref();
    free.push(reader);
    reader.process.unref();
  };
  let closed = false;

  const read = async <T>(task: ReaderTask, { progress, signal }: ReadHow): Promise<T> => {
    signal?.throwIfAborted();
    const reader = free.pop() ?? start();
    const { process: child } = reader;
    child.ref();
    if (reader.idle) clearTimeout(reader.idle);
    /** What it had worked before this file, known with the first look. */
    let before: number | null = null;
    let why: ApiError | null = null;
    const ended = (error: ApiError) => {
      why ??= error;
      end(reader);
    };
    const over = new AbortController();
    const { signal: still } = over;
    const result = await new Promise<WorkResult<T>>((resolve, reject) => {
      const gone = (code?: number | null, by?: string | null) =>
        // V8 aborts where its memory ends.
        reject(why ?? tookTooMuch(by === 'SIGABRT' || code === 134 ? 'memory' : 'died'));
      const heard = (m: { result?: WorkResult<T>; stage?: string; done?: number; of?: number }) => {
        if (m.result) resolve(m.result);
        else if (m.stage !== undefined) progress?.(m.stage, m.done ?? 0, m.of ?? 0);
      };
      const failed = () => gone();
      child.on('message', heard).on('exit', gone).on('error', failed);
      still.addEventListener('abort', () => {
        child.off('message', heard).off('exit', gone).off('error', failed);
        clearTimeout(whole);
        clearInterval(look);
      });
      const stop = () => ended(new ApiError('source-unreadable', 'Reading was stopped.'));
      signal?.addEventListener('abort', stop, { once: true, signal: still });
      if (signal?.aborted) stop();
      // Both are held here: nothing collects them while the reading lasts.
      const whole = setTimeout(() => ended(tookTooMuch('time')), limits.wholeMs);
      const look = setInterval(() => {
        taken(child.pid ?? 0).then((now) => {
          if (!now || still.aborted) return;
          before ??= now.busyMs;
          if (now.memoryMb > limits.memoryMb) ended(tookTooMuch('memory'));
          else if (now.busyMs - before > limits.busyMs) ended(tookTooMuch('time'));
        }, reject);
      }, LOOK_EVERY_MS);
      child.send(task, (error) => {
        if (error) ended(tookTooMuch('died'));
      });
    }).finally(() => over.abort());
    letGo(reader).catch(() => end(reader));
    if (result.ok) return result.value;
    throw new ApiError(result.code, result.message, result.extra);
  };

  return {
    run: <T>(task: ReaderTask, how: ReadHow = {}) => turns.take(() => read<T>(task, how), how.signal),
    close: async () => {
      closed = true;
      const gone = [...all].map(
        (r) => new Promise<void>((resolve) => void r.process.once('exit', () => resolve())),
      );
      all.forEach(end);
      await Promise.all(gone);
    },
  };
}
