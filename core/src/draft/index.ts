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
export { moodLines, tellAlone, type MoodLine } from './moodLines.ts';
export * from './redo.ts';
