/** A cue as it is typed is a cue, or says why not. */
import { expect } from 'chai';
import { cueOf } from '../src/scenes/Cues.tsx';

const typed = { kind: 'effect' as const, what: ' a gate creaks ', at: '1,5', level: '-12', dip: '0' };

describe('a typed cue', () => {
  it('is taken as it is meant', () => {
    expect(cueOf(typed, 6)).to.deep.equal({
      kind: 'effect',
      what: 'a gate creaks',
      at: 1.5,
      level: -12,
      dip: 0,
    });
  });

  for (const [part, value, says] of [
    ['what', '  ', 'what is heard'],
    ['at', '6.1', 'between 0 and 6.0 s'],
    ['at', '', 'between 0 and 6.0 s'],
    ['level', '20', '-60 to 6 dB'],
    ['dip', '5', 'by 0 to -40 dB'],
  ] as const)
    it(`says what is wrong with ${part} “${value}”`, () =>
      expect(cueOf({ ...typed, [part]: value }, 6)).to.contain(says));
});
