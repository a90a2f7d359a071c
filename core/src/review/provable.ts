/** What a script without a source claims: each figure, day, name, quotation and "the only" that somebody would have to prove. */
import { claimsAbove } from '../trace/retold/superlative.ts';
import { stockOf, unsupportedIn } from '../trace/support.ts';

export interface ProvableClaim {
  line: string;
  text: string;
  why: 'number' | 'date' | 'name' | 'quote' | 'above all others';
}

const NOTHING = stockOf([]);

interface Span {
  start: number;
  end: number;
  why: ProvableClaim['why'];
}
/** A name with its other parts: "Ewan Sorley" is one. */
function withWholeNames(found: readonly Span[], text: string): Span[] {
  const out: Span[] = [];
  for (const f of found) {
    const last = out.at(-1);
    const before = f.why === 'name' ? /\p{Lu}[\p{L}’'-]+ $/u.exec(text.slice(0, f.start)) : null;
    if (f.why === 'name' && last?.why === 'name' && f.start - last.end === 1 && text[last.end] === ' ')
      last.end = f.end;
    else out.push({ ...f, start: before ? before.index : f.start });
  }
  return out;
}

/** In reading order; the same words in one line once. */
export function provableIn(lines: readonly { id: string; text: string }[]): ProvableClaim[] {
  return lines.flatMap(({ id, text }) => {
    const found = [
      ...unsupportedIn(text, NOTHING).map((u) => ({ start: u.start, end: u.end, why: u.why })),
      ...claimsAbove(text).map((c) => ({ ...c, why: 'above all others' as const })),
    ].sort((a, b) => a.start - b.start || b.end - a.end);
    const apart = found.filter(
      (f, i) => !found.some((o, k) => k < i && o.start <= f.start && o.end >= f.end),
    );
    return withWholeNames(apart, text).map((f) => ({
      line: id,
      text: text.slice(f.start, f.end),
      why: f.why,
    }));
  });
}
