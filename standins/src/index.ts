export * from './prose.ts';
export * from './voice.ts';
