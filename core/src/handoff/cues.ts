/** Captions and their plainest form, for pages that make them from a recording. */
export * from './captions.ts';
export { subRip } from './subRip.ts';
