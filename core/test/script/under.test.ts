/** What a draft says beside its narration: for under the video, and when each line begins. */
import { expect } from 'chai';
import {
  readDraft,
  saidOfStamps,
  sectionsOfDraft,
  stampedAt,
  stampsOf,
  underInWords,
  underVideo,
} from '../../src/script/index.ts';

const DRAFT = `The clock that runs on oats

[0:00] The clock of Tarn Hill has run for two hundred and twelve years.

[0:06] Nobody was ever paid more than a sack of oats for it.

[0:31] And this winter it stopped.

Description: A tower clock, a family and a great many stairs.
Pinned comment: Who should wind it next?
Tags: clock, tower clock, village
#clocks #oldthings #tarn`;

const linesOf = (text: string) => {
  let n = 0;
  return sectionsOfDraft(readDraft(text), () => `${n++}`).flatMap((s) => s.lines.map((l) => ({ text: l.text, notes: l.notes ?? [] }))); // prettier-ignore
};

describe('what a draft says for under the video', () => {
  it('is taken for the upload sheet, part by part, and not spoken', () => {
    const draft = readDraft(DRAFT);
    expect(underVideo(draft)).to.deep.equal({
      summary: 'A tower clock, a family and a great many stairs.',
      pinned: 'Who should wind it next?',
      searchWords: 'clock, tower clock, village',
      hashtags: '#clocks #oldthings #tarn',
    });
    expect(underInWords(underVideo(draft))).to.equal(
      'the description, the comment to pin, the search words and the hashtags',
    );
    expect(draft.sections.flatMap((s) => s.lines).map((l) => l.text).join(' ')).to.not.match(/oats for it\..*(?:#|Pinned|stairs)/s); // prettier-ignore
  });

  it('is nothing in a draft that says nothing of it', () =>
    expect(underVideo(readDraft('One evening the bell rang by itself.\n\nNobody had touched the rope.'))).to.deep.equal({})); // prettier-ignore
});

describe('stamped times', () => {
  for (const [note, ms] of [
    ['[0:31]', 31_000],
    ['⏱ 3–10s | SETUP', 3000],
    ['00:01:05,250 --> 00:01:09,000', 65_250],
    ['(1:02:03)', 3_723_000],
    ['20 to 24 sec', 20_000],
    ['40 seconds', null],
    ['Scene 12', null],
  ] as const)
    it(`${note} → ${ms}`, () => expect(stampedAt(note)).to.equal(ms));

  it('are laid against the clock, and the furthest off is named', () => {
    const lines = linesOf(DRAFT);
    expect(stampsOf(lines).map((s) => s.atMs)).to.deep.equal([0, 6000, 31_000]);
    expect(saidOfStamps(lines, [0, 6400, 10_000])).to.equal(
      'The draft stamps 3 times; by the clock 2 of them hold to a second. Furthest off: “And this winter it stopped.”, stamped 0:31, falls at 0:10.', // prettier-ignore
    );
  });

  it('that count from one hour, as on a tape, begin at nought', () =>
    expect(
      stampsOf([
        { notes: [{ kind: 'timing', text: '01:00:00:00' }] },
        { notes: [{ kind: 'timing', text: '01:00:07:12' }] },
      ]).map((s) => s.atMs),
    ).to.deep.equal([0, 7000]));

  it('say nothing where there are none', () =>
    expect(saidOfStamps(linesOf('One. Two.\n\nThree.'), [0, 1, 2])).to.equal(null));
});

describe('a draft that sets what is said in quotation marks', () => {
  it('is spoken without them', () =>
    expect(
      readDraft('VO: "It rang."\n\nVO: "Nobody moved."\n\nVO: "Then the dog did."').sections.flatMap((s) => s.lines.map((l) => l.text)), // prettier-ignore
    ).to.deep.equal(['It rang.', 'Nobody moved.', 'Then the dog did.']));

  it('but somebody’s words in it stay quoted', () =>
    expect(
      readDraft('VO: It rang.\n\nVO: "Nobody moved," she said.\n\nVO: "Then the dog did."').sections.flatMap((s) => s.lines.map((l) => l.text)).join(' '), // prettier-ignore
    ).to.equal('It rang. "Nobody moved," she said. "Then the dog did."'));
});
