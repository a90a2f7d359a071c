/**
 * A text that every store takes: U+0000 and halves of a character that lost their other half become U+FFFD, as in a
 * browser (HTML Standard, 13.2.5; ECMA-262, String.prototype.toWellFormed). No letter moves.
 */
export const wellFormed = (text: string): string =>
  // Nearly every text is, and can be a file of 50 MB.
  text.isWellFormed() && !text.includes('\0') ? text : text.replace(/[\0\p{Cs}]/gu, '\ufffd');

/** The same for every text in plain data, names of fields too. */
export function wellFormedData<T>(value: T): T {
  if (typeof value === 'string') return wellFormed(value) as T;
  if (Array.isArray(value)) return value.map(wellFormedData) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [wellFormed(k), wellFormedData(v)])) as T;
}
