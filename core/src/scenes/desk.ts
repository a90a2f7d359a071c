/** The part of the scenes that pages load: breaks, pace and the kinds of data; no word senses, no tagger. */
export * from './breaks.ts';
export * from './pace.ts';
export { LOOK_FIELDS, castOwnSchema, type CastEntry, type CastOwn, type LookField } from './cast.ts';
export type { Film } from './film.ts';
export type { Picture, Repeat } from './pictures.ts';
export type { SearchWord, Trap } from './search.ts';
