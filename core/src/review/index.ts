/** What a script needs before it is handed over: findings with place and reason, and a score that is a plain sum. */
export {
  AREAS,
  type Area,
  type Finding,
  type LineEdit,
  type Mend,
  type ReviewSource,
  type ReviewTools,
} from './rule.ts';
export { RULES, ruleById } from './rules/index.ts';
export { FINE_OVERLAP } from './rules/close-line.ts';
export * from './check.ts';
export * from './grammar.ts';
export * from './mend.ts';
export * from './prepare.ts';
export * from './provable.ts';
export * from './review.ts';
export * from './score.ts';
export * from './ownWords.ts';
