export { asData } from './parts.ts';
export * from './types.ts';
export { makeOrders, type OrderOptions } from './order.ts';
export { keyOf, keysOf } from './keys.ts';
export { wholeSentences } from './brokenOff.ts';
export { commissionSource, contextOfSettings, plannedSections } from './context.ts';
export { roundsSays } from './says.ts';
export { orderedSections } from './ordered.ts';
export { LARGEST_REPLY, readReply } from './read.ts';
export {
  makeReplyChecker,
  replyOrder,
  type CheckedReply,
  type ReplyChecker,
  type ReplyFault,
  type ReplyLine,
  type ReplyTools,
  type SectionLength,
} from './check.ts';
export { rowsOf, type ReplyRow } from './rows.ts';
export {
  disclosureOf,
  failedIn,
  followUpOrder,
  mergedReply,
  originsIn,
  takeable,
  takenIn,
  type TakeOptions,
} from './take.ts';
export { mustIn, settleLength, worthKeeping, type Settled } from './settle.ts';
export { FAULT_NAMES, REPLY_KINDS, SLOTS, stops, type ReplyKind } from './faults.ts';
export { replacedBy, type Became, type Replaced, type ReplaceOptions } from './replace.ts';
export {
  standingAfter,
  takenRounds,
  type NextOrder,
  type RoundsAsked,
  type RoundsTaken,
  type RoundsTools,
  type Standing,
} from './rounds.ts';
