import { expect } from 'chai';
import {
  captionFaults,
  captions,
  changedSince,
  laidByCaptions,
  laidBySilence,
  onRecording,
  paceOfRecording,
  proposedRests,
  sayingsOf,
  voiceBlocks,
} from '../../src/handoff/index.ts';
import { ipaOf, phoneCode, respelled } from '../../src/language/index.ts';
import { clockLines, type PlainSection } from '../../src/script/index.ts';
import { silencesIn, wavLevels } from '../../src/timing/index.ts';
import { espeak } from '../../../standins/src/index.ts';
import { clock, pronouncer } from '../tools.ts';
import { line, section } from './kit.ts';

const codes = (arpabet: string) => arpabet.split(' ').map(phoneCode);
const tools = { clock, pronouncer };

describe('how names are said', () => {
  // IPA by the ARPAbet table of the CMU dictionary; respelling as broadcasters' guides have it (common practice).
  for (const [arpabet, ipa, plain] of [
    ['W AO1 T ER0', 'ˈwɔːtɚ', 'WAW-tur'],
    ['B R IH1 JH', 'bɹɪdʒ', 'brij'],
    ['HH AH0 L OW1', 'həˈloʊ', 'huh-LOH'],
    ['K AH0 N EH1 K SH AH0 N', 'kəˈnɛkʃən', 'kuh-NEK-shuhn'],
  ] as const)
    it(`${arpabet}: /${ipa}/, ${plain}`, () =>
      expect([ipaOf(codes(arpabet)), respelled(codes(arpabet))]).to.deep.equal([ipa, plain]));
  it('come from the writer first, then the source, then the dictionary; else they are a guess', () => {
    const sections = [section('One', line('They asked Orrin, Vey, Quellmarsh and Robert about it.'))];
    const all = sayingsOf(
      sections,
      tools,
      [{ word: 'Vey', say: 'vay', ipa: 'veɪ' }],
      ['Orrin (pronounced OH-rin) was there.'],
    );
    expect(Object.fromEntries(all.map((s) => [s.word, s.from]))).to.deep.equal({
      Orrin: 'source',
      Vey: 'writer',
      Quellmarsh: 'guess',
      Robert: 'dictionary',
    });
    expect(all.find((s) => s.word === 'Orrin')!.respelled).to.equal('OH-rin');
  });
});

describe('the page to speak from', () => {
  const sections = [
    section(
      'One',
      line(
        'In 1889 it weighed 310 tonnes, which nobody believed, because the tower that held it was as thin as a reed.',
        { restMs: 900, marks: [{ type: 'stress', start: 24, end: 30 }] },
      ),
    ),
    section('Two', line('Is it shut?', { speaker: 'Ann' }), line('', { fixedMs: 2000 })),
  ];
  const blocks = voiceBlocks(sections, tools, []);
  it('has every word once, in order, with breaths only between them', () => {
    const text = blocks[0].lines[0].parts.map((p) => (p.type === 'breath' ? '' : p.text)).join('');
    expect(text).to.equal(sections[0].lines[0].text);
    expect(blocks[0].lines[0].parts.filter((p) => p.type === 'breath').length).to.be.within(1, 3);
  });
  it('says numbers as the clock counts them, marks stress, speakers and silence', () => {
    const [first] = blocks[0].lines;
    expect(
      first.parts.filter((p) => p.type === 'number').map((p) => p.type === 'number' && p.say),
    ).to.include('eighteen eighty-nine');
    expect(blocks[1].lines.map((l) => [l.speaker, l.silentMs])).to.deep.equal([
      ['Ann', null],
      ['', 2000],
    ]);
  });
  it('its seconds add up to the script’s', () => {
    expect(blocks.reduce((n, b) => n + b.ms, 0)).to.equal(
      clock.lines(clockLines(sections)).reduce((n, l) => n + l.ms, 0),
    );
  });
  it('proposes rests round titles, items and turns, and leaves locked lines and longer rests alone', () => {
    const script: PlainSection[] = [
      { ...section('Opening', line('Why did it stop?'), line('Nobody knew.')), role: 'hook' },
      {
        ...section('1. The cable', line('Number one.'), line('It parted.', { locked: true })),
        role: 'ground',
      },
      { ...section('The turn', line('Then it moved.', { restMs: 5000 })), role: 'turn' },
    ];
    const rests = proposedRests(script);
    expect(rests.map((r) => r.why)).to.deep.equal([
      'after a question',
      'before an item',
      'after an item’s number',
    ]);
    expect(rests.every((r) => r.restMs >= 400)).to.equal(true);
  });
});

describe('a recording laid against the script', () => {
  const script = [
    section(
      'One',
      line('The lift has failed once in a hundred and thirty years.'),
      line('It was a cold night in January.'),
      line('One of the cables parted while a boat was halfway up.'),
      line('Nobody was hurt.'),
      line('The keeper stopped the wheel with a wedge of oak, and waited for the morning.'),
    ),
  ];
  it('by its sound alone: lines placed by silences of a real voice (espeak-ng), near where they were spoken', async () => {
    // The truth: each line spoken by itself, laid end to end with rests of 0.6 s.
    const parts = await Promise.all(script[0].lines.map((l) => espeak('en-gb', 150).speak(l.text)));
    const bodies = parts.map((w) => Buffer.from(w).subarray(44));
    const rate = 22_050;
    const rest = Buffer.alloc(Math.round(rate * 0.6) * 2);
    const truth: number[] = [];
    let at = 0;
    const pieces = bodies.flatMap((b, i) => {
      truth.push((at / rate) * 1000);
      at += b.length / 2 + (i < bodies.length - 1 ? rest.length / 2 : 0);
      return i < bodies.length - 1 ? [b, rest] : [b];
    });
    const head = Buffer.from(parts[0]).subarray(0, 44);
    const wav = new Uint8Array(Buffer.concat([head, ...pieces]));
    const sound = wavLevels(wav);
    const laid = laidBySilence(script, clock, silencesIn(sound), sound.ms)!;
    expect(laid.lines).to.have.length(5);
    laid.lines.forEach((l, i) => expect(Math.abs(l.startMs - truth[i]), `line ${i + 1}`).to.be.below(450));
    expect(laid.differs).to.deep.equal([]);
    expect(paceOfRecording(150, laid)).to.be.within(100, 230);
  });
  it('says so when no silence marks an end: those lines are in doubt', () => {
    const laid = laidBySilence(script, clock, [], 16_000)!;
    expect(laid.doubtful).to.equal(5);
  });
  it('is refused where it can’t be of this script', () => {
    expect(laidBySilence(script, clock, [], 1000)).to.equal(null);
    expect(() =>
      wavLevels(new TextEncoder().encode('no sound here, but more than forty-four bytes of text')),
    ).to.throw(/not a WAV/);
  });
  it('by its captions: the words that differ, and the lines’ times', () => {
    const cues = [
      { startMs: 500, endMs: 4000, text: 'The lift has failed twice in a hundred and thirty years.' },
      { startMs: 4300, endMs: 6500, text: 'It was a cold night in January.' },
      { startMs: 6900, endMs: 10_000, text: 'One of the cables parted while a boat was halfway up.' },
      {
        startMs: 10_200,
        endMs: 15_000,
        text: 'The keeper stopped the wheel with a wedge of oak, and waited for the morning.',
      },
    ];
    const laid = laidByCaptions(script, clock, cues, 15_400)!;
    expect(laid.differs).to.deep.include({ line: script[0].lines[0].id, written: 'once', said: 'twice' });
    expect(laid.differs.some((d) => d.written === 'Nobody was hurt.' && d.said === '')).to.equal(true);
    expect(laid.lines[2].startMs).to.be.closeTo(6900, 30);
    expect(laid.lines[3].doubt).to.equal(1);
    expect(
      laidByCaptions(
        script,
        clock,
        [{ startMs: 0, endMs: 3000, text: 'Something else that nobody wrote down here.' }],
        3000,
      ),
    ).to.equal(null);
  });
});

describe('what has changed since it was handed over', () => {
  const timing = (sections: readonly PlainSection[]) =>
    clock.lines(clockLines(sections)).map(({ ms, words }) => ({ ms, words }));
  const before = { title: 'T', sections: [section('One', line('It fell.'), line('It rose.'))] };
  it('is nothing where nothing is', () =>
    expect(changedSince(before, before, timing)).to.include({ same: true }));
  it('is said in plain words', () => {
    const [s] = before.sections;
    const after = {
      title: 'U',
      sections: [
        {
          ...s,
          title: 'Two',
          lines: [
            { ...s.lines[0], text: 'It fell again and again.', restMs: 600 },
            s.lines[1],
            line('It stopped.'),
          ],
        },
      ],
    };
    const { says, byMs } = changedSince(before, after, timing);
    expect(says.slice(0, 4)).to.deep.equal([
      'The title was “T” and is “U”.',
      '1 line changed, 1 line new.',
      'Section “One” is called “Two”.',
      '1 rest of another length.',
    ]);
    expect(says[4]).to.equal(`${(byMs / 1000).toFixed(1)} s longer.`);
  });
});

describe('the script on a recording’s own time', () => {
  it('has captions where the words are heard, with no rule broken but what the speaker’s pace forbids', () => {
    const script = [
      section(
        'One',
        line('The lift has failed once.'),
        line('It was a cold night in January.'),
        line('Nobody was hurt.'),
      ),
    ];
    const laid = {
      ms: 9000,
      lines: [
        { line: script[0].lines[0].id, startMs: 800, endMs: 2600, doubt: 0 },
        { line: script[0].lines[1].id, startMs: 3400, endMs: 5600, doubt: 0 },
        { line: script[0].lines[2].id, startMs: 7000, endMs: 8200, doubt: 0 },
      ],
    };
    const bare = { ...clock, voice: { ...clock.voice, leadMs: 0, tailMs: 0 } };
    const list = captions(onRecording(script, laid), bare);
    expect(list.map((c) => c.rows.join(' '))).to.deep.equal(script[0].lines.map((l) => l.text));
    list.forEach((c, i) => expect(c.startMs).to.be.closeTo(laid.lines[i].startMs, 30));
    expect(captionFaults(list).filter((f) => f.fault !== 'hurried')).to.deep.equal([]);
  });
});
