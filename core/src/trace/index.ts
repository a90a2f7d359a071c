export * from './claims.ts';
export * from './overlap.ts';
export * from './support.ts';
export * from './words.ts';
export * from './align.ts';
export * from './old.ts';
export * from './retold/index.ts';
