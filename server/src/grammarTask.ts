/** The grammar checker as a worker's task. */
import type { GrammarHit } from '@ursprung/core/review';
import { expected, type WorkResult } from './drafting.ts';

/** The checker is loaded when it is first asked for: its module is large. */
export const grammar = (task: { texts: string[] }): Promise<WorkResult<GrammarHit[][]>> =>
  expected(async () => (await import('./grammar.ts')).grammarHits(task.texts));
