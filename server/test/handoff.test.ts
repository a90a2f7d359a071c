/** Scenes, kits, translations on a real PostgreSQL. */
import { expect } from 'chai';
import { docFromJson, plainSections } from '@ursprung/core/script';
import JSZip from 'jszip';
import { freshServer, toldScript, type TestServer } from './helpers.ts';

describe('scenes, kits and translations over the API', () => {
  let server: TestServer;
  let scriptId: string;
  before(async () => {
    server = await freshServer();
    ({ scriptId } = await toldScript(server, 90));
  });
  after(() => server.stop());

  /** The events of a job until it is over. */
  async function events(path: string): Promise<{ state: string; stage: string; done: number; of: number }[]> {
    const answer = await server.raw('GET', path, undefined, { accept: 'text/event-stream' });
    const text = await answer.text();
    return [...text.matchAll(/^data: (.+)$/gm)].map((m) => JSON.parse(m[1]) as never);
  }
  const sections = async () => {
    const { doc } = (await server.get(`/scripts/${scriptId}`)).body;
    return plainSections(docFromJson(doc)).map((x) => ({ ...x, lines: x.lines.map((l) => ({ ...l })) }));
  };

  it('give a film of the script as the page has it: scenes that add up, a picture each, the cast', async () => {
    const { status, body } = await server.post(`/scripts/${scriptId}/film`, { sections: await sections() });
    expect(status).to.equal(200);
    expect(body.pictures).to.have.length(body.scenes.length);
    expect(body.scenes.at(-1).endMs).to.equal(body.totalMs);
    expect(body.cast.some((c: { name: string }) => /Okafor|Marrowgate|Pell Street/.test(c.name))).to.equal(
      true,
    );
  });
  it('what the writer says of the cast and the channel of its style is in every description', async () => {
    const { channelId, settingsRevision } = (await server.get(`/scripts/${scriptId}`)).body;
    await server.patch(`/channels/${channelId}`, { settings: { pictures: { style: 'ink and grey wash' } } });
    await server.patch(`/scripts/${scriptId}`, {
      revision: settingsRevision,
      settings: {
        cast: [{ name: 'Pell Street', kind: 'place', fields: { kind: 'a narrow street of brick' } }],
      },
    });
    const { pictures, cast } = (
      await server.post(`/scripts/${scriptId}/film`, { sections: await sections() })
    ).body;
    const street = cast.find((c: { name: string }) => c.name === 'Pell Street');
    for (const p of pictures) {
      expect(p.description).to.match(/Ink and grey wash\./);
      if (p.setting === street.id) expect(p.description).to.include('Pell Street, a narrow street of brick');
    }
  });
  it('a recording laid against the script times every file, until it is taken away; one that runs backwards is refused', async () => {
    const { body: before } = await server.get(`/scripts/${scriptId}/sheet`);
    const lines = before.blocks.flatMap((b: { lines: { id: string; silentMs: number | null }[] }) => b.lines);
    const said = lines.filter((l: { silentMs: number | null }) => l.silentMs === null);
    const recording = {
      name: 'take 3.wav',
      ms: said.length * 5000,
      by: 'silence',
      lines: said.map((l: { id: string }, i: number) => ({
        line: l.id,
        startMs: i * 5000,
        endMs: i * 5000 + 4600,
        mark: 0,
      })),
    };
    const set = async (value: unknown) => {
      const { settingsRevision } = (await server.get(`/scripts/${scriptId}`)).body;
      return server.patch(`/scripts/${scriptId}`, {
        revision: settingsRevision,
        settings: { handoff: { recording: value } },
      });
    };
    expect((await set({ ...recording, lines: [...recording.lines].reverse() })).status).to.equal(400);
    expect((await set(recording)).status).to.equal(200);
    const { body: heard } = await server.get(`/scripts/${scriptId}/sheet`);
    expect(heard.totalMs).to.equal(recording.ms);
    expect(heard.blocks.flatMap((b: { lines: { startMs: number }[] }) => b.lines)[1].startMs).to.equal(5000);
    const otio = JSON.parse(await (await server.raw('GET', `/scripts/${scriptId}/export/otio`)).text());
    expect(otio.metadata.ursprung).to.include({ seconds: recording.ms / 1000, timed_by: 'take 3.wav' });
    expect((await set(null)).status).to.equal(200);
    expect((await server.get(`/scripts/${scriptId}/sheet`)).body.totalMs).to.equal(before.totalMs);
  });
  it('a sheet: blocks, captions without a broken rule at 150 words a minute, chapters or the reason, the upload', async () => {
    const { body } = await server.get(`/scripts/${scriptId}/sheet`);
    expect(body.blocks.reduce((n: number, b: { ms: number }) => n + b.ms, 0)).to.equal(body.totalMs);
    expect(body.captionFaults).to.deep.equal([]);
    expect(body.upload.parts.hashtags.split(' ')).to.have.length(5);
    expect(body.upload.titles[0].used).to.equal(true);
    expect(body.changed).to.equal(null);
  });
  it('every format is written, safe to open, under a safe name', async () => {
    const { formats } = (await server.get(`/scripts/${scriptId}/sheet`)).body;
    expect(formats.length).to.be.at.least(20);
    for (const f of formats.slice(0, 6)) {
      const answer = await server.raw('GET', `/scripts/${scriptId}/export/${f.id}`);
      expect([f.id, answer.status]).to.deep.equal([f.id, 200]);
      expect(answer.headers.get('content-disposition')).to.match(
        /^attachment; filename="?[a-z0-9-]+\.[a-z]+"?$/,
      );
      expect(answer.headers.get('content-security-policy')).to.match(/sandbox/);
      expect((await answer.arrayBuffer()).byteLength).to.be.greaterThan(100);
    }
    const wrong = await server.get(`/scripts/${scriptId}/export/exe`);
    expect([wrong.status, wrong.body.error.message]).to.deep.equal([404, wrong.body.error.message]);
    expect(wrong.body.error.message).to.match(/There is no format “exe”/);
  });
  it('a kit is a job with progress, one zip with checksums, and later says what has changed', async () => {
    const made = await server.post(`/scripts/${scriptId}/handoffs`, { who: 'editor', without: ['edl'] });
    expect([made.status, made.body.state]).to.deep.equal([201, 'waiting']);
    const all = await events(`/handoffs/${made.body.id}/events`);
    expect(all.at(-1)!.state).to.equal('done');
    const zip = await JSZip.loadAsync(
      await (await server.raw('GET', `/handoffs/${made.body.id}/zip`)).arrayBuffer(),
    );
    expect(Object.keys(zip.files)).to.include('manifest.json');
    expect(Object.keys(zip.files).some((n) => n.endsWith('.edl'))).to.equal(false);
    expect((await server.get(`/scripts/${scriptId}/sheet`)).body.changed.same).to.equal(true);

    const own = await sections();
    own[0].lines[0].text = 'A sentence that nobody has handed over yet.';
    const { changed } = (await server.post(`/scripts/${scriptId}/sheet`, { sections: own })).body;
    expect(changed.same).to.equal(false);
    expect(changed.says.join(' ')).to.match(/1 line changed/);
    expect(changed.lines[0].after).to.equal('A sentence that nobody has handed over yet.');
  });
  it('keeps only the last kits of a recipient', async () => {
    for (let i = 0; i < 3; i++) {
      const { body } = await server.post(`/scripts/${scriptId}/handoffs`, { who: 'uploader' });
      await events(`/handoffs/${body.id}/events`);
    }
    const { handoffs } = (await server.get(`/scripts/${scriptId}/handoffs`)).body;
    expect(handoffs.filter((h: { who: string }) => h.who === 'uploader')).to.have.length(2);
  });
  it('the uploader’s own words stand in place of what is computed, and can be computed again', async () => {
    const patch = async (upload: object) => {
      const { settingsRevision, settings } = (await server.get(`/scripts/${scriptId}`)).body;
      await server.patch(`/scripts/${scriptId}`, {
        revision: settingsRevision,
        settings: { handoff: { ...settings.handoff, upload } },
      });
      return (await server.get(`/scripts/${scriptId}/sheet`)).body.upload;
    };
    const own = await patch({ question: 'Did you feel it sway?' });
    expect([own.parts.question, own.set]).to.deep.equal(['Did you feel it sway?', ['question']]);
    expect((await patch({})).parts.question).to.not.equal('Did you feel it sway?');
  });
  it('discloses a voice that is made by a machine', async () => {
    const { settingsRevision } = (await server.get(`/scripts/${scriptId}`)).body;
    await server.patch(`/scripts/${scriptId}`, {
      revision: settingsRevision,
      settings: { handoff: { voiceMade: true, upload: {} } },
    });
    expect((await server.get(`/scripts/${scriptId}/sheet`)).body.upload.description).to.match(
      /The voice in this film was made by a computer/,
    );
  });

  it('a translation goes out as XLIFF and comes in again, timed in its own language, without loss', async () => {
    const out = await (await server.raw('GET', `/scripts/${scriptId}/export/xliff`)).text();
    const back = out.replace(
      /<segment>(\s*)<source([^>]*)>([\s\S]*?)<\/source>/g,
      '<segment state="translated">$1<source$2>$3</source>$1<target xml:space="preserve">¡$3!</target>',
    );
    const taken = await server.post(`/scripts/${scriptId}/translations`, { xliff: back });
    expect([taken.status, taken.body.language, taken.body.missing, taken.body.unknown]).to.deep.equal([
      201,
      'es',
      0,
      0,
    ]);
    const again = await (await server.raw('GET', `/scripts/${scriptId}/export/xliff?language=es`)).text();
    const targets = (t: string) => [...t.matchAll(/<target[^>]*>([\s\S]*?)<\/target>/g)].map((m) => m[1]);
    expect(targets(again)).to.deep.equal(targets(back));
    const sheet = (await server.get(`/scripts/${scriptId}/sheet?language=es`)).body;
    expect(sheet.language).to.equal('es');
    expect(sheet.captions[0].rows[0]).to.match(/^¡/);
  });
  it('a line of a translation that won’t fit is said shorter, one at a time, and none other changes', async () => {
    const address = `/scripts/${scriptId}/translations/es`;
    const sheet = async () => (await server.get(`/scripts/${scriptId}/sheet?language=es`)).body;
    const linesOf = (of: { blocks: { lines: { id: string; parts: { text?: string }[] }[] }[] }) =>
      of.blocks.flatMap((b) =>
        b.lines.map((l) => [l.id, l.parts.map((p) => p.text ?? '').join('')] as const),
      );
    const before = linesOf(await sheet());
    const [line] = before[1];
    const long = 'palabra '.repeat(80).trim();
    expect((await server.raw('PATCH', address, JSON.stringify({ line, text: long }))).status).to.equal(200);
    expect((await sheet()).tooLong.map((t: { line: string }) => t.line)).to.include(line);
    await Promise.all([
      server.raw('PATCH', address, JSON.stringify({ line, text: '<b>Sí.</b>' })),
      server.raw('PATCH', address, JSON.stringify({ line: before[2][0], text: 'No.' })),
    ]);
    const after = await sheet();
    expect(after.tooLong.map((t: { line: string }) => t.line)).to.not.include(line);
    const wanted = before.map(([id, text], i) => [id, i === 1 ? '<b>Sí.</b>' : i === 2 ? 'No.' : text]);
    expect(linesOf(after)).to.deep.equal(wanted);
    const refused = async (path: string, body: unknown) =>
      (await (await server.raw('PATCH', path, JSON.stringify(body))).json()) as {
        error: { message: string };
      };
    expect((await refused(address, { line: 'nope', text: 'a' })).error.message).to.match(/not in the script/);
    expect((await refused(address.replace(/es$/, 'fr'), { line, text: 'a' })).error.message).to.match(
      /no translation/,
    );
  });
  it('a first translation by the stand-in is marked as a machine’s', async () => {
    const { status, body } = await server.post(`/scripts/${scriptId}/translate`, { language: 'es' });
    expect([status, body.missing]).to.deep.equal([201, 0]);
    const { translations } = (await server.get(`/scripts/${scriptId}/translations`)).body;
    expect(
      translations.map((t: { language: string; origin: string }) => [t.language, t.origin]),
    ).to.deep.equal([['es', 'machine']]);
    const srt = await (await server.raw('GET', `/scripts/${scriptId}/export/srt?language=es`)).text();
    expect(srt).to.match(/puente|pasarela|multitud/i);
  });
  it('refuse in plain words what is no XLIFF, an old one, one of another script, or a language that is not there', async () => {
    const say = async (xliff: string) =>
      (await server.post(`/scripts/${scriptId}/translations`, { xliff })).body.error.message as string;
    expect(await say('hello')).to.match(/can’t be read as XML|no XLIFF/);
    expect(await say('<xliff version="1.2"><file/></xliff>')).to.match(/XLIFF 1\.2; 2\.0 or 2\.1/);
    expect(await say('<xliff version="2.1" srcLang="en"><file id="f"/></xliff>')).to.match(/which language/);
    expect(
      await say(
        '<xliff version="2.1" srcLang="en" trgLang="fr"><file id="f"><unit id="l1" name="nope"><segment><source>a</source><target>b</target></segment></unit></file></xliff>',
      ),
    ).to.match(/No line of this script/);
    expect((await server.get(`/scripts/${scriptId}/sheet?language=fr`)).status).to.equal(404);
    expect((await server.get(`/scripts/${scriptId}/sheet?language=<script>`)).status).to.equal(400);
  });
  it('belong to the workspace: another script’s kit is not here', async () => {
    expect((await server.get('/handoffs/00000000-0000-4000-8000-000000000000/zip')).status).to.equal(404);
    expect((await server.post('/scripts/00000000-0000-4000-8000-000000000000/handoffs', {})).status).to.equal(
      404,
    );
  });
});
