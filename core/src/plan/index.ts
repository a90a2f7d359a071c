/** Shapes: how a story can run, ranked for a source. */
import type { SourceDocument } from '../source/document.ts';
import { chronicle } from './shapes/chronicle.ts';
import { question } from './shapes/question.ts';
import type { Shape, ShapeId } from './shapes/shape.ts';
import { steps } from './shapes/steps.ts';

export { SHAPE_IDS, type Shape, type ShapeId } from './shapes/shape.ts';

/** Every shape, in the order shown when scores are equal. */
export const shapes: readonly Shape[] = [chronicle, question, steps];

export const shapeById = (id: ShapeId): Shape => shapes.find((s) => s.id === id)!;

export interface RankedShape {
  id: ShapeId;
  name: string;
  says: string;
  score: number;
  reason: string;
}

/** Shapes for a source, best first, each with its reason. */
export function rankShapes(source: SourceDocument): RankedShape[] {
  return shapes
    .map(({ id, name, says, suits }) => ({ id, name, says, ...suits(source) }))
    .sort((a, b) => b.score - a.score);
}
