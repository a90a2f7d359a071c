/** Title, target, pace… of a script: shown at once, kept until the server has them, sent again when it is back. */
import { sameData } from '@ursprung/core/script';
import type { ScriptRowSettings } from '../api.ts';
import type { Timers } from './sync.ts';

type Some = Partial<ScriptRowSettings>;
interface Kept {
  settings: ScriptRowSettings;
  revision: number;
}
interface Failure extends Error {
  status?: number;
  code?: string;
  body?: unknown;
}
export interface SettingsPorts {
  patch: (revision: number, settings: Some) => Promise<Kept>;
  /** Keeps what the server lacks; null when it lacks nothing. */
  keep: (waiting: Some | null) => void;
  /** The settings as they stand now. `taken`: the server has all of them. */
  show: (settings: ScriptRowSettings, taken: boolean) => void;
  say: (message: string | null) => void;
  timers: Timers;
}

const RETRY_MS = 3000;

export class SettingsSync {
  private sending: Promise<void> | null = null;
  private timer: unknown;
  private closed = false;
  /** Whether the last word said was a refusal of ours: it goes when the next change is taken. */
  private refused = false;
  constructor(
    /** As the server had them last. */
    private known: Kept,
    /** What it lacks. */
    private waiting: Some | null,
    private readonly ports: SettingsPorts,
  ) {}

  get now(): ScriptRowSettings {
    return { ...this.known.settings, ...this.waiting };
  }

  /** Resolves when the change was sent, or could not be. */
  change(settings: Some): Promise<void> {
    this.waiting = { ...this.waiting, ...settings };
    this.ports.keep(this.waiting);
    this.ports.show(this.now, false);
    return this.send();
  }

  send(): Promise<void> {
    return (this.sending ??= this.sendAll().finally(() => (this.sending = null)));
  }
  private async sendAll(): Promise<void> {
    while (this.waiting && !this.closed) {
      const sent = this.waiting;
      try {
        this.known = await this.ports.patch(this.known.revision, sent);
        this.settle((key) => sameData(this.waiting?.[key], sent[key]));
        if (!this.waiting && this.refused) this.ports.say(null);
        this.refused = false;
      } catch (error) {
        if (!this.failed(error as Failure, sent)) return;
      }
    }
  }

  /** Whether it is worth trying again at once. */
  private failed(error: Failure, sent: Some): boolean {
    const { status, code } = error;
    if (status === undefined) throw error;
    if (code === 'settings-behind') {
      const theirs = error.body as Kept;
      const changed = (key: keyof ScriptRowSettings) =>
        !sameData(theirs.settings[key], this.known.settings[key]) &&
        !sameData(theirs.settings[key], sent[key]);
      const clash = (Object.keys(sent) as (keyof ScriptRowSettings)[]).filter(changed);
      this.known = theirs;
      this.settle((key) => clash.includes(key));
      if (clash.length) {
        const title = clash.includes('title') ? ` Your title was “${sent.title}”.` : '';
        this.ports.say(`Title or length was changed in another window; its values are shown now.${title}`);
      }
      return true;
    }
    if (status >= 400 && status < 500 && status !== 429) {
      this.settle((key) => key in sent);
      this.refused = true;
      this.ports.say(error.message);
      return false;
    }
    this.ports.timers.clear(this.timer);
    this.timer = this.ports.timers.set(() => void this.send(), RETRY_MS);
    return false;
  }

  /** Takes keys off what the server lacks. */
  private settle(done: (key: keyof ScriptRowSettings) => boolean): void {
    const left = Object.entries(this.waiting ?? {}).filter(([k]) => !done(k as keyof ScriptRowSettings));
    this.waiting = left.length ? (Object.fromEntries(left) as Some) : null;
    this.ports.keep(this.waiting);
    this.ports.show(this.now, this.waiting === null);
  }

  close(): void {
    this.closed = true;
    this.ports.timers.clear(this.timer);
  }
}
