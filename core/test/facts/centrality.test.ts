import { expect } from 'chai';
import { lexRank, stems } from '../../src/facts/centrality.ts';

describe('centrality', () => {
  it('is LexRank (Erkan and Radev 2004): the fixed point of the damped walk over similar sentences', () => {
    const texts = [
      'The lift carries boats over the rock.',
      'Boats leave the lift at the top of the rock.',
      'The rock is clay below.',
      'A duck swims in the museum.',
      'The museum keeps a wooden duck and a boat.',
    ];
    const bags = texts.map((t) => stems(t));
    const df = (s: string) => bags.filter((b) => b.includes(s)).length;
    const weight = (b: string[], s: string) =>
      b.filter((x) => x === s).length * Math.log(1 + texts.length / df(s));
    const norm = (b: string[]) => Math.sqrt([...new Set(b)].reduce((n, s) => n + weight(b, s) ** 2, 0));
    const cosine = (a: string[], b: string[]) =>
      [...new Set(a)].reduce((n, s) => n + weight(a, s) * weight(b, s), 0) / (norm(a) * norm(b));
    const w = bags.map((a, i) => bags.map((b, j) => (i !== j && cosine(a, b) > 0.08 ? cosine(a, b) : 0)));
    const rank = lexRank(texts);
    // At the fixed point each rank is 0.15 of the mean weight plus 0.85 of what its neighbours give; all scaled alike.
    const sums = w.map((row) => row.reduce((a, b) => a + b, 0));
    const raw = w.map(
      (_, i) => 0.85 * w.reduce((n, row, j) => n + (sums[j] ? (rank[j] * row[i]) / sums[j] : 0), 0),
    );
    const base = rank.map((r, i) => r - raw[i]);
    for (const b of base) expect(b).to.be.closeTo(base[0], 0.01);
    expect(Math.max(...rank)).to.equal(1);
  });

  it('gives a sentence that shares nothing the least, and takes none or one', () => {
    const rank = lexRank(['Boats float on water.', 'Water lifts boats.', 'Ink freezes.']);
    expect(rank[2]).to.be.lessThan(Math.min(rank[0], rank[1]));
    expect(lexRank([])).to.deep.equal([]);
    expect(lexRank(['Ink freezes.'])).to.deep.equal([1]);
  });

  it('joins forms of one word and keeps words apart that only look alike', () => {
    expect(stems('boats boat')).to.deep.equal(['boat', 'boat']);
    expect(stems('lifted lifting lifts')).to.deep.equal(['lift', 'lift', 'lift']);
    expect(stems('studies')).to.deep.equal(['study']);
    expect(stems('glass bus need')).to.deep.equal(['glass', 'bus', 'need']);
  });
});
