/** The exact choice against trying every subset. */
import { expect } from 'chai';
import fc from 'fast-check';
import { chooseUnits, shortestUnits, stretches, type Choice, type Solver } from '../../src/draft/choose.ts';
import type { Unit } from '../../src/draft/units.ts';
import { solver as getSolver } from '../tools.ts';

interface Small {
  ms: number;
  worth: number;
  /** Indices of earlier units it can't do without. */
  needs: number[];
}
/** Units with no more than what the choice looks at; each in a passage of its own, so that cohesion plays no part. */
const units = (small: readonly Small[]) =>
  small.map((u, index) => ({
    ...u,
    index,
    block: { id: `b${index}` },
    lines: ['Told in few words.'],
    needsNext: false,
    needs: u.needs.map((to) => ({ to, adjacent: false, why: '' })),
  })) as unknown as Unit[];

const choice = (minMs: number, maxMs: number, pins: number[] = []): Choice => ({
  minMs,
  maxMs,
  pins: new Set(pins),
  bans: new Set(),
  moved: null,
});

function subsets(small: readonly Small[], pins: readonly number[]): number[][] {
  const out: number[][] = [];
  for (let mask = 1; mask < 1 << small.length; mask++) {
    const chosen = small.map((_, i) => i).filter((i) => mask & (1 << i));
    const closed = chosen.every((i) => small[i].needs.every((n) => mask & (1 << n)));
    if (closed && pins.every((p) => mask & (1 << p))) out.push(chosen);
  }
  return out;
}
const time = (small: readonly Small[], chosen: readonly number[]) =>
  chosen.reduce((n, i) => n + small[i].ms, 0);
/** Worth by the second, and what each stretch gains, as far as what is told stands for it. */
const gain = (small: readonly Small[], chosen: readonly number[], maxMs: number) =>
  chosen.reduce((n, i) => n + (small[i].worth * small[i].ms) / 1000, 0) +
  stretches(units(small), maxMs).reduce(
    (n, s) => n + s.gain * Math.min(1, s.units.reduce((sum, i, k) => sum + (chosen.includes(i) ? s.stands[k] : 0), 0)),
    0,
  ); // prettier-ignore

const arbitrary = fc
  .array(
    fc.record({
      ms: fc.integer({ min: 800, max: 6000 }),
      worth: fc.integer({ min: 1, max: 20 }),
      back: fc.nat(9),
    }),
    { minLength: 3, maxLength: 9 },
  )
  .map((list): Small[] =>
    list.map(({ ms, worth, back }, i) => ({
      ms,
      worth: worth / 10,
      needs: back > 0 && back <= i ? [i - back] : [],
    })),
  );

describe('choosing what is told', () => {
  let solver: Solver;
  before(async () => void (solver = await getSolver()));

  it('finds the strongest closed choice within the time, as trying every subset does', () => {
    fc.assert(
      fc.property(arbitrary, fc.double({ min: 0.3, max: 0.9, noNaN: true }), (small, share) => {
        const whole = time(small, [...small.keys()]);
        const [low, high] = [whole * share * 0.8, whole * share];
        const fits = subsets(small, [0]).filter((s) => time(small, s) >= low && time(small, s) <= high);
        const found = chooseUnits(units(small), choice(low, high, [0]), solver);
        if (!fits.length) {
          expect(found).to.equal(null);
          return;
        }
        const best = Math.max(...fits.map((s) => gain(small, s, high)));
        expect(found, 'a choice').not.to.equal(null);
        expect(fits.map(String)).to.include(String(found));
        // The solver may stop within 0.4 % of the best.
        expect(gain(small, found!, high)).to.be.at.least(best * 0.995);
      }),
      { seed: 4, numRuns: 60 },
    );
  });

  it('tells of the whole source: a stretch of which nothing is told gains more than the next sentence of one', () => {
    const list = Array.from({ length: 8 }, () => ({ ms: 3000, worth: 1, needs: [] }));
    const two = units(list).map((u, i) => ({ ...u, block: { id: i < 4 ? 'first' : 'second' } })) as Unit[];
    for (const found of [
      chooseUnits(two, choice(6000, 6000), solver)!,
      chooseUnits(two, choice(12000, 12000), solver)!,
    ]) {
      expect(found.some((i) => i < 4)).to.equal(true);
      expect(found.some((i) => i >= 4)).to.equal(true);
    }
    // In a short time neighbours count as one stretch, so that a long source is told in episodes.
    expect(stretches(units(list), 24_000)).to.have.length(6);
    expect(stretches(units(list), 6_000)).to.have.length(2);
    expect(stretches(units(list), 6_000).flatMap((s) => s.units)).to.deep.equal([0, 1, 2, 3, 4, 5, 6, 7]);
  });

  it('takes of a stretch what says most, not the shortest that stands in it', () => {
    const list = [2000, 4000, 2000, 4000].map((ms, i) => ({ ms, worth: i % 2 ? 1 : 0.2, needs: [] }));
    const two = units(list).map((u, i) => ({ ...u, block: { id: i < 2 ? 'first' : 'second' } })) as Unit[];
    expect(chooseUnits(two, choice(8000, 8000), solver)).to.deep.equal([1, 3]);
  });

  it('finds the shortest telling with its pins, as trying every subset does', () => {
    fc.assert(
      fc.property(arbitrary, fc.nat(8), (small, pin) => {
        const pins = [0, pin % small.length];
        const shortest = Math.min(...subsets(small, pins).map((s) => time(small, s)));
        expect(time(small, shortestUnits(units(small), choice(0, 0, pins), solver)!)).to.be.closeTo(
          shortest,
          shortest * 0.005,
        );
      }),
      { seed: 5, numRuns: 40 },
    );
  });

  it('never leans on a unit that was moved away', () => {
    const list = units([
      { ms: 2000, worth: 1, needs: [] },
      { ms: 2000, worth: 1, needs: [] },
      { ms: 2000, worth: 9, needs: [] },
    ]);
    const leaning = list.map((u, i) =>
      i === 2 ? { ...u, needs: [{ to: 1, adjacent: true, why: '' }] } : u,
    ) as Unit[];
    const found = chooseUnits(leaning, { ...choice(3000, 6000, [1]), moved: 1 }, solver);
    expect(found).to.deep.equal([0, 1]);
  });
});
