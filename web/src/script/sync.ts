/**
 * A script's way to the server and back, without a browser: steps are made on the newest version that is known, kept
 * before they are sent, and mapped over other people's when these came first (prosemirror-collab). No word is dropped
 * silently: words whose place is gone are kept as strays, for the writer to put somewhere.
 */
import { collab, getVersion, receiveTransaction, sendableSteps } from 'prosemirror-collab';
import { EditorState, type Plugin, type Transaction } from 'prosemirror-state';
import { Step } from 'prosemirror-transform';
import { docFromJson, sameData, scriptSchema, type ScriptNode } from '@ursprung/core/script';
import type { ScriptRowSettings, StepLog } from '../api.ts';
import { history, keepHistory, storedHistory } from '../page/history.ts';
import type { KeptHistory, KeptPage, Keeper, Stray, Waiting } from './kept.ts';
import { insertedBy, lostWords } from './strays.ts';

export type SaveState = 'saved' | 'saving' | 'kept-here' | 'refused';

export interface SyncServer {
  send(version: number, clientId: string, steps: readonly unknown[], origin: string): Promise<unknown>;
  since(version: number): Promise<StepLog>;
  at(version: number): Promise<{ doc: unknown }>;
}
export interface Timers {
  set(run: () => void, ms: number): unknown;
  clear(timer: unknown): void;
}
export interface SyncStatus {
  save: SaveState;
  waiting: number;
  /** Why the server refuses what waits, or null. */
  refused: string | null;
  /** Whether what waits is kept on this machine. */
  keeps: boolean;
  strays: readonly Stray[];
}
export interface SyncPorts {
  server: SyncServer;
  /** Null where the browser can't keep anything. */
  keeper: Keeper | null;
  timers: Timers;
  fresh: () => string;
  tab: string;
  /** Plugins beside history and collab. */
  plugins: readonly Plugin[];
}
/** What a failed request has to say: `status` 0 when the server was not reached. */
interface Failure extends Error {
  status?: number;
  code?: string;
  body?: unknown;
}

const SEND_AFTER_MS = 400;
const RETRY_MS = 3000;
const HISTORY_AFTER_MS = 500;
/** The most steps of one request; the server takes 500. */
const AT_ONCE = 400;

export class ScriptSync {
  state: EditorState;
  status: SyncStatus;
  /** Changed settings that the server has not taken, or null. */
  settings: Partial<ScriptRowSettings> | null = null;
  /** Called with each transaction that comes from the server, to be applied where the page applies all of them. */
  apply: (tr: Transaction) => void = (tr) => this.applied(tr);
  private readonly heard = new Set<() => void>();
  private sending: Promise<void> | null = null;
  private sendTimer: unknown;
  private historyTimer: unknown;
  private closed = false;
  private release: () => void = () => {};
  private history: KeptHistory | null = null;
  /** How often it was asked to keep, and up to which time it has. */
  private asked = 0;
  private done = 0;
  private writing: Promise<void> | null = null;
  private readonly rows = new WeakMap<Step, Waiting>();

  constructor(
    readonly scriptId: string,
    readonly clientId: string,
    private readonly ports: SyncPorts,
    doc: ScriptNode,
    version: number,
    past?: KeptHistory | null,
  ) {
    this.state = EditorState.create({
      schema: scriptSchema,
      doc,
      plugins: [...ports.plugins, history(past ?? undefined), collab({ version, clientID: clientId })],
    });
    this.status = { save: 'saved', waiting: 0, refused: null, keeps: ports.keeper !== null, strays: [] };
  }

  onStatus(hear: () => void): void {
    this.heard.add(hear);
  }
  private tell(change: Partial<SyncStatus>): void {
    const next = { ...this.status, ...change };
    if ((Object.keys(next) as (keyof SyncStatus)[]).every((k) => next[k] === this.status[k])) return;
    this.status = next;
    for (const hear of this.heard) hear();
  }

  get version(): number {
    return getVersion(this.state);
  }
  /** Steps that the server has not acknowledged, oldest first, each with where it comes from. */
  get waiting(): { step: Step; origin: string }[] {
    const sendable = sendableSteps(this.state);
    if (!sendable) return [];
    return sendable.steps.map((step, i) => ({
      step,
      origin: ((sendable.origins[i] as Transaction).getMeta('origin') as string | undefined) ?? 'typing',
    }));
  }

  /** The state after a transaction, wherever it comes from; what is new in it is kept and sent. */
  applied(tr: Transaction): void {
    const before = this.state.doc;
    this.state = this.state.apply(tr);
    if (this.state.doc === before) return;
    const { save } = this.status;
    const waiting = sendableSteps(this.state)?.steps.length ?? 0;
    this.tell({ waiting, save: waiting && save === 'saved' ? 'saving' : save });
    if (tr.getMeta('fromServer')) return;
    void this.keep();
    this.keepHistorySoon();
    this.scheduleSend();
  }

  // ---- kept on this machine --------------------------------------------------------------------------------------

  private page(): KeptPage {
    const waiting = this.waiting.map(({ step, origin }) => {
      const row = this.rows.get(step) ?? { step: step.toJSON() as unknown, origin };
      this.rows.set(step, row);
      return row;
    });
    return {
      clientId: this.clientId,
      scriptId: this.scriptId,
      tab: this.ports.tab,
      version: this.version,
      waiting,
      strays: this.status.strays,
      settings: this.settings,
      history: this.history,
    };
  }

  /** Resolves when what stands now is kept; true when it is. One write at a time, then the newest state. */
  async keep(): Promise<boolean> {
    const { keeper } = this.ports;
    if (!keeper) return false;
    this.asked++;
    this.writing ??= this.write(keeper).finally(() => (this.writing = null));
    await this.writing;
    return this.status.keeps;
  }
  private async write(keeper: Keeper): Promise<void> {
    while (this.done < this.asked) {
      const now = this.asked;
      const keeps = await keeper.write(this.page()).then(
        () => true,
        () => false,
      );
      this.done = now;
      this.tell({ keeps });
    }
  }
  /** Writes what stands, without waiting for a write that is under way: the page may be gone in a moment. */
  leave(): void {
    this.noteHistory();
    this.ports.keeper?.write(this.page()).catch(() => this.tell({ keeps: false }));
  }

  private keepHistorySoon(): void {
    this.ports.timers.clear(this.historyTimer);
    this.historyTimer = this.ports.timers.set(() => void this.keepHistory(), HISTORY_AFTER_MS);
  }
  /** Undo and redo beside what waits. */
  private keepHistory(): Promise<boolean> {
    this.noteHistory();
    return this.keep();
  }
  private noteHistory(): void {
    this.ports.timers.clear(this.historyTimer);
    this.history = {
      ...storedHistory(this.state),
      version: this.version,
      waiting: sendableSteps(this.state)?.steps.length ?? 0,
    };
  }
  keepSettings(settings: Partial<ScriptRowSettings> | null): void {
    this.settings = settings;
    void this.keep();
  }

  // ---- to and from the server --------------------------------------------------------------------------------------

  scheduleSend(delay = SEND_AFTER_MS): void {
    this.ports.timers.clear(this.sendTimer);
    if (!this.closed) this.sendTimer = this.ports.timers.set(() => void this.send(), delay);
  }

  /** Sends what waits; one request at a time. */
  send(): Promise<void> {
    return (this.sending ??= this.sendNow().finally(() => (this.sending = null)));
  }
  private async sendNow(): Promise<void> {
    if (this.closed) return;
    if (!sendableSteps(this.state)) return this.tell({ save: 'saved', waiting: 0, refused: null });
    let again: number | null = null;
    // What is sent stands on this machine first, on this very version: after a crash it can be told what was taken.
    await this.keep();
    const waiting = this.waiting;
    const { origin } = waiting[0];
    const end = waiting.findIndex((w, i) => i === AT_ONCE || w.origin !== origin);
    const steps = waiting.slice(0, end < 0 ? waiting.length : end).map((w) => w.step);
    try {
      await this.ports.server.send(
        this.version,
        this.clientId,
        steps.map((s) => s.toJSON() as unknown),
        origin,
      );
      if (this.closed) return;
      this.receive({ steps: steps.map((s) => ({ step: s, clientId: this.clientId })) });
      const left = this.status.waiting;
      this.tell({ save: left ? 'saving' : 'saved', refused: null });
      if (left) again = 0;
    } catch (error) {
      if (this.closed) return;
      again = this.failed(error as Failure);
    }
    void this.keep();
    if (again !== null) this.scheduleSend(again);
  }

  /** What to do after a send that failed: when to try again in milliseconds, or null. */
  private failed(error: Failure): number | null {
    if (error.code === 'behind') {
      this.receive(error.body as StepLog);
      return 0;
    }
    const { status } = error;
    if (status === undefined) throw error;
    if (status >= 400 && status < 500 && status !== 429) {
      this.tell({ save: 'refused', refused: error.message });
      return null;
    }
    this.tell({ save: 'kept-here' });
    return RETRY_MS;
  }

  /** Takes in steps from the log, our own among them; words of either side that find no place become strays. */
  receive(log: { steps: readonly { step: unknown; clientId: string }[] }): void {
    if (!log.steps.length) return;
    const steps = log.steps.map(({ step }) =>
      step instanceof Step ? step : Step.fromJSON(scriptSchema, step),
    );
    // Ours are those that stand in the log as they wait here. Others under our name were sent by a page of the same name
    // that could not keep them before it was gone: they come like anybody's.
    const waiting = this.waiting;
    let ours = 0;
    while (
      ours < Math.min(steps.length, waiting.length) &&
      log.steps[ours].clientId === this.clientId &&
      sameStep(steps[ours], waiting[ours].step)
    )
      ours++;
    const ids = steps.map((_, i) => (i < ours ? this.clientId : ''));
    const own = waiting.slice(ours).map((w) => w.step);
    const before = this.state.doc;
    const tr = receiveTransaction(this.state, steps, ids, { mapSelectionBackward: true });
    const strays =
      ours === steps.length || !own.length ? [] : this.straysOf(tr, before, own, steps.slice(ours));
    this.apply(tr.setMeta('addToHistory', false).setMeta('fromServer', true));
    this.tell({
      waiting: sendableSteps(this.state)?.steps.length ?? 0,
      ...(strays.length ? { strays: [...this.status.strays, ...strays] } : {}),
    });
    this.keepHistorySoon();
  }

  private straysOf(
    tr: Transaction,
    before: ScriptNode,
    own: readonly Step[],
    theirs: readonly Step[],
  ): Stray[] {
    const stray = (why: Stray['why']) => (text: string) => ({ id: this.ports.fresh(), text, why });
    const at = own.length + theirs.length;
    const between = tr.steps.length > at ? tr.docs[at] : tr.doc;
    return [
      ...lostWords(before, insertedBy(own), tr.mapping).map(stray('place gone')),
      ...lostWords(between, insertedBy(theirs), tr.mapping.slice(at)).map(
        stray('written in what was taken out'),
      ),
    ];
  }

  /** Takes a stray off the list, when it was put somewhere or let go. */
  settleStray(id: string): void {
    this.tell({ strays: this.status.strays.filter((s) => s.id !== id) });
    void this.keep();
  }

  /** Looks for changes made elsewhere, or sends what waits. */
  async look(): Promise<void> {
    if (this.closed || this.sending) return;
    if (sendableSteps(this.state)) return this.send();
    const { version } = this;
    try {
      const log = await this.ports.server.since(version);
      if (this.closed) return;
      if (!this.sending && this.version === version && !sendableSteps(this.state)) this.receive(log);
      if (this.status.save === 'kept-here') this.tell({ save: 'saved' });
    } catch (error) {
      if ((error as Failure).status === undefined) throw error;
      this.tell({ save: 'kept-here' });
    }
  }

  /** Keeps what stands and lets go of it, for whoever opens the script next. */
  async close(): Promise<void> {
    if (this.closed) return;
    const kept = this.keepHistory();
    this.closed = true;
    this.ports.timers.clear(this.sendTimer);
    this.ports.timers.clear(this.historyTimer);
    await kept;
    this.release();
    for (const page of this.others.splice(0)) (await this.ports.keeper!.hold(page.clientId))();
  }

  // ---- taken up again --------------------------------------------------------------------------------------------

  /** A page's way from where it left off. Throws when the server can't be asked; nothing is lost then. */
  static async resume(
    kept: KeptPage,
    script: { doc: unknown; version: number },
    ports: SyncPorts,
  ): Promise<ScriptSync> {
    const same = kept.version === script.version;
    const [{ doc }, log] = same
      ? [script, { version: kept.version, steps: [] }]
      : await Promise.all([ports.server.at(kept.version), ports.server.since(kept.version)]);
    const past = kept.history?.version === kept.version ? kept.history : null;
    const sync = new ScriptSync(kept.scriptId, kept.clientId, ports, docFromJson(doc), kept.version, past);
    sync.status = { ...sync.status, strays: kept.strays };
    sync.settings = kept.settings;
    sync.history = kept.history;
    // Steps of ours that stand in the log behind other people's were taken too: what was kept is older than they are.
    const foreign = log.steps.findIndex((s) => s.clientId !== kept.clientId);
    const late =
      foreign < 0 ? 0 : log.steps.slice(foreign).filter((s) => s.clientId === kept.clientId).length;
    const lost = sync.replay(kept.waiting.slice(late), past?.waiting ?? 0);
    sync.receive(log);
    if (lost.length)
      sync.status = {
        ...sync.status,
        strays: [
          ...sync.status.strays,
          ...lost.map((text): Stray => ({ id: ports.fresh(), text, why: 'does not fit' })),
        ],
      };
    const waiting = sendableSteps(sync.state)?.steps.length ?? 0;
    sync.status = { ...sync.status, waiting, save: waiting ? 'saving' : 'saved' };
    return sync;
  }

  /** Makes waiting steps again; the first `known` stand in the undo list already. Returns the words of those that don't fit. */
  private replay(waiting: readonly Waiting[], known: number): string[] {
    const lost: string[] = [];
    waiting.forEach((row, i) => {
      try {
        const step = Step.fromJSON(scriptSchema, row.step);
        const tr = this.state.tr.step(step).setMeta('origin', row.origin);
        tr.doc.check();
        this.state = this.state.apply(i < known ? keepHistory(tr) : tr);
        const made = this.waiting.at(-1);
        if (made?.step === step) this.rows.set(step, row);
      } catch (error) {
        if (!(error instanceof RangeError || error instanceof TypeError)) throw error;
        const text = textOf(row.step);
        if (text) lost.push(text);
      }
    });
    return lost;
  }

  /**
   * Opens a script: goes on with what this tab, or else a page that is gone, left behind. While the server can't say how
   * the script went on since, it is asked again and again; `wait` hears why. Null when `signal` ends it.
   */
  static async open(
    script: { id: string; doc: unknown; version: number },
    ports: SyncPorts,
    wait: (why: string | null) => void = () => {},
    signal?: AbortSignal,
  ): Promise<ScriptSync | null> {
    const { keeper } = ports;
    let left: KeptPage[] = [];
    let keeps = keeper !== null;
    try {
      left = (await keeper?.claim(script.id, ports.tab)) ?? [];
    } catch {
      keeps = false;
    }
    const own = left.find((p) => p.tab === ports.tab) ?? left.find(holds);
    const others = left.filter((p) => p !== own);
    const sync = own ? await ScriptSync.resumed(own, script, ports, wait, signal) : fresh(script, ports);
    if (!sync || signal?.aborted) {
      for (const page of left) (await keeper!.hold(page.clientId))();
      return null;
    }
    sync.status = { ...sync.status, keeps };
    sync.release = (await keeper?.hold(sync.clientId).catch(() => undefined)) ?? (() => {});
    for (const page of others)
      if (holds(page)) sync.others.push(page);
      else await keeper!.remove(page.clientId).catch(() => {});
    if (own && own.clientId !== sync.clientId) await sync.inherit(own.clientId);
    else await sync.keep();
    if (sync.status.waiting) sync.scheduleSend(0);
    return sync;
  }

  private static async resumed(
    own: KeptPage,
    script: { id: string; doc: unknown; version: number },
    ports: SyncPorts,
    wait: (why: string | null) => void,
    signal?: AbortSignal,
  ): Promise<ScriptSync | null> {
    while (!signal?.aborted) {
      try {
        const sync = await ScriptSync.resume(own, script, ports);
        wait(null);
        return sync;
      } catch (error) {
        const { status, message } = error as Failure;
        if (status === undefined) throw error;
        // The server has no such state any more: the script is as it has it, the words stay to be put in.
        if (status >= 400 && status < 500 && status !== 429) return strayed(own, script, ports);
        if (!holds(own)) return strayed(own, script, ports);
        wait(message);
        await new Promise<void>((resolve) => void ports.timers.set(resolve, RETRY_MS));
      }
    }
    return null;
  }

  /** Keeps what another page's record held under this one's name, then removes that record. */
  private async inherit(clientId: string): Promise<void> {
    if (await this.keep()) await this.ports.keeper?.remove(clientId).catch(() => {});
  }
  private readonly others: KeptPage[] = [];

  /** Sends what other pages that are gone left behind, each under its own name; it comes to this page like anybody's. */
  async sendForOthers(): Promise<void> {
    const { keeper } = this.ports;
    if (!keeper || this.closed || this.helping) return;
    this.helping = true;
    try {
      this.others.push(...(await keeper.claim(this.scriptId, '').catch(() => [])).filter(holds));
      for (let kept = this.others[0]; kept && !this.closed; kept = this.others[0]) {
        const sync = await ScriptSync.resume(kept, { doc: null, version: -1 }, this.ports);
        while (sync.status.waiting && sync.status.save === 'saving') {
          await sync.send();
          this.ports.timers.clear(sync.sendTimer);
        }
        await sync.close();
        if (sync.status.save === 'kept-here') return;
        const refused = sync.waiting.map((w) => textOf(w.step.toJSON())).filter(Boolean);
        this.tell({
          strays: [
            ...this.status.strays,
            ...sync.status.strays,
            ...refused.map((text): Stray => ({ id: this.ports.fresh(), text, why: 'does not fit' })),
          ],
        });
        if (sync.settings) this.settings = { ...sync.settings, ...this.settings };
        this.others.shift();
        await this.inherit(kept.clientId);
      }
    } catch (error) {
      if ((error as Failure).status === undefined) throw error;
    } finally {
      this.helping = false;
    }
    if (this.status.waiting === 0) await this.look();
  }
  private helping = false;
}

const sameStep = (a: Step, b: Step) => a === b || sameData(a.toJSON(), b.toJSON());
const holds = (page: KeptPage) => page.waiting.length > 0 || page.strays.length > 0 || page.settings !== null;
const fresh = (script: { id: string; doc: unknown; version: number }, ports: SyncPorts) =>
  new ScriptSync(script.id, ports.fresh(), ports, docFromJson(script.doc), script.version);

/** The script as the server has it, with the words of a page whose steps fit nothing any more. */
function strayed(
  own: KeptPage,
  script: { id: string; doc: unknown; version: number },
  ports: SyncPorts,
): ScriptSync {
  const sync = fresh(script, ports);
  const texts = own.waiting.map((w) => textOf(w.step)).filter(Boolean);
  const strays = texts.length
    ? [{ id: ports.fresh(), text: texts.join(' '), why: 'does not fit' as const }]
    : [];
  sync.status = { ...sync.status, strays: [...own.strays, ...strays] };
  sync.settings = own.settings;
  return sync;
}

/** The words that a step of any state puts in. */
function textOf(step: unknown): string {
  const out: string[] = [];
  const walk = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return;
    const { text, type, content, slice } = value as Record<string, unknown>;
    if (type === 'text' && typeof text === 'string') out.push(text);
    if (slice) walk(slice);
    if (Array.isArray(content)) content.forEach(walk);
  };
  walk(step);
  return out.join('\n').trim();
}
