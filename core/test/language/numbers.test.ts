import { expect } from 'chai';
import fc from 'fast-check';
import {
  cardinal,
  decade,
  digitByDigit,
  fraction,
  numberWords,
  ordinal,
  romanValue,
  wordsValue,
  year,
} from '../../src/language/index.ts';
import { spell } from './rbnf.ts';

/** CLDR writes commas between groups and "oh-five"; speech has neither mark. */
const plain = (text: string) => text.replace(/,/g, '').replace(/oh-/g, 'oh ');

describe('numbers as words', () => {
  it('says whole numbers as CLDR’s English spell-out with "and" does (Unicode CLDR 48, spellout-cardinal-verbose)', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 999_999_999 }),
        (n) => void expect(cardinal(n)).to.equal(plain(spell(n, '%spellout-cardinal-verbose'))),
      ),
      { seed: 1, numRuns: 1500 },
    );
    for (const n of [0, 10, 13, 100, 101, 310, 1000, 1001, 1100, 100_001, 1_000_001, 41_200])
      expect(cardinal(n)).to.equal(plain(spell(n, '%spellout-cardinal-verbose')));
  });

  it('says ordinals as CLDR does (spellout-ordinal-verbose)', () => {
    for (let n = 1; n < 1000; n++) expect(ordinal(n)).to.equal(plain(spell(n, '%spellout-ordinal-verbose')));
  });

  it('says years as CLDR does (spellout-numbering-year)', () => {
    for (let n = 1010; n < 2100; n++)
      if (n % 1000 >= 10) expect(year(n)).to.equal(plain(spell(n, '%spellout-numbering-year')));
    expect(year(2000)).to.equal('two thousand');
    expect(year(2005)).to.equal('two thousand five');
  });

  it('reads back every number it says', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 999_999_999_999 }),
        (n) => void expect(wordsValue(cardinal(n))).to.equal(n),
      ),
      { seed: 2 },
    );
    expect(wordsValue('boat')).to.equal(null);
  });

  it('says decades, decimals, digits and fractions', () => {
    expect(decade(1880)).to.equal('eighteen eighties');
    expect(decade(1900)).to.equal('nineteen hundreds');
    expect(numberWords('41,200.50')).to.equal('forty-one thousand two hundred point five zero');
    expect(numberWords('\u22125')).to.equal('minus five');
    expect(digitByDigit('007')).to.equal('zero zero seven');
    expect([fraction(1, 2), fraction(3, 4), fraction(2, 3), fraction(1, 1)]).to.deep.equal([
      'one half',
      'three quarters',
      'two thirds',
      null,
    ]);
  });

  it('reads Roman numerals only when they are well formed', () => {
    expect(['IV', 'XIX', 'MCMLXXXIV', 'VIII'].map(romanValue)).to.deep.equal([4, 19, 1984, 8]);
    expect(['IIII', 'VX', '', 'ABC'].map(romanValue)).to.deep.equal([null, null, null, null]);
  });

  it('refuses what is no whole number in range', () => {
    expect(() => cardinal(1.5)).to.throw(RangeError);
    expect(() => cardinal(1e16)).to.throw(RangeError);
  });
});
