export type { Solver } from './choose.ts';
export * from './draft.ts';
