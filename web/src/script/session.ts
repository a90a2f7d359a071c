/**
 * One open script: the document, its times and traces, and its way to the server. Lives outside React; places
 * subscribe. Typing is timed in a worker within a frame; steps go to the server as they are made, wait here while it
 * can't be reached, and are mapped over other people's changes when these came first.
 */
import { collab, getVersion, receiveTransaction, sendableSteps } from 'prosemirror-collab';
import { keymap } from 'prosemirror-keymap';
import { EditorState, TextSelection, type Command, type Transaction } from 'prosemirror-state';
import { Step } from 'prosemirror-transform';
import type { EditorView } from 'prosemirror-view';
import type { NoveltyWindow } from '@ursprung/core/measure';
import type { Loop } from '@ursprung/core/plan';
import {
  brokenLocks,
  docFromJson,
  docFromSections,
  plainSections,
  scriptSchema,
  type PlainSection,
} from '@ursprung/core/script';
import { RequestError, api, type ChannelSettings, type ScriptRowSettings, type ScriptView } from '../api.ts';
import { idKeeper, manuscriptKeys } from '../page/commands.ts';
import type { Match } from '../page/find.ts';
import { history, keepHistory, redo, storedHistory, undo, type StoredHistory } from '../page/history.ts';
import { Reviewing } from './reviewing.ts';
import type {
  FromWorker,
  LaidRecording,
  LineTime,
  LineTrace,
  SceneView,
  ToWorker,
  WorkerLine,
} from '../text/messages.ts';

export type SaveState = 'saved' | 'saving' | 'kept-here' | 'refused';

/** What the places show. A new object whenever anything in it changes. */
export interface Snapshot {
  sections: readonly PlainSection[];
  /** By line id; null until the clock has answered once. */
  times: ReadonlyMap<string, LineTime> | null;
  totalMs: number;
  words: number;
  /** The voice's middle error, as a share. */
  band: number;
  traces: ReadonlyMap<string, LineTrace>;
  overlap: number | null;
  scenes: readonly SceneView[];
  loops: readonly Loop[];
  novelty: readonly NoveltyWindow[];
  settings: ScriptRowSettings;
  /** Counts settings that the server has taken: what it works out from them is asked for anew. */
  settingsTaken: number;
  save: SaveState;
  /** Changes that wait for the server. */
  waiting: number;
  message: string | null;
  /** The line the caret stands in. */
  line: string | null;
}

interface Stored {
  clientId: string;
  version: number;
  /** The document at that version, without the steps that wait. */
  doc: unknown;
  steps: unknown[];
  history: StoredHistory;
  touched: number;
}

/** A word about a lock stands this long, in milliseconds. */
const SAID_MS = 6000;
/** Settings that the clock and the scenes depend on. */
const CLOCK_SETTINGS = ['pace', 'voice', 'frame', 'mood', 'paceCurve'] as const;
const LOCKED = 'This is locked and stays as it is. Ctrl \\ takes the lock off.';
const random = () => Math.random().toString(36).slice(2, 10);
/** Typing draws once, when its times are there; if the clock is late, without them. */
const DRAW_WITHOUT_TIMES_MS = 120;
const TRACE_AFTER_MS = 220;
const SEND_AFTER_MS = 400;
const RETRY_MS = 3000;
const LOOK_MS = 15_000;
/** A record of another tab that was not touched for this long belongs to a tab that is gone. */
const ABANDONED_MS = 20_000;

export class ScriptSession {
  state: EditorState;
  view: EditorView | null = null;
  snapshot: Snapshot;
  private readonly clientId = random() + random();
  private readonly tab: string;
  private readonly worker: Worker;
  private readonly listeners = new Set<() => void>();
  private turn = 0;
  private sentLines: readonly WorkerLine[] = [];
  private drawTimer: ReturnType<typeof setTimeout> | undefined;
  private traceTimer: ReturnType<typeof setTimeout> | undefined;
  private sendTimer: ReturnType<typeof setTimeout> | undefined;
  private storeTimer: ReturnType<typeof setTimeout> | undefined;
  private saidTimer: ReturnType<typeof setTimeout> | undefined;
  private lookTimer: ReturnType<typeof setInterval>;
  private sending = false;
  private closed = false;
  private revision: number;
  /** The document as the server has it. */
  private confirmedDoc: EditorState['doc'];
  readonly sources: ScriptView['sources'];
  readonly reviewing: Reviewing;
  channel: ChannelSettings | null;
  /** Where the changes that wait for the server come from. */
  private origin = 'typing';

  constructor(readonly script: ScriptView) {
    this.sources = script.sources;
    this.channel = script.channel;
    this.reviewing = new Reviewing(
      script.sources.map((s) => ({
        letter: s.letter,
        text: s.document.text,
        facts: s.facts,
        kind: s.document.kind,
        ...(s.document.published ? { published: s.document.published } : {}),
      })),
      script.settings,
      script.channel,
    );
    this.revision = script.settingsRevision;
    this.tab = sessionStorage.getItem('ursprung:tab') ?? random();
    sessionStorage.setItem('ursprung:tab', this.tab);
    const stored = this.readStored();
    this.confirmedDoc = docFromJson(script.doc);
    this.state = this.freshState(this.confirmedDoc, script.version);
    this.snapshot = {
      sections: plainSections(this.state.doc),
      times: null,
      totalMs: 0,
      words: 0,
      band: 0,
      traces: new Map(),
      overlap: null,
      scenes: [],
      loops: [],
      novelty: [],
      settings: script.settings,
      settingsTaken: 0,
      save: 'saved',
      waiting: 0,
      message: null,
      line: null,
    };
    this.worker = new Worker(new URL('../text/worker.ts', import.meta.url), { type: 'module' });
    this.worker.onmessage = (event: MessageEvent<FromWorker>) => this.heard(event.data);
    this.setup();
    if (stored) void this.restore(stored);
    this.lookTimer = setInterval(() => void this.look(), LOOK_MS);
    window.addEventListener('online', this.onReturn);
    window.addEventListener('focus', this.onReturn);
    window.addEventListener('pagehide', this.onLeave);
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  private set(change: Partial<Snapshot>): void {
    clearTimeout(this.drawTimer);
    this.snapshot = { ...this.snapshot, ...change };
    for (const listener of this.listeners) listener();
  }

  /** Like `set`, but the places are told when the clock has answered. */
  private setWithTimes(change: Partial<Snapshot>): void {
    if (!this.snapshot.times) return this.set(change);
    this.snapshot = { ...this.snapshot, ...change };
    clearTimeout(this.drawTimer);
    this.drawTimer = setTimeout(() => this.set({}), DRAW_WITHOUT_TIMES_MS);
  }

  private freshState(doc: EditorState['doc'], version: number, past?: StoredHistory): EditorState {
    return EditorState.create({
      schema: scriptSchema,
      doc,
      plugins: [
        idKeeper(random),
        keymap({ ...manuscriptKeys, 'Mod-z': undo, 'Mod-y': redo, 'Mod-Shift-z': redo }),
        history(past),
        collab({ version, clientID: this.clientId }),
      ],
    });
  }

  /** Applies a transaction, wherever it comes from. */
  dispatch = (tr: Transaction): void => {
    const before = this.state.doc;
    const next = this.state.apply(tr);
    // What comes from the server has been judged where it was made.
    if (next.doc !== before && tr.getMeta('fromServer') !== true) {
      const [locked] = brokenLocks(before, next.doc);
      if (locked !== undefined) {
        this.view?.updateState(this.state);
        this.set({ message: LOCKED });
        clearTimeout(this.saidTimer);
        this.saidTimer = setTimeout(
          () => this.snapshot.message === LOCKED && this.set({ message: null }),
          SAID_MS,
        );
        return;
      }
      if (this.snapshot.message === LOCKED) this.set({ message: null });
      const origin = tr.getMeta('origin') as string | undefined;
      if (origin) this.origin = origin;
    }
    this.state = next;
    this.view?.updateState(this.state);
    const line = currentLine(this.state);
    if (this.state.doc !== before) {
      const { save } = this.snapshot;
      this.setWithTimes({
        sections: plainSections(this.state.doc),
        line,
        waiting: this.unconfirmed(),
        save: save === 'saved' ? 'saving' : save,
      });
      this.time();
      if (this.reviewing.running) this.reviewing.read(this.snapshot.sections);
      this.scheduleSend();
      this.scheduleStore();
    } else if (line !== this.snapshot.line) this.set({ line });
  };

  /** Takes in sections that were planned or told anew, as one step that can be undone: only what differs is replaced. */
  take(sections: readonly PlainSection[], origin = 'take'): void {
    const next = docFromSections(sections);
    const { doc } = this.state;
    let first = 0;
    while (first < doc.childCount && first < next.childCount && doc.child(first).eq(next.child(first)))
      first++;
    let last = 0;
    while (
      last < doc.childCount - first &&
      last < next.childCount - first &&
      doc.child(doc.childCount - 1 - last).eq(next.child(next.childCount - 1 - last))
    )
      last++;
    if (first + last === doc.childCount && doc.childCount === next.childCount) return;
    const place = (n: number) => {
      let at = 0;
      for (let i = 0; i < n; i++) at += doc.child(i).nodeSize;
      return at;
    };
    const nodes = [];
    for (let i = first; i < next.childCount - last; i++) nodes.push(next.child(i));
    const tr = this.state.tr
      .replaceWith(place(first), place(doc.childCount - last), nodes)
      .setMeta('ownStep', true)
      .setMeta('origin', origin);
    // The caret stays in its line, wherever that stands now.
    const { $head } = this.state.selection;
    const line = currentLine(this.state);
    tr.doc.descendants((node, pos) => {
      if (node.type.name === 'line' && node.attrs.id === line)
        tr.setSelection(
          TextSelection.create(tr.doc, pos + 1 + Math.min($head.parentOffset, node.content.size)),
        );
      return node.type.name !== 'line';
    });
    this.dispatch(tr);
  }

  /** Words and milliseconds of texts that are not in the script, each by itself. */
  async lengths(texts: readonly string[]): Promise<Map<string, { ms: number; words: number }>> {
    const lines = texts.map((text, i) => ({ id: String(i), text, restMs: 0, endsSection: false }));
    const times = lines.length ? await this.ask(lines) : [];
    return new Map(texts.map((t, i) => [t, times[i]]));
  }

  /** Milliseconds and words of every line of several states of a script. */
  async timings(states: readonly (readonly PlainSection[])[]): Promise<{ ms: number; words: number }[][]> {
    const out = [];
    for (const state of states) out.push(await this.ask(workerLines(state)));
    return out;
  }

  private asked = new Map<number, (times: LineTime[]) => void>();
  private ask(lines: readonly WorkerLine[]): Promise<LineTime[]> {
    const turn = -1 - this.asks++;
    return new Promise((resolve) => {
      this.asked.set(turn, resolve);
      this.post({ type: 'time', turn, lines: [...lines] });
    });
  }
  private asks = 0;

  private laying = new Map<number, { done: (r: LaidRecording) => void; failed: (e: Error) => void }>();
  /** Lays a recording against the script, in the worker. Rejects with words for the person. */
  layRecording(files: { wav?: ArrayBuffer; captions?: string }): Promise<LaidRecording> {
    const turn = ++this.asks;
    return new Promise((done, failed) => {
      this.laying.set(turn, { done, failed });
      this.post({ type: 'lay', turn, sections: traceSections(this.snapshot.sections), ...files });
    });
  }

  /** Where a search stands; the manuscript marks it. */
  matches: { list: readonly Match[]; current: Match | undefined } = { list: [], current: undefined };
  showMatches(list: readonly Match[], current: Match | undefined): void {
    this.matches = { list, current };
    this.view?.updateState(this.state);
  }

  /** Reads the script through, now and after every change. */
  readThrough(): void {
    this.reviewing.read(this.snapshot.sections, 0);
  }

  /** Changes what the channel keeps: sayings, rules, style. */
  async changeChannel(settings: Partial<ChannelSettings>): Promise<void> {
    try {
      const { settings: next } = await api.patchChannel(this.script.channelId, { settings });
      this.channelChanged(next);
    } catch (error) {
      this.set({ message: (error as Error).message });
    }
  }
  channelChanged(channel: ChannelSettings): void {
    this.channel = channel;
    this.setup();
    this.reviewing.changed(this.snapshot.settings, channel);
    this.set({ settingsTaken: this.snapshot.settingsTaken + 1 });
  }
  say(message: string | null): void {
    this.set({ message });
  }

  /** When a line is heard and how long it takes, in milliseconds; 0 while the clock has not answered. */
  msOf = (lineId: string): number => this.snapshot.times?.get(lineId)?.ms ?? 0;

  run(command: Command): boolean {
    return command(this.state, this.dispatch, this.view ?? undefined);
  }
  undo = () => this.run(undo);
  redo = () => this.run(redo);

  /** Changes title, target, pace… at once here, then on the server, one after another; times follow. */
  change(settings: Partial<ScriptRowSettings>): Promise<void> {
    const before = this.snapshot.settings;
    this.set({ settings: { ...before, ...settings } });
    this.reviewing.changed(this.snapshot.settings, this.channel);
    this.pending++;
    this.changes = this.changes.then(() => this.sendChange(settings, before));
    return this.changes;
  }
  private changes: Promise<void> = Promise.resolve();
  private pending = 0;

  private async sendChange(settings: Partial<ScriptRowSettings>, before: ScriptRowSettings): Promise<void> {
    try {
      const next = await api.patchSettings(this.script.id, this.revision, settings);
      this.revision = next.revision;
      // What was changed here since is still on its way.
      this.pending--;
      if (!this.pending)
        this.set({ settings: next.settings, message: null, settingsTaken: this.snapshot.settingsTaken + 1 });
      if (CLOCK_SETTINGS.some((key) => key in settings)) this.setup();
      this.reviewing.changed(this.snapshot.settings, this.channel);
    } catch (error) {
      this.pending--;
      if (error instanceof RequestError && error.code === 'settings-behind') {
        const theirs = error.body as unknown as { settings: ScriptRowSettings; revision: number };
        this.revision = theirs.revision;
        this.set({
          settings: theirs.settings,
          message: 'Title or length was changed in another window; its values are shown now.',
        });
      } else this.set({ settings: before, message: (error as Error).message });
    }
  }

  // ---- clock and trace -------------------------------------------------------------------------------------------

  private post(message: ToWorker) {
    this.worker.postMessage(message);
  }

  private setup(): void {
    const { voice, pace, frame, mood, paceCurve } = this.snapshot.settings;
    const usualMs = this.channel?.pictures?.usualMs;
    this.post({
      type: 'setup',
      voice,
      pace,
      scenes: {
        frame,
        mood,
        ...(usualMs ? { usualMs } : {}),
        ...(paceCurve?.length ? { handles: paceCurve } : {}),
      },
      sources: this.sources.map((s) => s.document.text),
      sayings: (this.channel?.sayings ?? []).map((s) => [s.word, s.say] as const),
    });
    this.time();
  }

  private time(): void {
    this.turn++;
    this.sentLines = workerLines(this.snapshot.sections);
    this.post({ type: 'time', turn: this.turn, lines: [...this.sentLines] });
    clearTimeout(this.traceTimer);
    this.traceTimer = setTimeout(
      () => this.post({ type: 'trace', turn: this.turn, sections: traceSections(this.snapshot.sections) }),
      this.snapshot.times ? TRACE_AFTER_MS : 0,
    );
  }

  private heard(message: FromWorker): void {
    if (message.type === 'failed')
      this.set({
        message: `The clock has stopped: ${message.message} Reload to start it again; your words are kept.`,
      });
    if (message.type === 'laid' || message.type === 'not laid') {
      const asked = this.laying.get(message.turn);
      this.laying.delete(message.turn);
      if (message.type === 'laid') asked?.done(message.recording);
      else asked?.failed(new Error(message.message));
    }
    if (message.type === 'times' && message.turn < 0) {
      this.asked.get(message.turn)?.(message.times);
      this.asked.delete(message.turn);
    }
    if (message.type === 'times' && message.turn === this.turn) {
      const times = new Map<string, LineTime>();
      let totalMs = 0;
      let words = 0;
      message.times.forEach((t, i) => {
        times.set(this.sentLines[i].id, t);
        totalMs += t.ms;
        words += t.words;
      });
      this.set({ times, totalMs, words, band: message.band });
    }
    if (message.type === 'traces' && message.turn === this.turn)
      this.set({
        traces: new Map(Object.entries(message.traces)),
        overlap: message.overlap,
        scenes: message.scenes,
        loops: message.loops,
        novelty: message.novelty,
      });
  }

  // ---- to and from the server --------------------------------------------------------------------------------------

  private unconfirmed = () => sendableSteps(this.state)?.steps.length ?? 0;

  private scheduleSend(delay = SEND_AFTER_MS): void {
    clearTimeout(this.sendTimer);
    this.sendTimer = setTimeout(() => void this.send(), delay);
  }

  private async send(): Promise<void> {
    if (this.sending || this.closed) return;
    const sendable = sendableSteps(this.state);
    if (!sendable) {
      this.set({ save: 'saved', waiting: 0 });
      return;
    }
    this.sending = true;
    const steps = sendable.steps.slice(0, 400);
    const origin = this.origin;
    this.origin = 'typing';
    let again: number | null = null;
    try {
      await api.sendSteps(
        this.script.id,
        sendable.version,
        this.clientId,
        steps.map((s) => s.toJSON() as unknown),
        origin,
      );
      this.confirm(
        steps,
        steps.map(() => this.clientId),
      );
      const waiting = this.unconfirmed();
      this.set({
        save: waiting ? 'saving' : 'saved',
        waiting,
        message: this.snapshot.save === 'kept-here' ? null : this.snapshot.message,
      });
      if (waiting) again = 0;
    } catch (error) {
      again = this.failed(error as Error);
    } finally {
      this.sending = false;
    }
    this.scheduleStore();
    if (again !== null) this.scheduleSend(again);
  }

  /** What to do after a send that failed: when to try again, or null. */
  private failed(error: Error): number | null {
    if (error instanceof RequestError && error.code === 'behind') {
      this.receive(error.body as unknown as { steps: { step: unknown; clientId: string }[] });
      return 0;
    }
    if (error instanceof RequestError && error.status >= 400 && error.status < 500 && error.status !== 429) {
      this.set({
        save: 'refused',
        waiting: this.unconfirmed(),
        message: `${error.message} Your words are kept here; copy them and reload.`,
      });
      return null;
    }
    this.set({ save: 'kept-here', waiting: this.unconfirmed() });
    return RETRY_MS;
  }

  private confirm(steps: readonly Step[], clientIds: readonly string[]): void {
    for (const step of steps) this.confirmedDoc = step.apply(this.confirmedDoc).doc ?? this.confirmedDoc;
    this.dispatchQuietly(receiveTransaction(this.state, steps, clientIds, { mapSelectionBackward: true }));
  }

  private receive(log: { steps: { step: unknown; clientId: string }[] }): void {
    if (!log.steps.length) return;
    this.confirm(
      log.steps.map((s) => Step.fromJSON(scriptSchema, s.step)),
      log.steps.map((s) => s.clientId),
    );
  }

  private dispatchQuietly(tr: Transaction): void {
    this.dispatch(tr.setMeta('addToHistory', false).setMeta('fromServer', true));
  }

  /** Looks for changes made elsewhere. */
  private async look(): Promise<void> {
    if (this.closed || this.sending || document.visibilityState === 'hidden') return;
    if (this.unconfirmed()) return void this.send();
    const version = getVersion(this.state);
    try {
      const log = await api.stepsSince(this.script.id, version);
      if (!this.sending && getVersion(this.state) === version && !this.unconfirmed()) this.receive(log);
      if (this.snapshot.save === 'kept-here') this.set({ save: 'saved' });
    } catch {
      this.set({ save: 'kept-here' });
    }
  }

  private onReturn = () => void this.look();
  private onLeave = () => this.store();

  // ---- kept on this machine ------------------------------------------------------------------------------------------

  private storageKey = (tab = this.tab) => `ursprung:script:${this.script.id}:${tab}`;

  private scheduleStore(): void {
    clearTimeout(this.storeTimer);
    this.storeTimer = setTimeout(() => this.store(), 300);
  }

  private store(): void {
    if (this.closed) return;
    const sendable = sendableSteps(this.state);
    const record: Stored = {
      clientId: this.clientId,
      version: getVersion(this.state),
      doc: this.confirmedDoc.toJSON(),
      steps: (sendable?.steps ?? []).map((s) => s.toJSON() as unknown),
      history: storedHistory(this.state),
      touched: Date.now(),
    };
    try {
      localStorage.setItem(this.storageKey(), JSON.stringify(record));
    } catch {
      // Full or forbidden storage: the server still has everything that was confirmed.
      localStorage.removeItem(this.storageKey());
    }
  }

  private readStored(): Stored | null {
    const keys = Object.keys(localStorage).filter((k) => k.startsWith(`ursprung:script:${this.script.id}:`));
    const records = keys.flatMap((k) => {
      try {
        return [{ k, r: JSON.parse(localStorage.getItem(k)!) as Stored }];
      } catch {
        return [];
      }
    });
    const own = records.find(({ k }) => k === this.storageKey());
    const left = records.find(({ r }) => r.steps.length > 0 && Date.now() - r.touched > ABANDONED_MS);
    const chosen = own ?? left ?? null;
    if (chosen && chosen !== own) localStorage.removeItem(chosen.k);
    return chosen?.r ?? null;
  }

  /** Takes up where a reload or a lost connection left off. */
  private async restore(stored: Stored): Promise<void> {
    try {
      const log = await api.stepsSince(this.script.id, stored.version);
      if (log.version < stored.version || this.unconfirmed()) return;
      // Steps of ours that the server took before we heard of it are at the front of its log.
      const foreign = log.steps.findIndex((s) => s.clientId !== stored.clientId);
      const taken = Math.min(stored.steps.length, foreign < 0 ? log.steps.length : foreign);
      const pending = stored.steps.map((s) => Step.fromJSON(scriptSchema, s));
      this.confirmedDoc = docFromJson(stored.doc);
      this.state = this.freshState(this.confirmedDoc, stored.version, stored.history);
      const tr = this.state.tr;
      for (const step of pending) tr.step(step);
      // The stored history holds these steps already.
      if (tr.docChanged) this.state = this.state.apply(keepHistory(tr));
      if (taken)
        this.confirm(
          pending.slice(0, taken),
          pending.slice(0, taken).map(() => this.clientId),
        );
      if (log.steps.length > taken) this.receive({ steps: log.steps.slice(taken) });
      this.view?.updateState(this.state);
      this.set({ sections: plainSections(this.state.doc), waiting: this.unconfirmed() });
      this.time();
      if (this.unconfirmed()) {
        this.set({ save: 'saving' });
        this.scheduleSend(0);
      }
    } catch (error) {
      if (error instanceof RequestError && error.status === 0) this.set({ save: 'kept-here' });
      else {
        this.confirmedDoc = docFromJson(this.script.doc);
        this.state = this.freshState(this.confirmedDoc, this.script.version);
        this.view?.updateState(this.state);
        if (stored.steps.length)
          this.set({
            message:
              'Changes kept on this machine no longer fit the script and were left aside. The script is as the server has it.',
          });
      }
    }
  }

  close(): void {
    this.store();
    this.closed = true;
    this.worker.terminate();
    this.reviewing.close();
    clearTimeout(this.drawTimer);
    clearTimeout(this.traceTimer);
    clearTimeout(this.sendTimer);
    clearTimeout(this.storeTimer);
    clearInterval(this.lookTimer);
    window.removeEventListener('online', this.onReturn);
    window.removeEventListener('focus', this.onReturn);
    window.removeEventListener('pagehide', this.onLeave);
  }
}

function currentLine(state: EditorState): string | null {
  const { $head } = state.selection;
  for (let d = $head.depth; d > 0; d--)
    if ($head.node(d).type.name === 'line') return $head.node(d).attrs.id as string;
  return null;
}

const workerLines = (sections: readonly PlainSection[]): WorkerLine[] =>
  sections.flatMap((s) =>
    s.lines.map((l, i) => ({
      id: l.id,
      text: l.text,
      restMs: l.restMs,
      ...(l.fixedMs === null ? {} : { fixedMs: l.fixedMs }),
      endsSection: i === s.lines.length - 1,
    })),
  );
const traceSections = (sections: readonly PlainSection[]) =>
  sections.map((s) => ({
    id: s.id,
    role: s.role,
    plannedMs: s.plannedMs,
    lines: workerLines([s]).map((l, i) => {
      const { from, speaker, marks, scene } = s.lines[i];
      const cuts = marks?.filter((m) => m.type === 'cut');
      return {
        ...l,
        from,
        ...(speaker ? { speaker } : {}),
        ...(cuts?.length ? { marks: cuts } : {}),
        ...(scene ? { scene } : {}),
      };
    }),
  }));
