import { expect } from 'chai';
import { noveltyOf, WINDOW_MS } from '../../src/measure/index.ts';

const script = (...texts: string[]) =>
  texts.map((text, i) => ({ text, startMs: i * WINDOW_MS, ms: WINDOW_MS }));

describe('what is new when', () => {
  it('is nothing where the same words come again, and that is slack', () => {
    const fresh = [
      'The mill burned in winter.',
      'A baker saw smoke above roofs.',
      'Forty families lost their barley.',
      'The mayor promised water pumps.',
    ];
    const windows = noveltyOf(
      script(...fresh, 'The mill burned in winter.', 'A canal was planned for carts.'),
    );
    expect(windows).to.have.length(6);
    expect(windows[4]).to.deep.include({ share: 0, slack: true });
    expect(windows.filter((w) => w.slack)).to.have.length(1);
    expect(Math.max(...windows.map((w) => w.share))).to.equal(1);
  });

  it('has a window for every ten seconds, and none for an empty script', () => {
    expect(noveltyOf([])).to.deep.equal([]);
    expect(
      noveltyOf([{ text: 'One long line about a ferry.', startMs: 0, ms: 25_000 }]).map((w) => w.startMs),
    ).to.deep.equal([0, 10_000, 20_000]);
  });

  it('does not call the last breath slack', () => {
    const windows = noveltyOf([
      ...script('The mill burned in winter.', 'A baker saw smoke.', 'Forty families left.'),
      { text: 'The mill burned.', startMs: 30_000, ms: 3000 },
    ]);
    expect(windows.at(-1)!.slack).to.equal(false);
  });
});
