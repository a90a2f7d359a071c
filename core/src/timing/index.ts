export * from './calibrate.ts';
export * from './clock.ts';
export * from './features.ts';
export * from './voice.ts';
export * from './wav.ts';
