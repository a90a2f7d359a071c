/** The registry of shapes, and which suit a source. */
import { caseShape } from './shapes/case.ts';
import { chronicle } from './shapes/chronicle.ts';
import { confession } from './shapes/confession.ts';
import { countdown } from './shapes/countdown.ts';
import { journey } from './shapes/journey.ts';
import { news } from './shapes/news.ts';
import { own } from './shapes/own.ts';
import { question } from './shapes/question.ts';
import type { Shape, ShapeId, ShapeMaterial } from './shapes/shape.ts';
import { steps } from './shapes/steps.ts';
import { study } from './shapes/study.ts';
import { whatif } from './shapes/whatif.ts';

/** Every shape, in the order shown when scores are equal. */
export const shapes: readonly Shape[] = [
  news,
  chronicle,
  caseShape,
  question,
  countdown,
  steps,
  whatif,
  journey,
  confession,
  study,
  own,
];

const byId = new Map(shapes.map((s) => [s.id, s]));
if (byId.size !== shapes.length) throw new Error('Two shapes share an id.');

export const shapeById = (id: ShapeId): Shape => byId.get(id)!;

export interface RankedShape {
  id: ShapeId;
  name: string;
  says: string;
  score: number;
  reason: string;
}

/** Shapes for the sources, best first, each with its reason; a score of 0 means it can't be told this way. */
export function rankShapes(material: ShapeMaterial): RankedShape[] {
  return shapes
    .map(({ id, name, says, suits }) => ({ id, name, says, ...suits(material) }))
    .sort((a, b) => b.score - a.score);
}
