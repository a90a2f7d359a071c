import { expect } from 'chai';
import fc from 'fast-check';
import {
  RUN,
  comparedWords,
  indexSources,
  isClose,
  overlap,
  stockOf,
  unsupportedIn,
} from '../../src/trace/index.ts';

const SOURCE =
  'The bridge was closed on Thursday after it swayed sideways by seven centimetres. Oona Barrick said it “felt like standing on a ferry”. It opened on 22 August and cost £6.4 million.';

/** The same measure from scratch: every pair of places compared. */
function slowShare(lines: readonly string[], source: string): number {
  const { names } = indexSources([source]);
  const keys = (t: string) => comparedWords(t, names).filter((w) => !w.name);
  const theirs = keys(source).map((w) => w.key);
  const ours = lines.flatMap(keys);
  const hit = new Set<number>();
  for (let i = 0; i + RUN <= ours.length; i++)
    for (let j = 0; j + RUN <= theirs.length; j++)
      if (theirs.slice(j, j + RUN).every((k, n) => k === ours[i + n].key))
        for (let n = 0; n < RUN; n++) hit.add(i + n);
  return ours.length ? hit.size / ours.length : 0;
}

describe('overlap', () => {
  const index = indexSources([SOURCE]);
  it('is whole for a copied sentence and none for one’s own words', () => {
    const copied = overlap(
      ['The bridge was closed on Thursday after it swayed sideways by seven centimetres.'],
      index,
    );
    expect(copied.share).to.equal(1);
    // Thirteen words less the name of a day.
    expect(copied.longestRun).to.equal(12);
    expect(isClose(copied.lines[0])).to.equal(true);
    expect(overlap(['Seven centimetres of sway shut it.'], index).share).to.equal(0);
  });
  it('sees through contractions, and leaves quotations out', () => {
    const contracted = overlap(
      ['It wasn’t open and it did not close at all today.'],
      indexSources(['It was not open and it didn’t close at all today.']),
    );
    expect(contracted.share).to.equal(1);
    expect(overlap(['She said it “felt like standing on a ferry”.'], index).lines[0].words).to.equal(3);
  });
  it('counts a day or a time in figures as one word', () => {
    const index = indexSources(['The last of them stopped for good on 1998-10-30 at 17:08.']);
    const [line] = overlap(['It stopped for good on 1998-10-30, at 17:08.'], index).lines;
    expect([line.words, line.shared]).to.deep.equal([8, 0]);
  });
  it('runs on over line ends', () => {
    expect(
      overlap(['The bridge was closed on', 'Thursday after it swayed sideways.'], index).lines.map(
        (l) => l.shared > 0,
      ),
    ).to.deep.equal([true, true]);
  });
  it('equals the measure computed from scratch', () => {
    const words = fc.constantFrom('the', 'bridge', 'was', 'shut', 'and', 'it', 'swayed');
    fc.assert(
      fc.property(
        fc.array(words, { minLength: 10, maxLength: 60 }),
        fc.array(fc.array(words, { minLength: 1, maxLength: 20 }), { minLength: 1, maxLength: 4 }),
        (source, lines) => {
          const texts = lines.map((l) => l.join(' '));
          expect(overlap(texts, indexSources([source.join(' ')])).share).to.be.closeTo(
            slowShare(texts, source.join(' ')),
            1e-9,
          );
        },
      ),
      { seed: 8, numRuns: 120 },
    );
  });
});

describe('support', () => {
  const stock = stockOf([SOURCE]);
  const why = (line: string) => unsupportedIn(line, stock).map((u) => [u.why, u.text]);
  it('finds numbers, dates, names and quotations that no source has', () => {
    expect(why('It swayed by nine centimetres.')).to.deep.equal([['number', 'nine']]);
    expect(why('It cost £7 million.')).to.deep.equal([['number', '£7 million']]);
    expect(why('It opened on 23 August.')).to.deep.equal([['date', '23 August']]);
    expect(why('There stood Ruth with them.')).to.deep.equal([['name', 'Ruth']]);
    expect(why('She said it “felt like standing on a boat”.')).to.deep.equal([
      ['quote', '“felt like standing on a boat”'],
    ]);
  });
  it('accepts the same value in other words', () => {
    expect(
      why('It swayed by 7 centimetres and cost 6.4 million pounds; it opened on the 22nd of August.'),
    ).to.deep.equal([]);
    expect(why('She said it “felt like standing on a ferry.”')).to.deep.equal([]);
    expect(why('One of them was Oona Barrick.')).to.deep.equal([]);
  });
});

describe('a quotation over several lines', () => {
  const said = [
    'She said: “It felt like standing on the deck of a ferry.',
    'Then everyone started to walk in step and that made it worse.”',
    'Nobody on the bridge that morning knew what to do about it.',
  ];
  it('is to the letter like any other, and counts in no overlap', () => {
    const result = overlap(said, indexSources([said.join(' ')]));
    expect(result.lines.map((l) => l.words)).to.deep.equal([2, 0, 12]);
    expect(result.lines[2].shared).to.equal(12);
  });
  it('that nobody closes is let go after six lines', () => {
    const lines = [
      '“It began.',
      ...Array.from({ length: 9 }, () => 'One two three four five six seven eight nine.'),
    ];
    const { lines: counted } = overlap(lines, indexSources(['nothing']));
    expect(counted[1].words).to.equal(0);
    expect(counted[9].words).to.equal(9);
  });
});
