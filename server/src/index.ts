export * from './api.ts';
export * from './db/connect.ts';
export * from './db/migrate.ts';
export * from './errors.ts';
export * from './service.ts';
export * from './start.ts';
export * from './work.ts';
