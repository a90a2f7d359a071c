/** The part of the scenes that pages load: breaks, pace and the kinds of data; no word senses, no tagger. */
export * from './breaks.ts';
export * from './pace.ts';
export * from './count.ts';
export type { CastEntry } from './cast.ts';
export { FROM_SCRIPT, castOwnSchema, type CastOwn } from './castOwn.ts';
export { LOOK_FIELDS, type LookField } from './looks.ts';
export type { Film } from './film.ts';
export type { Picture, Repeat } from './pictures.ts';
export type { SearchWord, Trap } from './search.ts';
