/** The Read-through of an open script: asks the reviewer after every change, and the grammar checker for new texts. */
import type { GrammarHit, ReviewSource, Waiver } from '@ursprung/core/review';
import type { LineSource, PlainSection } from '@ursprung/core/script';
import { api, type ChannelSettings, type ScriptRowSettings } from '../api.ts';
import type { Order } from '@ursprung/core/commission/desk';
import type { Asked, FromReviewer, Replied, Reviewed, Telling, ToReviewer } from '../text/messages.ts';

/** Typing that rests this long is read through; the rules themselves take a few hundredths of a second. */
const READ_AFTER_MS = 40;
const GRAMMAR_AFTER_MS = 900;
const MOST_TEXTS = 400;

type Without<T, K extends PropertyKey> = T extends unknown ? Omit<T, K> : never;

export interface ReviewingState {
  review: Reviewed | null;
  /** How long the last look took, in milliseconds. */
  tookMs: number;
  telling: Telling | null;
  /** Whether spelling and grammar have been looked at everywhere. */
  spelled: boolean;
  message: string | null;
}

export class Reviewing {
  state: ReviewingState = { review: null, tookMs: 0, telling: null, spelled: false, message: null };
  private worker: Worker | null = null;
  private readonly listeners = new Set<() => void>();
  private turn = 0;
  private told = 0;
  private readonly asked = new Set<string>();
  private readTimer: ReturnType<typeof setTimeout> | undefined;
  private grammarTimer: ReturnType<typeof setTimeout> | undefined;
  private sections: readonly PlainSection[] = [];
  private closed = false;

  constructor(
    private sources: readonly ReviewSource[],
    private settings: ScriptRowSettings,
    private channel: ChannelSettings | null,
  ) {}

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };
  private set(change: Partial<ReviewingState>): void {
    this.state = { ...this.state, ...change };
    for (const listener of this.listeners) listener();
  }

  /** Made when a place needs it first: it brings the tagger. */
  private started(): Worker {
    if (this.worker) return this.worker;
    this.worker = new Worker(new URL('../text/reviewer.ts', import.meta.url), { type: 'module' });
    this.worker.onmessage = (event: MessageEvent<FromReviewer>) => this.heard(event.data);
    this.worker.onerror = (event) => this.ended(event.message || 'The browser could not start it.');
    this.setup();
    return this.worker;
  }
  get running(): boolean {
    return this.worker !== null;
  }

  private setup(): void {
    const { voice, pace } = this.settings;
    const message: ToReviewer = {
      type: 'setup',
      voice,
      pace,
      sayings: (this.channel?.sayings ?? []).map((s) => [s.word, s.say] as const),
      sources: [...this.sources],
    };
    this.worker?.postMessage(message);
  }

  sourcesAre(sources: readonly ReviewSource[]): void {
    this.sources = sources;
    this.setup();
    if (this.running) this.read(this.sections, 0);
  }

  changed(settings: ScriptRowSettings, channel: ChannelSettings | null): void {
    const again =
      settings.voice !== this.settings.voice ||
      settings.pace !== this.settings.pace ||
      channel?.sayings !== this.channel?.sayings;
    this.settings = settings;
    this.channel = channel;
    if (!this.worker) return;
    if (again) this.setup();
    this.read(this.sections, 0);
  }

  /** Reads the script through. `sections` are kept, so that settings alone can ask again. */
  read(sections: readonly PlainSection[], after = READ_AFTER_MS): void {
    this.sections = sections;
    this.started();
    clearTimeout(this.readTimer);
    this.readTimer = setTimeout(() => this.ask(), after);
    clearTimeout(this.grammarTimer);
    this.grammarTimer = setTimeout(() => void this.spell(), GRAMMAR_AFTER_MS);
  }

  private ask(): void {
    const { title, target, promise, waived } = this.settings;
    const message: ToReviewer = {
      type: 'review',
      turn: ++this.turn,
      input: {
        title,
        sections: this.sections,
        target,
        pays: promise?.pays ?? null,
        style: this.channel?.style ?? null,
        off: this.channel?.rulesOff ?? [],
      },
      waived: (waived ?? []) as readonly Waiver[],
    };
    this.worker?.postMessage(message);
  }

  private async spell(): Promise<void> {
    if (this.closed) return;
    const left = this.sections
      .flatMap((s) => s.lines.filter((l) => l.text.trim() && !l.fixed).map((l) => l.text))
      .filter((t) => !this.asked.has(t));
    if (!left.length) return this.state.spelled ? undefined : this.set({ spelled: true });
    const texts = left.slice(0, MOST_TEXTS);
    try {
      const { hits } = await api.grammar(texts);
      for (const t of texts) this.asked.add(t);
      const found: (readonly [string, GrammarHit[]])[] = texts.map((t, i) => [t, hits[i]]);
      this.worker?.postMessage({ type: 'grammar', hits: found } satisfies ToReviewer);
      this.ask();
      if (texts.length === left.length) this.set({ spelled: true });
      else this.grammarTimer = setTimeout(() => void this.spell(), 0);
    } catch {
      // Without the server there is no spelling; it is asked again with the next change.
      this.set({ spelled: false });
    }
  }

  /** Checks a line as it is typed in one's own words. */
  tell(text: string, from: readonly LineSource[]): void {
    this.started().postMessage({ type: 'telling', turn: ++this.told, text, from } satisfies ToReviewer);
  }

  private readonly waiting = new Map<number, { ok: (answer: never) => void; no: (error: Error) => void }>();
  private questions = 0;
  /** Asks for an order, a look at a reply, or rests that fit. */
  private once<T extends Order[] | Replied | PlainSection[]>(message: Without<Asked, 'turn'>): Promise<T> {
    const turn = ++this.questions;
    const answer = new Promise<T>((ok, no) => this.waiting.set(turn, { ok, no }));
    this.started().postMessage({ ...message, turn } as Asked);
    return answer;
  }
  orders = (asked: Without<Extract<Asked, { type: 'order' }>, 'turn' | 'type'>): Promise<Order[]> =>
    this.once<Order[]>({ type: 'order', ...asked });
  reply = (asked: Without<Extract<Asked, { type: 'reply' }>, 'turn' | 'type'>): Promise<Replied> =>
    this.once<Replied>({ type: 'reply', ...asked });
  settle = (asked: Without<Extract<Asked, { type: 'settle' }>, 'turn' | 'type'>): Promise<PlainSection[]> =>
    this.once<PlainSection[]>({ type: 'settle', ...asked });

  /** The worker is gone; what is asked next makes another. */
  private ended(message: string): void {
    this.worker?.terminate();
    this.worker = null;
    for (const { no } of this.waiting.values()) no(new Error(message));
    this.waiting.clear();
    this.asked.clear();
    this.set({ message, spelled: false });
  }

  private heard(message: FromReviewer): void {
    if (message.type === 'answer' || message.type === 'refused') {
      const waiting = this.waiting.get(message.turn);
      this.waiting.delete(message.turn);
      if (message.type === 'answer') waiting?.ok(message.answer as never);
      else waiting?.no(new Error(message.message));
      return;
    }
    if (message.type === 'failed') this.set({ message: message.message });
    else if (message.type === 'reviewed' && message.turn === this.turn)
      this.set({ review: message.review, tookMs: message.tookMs, message: null });
    else if (message.type === 'told' && message.turn === this.told) this.set({ telling: message.telling });
  }

  close(): void {
    this.closed = true;
    clearTimeout(this.readTimer);
    clearTimeout(this.grammarTimer);
    this.worker?.terminate();
  }
}
