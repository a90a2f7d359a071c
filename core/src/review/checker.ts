/** The checker of free wording for prepared sources, made once: it keeps what it made ready of them. */
import { makeRetoldChecker, type RetoldChecker } from '../trace/retold/index.ts';
import type { PreparedSources, ReviewTools } from './rule.ts';

const checkers = new WeakMap<PreparedSources, RetoldChecker>();

/** Null without a tagger. */
export function checkerOf(
  sources: PreparedSources,
  { tagger, kin = null }: Pick<ReviewTools, 'tagger' | 'kin'>,
): RetoldChecker | null {
  if (!tagger) return null;
  let known = checkers.get(sources);
  if (!known) checkers.set(sources, (known = makeRetoldChecker(sources.list, { tagger, kin })));
  return known;
}
