import { availableParallelism } from 'node:os';
import { expect } from 'chai';
import { calibrate, makeClock, percentile, wavMs, type Recording } from '@ursprung/core/timing';
import { getPronouncer } from '@ursprung/server/tools';
import { espeak, flite, sampleParagraphs, type VoicePort } from '../src/index.ts';

/** Records paragraphs a few at a time. */
async function record(voice: VoicePort, texts: readonly string[]): Promise<Recording[]> {
  const out: Recording[] = [];
  const workers = Math.max(2, availableParallelism());
  for (let i = 0; i < texts.length; i += workers)
    out.push(
      ...(await Promise.all(
        texts.slice(i, i + workers).map(async (text) => ({ text, ms: wavMs(await voice.speak(text)) })),
      )),
    );
  return out;
}

/** Real prose from Debian's packages; the bars are those the product set itself. */
describe('the clock against synthesizers, calibrated on 60 recordings and tested on 60 others', () => {
  const texts = sampleParagraphs(120);
  const bars = [
    { voice: espeak(), p50: 0.03, p90: 0.085, whole: 0.015 },
    { voice: flite(), p50: 0.035, p90: 0.1, whole: 0.015 },
  ];
  for (const { voice, p50, p90, whole } of bars)
    it(`${voice.id}: middle error ${p50 * 100} %, 90th percentile ${p90 * 100} %, whole set ${whole * 100} %`, async function () {
      this.timeout(240_000);
      const recordings = await record(voice, texts);
      const train = recordings.filter((_, i) => i % 2 === 0);
      const test = recordings.filter((_, i) => i % 2 === 1);
      const fitted = calibrate(train, getPronouncer());
      const clock = makeClock(getPronouncer(), { voice: fitted });
      const errors = test.map((r) => Math.abs(clock.time(r.text).ms - r.ms) / r.ms);
      const sum = (f: (r: Recording) => number) => test.reduce((n, r) => n + f(r), 0);
      const total = Math.abs(sum((r) => clock.time(r.text).ms) / sum((r) => r.ms) - 1);
      process.stdout.write(
        `      ${voice.id}: p50 ${(percentile(errors, 0.5) * 100).toFixed(1)} %, p90 ${(percentile(errors, 0.9) * 100).toFixed(1)} %, whole ${(total * 100).toFixed(2)} %\n`,
      );
      expect(train.length).to.equal(60);
      expect(percentile(errors, 0.5)).to.be.at.most(p50);
      expect(percentile(errors, 0.9)).to.be.at.most(p90);
      expect(total).to.be.at.most(whole);
      expect(
        Math.min(...Object.values(fitted.phoneMs), ...Object.values(fitted.pauseMs), fitted.wordMs),
      ).to.be.at.least(0);
      // With few recordings one scale is fitted on the sound default.
      const few = calibrate(train.slice(0, 10), getPronouncer());
      const fewClock = makeClock(getPronouncer(), { voice: few });
      expect(few.calibration.note).to.match(/one scale/);
      expect(
        percentile(
          test.map((r) => Math.abs(fewClock.time(r.text).ms - r.ms) / r.ms),
          0.5,
        ),
      ).to.be.at.most(0.045);
    });

  it('refuses to fit on nothing', () =>
    expect(() => calibrate([{ text: '', ms: 1000 }], getPronouncer())).to.throw(RangeError));
});
