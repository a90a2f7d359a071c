/** Every operation a note can ask for. The first whose pattern holds the whole note, and whose parts are all found, is taken. */
import type { Operation } from '../types.ts';
import { cutOps } from './cut.ts';
import { moveOps } from './move.ts';
import { numberOps } from './numbers.ts';
import { shapeOps } from './shape.ts';
import { voiceOps } from './voice.ts';
import { wordOps } from './words.ts';
import { wordingOps } from './wording.ts';

/** Narrow wordings before wide ones: "drop {scope}" would hold half of the others. */
const WIDE = ['drop', 'under', 'shorten', 'another-take', 'move'];

function registry(list: readonly Operation[]): readonly Operation[] {
  const ids = new Set<string>();
  for (const { id } of list) {
    if (ids.has(id)) throw new Error(`Two operations are called ${id}.`);
    ids.add(id);
  }
  const wide = (o: Operation) => WIDE.indexOf(o.id);
  return [
    ...list.filter((o) => wide(o) < 0),
    ...list.filter((o) => wide(o) >= 0).sort((a, b) => wide(b) - wide(a)),
  ];
}

export const OPERATIONS: readonly Operation[] = registry([
  ...shapeOps,
  ...numberOps,
  ...voiceOps,
  ...wordOps,
  ...wordingOps,
  ...moveOps,
  ...cutOps,
]);
