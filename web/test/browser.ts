/** As much of a browser as an open script needs: a window, workers that tests answer for, and a server in memory. */
import { Step } from 'prosemirror-transform';
import { docFromJson, docFromSections, scriptSchema, type PlainSection } from '@ursprung/core/script';
import { line, section as sectionOf } from '../../core/test/script/build.ts';
import type { ScriptRowSettings, ScriptView } from '../src/api.ts';

/** A worker: what it was told, and what it says when the test makes it. */
export class FakeWorker {
  static made: FakeWorker[] = [];
  readonly told: { type: string; turn?: number }[] = [];
  onmessage: ((event: { data: unknown }) => void) | null = null;
  onerror: ((event: { message: string }) => void) | null = null;
  ended = false;
  constructor(readonly url: URL) {
    FakeWorker.made.push(this);
  }
  postMessage(message: { type: string }): void {
    this.told.push(structuredClone(message));
  }
  says(message: unknown): void {
    this.onmessage?.({ data: message });
  }
  terminate(): void {
    this.ended = true;
  }
  /** What it was told last of a kind. */
  last<T = Record<string, never>>(type: string): T {
    return this.told.findLast((m) => m.type === type) as T;
  }
  static named(name: string): FakeWorker {
    return FakeWorker.made.findLast((w) => w.url.pathname.endsWith(`/${name}.ts`))!;
  }
}

export const section = (id: string, texts: readonly string[]): PlainSection =>
  sectionOf(
    id,
    texts.map((text, i) => line(`${id}L${i + 1}`, text)),
  );

export const SETTINGS = {
  title: 'The bell',
  frame: '16:9',
  mood: 'calm',
  pace: 150,
  voice: 'even',
  target: { kind: 'point', seconds: 60 },
  seed: 1,
  shape: 'timeline',
} as ScriptRowSettings;

/** A copy of plain data that a test may write into. */
export type Loose<T> = T extends readonly (infer U)[]
  ? Loose<U>[]
  : T extends object
    ? { -readonly [K in keyof T]: Loose<T[K]> }
    : T;

type Answer = { status: number; body: unknown };
const refusal = (status: number, code: string, message: string, more: object = {}): Answer => ({
  status,
  body: { error: { code, message }, ...more },
});

/** One script on a server: steps and settings as the real one takes them; anything else as `others` says. */
export class FakeServer {
  doc;
  steps: { step: unknown; clientId: string; origin: string }[] = [];
  settings = SETTINGS;
  revision = 0;
  up = true;
  asked: string[] = [];
  others: Record<string, (body: never) => Answer> = {};
  constructor(sections: readonly PlainSection[]) {
    this.doc = docFromSections(sections);
  }
  view = (more: Partial<ScriptView> = {}): ScriptView => ({
    id: 'script-1',
    channelId: 'channel-1',
    channelName: 'Quiet Machinery',
    channel: null,
    settings: this.settings,
    settingsRevision: this.revision,
    doc: this.doc.toJSON() as unknown,
    version: this.steps.length,
    sources: [],
    ...more,
  });

  answer(method: string, path: string, body: unknown): Answer {
    this.asked.push(`${method} ${path}`);
    const { version, clientId, origin, steps, revision, settings } = body as Record<string, never>;
    const since = Number(/since=(\d+)/.exec(path)?.[1] ?? version);
    const log = { version: this.steps.length, steps: this.steps.slice(since) };
    const own = this.others[`${method} ${path.split('?')[0]}`];
    if (own) return own(body as never);
    if (path.includes('/steps') && method === 'GET') return { status: 200, body: log };
    if (path.endsWith('/steps')) {
      if (version < this.steps.length) return refusal(409, 'behind', 'Changed elsewhere.', log);
      this.append(steps, clientId, origin);
      return { status: 200, body: { version: this.steps.length } };
    }
    if (method === 'PATCH' && path.startsWith('/scripts')) {
      if (revision !== this.revision)
        return refusal(409, 'settings-behind', 'Changed elsewhere.', { settings: this.settings, revision: this.revision }); // prettier-ignore
      this.settings = { ...this.settings, ...(settings as object) };
      return { status: 200, body: { settings: this.settings, revision: ++this.revision } };
    }
    return refusal(404, 'not-found', 'This is not here, or no longer.');
  }
  append(steps: readonly unknown[], clientId: string, origin = 'typing'): void {
    for (const step of steps) {
      this.doc = docFromJson(Step.fromJSON(scriptSchema, step).apply(this.doc).doc!.toJSON());
      this.steps.push({ step, clientId, origin });
    }
  }
}

/** Puts the browser's names in place; the function that it returns takes them away again. */
export function makeBrowser(server: FakeServer): {
  window: EventTarget;
  document: { visibilityState: string };
  leave: () => void;
} {
  // prettier-ignore
  FakeWorker.made = [];
  const window = new EventTarget();
  const document = { visibilityState: 'visible' };
  const before = { fetch: globalThis.fetch };
  const fetch = (url: string, init: { method?: string; body?: string } = {}): Promise<Response> => {
    if (!server.up) return Promise.reject(new TypeError('Failed to fetch'));
    const { status, body } = server.answer(init.method ?? 'GET', url.replace(/^\/api/, ''), JSON.parse(init.body ?? '{}')); // prettier-ignore
    return Promise.resolve(Response.json(body, { status }));
  };
  Object.assign(globalThis, { window, document, Worker: FakeWorker, fetch });
  return {
    window,
    document,
    leave: () => {
      Object.assign(globalThis, before);
      for (const name of ['window', 'document', 'Worker']) Reflect.deleteProperty(globalThis, name);
    },
  };
}
