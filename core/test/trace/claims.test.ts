import { expect } from 'chai';
import { claimContext, faultsIn } from '../../src/trace/index.ts';
import { tagger } from '../tools.ts';
import { PLANTED } from './planted.ts';

const faults = (told: string, source: string, context = source) =>
  faultsIn(told, source, claimContext(context), tagger);

describe('what a telling claims', () => {
  it('finds at least 55 of 60 planted falsehoods, and most by their own name', () => {
    const missed = PLANTED.filter((p) => !faults(p.false, p.source).length);
    expect(PLANTED).to.have.length(60);
    expect(60 - missed.length, missed.map((m) => `${m.kind}: ${m.false}`).join('\n')).to.be.at.least(55);
    const kinds = PLANTED.filter((p) => faults(p.false, p.source).some((f) => f.kind === p.kind));
    expect(kinds.length).to.be.at.least(45);
  });

  it('lets the true telling of the same sentences pass, but for three at most', () => {
    const refused = PLANTED.filter((p) => faults(p.true, p.source).length);
    expect(
      refused.length,
      refused.map((m) => `${m.true} ${JSON.stringify(faults(m.true, m.source))}`).join('\n'),
    ).to.be.at.most(3);
  });

  it('names who says so when a telling leaves it out', () => {
    const source = 'The lock is safe, the harbour master said.';
    expect(faults('The lock is safe.', source).map((f) => f.kind)).to.include('said');
    expect(faults('The lock is safe, the harbour master says.', source)).to.deep.equal([]);
  });

  it('finds an altered quotation and a value or name that is not there', () => {
    const source = 'Ida Marsh said: “The tide was never this high.” The wall is 4 metres tall.';
    expect(faults('Ida Marsh said: “The tide was seldom this high.”', source).map((f) => f.kind)).to.include(
      'quote',
    );
    expect(faults('The wall is 5 metres tall.', source).map((f) => f.kind)).to.include('value');
    expect(faults('The wall in Holm is 4 metres tall.', source).map((f) => f.kind)).to.include('name');
  });

  it('finds a cause where the source has none', () => {
    expect(
      faults('The mill burned down because the war began.', 'The mill burned down. The war began.').map(
        (f) => f.kind,
      ),
    ).to.include('cause');
  });
});
