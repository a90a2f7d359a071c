/** What an interface needs of the plan: brief, shapes, rundown, loops. It loads no tagger. */
export { placeOf, refsOf } from '../facts/ids.ts';
export * from './brief.ts';
export * from './cover.ts';
export { GENRES, genreSays, hasSubject, type Genre } from './genre.ts';
export * from './kept.ts';
export * from './loops.ts';
export * from './moods.ts';
export * from './openLines.ts';
export * from './opening.ts';
export * from './rundown.ts';
export { toAddSays } from './toAdd.ts';
export { shapes } from './shapes.ts';
export { spineOf, type SpineLink } from './spine.ts';
