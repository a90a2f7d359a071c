import { expect } from 'chai';
import { disputedBetween, disputedWithin } from '../../src/facts/disputed.ts';
import { tagger } from '../tools.ts';

const claimed = (text: string) => ({ text, tokens: tagger(text) });
const between = (a: string, b: string) => disputedBetween(claimed(a), claimed(b))?.map((f) => f.text) ?? null;
const within = (text: string) => disputedWithin(claimed(text))?.map((f) => f.text) ?? null;

describe('figures that are set against each other', () => {
  it('are given by two people, of one thing, side by side', () => {
    expect(between('Police counted 1,500 people on the quay.', 'The organisers put it at 4,000.')).to.deep.equal(['1,500', '4,000']); // prettier-ignore
    expect(between('The ministry says 212 homes were flooded.', 'The tenants’ union claims 390 homes were.')).to.deep.equal(['212', '390']); // prettier-ignore
    expect(between('The club has 40 members.', 'But the treasurer said only 22 members pay.')).to.deep.equal(['40', '22']); // prettier-ignore
    expect(within('Police say 1,500 people marched, organisers 4,000.')).to.deep.equal(['1,500', '4,000']);
    expect(within('According to the mill it lost 30 tonnes; the river authority speaks of 12 tonnes.')).to.deep.equal(['30', '12']); // prettier-ignore
  });
  it('are no two measures, no two years, and nobody’s two things', () => {
    expect(between('In 1978 the survey counted 4,210 pairs.', 'In 2019 it counted 1,310 pairs.')).to.equal(
      null,
    );
    expect(between('She said the bell weighs 412 kg.', 'She added that it is 84 cm across.')).to.equal(null);
    expect(between('Drain it for 20 minutes.', 'Wait 30 minutes more.')).to.equal(null);
    for (const text of ['He said 40 sheep and 12 goats were lost.', 'The report says 12 were hurt, and 3 died.', 'A full count in 2019 found 1,412 pairs, against an estimated 6,000 in 1900.'])
      expect(within(text), text).to.equal(null); // prettier-ignore
  });
});
