/** Spans between quotation marks. An apostrophe is none. */
export function quotedSpans(text: string): [number, number][] {
  return [...text.matchAll(/[“"][^“”"]{0,2000}[”"]/g)].map((m) => [m.index, m.index + m[0].length]);
}
