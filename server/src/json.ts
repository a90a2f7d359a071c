/** Answers put together from JSON that is stored: what is large goes from the database to the page as text, never through objects. */
import type { Response } from 'express';

/** JSON as text, in pieces that are one when they are put behind one another. Only what a database or `JSON.stringify` made. */
export class JsonText {
  readonly pieces: readonly string[];
  constructor(...pieces: string[]) {
    this.pieces = pieces;
  }
}

const isPlain = (value: unknown): value is object =>
  typeof value === 'object' && value !== null && Object.getPrototypeOf(value) === Object.prototype;

/** Whether there is text of JSON anywhere in it. */
const holdsText = (value: unknown): boolean =>
  value instanceof JsonText ||
  ((Array.isArray(value) || isPlain(value)) && Object.values(value).some(holdsText));

/** A value as JSON, in pieces; texts in it stand as they are and are copied nowhere. */
export function piecesOf(value: unknown): string[] {
  if (value instanceof JsonText) return [...value.pieces];
  if (!holdsText(value)) return [JSON.stringify(value)];
  if (Array.isArray(value))
    return [
      '[',
      ...value.flatMap((v, i) => [...(i ? [','] : []), ...(v === undefined ? ['null'] : piecesOf(v))]),
      ']',
    ];
  return [
    '{',
    ...Object.entries(value as object)
      .filter(([, v]) => v !== undefined)
      .flatMap(([k, v], i) => [`${i ? ',' : ''}${JSON.stringify(k)}:`, ...piecesOf(v)]),
    '}',
  ];
}

/** Two lists of JSON as one. */
export const joinedLists = (a: string, b: string): JsonText =>
  a === '[]' ? new JsonText(b) : b === '[]' ? new JsonText(a) : new JsonText(a.slice(0, -1), ',', b.slice(1));
/** Two objects of JSON as one, the second not empty. */
export function joinedObjects(a: object, b: string): JsonText {
  const pieces = piecesOf(a);
  // Without the brace it ends with, alone or at the end of all its text.
  const last = pieces.pop()!.slice(0, -1);
  return new JsonText(
    ...pieces,
    last,
    ...(Object.values(a).some((v) => v !== undefined) ? [','] : []),
    b.slice(1),
  );
}

/** Letters that are written at once: others are served between one piece and the next. */
const PIECE = 128 * 1024;

/** Writes a value as JSON. */
export function sendJson(res: Response, value: unknown, status = 200): void {
  const pieces = piecesOf(value);
  res.status(status).type('json');
  if (pieces.reduce((n, p) => n + p.length, 0) <= PIECE) return void res.send(pieces.join(''));
  const write = (i: number, at: number): void => {
    if (res.destroyed) return;
    let [piece, from] = [i, at];
    let text = '';
    while (piece < pieces.length && text.length < PIECE) {
      let to = Math.min(pieces[piece].length, from + PIECE);
      // No letter of two halves is cut between them.
      if (to < pieces[piece].length && /[\ud800-\udbff]/.test(pieces[piece][to - 1])) to++;
      text += pieces[piece].slice(from, to);
      [piece, from] = to >= pieces[piece].length ? [piece + 1, 0] : [piece, to];
    }
    if (!text) return void res.end();
    if (res.write(text)) setImmediate(write, piece, from);
    else res.once('drain', () => write(piece, from));
  };
  write(0, 0);
}
