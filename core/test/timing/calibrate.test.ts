import { expect } from 'chai';
import fc from 'fast-check';
import {
  SHIPPED_VOICES,
  calibrate,
  makeClock,
  percentile,
  voiceSchema,
  type Voice,
} from '../../src/timing/index.ts';
import { pronouncer } from '../tools.ts';

const TEXTS = Array.from({ length: 60 }, (_, i) =>
  [
    `Boat number ${i + 3} left the harbour at dawn, and nobody on the quay saw it go.`,
    `The keeper wrote a short note. It cost £${i * 7 + 2}; that was in ${1890 + i}.`,
    `Why did the water rise? About ${i + 11} metres of rock, clay and old timber had fallen into the upper lock, slowly at first.`,
    `Every morning the same ${i % 2 ? 'grey' : 'little brass'} clock stopped.`,
  ][i % 4].concat(i % 3 ? ' Then it was quiet.' : ''),
);
/** What a voice would take for a text, in milliseconds, as a recording of it alone. */
const spoken = (voice: Voice, text: string) => makeClock(pronouncer, { voice }).time(text).ms;
const recordings = (voice: Voice, n: number) =>
  TEXTS.slice(0, n).map((text) => ({ text, ms: spoken(voice, text) }));
const worst = (voice: Voice, truth: Voice, from: number) =>
  Math.max(...TEXTS.slice(from).map((t) => Math.abs(spoken(voice, t) / spoken(truth, t) - 1)));

describe('calibration', () => {
  it('finds the speed of a slower reader from eight recordings', () => {
    const slow: Voice = { ...SHIPPED_VOICES.even, scale: 1.25 };
    const found = calibrate(recordings(slow, 8), pronouncer);
    expect(worst(found, slow, 8)).to.be.below(0.01);
    expect(found.calibration.recordings).to.equal(8);
  });

  it('finds another reader’s own rests and sounds from fifty', () => {
    const odd: Voice = {
      ...SHIPPED_VOICES.even,
      pauseMs: { comma: 40, clause: 80, sentence: 800, paragraph: 900 },
      wordMs: SHIPPED_VOICES.even.wordMs + 25,
    };
    const found = calibrate(recordings(odd, 50), pronouncer);
    expect(worst(found, odd, 50)).to.be.below(0.02);
    expect(found.pauseMs.sentence).to.be.within(650, 950);
    expect(found.calibration.p50).to.be.below(0.02);
  });

  it('gives a voice file that the schema takes, with nothing below nought, whatever the recordings', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 400, max: 20_000 }), { minLength: 1, maxLength: 40 }),
        (lengths) => {
          const found = calibrate(
            lengths.map((ms, i) => ({ text: TEXTS[i], ms })),
            pronouncer,
          );
          expect(voiceSchema.safeParse(found).success).to.equal(true);
        },
      ),
      { seed: 3, numRuns: 25 },
    );
  });

  it('passes over recordings too short to teach anything, and refuses when none is left', () => {
    const good = recordings(SHIPPED_VOICES.quick, 6);
    expect(calibrate([...good, { text: 'Oh.', ms: 90 }], pronouncer).calibration.recordings).to.equal(6);
    expect(() => calibrate([{ text: '...', ms: 5000 }], pronouncer)).to.throw(
      RangeError,
      'None of the recordings',
    );
  });

  it('takes percentiles by linear interpolation (type 7 of Hyndman and Fan 1996)', () => {
    expect(percentile([4, 1, 3, 2], 0.5)).to.equal(2.5);
    expect(percentile([1, 2, 3, 4, 5], 0.9)).to.be.closeTo(4.6, 1e-9);
    expect(percentile([7], 0.9)).to.equal(7);
    expect(percentile([], 0.5)).to.be.NaN;
  });
});
