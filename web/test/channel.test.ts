/** What is typed of a channel becomes its settings, and nothing else of them is lost. */
import { expect } from 'chai';
import { draftOf, settingsOf, wrongWith } from '../src/library/channelFields.tsx';

const had = {
  ...settingsOf(draftOf()),
  house: { longest: 20, contractions: false, framing: 1 },
  fixed: [
    { id: 'sponsor', name: 'sponsor', text: '', ms: 5000, where: 'middle' as const },
    { id: 'sign-off', name: 'sign-off', text: 'Mind the gate.', where: 'end' as const },
  ],
  rulesOff: ['long-line'],
};

describe('a channel’s settings', () => {
  it('start from what is usual for the frame', () => {
    const tall = settingsOf({ ...draftOf(), frame: '9:16' });
    expect(tall).to.include({ pace: 190, voice: 'quick' });
    expect(tall.usual).to.deep.equal({ from: 30, to: 90 });
    expect(tall).to.not.have.any.keys('house', 'fixed', 'pictures');
  });

  it('come back as they were, untouched', () => {
    const again = settingsOf(draftOf(had), had);
    expect(again).to.deep.include({ house: had.house, fixed: had.fixed, usual: had.usual });
  });

  it('lose what was emptied, keep parts and rules that the form doesn’t show', () => {
    const next = settingsOf(
      { ...draftOf(had), longest: '', contractions: 'yes', signOff: '', opening: 'Good evening.' },
      had,
    );
    expect(next.house).to.deep.equal({ framing: 1 });
    expect(next.fixed!.map((f) => f.name)).to.deep.equal(['opening line', 'sponsor']);
    expect({ ...had, ...next }.rulesOff).to.deep.equal(['long-line']);
  });

  it('say what is wrong with what is typed', () => {
    expect(wrongWith(draftOf(had))).to.equal(null);
    expect(wrongWith({ ...draftOf(had), from: 'soon' })).to.contain('minutes and seconds');
    expect(wrongWith({ ...draftOf(had), from: '9:00', to: '5:00' })).to.contain('comes first');
    expect(wrongWith({ ...draftOf(had), pace: 'fast' })).to.contain('words a minute');
  });
});
