import { expect } from 'chai';
import fc from 'fast-check';
import {
  changedSinceRead,
  keptOf,
  kitOnRecording,
  recordingSchema,
  withoutLead,
  type Kit,
  type KeptRecording,
} from '../../src/handoff/index.ts';
import { edl } from '../../src/handoff/writers/edl.ts';
import { timeline } from '../../src/handoff/writers/otio.ts';
import { clockLines } from '../../src/script/index.ts';
import { clock } from '../tools.ts';
import { input, kitOf, line, section, toldKit } from './kit.ts';

const said = (kit: Kit) => kit.sections.flatMap((s) => s.lines).filter((l) => /\p{L}/u.test(l.text));
/** A recording in which every line takes `slower` times as long, with `rest` between lines and before the first. */
function read(kit: Kit, slower: number, rest: number): KeptRecording {
  let at = rest;
  const lines = said(kit).map((l) => {
    const startMs = Math.round(at);
    const endMs = Math.round(at + kit.times.get(l.id)!.ms * slower);
    at = endMs + rest;
    return { line: l.id, startMs, endMs, doubt: 0 };
  });
  return keptOf({ lines, ms: at }, kit.sections, 'take 1.wav', 'silence');
}
/** A recording with any seconds a line, some of none. */
const anyRead = (kit: Kit) =>
  fc
    .array(fc.tuple(fc.integer({ min: 0, max: 4000 }), fc.integer({ min: 0, max: 9000 })), {
      minLength: said(kit).length,
      maxLength: said(kit).length,
    })
    .map((spans) => {
      let at = 0;
      const lines = said(kit).map((l, i) => {
        const startMs = at + spans[i][0];
        at = startMs + spans[i][1];
        return { line: l.id, startMs, endMs: at, doubt: 0 };
      });
      return keptOf({ lines, ms: at + 1 }, kit.sections, 'take', 'silence');
    });

describe('a kit on a recording’s time', () => {
  let kit: Kit;
  let recording: KeptRecording;
  let heard: Kit;
  before(async () => {
    kit = await toldKit(90);
    recording = read(kit, 1.2, 500);
    heard = kitOnRecording(kit, recording);
  });

  it('has every line where it is heard', () => {
    for (const l of recording.lines) expect(heard.times.get(l.line)!.startMs).to.be.closeTo(l.startMs, 1);
  });
  it('has the same scenes, from nought to the recording’s end without gaps', () => {
    expect(heard.film.scenes.map((s) => s.text)).to.deep.equal(kit.film.scenes.map((s) => s.text));
    expect(heard.film.scenes[0].startMs).to.equal(0);
    expect(heard.film.scenes.at(-1)!.endMs).to.equal(recording.ms);
    heard.film.scenes.slice(1).forEach((s, i) => expect(s.startMs).to.equal(heard.film.scenes[i].endMs));
  });
  it('keeps effects on their words and within their scene', () => {
    heard.film.scenes.forEach((s, i) => {
      for (const cue of heard.film.pictures[i].sound)
        expect(cue.at * 1000).to.be.within(0, s.endMs - s.startMs + 50);
    });
  });
  it('has captions that begin with their line and never run over the end', () => {
    const starts = new Map(recording.lines.map((l) => [l.line, l.startMs]));
    for (const c of heard.captions) {
      expect(c.words[0].startMs).to.be.at.least(starts.get(c.lines[0])!);
      expect(c.endMs).to.be.at.most(recording.ms + 1);
    }
  });
  it('has its chapters from nought on, where it has any', () => {
    const { chapters } = heard;
    if ('chapters' in chapters) {
      expect(chapters.chapters[0].startMs).to.equal(0);
      expect(chapters.chapters.at(-1)!.endMs).to.be.at.most(recording.ms);
    } else expect(chapters.refused).to.match(/Chapters/);
  });
  it('goes into the edit list and the timeline', () => {
    const end = /(\d\d:\d\d:\d\d:\d\d)\r\n\* FROM CLIP NAME: SCENE \d+\r\n[^\n]*\r\n$/.exec(
      edl.write(heard) as string,
    )![1];
    const seconds = end.split(':').map(Number);
    expect(seconds[1] * 60 + seconds[2] + seconds[3] / 25).to.be.closeTo(recording.ms / 1000, 0.04);
    const made = timeline(heard) as {
      metadata: { ursprung: { seconds: number } };
      tracks: { children: { children: { source_range: { duration: { value: number } } }[] }[] };
    };
    const [pictures] = made.tracks.children;
    expect(pictures.children.reduce((n, c) => n + c.source_range.duration.value, 0)).to.equal(
      Math.round((recording.ms * 25) / 1000),
    );
    expect(made.metadata.ursprung.seconds).to.equal(recording.ms / 1000);
  });
  it('never runs backwards and ends with the recording, whatever was heard (property)', () => {
    fc.assert(
      fc.property(anyRead(kit), (any) => {
        const { scenes } = kitOnRecording(kit, any).film;
        scenes.forEach((s, i) => {
          expect(s.endMs).to.be.greaterThan(s.startMs);
          if (i) expect(s.startMs).to.equal(scenes[i - 1].endMs);
        });
        expect(scenes.at(-1)!.endMs).to.equal(any.ms);
      }),
      { numRuns: 40 },
    );
  });
});

describe('a recording kept with a script', () => {
  const sections = [section('One', line('The lift rose.'), line('It fell again.'))];
  const kit = kitOf(sections);
  const kept = read(kit, 1, 300);

  it('times the whole kit, and says so', () => {
    const timed = kitOf(sections, { recording: kept });
    expect(timed.totalMs).to.equal(kept.ms);
    expect(timed.input.recording!.name).to.equal('take 1.wav');
    expect(input(sections).recording).to.equal(undefined);
  });
  it('knows how many lines are no longer as read', () => {
    expect(changedSinceRead(kept, sections)).to.equal(0);
    const [s] = sections;
    expect(
      changedSinceRead(kept, [{ ...s, lines: [s.lines[0], { ...s.lines[1], text: 'It fell.' }] }]),
    ).to.equal(1);
    expect(changedSinceRead(kept, [{ ...s, lines: [s.lines[0]] }])).to.equal(1);
    expect(changedSinceRead(kept, [{ ...s, lines: [...s.lines, line('Nobody saw it.')] }])).to.equal(1);
  });
  it('is refused where its lines run backwards or last longer than a day', () => {
    expect(recordingSchema.safeParse(kept).success).to.equal(true);
    const [a, b] = kept.lines;
    expect(recordingSchema.safeParse({ ...kept, lines: [b, a] }).success).to.equal(false);
    expect(recordingSchema.safeParse({ ...kept, ms: 90_000_000 }).success).to.equal(false);
    expect(recordingSchema.safeParse({ ...kept, lines: [] }).success).to.equal(false);
  });
  it('begins with the recording: nothing is added before the first word', () => {
    const lines = clockLines(sections);
    const [own, bare] = [clock.lines(lines), withoutLead(clock).lines(lines)];
    expect(own[0].ms - bare[0].ms).to.equal(clock.voice.leadMs);
    expect(bare[1].startMs).to.equal(bare[0].ms);
  });
});
