/** What makes a fact strong, every part 0 to 1, so that it can be shown; `salience.ts` weighs them with all else. */
import { looksCompared } from '../language/classes.ts';
import type { Modality } from './saying.ts';

const SURPRISING =
  /\b(?:only|first|last|never|nobody|no one|nothing|none|ever|even|alone|still|until then|but|yet|however|instead|although|though|despite|turned out|unexpected(?:ly)?|strange(?:r|st)?|record|unique|wrong|failed|refused|lost|secret|suddenly)\b/gi;
const SUPERLATIVE = /\b(?:the\s+)?(?:most|least|best|worst|\p{L}{3,}est)\b(?!\s+of all ages)/giu;
/** What is latest or nearest is no more than that. */
const NOT_SUPERLATIVE = /^(?:latest|nearest)$/i;

const bare = (superlative: string) => superlative.replace(/^the\s+/i, '');
/** The superlatives of a text, "the oldest", without words that only look like one. */
export const superlativesIn = (text: string): string[] =>
  (/(?:est|most|least)\b/i.test(text) ? (text.match(SUPERLATIVE) ?? []) : []).filter(
    (w) => !NOT_SUPERLATIVE.test(bare(w)) && !looksCompared(bare(w)),
  );

const clamp = (n: number) => Math.round(Math.max(0, Math.min(1, n)) * 1000) / 1000;

/** Extremes, superlatives, reversals, and figures far from the others of their unit. */
export function surprising(
  text: string,
  numbers: readonly { value: number; unit?: string | undefined }[],
  usual: ReadonlyMap<string, readonly number[]>,
): number {
  const turns = new Set((text.match(SURPRISING) ?? []).map((w) => w.toLowerCase())).size;
  const superlatives = superlativesIn(text).length;
  const extreme = numbers.some(({ value, unit }) => {
    const others = usual.get(unit ?? '') ?? [];
    return others.length >= 4 && (value === Math.max(...others) || value === Math.min(...others));
  });
  return clamp(0.25 * turns + 0.3 * superlatives + (extreme ? 0.3 : 0));
}

/** Somebody named stands for it, a figure or date can be checked, it is said plainly. */
export function supported(fact: {
  attributed: boolean;
  named: boolean;
  numbers: number;
  dates: number;
  quotes: number;
  modality: Modality;
  doubtful: boolean;
}): number {
  const base = fact.modality === 'plain' ? 0.4 : fact.modality === 'likely' ? 0.25 : 0.15;
  return clamp(
    base +
      (fact.attributed ? (fact.named ? 0.3 : 0.2) : 0) +
      Math.min(0.2, 0.1 * (fact.numbers + fact.dates)) +
      (fact.quotes ? 0.1 : 0) -
      (fact.doubtful ? 0.2 : 0),
  );
}

/** Shares of the parts; central is LexRank. Central first, then the title's words: the order of weight measured in trials on 25 pages. */
export const SHARES = {
  central: 0.45,
  title: 0.25,
  concrete: 0.15,
  surprising: 0.1,
  supported: 0.05,
} as const;
export type StrengthParts = Readonly<Record<keyof typeof SHARES, number>>;

export const strengthOf = (parts: StrengthParts): number =>
  clamp((Object.keys(SHARES) as (keyof typeof SHARES)[]).reduce((sum, k) => sum + SHARES[k] * parts[k], 0));
