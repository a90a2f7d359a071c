/** Drafts as they come from elsewhere, and the narration in them. Invented; common practice, no published source. */
import { expect } from 'chai';
import fc from 'fast-check';
import { writtenWords } from '../../src/language/index.ts';
import { cleanDraft, readDraft } from '../../src/script/index.ts';
import { draftTextOfHtml } from '../../src/script/draftFile.ts';
import { FIFTH } from './drafts/fifth.ts';
import { FIRST } from './drafts/first.ts';
import { FOURTH } from './drafts/fourth.ts';
import { SECOND } from './drafts/second.ts';
import { SIXTH } from './drafts/sixth.ts';
import { THIRD } from './drafts/third.ts';

/** What the case shows, the draft, its narration. */
const CASES: readonly (readonly [string, string, string])[] = [
  [
    'headings, music in brackets, a label, a time',
    '# Hook\n[upbeat music]\nNarrator: The lift failed once.\n\n(0:15) It failed at night.',
    'The lift failed once.\n\nIt failed at night.',
  ],
  [
    'a starred label, a picture note, a word count',
    '**VO:** Boats go up.\nVisual: a boat\nWord count: 120',
    'Boats go up.',
  ],
  [
    'chatter before and after',
    'Here is your script, with all the changes:\n\nBoats *float*.\n\n---\n\nLet me know if you want changes to the script!',
    'Boats float.',
  ],
  ['captions', '1\n00:00:01,000 --> 00:00:03,000\nThe gate opens.', 'The gate opens.'],
  [
    'a scene heading and directions inside a line',
    'Scene 1: The gate\nThe gate opens [pause] slowly. (dramatic music swells)',
    'The gate opens slowly.',
  ],
  [
    'a running time',
    '[0:00 - 0:12] The lift failed once.\n[0:12–0:20] Nobody fell.',
    'The lift failed once. Nobody fell.',
  ],
  ['a list of spoken points', '- Boats float.\n- Water leaves.\n', 'Boats float. Water leaves.'],
  ['a quoted reply', '> The lift failed once.\n> Nobody fell.', 'The lift failed once. Nobody fell.'],
  ['speaker with a note', 'HOST (softly): Nobody fell.', 'Nobody fell.'],
  ['on-screen text', 'Nobody fell.\nOn-screen text: 1907\nText overlay: ONE CABLE', 'Nobody fell.'],
  [
    'sound and transition lines',
    'SFX: cable parting\nThe cable parted.\nFade to black: end',
    'The cable parted.',
  ],
  [
    'a line of capitals in brackets',
    'The cable parted. [CUT TO: THE ROOFS] People looked up.',
    'The cable parted. People looked up.',
  ],
  ['a total at the end', 'People looked up.\n\n(Approx. length: 45 seconds)', 'People looked up.'],
  ['a count alone in brackets', 'People looked up.\n(112 words)', 'People looked up.'],
  [
    'bold spoken words keep their words',
    'It held **forty tonnes** of _boat_.',
    'It held forty tonnes of boat.',
  ],
  ['hashtags', 'People looked up.\nHashtags: #lift #river', 'People looked up.'],
];
/** Spoken words that only look like directions. */
const STAYS: readonly string[] = [
  'Cut the rope, he said. The picture was gone (all of it).',
  'In 1907 the cable parted: a sound like a gunshot.',
  'The camera was invented later.',
  'Music was played at the opening, and the crowd danced.',
  'Part of the wall fell.',
  'He wrote 3 * 4 on the board.',
  'Title deeds were lost in the fire.',
  'Of course the keeper wrote it down.',
  'At 8:16 he rang the office.',
];

describe('cleaning a draft', () => {
  for (const [what, draft, narration] of CASES)
    it(`takes out what is not spoken: ${what}`, () => expect(cleanDraft(draft)).to.equal(narration));
  for (const spoken of STAYS)
    it(`leaves what is: ${spoken}`, () => expect(cleanDraft(spoken)).to.equal(spoken));

  for (const [what, draft, narration] of [...FIRST, ...SECOND, ...THIRD, ...FOURTH, ...FIFTH, ...SIXTH])
    it(`reads ${what}`, async () =>
      expect(cleanDraft(/^<h\d/.test(draft) ? await draftTextOfHtml(draft) : draft)).to.equal(narration));

  it('changes nothing when done again', async () => {
    for (const [, raw] of [...CASES, ...FIRST, ...SECOND, ...THIRD, ...FOURTH, ...FIFTH, ...SIXTH]) {
      const draft = /^<h\d/.test(raw) ? await draftTextOfHtml(raw) : raw;
      const once = cleanDraft(draft);
      expect(cleanDraft(once), draft).to.equal(once);
    }
  });

  it('makes nothing up, whatever is pasted', () => {
    const piece = fc.constantFrom(
      ...[...CASES, ...FIRST, ...SECOND, ...THIRD, ...FOURTH, ...FIFTH, ...SIXTH].map(([, d]) => d),
      ...STAYS,
      '',
      '\t',
      '((',
      '**',
      '[x',
      '—',
      '12:',
      '> ',
    );
    const words = (text: string) => writtenWords(text.toLowerCase()).map((w) => w.text);
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 5 }), (parts) => {
        const draft = parts.join('\n');
        const spoken = words(cleanDraft(draft));
        // Nothing is spoken that does not stand in the draft, and nothing more often.
        const left = new Map<string, number>();
        for (const word of words(draft)) left.set(word, (left.get(word) ?? 0) + 1);
        for (const word of spoken) {
          left.set(word, (left.get(word) ?? 0) - 1);
          expect(left.get(word), `${word} in ${draft}`).to.be.at.least(0);
        }
      }),
      { seed: 8, numRuns: 300 },
    );
    fc.assert(
      fc.property(fc.string({ maxLength: 300, unit: 'binary' }), (text) => {
        expect(readDraft(text).sections).to.be.an('array');
      }),
      { seed: 9, numRuns: 200 },
    );
  });

  it('keeps what was taken out at its place, headings as titles and rests as rests', () => {
    const draft = readDraft(
      '# The lift\n\n## The flood\n[rain]\nThe water rose. [pause 2s]\nNobody slept.\nVisual: a lamp\n\n## The wall\nMara: It held.\nTom: Did it?\nMara: It did.',
    );
    expect(draft.title).to.equal('The lift');
    expect(draft.sections.map((s) => s.title)).to.deep.equal(['The flood', 'The wall']);
    const [flood, wall] = draft.sections;
    expect(flood.lines[0].taken).to.deep.equal([{ kind: 'direction', text: '[rain]' }]);
    expect(flood.lines[0].restMs).to.equal(2000);
    expect(flood.takenAfter.map((t) => t.text)).to.deep.equal(['Visual: a lamp']);
    expect(wall.lines.map((l) => l.speaker)).to.deep.equal(['Mara', 'Tom', 'Mara']);
  });
});
