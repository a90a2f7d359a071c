import { Sequelize, type PoolOptions } from 'sequelize';

/** How long a statement, a wait for a lock and a transaction that does nothing may take, in milliseconds; 0 is for ever. */
export interface WaitLimits {
  statement_timeout: number;
  lock_timeout: number;
  idle_in_transaction_session_timeout: number;
}
const LIMITS: WaitLimits = {
  statement_timeout: 15_000,
  lock_timeout: 8_000,
  idle_in_transaction_session_timeout: 60_000,
};
/** For migrations, which may take long and hold what they like. */
export const NO_LIMITS: WaitLimits = {
  statement_timeout: 0,
  lock_timeout: 0,
  idle_in_transaction_session_timeout: 0,
};
/** A request that gets no connection within this is told so, in milliseconds. */
const ACQUIRE_MS = 10_000;

/** A connection pool on a PostgreSQL address. SQL is never logged: it may hold people's words. */
export function connect(
  url: string,
  pool: PoolOptions = { max: 8, idle: 10_000, acquire: ACQUIRE_MS },
  limits: WaitLimits = LIMITS,
): Sequelize {
  return new Sequelize(url, {
    dialect: 'postgres',
    logging: false,
    pool,
    dialectOptions: { ...limits, connectionTimeoutMillis: ACQUIRE_MS },
  });
}
