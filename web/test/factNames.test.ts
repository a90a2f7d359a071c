import { expect } from 'chai';
import type { Fact } from '@ursprung/core/facts';
import { factNamesOf, namesOf, orderNamesOf } from '../src/text/factNames.ts';

describe('names of facts on the screen', () => {
  const fact = (id: string, block: string, own?: 'known' | 'chosen') =>
    ({ id, block, ...(own ? { own } : {}) }) as Fact;
  const sources = [
    { letter: 'A', facts: [fact('fi9g1', 'p6'), fact('fx2', 'p2', 'chosen'), fact('w3', '', 'known')] },
    { letter: 'B', facts: [fact('fi9g1', 'p1')] },
  ];

  it('say where they stand: passages as Sources numbers them, or that they are the writer’s own', () => {
    const name = factNamesOf(sources);
    expect(
      [{ source: 'A', fact: 'fi9g1' }, { source: 'A', fact: 'fx2' }, { source: 'A', fact: 'w3' }, { source: 'B', fact: 'fi9g1' }].map(name), // prettier-ignore
    ).to.deep.equal(['A 6', 'A 2', 'A yours', 'B 1']);
    expect(namesOf(name, [{ source: 'A', fact: 'fx2' }, { source: 'B' }, { source: 'A', fact: 'fx2' }])).to.deep.equal(['A 2', 'B']); // prettier-ignore
  });

  it('beside an order are the order’s own numbers', () => {
    const name = orderNamesOf(sources);
    expect([name({ source: 'A', fact: 'fx2' }), name({ source: 'B', fact: 'fi9g1' })]).to.deep.equal([
      'A2',
      'B1',
    ]);
  });

  it('are the source alone where nothing is known of the fact: it is gone, or the line rests on none', () => {
    for (const name of [factNamesOf(sources), orderNamesOf(sources)])
      expect([name({ source: 'A' }), name({ source: 'A', fact: 'gone' }), name({ source: 'C', fact: 'fx2' })]).to.deep.equal(['A', 'A', 'C']); // prettier-ignore
  });
});
