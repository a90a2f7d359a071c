export * from './dictionary.ts';
export * from './kin.ts';
export * from './lexicon.ts';
export * from './numbers.ts';
export * from './phones.ts';
export * from './sentences.ts';
export * from './spoken/index.ts';
export * from './quotes.ts';
