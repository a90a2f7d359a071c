import { expect } from 'chai';
import fc from 'fast-check';
import {
  REFERENCE_PASSAGE,
  SHIPPED_VOICES,
  clockText,
  lengthMs,
  makeClock,
  ownPace,
  voiceSchema,
  wavMs,
} from '../../src/timing/index.ts';
import { clock, pronouncer } from '../tools.ts';

const even = makeClock(pronouncer, { voice: SHIPPED_VOICES.even });

describe('the speech clock', () => {
  it('ships voices that follow working narrators (common practice, no published source)', () => {
    const { ms, syllables } = even.time(REFERENCE_PASSAGE);
    // 4.2 syllables a second in the middle, 3.5 to 4.8; 134 to 213 words a minute, middle 177.
    expect((syllables * 1000) / ms).to.be.within(4, 4.6);
    expect(ownPace(pronouncer, SHIPPED_VOICES.even)).to.be.within(165, 190);
    expect(ownPace(pronouncer, SHIPPED_VOICES.quick)).to.be.within(190, 215);
    expect(ownPace(pronouncer, SHIPPED_VOICES.plain)).to.be.within(134, 213);
    // Rests of 0.15 s at commas and 0.3 to 0.45 s at stops.
    expect(SHIPPED_VOICES.even.pauseMs.comma).to.equal(150);
    expect(SHIPPED_VOICES.even.pauseMs.sentence).to.be.within(300, 450);
  });

  it('takes words / pace for the reference passage', () => {
    for (const pace of [105, 150, 190, 215]) {
      const { words, ms } = makeClock(pronouncer, { voice: SHIPPED_VOICES.quick, pace }).time(
        REFERENCE_PASSAGE,
      );
      expect((words * 60_000) / ms).to.be.closeTo(pace, pace * 0.004);
    }
    expect(() => makeClock(pronouncer, { voice: SHIPPED_VOICES.even, pace: 0 })).to.throw(RangeError);
  });

  it('sums lines to the whole: a script takes as long as its text', () => {
    const paragraph = fc.array(
      fc.constantFrom(
        'The lift has failed once.',
        'It cost £41,200!',
        'Who paid?',
        'Nobody knew, and nobody asked.',
      ),
      { minLength: 1, maxLength: 4 },
    );
    fc.assert(
      fc.property(fc.array(paragraph, { minLength: 1, maxLength: 4 }), (paragraphs) => {
        const lines = paragraphs.flatMap((p) =>
          p.map((text, i) => ({ text, endsSection: i === p.length - 1 })),
        );
        const timed = clock.lines(lines);
        const sum = timed.reduce((n, l) => n + l.ms, 0);
        expect(sum).to.equal(clock.time(paragraphs.map((p) => p.join(' ')).join('\n\n')).ms);
        timed.forEach((l, i) => i > 0 && expect(l.startMs).to.equal(timed[i - 1].startMs + timed[i - 1].ms));
      }),
      { seed: 5, numRuns: 60 },
    );
  });

  it('counts rests, fixed parts and empty lines', () => {
    const [a, b, c] = clock.lines([
      { text: 'One.', restMs: 700 },
      { text: 'Sponsor words here.', fixedMs: 5000 },
      { text: '' },
    ]);
    const [bare] = clock.lines([{ text: 'One.' }, { text: 'x' }]);
    expect(a.ms).to.equal(bare.ms + 700);
    expect(b.ms).to.equal(5000);
    expect(c.ms).to.equal(0);
  });

  it('is longer for more words and slower pace, and whole milliseconds always', () => {
    const slow = makeClock(pronouncer, { voice: SHIPPED_VOICES.even, pace: 120 });
    fc.assert(
      fc.property(fc.lorem({ maxCount: 12 }), (text) => {
        expect(slow.time(text).ms).to.be.at.least(clock.time(text).ms);
        expect(clock.time(`${text} and more`).ms).to.be.greaterThan(clock.time(text).ms);
        expect(Number.isInteger(clock.time(text).ms)).to.equal(true);
      }),
      { seed: 6, numRuns: 60 },
    );
  });

  it('writes and reads clock text', () => {
    expect([clockText(134_200), clockText(59_960), clockText(180_000, false)]).to.deep.equal([
      '2:14.2',
      '1:00.0',
      '3:00',
    ]);
    expect([
      lengthMs('3:00'),
      lengthMs('180'),
      lengthMs('3 min'),
      lengthMs('90 s'),
      lengthMs('soon'),
      lengthMs(''),
    ]).to.deep.equal([180_000, 180_000, 180_000, 90_000, null, null]);
  });

  it('reads a length as people write it', () => {
    const seconds = Object.fromEntries(
      [
        ['2:30', 150],
        ['1:02:03', 3723],
        ['2.5 min', 150],
        ['2,5 min', 150],
        ['1m30s', 90],
        ['1 min 30', 90],
        ['2\'30"', 150],
        ['three minutes', 180],
        ['about three minutes', 180],
        ['Two and a half minutes', 150],
        ['a minute and a half', 90],
        ['one minute and twenty seconds', 80],
        ['one minute thirty seconds', 90],
        ['half a minute', 30],
        ['forty-five seconds', 45],
        ['90 secs.', 90],
        ['a couple of minutes', 120],
      ].map(([text, s]) => [text, Number(s) * 1000]),
    );
    expect(Object.fromEntries(Object.keys(seconds).map((t) => [t, lengthMs(t)]))).to.deep.equal(seconds);
    for (const none of ['three', 'minutes', 'a while', '3:75', '2 and 3', 'three of them', '-20', '1:00 s'])
      expect(lengthMs(none), none).to.equal(null);
  });

  it('checks a voice file and a recording', () => {
    expect(voiceSchema.safeParse({ ...SHIPPED_VOICES.even, scale: -1 }).success).to.equal(false);
    expect(() => wavMs(new Uint8Array(100))).to.throw('not a WAV');
  });
});
