export * from './newsdesk.ts';
export * from './prose.ts';
export * from './textService.ts';
export * from './voice.ts';
export * from './translator.ts';
