/** What a line is held against: the sentences of the sources that it rests on, whole, with those around them. */
import { sentences } from '../../language/sentences.ts';
import type { Kin } from '../../language/kin.ts';
import { indexFacts, type FactIndex } from '../align.ts';
import { even, type Said } from './text.ts';

export interface SourceSentence {
  source: string;
  text: string;
  /** Its words alone, in lower case, for finding a quotation in it. */
  bare: string;
}
export interface Evidence {
  /** The sentences it rests on, the surest first, each ready with what it quotes. */
  best: readonly Said[];
  /** The first of them as it stands in its source. */
  passage: SourceSentence;
  /** They and those up to `NEAR` before and behind, as one. */
  near: Said;
  /** How like the first is to the line, 0 to about 1. */
  likeness: number;
}

/** So many sentences before and behind tell of the same. */
const NEAR = 2;
/** Words alone, in lower case. */
export const bare = (text: string): string =>
  even(text)
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
/** What is quoted is told, too: marks go, letters keep their places. */
const unmarked = (text: string) => text.replace(/[“”"„«»]/g, ' ');

export interface EvidenceIndex {
  sentences: readonly SourceSentence[];
  /** Everything the sources say, as one. */
  readonly page: Said;
  /** `facts`: the texts of the facts that the line is known to rest on. */
  of: (line: string, facts: readonly { source: string; text: string }[]) => Evidence | null;
}

export function evidenceIndex(
  sources: readonly { letter: string; text: string }[],
  kin: Kin | null,
  ready: (text: string) => Said,
): EvidenceIndex {
  const all: SourceSentence[] = [];
  for (const { letter, text } of sources)
    for (const p of text.split(/\n+/))
      for (const s of sentences(p)) all.push({ source: letter, text: s.text, bare: bare(s.text) });
  const index: FactIndex = indexFacts(
    all.map((s, i) => ({ source: s.source, id: String(i), text: s.text })),
    kin,
  );
  const at = new Map<string, number | null>();
  /** The sentence most like a text. */
  const find = (text: string): { i: number; score: number } | null => {
    const found = index.find(text);
    return found ? { i: Number(found.fact), score: found.score } : null;
  };
  const sentenceOf = (fact: string): number | null => {
    if (!at.has(fact)) at.set(fact, find(fact)?.i ?? null);
    return at.get(fact)!;
  };
  let page: Said | null = null;
  return {
    sentences: all,
    get page() {
      return (page ??= ready(unmarked(all.map((s) => s.text).join(' '))));
    },
    of: (line, facts) => {
      const own = find(line);
      const from = facts.flatMap((f) => sentenceOf(f.text) ?? []);
      const best = [...new Set([...(own ? [own.i] : []), ...from])];
      if (!best.length) return null;
      const near = new Set(
        best.flatMap((i) =>
          Array.from({ length: 2 * NEAR + 1 }, (_, k) => i + k - NEAR).filter(
            (k) => all[k]?.source === all[i].source,
          ),
        ),
      );
      return {
        best: best.map((i) => ready(unmarked(all[i].text))),
        passage: all[best[0]],
        near: ready(unmarked([...near].sort((a, b) => a - b).map((i) => all[i].text).join(' '))), // prettier-ignore
        likeness: own?.score ?? 0,
      };
    },
  };
}
