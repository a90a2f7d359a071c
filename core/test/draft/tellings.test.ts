import { expect } from 'chai';
import fc from 'fast-check';
import { GRAIN, chooseTellings, type Telling } from '../../src/draft/tellings.ts';

/** Every choice tried: the oracle for small cases. */
function bruteForce(options: readonly (readonly Telling[])[], minMs: number, maxMs: number): number | null {
  let best: number | null = null;
  const go = (u: number, ms: number, worth: number): void => {
    if (u === options.length) {
      if (ms >= minMs && ms <= maxMs && (best === null || worth > best)) best = worth;
      return;
    }
    for (const t of options[u]) go(u + 1, ms + t.ms, worth + t.worth);
  };
  go(0, 0, 0);
  return best;
}
const telling = fc.record({
  ms: fc.integer({ min: 1, max: 400 }).map((n) => n * GRAIN),
  worth: fc.integer({ min: 0, max: 20 }),
});

describe('choosing among tellings', () => {
  it('is the best there is: equal to trying everything', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(telling, { minLength: 1, maxLength: 3 }), { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 0, max: 1200 }),
        fc.integer({ min: 0, max: 300 }),
        (options, low, width) => {
          const [minMs, maxMs] = [low * GRAIN, (low + width) * GRAIN];
          const chosen = chooseTellings(options, minMs, maxMs);
          const best = bruteForce(options, minMs, maxMs);
          if (best === null) return chosen === null;
          const ms = chosen!.reduce((n, k, u) => n + options[u][k].ms, 0);
          const worth = chosen!.reduce((n, k, u) => n + options[u][k].worth, 0);
          return ms >= minMs && ms <= maxMs && Math.abs(worth - best) < 1e-9;
        },
      ),
      { numRuns: 400 },
    );
  });

  it('has no answer where there is none', () => {
    expect(chooseTellings([[{ ms: 500, worth: 1 }]], 600, 900)).to.equal(null);
    expect(chooseTellings([[]], 0, 900)).to.equal(null);
    expect(chooseTellings([], 0, 900)).to.deep.equal([]);
  });
});
