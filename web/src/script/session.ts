/**
 * One open script: the document, its times and traces, and its way to the server. Lives outside React; places
 * subscribe. Typing is timed in a worker within a frame (`clock.ts`); what waits for the server is kept and sent by
 * `sync.ts`, settings by `settingsSync.ts`.
 */
import { keymap } from 'prosemirror-keymap';
import { TextSelection, type Command, type EditorState, type Transaction } from 'prosemirror-state';
import type { EditorView } from 'prosemirror-view';
import type { NoveltyWindow } from '@ursprung/core/measure';
import type { Loop } from '@ursprung/core/plan';
import type { ReviewSource } from '@ursprung/core/review';
import { ownPace } from '@ursprung/core/scenes/desk';
import {
  brokenLocks,
  difference,
  docFromSections,
  mergedOver,
  plainSections,
  sameData,
  type PlainSection,
  type ScriptNode,
} from '@ursprung/core/script';
import { supportOf } from '@ursprung/core/trace';
import {
  api,
  type ChannelSettings,
  type ScriptRowSettings,
  type ScriptView,
  type SourceView,
} from '../api.ts';
import { idKeeper, manuscriptKeys } from '../page/commands.ts';
import type { Match } from '../page/find.ts';
import { redo, undo } from '../page/history.ts';
import type { LaidRecording, LineTime, LineTrace, SceneView } from '../text/messages.ts';
import { PageClock, workerLines } from './clock.ts';
import { closeWritten } from './closeWritten.ts';
import { openKeeper, type Keeper, type Stray } from './kept.ts';
import { Reviewing } from './reviewing.ts';
import { SettingsSync } from './settingsSync.ts';
import type { SaveState, ScriptSync, SyncPorts } from './sync.ts';
import { openScript, type OpenScript } from './takeUp.ts';

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
  /** Whether what waits is kept on this machine. */
  keeps: boolean;
  /** Words that lost their place. */
  strays: readonly Stray[];
  message: string | null;
  /** The line the caret stands in. */
  line: string | null;
  /** As they are now: a writer rules on facts and adds their own. */
  sources: ScriptView['sources'];
}

/** A state of the script that something is told on, so that the answer can be laid over what was written meanwhile. */
export interface Mark {
  doc: ScriptNode;
  sections: readonly PlainSection[];
}

/** A word about a lock stands this long, in milliseconds. */
const SAID_MS = 6000;
/** Settings that the clock and the scenes depend on. */
const CLOCK_SETTINGS = ['pace', 'voice', 'frame', 'mood', 'paceCurve'] as const;
const LOCKED = 'This is locked and stays as it is. Ctrl \\ takes the lock off.';
const random = () => Math.random().toString(36).slice(2, 10);
/** Typing draws once, when its times are there; if the clock is late, without them. */
const DRAW_WITHOUT_TIMES_MS = 120;
const LOOK_MS = 15_000;
const timers = {
  set: (run: () => void, ms: number) => setTimeout(run, ms),
  clear: (timer: unknown) => clearTimeout(timer as number | undefined),
};

let keeper: Promise<Keeper | null> | undefined;
/** One for the page; null where the browser keeps nothing. */
const pageKeeper = (): Promise<Keeper | null> =>
  (keeper ??= Promise.resolve()
    // Where storage is forbidden, its very name throws.
    .then(() => openKeeper(navigator.locks, () => Date.now(), localStorage))
    .catch(() => null));

function tabName(): string {
  try {
    const name = sessionStorage.getItem('ursprung:tab') ?? random();
    sessionStorage.setItem('ursprung:tab', name);
    return name;
  } catch {
    return random();
  }
}

async function syncPorts(scriptId: string): Promise<SyncPorts> {
  return {
    server: {
      send: (version, clientId, steps, origin) => api.sendSteps(scriptId, version, clientId, steps, origin),
      since: (version) => api.stepsSince(scriptId, version),
      at: (version) => api.stateAt(scriptId, version),
    },
    keeper: await pageKeeper(),
    timers,
    fresh: () => random() + random(),
    tab: tabName(),
    plugins: [
      idKeeper(random),
      keymap({ ...manuscriptKeys, 'Mod-z': undo, 'Mod-y': redo, 'Mod-Shift-z': redo }),
    ],
  };
}

export class ScriptSession {
  view: EditorView | null = null;
  snapshot: Snapshot;
  private readonly sync: ScriptSync;
  private readonly clock: PageClock;
  private readonly settings: SettingsSync;
  private readonly listeners = new Set<() => void>();
  private drawTimer: ReturnType<typeof setTimeout> | undefined;
  private saidTimer: ReturnType<typeof setTimeout> | undefined;
  private readonly lookTimer: ReturnType<typeof setInterval>;
  get sources(): ScriptView['sources'] {
    return this.snapshot.sources;
  }
  readonly reviewing: Reviewing;
  channel: ChannelSettings | null;

  /** Opens a script with what was kept of it on this machine; `wait` hears why it takes a while. Null when `signal` ends it. */
  static async open(
    script: ScriptView,
    wait: (why: string | null) => void,
    signal: AbortSignal,
  ): Promise<ScriptSession | null> {
    const opened = await openScript(script, await syncPorts(script.id), wait, signal);
    return opened && new ScriptSession(script, opened);
  }

  private constructor(
    readonly script: ScriptView,
    private readonly opened: OpenScript,
  ) {
    const { sync } = opened;
    this.sync = sync;
    this.channel = script.channel;
    this.settings = new SettingsSync(
      { settings: script.settings, revision: script.settingsRevision },
      sync.settings,
      {
        patch: (revision, settings) => api.patchSettings(script.id, revision, settings),
        keep: (waiting) => sync.keepSettings(waiting),
        show: (settings, taken) => this.showSettings(settings, taken),
        say: (message) => this.set({ message }),
        timers,
      },
    );
    this.reviewing = new Reviewing(reviewSources(script.sources), this.settings.now, script.channel);
    this.snapshot = {
      sections: plainSections(sync.state.doc),
      times: null,
      totalMs: 0,
      words: 0,
      band: 0,
      traces: new Map(),
      overlap: null,
      scenes: [],
      loops: [],
      novelty: [],
      settings: this.settings.now,
      settingsTaken: 0,
      save: sync.status.save,
      waiting: sync.status.waiting,
      keeps: sync.status.keeps,
      strays: sync.status.strays,
      message: sync.status.refused,
      line: null,
      sources: script.sources,
    };
    this.clock = new PageClock({
      times: (times, sums) => this.set({ times, ...sums }),
      traces: ({ traces, overlap, scenes, loops, novelty }) =>
        this.set({ traces: new Map(Object.entries(traces)), overlap, scenes, loops, novelty }),
      failed: (message) =>
        this.set({
          message: `The clock has stopped: ${message} Reload to start it again; your words are kept.`,
        }),
    });
    sync.inherit = (settings) => void this.settings.change({ ...settings, ...sync.settings });
    sync.apply = this.dispatch;
    sync.onStatus(() => this.showStatus());
    this.setup();
    void this.settings.send();
    void opened.sendForOthers();
    this.lookTimer = setInterval(() => this.look(), LOOK_MS);
    window.addEventListener('online', this.onReturn);
    window.addEventListener('focus', this.onReturn);
    window.addEventListener('pagehide', this.onLeave);
    window.addEventListener('beforeunload', this.onUnload);
  }

  get state(): EditorState {
    return this.sync.state;
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

  /** Applies a transaction, wherever it comes from. */
  dispatch = (tr: Transaction): void => {
    const before = this.state.doc;
    if (tr.docChanged && tr.getMeta('fromServer') !== true) closeWritten(tr);
    // What comes from the server has been judged where it was made.
    if (tr.docChanged && tr.getMeta('fromServer') !== true) {
      const [locked] = brokenLocks(before, tr.doc);
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
    }
    this.quiet = true;
    this.sync.applied(tr);
    this.quiet = false;
    this.view?.updateState(this.state);
    const line = currentLine(this.state);
    if (this.state.doc !== before) {
      const { save, waiting } = this.sync.status;
      this.setWithTimes({ sections: plainSections(this.state.doc), line, save, waiting });
      this.clock.read(this.snapshot.sections);
      if (this.reviewing.running) this.reviewing.read(this.snapshot.sections);
    } else if (line !== this.snapshot.line) this.set({ line });
  };
  /** While a transaction is applied, its status is shown with it. */
  private quiet = false;

  /** The refusal that is shown; it goes when the server takes what waited. */
  private refusal: string | null = null;

  private showStatus(): void {
    if (this.quiet) return;
    const { save, waiting, keeps, strays, refused } = this.sync.status;
    const refusal = refused && `${refused} Your words are kept here; copy them and reload.`;
    const { message: said } = this.snapshot;
    const message = refusal ?? (said !== null && said === this.refusal ? null : said);
    this.refusal = refusal;
    this.set({ save, waiting, keeps, strays, message });
  }

  /** The state as it is now, for something that is told on it and answered later. */
  mark = (): Mark => ({ doc: this.state.doc, sections: this.snapshot.sections });

  /**
   * Takes in sections that were planned or told anew, as one step that can be undone: only what differs is replaced.
   * `on` is the state they were made on; what was written since stays, and what was told of it becomes a take.
   */
  take(sections: readonly PlainSection[], origin = 'take', on?: Mark): void {
    const told = docFromSections(sections);
    const { doc: next, aside } = on ? mergedOver(on.doc, told, this.state.doc) : { doc: told, aside: [] };
    const { steps } = difference(this.state.doc, next);
    if (steps.length) {
      const { tr } = this.state;
      const { $head } = this.state.selection;
      const line = currentLine(this.state);
      for (const step of steps) tr.step(step);
      // The caret stays in its line, wherever that stands now.
      tr.doc.descendants((node, pos) => {
        if (node.type.name === 'line' && node.attrs.id === line)
          tr.setSelection(
            TextSelection.create(tr.doc, pos + 1 + Math.min($head.parentOffset, node.content.size)),
          );
        return node.type.name !== 'line';
      });
      this.dispatch(tr.setMeta('ownStep', true).setMeta('origin', origin));
    }
    if (aside.length)
      this.set({
        message:
          aside.length === 1
            ? 'You wrote there while it was told: your words stand, what was told is a take.'
            : `You wrote in ${aside.length} places while it was told: your words stand, what was told there are takes.`,
      });
  }

  /** Puts words that lost their place behind the caret's line, or at the end. */
  putStray({ id, text }: Stray): void {
    const line = currentLine(this.state);
    let at = this.state.doc.content.size - 1;
    this.state.doc.descendants((node, pos) => {
      if (node.type.name === 'line' && node.attrs.id === line) at = pos + node.nodeSize;
      return node.type.name !== 'line';
    });
    const { schema, tr } = this.state;
    const before = this.state.doc;
    this.dispatch(
      tr.insert(at, schema.node('line', { id: random() }, schema.text(text))).setMeta('ownStep', true),
    );
    if (this.state.doc !== before) this.sync.settleStray(id);
  }
  dropStray = ({ id }: Stray): void => this.sync.settleStray(id);

  /** Words and milliseconds of texts that are not in the script, each by itself. */
  async lengths(texts: readonly string[]): Promise<Map<string, { ms: number; words: number }>> {
    const lines = texts.map((text, i) => ({ id: String(i), text, restMs: 0, endsSection: false }));
    const times = lines.length ? await this.clock.times(lines) : [];
    return new Map(texts.map((t, i) => [t, times[i]]));
  }

  /** Milliseconds and words of every line of several states of a script. */
  async timings(states: readonly (readonly PlainSection[])[]): Promise<{ ms: number; words: number }[][]> {
    const out = [];
    for (const state of states) out.push(await this.clock.times(workerLines(state)));
    return out;
  }

  /** Asks for so many pictures: the wanted curve becomes longer or shorter throughout, and what is said if no nearer number can be had. */
  async askPictures(count: number): Promise<void> {
    try {
      const found = await this.clock.paceFor(this.snapshot.sections, count);
      await this.change({ paceCurve: found.handles });
      this.say(
        found.count === count
          ? null
          : `${found.count} pictures: as near to ${count} as these words, rests and cuts of your own allow.`,
      );
    } catch (error) {
      this.say((error as Error).message);
    }
  }

  /** Lays a recording against the script, in the worker. Rejects with words for the person. */
  layRecording = (files: { wav?: ArrayBuffer; captions?: string }): Promise<LaidRecording> =>
    this.clock.lay(this.snapshot.sections, files);

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
  /** A source was changed here: its facts, marks, or what the writer knows beside it. */
  sourceChanged(next: SourceView): void {
    this.set({ sources: this.sources.map((s) => (s.id === next.id ? { ...s, ...next } : s)) });
    this.setup();
    this.reviewing.sourcesAre(reviewSources(this.sources));
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

  /** Changes title, target, pace… at once here, then on the server; times follow. */
  change = (settings: Partial<ScriptRowSettings>): Promise<void> => this.settings.change(settings);

  private showSettings(settings: ScriptRowSettings, taken: boolean): void {
    const before = this.snapshot.settings;
    this.set({ settings, settingsTaken: this.snapshot.settingsTaken + Number(taken) });
    if (CLOCK_SETTINGS.some((key) => !sameData(settings[key], before[key]))) this.setup();
    this.reviewing.changed(settings, this.channel);
  }

  private setup(): void {
    const { voice, pace, frame, mood, paceCurve } = this.snapshot.settings;
    this.clock.post({
      type: 'setup',
      voice,
      pace,
      scenes: { frame, mood, ...ownPace({ usualMs: this.channel?.pictures?.usualMs, paceCurve }) },
      sources: this.sources.map((s) => s.document.text),
      support: this.sources.map((s) => supportOf({ text: s.document.text, facts: s.facts })),
      sayings: (this.channel?.sayings ?? []).map((s) => [s.word, s.say] as const),
    });
    this.clock.read(this.snapshot.sections);
  }

  private look(): void {
    if (document.visibilityState === 'hidden') return;
    void this.sync.look();
    void this.opened.sendForOthers();
    void this.settings.send();
  }
  /** Looks at once for what was changed elsewhere. */
  lookNow = (): void => this.look();
  private onReturn = () => this.look();
  private onLeave = () => this.sync.leave();
  /** Leaving is asked about only where it would cost words. */
  private onUnload = (event: BeforeUnloadEvent) => {
    if (this.snapshot.waiting && !this.snapshot.keeps) event.preventDefault();
  };

  close(): void {
    void this.opened.close();
    this.settings.close();
    this.clock.close();
    this.reviewing.close();
    clearTimeout(this.drawTimer);
    clearTimeout(this.saidTimer);
    clearInterval(this.lookTimer);
    window.removeEventListener('online', this.onReturn);
    window.removeEventListener('focus', this.onReturn);
    window.removeEventListener('pagehide', this.onLeave);
    window.removeEventListener('beforeunload', this.onUnload);
  }
}

const reviewSources = (sources: ScriptView['sources']): ReviewSource[] =>
  sources.map((s) => ({
    letter: s.letter,
    title: s.document.title,
    text: s.document.text,
    facts: s.facts,
    kind: s.document.kind,
    ...(s.document.published ? { published: s.document.published } : {}),
  }));

function currentLine(state: EditorState): string | null {
  const { $head } = state.selection;
  for (let d = $head.depth; d > 0; d--)
    if ($head.node(d).type.name === 'line') return $head.node(d).attrs.id as string;
  return null;
}
