/** What a script without a source claims: each figure, day, name, quotation and "the only" that somebody would have to prove. */
import { claimsAbove } from '../trace/retold/superlative.ts';
import { stockOf, unsupportedIn } from '../trace/support.ts';

export interface ProvableClaim {
  line: string;
  text: string;
  why: 'number' | 'date' | 'name' | 'quote' | 'above all others';
}

const NOTHING = stockOf([]);

/** In reading order; the same words in one line once. */
export function provableIn(lines: readonly { id: string; text: string }[]): ProvableClaim[] {
  return lines.flatMap(({ id, text }) => {
    const found = [
      ...unsupportedIn(text, NOTHING).map((u) => ({ start: u.start, end: u.end, why: u.why })),
      ...claimsAbove(text).map((c) => ({ ...c, why: 'above all others' as const })),
    ].sort((a, b) => a.start - b.start || b.end - a.end);
    return found
      .filter((f, i) => !found.some((o, k) => k < i && o.start <= f.start && o.end >= f.end))
      .map((f) => ({ line: id, text: text.slice(f.start, f.end), why: f.why }));
  });
}
