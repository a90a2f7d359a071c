export * from './scenes.ts';
