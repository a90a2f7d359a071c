/**
 * What a page keeps on this machine until the server has it: steps that wait, with where each comes from; words without
 * a place; changed settings; undo and redo. In IndexedDB, one row a step, so that a key costs one small write however
 * much waits. A page is alive while it holds a lock of its own (Web Locks); what a page that is gone left behind can be
 * taken up by another, once.
 */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { StoredHistory } from '../page/history.ts';
import type { ScriptRowSettings } from '../api.ts';

/** A step that waits for the server. Two are the same when they are the same object. */
export interface Waiting {
  readonly step: unknown;
  readonly origin: string;
}
/** Words that lost their place because it was taken out elsewhere, or that somebody wrote in what was taken out here. */
export interface Stray {
  id: string;
  text: string;
  why: 'place gone' | 'written in what was taken out' | 'does not fit';
}
export interface KeptHistory extends StoredHistory {
  /** The version and the number of waiting steps it belongs to. */
  version: number;
  waiting: number;
}
export interface KeptPage {
  /** The page's name in the log: whoever takes this up goes on under it. */
  clientId: string;
  scriptId: string;
  tab: string;
  /** The version that the waiting steps follow on. */
  version: number;
  waiting: readonly Waiting[];
  strays: readonly Stray[];
  settings: Partial<ScriptRowSettings> | null;
  history: KeptHistory | null;
}

/** Where pages keep what waits. All methods reject when the storage does. */
export interface Keeper {
  /** Writes a page's state whole: all of it or, when it fails, nothing. Of two at once the later one stands. */
  write(page: KeptPage): Promise<void>;
  remove(clientId: string): Promise<void>;
  /** What was left for a script by pages that are gone. The newest first; each is claimed by the caller until it lets go. */
  claim(scriptId: string, tab: string): Promise<KeptPage[]>;
  /** Marks a page as alive until the function is called. */
  hold(clientId: string): Promise<() => void>;
}

interface Head extends Omit<KeptPage, 'waiting'> {
  /** The place of the first waiting step among the page's rows. */
  first: number;
  /** How many there are: rows behind them are of a write that was overtaken. */
  count: number;
  touched: number;
}
interface Schema extends DBSchema {
  pages: { key: string; value: Head; indexes: { script: string } };
  steps: { key: [string, number]; value: Waiting };
}

const LOCK = 'ursprung:page:';
/** How long the page before a reload may take to let go, in milliseconds. */
const LET_GO_MS = 1500;
/** Undo lists without anything that waits are kept this long, in milliseconds. */
const HISTORY_LASTS_MS = 14 * 24 * 3600_000;

/** The part of Web Locks that is needed. */
export type Locks = Pick<LockManager, 'request' | 'query'>;

/** Opens the keeper. Rejects where the browser has no storage for it, or none that can be written. `before`: where pages kept things until this version. */
export async function openKeeper(
  locks: Locks,
  now: () => number,
  before: Storage | null = null,
  name = 'ursprung',
): Promise<Keeper> {
  const db = await openDB<Schema>(name, 1, {
    upgrade: (made) => {
      made.createObjectStore('pages', { keyPath: 'clientId' }).createIndex('script', 'scriptId');
      made.createObjectStore('steps');
    },
  });
  // A storage that can be opened but not written says so now and not at the first key.
  const trial = db.transaction('pages', 'readwrite');
  await Promise.all([trial.store.delete(''), trial.done]);
  const keeper = new IndexedKeeper(db, locks, now);
  if (before) await takeOver(before, keeper);
  return keeper;
}

const BEFORE = 'ursprung:script:';
/** Steps that an earlier version of the page kept in the browser's simple storage; nothing else of it is needed. */
async function takeOver(before: Storage, keeper: Keeper): Promise<void> {
  for (const key of Object.keys(before).filter((k) => k.startsWith(BEFORE))) {
    const [scriptId, tab] = key.slice(BEFORE.length).split(':');
    const { clientId, version, steps } = readOld(before.getItem(key));
    if (clientId && steps?.length)
      await keeper.write({
        clientId,
        scriptId,
        tab,
        version: version ?? 0,
        waiting: steps.map((step) => ({ step, origin: 'typing' })),
        strays: [],
        settings: null,
        history: null,
      });
    before.removeItem(key);
  }
}
function readOld(text: string | null): { clientId?: string; version?: number; steps?: unknown[] } {
  try {
    return (JSON.parse(text ?? '{}') as ReturnType<typeof readOld> | null) ?? {};
  } catch {
    return {};
  }
}

class IndexedKeeper implements Keeper {
  /** What stands in the database of each page that this one writes. */
  private readonly written = new Map<string, { first: number; waiting: readonly Waiting[] }>();
  private readonly claims = new Map<string, () => void>();
  constructor(
    private readonly db: IDBPDatabase<Schema>,
    private readonly locks: Locks,
    private readonly now: () => number,
  ) {}

  async write(page: KeptPage): Promise<void> {
    const { waiting, clientId, ...head } = page;
    const before = this.written.get(clientId) ?? { first: 0, waiting: [] };
    const gone = goneFromFront(before.waiting, waiting);
    const first = before.first + (gone ?? before.waiting.length);
    const stands = gone === null ? 0 : before.waiting.length - gone;
    const tx = this.db.transaction(['pages', 'steps'], 'readwrite');
    const steps = tx.objectStore('steps');
    const work: Promise<unknown>[] = [
      tx.objectStore('pages').put({ ...head, clientId, first, count: waiting.length, touched: this.now() }),
    ];
    if (first > before.first)
      work.push(steps.delete(IDBKeyRange.bound([clientId, 0], [clientId, first], false, true)));
    for (let i = stands; i < waiting.length; i++) work.push(steps.put(waiting[i], [clientId, first + i]));
    await Promise.all([...work, tx.done]);
    this.written.set(clientId, { first, waiting });
  }

  async remove(clientId: string): Promise<void> {
    const tx = this.db.transaction(['pages', 'steps'], 'readwrite');
    await Promise.all([
      tx.objectStore('pages').delete(clientId),
      tx.objectStore('steps').delete(rowsOf(clientId)),
      tx.done,
    ]);
    this.written.delete(clientId);
    this.claims.get(clientId)?.();
    this.claims.delete(clientId);
  }

  async claim(scriptId: string, tab: string): Promise<KeptPage[]> {
    const heads = await this.db.getAllFromIndex('pages', 'script', scriptId);
    const out: { page: KeptPage; touched: number }[] = [];
    for (const head of heads) {
      if (this.claims.has(head.clientId)) continue;
      const release = await this.lock(head.clientId, head.tab === tab ? LET_GO_MS : 0);
      if (!release) continue;
      // Read again under the lock: its owner may have written on until it let go.
      const fresh = await this.db.get('pages', head.clientId);
      if (!fresh) {
        release();
        continue;
      }
      const { first, count, touched, ...page } = fresh;
      const waiting = count ? await this.db.getAll('steps', rowsOf(fresh.clientId, first), count) : [];
      const useless = !waiting.length && !page.strays.length && !page.settings;
      this.claims.set(page.clientId, release);
      if (useless && page.tab !== tab) await this.remove(page.clientId);
      else {
        this.written.set(page.clientId, { first, waiting });
        out.push({ page: { ...page, waiting }, touched });
      }
    }
    await this.forgetOld();
    return out.sort((a, b) => b.touched - a.touched).map((o) => o.page);
  }

  async hold(clientId: string): Promise<() => void> {
    if (!this.claims.has(clientId)) this.claims.set(clientId, (await this.lock(clientId, 0)) ?? (() => {}));
    return () => {
      this.claims.get(clientId)?.();
      this.claims.delete(clientId);
      this.written.delete(clientId);
    };
  }

  /** Takes the lock of a page, or null where its owner is alive. */
  private lock(clientId: string, waitMs: number): Promise<(() => void) | null> {
    return new Promise((resolve, reject) => {
      const patience = new AbortController();
      const timer = waitMs ? setTimeout(() => patience.abort(), waitMs) : undefined;
      this.locks
        .request(LOCK + clientId, waitMs ? { signal: patience.signal } : { ifAvailable: true }, (lock) => {
          clearTimeout(timer);
          if (!lock) return resolve(null);
          return new Promise<void>((release) => resolve(release));
        })
        .catch((error: Error) => (error.name === 'AbortError' ? resolve(null) : reject(error)));
    });
  }

  /** Undo lists of scripts that nobody came back to. What waits is never forgotten. */
  private async forgetOld(): Promise<void> {
    const { held = [] } = await this.locks.query();
    const alive = new Set(held.map((l) => l.name));
    for (const head of await this.db.getAll('pages')) {
      if (this.now() - head.touched < HISTORY_LASTS_MS || alive.has(LOCK + head.clientId)) continue;
      if (head.strays.length || head.settings) continue;
      if (!head.count) await this.remove(head.clientId);
    }
  }
}

const rowsOf = (clientId: string, first = 0) => IDBKeyRange.bound([clientId, first], [clientId, Infinity]);

/** How many steps left at the front, when all else stands and only more came; null when they were made anew. */
function goneFromFront(before: readonly Waiting[], after: readonly Waiting[]): number | null {
  const gone = after.length ? before.indexOf(after[0]) : before.length;
  if (gone < 0) return before.length ? null : 0;
  for (let i = gone; i < before.length; i++) if (before[i] !== after[i - gone]) return null;
  return gone;
}
