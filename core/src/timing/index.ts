export * from './calibrate.ts';
export * from './clock.ts';
export * from './clockText.ts';
export * from './features.ts';
export * from './voice.ts';
export * from './wav.ts';
export * from './otherClock.ts';
export * from './silences.ts';
