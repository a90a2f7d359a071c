import { expect } from 'chai';
import fc from 'fast-check';
import { spokenRules, spokenText, spokenTokens } from '../../src/language/index.ts';
import { knows } from '../tools.ts';

const say = (text: string, sayings?: ReadonlyMap<string, string>) =>
  spokenText(spokenTokens(text, { knows, ...(sayings ? { sayings } : {}) }));

/** Written → said. Forms of numbers follow CLDR (checked in numbers.test.ts), symbols the SI Brochure, the rest common practice, no published source. */
const CASES: Record<string, readonly (readonly [string, string])[]> = {
  years: [['in 1889', 'in eighteen eighty-nine'], ['since 1905.', 'since nineteen oh five.'], ['in 2024', 'in twenty twenty-four'], ['1500 boats', 'one thousand five hundred boats'], ['from 1914–18', 'from nineteen fourteen to eighteen']],
  decades: [['the 1880s', 'the eighteen eighties'], ['the ’90s', 'the nineties'], ['the 1900s', 'the nineteen hundreds']],
  currency: [['£41,200', 'forty-one thousand two hundred pounds'], ['$1.5 million', 'one point five million dollars'], ['$3.50', 'three dollars fifty'], ['€5m', 'five million euros'], ['£1', 'one pound'], ['£0.60', 'sixty pence'], ['$5–10', 'five to ten dollars']],
  percentages: [['5%', 'five percent'], ['5–10%', 'five to ten percent'], ['12.5 per cent', 'twelve point five percent']],
  ranges: [['5–10 boats', 'five to ten boats'], ['50–60 km/h', 'fifty to sixty kilometres an hour']],
  fractions: [['½', 'a half'], ['2½ miles', 'two and a half miles'], ['3/4 done', 'three quarters done']],
  ordinals: [['the 21st', 'the twenty-first'], ['2nd', 'second']],
  units: [['24 m long', 'twenty-four metres long'], ['1 km', 'one kilometre'], ['a 40-tonne boat', 'a forty tonne boat'], ['100 W', 'one hundred watts'], ['9 m²', 'nine square metres'], ['20mph', 'twenty miles an hour'], ['4x4', 'four by four']],
  temperatures: [['20°C', 'twenty degrees Celsius'], ['−5 °C', 'minus five degrees Celsius'], ['90°', 'ninety degrees']],
  dates: [['3 May 1889', 'the third of May eighteen eighty-nine'], ['May 3, 1889', 'May third eighteen eighty-nine'], ['1889-05-03', 'the third of May eighteen eighty-nine'], ['on 11 January', 'on the eleventh of January']],
  times: [['at 8:14', 'at eight fourteen'], ['10:05', 'ten oh five'], ['9:30 a.m. He left.', 'nine thirty a m. He left.'], ['3pm', 'three p m'], ['12:00', "twelve o'clock"]],
  letters: [['the BBC', 'the b b c'], ['NASA', 'nasa'], ['U.S. army', 'u s army'], ['A4', 'a four'], ['3D', 'three d'], ['PCs', "p c's"], ['MP3', 'm p three']],
  romans: [['Henry VIII', 'Henry the eighth'], ['World War II', 'World War two'], ['XIX century', 'nineteenth century'], ['Chapter IV', 'Chapter four'], ['and I left', 'and I left']],
  names: [['Dr. J. R. Vey', 'doctor j r Vey'], ['Mr. Crane', 'mister Crane'], ['O’Brien', "O'Brien"]],
  'hyphens and dashes': [['well-known', 'well known'], ['a boat — iron', 'a boat; iron'], ['a boat - iron', 'a boat; iron']],
  abbreviations: [['e.g. boats', 'for example boats'], ['No. 5', 'number five'], ['No. That is all.', 'No. That is all.'], ['mud, etc. The end.', 'mud, et cetera. The end.']],
  symbols: [['R&D', 'R and D'], ['x = y + 2', 'x equals y plus two'], ['**bold**', 'bold'], ['#5', 'number five'], ['5 < 6', 'five less than six']],
  addresses: [['see www.example.org/a.', 'see w w w dot example dot org slash a.'], ['user@example.com', 'user at example dot com']],
}; // prettier-ignore

describe('spoken forms', () => {
  for (const [topic, cases] of Object.entries(CASES))
    it(`says ${topic}`, () => {
      for (const [written, said] of cases)
        expect(
          say(written).replace(/^[A-Z](?=[a-z])/, (c) => (/^[A-Z]/.test(said) ? c : c.toLowerCase())),
          written,
        ).to.equal(said);
    });

  it('says a word the writer’s own way, whole words only', () => {
    const own = new Map([['vey', 'vay']]);
    expect(say('Vey and Veyron', own)).to.equal('vay and Veyron');
  });

  it('keeps offsets that point at what was said', () => {
    const text = 'It cost £5 on 3 May.';
    for (const t of spokenTokens(text, { knows })) expect(text.slice(t.start, t.end).trim()).to.not.equal('');
    expect(spokenTokens(text, { knows }).map((t) => text.slice(t.start, t.end))).to.deep.equal([
      'It',
      'cost',
      '£5',
      'on',
      '3 May',
    ]);
  });

  it('has rules with ids of their own', () =>
    expect(new Set(spokenRules.map((r) => r.id)).size).to.equal(spokenRules.length));

  it('takes any text: tokens are in order and never overlap', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 200 }), (text) => {
        let at = 0;
        for (const t of spokenTokens(text, { knows })) {
          expect(t.start).to.be.at.least(at);
          expect(t.end).to.be.greaterThan(t.start);
          at = t.end;
        }
      }),
      { seed: 3, numRuns: 400 },
    );
  });

  it('stays linear on 100,000 characters without a space or a stop', () => {
    expect(spokenTokens('a'.repeat(100_000), { knows })).to.have.length(1);
    expect(spokenTokens('1'.repeat(100_000), { knows }).length).to.be.greaterThan(0);
    expect(spokenTokens('😀'.repeat(20_000), { knows })).to.have.length(0);
  });
});
