/** Talking to the server: JSON both ways, one error type. */
import type { Carries } from '@ursprung/core/draft';
import type { Fact } from '@ursprung/core/facts';
import type { SourceDocument, SourceKind } from '@ursprung/core/source';
import type { ChannelSettings, ScriptInput, ScriptRowSettings } from '../../server/src/api.ts';

export type { ChannelSettings, ScriptInput, ScriptRowSettings };

export interface Channel {
  id: string;
  name: string;
  settings: ChannelSettings;
}
export interface ScriptSummary {
  id: string;
  channelId: string;
  settings: ScriptRowSettings;
  updatedAt: string;
  sourceIds: string[];
  sections: { title: string; role: string; ms: number }[];
  ms: number;
  words: number;
}
export interface SourceSummary {
  id: string;
  title: string;
  kind: SourceKind;
  publisher: string | null;
  published: string | null;
  readAt: string;
  passages: { ms: number; heard: boolean }[];
  scripts: number;
}
export interface Library {
  channels: Channel[];
  scripts: ScriptSummary[];
  sources: SourceSummary[];
}
export interface SourceView {
  id: string;
  document: SourceDocument;
  facts: Fact[];
}
export interface ScriptView {
  id: string;
  channelId: string;
  channelName: string;
  settings: ScriptRowSettings;
  settingsRevision: number;
  doc: unknown;
  version: number;
  sources: (SourceView & { letter: string })[];
}
export interface StepLog {
  version: number;
  steps: { step: unknown; clientId: string }[];
}

/** A failure with words for the person. `status` 0: the server could not be reached. */
export class RequestError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly body: Record<string, unknown> = {},
  ) {
    super(message);
  }
}

async function call<T>(method: string, path: string, input?: unknown): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      ...(input === undefined ? {} : { body: JSON.stringify(input) }),
      headers: { 'content-type': 'application/json' },
    });
  } catch {
    throw new RequestError(0, 'offline', 'The server can’t be reached. What you wrote is kept here.');
  }
  const body = (await response.json().catch(() => ({}))) as { error?: { code: string; message: string } };
  if (!response.ok)
    throw new RequestError(
      response.status,
      body.error?.code ?? 'internal',
      body.error?.message ?? 'The server gave no answer that can be read.',
      body as Record<string, unknown>,
    );
  return body as T;
}

export const api = {
  library: () => call<Library>('GET', '/library'),
  addChannel: (input: { name: string; settings: ChannelSettings }) =>
    call<Channel>('POST', '/channels', input),
  addSource: (input: { text?: string; base64?: string; kind?: SourceKind }) =>
    call<SourceView>('POST', '/sources', input),
  source: (id: string) => call<SourceView>('GET', `/sources/${id}`),
  setKind: (id: string, kind: SourceKind) => call<SourceView>('PATCH', `/sources/${id}`, { kind }),
  carries: (input: { sourceId: string; mood: string; pace: number; voice: string; shape?: string }) =>
    call<Carries>('POST', '/carries', input),
  addScript: (input: ScriptInput) => call<{ id: string; notes: string[] }>('POST', '/scripts', input),
  script: (id: string) => call<ScriptView>('GET', `/scripts/${id}`),
  patchSettings: (id: string, revision: number, settings: Partial<ScriptRowSettings>) =>
    call<{ settings: ScriptRowSettings; revision: number }>('PATCH', `/scripts/${id}`, {
      revision,
      settings,
    }),
  removeScript: (id: string) => call('DELETE', `/scripts/${id}`, {}),
  restoreScript: (id: string) => call('POST', `/scripts/${id}/restore`, {}),
  sendSteps: (id: string, version: number, clientId: string, steps: readonly unknown[]) =>
    call<{ version: number }>('POST', `/scripts/${id}/steps`, { version, clientId, steps }),
  stepsSince: (id: string, since: number) => call<StepLog>('GET', `/scripts/${id}/steps?since=${since}`),
};
