/** Figures that a newer report has corrected, by the fact that still has the old one. */
import { compareSources } from '../facts/compare.ts';
import { numbersIn } from '../facts/extract.ts';
import type { Fact } from '../facts/facts.ts';
import type { SourceDocument } from '../source/document.ts';

export interface OldFigure {
  value: number;
  newer: { source: string; fact: string; says: string };
}
export interface DatedSource {
  letter: string;
  facts: readonly Fact[];
  published?: string;
}

/** By "A:f3". Needs two sources or more with known days. */
export function oldFigures(sources: readonly DatedSource[]): ReadonlyMap<string, readonly OldFigure[]> {
  const out = new Map<string, OldFigure[]>();
  if (sources.length < 2) return out;
  const { disagreements } = compareSources(
    sources.map((s) => ({
      letter: s.letter,
      facts: s.facts,
      document: { published: s.published } as unknown as SourceDocument,
    })),
  );
  for (const d of disagreements) {
    if (d.about !== 'number' || d.newer === undefined) continue;
    const newer = d.sides[d.newer];
    for (const older of d.sides) {
      const [was] = older === newer ? [] : numbersIn(older.says);
      if (!was) continue;
      const key = `${older.source}:${older.fact}`;
      (out.get(key) ?? out.set(key, []).get(key)!).push({ value: was.value, newer });
    }
  }
  return out;
}
