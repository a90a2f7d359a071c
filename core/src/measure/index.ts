/** Figures about text; no verdicts. */
export * from './novelty.ts';
export * from './readability.ts';
export * from './style.ts';
