/** Migrations, in order, by umzug. Each runs in a transaction; two servers starting at once wait for one another. */
import { DataTypes, QueryTypes, type QueryInterface, type Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';

type Run = (q: QueryInterface) => Promise<void>;

// New objects each time: Sequelize writes into the ones it is given.
const id = () => ({ type: DataTypes.UUID, primaryKey: true, allowNull: false });
const time = () => ({ type: DataTypes.DATE, allowNull: false });
const ref = (table: string) => ({
  type: DataTypes.UUID,
  allowNull: false,
  references: { model: table, key: 'id' },
  onDelete: 'CASCADE',
});

const migrations: readonly { name: string; up: Run }[] = [
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
];

/** Any number that no other program on this database uses. */
const LOCK = 7_300_114;

/** Brings the database up to date. Safe to run at any time and by several processes. */
export async function migrate(db: Sequelize): Promise<void> {
  await db.transaction(async (transaction) => {
    await db.query(`SELECT pg_advisory_xact_lock(${LOCK})`, { transaction, type: QueryTypes.SELECT });
    const umzug = new Umzug({
      migrations: migrations.map(({ name, up }) => ({ name, up: async () => up(db.getQueryInterface()) })),
      storage: new SequelizeStorage({ sequelize: db }),
      logger: undefined,
    });
    await umzug.up();
  });
}
