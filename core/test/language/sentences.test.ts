import { expect } from 'chai';
import fc from 'fast-check';
import { LONGEST_SENTENCE, sentences } from '../../src/language/index.ts';

const split = (text: string) => sentences(text).map((s) => s.text);

describe('sentences', () => {
  it('ends at stops, not at abbreviations, initials or decimals', () => {
    expect(split('Dr. J. R. Vey paid 3.5 pounds. He left.')).to.deep.equal([
      'Dr. J. R. Vey paid 3.5 pounds.',
      'He left.',
    ]);
    expect(split('We chose plan B. The rest waited.')).to.deep.equal([
      'We chose plan B.',
      'The rest waited.',
    ]);
    expect(split('It was the clock of E. Marsh, wound weekly. It ran.')).to.have.length(2);
    expect(split('He came at 9 a.m. The gate was shut.')).to.have.length(2);
    expect(split('See No. 5 for more. No. Never.')).to.deep.equal(['See No. 5 for more.', 'No.', 'Never.']);
  });

  it('keeps a quotation’s own stop with the words around it', () => {
    expect(split('“Why?” he asked. “You wait.”')).to.deep.equal(['“Why?” he asked.', '“You wait.”']);
  });

  it('cuts a stretch without a stop, so that none is endless', () => {
    const parts = split('word '.repeat(5000));
    expect(Math.max(...parts.map((p) => p.length))).to.be.at.most(LONGEST_SENTENCE);
    expect(parts.join(' ').split(/\s+/)).to.have.length(5000);
  });

  it('loses no letter and points at the text', () => {
    fc.assert(
      fc.property(
        fc.string({
          unit: fc.constantFrom('a', 'B', '.', '!', '?', ' ', '\n', '“', '”', '1', ','),
          maxLength: 120,
        }),
        (text) => {
          const found = sentences(text);
          for (const s of found) expect(text.slice(s.start, s.end)).to.equal(s.text);
          expect(
            found
              .map((s) => s.text)
              .join('')
              .replace(/\s/g, ''),
          ).to.equal(text.replace(/\s/g, ''));
        },
      ),
      { seed: 4 },
    );
  });
});
