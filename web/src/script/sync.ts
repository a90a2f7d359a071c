/**
 * A script's way to the server and back, without a browser: steps are made on the newest version that is known, kept
 * before they are sent, and mapped over other people's when these came first (prosemirror-collab). No word is dropped
 * silently: words whose place is gone are kept as strays, for the writer to put somewhere.
 */
import { collab, getVersion, receiveTransaction, sendableSteps } from 'prosemirror-collab';
import { EditorState, type Plugin, type Transaction } from 'prosemirror-state';
import { Step } from 'prosemirror-transform';
import { sameData, scriptSchema, type ScriptNode } from '@ursprung/core/script';
import type { ScriptRowSettings, StepLog } from '../api.ts';
import { history, keepHistory, storedHistory } from '../page/history.ts';
import type { KeptHistory, KeptPage, Keeper, Stray, Waiting } from './kept.ts';
import { insertedBy, lostWords, wordsOf } from './strays.ts';

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
export interface Failure extends Error {
  status?: number;
  code?: string;
  body?: unknown;
}

const SEND_AFTER_MS = 400;
export const RETRY_MS = 3000;
/** A storage that has not answered by then keeps nothing, in milliseconds. */
const KEPT_WITHIN_MS = 3000;
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
  private history: KeptHistory | null;
  /** How often it was asked to keep, and up to which time it has. */
  private asked = 0;
  private done = 0;
  private writing: Promise<void> | null = null;
  private readonly rows = new WeakMap<Step, Waiting>();

  /** `start`: what an earlier page kept beside its steps. */
  constructor(
    readonly scriptId: string,
    readonly clientId: string,
    private readonly ports: SyncPorts,
    doc: ScriptNode,
    version: number,
    start: Partial<Pick<KeptPage, 'history' | 'strays' | 'settings' | 'waiting'>> = {},
  ) {
    const { history: past = null, strays = [], settings = null, waiting = [] } = start;
    const known = past?.version === version ? past : null;
    this.history = past;
    this.settings = settings;
    this.state = EditorState.create({
      schema: scriptSchema,
      doc,
      plugins: [...ports.plugins, history(known ?? undefined), collab({ version, clientID: clientId })],
    });
    const lost = this.replay(waiting, known?.waiting ?? 0);
    this.status = {
      ...this.waits(),
      refused: null,
      keeps: ports.keeper !== null,
      strays: [...strays, ...lost.map((text): Stray => ({ id: ports.fresh(), text, why: 'does not fit' }))],
    };
  }

  private waits(): Pick<SyncStatus, 'save' | 'waiting'> {
    const waiting = sendableSteps(this.state)?.steps.length ?? 0;
    return { waiting, save: waiting ? 'saving' : 'saved' };
  }

  /** Makes steps again that waited; the first `known` stand in the undo list already. Returns the words of those that don't fit. */
  private replay(waiting: readonly Waiting[], known: number): string[] {
    const lost: string[] = [];
    waiting.forEach((row, i) => {
      try {
        const step = Step.fromJSON(scriptSchema, row.step);
        const tr = this.state.tr.step(step).setMeta('origin', row.origin);
        tr.doc.check();
        this.state = this.state.apply(i < known ? keepHistory(tr) : tr);
        if (this.waiting.at(-1)?.step === step) this.rows.set(step, row);
      } catch (error) {
        if (!(error instanceof RangeError || error instanceof TypeError)) throw error;
        const text = wordsOf(row.step);
        if (text) lost.push(text);
      }
    });
    return lost;
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
    const { waiting } = this.waits();
    this.tell({ waiting, save: waiting && save === 'saved' ? 'saving' : save });
    if (tr.getMeta('fromServer')) return;
    // A large change can be taken back also when the page is gone the next moment; of typing the last keys may be missing.
    if (tr.getMeta('ownStep')) this.noteHistory();
    else this.keepHistorySoon();
    void this.keep();
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
  /** Keeps; but a storage that gives no answer holds up no sending, and is said to keep nothing. */
  private keepInTime(): Promise<unknown> {
    let timer: unknown;
    const late = new Promise<void>((resolve) => {
      timer = this.ports.timers.set(() => {
        this.tell({ keeps: false });
        resolve();
      }, KEPT_WITHIN_MS);
    });
    return Promise.race([this.keep(), late]).finally(() => this.ports.timers.clear(timer));
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
  /** Says at once that nothing can be kept, before the first key. */
  keepsNothing(): void {
    this.tell({ keeps: false });
  }
  /** Settings that another page left are changed here like any others. */
  inherit: (settings: Partial<ScriptRowSettings>) => void = (settings) =>
    this.keepSettings({ ...settings, ...this.settings });
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
    await this.keepInTime();
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
    const { version } = this;
    const before = this.state.doc;
    const tr = receiveTransaction(this.state, steps, ids, { mapSelectionBackward: true });
    const strays =
      ours === steps.length || !own.length ? [] : this.straysOf(tr, before, own, steps.slice(ours));
    this.apply(tr.setMeta('addToHistory', false).setMeta('fromServer', true));
    // Whatever was said of the way to the server before: it has just answered.
    const { waiting: left, save } = this.waits();
    this.tell({
      waiting: left,
      save: this.status.save === 'refused' ? 'refused' : save,
      ...(strays.length ? { strays: [...this.status.strays, ...strays] } : {}),
    });
    const { history: kept } = this;
    // What was only acknowledged changed no document: the undo list that is kept is that of the new version too.
    if (ours < steps.length) this.noteHistory();
    else if (kept?.version === version && kept.waiting >= ours)
      this.history = { ...kept, version: this.version, waiting: kept.waiting - ours };
    else this.keepHistorySoon();
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

  /** Words that another page left and that fit nowhere any more. */
  offer(strays: readonly Stray[]): void {
    if (strays.length) this.tell({ strays: [...this.status.strays, ...strays] });
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

  /** Keeps what stands, and ends. */
  async close(): Promise<void> {
    if (this.closed) return;
    const kept = this.keepHistory();
    this.closed = true;
    this.ports.timers.clear(this.sendTimer);
    this.ports.timers.clear(this.historyTimer);
    await kept;
  }
}

const sameStep = (a: Step, b: Step) => a === b || sameData(a.toJSON(), b.toJSON());
