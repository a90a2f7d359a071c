import { expect } from 'chai';
import fc from 'fast-check';
import { wellFormed, wellFormedData } from '@ursprung/core/language';
import { readSource } from '@ursprung/core/source';

describe('words that every store takes', () => {
  it('are the words as they are, unless a character is broken', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (text) => {
        expect(wellFormed(text)).to.equal(text.replaceAll('\0', '\ufffd'));
      }),
    );
  });

  it('are as long as they were and encode to UTF-8 and back (Encoding Standard: an encoder knows no surrogates)', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 0xffff })), (units) => {
        const text = wellFormed(String.fromCharCode(...units));
        expect(text).to.have.length(units.length);
        expect(text).to.not.include('\0');
        expect(new TextDecoder('utf-8', { ignoreBOM: true }).decode(new TextEncoder().encode(text))).to.equal(
          text,
        );
      }),
    );
  });

  it('stand so anywhere in data, names of fields too', () => {
    expect(wellFormedData({ 'a\0': ['\ud83d', { b: '\ud83d\ude00', c: 1, d: null }] })).to.deep.equal({
      'a\ufffd': ['\ufffd', { b: '\ud83d\ude00', c: 1, d: null }],
    });
  });

  it('are what a page gives that writes such characters as numbers', async () => {
    const { title, text } = await readSource(
      '<html><head><title>The bell &#xD800;</title></head><body><p>A bell&#0; was cast &#xDFFF; in 1704, and it hung in the tower for a year.</p></body></html>',
    );
    expect(wellFormed(title + text)).to.equal(title + text);
  });
});
