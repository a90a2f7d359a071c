import { expect } from 'chai';
import fc from 'fast-check';
import {
  breakScenes,
  paceForCount,
  partedAt,
  wantedMs,
  LONG_SCENE_MS,
  type Scene,
} from '../../src/scenes/index.ts';
import {
  docFromSections,
  emptyLine,
  plainSections,
  scriptFile,
  sectionsOfFile,
  type LineMark,
  type PlainLine,
  type PlainSection,
} from '../../src/script/index.ts';
import { clockLines } from '../../src/script/schema.ts';
import { clock } from '../tools.ts';

let fresh = 0;
const line = (text: string, more: Partial<PlainLine> = {}): PlainLine => ({
  ...emptyLine(`L${++fresh}`),
  text,
  ...more,
});
const section = (role: PlainSection['role'], ...lines: PlainLine[]): PlainSection => ({
  id: `S${++fresh}`,
  title: 'One',
  role,
  plannedMs: 0,
  locked: false,
  takes: [],
  lines,
});
const cut = (text: string, at: string, kind: 'break' | 'join' = 'break', held = false): LineMark => {
  const start = text.indexOf(at);
  return { type: 'cut', id: `c${start}`, start, end: start + at.split(' ')[0].length, kind, held, own: {} };
};
const words = (scenes: readonly Scene[]) => scenes.map((s) => s.text);
const total = (sections: readonly PlainSection[]) =>
  clock.lines(clockLines(sections)).reduce((n, l) => n + l.ms, 0);

const LONG =
  'At the foot of the tower the keeper opens a valve, and eight centimetres of water run into the upper trough, which then weighs more than the lower one.';

describe('scene breaks', () => {
  it('split what is too long at a clause and say so', () => {
    const scenes = breakScenes([section('ground', line(LONG))], clock, { frame: '16:9' });
    expect(words(scenes).length).to.be.at.least(2);
    expect(scenes[1].why).to.equal('clause');
    for (const s of scenes) expect(s.endMs - s.startMs).to.be.below(LONG_SCENE_MS['16:9']);
  });
  it('let short lines about one thing share a picture, others not', () => {
    const sections = [section('ground', line('The lift rose.'), line('It stopped.'), line(LONG))];
    expect(words(breakScenes(sections, clock, { frame: '16:9' }))[0]).to.equal('The lift rose. It stopped.');
  });
  it('never join two speakers', () => {
    const sections = [
      section('ground', line('Is it shut?', { speaker: 'Ann' }), line('It is.', { speaker: 'Ben' })),
    ];
    const scenes = breakScenes(sections, clock, { frame: '16:9' });
    expect(scenes.map((s) => [s.speaker, s.why])).to.deep.equal([
      ['Ann', 'section'],
      ['Ben', 'speaker'],
    ]);
  });
  it('follow the writer: a break, several quick cuts in a line, none where they were joined, one held', () => {
    const text = 'He ran, he jumped, he fell and he got up again.';
    const quick = line(text, { marks: [cut(text, 'he jumped'), cut(text, 'he fell')] });
    expect(words(breakScenes([section('ground', quick)], clock, { frame: '16:9' }))).to.deep.equal([
      'He ran,',
      'he jumped,',
      'he fell and he got up again.',
    ]);
    const joined = [section('ground', line('One.'), line(LONG, { marks: [cut(LONG, 'At', 'join')] }))];
    expect(words(breakScenes(joined, clock, { frame: '16:9' }))[0]).to.match(/^One\. At the foot/);
    const held = [section('ground', line(LONG, { marks: [cut(LONG, 'At', 'break', true)] }))];
    expect(words(breakScenes(held, clock, { frame: '16:9' }))).to.deep.equal([LONG]);
  });
  it('know scenes without words, with their own seconds, and long rests', () => {
    const sections = [
      section(
        'hook',
        line('It fell.', { restMs: 2000 }),
        line('', { fixedMs: 3000 }),
        line('Nobody saw it.'),
      ),
    ];
    const scenes = breakScenes(sections, clock, { frame: '16:9' });
    expect(scenes.map((s) => [s.text, s.silent, s.why])).to.deep.equal([
      ['It fell.', false, 'section'],
      ['', true, 'rest'],
      ['', true, 'silent'],
      ['Nobody saw it.', false, 'idea'],
    ]);
    expect(scenes[2].endMs - scenes[2].startMs).to.equal(3000);
  });
  it('are none where there is neither a word nor time', () => {
    expect(breakScenes([section('ground', line(''))], clock, { frame: '16:9' })).to.deep.equal([]);
  });
  it('go with their words when something is typed before them', () => {
    const text = 'He ran, he jumped, he fell.';
    const doc = docFromSections([section('ground', line(text, { marks: [cut(text, 'he fell')] }))]);
    const [{ lines }] = plainSections(doc);
    expect(lines[0].marks?.[0]).to.include({ type: 'cut', start: text.indexOf('he fell') });
  });
  it('survive the script file', () => {
    const text = 'He ran, he jumped, he fell.';
    const mark = {
      ...cut(text, 'he fell', 'break', true),
      own: { description: 'A man on the ground.' },
    } as LineMark;
    const sections = [
      section(
        'ground',
        line(text, { marks: [mark] }),
        line('', { fixedMs: 2000, scene: { search: ['sky'] } }),
      ),
    ];
    const settings = { title: 'T', frame: '16:9' as const, mood: 'calm' as const, pace: 150, voice: 'even', seed: 1, shape: 'x', target: { kind: 'point' as const, seconds: 20 } }; // prettier-ignore
    const back = sectionsOfFile(scriptFile(settings, sections, clock, []));
    expect(back[0].lines.map((l) => [l.marks, l.scene])).to.deep.equal(
      sections[0].lines.map((l) => [l.marks, l.scene]),
    );
  });

  const text = fc.array(fc.constantFrom('boat', 'the', 'water', 'slowly,', 'because', 'lift', '310', 'tonnes', 'of', 'and', 'which'), { minLength: 1, maxLength: 40 }).map((w) => `${w.join(' ')}.`); // prettier-ignore
  it('cover the whole time to the millisecond, whatever the text, frame and marks (property)', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(text, { minLength: 1, maxLength: 6 }), { minLength: 1, maxLength: 4 }),
        fc.constantFrom('16:9' as const, '9:16' as const, '1:1' as const),
        fc.nat(30),
        fc.boolean(),
        (all, frame, at, held) => {
          const sections = all.map((texts) =>
            section(
              'ground',
              ...texts.map((t, i) =>
                line(t, {
                  restMs: i % 3 === 1 ? 1800 : 0,
                  marks:
                    at < t.length - 4 && i % 2 ? [cut(t, t.slice(at), at % 3 ? 'break' : 'join', held)] : [],
                }),
              ),
            ),
          );
          const scenes = breakScenes(sections, clock, { frame });
          expect(scenes[0].startMs).to.equal(0);
          scenes.forEach((s, i) => i && expect(s.startMs).to.equal(scenes[i - 1].endMs));
          expect(scenes.at(-1)!.endMs).to.equal(total(sections));
          expect(words(scenes).filter(Boolean).join(' ').replace(/\s+/g, ' ')).to.equal(all.flat().join(' '));
          expect(new Set(scenes.map((s) => s.id)).size).to.equal(scenes.length);
        },
      ),
      { seed: 5, numRuns: 150 },
    );
  });
  it('an edit to one line moves no cut more than eight lines away (property)', () => {
    const cuts = (sections: readonly PlainSection[]) =>
      new Map(
        sections[0].lines.map((l) => [
          l.id,
          breakScenes(sections, clock, { frame: '16:9' })
            .filter((s) => s.parts[0].line === l.id)
            .map((s) => s.parts[0].from)
            .join(),
        ]),
      );
    fc.assert(
      fc.property(fc.array(text, { minLength: 12, maxLength: 24 }), fc.nat(23), text, (texts, at, other) => {
        const lines = texts.map((t) => line(t));
        const k = at % lines.length;
        const before = cuts([section('ground', ...lines)]);
        const after = cuts([
          section('ground', ...lines.map((l, i) => (i === k ? { ...l, text: other } : l))),
        ]);
        lines.forEach((l, i) => {
          if (Math.abs(i - k) > 8) expect(after.get(l.id)).to.equal(before.get(l.id));
        });
      }),
      { seed: 6, numRuns: 60 },
    );
  });
});

describe('the pace of pictures', () => {
  const roles = (['hook', 'ground', 'strain', 'settle', 'close'] as const).map((role) => ({
    role,
    plannedMs: 10_000,
  }));
  it('is quicker in the opening and calm at the end (common practice, no published source)', () => {
    const ms = wantedMs(roles, { frame: '16:9' });
    expect(ms[0]).to.be.below(ms[1]);
    expect(ms[4]).to.be.above(ms[2]);
  });
  it('is about 5 s in long form and 2 s in a vertical short (common practice, no published source)', () => {
    const middle = (frame: '16:9' | '9:16') =>
      wantedMs(roles, { frame }).reduce((a, b) => a + b, 0) / roles.length / 1000;
    expect(middle('16:9')).to.be.within(4.5, 5.5);
    expect(middle('9:16')).to.be.within(1.7, 2.3);
  });
  it('follows the writer’s handles by planned time, level beyond the outer ones', () => {
    const handles = [
      { at: 0.2, seconds: 2 },
      { at: 0.8, seconds: 8 },
    ];
    expect(wantedMs(roles, { frame: '16:9', handles })).to.deep.equal([2000, 3000, 5000, 7000, 8000]);
  });
});

describe('a number of pictures asked for', () => {
  const words = 'The gate came up, the water ran out, and the keeper stood there with a lamp in his hand. Nobody had seen it in forty years.'; // prettier-ignore
  const script = (lines: number): PlainSection[] =>
    (['hook', 'ground', 'strain', 'close'] as const).map((role) => ({
      ...section(role, ...Array.from({ length: lines }, () => line(words))),
      plannedMs: 30_000,
    }));
  const pace = { frame: '16:9' as const };

  it('is met as nearly as words allow, with sections as unlike each other as before', () => {
    const sections = script(5);
    for (const count of [16, 24, 30, 45]) {
      const found = paceForCount(count, sections, clock, pace);
      expect(breakScenes(sections, clock, { ...pace, handles: found.handles })).to.have.length(found.count);
      expect(Math.abs(found.count - count), String(count)).to.be.at.most(2);
      const [hook, ground] = found.handles;
      expect(hook.seconds).to.be.below(ground.seconds);
    }
  });
  it('is as near as it gets where the words allow no more or no fewer', () => {
    const sections = script(1);
    expect(paceForCount(1, sections, clock, pace).count).to.be.within(1, 8);
    const most = paceForCount(4000, sections, clock, pace);
    expect(most.count).to.be.below(200);
    for (const { at, seconds } of most.handles) {
      expect(at).to.be.within(0, 1);
      expect(seconds).to.be.within(0.5, 30);
    }
  });
  it('of today’s number changes nothing', () => {
    const sections = script(3);
    const now = breakScenes(sections, clock, pace).length;
    expect(paceForCount(now, sections, clock, pace).count).to.equal(now);
  });
});

describe('a scene parted by hand', () => {
  const halves = (text: string) => {
    const at = partedAt(text);
    return at === null ? null : [text.slice(0, at).trim(), text.slice(at)];
  };
  it('is parted at the clause nearest to its middle, else at a phrase, else behind a word that leans on nothing', () => {
    expect(halves('They shut the upper gate, and the water rose.')).to.deep.equal(['They shut the upper gate,', 'and the water rose.']); // prettier-ignore
    expect(halves('It was planned for a third of the traffic.')).to.deep.equal(['It was planned', 'for a third of the traffic.']); // prettier-ignore
    expect(halves('Seven hundred brass wheels turned.')).to.deep.equal([
      'Seven hundred',
      'brass wheels turned.',
    ]);
    expect(halves('Stop.')).to.equal(null);
  });
  it('never ends on a word that wants another, where it has any other place', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('the', 'for', 'of', 'lamp', 'water', 'river', 'and', 'carried', 'boats'), { minLength: 4, maxLength: 14 }), // prettier-ignore
        (list) => {
          const text = list.join(' ');
          const found = halves(text);
          const free = list.slice(0, -1).some((w, i) => w.length > 3 && i > 0 && i < list.length - 2);
          if (found && free) expect(found[0]).to.not.match(/(?:^| )(?:the|for|of|and)$/);
        },
      ),
    );
  });
});

describe('a mark that only says something of its scene', () => {
  it('sets no cut: why the scene begins is told as before', () => {
    const text = 'The gate fell.';
    const own: LineMark = { type: 'cut', id: 'own', start: 0, end: 3, kind: 'break', held: false, own: { search: ['gate'] } }; // prettier-ignore
    const scenes = (marks: LineMark[]) => breakScenes([section('ground', line('It rained all night long in the hills.'), line(text, { marks }))], clock, { frame: '16:9' }); // prettier-ignore
    expect(scenes([own]).map((s) => s.why)).to.not.include('writer');
    expect(scenes([{ ...own, own: {} }]).map((s) => s.why)).to.include('writer');
  });
});
