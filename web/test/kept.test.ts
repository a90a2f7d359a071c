/** What a page keeps on this machine: whole or not at all, claimed once, forgotten only when nothing waits. */
import 'fake-indexeddb/auto';
import { expect } from 'chai';
import fc from 'fast-check';
import { openKeeper, type KeptPage, type Locks, type Waiting } from '../src/script/kept.ts';

/** Web Locks as the standard says: one holder a name, the next when it lets go. */
function makeLocks(): Locks & { held: Set<string> } {
  const held = new Set<string>();
  const queue = new Map<string, (() => void)[]>();
  return {
    held,
    request: (async (
      name: string,
      options: { ifAvailable?: boolean; signal?: AbortSignal },
      run: (lock: object | null) => unknown,
    ) => {
      if (held.has(name)) {
        if (options.ifAvailable) return run(null);
        await new Promise<void>((free, failed) => {
          queue.set(name, [...(queue.get(name) ?? []), free]);
          options.signal?.addEventListener('abort', () =>
            failed(Object.assign(new Error('stopped'), { name: 'AbortError' })),
          );
        });
      }
      held.add(name);
      try {
        return await run({ name });
      } finally {
        held.delete(name);
        queue.get(name)?.shift()?.();
      }
    }) as Locks['request'],
    query: () =>
      Promise.resolve({ held: [...held].map((name) => ({ name })), pending: [] } as LockManagerSnapshot),
  };
}

let names = 0;
const database = () => `kept-${++names}`;
const step = (n: number): Waiting => ({ step: { n }, origin: n % 3 ? 'typing' : 'note' });
const page = (more: Partial<KeptPage> = {}): KeptPage => ({
  clientId: 'p1',
  scriptId: 's',
  tab: 't1',
  version: 0,
  waiting: [],
  strays: [],
  settings: null,
  history: null,
  ...more,
});
const open = (name: string, locks = makeLocks(), now = () => 0, before: Storage | null = null) =>
  openKeeper(locks, now, before, name);

describe('what a page keeps on this machine', () => {
  it('is read back as it was written last, whatever came, was acknowledged or was made anew', async () => {
    const change = fc.record({ kind: fc.integer({ min: 0, max: 2 }), n: fc.integer({ min: 0, max: 5 }) });
    await fc.assert(
      fc.asyncProperty(fc.array(change, { maxLength: 20 }), async (changes) => {
        const name = database();
        const keeper = await open(name);
        let waiting: readonly Waiting[] = [];
        let n = 0;
        for (const { kind, n: by } of changes) {
          if (kind === 0) waiting = [...waiting, ...Array.from({ length: by }, () => step(++n))];
          else if (kind === 1) waiting = waiting.slice(by);
          else waiting = waiting.map((w) => ({ ...w }));
          await keeper.write(page({ waiting, version: n }));
        }
        const [read] = await (await open(name)).claim('s', 't1');
        if (changes.length) {
          expect(read.waiting).to.deep.equal(waiting);
          expect(read.version).to.equal(n);
        } else expect(read).to.equal(undefined);
      }),
      { seed: 16, numRuns: 60 },
    );
  });

  it('of two writes at once is the later one, also when it has less', async () => {
    const name = database();
    const keeper = await open(name);
    const first = [step(1), step(2)];
    await keeper.write(page({ waiting: first }));
    const long = keeper.write(page({ waiting: [...first, step(3), step(4), step(5)] }));
    const short = keeper.write(page({ waiting: [{ ...first[0] }] }));
    await Promise.all([long, short]);
    const [read] = await (await open(name)).claim('s', 't1');
    expect(read.waiting).to.deep.equal([first[0]]);
  });

  it('is claimed by one page, and only when its own is gone', async () => {
    const name = database();
    const locks = makeLocks();
    const alive = await open(name, locks);
    const release = await alive.hold('p1');
    await alive.write(page({ waiting: [step(1)] }));
    const other = await open(name, locks);
    expect(await other.claim('s', 't2')).to.deep.equal([]);
    release();
    await Promise.resolve();
    const [claimed] = await other.claim('s', 't2');
    expect(claimed.waiting).to.deep.equal([step(1)]);
    expect(await (await open(name, locks)).claim('s', 't3'), 'not a second time').to.deep.equal([]);
  });

  it('of this very tab is waited for: after a reload the page before may be a moment late', async () => {
    const name = database();
    const locks = makeLocks();
    const before = await open(name, locks);
    const release = await before.hold('p1');
    await before.write(page({ waiting: [step(1)] }));
    const claim = (await open(name, locks)).claim('s', 't1');
    setTimeout(release, 30);
    expect((await claim).map((p) => p.clientId)).to.deep.equal(['p1']);
  });

  it('of another script is not touched, and what holds nothing is removed', async () => {
    const name = database();
    const keeper = await open(name);
    await keeper.write(page({ clientId: 'empty', tab: 'gone' }));
    await keeper.write(page({ clientId: 'elsewhere', scriptId: 'other', tab: 'gone', waiting: [step(1)] }));
    const later = await open(name);
    expect(await later.claim('s', 't1')).to.deep.equal([]);
    expect(await (await open(name)).claim('s', 'gone'), 'the empty one is gone').to.deep.equal([]);
    expect(await (await open(name)).claim('other', 't1')).to.have.length(1);
  });

  it('forgets undo lists nobody came back to, never what waits', async () => {
    const name = database();
    const history = { version: 0, waiting: 0, done: [], undone: [] };
    const keeper = await open(name);
    await keeper.write(page({ clientId: 'old', scriptId: 'a', history }));
    await keeper.write(page({ clientId: 'waits', scriptId: 'b', waiting: [step(1)] }));
    const month = 31 * 24 * 3600_000;
    await (await open(name, makeLocks(), () => month)).claim('s', 't');
    expect(await (await open(name)).claim('a', 't1')).to.deep.equal([]);
    expect((await (await open(name)).claim('b', 't9')).map((p) => p.waiting)).to.deep.equal([[step(1)]]);
  });

  it('takes over what an earlier version kept in the simple storage, and clears it', async () => {
    const kept = new Map([
      ['ursprung:script:s:t1', JSON.stringify({ clientId: 'c9', version: 4, steps: [{ n: 1 }] })],
      ['ursprung:script:s:t2', JSON.stringify({ clientId: 'c8', version: 4, steps: [] })],
      ['ursprung:script:s:t3', 'broken'],
      ['ursprung:theme', 'dark'],
    ]);
    const before = Object.assign(Object.fromEntries(kept), {
      getItem: (k: string) => kept.get(k) ?? null,
      removeItem: (k: string) => kept.delete(k),
    }) as unknown as Storage;
    const [read, ...more] = await (await open(database(), makeLocks(), () => 0, before)).claim('s', 't1');
    expect(read).to.include({ clientId: 'c9', version: 4 });
    expect(read.waiting).to.deep.equal([{ step: { n: 1 }, origin: 'typing' }]);
    expect(more).to.deep.equal([]);
    expect([...kept.keys()]).to.deep.equal(['ursprung:theme']);
  });
});
