/** What a teller adds to a story on a board may answer those who replied, whom a listener hasn't heard. */
import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import { extractFacts } from '../../src/facts/index.ts';
import { openSource } from '../../src/source/index.ts';
import { tagger } from '../tools.ts';

/** Threads of ours, nasty on purpose, as they lie among the tests of sources. */
const factsOf = async (file: string) => {
  const path = new URL(`../source/nasty/${file}`, import.meta.url);
  const facts = extractFacts(await openSource(new Uint8Array(readFileSync(path))), tagger);
  return (part: string) => facts.find((f) => f.text.includes(part));
};

describe('a story told on in later posts', () => {
  it('keeps out of the telling a first sentence that only answers, and tells on behind it', async () => {
    const fact = await factsOf('03.txt');
    expect(fact("That's what I thought")!.silent).to.equal('it answers those who replied');
    expect(fact('So last night I recorded it')!.silent).to.equal(undefined);
  });

  it('keeps out what speaks of somebody who only replied', async () => {
    const fact = await factsOf('13.txt');
    expect(fact('Rosa was nearly right')!.silent).to.equal('it answers those who replied');
    expect(fact('We opened the shaft')!.silent).to.equal(undefined);
    expect(fact('Old relays chatter')).to.equal(undefined);
  });

  it('knows those who replied by names as boards have them, and says the day of an update in words', async () => {
    const path = new URL('../source/afresh/86.html', import.meta.url);
    const doc = await openSource(new Uint8Array(readFileSync(path)));
    const told = extractFacts(doc, tagger);
    expect(told.find((f) => f.text.startsWith('PewterPot'))!.silent).to.equal('it answers those who replied');
    expect(told.find((f) => f.text.startsWith('William Coe, wheelwright'))!.silent).to.equal(undefined);
    expect(doc.blocks.map((b) => b.under)).to.include('Update, 27 August 2016');
  });

  it('begins an update with what it tells, not with what became of the question', async () => {
    const path = new URL('../source/afresh/84.html', import.meta.url);
    const doc = await openSource(new Uint8Array(readFileSync(path)));
    const silent = (part: string) => extractFacts(doc, tagger).find((f) => f.text.includes(part))!.silent;
    expect(silent('Solved.')).to.equal('it answers those who replied');
    expect(silent('I sat in the car')).to.equal(undefined);
  });
});
