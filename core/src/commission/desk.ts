/** What a page needs of this room beside its worker: no checks, no tagger. */
export * from './types.ts';
export { keyOf, keysOf } from './keys.ts';
export { wholeSentences } from './brokenOff.ts';
export { commissionSource, contextOfSettings, plannedSections } from './context.ts';
export { FAULT_NAMES, SLOTS, stops, type ReplyKind } from './faults.ts';
export type { CheckedReply, ReplyFault, ReplyLine, SectionLength } from './check.ts';
export { rowsOf, type ReplyRow } from './rows.ts';
export { disclosureOf, originsIn, takeable, takenIn } from './take.ts';
export { replacedBy, type Became, type Replaced } from './replace.ts';
