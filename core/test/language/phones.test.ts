import { expect } from 'chai';
import { dictionary as cmu } from 'cmu-pronouncing-dictionary';
import { syllable } from 'syllable';
import {
  makePronouncer,
  openDictionary,
  packDictionary,
  phoneName,
  syllableCount,
} from '../../src/language/index.ts';
import { pronouncer } from '../tools.ts';

describe('pronunciations', () => {
  it('packs and reads back every word of the CMU Pronouncing Dictionary', () => {
    const packed = openDictionary(packDictionary(Object.entries(cmu)));
    let seen = 0;
    for (const [word, phones] of Object.entries(cmu)) {
      if (!/^[a-z][a-z']*$/.test(word)) continue;
      seen++;
      const codes = packed.phones(word);
      if (!codes || [...codes].map(phoneName).join(' ') !== phones.replace(/\s*#.*/, '').trim())
        throw new Error(`${word}: ${phones}`);
    }
    expect(seen).to.equal(packed.size);
    expect(packed.phones('zzzzzz')).to.equal(null);
    expect(packed.phones('')).to.equal(null);
  });

  it('refuses bytes that are no dictionary', () =>
    expect(() => openDictionary(new Uint8Array(20))).to.throw('not a packed dictionary'));

  it('reads words it does not hold by stem, ending and compound', () => {
    const read = (w: string) => [...pronouncer.phones(w)].map(phoneName).join(' ');
    expect(read('footbridge')).to.equal('F UH1 T B R IH1 JH');
    expect(read('hoisted')).to.match(/T AH0 D$/);
    expect(read('lockside')).to.match(/S AY1 D$/);
  });

  it('counts syllables of words left out of the dictionary as the npm package "syllable" does, in nine of ten, to one', () => {
    // A dictionary without every 400th word: those are then read by rule.
    const all = Object.entries(cmu).filter(([w]) => /^[a-z]{4,}$/.test(w));
    const left = all.filter((_, i) => i % 400 === 7);
    const keep = new Set(left.map(([w]) => w));
    const without = makePronouncer(openDictionary(packDictionary(all.filter(([w]) => !keep.has(w)))));
    const near = left.filter(([w]) => Math.abs(syllableCount(without.phones(w)) - syllable(w)) <= 1).length;
    const exact = left.filter(
      ([w, p]) => syllableCount(without.phones(w)) === p.split(' ').filter((x) => /\d/.test(x)).length,
    ).length;
    expect(near / left.length).to.be.greaterThan(0.9);
    expect(exact / left.length).to.be.greaterThan(0.72);
  });

  it('gives other scripts a bounded time and emoji none', () => {
    expect(pronouncer.phones('лодка').length).to.equal(5);
    expect(pronouncer.phones('船').length).to.equal(2);
    expect(pronouncer.phones('😀').length).to.equal(0);
  });
});
