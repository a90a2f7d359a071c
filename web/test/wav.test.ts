import { expect } from 'chai';
import { wavMs } from '@ursprung/core/timing';
import { espeak } from '@ursprung/standins';
import { joinWavs } from '../src/voice/wav.ts';

describe('recordings joined into one', () => {
  it('last as long as their parts together, and say so in the head', async () => {
    const wavs = await Promise.all(['One.', 'Two and three.'].map((t) => espeak('en-gb', 150).speak(t)));
    const whole = joinWavs(wavs.map((w) => new Uint8Array(w)));
    expect(wavMs(whole)).to.be.closeTo(
      wavs.reduce((n, w) => n + wavMs(new Uint8Array(w)), 0),
      2,
    );
    expect(new DataView(whole.buffer).getUint32(40, true)).to.equal(whole.length - 44);
  });
  it('refuse what is no sound', () => {
    expect(() => joinWavs([new Uint8Array(100)])).to.throw(/no sound/);
  });
});
