export * from './clean.ts';
export * from './file.ts';
export * from './schema.ts';
