/** What a script promises, for whom, in which shape, section by section. */
export * from './brief.ts';
export * from './clause.ts';
export * from './hooks.ts';
export * from './angles.ts';
export type { Material } from './material.ts';
export * from './promise.ts';
export * from './titles.ts';
export * from './shapes.ts';
export { SHAPE_IDS, type Part, type Shape, type ShapeId, type ShapeMaterial } from './shapes/shape.ts';
export { ownShape, type OwnPart } from './shapes/own.ts';
export * from './kept.ts';
export * from './loops.ts';
export * from './moods.ts';
export * from './rundown.ts';
export * from './beats.ts';
export * from './opening.ts';
export * from './house.ts';
export * from './settings.ts';
