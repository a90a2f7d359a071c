/** Boosted regression trees (Friedman, Greedy Function Approximation, Annals of Statistics 29, 2001), as they are read: small, exact, the same everywhere. */
import { z } from 'zod';

/** Nodes of a tree: [feature, threshold, left, right] or [leaf value]. A row goes left where its value is at most the threshold. */
export const forestSchema = z.object({
  features: z.array(z.string()),
  base: z.number(),
  trees: z.array(z.array(z.array(z.number()).min(1).max(4))),
});
export type Forest = Readonly<z.infer<typeof forestSchema>>;

/** Log-odds of a row, its values in the order of the forest's features. */
export function oddsOf(forest: Forest, row: readonly number[]): number {
  let sum = forest.base;
  for (const tree of forest.trees) {
    let at = 0;
    while (tree[at].length === 4) {
      const [feature, threshold, left, right] = tree[at];
      at = row[feature] <= threshold ? left : right;
    }
    sum += tree[at][0];
  }
  return sum;
}

export const chance = (odds: number): number => 1 / (1 + Math.exp(-odds));
