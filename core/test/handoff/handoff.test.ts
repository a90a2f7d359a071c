import { expect } from 'chai';
import fc from 'fast-check';
import { CAPTION_LIMITS, captions, fileName, srt, writerById, writers } from '../../src/handoff/index.ts';
import { scriptFile, type PlainSection } from '../../src/script/index.ts';
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
const settings = {
  title: 'T',
  frame: '16:9' as const,
  mood: 'calm' as const,
  pace: 150,
  voice: 'even',
  seed: 1,
  shape: 'x',
  target: { kind: 'point' as const, seconds: 20 },
};

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

  it('write SubRip that a strict reader takes', () => {
    const text = srt(captions(sectionsOf('The lift has failed once.', 'It was at night.'), clock));
    const cues = text.trim().split(/\n\n/);
    cues.forEach((cue, i) =>
      expect(cue).to.match(
        new RegExp(`^${i + 1}\\n\\d\\d:\\d\\d:\\d\\d,\\d{3} --> \\d\\d:\\d\\d:\\d\\d,\\d{3}\\n.+`),
      ),
    );
  });

  it('cut a word that is wider than the screen', () => {
    for (const c of captions(sectionsOf(`${'x'.repeat(200)}.`), clock))
      for (const row of c.rows) expect(row.length).to.be.at.most(42);
  });
});

describe('writers', () => {
  const file = scriptFile(
    { ...settings, title: '# A [link](x)' },
    sectionsOf('It *floats*.', 'Why?'),
    clock,
    [{ id: 'A', title: 'Source', kind: 'news' }],
  );
  it('have ids of their own', () => expect(new Set(writers.map((w) => w.id)).size).to.equal(writers.length));
  it('write the narration alone as text', () =>
    expect(writerById('text')!.write(file, clock)).to.equal('It *floats*. Why?\n'));
  it('escape what Markdown would read as marks', () => {
    const text = writerById('markdown')!.write(file, clock);
    expect(text).to.include('\\# A \\[link\\](x)');
    expect(text).to.include('It \\*floats\\*.');
  });
  it('write a script file that reads back the same', () =>
    expect(JSON.parse(writerById('json')!.write(file, clock))).to.deep.equal(
      JSON.parse(JSON.stringify(file)),
    ));
  it('never make a path of a title', () => {
    expect(fileName('../../etc/passwd', 'txt')).to.equal('etc-passwd.txt');
    expect(fileName('😀', 'srt')).to.equal('script.srt');
    expect(fileName('Éclair über alles', 'md')).to.equal('eclair-uber-alles.md');
  });
});
