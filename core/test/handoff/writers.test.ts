/** Every file is read back by a library that is not ours, or checked against a published schema. */
import { createHash } from 'node:crypto';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Ajv2020 from 'ajv/dist/2020.js';
import { expect } from 'chai';
import fc from 'fast-check';
import { Fountain } from 'fountain-js';
import { fromXML } from 'imsc/src/main/js/doc.js';
import JSZip from 'jszip';
import mammoth from 'mammoth';
import { parseText } from 'media-captions';
import Papa from 'papaparse';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import readExcel from 'read-excel-file/node';
import SmpteTimecode from 'smpte-timecode';
import { parseSync } from 'subtitle';
import { xliff2js } from 'xliff';
import {
  FRAME_RATES,
  RATES,
  fileName,
  frameOf,
  makeKit,
  pack,
  ssmlFiles,
  timecode,
  writerById,
  writers,
  zipped,
  type Kit,
} from '../../src/handoff/index.ts';
import { scriptFileSchema, sectionsOfFile } from '../../src/script/index.ts';
import { faces } from '../../src/handoff/writers/paper.ts';
import { SCENE_COLUMNS } from '../../src/handoff/writers/sceneRows.ts';
import { input, kitOf, line, section, toldKit, tools } from './kit.ts';

const NASTY = 'A “quote” & a <tag>, a --> arrow; 5 * 3 = 15, =SUM(A1) \u0007 [link](x) ]]> {b} \\ end.';
interface OtioTrack {
  children: {
    OTIO_SCHEMA: string;
    metadata: { ursprung: { description: string } };
    source_range: { duration: { value: number; rate: number } };
  }[];
}
interface Otio {
  OTIO_SCHEMA: string;
  tracks: { children: OtioTrack[]; markers: { name: string }[] };
}
const words = (text: string) => text.replace(/\s+/g, ' ').trim();

/** Runs a program of Debian's on files; its complaints are the failure. */
function run(
  program: string,
  args: (folder: string) => string[],
  files: Record<string, string | Uint8Array>,
): string {
  const folder = mkdtempSync(join(tmpdir(), 'ursprung-read-'));
  try {
    for (const [name, content] of Object.entries(files)) writeFileSync(join(folder, name), content);
    return execFileSync(program, args(folder), { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

describe('writers', () => {
  let kit: Kit;
  let nasty: Kit;
  const write = async (id: string, from = kit) => writerById(id)!.write(from);
  const text = async (id: string, from = kit) => (await write(id, from)) as string;
  before(async () => {
    kit = await toldKit(120);
    nasty = kitOf([
      section(
        'One; two = # three',
        line(NASTY, { restMs: 700 }),
        line('Is it “true”?', { speaker: 'Ann & Bob' }),
      ),
      section(
        'A -- second',
        line('', { fixedMs: 2500 }),
        line('In 1961 it cost £410,000 and weighed 310 tonnes.'),
      ),
      section('', line('That is the end of it, and nobody said another word about it that night.')),
    ]);
  });

  it('have ids of their own', () => expect(new Set(writers.map((w) => w.id)).size).to.equal(writers.length));
  it('text: the narration alone, a paragraph a section', async () => {
    const paragraphs = (await text('text')).trim().split('\n\n');
    expect(paragraphs).to.have.length(kit.sections.length);
    expect(words(paragraphs.join(' '))).to.equal(
      words(kit.sections.flatMap((s) => s.lines.map((l) => l.text)).join(' ')),
    );
  });
  it('Markdown: what would be read as marks is escaped', async () => {
    expect(await text('markdown', nasty)).to.include('5 \\* 3');
  });

  it('SubRip: two readers see the captions, words and times', async () => {
    for (const from of [kit, nasty]) {
      const srt = await text('srt', from);
      const cues = parseSync(srt).filter((n) => n.type === 'cue');
      expect(cues.map((c) => c.data.start)).to.deep.equal(from.captions.map((c) => c.startMs));
      expect(cues.every((c, i) => i === 0 || c.data.start >= cues[i - 1].data.end)).to.equal(true);
      const second = await parseText(srt, { type: 'srt' });
      expect(second.errors).to.deep.equal([]);
      expect(second.cues).to.have.length(cues.length);
    }
    const said = words(
      parseSync(await text('srt'))
        .flatMap((n) => (n.type === 'cue' ? [n.data.text] : []))
        .join(' '),
    );
    expect(said).to.equal(words(kit.sections.flatMap((s) => s.lines.map((l) => l.text)).join(' ')));
  });
  it('WebVTT: a strict reader finds no error; speakers, margins and a time on every word', async () => {
    for (const id of ['vtt', 'karaoke'])
      for (const from of [kit, nasty]) {
        const { cues, errors } = await parseText(await text(id, from), { type: 'vtt', strict: true });
        expect(
          errors.map((e) => e.message),
          id,
        ).to.deep.equal([]);
        expect(cues).to.have.length((id === 'vtt' ? from.captions : from.quick).length);
        expect(cues.every((c) => c.line !== 'auto')).to.equal(true);
      }
    expect(await text('vtt', nasty)).to.include('<v Ann &amp; Bob>');
    expect((await text('karaoke')).match(/<\d\d:\d\d:\d\d\.\d{3}>/g)!.length).to.be.greaterThan(100);
  });
  it('TTML: read as IMSC by imsc, without a complaint, with region and every row', async () => {
    for (const from of [kit, nasty]) {
      const complaints: string[] = [];
      const handler = {
        info: () => undefined,
        warn: (m: string) => void complaints.push(m),
        error: (m: string) => void complaints.push(m),
        fatal: (m: string) => void complaints.push(m),
      };
      const tt = fromXML(await text('ttml', from), handler as never);
      expect(complaints).to.deep.equal([]);
      expect(
        Object.keys((tt as unknown as { head: { layout: { regions: object } } }).head.layout.regions),
      ).to.include('r1');
      const times = (tt as unknown as { getMediaTimeEvents: () => number[] }).getMediaTimeEvents();
      for (const c of from.captions)
        expect(times.some((t) => Math.abs(t - c.startMs / 1000) < 0.001)).to.equal(true);
    }
  });

  it('SSML: its body is valid by the W3C’s own DTD (VoiceXML 2.1, whose prompts are SSML)', async () => {
    const dtd = '/usr/share/xml/w3c-sgml-lib/schema/dtd/REC-voicexml21-20070619/vxml.dtd';
    for (const from of [kit, nasty]) {
      const ssml = await text('ssml', from);
      const body = /<speak[^>]*>([\s\S]*)<\/speak>/.exec(ssml)![1];
      const vxml = `<?xml version="1.0" encoding="UTF-8"?>\n<!DOCTYPE vxml SYSTEM "${dtd}">\n<vxml version="2.1" xmlns="http://www.w3.org/2001/vxml"><form><block><prompt>${body}</prompt></block></form></vxml>`;
      run('xmllint', (f) => ['--noout', '--valid', '--nonet', join(f, 'x.vxml')], { 'x.vxml': vxml });
      expect(ssml).to.match(
        /<speak xmlns="http:\/\/www\.w3\.org\/2001\/10\/synthesis" version="1\.1" xml:lang="en-GB">/,
      );
    }
  });
  it('SSML: a synthesizer speaks it, about as long as the clock says', async () => {
    const from = kitOf([
      section(
        'One',
        line('It was opened on the 3rd of May 1889.', { restMs: 1500 }),
        line('It is still in daily use.'),
      ),
    ]);
    const folder = mkdtempSync(join(tmpdir(), 'ursprung-say-'));
    try {
      writeFileSync(join(folder, 'a.ssml'), await text('ssml', from));
      execFileSync('espeak-ng', [
        '-m',
        '-v',
        'en-gb',
        '-s',
        '150',
        '-f',
        join(folder, 'a.ssml'),
        '-w',
        join(folder, 'a.wav'),
      ]);
      const size = execFileSync('stat', ['-c', '%s', join(folder, 'a.wav')], { encoding: 'utf8' });
      const seconds = (Number(size) - 44) / (22_050 * 2);
      expect(seconds).to.be.within((from.totalMs / 1000) * 0.75, (from.totalMs / 1000) * 1.35);
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });
  it('SSML: long scripts come in files below a limit, never cut inside a sentence', () => {
    const files = ssmlFiles(kit, 900);
    expect(files.length).to.be.greaterThan(3);
    for (const f of files) expect(f.text.length, f.name).to.be.at.most(900);
    const sentences = (t: string) => t.match(/<s>[\s\S]*?<\/s>/g) ?? [];
    expect(files.flatMap((f) => sentences(f.text))).to.deep.equal(sentences(ssmlFiles(kit, 1e6)[0].text));
  });
  it('PLS: well-formed, one lexeme a word with one phoneme or alias (PLS 1.0, section 4, from memory)', async () => {
    const pls = await text('pls');
    run('xmllint', (f) => ['--noout', join(f, 'a.pls')], { 'a.pls': pls });
    const lexemes = pls.match(/<lexeme>[\s\S]*?<\/lexeme>/g)!;
    expect(lexemes.length).to.equal(kit.sayings.length);
    for (const l of lexemes)
      expect(l.replace(/\s+/g, '')).to.match(
        /^<lexeme><grapheme>[^<]+<\/grapheme>(?:<phoneme>[^<]+<\/phoneme>|<alias>[^<]+<\/alias>)<\/lexeme>$/,
      );
  });

  it('XLIFF: read by xliff, a unit a line with its seconds as a note', async () => {
    const read = (await xliff2js(await text('xliff', nasty))) as {
      sourceLanguage: string;
      targetLanguage: string;
      resources: Record<string, Record<string, unknown>>;
    };
    expect([read.sourceLanguage, read.targetLanguage]).to.deep.equal(['en-GB', 'es']);
    const all = JSON.stringify(read.resources);
    expect(all).to.include('Is it “true”?');
    expect(await text('xliff', nasty)).to.match(/<note category="seconds">\d+\.\d s spoken/);
  });

  it('OTIO: schema names, rates and gapless tracks of the serialized format (from memory), at every rate', async () => {
    for (const rate of FRAME_RATES) {
      const from = makeKit({ ...kit.input, rate }, tools);
      const otio = JSON.parse(await text('otio', from)) as Otio;
      expect(otio.OTIO_SCHEMA).to.equal('Timeline.1');
      const [pictures, captions, narration] = otio.tracks.children;
      const frames = (t: OtioTrack) =>
        t.children.reduce((n: number, c) => n + c.source_range.duration.value, 0);
      const whole = Math.round((from.totalMs * RATES[rate].num) / (RATES[rate].den * 1000));
      expect([frames(pictures), frames(narration)]).to.deep.equal([whole, whole]);
      expect(frames(captions)).to.be.at.most(whole + 7 * RATES[rate].base);
      for (const t of [pictures, captions, narration])
        for (const c of t.children) {
          expect(c.OTIO_SCHEMA).to.be.oneOf(['Clip.2', 'Gap.1']);
          expect(Number.isInteger(c.source_range.duration.value)).to.equal(true);
          expect(c.source_range.duration.rate).to.be.closeTo(RATES[rate].num / RATES[rate].den, 1e-9);
        }
      expect(otio.tracks.markers.some((m: { name: string }) => m.name.startsWith('music'))).to.equal(true);
      expect(pictures.children[0].metadata.ursprung.description).to.equal(from.film.pictures[0].description);
    }
  });
  it('CMX 3600: events in the columns of the format, record times end to end, drop-frame where the rate says', async () => {
    const edl = await text('edl', makeKit({ ...kit.input, rate: '29.97' }, tools));
    expect(edl).to.match(/^TITLE: .*\r\nFCM: DROP FRAME\r\n/);
    const events = [...edl.matchAll(/^(\d{3}) {2}AX {7}V {5}C {8}(\S{11}) (\S{11}) (\S{11}) (\S{11})\r$/gm)];
    expect(events).to.have.length(kit.film.scenes.length);
    events.forEach((e, i) => {
      expect(Number(e[1])).to.equal(i + 1);
      if (i) expect(e[4]).to.equal(events[i - 1][5]);
      expect(frameOf(e[5], '29.97') - frameOf(e[4], '29.97')).to.equal(
        frameOf(e[3], '29.97') - frameOf(e[2], '29.97'),
      );
    });
  });
  it('time code: the worked values of SMPTE ST 12-1’s drop-frame count (from memory), and smpte-timecode for every minute of an hour', () => {
    for (const [frame, code] of [
      [0, '00:00:00;00'],
      [1799, '00:00:59;29'],
      [1800, '00:01:00;02'],
      [17_981, '00:09:59;29'],
      [17_982, '00:10:00;00'],
      [107_892, '01:00:00;00'],
    ] as const)
      expect(timecode(frame, '29.97')).to.equal(code);
    for (const [rate, theirs] of [
      ['29.97', 29.97],
      ['25', 25],
      ['24', 24],
      ['30', 30],
    ] as const)
      for (let frame = 0; frame < 108_000; frame += 997) {
        const other = new SmpteTimecode(frame, theirs, rate === '29.97').toString();
        expect(timecode(frame, rate)).to.equal(other);
        expect(frameOf(other, rate)).to.equal(frame);
      }
    expect(() => frameOf('00:01:00;00', '29.97')).to.throw(RangeError);
  });
  it('ffmetadata: ffmpeg reads the chapters and their titles', async () => {
    const out = run('ffmpeg', (f) => ['-v', 'error', '-i', join(f, 'a.txt'), '-f', 'ffmetadata', '-'], {
      'a.txt': await text('ffmetadata', nasty),
    });
    expect(out.match(/\[CHAPTER\]/g)).to.have.length(3);
    expect(out).to.include('title=One\\; two \\= \\# three');
  });
  it('chapters: 0:00 first, titles as they are; refused with the reason where they can’t be', async () => {
    expect((await text('chapters')).split('\n')[0]).to.match(/^0:00 \S/);
    expect(() => writerById('chapters')!.write(nasty)).to.throw(/at least 10 s can’t be made/);
  });

  it('Fountain: read by fountain-js: scenes, action and dialogue', async () => {
    const { tokens } = new Fountain().parse(await text('fountain', kit), true);
    const of = (type: string) => tokens.filter((t) => t.type === type);
    expect(of('scene_heading')).to.have.length(kit.film.scenes.length);
    expect(
      words(
        of('dialogue')
          .map((t) => t.text)
          .join(' '),
      ),
    ).to.equal(words(kit.film.scenes.map((s) => s.text).join(' ')));
    expect(of('character').every((t) => t.text === 'NARRATOR')).to.equal(true);
  });
  it('CSV: read by papaparse, a row a scene, no cell that a spreadsheet would run', async () => {
    const { data, errors } = Papa.parse<string[]>(await text('csv', nasty), { skipEmptyLines: true });
    expect(errors).to.deep.equal([]);
    expect(data[0].map((c) => c.replace(/^\uFEFF/, ''))).to.deep.equal([...SCENE_COLUMNS]);
    expect(data).to.have.length(nasty.film.scenes.length + 1);
    for (const row of data.slice(1)) for (const cell of row) expect(cell).to.not.match(/^[=+@\t\r]/);
    const seconds = data.slice(1).reduce((n, r) => n + Number(r[2]), 0);
    expect(Math.abs(seconds * 1000 - nasty.totalMs)).to.be.below(10);
  });
  it('XLSX: read by read-excel-file: scenes with numbers as numbers', async () => {
    const rows = (await readExcel(Buffer.from((await write('xlsx')) as Uint8Array))) as unknown as
      { sheet: string; data: unknown[][] }[] | unknown[][];
    const data = Array.isArray(rows[0]) ? (rows as unknown[][]) : (rows as { data: unknown[][] }[])[0].data;
    expect(data).to.have.length(kit.film.scenes.length + 1);
    expect(data[1][2]).to.be.a('number');
    expect(data[1][6]).to.equal(kit.film.scenes[0].text);
  });
  it('DOCX: read by mammoth: every line, titles as headings', async () => {
    const { value } = await mammoth.convertToHtml({
      buffer: Buffer.from((await write('docx')) as Uint8Array),
    });
    for (const s of kit.sections) expect(value).to.include(s.title);
    expect(value.match(/<h2/g)!.length).to.be.at.least(kit.sections.length);
  });
  it('two columns as DOCX: read by mammoth: a table with a row a scene, every word of it', async () => {
    const { value } = await mammoth.convertToHtml({
      buffer: Buffer.from((await write('twocolumn-docx')) as Uint8Array),
    });
    expect(value.match(/<tr>/g)!.length).to.be.at.least(kit.film.scenes.length + 1);
    const bare = (t: string) => t.replace(/<[^>]+>|&\w+;/g, ' ').replace(/[^\p{L}]+/gu, '');
    for (const s of kit.film.scenes) expect(bare(value)).to.include(bare(s.text));
  });
  it('PDF: read by pdf.js: every word, in order, on pages that none runs off', async () => {
    for (const id of ['pdf', 'twocolumn']) {
      const bytes = (await write(id)) as Uint8Array;
      const pdf = await getDocument({ data: new Uint8Array(bytes), useSystemFonts: false, verbosity: 0 })
        .promise;
      let all = '';
      for (let p = 1; p <= pdf.numPages; p++) {
        const page = await pdf.getPage(p);
        const { items } = await page.getTextContent();
        for (const item of items as { str: string; transform: number[]; width: number }[]) {
          all += `${item.str} `;
          expect(item.transform[4], id).to.be.at.least(0);
          expect(item.transform[4] + item.width, id).to.be.at.most(596);
          expect(item.transform[5], id).to.be.within(10, 842);
        }
      }
      const bare = (t: string) => t.replace(/[^\p{L}]/gu, '');
      for (const l of kit.sections.flatMap((s) => s.lines))
        for (const w of l.text.match(/\p{L}{4,}/gu) ?? []) expect(bare(all), id).to.include(w);
    }
  });

  it('PDF: letters go to the face that has them, marks with their letter, words of right-to-left text in one run', () => {
    const of = (t: string) => faces(t, tools.fonts).map((f) => f.text);
    expect(of('Plain “text” – all of it.')).to.deep.equal(['Plain “text” – all of it.']);
    expect(of('पुल बंद, है')).to.deep.equal(['पुल', ' ', 'बंद', ', ', 'है']);
    expect(of('أُغلق الجسر.')).to.deep.equal(['أُغلق الجسر', '.']);
  });

  it('the script file fits its own schema (ajv), and reads back as the same script', async () => {
    const ajv = new Ajv2020({ strict: false });
    const check = ajv.compile(JSON.parse(await text('schema')) as object);
    for (const from of [kit, nasty]) {
      const file = JSON.parse(await text('json', from)) as unknown;
      expect(check(file), JSON.stringify(check.errors)).to.equal(true);
      const back = sectionsOfFile(scriptFileSchema.parse(file));
      const again = kitOf(back, { settings: from.input.settings, printed: from.input.printed });
      expect(JSON.parse(await text('json', again))).to.deep.equal(file);
    }
  });
  it('the sources are CSL-JSON that citation-js cites', async () => {
    const { Cite } = await import('@citation-js/core');
    await import('@citation-js/plugin-csl');
    const items = JSON.parse(await text('csl')) as object[];
    expect(
      new Cite(items, { generateGraph: false }).format('bibliography', { template: 'apa', format: 'text' }),
    ).to.include('Pell Street footbridge');
  });

  it('a kit: read by JSZip, every file with the checksum its manifest says, names safe everywhere', async () => {
    const sha = (b: Uint8Array) => createHash('sha256').update(b).digest('hex');
    const packed = await pack(nasty, { digest: sha });
    const zip = await JSZip.loadAsync(zipped(packed));
    const manifest = JSON.parse(await zip.file('manifest.json')!.async('string')) as {
      files: { name: string; sha256: string; bytes: number }[];
      left: { format: string }[];
    };
    expect(manifest.files.length + manifest.left.length).to.equal(writers.length);
    expect(manifest.left.map((l) => l.format)).to.deep.equal(['chapters']);
    for (const f of manifest.files) {
      const bytes = await zip.file(f.name)!.async('uint8array');
      expect([sha(bytes), bytes.length]).to.deep.equal([f.sha256, f.bytes]);
      expect(f.name).to.match(/^[a-z0-9-]+\.[a-z]+$/);
    }
    expect(new Set(manifest.files.map((f) => f.name)).size).to.equal(manifest.files.length);
  });
  it('names never make a path, nor a device of an old system', () => {
    expect(fileName('../../etc/passwd', 'txt')).to.equal('etc-passwd.txt');
    expect(fileName('😀', 'srt')).to.equal('script.srt');
    expect(fileName('CON', 'txt')).to.equal('con-script.txt');
    fc.assert(
      fc.property(fc.string(), (t) => void expect(fileName(t, 'txt')).to.match(/^[a-z0-9][a-z0-9-]*\.txt$/)),
    );
  });
  it('whatever is written, XML stays well-formed (property)', () => {
    fc.assert(
      fc.property(
        fc.array(fc.string({ unit: 'binary', maxLength: 60 }), { minLength: 1, maxLength: 4 }),
        (texts) => {
          const from = makeKit(input([section('A', ...texts.map((t) => line(`word ${t}`)))]), tools);
          const all = ['ttml', 'ssml', 'pls', 'xliff'].map((id) => writerById(id)!.write(from) as string);
          run(
            'xmllint',
            (f) => ['--noout', ...all.map((_, i) => join(f, `${i}.xml`))],
            Object.fromEntries(all.map((t, i) => [`${i}.xml`, t])),
          );
        },
      ),
      { numRuns: 25, seed: 4 },
    );
  });
});
