export type { Solver } from './choose.ts';
export {
  DraftError,
  makePlan,
  type Carries,
  type DraftOptions,
  type DraftTools,
  type FixedPart,
} from './plan.ts';
export * from './draft.ts';
export { moodLines, type MoodLine } from './moodLines.ts';
export { tellAlone } from './tellAlone.ts';
export * from './redo.ts';
