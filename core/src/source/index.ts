export * from './choices.ts';
export * from './decode.ts';
export * from './document.ts';
export * from './kind.ts';
export * from './read.ts';
export * from './open.ts';
export * from './sketch.ts';
export { readCues } from './openers/captions.ts';
