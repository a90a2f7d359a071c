/**
 * Migrations, in order, by umzug. One connection holds the lock and does all of it, each migration with its name in one
 * transaction: two servers starting at once wait for one another, and one that stops half way is begun again.
 */
import {
  DataTypes,
  QueryTypes,
  type Sequelize,
  type ModelAttributeColumnOptions,
  type ModelAttributes,
  type QueryInterfaceIndexOptions,
  type Transaction,
} from 'sequelize';
import { Umzug } from 'umzug';
import { NO_LIMITS, connect } from './connect.ts';

/** What a migration may do, inside its transaction. Whatever is there already is left as it is. */
interface Tables {
  createTable: (name: string, columns: ModelAttributes) => Promise<void>;
  addColumn: (table: string, name: string, column: ModelAttributeColumnOptions) => Promise<void>;
  addIndex: (table: string, columns: string[], options?: QueryInterfaceIndexOptions) => Promise<void>;
  query: (sql: string) => Promise<unknown>;
}
type Run = (q: Tables) => Promise<void>;

function tablesIn(db: Sequelize, transaction: Transaction): Tables {
  const q = db.getQueryInterface();
  return {
    createTable: (name, columns) => q.createTable(name, columns, { transaction }),
    addColumn: async (table, name, column) => {
      const known = await db.query(
        'SELECT 1 FROM information_schema.columns WHERE table_schema = current_schema() AND table_name = :table AND column_name = :name',
        { transaction, type: QueryTypes.SELECT, replacements: { table, name } },
      );
      if (!known.length) await q.addColumn(table, name, column, { transaction });
    },
    addIndex: async (table, columns, options = {}) => {
      const name = `${table}_${columns.map((c) => c.replace(/[A-Z]/g, (l) => `_${l.toLowerCase()}`)).join('_')}`;
      const known = await db.query('SELECT 1 FROM pg_indexes WHERE indexname = :name', {
        transaction,
        type: QueryTypes.SELECT,
        replacements: { name },
      });
      if (!known.length) await q.addIndex(table, columns, { ...options, name, transaction });
    },
    query: (sql) => db.query(sql, { transaction }),
  };
}

/** Text as it is searched: marks that join words stand apart, so that no run of them is long. */
export const searched = (sql: string): string => `translate(${sql}, '<>_-@/&=#%+', '           ')`;

// New objects each time: Sequelize writes into the ones it is given.
const id = () => ({ type: DataTypes.UUID, primaryKey: true, allowNull: false });
const time = () => ({ type: DataTypes.DATE, allowNull: false });
const ref = (table: string) => ({
  type: DataTypes.UUID,
  allowNull: false,
  references: { model: table, key: 'id' },
  onDelete: 'CASCADE',
});

export const migrations: readonly { name: string; up: Run }[] = [
  {
    name: '001-first-tables',
    up: async (q) => {
      await q.createTable('workspaces', {
        id: id(),
        name: { type: DataTypes.TEXT, allowNull: false },
        createdAt: time(),
      });
      await q.createTable('channels', {
        id: id(),
        workspaceId: ref('workspaces'),
        name: { type: DataTypes.TEXT, allowNull: false },
        settings: { type: DataTypes.JSONB, allowNull: false },
        createdAt: time(),
      });
      await q.createTable('sources', {
        id: id(),
        workspaceId: ref('workspaces'),
        title: { type: DataTypes.TEXT, allowNull: false },
        original: { type: DataTypes.BLOB, allowNull: false },
        document: { type: DataTypes.JSONB, allowNull: false },
        facts: { type: DataTypes.JSONB, allowNull: false },
        createdAt: time(),
      });
      await q.createTable('scripts', {
        id: id(),
        workspaceId: ref('workspaces'),
        channelId: ref('channels'),
        settings: { type: DataTypes.JSONB, allowNull: false },
        settingsRevision: { type: DataTypes.INTEGER, allowNull: false },
        doc: { type: DataTypes.JSONB, allowNull: false },
        version: { type: DataTypes.INTEGER, allowNull: false },
        createdAt: time(),
        updatedAt: time(),
        deletedAt: { type: DataTypes.DATE, allowNull: true },
      });
      await q.createTable('script_sources', {
        scriptId: { ...ref('scripts'), primaryKey: true },
        letter: { type: DataTypes.STRING(4), allowNull: false, primaryKey: true },
        sourceId: ref('sources'),
      });
      await q.createTable('script_steps', {
        scriptId: { ...ref('scripts'), primaryKey: true },
        version: { type: DataTypes.INTEGER, allowNull: false, primaryKey: true },
        step: { type: DataTypes.JSONB, allowNull: false },
        inverse: { type: DataTypes.JSONB, allowNull: false },
        origin: { type: DataTypes.STRING(40), allowNull: false },
        clientId: { type: DataTypes.STRING(60), allowNull: false },
        at: time(),
      });
      for (const table of ['channels', 'sources', 'scripts']) await q.addIndex(table, ['workspaceId']);
    },
  },
  {
    name: '002-library-of-sources',
    up: async (q) => {
      const sources: Record<string, ModelAttributeColumnOptions> = {
        address: { type: DataTypes.TEXT, allowNull: true },
        rights: { type: DataTypes.STRING(12), allowNull: false, defaultValue: 'not asked' },
        marks: { type: DataTypes.JSONB, allowNull: false, defaultValue: {} },
        ownFacts: { type: DataTypes.JSONB, allowNull: false, defaultValue: [] },
        sketch: { type: DataTypes.JSONB, allowNull: false, defaultValue: [] },
        deletedAt: { type: DataTypes.DATE, allowNull: true },
      };
      for (const [column, type] of Object.entries(sources)) await q.addColumn('sources', column, type);
      // PostgreSQL's own full-text search; a search vector holds at most a megabyte, so very long texts are cut.
      await q.query(
        `ALTER TABLE sources ADD COLUMN IF NOT EXISTS found tsvector GENERATED ALWAYS AS (
           setweight(to_tsvector('english', title), 'A') ||
           to_tsvector('english', left(document->>'text', 400000))) STORED`,
      );
      await q.query('CREATE INDEX IF NOT EXISTS sources_found ON sources USING gin (found)');
      await q.createTable('readings', {
        id: id(),
        workspaceId: ref('workspaces'),
        state: { type: DataTypes.STRING(10), allowNull: false },
        stage: { type: DataTypes.TEXT, allowNull: false },
        done: { type: DataTypes.INTEGER, allowNull: false },
        of: { type: DataTypes.INTEGER, allowNull: false },
        address: { type: DataTypes.TEXT, allowNull: true },
        original: { type: DataTypes.BLOB, allowNull: true },
        kind: { type: DataTypes.STRING(20), allowNull: true },
        message: { type: DataTypes.TEXT, allowNull: true },
        sourceId: { type: DataTypes.UUID, allowNull: true },
        createdAt: time(),
      });
    },
  },
  {
    name: '003-named-versions',
    up: async (q) => {
      await q.createTable('script_names', {
        id: id(),
        scriptId: ref('scripts'),
        version: { type: DataTypes.INTEGER, allowNull: false },
        name: { type: DataTypes.TEXT, allowNull: false },
        at: time(),
      });
      await q.addIndex('script_names', ['scriptId']);
    },
  },
  {
    name: '004-commissions',
    up: async (q) => {
      const text = () => ({ type: DataTypes.TEXT, allowNull: false });
      const figure = () => ({ type: DataTypes.DOUBLE, allowNull: true });
      const count = () => ({ type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 });
      await q.createTable('text_services', {
        id: id(),
        workspaceId: { ...ref('workspaces'), unique: true },
        address: text(),
        model: text(),
        sealedKey: { type: DataTypes.TEXT, allowNull: true },
        priceIn: figure(),
        priceOut: figure(),
        monthlyTokens: { type: DataTypes.INTEGER, allowNull: true },
        at: time(),
      });
      await q.createTable('commissions', {
        id: id(),
        workspaceId: ref('workspaces'),
        scriptId: ref('scripts'),
        scope: { type: DataTypes.JSONB, allowNull: false },
        orderText: text(),
        toKind: { type: DataTypes.STRING(12), allowNull: false },
        toWho: text(),
        state: { type: DataTypes.STRING(12), allowNull: false },
        reply: text(),
        message: { type: DataTypes.TEXT, allowNull: true },
        tokensIn: count(),
        tokensOut: count(),
        cost: figure(),
        at: time(),
        endedAt: { type: DataTypes.DATE, allowNull: true },
      });
      await q.addIndex('commissions', ['scriptId']);
      await q.addIndex('commissions', ['workspaceId', 'at']);
    },
  },
  {
    name: '005-handoffs',
    up: async (q) => {
      const text = () => ({ type: DataTypes.TEXT, allowNull: false });
      const count = () => ({ type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 });
      const data = () => ({ type: DataTypes.JSONB, allowNull: false });
      await q.createTable('handoffs', {
        id: id(),
        workspaceId: ref('workspaces'),
        scriptId: ref('scripts'),
        who: { type: DataTypes.STRING(12), allowNull: true },
        language: { type: DataTypes.STRING(20), allowNull: true },
        without: data(),
        state: { type: DataTypes.STRING(12), allowNull: false },
        stage: text(),
        done: count(),
        of: count(),
        message: { type: DataTypes.TEXT, allowNull: true },
        files: data(),
        left: data(),
        zip: { type: DataTypes.BLOB, allowNull: true },
        snapshot: data(),
        voiceMs: count(),
        at: time(),
      });
      await q.addIndex('handoffs', ['scriptId', 'at']);
      await q.createTable('translations', {
        id: id(),
        workspaceId: ref('workspaces'),
        scriptId: ref('scripts'),
        language: { type: DataTypes.STRING(20), allowNull: false },
        body: data(),
        at: time(),
      });
      await q.addIndex('translations', ['scriptId', 'language'], { unique: true });
    },
  },
  {
    name: '006-formats',
    up: async (q) => {
      // What is there was written in format 1.
      const format = () => ({ type: DataTypes.INTEGER, allowNull: false, defaultValue: 1 });
      for (const table of ['scripts', 'script_steps', 'handoffs'])
        await q.addColumn(table, 'format', format());
      // Null: by a reader of before these were counted.
      await q.addColumn('sources', 'extractor', { type: DataTypes.INTEGER, allowNull: true });
      await q.addColumn('sources', 'tags', { type: DataTypes.JSONB, allowNull: true });
    },
  },
  {
    name: '007-spending',
    up: async (q) => {
      await q.createTable('spending', {
        id: id(),
        workspaceId: ref('workspaces'),
        what: { type: DataTypes.STRING(20), allowNull: false },
        tokensIn: { type: DataTypes.INTEGER, allowNull: false },
        tokensOut: { type: DataTypes.INTEGER, allowNull: false },
        cost: { type: DataTypes.DOUBLE, allowNull: true },
        at: time(),
      });
      await q.addIndex('spending', ['workspaceId', 'at']);
      // Until now the orders themselves were the only account.
      await q.query(
        `INSERT INTO spending (id, "workspaceId", what, "tokensIn", "tokensOut", cost, at)
         SELECT c.id, c."workspaceId", 'commission', c."tokensIn", c."tokensOut", c.cost, c.at FROM commissions c
          WHERE c."tokensIn" + c."tokensOut" > 0 ON CONFLICT DO NOTHING`,
      );
    },
  },
  {
    name: '008-more-formats',
    up: async (q) => {
      for (const table of ['channels', 'translations'])
        await q.addColumn(table, 'format', { type: DataTypes.INTEGER, allowNull: false, defaultValue: 1 });
    },
  },
  {
    name: '009-searched-words',
    up: async (q) => {
      // The parser of searched words takes the square of the length for some runs of marks: it gets none of them.
      await q.query('ALTER TABLE sources DROP COLUMN IF EXISTS found');
      await q.query(
        `ALTER TABLE sources ADD COLUMN found tsvector GENERATED ALWAYS AS (
           setweight(to_tsvector('english', ${searched('left(title, 1000)')}), 'A') ||
           to_tsvector('english', ${searched(`left(document->>'text', 400000)`)})) STORED`,
      );
      await q.query('CREATE INDEX IF NOT EXISTS sources_found ON sources USING gin (found)');
    },
  },
  {
    name: '010-outlooks',
    up: async (q) => {
      // What is worked out of a source or script once; null until it is asked for first.
      for (const [table, column] of [
        ['sources', 'outlook'],
        ['sources', 'summary'],
        ['scripts', 'summary'],
      ])
        await q.addColumn(table, column, { type: DataTypes.JSONB, allowNull: true });
    },
  },
  {
    name: '011-choices',
    up: async (q) => {
      // What writers decided about a source's pieces; null where they decided nothing.
      await q.addColumn('sources', 'choices', { type: DataTypes.JSONB, allowNull: true });
    },
  },
  {
    name: '012-rounds',
    up: async (q) => {
      const data = () => ({ type: DataTypes.JSONB, allowNull: false });
      const count = () => ({ type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 });
      await q.createTable('rounds', {
        id: id(),
        workspaceId: ref('workspaces'),
        scriptId: ref('scripts'),
        scope: data(),
        most: count(),
        state: { type: DataTypes.STRING(12), allowNull: false },
        // The sections that the orders are written from; the orders that went out; what was answered, oldest first.
        start: data(),
        asked: data(),
        answers: data(),
        message: { type: DataTypes.TEXT, allowNull: true },
        outcome: { type: DataTypes.JSONB, allowNull: true },
        at: time(),
        endedAt: { type: DataTypes.DATE, allowNull: true },
      });
      await q.addIndex('rounds', ['scriptId', 'at']);
    },
  },
  {
    name: '013-plain-text',
    up: async (q) => {
      // Whether a service is asked in the chat-completions shape or in plain text.
      await q.addColumn('text_services', 'speaks', { type: DataTypes.STRING(8), allowNull: false, defaultValue: 'chat' }); // prettier-ignore
    },
  },
];

/** Any number that no other program on this database uses. */
const LOCK = 7_300_114;

const NAMES = '"SequelizeMeta"';

/** Brings the database at an address up to date. Safe to run at any time and by several processes. */
export async function migrate(url: string, known: typeof migrations = migrations): Promise<void> {
  // However long a large library takes.
  const db = connect(url, { max: 1, min: 1, idle: 3_600_000, acquire: 300_000 }, NO_LIMITS);
  try {
    await db.query(`SELECT pg_advisory_lock(${LOCK})`, { type: QueryTypes.SELECT });
    await db.query(`CREATE TABLE IF NOT EXISTS ${NAMES} (name VARCHAR(255) NOT NULL PRIMARY KEY)`);
    const umzug = new Umzug({
      migrations: known.map(({ name, up }) => ({
        name,
        up: () =>
          db.transaction(async (transaction) => {
            await up(tablesIn(db, transaction));
            await db.query(`INSERT INTO ${NAMES} (name) VALUES (:name) ON CONFLICT DO NOTHING`, {
              transaction,
              replacements: { name },
            });
          }),
      })),
      // A name is written with what it names.
      storage: {
        executed: async () => {
          const rows = await db.query(`SELECT name FROM ${NAMES} ORDER BY name`, { type: QueryTypes.SELECT });
          return (rows as { name: string }[]).map((r) => r.name);
        },
        logMigration: () => Promise.resolve(),
        unlogMigration: () => Promise.resolve(),
      },
      logger: undefined,
    });
    await umzug.up();
  } finally {
    // The lock goes with its connection.
    await db.close();
  }
}
