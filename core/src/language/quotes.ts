/** Spans between quotation marks. An apostrophe is none. */
export function quotedSpans(text: string): [number, number][] {
  return [...text.matchAll(/[“"][^“”"]{0,2000}[”"]/g)].map((m) => [m.index, m.index + m[0].length]);
}

/** A text of the same length with quotations as spaces: what is quoted is its speaker's. */
export function outsideQuotes(text: string): string {
  let out = '';
  let at = 0;
  for (const [s, e] of quotedSpans(text)) {
    out += text.slice(at, s) + ' '.repeat(e - s);
    at = e;
  }
  return out + text.slice(at);
}
