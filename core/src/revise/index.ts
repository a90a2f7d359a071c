/** Notes: changes asked for in plain words, answered with a proposed change. */
export * from './accept.ts';
export * from './outside.ts';
export * from './propose.ts';
export { OPERATIONS } from './ops/index.ts';
export { bareNote } from './bare.ts';
export { understand } from './understand.ts';
export { tellerOf } from './teller.ts';
export { scopeOf, whereOf } from './scope.ts';
export { amountOf } from './amount.ts';
export type {
  Amount,
  Operation,
  Request,
  ReviseContext,
  ReviseTools,
  Scope,
  Selection,
  Teller,
  Where,
} from './types.ts';
