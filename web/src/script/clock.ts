/** The page's clock and trace: a worker that is told what to time, and the answers it owes. */
import type { PaceForCount } from '@ursprung/core/scenes/desk';
import type { PlainSection } from '@ursprung/core/script';
import type { FromWorker, LaidRecording, LineTime, ToWorker, WorkerLine } from '../text/messages.ts';

/** What the worker says by itself, about the newest state it was given. */
export interface ClockHears {
  times: (
    times: ReadonlyMap<string, LineTime>,
    sums: { totalMs: number; words: number; band: number },
  ) => void;
  traces: (message: FromWorker & { type: 'traces' }) => void;
  failed: (message: string) => void;
}

const TRACE_AFTER_MS = 220;

export class PageClock {
  private readonly worker: Worker;
  private turn = 0;
  private timed: readonly WorkerLine[] = [];
  private traceTimer: ReturnType<typeof setTimeout> | undefined;
  private answered = false;
  private asks = 0;
  /** Answers that somebody waits for, by the turn they were asked in. */
  private readonly owed = new Map<number, { done: (answer: never) => void; failed: (e: Error) => void }>();

  constructor(private readonly hears: ClockHears) {
    this.worker = new Worker(new URL('../text/worker.ts', import.meta.url), { type: 'module' });
    this.worker.onmessage = (event: MessageEvent<FromWorker>) => this.heard(event.data);
    this.worker.onerror = (event) => this.stopped(event.message || 'The browser could not start it.');
  }

  post(message: ToWorker): void {
    this.worker.postMessage(message);
  }

  /** Times the sections at once and traces them when they rest a moment. */
  read(sections: readonly PlainSection[]): void {
    this.turn++;
    this.timed = workerLines(sections);
    this.post({ type: 'time', turn: this.turn, lines: [...this.timed] });
    clearTimeout(this.traceTimer);
    const { turn } = this;
    this.traceTimer = setTimeout(
      () => this.post({ type: 'trace', turn, sections: traceSections(sections) }),
      this.answered ? TRACE_AFTER_MS : 0,
    );
  }

  /** Asks the worker something that is answered once. */
  private ask<T>(turn: number, message: ToWorker): Promise<T> {
    return new Promise((done, failed) => {
      this.owed.set(turn, { done, failed });
      this.post(message);
    });
  }

  /** Times of lines that are not the script's. */
  times(lines: readonly WorkerLine[]): Promise<LineTime[]> {
    // The script's own turns are above nought.
    const turn = -1 - this.asks++;
    return this.ask(turn, { type: 'time', turn, lines: [...lines] });
  }

  /** The curve with which the script has so many pictures, or as nearly. */
  paceFor(sections: readonly PlainSection[], count: number): Promise<PaceForCount> {
    const turn = ++this.asks;
    return this.ask(turn, { type: 'pace', turn, sections: traceSections(sections), count });
  }

  /** Lays a recording against sections. Rejects with words for the person. */
  lay(
    sections: readonly PlainSection[],
    files: { wav?: ArrayBuffer; captions?: string },
  ): Promise<LaidRecording> {
    const turn = ++this.asks;
    return this.ask(turn, { type: 'lay', turn, sections: traceSections(sections), ...files });
  }

  /** Whoever waits for the answer of a turn gets it. */
  private answer(turn: number, answer: unknown): void {
    const owed = this.owed.get(turn);
    this.owed.delete(turn);
    if (answer instanceof Error) owed?.failed(answer);
    else owed?.done(answer as never);
  }

  /** Nobody waits for what will not come. */
  private stopped(message: string): void {
    for (const { failed } of this.owed.values()) failed(new Error(message));
    this.owed.clear();
    this.hears.failed(message);
  }

  private heard(message: FromWorker): void {
    switch (message.type) {
      case 'failed':
        return this.stopped(message.message);
      case 'paced':
        return this.answer(message.turn, message.pace);
      case 'laid':
        return this.answer(message.turn, message.recording);
      case 'not laid':
        return this.answer(message.turn, new Error(message.message));
      case 'times': {
        if (message.turn < 0) this.answer(message.turn, message.times);
        if (message.turn !== this.turn) return;
        this.answered = true;
        const times = new Map<string, LineTime>();
        const sums = { totalMs: 0, words: 0, band: message.band };
        message.times.forEach((t, i) => {
          times.set(this.timed[i].id, t);
          sums.totalMs += t.ms;
          sums.words += t.words;
        });
        return this.hears.times(times, sums);
      }
      case 'traces':
        if (message.turn === this.turn) this.hears.traces(message);
    }
  }

  close(): void {
    clearTimeout(this.traceTimer);
    this.worker.terminate();
  }
}

export const workerLines = (sections: readonly PlainSection[]): WorkerLine[] =>
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
