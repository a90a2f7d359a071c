/** Tables as Sequelize models. Rows carry plain JSON whose schemas live in the core. */
import { DataTypes, type Model, type ModelStatic, type Sequelize } from 'sequelize';
import type { Fact, OwnFact, PackedTags } from '@ursprung/core/facts';
import type { SourceSummary } from '../sourceText.ts';
import type { ScriptSummary } from '../summaries.ts';
import type { Recipient, Translation } from '@ursprung/core/handoff';
import { FORMAT, upgradedDoc, upgradedStep, type PlainSection } from '@ursprung/core/script';
import type { Choices, SourceDocument, SourceKind } from '@ursprung/core/source';
import type {
  ChannelSettings,
  CommissionState,
  RoundsOutcome,
  RoundsState,
  CommissionScope,
  HandoffState,
  HandoffView,
  Marks,
  ReadingState,
  Rights,
  ScriptRowSettings,
  Speaks,
} from '../api.ts';
import {
  storedChannel,
  storedFiles,
  storedFormats,
  storedLeft,
  storedScope,
  storedSections,
  storedSettings,
  storedSnapshot,
  storedChoices,
} from '../stored.ts';

export interface WorkspaceRow { id: string; name: string; createdAt: Date } // prettier-ignore
export interface ChannelRow extends Formatted { id: string; workspaceId: string; name: string; settings: ChannelSettings; createdAt: Date } // prettier-ignore
/** With what was made of it; that is missing in rows of before, and null where it says nothing. `gone`: taken away again. */
export type StoredOwnFact = OwnFact & { made?: { fact: Fact; tags: PackedTags } | null; gone?: boolean };
export interface SourceRow { id: string; workspaceId: string; title: string; original: Buffer; document: SourceDocument; facts: Fact[]; extractor: number | null; tags: PackedTags[] | null; outlook: unknown; summary: SourceSummary | null; address: string | null; rights: Rights; marks: Marks; ownFacts: StoredOwnFact[]; choices: Choices | null; sketch: number[]; createdAt: Date; deletedAt: Date | null } // prettier-ignore
export interface ReadingRow { id: string; workspaceId: string; state: ReadingState; stage: string; done: number; of: number; address: string | null; original: Buffer | null; kind: SourceKind | null; message: string | null; sourceId: string | null; createdAt: Date } // prettier-ignore
export interface ScriptRow extends Formatted { id: string; workspaceId: string; channelId: string; settings: ScriptRowSettings; settingsRevision: number; doc: unknown; version: number; summary?: ScriptSummary | null; createdAt: Date; updatedAt: Date; deletedAt: Date | null } // prettier-ignore
export interface ScriptSourceRow { scriptId: string; letter: string; sourceId: string } // prettier-ignore
export interface StepRow extends Formatted { scriptId: string; version: number; step: unknown; inverse: unknown; origin: string; clientId: string; at: Date } // prettier-ignore
export interface NameRow { id: string; scriptId: string; version: number; name: string; at: Date } // prettier-ignore

export interface TextServiceRow { id: string; workspaceId: string; address: string; speaks: Speaks; model: string; sealedKey: string | null; priceIn: number | null; priceOut: number | null; monthlyTokens: number | null; at: Date } // prettier-ignore
export interface CommissionRow { id: string; workspaceId: string; scriptId: string; scope: CommissionScope; orderText: string; toKind: string; toWho: string; state: CommissionState; reply: string; message: string | null; tokensIn: number; tokensOut: number; cost: number | null; at: Date; endedAt: Date | null } // prettier-ignore

export interface RoundsRow { id: string; workspaceId: string; scriptId: string; scope: CommissionScope; most: number; state: RoundsState; start: PlainSection[]; asked: string[]; answers: string[]; message: string | null; outcome: RoundsOutcome | null; at: Date; endedAt: Date | null } // prettier-ignore

export interface SpendingRow { id: string; workspaceId: string; what: 'note' | 'commission'; tokensIn: number; tokensOut: number; cost: number | null; at: Date } // prettier-ignore

export interface HandoffRow extends Formatted { id: string; workspaceId: string; scriptId: string; who: Recipient | null; language: string | null; without: string[]; state: HandoffState; stage: string; done: number; of: number; message: string | null; files: HandoffView['files']; left: HandoffView['left']; zip: Buffer | null; snapshot: { title: string; sections: PlainSection[] }; voiceMs: number; at: Date } // prettier-ignore
export interface TranslationRow extends Formatted { id: string; workspaceId: string; scriptId: string; language: string; body: Translation; at: Date } // prettier-ignore

/** The format that a row was written in; what is read of it is in today's. */
interface Formatted { format: number } // prettier-ignore
type Table<R extends object> = ModelStatic<Model<R, R> & R>;

export interface Models {
  workspaces: Table<WorkspaceRow>;
  channels: Table<ChannelRow>;
  sources: Table<SourceRow>;
  scripts: Table<ScriptRow>;
  scriptSources: Table<ScriptSourceRow>;
  steps: Table<StepRow>;
  readings: Table<ReadingRow>;
  names: Table<NameRow>;
  textServices: Table<TextServiceRow>;
  commissions: Table<CommissionRow>;
  rounds: Table<RoundsRow>;
  spending: Table<SpendingRow>;
  handoffs: Table<HandoffRow>;
  translations: Table<TranslationRow>;
}

/** Reads a column in today's format. A row that was selected without its format is of today's. */
const upgraded = (column: string, upgrade: (json: unknown, format: number) => unknown) =>
  function (this: Model): unknown {
    const json: unknown = this.getDataValue(column);
    const format = (this.getDataValue('format') as number | undefined) ?? FORMAT;
    return format < FORMAT && json !== undefined ? upgrade(json, format) : json;
  };

/** Reads a column by its schema, whenever it was written. A column that was not selected stays so. */
const read = (column: string, by: (json: unknown) => unknown) =>
  function (this: Model): unknown {
    const json: unknown = this.getDataValue(column);
    return json === undefined ? json : by(json);
  };

const { UUID, TEXT, JSONB, INTEGER, DATE, BLOB, STRING, DOUBLE } = DataTypes;
// A new object each time: Sequelize writes into the ones it is given.
const key = () => ({ type: UUID, primaryKey: true });

export function defineModels(db: Sequelize): Models {
  const table = <R extends object>(name: string, columns: object) =>
    db.define(name, columns as never, { tableName: name, timestamps: false }) as unknown as Table<R>;
  return {
    workspaces: table('workspaces', { id: key(), name: TEXT, createdAt: DATE }),
    channels: table('channels', {
      id: key(),
      workspaceId: UUID,
      name: TEXT,
      settings: { type: JSONB, get: upgraded('settings', (json) => storedChannel(json)) },
      format: INTEGER,
      createdAt: DATE,
    }),
    sources: table('sources', {
      id: key(),
      workspaceId: UUID,
      title: TEXT,
      original: BLOB,
      document: JSONB,
      facts: JSONB,
      extractor: INTEGER,
      tags: JSONB,
      outlook: JSONB,
      summary: JSONB,
      address: TEXT,
      rights: STRING,
      marks: JSONB,
      ownFacts: JSONB,
      choices: { type: JSONB, get: read('choices', storedChoices) },
      sketch: JSONB,
      createdAt: DATE,
      deletedAt: DATE,
    }),
    readings: table('readings', {
      id: key(),
      workspaceId: UUID,
      state: STRING,
      stage: TEXT,
      done: INTEGER,
      of: INTEGER,
      address: TEXT,
      original: BLOB,
      kind: STRING,
      message: TEXT,
      sourceId: UUID,
      createdAt: DATE,
    }),
    scripts: table('scripts', {
      id: key(),
      workspaceId: UUID,
      channelId: UUID,
      settings: { type: JSONB, get: upgraded('settings', (json) => storedSettings(json)) },
      settingsRevision: INTEGER,
      doc: { type: JSONB, get: upgraded('doc', upgradedDoc) },
      format: INTEGER,
      version: INTEGER,
      summary: JSONB,
      createdAt: DATE,
      updatedAt: DATE,
      deletedAt: DATE,
    }),
    scriptSources: table('script_sources', {
      scriptId: key(),
      letter: { type: STRING, primaryKey: true },
      sourceId: UUID,
    }),
    names: table('script_names', {
      id: key(),
      scriptId: UUID,
      version: INTEGER,
      name: TEXT,
      at: DATE,
    }),
    textServices: table('text_services', {
      id: key(),
      workspaceId: UUID,
      address: TEXT,
      speaks: STRING,
      model: TEXT,
      sealedKey: TEXT,
      priceIn: DOUBLE,
      priceOut: DOUBLE,
      monthlyTokens: INTEGER,
      at: DATE,
    }),
    commissions: table('commissions', {
      id: key(),
      workspaceId: UUID,
      scriptId: UUID,
      scope: { type: JSONB, get: read('scope', storedScope) },
      orderText: TEXT,
      toKind: STRING,
      toWho: TEXT,
      state: STRING,
      reply: TEXT,
      message: TEXT,
      tokensIn: INTEGER,
      tokensOut: INTEGER,
      cost: DOUBLE,
      at: DATE,
      endedAt: DATE,
    }),
    rounds: table('rounds', {
      id: key(),
      workspaceId: UUID,
      scriptId: UUID,
      scope: { type: JSONB, get: read('scope', storedScope) },
      most: INTEGER,
      state: STRING,
      start: { type: JSONB, get: read('start', storedSections) },
      asked: JSONB,
      answers: JSONB,
      message: TEXT,
      outcome: JSONB,
      at: DATE,
      endedAt: DATE,
    }),
    spending: table('spending', {
      id: key(),
      workspaceId: UUID,
      what: STRING,
      tokensIn: INTEGER,
      tokensOut: INTEGER,
      cost: DOUBLE,
      at: DATE,
    }),
    handoffs: table('handoffs', {
      id: key(),
      workspaceId: UUID,
      scriptId: UUID,
      who: STRING,
      language: STRING,
      without: { type: JSONB, get: read('without', storedFormats) },
      state: STRING,
      stage: TEXT,
      done: INTEGER,
      of: INTEGER,
      message: TEXT,
      files: { type: JSONB, get: read('files', storedFiles) },
      left: { type: JSONB, get: read('left', storedLeft) },
      zip: BLOB,
      snapshot: { type: JSONB, get: upgraded('snapshot', (json) => storedSnapshot(json)) },
      format: INTEGER,
      voiceMs: INTEGER,
      at: DATE,
    }),
    translations: table('translations', {
      id: key(),
      workspaceId: UUID,
      scriptId: UUID,
      language: STRING,
      body: JSONB,
      format: INTEGER,
      at: DATE,
    }),
    steps: table('script_steps', {
      scriptId: key(),
      version: { type: INTEGER, primaryKey: true },
      step: { type: JSONB, get: upgraded('step', upgradedStep) },
      inverse: { type: JSONB, get: upgraded('inverse', upgradedStep) },
      format: INTEGER,
      origin: STRING,
      clientId: STRING,
      at: DATE,
    }),
  };
}
