/** What a telling would miss: texts of strangers and of our own of which it was marked by hand what must be told. The trees have learned from them: a test of what was reached, no estimate. */
import { expect } from 'chai';
import fc from 'fast-check';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { taggedFacts, type Fact } from '../../src/facts/index.ts';
import { salienceOf } from '../../src/facts/salience.ts';
import { stems } from '../../src/facts/centrality.ts';
import { SHARES } from '../../src/facts/strength.ts';
import { readSource } from '../../src/source/read.ts';
import { tagger } from '../tools.ts';

const SOURCES = join(import.meta.dirname, '../source');
const labels = JSON.parse(
  readFileSync(join(import.meta.dirname, '../../../scripts/salience/labels.json'), 'utf8'),
) as Record<string, { must: string[]; worth: string[] }>;
const here = Object.keys(labels).filter((id) => existsSync(join(SOURCES, id)));
const read = async (id: string) =>
  taggedFacts(await readSource(readFileSync(join(SOURCES, id), 'utf8')), tagger);

/** Average precision: how early the musts come in an order (Buckley and Voorhees 2000). */
function precision(facts: readonly Fact[], must: ReadonlySet<string>, by: (f: Fact) => number): number {
  let [found, sum] = [0, 0];
  [...facts]
    .sort((a, b) => by(b) - by(a))
    .forEach((f, k) => {
      if (must.has(f.id)) sum += ++found / (k + 1);
    });
  return sum / must.size;
}

describe('what a telling would miss', () => {
  it('ranks what must be told before the rest, and better than the shares of a fact’s parts do', async function () {
    this.timeout(240_000);
    expect(here).to.have.length.of.at.least(40);
    let [learned, shares] = [0, 0];
    for (const id of here) {
      const facts = (await read(id)).map((t) => t.fact).filter((f) => !f.silent);
      const must = new Set(labels[id].must);
      for (const known of must) expect(facts.some((f) => f.id === known), `${id} ${known} is read`).to.equal(true); // prettier-ignore
      const parts = (f: Fact) => Object.entries(SHARES).reduce((n, [p, share]) => n + share * f.parts[p as keyof typeof SHARES], 0); // prettier-ignore
      learned += precision(facts, must, (f) => f.strength);
      shares += precision(facts, must, parts);
    }
    expect(learned / here.length).to.be.greaterThan(0.78);
    expect(learned - shares).to.be.greaterThan(0.12 * here.length);
  });

  it('is a chance, the same each time, whatever passages are called and however few there are', async () => {
    const source = await readSource(readFileSync(join(SOURCES, 'afresh/59.html'), 'utf8'));
    const told = taggedFacts(source, tagger).map((t) => ({ ...t, stems: stems(t.fact.text) }));
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: told.length }),
        fc.integer({ min: 2, max: 900 }),
        (count, from) => {
          const some = told.slice(0, count);
          const scores = salienceOf(source, some);
          expect(scores).to.have.length(count);
          for (const s of scores) expect(s).to.be.within(0, 1);
          const renamed = (id: string) => `p${Number(id.slice(1)) + from}`;
          const other = salienceOf(
            { ...source, blocks: source.blocks.map((b) => ({ ...b, id: renamed(b.id) })) },
            some.map((t) => ({ ...t, fact: { ...t.fact, block: renamed(t.fact.block) } })),
          );
          expect(other).to.deep.equal(scores);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('is what facts are as strong as; what is never told by itself is weighed by its parts', async () => {
    const source = await readSource(readFileSync(join(SOURCES, 'strangers/09.html'), 'utf8'));
    const facts = taggedFacts(source, tagger);
    const told = facts.filter((t) => !t.fact.silent);
    const scores = salienceOf(source, told.map((t) => ({ ...t, stems: stems(t.fact.text) }))); // prettier-ignore
    told.forEach((t, i) => expect(t.fact.strength).to.be.closeTo(scores[i], 0.0006));
    for (const { fact } of facts.filter((t) => t.fact.silent)) expect(fact.strength).to.be.within(0, 1);
  });
});
