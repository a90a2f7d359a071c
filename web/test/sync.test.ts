/**
 * A model of pages, storage and server: any order of keys, deleted lines, undo, late answers, saves, answers that are
 * lost, hours without a server, full storage, crashes, reloads and further tabs. Nothing acknowledged and nothing that
 * was typed and kept is lost, nothing stands twice, and all ends equal.
 */
import { expect } from 'chai';
import fc from 'fast-check';
import { Fragment, Slice } from 'prosemirror-model';
import { Step } from 'prosemirror-transform';
import {
  difference,
  docFromJson,
  docFromSections,
  emptyLine,
  mergedOver,
  scriptSchema,
  type ScriptNode,
} from '@ursprung/core/script';
import { idKeeper } from '../src/page/commands.ts';
import { redo, undo } from '../src/page/history.ts';
import type { Keeper, KeptPage } from '../src/script/kept.ts';
import type { ScriptSync, SyncPorts } from '../src/script/sync.ts';
import { openScript, type OpenScript } from '../src/script/takeUp.ts';

const START = docFromSections(
  ['S1', 'S2'].map((id) => ({
    id,
    title: id,
    role: 'ground' as const,
    plannedMs: 0,
    locked: false,
    takes: [],
    lines: [1, 2].map((n) => ({ ...emptyLine(`${id}L${n}`), text: `Line ${n} of ${id}.` })),
  })),
);

class Failure extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly body: unknown = {},
  ) {
    super(code);
  }
}
/** Lets everything that is ready go on. */
const settle = async () => {
  for (let i = 0; i < 40; i++) await Promise.resolve();
};
const tokens = (text: string): string[] => text.match(/w\d+w/g) ?? [];
const tokensOf = (doc: ScriptNode) => tokens(doc.textBetween(0, doc.content.size, ' ', ' '));

/** The server of one script: what `appendSteps` does, with answers given when the test says so. */
class Server {
  doc = START;
  log: { step: unknown; clientId: string }[] = [];
  docs = [START];
  readonly acknowledged = new Set<string>();
  waiting: { run: () => unknown; done: (v: unknown) => void; failed: (e: Error) => void }[] = [];
  up = true;

  request<T>(run: () => T): Promise<T> {
    if (!this.up) return Promise.reject(new Failure(0, 'offline'));
    return new Promise((done, failed) => this.waiting.push({ run, done: done as never, failed }));
  }
  /** One request answered: as it should be, its answer lost on the way, or not reached at all. */
  answer(how: 'answered' | 'lost' | 'not reached'): void {
    const request = this.waiting.shift();
    if (!request) return;
    if (how === 'not reached') return request.failed(new Failure(0, 'offline'));
    let value: unknown;
    try {
      value = request.run();
    } catch (error) {
      return request.failed(how === 'lost' ? new Failure(0, 'offline') : (error as Error));
    }
    if (how === 'lost') request.failed(new Failure(0, 'offline'));
    else request.done(value);
  }
  append(version: number, clientId: string, steps: readonly unknown[]): { version: number } {
    if (version > this.log.length) throw new Failure(422, 'step-refused');
    if (version < this.log.length) throw new Failure(409, 'behind', this.since(version));
    for (const json of steps) {
      const result = Step.fromJSON(scriptSchema, json).apply(this.doc);
      if (!result.doc) throw new Failure(422, 'step-refused');
      result.doc.check();
      this.doc = result.doc;
      this.log.push({ step: json, clientId });
      this.docs.push(this.doc);
    }
    return { version: this.log.length };
  }
  since = (version: number) => ({ version: this.log.length, steps: this.log.slice(version) });
}

/** What survives a crash: rows by page; a write lands when the test says so, or not at all. */
class Storage {
  readonly rows = new Map<string, { page: KeptPage; at: number }>();
  /** Locks by page, each with the life of whoever holds it: a browser lets go of them when that ends. */
  readonly alive = new Map<string, { gone: boolean }>();
  full = false;
  slow = false;
  private held: (() => void)[] = [];
  private clock = 0;
  land(): void {
    for (const go of this.held.splice(0)) go();
  }
  keeper(life: { gone: boolean }): Keeper {
    return {
      write: (page) => {
        const copy = structuredClone(page);
        return new Promise((done, failed) => {
          const go = () => {
            if (life.gone) return;
            if (this.full) return failed(new Error('full'));
            this.rows.set(page.clientId, { page: copy, at: ++this.clock });
            done();
          };
          if (this.slow) this.held.push(go);
          else void Promise.resolve().then(go);
        });
      },
      remove: (id) => {
        if (!life.gone) {
          this.rows.delete(id);
          this.alive.delete(id);
        }
        return Promise.resolve();
      },
      claim: (scriptId) => {
        const found = [...this.rows.values()].filter(
          ({ page }) => page.scriptId === scriptId && !this.alive.has(page.clientId),
        );
        for (const { page } of found) this.alive.set(page.clientId, life);
        return Promise.resolve(found.sort((a, b) => b.at - a.at).map(({ page }) => structuredClone(page)));
      },
      hold: (id) => {
        this.alive.set(id, life);
        return Promise.resolve(() => void this.alive.delete(id));
      },
    };
  }
}

/** A tab: at most one page at a time, which can die at any moment. */
class Tab {
  opened: OpenScript | null = null;
  get sync(): ScriptSync | null {
    return this.opened?.sync ?? null;
  }
  life = { gone: false };
  timers = new Map<number, () => void>();
  asked: ScriptNode | null = null;
  private opening: AbortController | null = null;
  constructor(
    readonly name: string,
    private readonly world: World,
  ) {}
  private n = 0;

  ports(): SyncPorts {
    const { server, storage } = this.world;
    const { life } = this;
    return {
      server: {
        send: (version, clientId, steps) =>
          server.request(() => {
            const answer = server.append(version, clientId, steps);
            for (const step of steps)
              for (const t of tokens(JSON.stringify(step))) server.acknowledged.add(t);
            return answer;
          }),
        since: (version) => server.request(() => server.since(version)),
        at: (version) => server.request(() => ({ doc: server.docs[version].toJSON() as unknown })),
      },
      keeper: storage.keeper(life),
      timers: {
        set: (run) => {
          const id = ++this.n;
          this.timers.set(id, () => void (life.gone || run()));
          return id;
        },
        clear: (id) => void this.timers.delete(id as number),
      },
      fresh: () => `${this.name}${++this.world.names}`,
      tab: this.name,
      plugins: [idKeeper(() => `n${++this.world.names}`)],
    };
  }
  async open(): Promise<void> {
    if (this.sync || this.opening) return;
    this.life = { gone: false };
    this.timers = new Map();
    const { server } = this.world;
    this.opening = new AbortController();
    const { signal } = this.opening;
    const script = { id: 'x', doc: server.doc.toJSON() as unknown, version: server.log.length };
    void openScript(script, this.ports(), () => {}, signal).then((opened) => {
      if (signal.aborted) return;
      this.opening = null;
      this.opened = opened;
    });
    await settle();
  }
  /** Gone without a word: nothing of it happens any more, but what it had asked of the server may. */
  crash(): void {
    this.opening?.abort();
    this.opening = null;
    this.life.gone = true;
    for (const [id, life] of this.world.storage.alive)
      if (life === this.life) this.world.storage.alive.delete(id);
    this.opened = null;
    this.asked = null;
  }
  async close(): Promise<void> {
    const { opened } = this;
    if (!opened) return;
    void opened.close().then(() => (this.life.gone = true));
    this.opened = null;
    await settle();
    if (!this.life.gone) this.crash();
  }
  /** What the person does: what goes of the words before their eyes is meant to go. */
  do(change: (sync: ScriptSync) => void): void {
    if (!this.sync) return;
    const before = tokensOf(this.sync.state.doc);
    change(this.sync);
    const after = new Set(tokensOf(this.sync.state.doc));
    for (const t of before) if (!after.has(t)) this.world.meant.add(t);
  }
  fire(): void {
    const due = [...this.timers.values()];
    this.timers.clear();
    for (const run of due) run();
  }
}

class World {
  readonly server = new Server();
  readonly storage = new Storage();
  readonly meant = new Set<string>();
  readonly typed = new Set<string>();
  readonly tabs = new Map<string, Tab>();
  names = 0;
  words = 0;
  constructor() {
    for (const name of ['A', 'B', 'C']) this.tabs.set(name, new Tab(name, this));
  }
  tab = (n: number) => [...this.tabs.values()][n % 3];
}

const lineEnds = (doc: ScriptNode): number[] => {
  const out: number[] = [];
  doc.descendants((node, pos) => {
    if (node.type.name === 'line') out.push(pos + node.nodeSize - 1);
    return node.type.name !== 'line';
  });
  return out;
};

type Act = fc.AsyncCommand<object, World>;
const act = (name: string, run: (world: World) => void | Promise<void>): Act => ({
  check: () => true,
  run: async (_, world) => {
    await run(world);
    await settle();
  },
  toString: () => name,
});
const which = fc.nat(2);
const place = fc.nat(30);
const ACTS: fc.Arbitrary<Act>[] = [
  ...[1, 2, 3].map(() =>
    fc.tuple(which, place, fc.nat(6)).map(([n, at, back]) =>
      act(`type in ${n}`, (w) => {
        const word = `w${++w.words}w`;
        w.tab(n).do((sync) => {
          const ends = lineEnds(sync.state.doc);
          const end = ends[at % ends.length];
          const pos = Math.max(sync.state.doc.resolve(end).start(), end - back);
          const inside = sync.state.doc.resolve(pos);
          // Never into the middle of another word: the test finds words whole.
          const spot = /\w$/.test(inside.parent.textBetween(0, inside.parentOffset)) ? end : pos;
          sync.applied(sync.state.tr.insertText(` ${word} `, spot));
          w.typed.add(word);
        });
      }),
    ),
  ),
  fc.tuple(which, place).map(([n, at]) =>
    act(`new line in ${n}`, (w) =>
      w.tab(n).do((sync) => {
        const ends = lineEnds(sync.state.doc);
        const word = `w${++w.words}w`;
        const line = scriptSchema.node('line', { id: `l${++w.names}` }, scriptSchema.text(word));
        sync.applied(sync.state.tr.insert(ends[at % ends.length] + 1, line));
        w.typed.add(word);
      }),
    ),
  ),
  fc.tuple(which, place).map(([n, at]) =>
    act(`delete a line in ${n}`, (w) =>
      w.tab(n).do((sync) => {
        const ends = lineEnds(sync.state.doc);
        const $end = sync.state.doc.resolve(ends[at % ends.length]);
        if ($end.node(1).childCount < 2) return;
        sync.applied(sync.state.tr.delete($end.before(), $end.after()).setMeta('origin', 'delete'));
      }),
    ),
  ),
  which.map((n) => act(`undo in ${n}`, (w) => w.tab(n).do((s) => void undo(s.state, (tr) => s.applied(tr))))),
  which.map((n) => act(`redo in ${n}`, (w) => w.tab(n).do((s) => void redo(s.state, (tr) => s.applied(tr))))),
  which.map((n) => act(`ask in ${n}`, (w) => void (w.tab(n).asked = w.tab(n).sync?.state.doc ?? null))),
  fc.tuple(which, place).map(([n, at]) =>
    act(`answer comes in ${n}`, (w) => {
      const tab = w.tab(n);
      const { asked } = tab;
      if (!asked) return;
      tab.do((sync) => {
        const ends = lineEnds(asked);
        const $end = asked.resolve(ends[at % ends.length]);
        const told = asked.replace(
          $end.start(),
          $end.end(),
          new Slice(Fragment.from(scriptSchema.text(`told ${++w.names}`)), 0, 0),
        );
        const { doc } = mergedOver(asked, told, sync.state.doc);
        const known = new Set(tokensOf(asked));
        const after = new Set(tokensOf(doc));
        for (const t of tokensOf(sync.state.doc))
          if (!known.has(t)) expect(after.has(t), `an answer keeps ${t}, typed since`).to.equal(true);
        const tr = sync.state.tr;
        for (const step of difference(sync.state.doc, doc).steps) tr.step(step);
        sync.applied(tr.setMeta('origin', 'take'));
      });
      tab.asked = null;
    }),
  ),
  ...(['answered', 'answered', 'answered', 'lost', 'not reached'] as const).map((how) =>
    fc.constant(act(how, (w) => w.server.answer(how))),
  ),
  ...[1, 2].map(() => which.map((n) => act(`time passes in ${n}`, (w) => w.tab(n).fire()))),
  which.map((n) => act(`looks in ${n}`, (w) => void w.tab(n).sync?.look())),
  which.map((n) => act(`sends for others in ${n}`, (w) => void w.tab(n).opened?.sendForOthers())),
  ...[1, 2].map(() => which.map((n) => act(`open ${n}`, (w) => w.tab(n).open()))),
  which.map((n) => act(`crash ${n}`, (w) => w.tab(n).crash())),
  which.map((n) => act(`close ${n}`, (w) => w.tab(n).close())),
  fc.boolean().map((up) => act(up ? 'server up' : 'server down', (w) => void (w.server.up = up))),
  fc
    .boolean()
    .map((full) => act(full ? 'storage full' : 'storage free', (w) => void (w.storage.full = full))),
  fc.boolean().map((slow) =>
    act(slow ? 'storage slow' : 'storage quick', (w) => {
      w.storage.slow = slow;
      if (!slow) w.storage.land();
    }),
  ),
];

/** All comes back: server, storage, every tab; until nothing waits any more. */
async function ends(w: World): Promise<void> {
  w.server.up = true;
  w.storage.full = false;
  w.storage.slow = false;
  w.storage.land();
  await settle();
  for (let i = 0; i < 60; i++) {
    while (w.server.waiting.length) {
      w.server.answer('answered');
      await settle();
    }
    for (const tab of w.tabs.values()) await tab.open();
    for (const tab of w.tabs.values()) tab.fire();
    await settle();
    for (const tab of w.tabs.values()) void (i % 2 ? tab.sync?.look() : tab.opened?.sendForOthers());
    await settle();
  }
}

const strayText = (w: World) =>
  [...w.tabs.values()].flatMap((t) => t.sync?.status.strays.map((s) => s.text) ?? []).join(' ');

describe('pages, storage and server', () => {
  it('lose nothing that was acknowledged or kept, say nothing twice, and end equal', async function () {
    this.timeout(240_000);
    await fc.assert(
      fc.asyncProperty(fc.commands(ACTS, { maxCommands: 60, size: 'max' }), async (commands) => {
        const w = new World();
        await w.tab(0).open();
        await fc.asyncModelRun(() => ({ model: {}, real: w }), commands);
        // What must survive: what the server has acknowledged, what is kept, what a living page shows.
        const kept = [
          ...w.server.acknowledged,
          ...[...w.storage.rows.values()].flatMap((r) => tokens(JSON.stringify(r.page.waiting))),
          ...[...w.tabs.values()].flatMap((t) => (t.sync ? tokensOf(t.sync.state.doc) : [])),
        ].filter((t) => w.typed.has(t) && !w.meant.has(t));
        await ends(w);
        const text = tokensOf(w.server.doc);
        const strays = new Set(tokens(strayText(w)));
        for (const t of kept) expect(text.includes(t) || strays.has(t), `${t} is lost`).to.equal(true);
        expect(new Set(text).size, 'no word twice').to.equal(text.length);
        for (const tab of w.tabs.values()) {
          expect(tab.sync?.status.waiting, `tab ${tab.name} waits for nothing`).to.equal(0);
          expect(tab.sync?.status.save, `and tab ${tab.name} says so`).to.equal('saved');
          expect(tab.sync!.state.doc.eq(w.server.doc), `tab ${tab.name} is as the server`).to.equal(true);
        }
        docFromJson(w.server.doc.toJSON());
      }),
      { seed: Number(process.env.SYNC_SEED ?? 1616), numRuns: Number(process.env.SYNC_RUNS ?? 150) },
    );
  });

  it('a storage that gives no answer holds up no sending, and is said to keep nothing', async () => {
    const w = new World();
    const [tab] = w.tabs.values();
    await tab.open();
    w.storage.slow = true;
    tab.do((sync) => sync.applied(sync.state.tr.insertText(' w1w', lineEnds(sync.state.doc)[0])));
    await settle();
    // First the time for typing to rest, then the time that the storage has.
    tab.fire();
    await settle();
    expect(w.server.waiting).to.have.length(0);
    tab.fire();
    await settle();
    expect(tab.sync!.status.keeps).to.equal(false);
    w.server.answer('answered');
    await settle();
    expect([...w.server.acknowledged]).to.deep.equal(['w1w']);
    w.storage.land();
    await settle();
    expect(tab.sync!.status.keeps, 'it came round').to.equal(true);
  });
});
