/** A fact's clause as a question and without its day. Sentences are invented. */
import { expect } from 'chai';
import { undated, whyQuestion } from '../../src/plan/clause.ts';
import { tagger } from '../tools.ts';

describe('a clause without its day', () => {
  const CASES: Record<string, string> = {
    'poison was laid on Hallay in the winters of 2014 and 2015': 'poison was laid on Hallay',
    'the line was closed in 1931': 'the line was closed',
    'the mill stood empty between 1911 and 1930': 'the mill stood empty',
    'it was lit on 3 May 1889 by the mayor': 'it was lit by the mayor',
    'nobody had a lamp': 'nobody had a lamp',
  };
  for (const [text, without] of Object.entries(CASES))
    it(`“${text}”`, () => expect(undated(text)).to.equal(without));

  it('keeps its day where it would break off without', () => {
    const text = 'the rule was that of 1889';
    expect(undated(text)).to.not.match(/(?:of|and|in)$/);
  });
});

describe('a clause turned into a question', () => {
  it('has one verb; with two it is not asked', () => {
    expect(whyQuestion({ subject: 'Ada', verb: 'needed', object: 'ten years of readings' }, tagger)).to.equal('Why did Ada need ten years of readings?'); // prettier-ignore
    expect(whyQuestion({ subject: 'Ada', verb: 'needed', object: 'ten years of readings and picked her own village' }, tagger)).to.equal(null); // prettier-ignore
  });
});
