import { Sequelize, type PoolOptions } from 'sequelize';

/** A connection pool on a PostgreSQL address. SQL is never logged: it may hold people's words. */
export function connect(url: string, pool: PoolOptions = { max: 8, idle: 10_000 }): Sequelize {
  return new Sequelize(url, { dialect: 'postgres', logging: false, pool });
}
