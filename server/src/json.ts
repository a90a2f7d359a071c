/** Answers put together from JSON that is stored: what is large goes from the database to the page as text, never through objects. */
import type { Response } from 'express';

/** JSON as text. Only what a database or `JSON.stringify` made. */
export class JsonText {
  constructor(readonly text: string) {}
}

/** A value as JSON; texts in it stand as they are. */
export function jsonOf(value: unknown): string {
  if (value instanceof JsonText) return value.text;
  if (Array.isArray(value)) return `[${value.map((v) => (v === undefined ? 'null' : jsonOf(v))).join(',')}]`;
  if (typeof value === 'object' && value !== null && Object.getPrototypeOf(value) === Object.prototype)
    return `{${Object.entries(value)
      .filter(([, v]) => v !== undefined)
      .map(([k, v]) => `${JSON.stringify(k)}:${jsonOf(v)}`)
      .join(',')}}`;
  return JSON.stringify(value);
}

/** Two lists of JSON as one. */
export const joinedLists = (a: string, b: string): string => {
  const [x, y] = [a.trim(), b.trim()];
  if (x === '[]') return y;
  return y === '[]' ? x : `${x.slice(0, -1)},${y.slice(1)}`;
};

export const sendJson = (res: Response, value: unknown, status = 200): void =>
  void res.status(status).type('json').send(jsonOf(value));
