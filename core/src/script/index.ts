export * from './clean/index.ts';
export * from './compare.ts';
export * from './file.ts';
export * from './fromDraft.ts';
export * from './locks.ts';
export * from './schema.ts';
export * from './sceneOwn.ts';
