import { expect } from 'chai';
import {
  docFromJson,
  docFromSections,
  overMs,
  plainSections,
  scriptFile,
  scriptFileSchema,
  sectionsOfFile,
  toleranceMs,
  type PlainSection,
} from '../../src/script/index.ts';
import { readability } from '../../src/measure/index.ts';
import { breakScenes } from '../../src/scenes/index.ts';
import { clock, pronouncer } from '../tools.ts';

export const line = (id: string, text: string, restMs = 0) => ({
  id,
  text,
  role: 'ground' as const,
  restMs,
  fixedMs: null,
  locked: false,
  speaker: '',
  from: [{ source: 'A', quote: text }],
  fixed: '',
  takes: [],
});
const section = (id: string, title: string, ...lines: ReturnType<typeof line>[]): PlainSection => ({
  id,
  title,
  role: 'ground',
  plannedMs: 10_000,
  locked: false,
  takes: [],
  lines,
});
const SCRIPT = [
  section('S1', 'Opening', line('L1', 'The lift has failed once.', 400)),
  section(
    'S2',
    'Rest',
    line(
      'L2',
      'It carries boats of up to forty tonnes, and it has carried them since 1889, because the water does the lifting and nothing else does.',
    ),
    line('L3', 'Nobody knew.'),
    line('L4', 'Why?'),
  ),
];
const settings = {
  title: 'A <b>title</b>',
  frame: '16:9' as const,
  mood: 'calm' as const,
  pace: 150,
  voice: 'even',
  seed: 1,
  shape: 'chronicle',
  target: { kind: 'point' as const, seconds: 20 },
};

describe('the script', () => {
  it('goes from plain sections to a document and back', () => {
    expect(plainSections(docFromSections(SCRIPT))).to.deep.equal(SCRIPT);
    expect(plainSections(docFromJson(docFromSections(SCRIPT).toJSON()))).to.deep.equal(SCRIPT);
    expect(plainSections(docFromSections([]))[0].lines).to.have.length(1);
    expect(() => docFromJson({ type: 'doc', content: [] })).to.throw(RangeError);
  });

  it('projects to a script file whose sums hold, and back', () => {
    const file = scriptFile(settings, SCRIPT, clock, []);
    expect(scriptFileSchema.parse(JSON.parse(JSON.stringify(file)))).to.deep.equal(file);
    for (const s of file.sections)
      expect(s.lines.reduce((n, l) => n + l.seconds, 0)).to.be.closeTo(s.seconds, 0.0005);
    expect(file.sections.reduce((n, s) => n + s.seconds, 0)).to.be.closeTo(file.seconds, 0.0005);
    expect(sectionsOfFile(file)).to.deep.equal(SCRIPT);
  });

  it('knows over and under for a point, a floor and a ceiling', () => {
    expect([
      overMs({ kind: 'point', seconds: 60 }, 61_000),
      overMs({ kind: 'floor', seconds: 60 }, 61_000),
      overMs({ kind: 'ceiling', seconds: 60 }, 59_000),
    ]).to.deep.equal([1000, 0, 0]);
    expect([toleranceMs(30), toleranceMs(600)]).to.deep.equal([1000, 6000]);
  });
});

describe('readability', () => {
  it('gives the Flesch-Kincaid grade of its formula (Kincaid et al. 1975)', () => {
    // 11 words, 12 syllables, 2 sentences: 0.39·5.5 + 11.8·12/11 − 15.59 = −0.57
    expect(readability('The cat sat on the mat. The dog ran very fast.', pronouncer)).to.deep.equal({
      sentences: 2,
      words: 11,
      syllables: 12,
      grade: -0.6,
    });
    expect(readability('', pronouncer).grade).to.equal(null);
  });
});

describe('scenes', () => {
  for (const frame of ['16:9', '9:16', '1:1'] as const)
    it(`cover the whole time without gaps, every word once (${frame})`, () => {
      const scenes = breakScenes(SCRIPT, clock, { frame });
      const total = clock
        .lines(
          SCRIPT.flatMap((s) =>
            s.lines.map((l, i) => ({
              text: l.text,
              restMs: l.restMs,
              endsSection: i === s.lines.length - 1,
            })),
          ),
        )
        .reduce((n, l) => n + l.ms, 0);
      expect(scenes[0].startMs).to.equal(0);
      scenes.forEach((s, i) => i > 0 && expect(s.startMs).to.equal(scenes[i - 1].endMs));
      expect(scenes.at(-1)!.endMs).to.equal(total);
      expect(
        scenes
          .map((s) => s.text)
          .join(' ')
          .replace(/\s+/g, ' '),
      ).to.equal(
        SCRIPT.flatMap((s) => s.lines)
          .map((l) => l.text)
          .join(' '),
      );
    });
  it('are quicker in a vertical short than in long form (2 s and 5 s; common practice, no published source)', () => {
    expect(breakScenes(SCRIPT, clock, { frame: '9:16' }).length).to.be.greaterThan(
      breakScenes(SCRIPT, clock, { frame: '16:9' }).length,
    );
  });
  it('never cut between two values that a word joins', () => {
    const one = [
      section(
        'S1',
        'x',
        line(
          'L1',
          'The Upper Cut was dug between 1821 and 1826 by forty men who were paid in bread and in beer for it.',
        ),
      ),
    ];
    for (const s of breakScenes(one, clock, { frame: '9:16' })) expect(s.text).to.not.match(/^and 1826/);
  });
});
