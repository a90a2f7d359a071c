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

  const post = (name: string, day: string, words: string) => `<div><div><a>${name}</a></div><div>Posted: ${day} 10:22</div><p>${words}</p></div>`; // prettier-ignore
  const LOFT = 'I found a lamp in our loft last week, still warm. Nobody has been up there since May, and the hatch is painted shut. After supper I put it on the sill.'; // prettier-ignore
  const thread = async (day: string, update: string) => {
    const html = `<html><body><h1>The lamp in the loft</h1>${post('mossy', '5/14/2011', `${LOFT} Has anybody heard of such a thing?`)}${post('after', '5/14/2011', 'Burn the house down, please, and move to the coast.')}${post('mossy', day, update)}</body></html>`; // prettier-ignore
    const doc = await openSource(html);
    const facts = extractFacts(doc, tagger);
    return { doc, silent: (part: string) => facts.find((f) => f.text.includes(part))!.silent };
  };
  const TOLD = 'After that night I went next door. The lofts of the whole row are one, and the old man at number nine reads up there, because his wife sleeps badly.'; // prettier-ignore

  it('asks nobody where a post ends and an update follows; a name that the teller uses as a word is none', async () => {
    const { silent } = await thread('5/27/2011', TOLD);
    expect(silent('Has anybody heard')).to.equal('it asks the readers of the board');
    expect(silent('After that night')).to.equal(undefined);
  });

  it('leaves a day in digits as it stands where its day might be its month', async () => {
    const under = async (day: string) => (await thread(day, TOLD)).doc.blocks.find((b) => b.text.startsWith('After that'))!.under; // prettier-ignore
    expect(await under('5/27/2011')).to.equal('Update, 27 May 2011');
    expect(await under('5/12/2011')).to.equal('Update, 5/12/2011');
  });
});
