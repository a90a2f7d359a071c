import { expect } from 'chai';
import fc from 'fast-check';
import {
  CAPTION_LIMITS,
  QUICK_LIMITS,
  VERTICAL_LIMITS,
  captionFaults,
  captions,
  chaptersOf,
  forChildren,
  readingSpeed,
} from '../../src/handoff/index.ts';
import type { PlainSection } from '../../src/script/index.ts';
import { getClock } from '../../../server/src/tools.ts';
import { clock } from '../tools.ts';

const sectionsOf = (...texts: string[]): PlainSection[] => [
  {
    id: 'S1',
    title: 'One',
    role: 'hook',
    plannedMs: 0,
    locked: false,
    takes: [],
    lines: texts.map((text, i) => ({
      id: `L${i}`,
      text,
      role: 'ground',
      restMs: i % 3 === 0 ? 500 : 0,
      fixedMs: null,
      locked: false,
      speaker: '',
      from: [],
      fixed: '',
      takes: [],
    })),
  },
];
describe('captions', () => {
  const sentence = fc
    .array(
      fc.constantFrom('boat', 'the', 'water', 'slowly,', 'engineering', 'lift', '310', 'tonnes', 'of', 'and'),
      { minLength: 1, maxLength: 40 },
    )
    .map((w) => `${w.join(' ')}.`);
  it('hold two rows of 42 characters, in order, never overlapping, with every word once', () => {
    fc.assert(
      fc.property(fc.array(sentence, { minLength: 1, maxLength: 6 }), (texts) => {
        const list = captions(sectionsOf(...texts), clock);
        list.forEach((c, i) => {
          expect(c.rows.length).to.be.at.most(CAPTION_LIMITS.lines);
          for (const row of c.rows) expect(row.length).to.be.at.most(CAPTION_LIMITS.lineCharacters);
          expect(c.endMs).to.be.greaterThan(c.startMs);
          expect(c.endMs - c.startMs).to.be.at.most(CAPTION_LIMITS.mostMs);
          if (i > 0) expect(c.startMs).to.be.at.least(list[i - 1].endMs);
        });
        expect(list.flatMap((c) => c.rows).join(' ')).to.equal(texts.join(' '));
      }),
      { seed: 9, numRuns: 60 },
    );
  });

  it('stay under 17 characters a second where the pace allows it', () => {
    const list = captions(
      sectionsOf(
        'The lift has failed once.',
        'In a hard frost, one of the forty-eight cables parted while a boat was halfway up.',
      ),
      clock,
    );
    for (const c of list) expect((c.rows.join(' ').length * 1000) / (c.endMs - c.startMs)).to.be.at.most(20);
  });

  it('cut a word that is wider than the screen', () => {
    for (const c of captions(sectionsOf(`${'x'.repeat(200)}.`), clock))
      for (const row of c.rows) expect(row.length).to.be.at.most(42);
  });
});

describe('rules of captions', () => {
  const TEXTS = [
    'The lift has failed once.',
    'In a hard frost, one of the forty-eight cables parted while a boat was halfway up.',
    'Nobody was hurt, but the boat hung in the tower for a night and half a day.',
    'It has been wound every Monday since then, because the first owner had told the second owner that a paid repair must be ready.',
    'Ruth was six.',
  ];
  const at = (pace: number) => getClock('even', pace);
  it('are all kept at 150 words a minute', () => {
    for (const limits of [CAPTION_LIMITS, VERTICAL_LIMITS])
      expect(captionFaults(captions(sectionsOf(...TEXTS), at(150), limits), limits)).to.deep.equal([]);
  });
  it('above that only reading speed gives way, and is marked', () => {
    const list = captions(sectionsOf(...TEXTS), at(210));
    const faults = captionFaults(list);
    expect(faults.length).to.be.greaterThan(0);
    for (const f of faults) expect(f.fault).to.be.oneOf(['hurried', 'too fast']);
    for (const f of faults) expect(readingSpeed(list[f.at])).to.be.closeTo(f.is, 0.06);
  });
  it('break by sense: no row or cue ends in an article or a preposition where it can be helped', () => {
    const rows = captions(sectionsOf(...TEXTS), at(150)).flatMap((c) => c.rows);
    expect(rows.filter((r) => /\b(?:the|a|of|in)$/i.test(r))).to.deep.equal([]);
  });
  it('give children more time', () => {
    const limits = forChildren(CAPTION_LIMITS);
    const speeds = captions(sectionsOf(...TEXTS), at(120), limits).map(readingSpeed);
    expect(speeds.filter((s) => s <= 13.1).length / speeds.length).to.be.at.least(0.7);
  });
  it('for shorts hold one to four words, one row, each word in its time', () => {
    const list = captions(sectionsOf(...TEXTS), at(190), QUICK_LIMITS);
    expect(captionFaults(list, QUICK_LIMITS).length / list.length).to.be.below(0.05);
    for (const c of list) {
      expect(c.words.length).to.be.within(1, 4);
      expect(c.rows).to.have.length(1);
      c.words.forEach((w, i) => i && expect(w.startMs).to.be.at.least(c.words[i - 1].startMs));
    }
  });
  it('hold in Hindi, German and Arabic: no letter is parted from its marks', () => {
    const word = 'क्षत्रियत्व'.repeat(6);
    const rows = captions(sectionsOf(`${word}.`), at(150)).flatMap((c) => c.rows);
    expect(rows.join('')).to.equal(`${word}.`);
    for (const r of rows) expect(r).to.not.match(/^\p{M}/u);
  });
});

describe('chapters', () => {
  const long =
    'The keeper opens a valve, and eight centimetres of water run into the upper trough, which then weighs more.';
  const many = (...counts: number[]): PlainSection[] =>
    counts.map((n, i) => ({
      ...sectionsOf(...Array.from({ length: n }, () => long))[0],
      id: `S${i}`,
      title: `Part ${i}`,
    }));
  it('start at 0:00 with each section', () => {
    const chapters = chaptersOf(many(2, 2, 3), clock);
    expect('chapters' in chapters && chapters.chapters.map((c) => c.title)).to.deep.equal([
      'Part 0',
      'Part 1',
      'Part 2',
    ]);
    expect('chapters' in chapters && chapters.chapters[0].startMs).to.equal(0);
  });
  it('join what is shorter than ten seconds, and say so', () => {
    const chapters = chaptersOf(many(1, 2, 2, 2), clock);
    if (!('chapters' in chapters)) throw new Error(chapters.refused);
    expect(chapters.chapters).to.have.length(3);
    expect(chapters.joined[0]).to.match(/“Part 0” is too short/);
    for (const c of chapters.chapters) expect(c.endMs - c.startMs).to.be.at.least(10_000);
  });
  it('are refused with the reason where three can’t be made', () => {
    expect(chaptersOf(many(2, 2), clock))
      .to.have.property('refused')
      .that.matches(/at least 3 sections/);
  });
});
