import { expect } from 'chai';
import fc from 'fast-check';
import { drawFrame, type FrameAsked } from '../src/frames.ts';
import { apertium } from '../src/index.ts';

const asked = (more: Partial<FrameAsked> = {}): FrameAsked => ({
  keys: ['boat lift'],
  size: 'medium',
  angle: 'eye level',
  time: null,
  people: 0,
  words: null,
  frame: '16:9',
  ...more,
});
const drawing = (more: Partial<FrameAsked>) =>
  drawFrame(asked(more))
    .strokes.map((s) => s.d)
    .join('|');
/** Height of what is drawn, from the numbers of its paths' beginnings. */
const reach = (more: Partial<FrameAsked>) => {
  const ys = drawFrame(asked(more))
    .strokes.slice(1)
    .flatMap((s) => [...s.d.matchAll(/M (-?[\d.]+) (-?[\d.]+)/g)].map((m) => Number(m[2])));
  return Math.max(...ys) - Math.min(...ys);
};

describe('the stand-in picture library', () => {
  it('draws the same frame for the same asking, and others for others', () => {
    expect(drawing({})).to.equal(drawing({}));
    const all = ['boat lift', 'footbridge', 'clock', 'ledger', 'crowd', 'window', 'river', 'gate'].map((k) =>
      drawing({ keys: [k] }),
    );
    expect(new Set(all).size).to.equal(all.length);
  });
  it('is larger the nearer the shot', () => {
    const heights = (['extreme wide', 'wide', 'medium', 'close-up'] as const).map((size) =>
      reach({ size, keys: ['tower'] }),
    );
    expect([...heights].sort((a, b) => a - b)).to.deep.equal(heights);
  });
  it('puts people in, in front of what is shown; their faces stay blank', () => {
    expect(drawFrame(asked({ people: 1 })).strokes.length).to.equal(drawFrame(asked()).strokes.length + 2);
    expect(drawFrame(asked({ people: 9 })).strokes.length).to.equal(drawFrame(asked()).strokes.length + 6);
  });
  it('shows night as night, has words on the screen, and names what it can’t draw', () => {
    expect(drawFrame(asked({ time: 'night' })).night).to.equal(true);
    expect(drawFrame(asked({ words: '310 tonnes' })).words).to.equal('310 tonnes');
    expect(drawFrame(asked({ keys: ['quasar'] })).unknown).to.equal('quasar');
    expect(drawFrame(asked({ keys: [] })).unknown).to.equal(null);
  });
  it('takes any words, and gives nothing but plain paths (property)', () => {
    fc.assert(
      fc.property(
        fc.array(fc.string(), { maxLength: 5 }),
        fc.constantFrom('16:9' as const, '9:16' as const, '1:1' as const),
        fc.constantFrom('eye level' as const, 'low' as const, 'high' as const, 'overhead' as const),
        (keys, frame, angle) => {
          const drawn = drawFrame(asked({ keys, frame, angle }));
          expect(drawn.width / drawn.height).to.be.closeTo(
            { '16:9': 16 / 9, '9:16': 9 / 16, '1:1': 1 }[frame],
            0.01,
          );
          for (const s of drawn.strokes)
            expect(s.d)
              .to.match(/^[MLhvHVlqatZA-Za-z\d\s.,-]+$/)
              .and.not.match(/NaN|Infinity|undefined/);
        },
      ),
      { seed: 8, numRuns: 120 },
    );
  });
});

describe('the stand-in translator', () => {
  it('gives a text for each, in order, however they are set', async () => {
    const out = await apertium().translate([
      'The house is big.',
      '“No,” she said.',
      'It’s   a\nnarrow shop.',
      'The water rose.',
    ]);
    expect(out).to.have.length(4);
    expect(out[0]).to.match(/casa/i);
    expect(out[3]).to.match(/agua/i);
  });
});
