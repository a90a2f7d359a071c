import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect } from 'chai';
import { run } from './command.ts';

const root = fileURLToPath(new URL('../..', import.meta.url));
const demo = (name: string) => join(root, 'demo/data/sources', name);

/** A RIFF WAVE file of silence: 8 kHz, one channel, 8 bits (Multimedia Programming Interface and Data Specifications 1.0, 1991). */
function silence(seconds: number): Uint8Array {
  const samples = Math.round(seconds * 8000);
  const bytes = Buffer.alloc(44 + samples, 128);
  bytes.write('RIFF', 0);
  bytes.writeUInt32LE(36 + samples, 4);
  bytes.write('WAVEfmt ', 8);
  bytes.writeUInt32LE(16, 16);
  bytes.writeUInt16LE(1, 20);
  bytes.writeUInt16LE(1, 22);
  bytes.writeUInt32LE(8000, 24);
  bytes.writeUInt32LE(8000, 28);
  bytes.writeUInt16LE(1, 32);
  bytes.writeUInt16LE(8, 34);
  bytes.write('data', 36);
  bytes.writeUInt32LE(samples, 40);
  return bytes;
}

describe('the command line', function () {
  this.timeout(180_000);
  let folder: string;
  before(() => void (folder = mkdtempSync(join(tmpdir(), 'ursprung-cli-'))));
  after(() => rmSync(folder, { recursive: true, force: true }));

  const file = (name: string, content: string | Uint8Array) => {
    const path = join(folder, name);
    writeFileSync(path, content);
    return path;
  };
  /** Exit 1, nothing on stdout, one clear line on stderr. */
  const fails = async (args: string[], says: RegExp) => {
    const { status, out, err } = await run(...args);
    expect([status, out], err).to.deep.equal([1, '']);
    expect(err.trim().split('\n')).to.have.length(1);
    expect(err).to.match(says);
  };

  it('reads a source into facts', async () => {
    const { status, out } = await run('read', demo('footbridge.html'));
    const read = JSON.parse(out);
    expect([status, read.kind, read.published]).to.deep.equal([0, 'news', '2025-11-09']);
    expect(read.facts[0]).to.include.keys('id', 'text', 'numbers', 'dates', 'names', 'strength');
    expect(read.quotes.length).to.be.greaterThan(3);
  });

  it('drafts, checks, breaks into scenes and exports', async () => {
    const drafted = await run('draft', demo('eels.txt'), '--seconds', '90', '--title', 'Eels', '--seed', '3');
    const script = JSON.parse(drafted.out);
    expect(script.seconds).to.be.within(89.1, 90.9);
    expect([script.title, script.target, script.shape]).to.deep.equal([
      'Eels',
      { kind: 'point', seconds: 90 },
      'study',
    ]);
    const path = file('eels.json', drafted.out);
    const check = JSON.parse((await run('check', path)).out);
    expect(check.seconds).to.equal(script.seconds);
    expect(check.unsupported).to.deep.equal([]);
    expect(check.overlap.share).to.be.within(0, 1);
    const scenes = JSON.parse((await run('scenes', path)).out);
    expect([scenes[0].start, scenes.at(-1).end]).to.deep.equal([0, script.seconds]);
    for (const scene of scenes)
      expect(scene).to.include.keys('id', 'search', 'description', 'cast', 'setting', 'sound', 'onScreen');
    const fewer = JSON.parse((await run('scenes', path, '--pictures', '12')).out);
    expect(fewer.length).to.be.within(10, 14);
    expect((await run('scenes', path, '--pictures', 'many')).err).to.contain('Say how many pictures');
    const otio = JSON.parse((await run('export', path, '--as', 'otio', '--rate', '29.97')).out);
    expect(otio.OTIO_SCHEMA).to.equal('Timeline.1');
    expect((await run('export', path, '--as', 'chapters')).out).to.match(/^0:00 \S|^$/);
    expect(
      (await run('export', path, '--as', 'kit', '--for', 'voice', '--out', join(folder, 'kit.zip'))).status,
    ).to.equal(0);
    expect(readFileSync(join(folder, 'kit.zip')).subarray(0, 2).toString()).to.equal('PK');
    const srt = (await run('export', path, '--as', 'srt')).out;
    expect(srt).to.match(/^1\n00:00:00,000 --> /);
    // Captions of a recording that begins two seconds late: everything stands two seconds later.
    const late = file(
      'take.srt',
      srt.replace(
        /(\d\d):(\d\d):(\d\d),/g,
        (_, h: string, m: string, s: string) =>
          new Date((Number(h) * 3600 + Number(m) * 60 + Number(s) + 2) * 1000).toISOString().slice(11, 19) +
          ',',
      ),
    );
    const heard = JSON.parse((await run('export', path, '--as', 'otio', '--recording', late)).out);
    expect(heard.metadata.ursprung.timed_by).to.equal('take.srt');
    expect(heard.metadata.ursprung.seconds).to.be.closeTo(otio.metadata.ursprung.seconds + 2, 1.5);
    await fails(
      ['export', path, '--as', 'otio', '--recording', file('noise.wav', 'no sound')],
      /noise\.wav: /,
    );
    const out = join(folder, 'eels.md');
    expect((await run('export', path, '--as', 'markdown', '--out', out)).status).to.equal(0);
    expect(readFileSync(out, 'utf8')).to.match(/^# Eels/);
  });

  it('times files at a pace, one object a line', async () => {
    const path = file('a.txt', 'The lift has failed once. It cost £5.');
    const rows = (await run('time', path, path, '--pace', '150')).out
      .trim()
      .split('\n')
      .map((l) => JSON.parse(l));
    expect(rows).to.have.length(2);
    expect(rows[0]).to.include({ words: 8, spokenWords: 9 });
    expect(rows[0].seconds).to.be.greaterThan(
      JSON.parse((await run('time', path, '--pace', '190')).out).seconds,
    );
  });

  it('calibrates a voice on pairs of text and recording, which then times other text', async () => {
    const pairs = mkdtempSync(join(folder, 'voice-'));
    const texts = ['The lift failed once.', 'Nobody was hurt, but the boat hung for sixty-one days.', 'Why?'];
    const said = Array.from({ length: 9 }, (_, i) => `${texts[i % 3]} Boat number ${i + 2} went home.`);
    const files = said.map((text, i) => file(`r${i}.txt`, text));
    const timed = (await run('time', ...files)).out.trim().split('\n');
    said.forEach((text, i) => {
      writeFileSync(join(pairs, `r${i}.txt`), text);
      // A reader at twice the time of the even voice: silence of the right length is all a clock needs.
      writeFileSync(join(pairs, `r${i}.wav`), silence((JSON.parse(timed[i]).seconds as number) * 2));
    });
    writeFileSync(join(pairs, 'alone.txt'), 'No recording.');
    const voice = await run('calibrate', pairs);
    expect(JSON.parse(voice.out).calibration.recordings).to.equal(9);
    const text = file('other.txt', 'The gate was shut in the night, and nobody knew who had the key.');
    const slow = JSON.parse((await run('time', text, '--voice', file('v.json', voice.out))).out);
    const even = JSON.parse((await run('time', text)).out);
    expect(slow.seconds / even.seconds).to.be.closeTo(2, 0.03);
    await fails(['calibrate', mkdtempSync(join(folder, 'empty-'))], /No pair of NAME\.txt and NAME\.wav/);
  });

  it('cleans a draft', async () =>
    expect((await run('clean', file('d.txt', '# Hook\n[music]\nNarrator: The lift failed.'))).out).to.equal(
      'The lift failed.\n',
    ));

  it('revises a script by a note: what was understood, what would change, the script as it would be', async () => {
    const script = file(
      'revised.json',
      (await run('draft', demo('footbridge.html'), '--seconds', '120')).out,
    );
    const { status, out } = await run('revise', script, '--note', 'drop the last line');
    const revised = JSON.parse(out);
    expect([status, revised.understood.operation]).to.deep.equal([0, 'drop']);
    expect(revised.changes).to.have.length(1);
    expect(revised.changes[0]).to.include({ after: '' });
    expect(revised.secondsAfter).to.be.lessThan(revised.secondsBefore);
    expect(revised.script.seconds).to.equal(revised.secondsAfter);
    const lines = (f: { sections: { lines: unknown[] }[] }) => f.sections.flatMap((s) => s.lines);
    const before = JSON.parse(readFileSync(script, 'utf8'));
    expect(lines(revised.script).slice(0, -1)).to.deep.equal(lines(before).slice(0, -2));
    // Told anew from the sources inside the script file.
    const another = JSON.parse(
      (await run('revise', script, '--note', 'another take of the second section')).out,
    );
    expect(another.understood).to.deep.equal({ operation: 'another-take', scope: 'the second section' });
    await fails(['revise', script, '--note', 'make it pop'], /don’t know this change/);
    await fails(
      ['revise', script, '--note', 'drop the part about penguins'],
      /Nothing here is about penguins.*taken to mean/,
    );
    await fails(['revise', script], /Say what should change/);
    await fails(['revise', file('plain.txt', 'Only words.'), '--note', 'shorter'], /no script file/);
  });

  it('opens a script file of version 1 as it is: its facts keep their ids, its lines their links', async () => {
    const script = JSON.parse((await run('draft', demo('footbridge.html'), '--seconds', '60')).out);
    const { brief: _, ...old } = script;
    // As files were: version 1, facts named by their place.
    const ids = new Map<string, string>(
      script.sources[0].facts.map((f: { id: string }, i: number) => [f.id, `f${i + 1}`]),
    );
    let text = JSON.stringify({ ...old, version: 1 });
    for (const [now, then] of ids) text = text.replaceAll(`"${now}"`, `"${then}"`);
    const path = file('version-1.json', text);
    const revised = JSON.parse((await run('revise', path, '--note', 'drop the last line')).out);
    expect(revised.script.version).to.equal(2);
    const lines = (f: { sections: { lines: { text: string; from: object[] }[] }[] }) =>
      f.sections.flatMap((s) => s.lines.map(({ text: says, from }) => ({ says, from })));
    expect(lines(revised.script)).to.deep.equal(lines(JSON.parse(text)).slice(0, -1));
    const another = JSON.parse(
      (await run('revise', path, '--note', 'another take of the second section')).out,
    );
    const known = new Set(ids.values());
    for (const line of lines(another.script))
      for (const { fact } of line.from as { fact?: string }[])
        if (fact) expect(known.has(fact), fact).to.equal(true);
  });

  it('tells anew by the brief that the script file carries', async () => {
    const drafted = (
      await run(
        'draft',
        demo('footbridge.html'),
        '--seconds',
        '90',
        '--avoid',
        'contractor',
        '--spelling',
        'American',
      )
    ).out;
    expect(JSON.parse(drafted).brief).to.include({ spelling: 'American' });
    const path = file('brief.json', drafted);
    const { script } = JSON.parse(
      (await run('revise', path, '--note', 'another take of the fourth section')).out,
    );
    expect(script.brief).to.deep.equal(JSON.parse(drafted).brief);
    const said = script.sections
      .flatMap((s: { lines: { text: string }[] }) => s.lines.map((l) => l.text))
      .join(' ');
    expect(said).to.not.match(/\bharbour|metres\b/);
    expect(said).to.not.match(/\bcontractors?\b/i);
  });

  it('checks plain text without a source: no overlap, nothing unsupported', async () => {
    const check = JSON.parse(
      (await run('check', file('p.txt', 'The lift failed in 1907. Nobody was hurt.'))).out,
    );
    expect([check.overlap, check.unsupported]).to.deep.equal([null, []]);
    const against = JSON.parse((await run('check', join(folder, 'p.txt'), '--source', demo('eels.txt'))).out);
    expect(against.unsupported.map((u: { text: string }) => u.text)).to.include('1907');
  });

  it('refuses bad input with one clear line', async () => {
    await fails(['draft', demo('eels.txt'), '--seconds', '0'], /between 15 and 1500/);
    await fails(['draft', demo('eels.txt'), '--seconds', '36000'], /between 15 and 1500/);
    await fails(['draft', demo('eels.txt'), '--seconds', 'soon'], /length in seconds/);
    await fails(['draft', demo('eels.txt'), '--seconds', '600'], /carries \d:\d\d at most/);
    await fails(['draft', demo('eels.txt'), '--seconds', '60', '--mood', 'odd'], /--mood is one of/);
    await fails(['read', file('empty.txt', '')], /no words/);
    await fails(
      ['read', file('picture.png', Uint8Array.from([137, 80, 78, 71, 0, 0, 0, 1, 2, 0]))],
      /not text/,
    );
    await fails(['read', join(folder, 'missing.txt')], /can't be found/);
    await fails(['export', file('broken.json', '{"version": 1'), '--as', 'srt'], /not whole/);
    await fails(['export', file('other.json', '{"a": 1}'), '--as', 'srt'], /no script file/);
    await fails(['calibrate', folder], /No pair/);
    await fails(['frobnicate'], /no command/);
    await fails(['read'], /Name one source file/);
  });
});
