/** Talking to the server: JSON both ways, one error type. */
import type {
  CaptionFault,
  CaptionLimits,
  Changed,
  HowSaid,
  LineFit,
  ProposedRest,
  Recipient,
  UploadSheet,
  VoiceBlock,
} from '@ursprung/core/handoff/desk';
import type { Film } from '@ursprung/core/scenes/desk';
import type { Carries, Redone } from '@ursprung/core/draft';
import type { HouseStyle, StyleDifference } from '@ursprung/core/measure';
import type { GrammarHit } from '@ursprung/core/review';
import type { Revised, Selection } from '@ursprung/core/revise';
import type { CleanedDraft, PlainSection } from '@ursprung/core/script';
import type { ScriptHistory } from '../../server/src/page.ts';
import type { Promised } from '../../server/src/worker.ts';
import type { CastMember, Comparison, Fact, OutlinePart, Term } from '@ursprung/core/facts';
import type { Choose, SourceDocument, SourceKind } from '@ursprung/core/source';
import type {
  ChannelSettings,
  CommissionScope,
  CommissionView,
  RoundsView,
  FoundSource,
  ListedSource,
  HandoffView,
  Mark,
  Marks,
  OwnFact,
  Reading,
  Renewal,
  Rights,
  ScriptInput,
  ScriptRowSettings,
  Speaks,
  TextServiceState,
} from '../../server/src/api.ts';

export type * from '../../server/src/api.ts';
export type { Comparison, Promised, Redone, Revised, ScriptHistory };

export interface RedoRequest {
  what: 'hook' | 'section' | 'line' | 'fit' | 'move' | 'carry' | 'shape' | 'whole';
  sections: readonly PlainSection[];
  section?: string;
  line?: string;
  to?: number;
  shape?: string;
  hook?: string;
  seed?: number;
}

export interface Channel {
  id: string;
  name: string;
  settings: ChannelSettings;
}
export interface ListedChannel extends Channel {
  /** How many it has. */
  scripts: number;
}
export interface SourceName {
  id: string;
  title: string;
  kind: SourceKind;
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
  /** What is stored of it can't be read. */
  broken: boolean;
}
/** As JSON has it. */
export type SourceSummary = Omit<ListedSource, 'kind' | 'readAt'> & { kind: SourceKind; readAt: string };
export type FoundSummary = SourceSummary & Pick<FoundSource, 'found'>;
export interface Library {
  channels: Channel[];
  /** The newest of each, the newest last. */
  scripts: ScriptSummary[];
  sources: SourceSummary[];
  /** How many there are in all. */
  counts: { scripts: number; sources: number };
}
export interface SourceView {
  id: string;
  document: SourceDocument;
  facts: Fact[];
  rights: Rights;
  marks: Marks;
  ownFacts: OwnFact[];
  /** Whether today’s code would take it apart otherwise than it was. */
  older: boolean;
  address: string | null;
  outline: OutlinePart[];
  cast: CastMember[];
  glossary: Term[];
  /** What is thin in it, in words. */
  thin: string[];
  /** Dated facts in order of time. */
  timeline: { iso: string; text: string; fact: string }[];
  /** Others in the library that share most of their words with it. */
  like?: { id: string; title: string; share: number }[];
}
export interface SourcePatch {
  kind?: SourceKind;
  rights?: Rights;
  marks?: Record<string, { mark: Mark['mark'] | null; correct?: string; why?: string }>;
  addFact?: { start: number; end: number } | { text: string };
  removeFact?: string;
  choose?: { text: string; as: Choose };
}
export interface Changes {
  at: string;
  removed: { block: string; text: string }[];
  added: string[];
  lines: { script: string; title: string; line: string; text: string }[];
}
export interface ScriptView {
  id: string;
  channelId: string;
  channelName: string;
  channel: ChannelSettings | null;
  settings: ScriptRowSettings;
  settingsRevision: number;
  doc: unknown;
  version: number;
  sources: (SourceView & { letter: string })[];
}
export interface ServiceInput {
  address: string;
  speaks: Speaks;
  model: string;
  key?: string;
  priceIn: number | null;
  priceOut: number | null;
  monthlyTokens: number | null;
}
export interface StepLog {
  version: number;
  steps: { step: unknown; clientId: string }[];
}

/** What the pages of the handoff show; the server works it out. */
export interface Sheet {
  title: string;
  language: string;
  totalMs: number;
  scenes: number;
  blocks: VoiceBlock[];
  sayings: HowSaid[];
  rests: ProposedRest[];
  captions: { startMs: number; endMs: number; rows: string[]; lines: string[]; speaker: string }[];
  captionFaults: CaptionFault[];
  limits: CaptionLimits;
  upload: UploadSheet;
  formats: { id: string; name: string; says: string; loses: string; for: Recipient[]; file: string }[];
  changed: Changed | null;
  tooLong: LineFit[];
  /** Minutes of voice handed over this month. */
  voice: number;
}
export interface TranslationView {
  language: string;
  name: string;
  origin: string;
  /** Its pace is not from the study but between neighbours. */
  estimated: boolean;
  lines: number;
  at: string;
}
export interface TakenTranslation {
  language: string;
  lines: number;
  missing: number;
  unknown: number;
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

/** The name this page goes by, so that the server deals fairly between pages. */
const PAGE = crypto.randomUUID();

/** Asks the server and reads its answer. Throws a RequestError with words for the person, whatever went wrong. */
async function ask<T>(
  method: string,
  path: string,
  input: unknown,
  read: (answer: Response) => Promise<T>,
): Promise<T> {
  let answer: Response;
  try {
    answer = await fetch(`/api${path}`, {
      method,
      ...(input === undefined ? {} : { body: JSON.stringify(input) }),
      headers: { 'content-type': 'application/json', 'x-page': PAGE },
    });
  } catch {
    throw new RequestError(0, 'offline', 'The server can’t be reached. What you wrote is kept here.');
  }
  let refused: { error?: { code: string; message: string } };
  try {
    if (answer.ok) return await read(answer);
    refused = (await answer.json()) as typeof refused;
  } catch {
    // Cut off on its way, or not from our server at all: whether it was done is not known.
    throw new RequestError(0, 'offline', 'The server gave no answer that can be read.');
  }
  throw new RequestError(
    answer.status,
    refused.error?.code ?? 'internal',
    refused.error?.message ?? 'The server gave no answer that can be read.',
    refused as Record<string, unknown>,
  );
}
const call = <T>(method: string, path: string, input?: unknown): Promise<T> =>
  ask(method, path, input, (answer) => answer.json() as Promise<T>);

const inLanguage = (language: string | null) => (language ? `?language=${encodeURIComponent(language)}` : '');

function exportPath(
  scriptId: string,
  format: string,
  more: { language?: string | null; section?: string; show?: boolean } = {},
): string {
  const query = new URLSearchParams();
  if (more.language) query.set('language', more.language);
  if (more.section) query.set('section', more.section);
  if (more.show) query.set('show', '1');
  const text = query.toString();
  return `/scripts/${scriptId}/export/${format}${text ? `?${text}` : ''}`;
}

export const api = {
  film: (scriptId: string, sections: readonly PlainSection[]) =>
    call<Film>('POST', `/scripts/${scriptId}/film`, { sections }),
  sheet: (scriptId: string, language: string | null) =>
    call<Sheet>('GET', `/scripts/${scriptId}/sheet${inLanguage(language)}`),
  sheetOf: (scriptId: string, language: string | null, sections: readonly PlainSection[]) =>
    call<Sheet>('POST', `/scripts/${scriptId}/sheet${inLanguage(language)}`, { sections }),
  handoffs: (scriptId: string) => call<{ handoffs: HandoffView[] }>('GET', `/scripts/${scriptId}/handoffs`),
  makeKit: (scriptId: string, input: { who: Recipient | null; without: string[]; language: string | null }) =>
    call<HandoffView>('POST', `/scripts/${scriptId}/handoffs`, input),
  translations: (scriptId: string) =>
    call<{ translations: TranslationView[] }>('GET', `/scripts/${scriptId}/translations`),
  takeXliff: (scriptId: string, xliff: string) =>
    call<TakenTranslation>('POST', `/scripts/${scriptId}/translations`, { xliff }),
  translate: (scriptId: string, language: string) =>
    call<TakenTranslation>('POST', `/scripts/${scriptId}/translate`, { language }),
  sayTranslated: (scriptId: string, language: string, line: string, text: string) =>
    call('PATCH', `/scripts/${scriptId}/translations/${encodeURIComponent(language)}`, { line, text }),
  removeTranslation: (scriptId: string, language: string) =>
    call('DELETE', `/scripts/${scriptId}/translations/${encodeURIComponent(language)}`, {}),
  exportAddress: (...what: Parameters<typeof exportPath>) => `/api${exportPath(...what)}`,
  exported: (scriptId: string, format: string, language: string | null): Promise<string> =>
    ask('GET', exportPath(scriptId, format, { language, show: true }), undefined, (a) => a.text()),
  citation: (sourceId: string, style: string): Promise<string> =>
    ask('GET', `/sources/${sourceId}/cite/${style}`, undefined, (a) => a.text()),
  /** A kit that was made, with the file name that the server gives it. */
  kit: (handoffId: string): Promise<{ name: string; blob: Blob }> =>
    ask('GET', `/handoffs/${handoffId}/zip`, undefined, async (a) => ({
      name: /filename="?([^";]+)"?/.exec(a.headers.get('content-disposition') ?? '')?.[1] ?? 'kit.zip',
      blob: await a.blob(),
    })),
  library: (query: Record<string, string> = {}) =>
    call<Library>('GET', `/library?${new URLSearchParams(query).toString()}`),
  channels: () => call<{ channels: ListedChannel[] }>('GET', '/channels').then((a) => a.channels),
  sourceNames: () => call<{ sources: SourceName[] }>('GET', '/sources/names').then((a) => a.sources),
  addChannel: (input: { name: string; settings: ChannelSettings }) =>
    call<Channel>('POST', '/channels', input),
  read: (input: { text?: string; base64?: string; address?: string; kind?: SourceKind }) =>
    call<Reading>('POST', '/readings', input),
  stopReading: (id: string) => call<Reading>('POST', `/readings/${id}/stop`, {}),
  source: (id: string) => call<SourceView>('GET', `/sources/${id}`),
  findSources: (query: Record<string, string>) =>
    call<{ sources: FoundSummary[] }>('GET', `/sources?${new URLSearchParams(query).toString()}`),
  changeSource: (id: string, patch: SourcePatch) => call<SourceView>('PATCH', `/sources/${id}`, patch),
  removeSource: (id: string) => call('DELETE', `/sources/${id}`, {}),
  restoreSource: (id: string) => call('POST', `/sources/${id}/restore`, {}),
  rereadSource: (id: string) => call<Changes>('POST', `/sources/${id}/reread`, {}),
  renewal: (id: string) => call<Renewal>('GET', `/sources/${id}/renewal`),
  renewSource: (id: string) => call<{ source: SourceView }>('POST', `/sources/${id}/renewal`, {}),
  compare: (sources: readonly { letter: string; id: string }[]) =>
    call<Comparison>('POST', '/compare', { sources }),
  addSourceTo: (scriptId: string, sourceId: string) =>
    call<ScriptView>('POST', `/scripts/${scriptId}/sources`, { sourceId }),
  carries: (input: {
    sourceId: string;
    others?: string[];
    mood: string;
    pace: number;
    voice: string;
    shape?: string;
  }) => call<Carries>('POST', '/carries', input),
  addScript: (input: ScriptInput) => call<{ id: string; notes: string[] }>('POST', '/scripts', input),
  promise: (input: {
    sourceId: string;
    others?: string[];
    voice: string;
    pace: number;
    page?: number;
    seed?: number;
    title?: string;
    moods?: boolean;
  }) => call<Promised>('POST', '/promise', input),
  redo: (id: string, input: RedoRequest) => call<Redone>('POST', `/scripts/${id}/redo`, input),
  derive: (id: string, input: { kind: string; seconds?: number; audience?: string; person?: string }) =>
    call<{ id: string; notes: string[] }>('POST', `/scripts/${id}/derive`, input),
  script: (id: string) => call<ScriptView>('GET', `/scripts/${id}`),
  patchSettings: (id: string, revision: number, settings: Partial<ScriptRowSettings>) =>
    call<{ settings: ScriptRowSettings; revision: number }>('PATCH', `/scripts/${id}`, {
      revision,
      settings,
    }),
  removeScript: (id: string) => call('DELETE', `/scripts/${id}`, {}),
  restoreScript: (id: string) => call('POST', `/scripts/${id}/restore`, {}),
  sendSteps: (id: string, version: number, clientId: string, steps: readonly unknown[], origin: string) =>
    call<{ version: number }>('POST', `/scripts/${id}/steps`, { version, clientId, steps, origin }),
  history: (id: string) => call<ScriptHistory>('GET', `/scripts/${id}/history`),
  stateAt: (id: string, version: number) =>
    call<{ version: number; doc: unknown }>('GET', `/scripts/${id}/at/${version}`),
  nameVersion: (id: string, version: number, name: string) =>
    call<{ id: string }>('POST', `/scripts/${id}/names`, { version, name }),
  unnameVersion: (id: string, nameId: string) => call('DELETE', `/scripts/${id}/names/${nameId}`, {}),
  revise: (id: string, note: string, sections: readonly PlainSection[], selection: Selection | null) =>
    call<Revised>('POST', `/scripts/${id}/revise`, { note, sections, selection }),
  modelHost: () => call<{ host: string | null }>('GET', '/model'),
  ask: (id: string, note: string, sections: readonly PlainSection[], selection: Selection | null) =>
    call<Revised>('POST', `/scripts/${id}/ask`, { note, sections, selection }),
  tellings: (id: string, line: string, sections: readonly PlainSection[]) =>
    call<{ tellings: string[] }>('POST', `/scripts/${id}/tellings`, { line, sections }),
  against: (id: string, sections: readonly PlainSection[]) =>
    call<{ against: { differences: StyleDifference[]; style: HouseStyle } | null }>(
      'POST',
      `/scripts/${id}/against`,
      { sections },
    ),
  grammar: (texts: readonly string[]) => call<{ hits: GrammarHit[][] }>('POST', '/grammar', { texts }),
  clean: (input: { text?: string; base64?: string }) => call<CleanedDraft>('POST', '/clean', input),
  patchChannel: (id: string, patch: { name?: string; settings?: Partial<ChannelSettings> }) =>
    call<Channel>('PATCH', `/channels/${id}`, patch),
  measureStyle: (id: string, texts: readonly string[]) =>
    call<HouseStyle>('POST', `/channels/${id}/style`, { texts }),
  /** The stand-in voice: a recording of a text. */
  voice: (text: string, pace: number): Promise<Blob> =>
    ask('POST', '/voice', { text, pace }, (a) => a.blob()),
  commissions: (scriptId: string) =>
    call<{ commissions: CommissionView[] }>('GET', `/scripts/${scriptId}/commissions`),
  addCommission: (
    scriptId: string,
    input: {
      scope: CommissionScope;
      order: string;
      to: { kind: 'person' | 'service'; who?: string };
      reply?: string;
    },
  ) => call<CommissionView>('POST', `/scripts/${scriptId}/commissions`, input),
  putReply: (id: string, reply: string) => call<CommissionView>('PATCH', `/commissions/${id}`, { reply }),
  sendCommission: (id: string) => call<CommissionView>('POST', `/commissions/${id}/send`, {}),
  stopCommission: (id: string) => call<CommissionView>('POST', `/commissions/${id}/stop`, {}),
  removeCommission: (id: string) => call('DELETE', `/commissions/${id}`, {}),
  rounds: (scriptId: string) => call<{ rounds: RoundsView[] }>('GET', `/scripts/${scriptId}/rounds`),
  startRounds: (scriptId: string, input: { scope?: CommissionScope; most?: number }) =>
    call<RoundsView>('POST', `/scripts/${scriptId}/rounds`, input),
  stopRounds: (id: string) => call<RoundsView>('POST', `/rounds/${id}/stop`, {}),
  service: () => call<TextServiceState>('GET', '/service'),
  keepService: (input: ServiceInput) => call<TextServiceState>('PUT', '/service', input),
  forgetService: () => call<TextServiceState>('DELETE', '/service', {}),
  stepsSince: (id: string, since: number) => call<StepLog>('GET', `/scripts/${id}/steps?since=${since}`),
};
