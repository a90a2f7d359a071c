/** Whose turn it is: so many at once, the others wait in turn page by page, and no more wait than can be borne. */
import { AsyncLocalStorage } from 'node:async_hooks';
import { ApiError } from './errors.ts';

/** On whose behalf something is done: the page that asked. */
export const askedBy = new AsyncLocalStorage<string>();

interface Waiting {
  begin: () => void;
  refuse: (error: unknown) => void;
}

/** More than this wait for nobody's good. */
const MOST_WAITING = 64;
/** Of one page. */
const MOST_OF_ONE = 16;

export class Turns {
  private running = 0;
  /** By page, in the order in which they come next. */
  private readonly waiting = new Map<string, Waiting[]>();
  constructor(private readonly atOnce: number) {}

  get waits(): number {
    return [...this.waiting.values()].reduce((n, w) => n + w.length, 0);
  }

  /** Does it when its turn comes. Throws ApiError 'too-many' at once when too many wait; what is aborted while it waits is never begun. */
  async take<T>(work: () => Promise<T>, signal?: AbortSignal): Promise<T> {
    signal?.throwIfAborted();
    if (this.running >= this.atOnce) await this.wait(signal);
    else this.running++;
    try {
      return await work();
    } finally {
      this.next();
    }
  }

  private async wait(signal?: AbortSignal): Promise<void> {
    const page = askedBy.getStore() ?? '';
    const own = this.waiting.get(page) ?? [];
    if (own.length >= MOST_OF_ONE || this.waits >= MOST_WAITING) throw new ApiError('too-many');
    this.waiting.set(page, own);
    let stop: (() => void) | undefined;
    try {
      await new Promise<void>((begin, refuse) => {
        const one = { begin, refuse };
        own.push(one);
        stop = () => {
          const at = own.indexOf(one);
          if (at < 0) return;
          own.splice(at, 1);
          if (!own.length) this.waiting.delete(page);
          refuse(signal?.reason);
        };
        signal?.addEventListener('abort', stop, { once: true });
      });
    } finally {
      if (stop) signal?.removeEventListener('abort', stop);
    }
  }

  /** The next page's first; that page is last in line for another. */
  private next(): void {
    const [first] = this.waiting;
    if (!first) {
      this.running--;
      return;
    }
    const [page, own] = first;
    const one = own.shift()!;
    this.waiting.delete(page);
    if (own.length) this.waiting.set(page, own);
    one.begin();
  }
}
