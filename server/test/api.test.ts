import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import { docFromJson, plainSections, scriptSchema } from '@ursprung/core/script';
import { Step, Transform } from 'prosemirror-transform';
import { ERRORS } from '../src/index.ts';
import { BRIEF, freshServer, toldScript, type Answer, type TestServer } from './helpers.ts';

const CHANNEL = {
  name: 'Quiet Machinery',
  settings: { frame: '16:9', mood: 'calm', pace: 150, voice: 'even', usual: { from: 300, to: 600 } },
};

describe('the server on a real PostgreSQL', function () {
  let server: TestServer;
  let channelId: string;
  let sourceId: string;
  let scriptId: string;

  before(async () => {
    server = await freshServer();
    ({ channelId, sourceId, scriptId } = await toldScript(server, 180));
  });
  after(() => server.stop());

  const script = async () => (await server.get(`/scripts/${scriptId}`)).body;
  /** An insertion at the start of the first line, as a step on the given document. */
  const typed = (doc: unknown, text: string) =>
    new Transform(docFromJson(doc))
      .insert(2, scriptSchema.text(text))
      .steps.map((s) => s.toJSON() as unknown);
  const firstLine = (doc: unknown) => plainSections(docFromJson(doc))[0].lines[0].text;

  it('drafts a stored source into a script of the asked length', async () => {
    const { doc, settings, sources } = await script();
    expect(settings.target).to.deep.equal({ kind: 'point', seconds: 180 });
    expect(sources[0].document.kind).to.equal('news');
    const library = (await server.get('/library')).body;
    expect(library.scripts[0].ms).to.be.within(178_200, 181_800);
    expect(library.sources[0].strip.some((p: { heard: boolean }) => p.heard)).to.equal(true);
    expect(firstLine(doc)).to.match(/^The Pell Street footbridge/);
  });

  it('takes steps, keeps them in a log with their inverse, and gives them to others', async () => {
    const before = await script();
    const answer = await server.post(`/scripts/${scriptId}/steps`, {
      version: before.version,
      clientId: 'client-a',
      steps: typed(before.doc, 'Look: '),
    });
    expect(answer.body).to.deep.equal({ version: before.version + 1 });
    const after = await script();
    expect(firstLine(after.doc)).to.match(/^Look: The Pell/);
    const log = (await server.get(`/scripts/${scriptId}/steps?since=${before.version}`)).body;
    expect(log.steps.map((s: { clientId: string }) => s.clientId)).to.deep.equal(['client-a']);
    const [row] = await server.query('SELECT inverse FROM script_steps ORDER BY version DESC LIMIT 1');
    const back = Step.fromJSON(scriptSchema, row.inverse).apply(docFromJson(after.doc)).doc!;
    expect(back.toJSON()).to.deep.equal(docFromJson(before.doc).toJSON());
  });

  it('refuses steps on an older version with the steps it lacks; mapped over them they are taken, so nothing is lost', async () => {
    const { doc, version } = await script();
    const mine = typed(doc, 'Mine. ');
    await server.post(`/scripts/${scriptId}/steps`, {
      version,
      clientId: 'client-b',
      steps: typed(doc, 'Theirs. '),
    });
    const refused = await server.post(`/scripts/${scriptId}/steps`, {
      version,
      clientId: 'client-a',
      steps: mine,
    });
    expect([refused.status, refused.body.error.code, refused.body.version]).to.deep.equal([
      409,
      'behind',
      version + 1,
    ]);
    const theirs = Step.fromJSON(scriptSchema, refused.body.steps[0].step);
    const mapped = Step.fromJSON(scriptSchema, mine[0]).map(theirs.getMap())!;
    const taken = await server.post(`/scripts/${scriptId}/steps`, {
      version: version + 1,
      clientId: 'client-a',
      steps: [mapped.toJSON()],
    });
    expect(taken.status).to.equal(200);
    const text = firstLine((await script()).doc);
    expect(text).to.include('Mine.').and.to.include('Theirs.');
  });

  it('takes one of two writers at once and tells the other', async () => {
    const { doc, version } = await script();
    const answers = await Promise.all(
      ['x-one', 'x-two', 'x-three'].map((clientId) =>
        server.post(`/scripts/${scriptId}/steps`, { version, clientId, steps: typed(doc, 'a') }),
      ),
    );
    expect(answers.map((a) => a.status).sort()).to.deep.equal([200, 409, 409]);
  });

  it('refuses steps that do not fit the script, and changes nothing', async () => {
    const before = await script();
    for (const steps of [
      [{ stepType: 'replace', from: 99_999, to: 99_999 }],
      [{ stepType: 'nonsense' }],
      [{ stepType: 'replace', from: 0, to: 2 }],
    ]) {
      const answer = await server.post(`/scripts/${scriptId}/steps`, {
        version: before.version,
        clientId: 'client-a',
        steps,
      });
      expect([answer.status, answer.body.error.code]).to.deep.equal([422, 'step-refused']);
    }
    expect((await script()).version).to.equal(before.version);
  });

  it('changes settings on the revision they were made on', async () => {
    const { settingsRevision: revision } = await script();
    expect(
      (await server.patch(`/scripts/${scriptId}`, { revision, settings: { title: 'The Footbridge' } })).body
        .settings.title,
    ).to.equal('The Footbridge');
    const late = await server.patch(`/scripts/${scriptId}`, { revision, settings: { title: 'Another' } });
    expect([late.status, late.body.settings.title]).to.deep.equal([409, 'The Footbridge']);
  });

  it('writes every format with a safe file name', async () => {
    for (const [format, type, holds] of [
      ['text', 'text/plain', 'Pell Street'],
      ['markdown', 'text/markdown', '# The Footbridge'],
      ['srt', 'application/x-subrip', '-->'],
      ['json', 'application/json', '"sections"'],
    ]) {
      const answer = await server.raw('GET', `/scripts/${scriptId}/export/${format}`);
      expect(answer.headers.get('content-type')).to.include(type);
      expect(answer.headers.get('content-disposition')).to.match(/filename="?the-footbridge\.\w+"?$/);
      expect(await answer.text()).to.include(holds);
    }
    expect((await server.get(`/scripts/${scriptId}/export/exe`)).status).to.equal(404);
  });

  it('takes a script out of the library and puts it back', async () => {
    await server.request('DELETE', `/scripts/${scriptId}`, {});
    expect((await server.get(`/scripts/${scriptId}`)).status).to.equal(404);
    await server.post(`/scripts/${scriptId}/restore`, {});
    expect((await server.get(`/scripts/${scriptId}`)).status).to.equal(200);
  });

  it('says what a source carries and refuses a length it can’t fill, in words', async () => {
    const carries = (await server.post('/carries', { sourceId, mood: 'calm', pace: 150, voice: 'even' }))
      .body;
    expect(carries.shortestMs).to.be.lessThan(carries.longestMs);
    const long = await server.post('/scripts', {
      ...BRIEF,
      channelId,
      sourceId,
      target: { kind: 'point', seconds: 1500 },
    });
    expect([long.status, long.body.error.code]).to.deep.equal([422, 'length-not-possible']);
    expect(long.body.error.message).to.match(/carries \d+:\d\d at most/);
  });

  it('lets the person overrule the kind', async () => {
    const answer = await server.patch(`/sources/${sourceId}`, { kind: 'encyclopedia' });
    expect([answer.body.document.kind, answer.body.document.kindReason]).to.deep.equal([
      'encyclopedia',
      'you said so',
    ]);
    await server.patch(`/sources/${sourceId}`, { kind: 'news' });
  });

  describe('bad input', () => {
    const cases: [string, unknown, number][] = [
      ['nothing', {}, 400],
      ['empty text', { text: '' }, 422],
      ['emoji only', { text: '😀😀' }, 422],
      [
        'bytes of a picture',
        { base64: Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 1, 2, 3, 0, 0]).toString('base64') },
        422,
      ],
      ['more than 5 MB', { text: 'word '.repeat(1_100_000) }, 422],
    ];
    for (const [name, input, status] of cases)
      it(`answers ${name} as source with a clear ${status}`, async () => {
        const answer = await server.post('/sources', input);
        expect(answer.status).to.equal(status);
        expect(answer.body.error.message).to.have.length.greaterThan(15);
      });
    it('refuses lengths of 0 s and 10 h with the limits', async () => {
      for (const seconds of [0, 36_000, null, '60']) {
        const answer = await server.post('/scripts', {
          channelId,
          sourceId,
          frame: '16:9',
          mood: 'calm',
          pace: 150,
          voice: 'even',
          target: { kind: 'point', seconds },
        });
        expect(answer.status, String(seconds)).to.equal(400);
        expect(answer.body.error.field).to.equal('target.seconds');
      }
    });
    it('answers what is not there, and what is no id', async () => {
      expect((await server.get('/scripts/00000000-0000-4000-8000-000000000000')).status).to.equal(404);
      expect((await server.get('/scripts/1;drop')).status).to.equal(404);
      expect((await server.get('/nowhere')).status).to.equal(404);
      expect((await server.raw('POST', '/channels', '{broken')).status).to.equal(400);
    });
  });

  describe('who may write', () => {
    const send = (headers: Record<string, string>) =>
      server.raw('POST', '/channels', JSON.stringify(CHANNEL), headers);
    it('refuses other origins, other sites, other hosts and other types', async () => {
      expect((await send({ origin: 'http://evil.example' })).status).to.equal(403);
      expect((await send({ 'sec-fetch-site': 'cross-site' })).status).to.equal(403);
      expect((await send({ origin: '', 'x-requested-with': '' })).status).to.equal(403);
      expect((await send({ 'content-type': 'text/plain' })).status).to.equal(415);
      expect((await send({})).status).to.equal(201);
    });
  });

  it('answers every error with a code of its catalogue, its status and a whole sentence', async () => {
    const { channelId, sourceId, scriptId } = await toldScript(server, 60);
    const { version, settingsRevision } = (await server.get(`/scripts/${scriptId}`)).body;
    const type = (at: number) => ({
      version: at,
      clientId: 'somebody',
      steps: [{ stepType: 'replace', from: 2, to: 2, slice: { content: [{ type: 'text', text: 'x' }] } }],
    });
    await server.post(`/scripts/${scriptId}/steps`, type(version));
    await server.patch(`/scripts/${scriptId}`, { revision: settingsRevision, settings: { pace: 160 } });
    const long = { ...BRIEF, channelId, sourceId, target: { kind: 'point', seconds: 1500 } };
    const raw = async (method: string, path: string, body: string, headers = {}) => {
      const answer = await server.raw(method, path, body, headers);
      return { status: answer.status, body: await answer.json() };
    };
    const provoked: Record<string, Promise<Answer>> = {
      'bad-request': server.post('/channels', {}),
      'not-json': raw('POST', '/channels', '{}', { 'content-type': 'text/plain' }),
      'other-origin': raw('POST', '/channels', '{}', { origin: 'http://evil.example' }),
      'not-found': server.get('/nowhere'),
      'too-large': server.post('/sources', { text: 'word '.repeat(1_500_000) }),
      'source-unreadable': server.post('/sources', { text: '' }),
      'length-not-possible': server.post('/scripts', long),
      'step-refused': server.post(`/scripts/${scriptId}/steps`, {
        ...type(version + 1),
        steps: [{ stepType: 'no such step' }],
      }),
      behind: server.post(`/scripts/${scriptId}/steps`, type(version)),
      'settings-behind': server.patch(`/scripts/${scriptId}`, {
        revision: settingsRevision,
        settings: { pace: 150 },
      }),
      'no-secret': server.request('PUT', '/service', { address: 'http://example.org/v1', key: 'k' }),
    };
    for (const [code, asked] of Object.entries(provoked)) {
      const { status, body } = await asked;
      expect([body.error?.code, status], code).to.deep.equal([
        code,
        ERRORS[code as keyof typeof ERRORS].status,
      ]);
      expect(body.error.message, code).to.match(/\.$/);
    }
    // Each of the others has a test of its own, where what brings it about is at hand.
    const elsewhere = {
      'link-refused': './sources.test.ts',
      'service-silent': './model.test.ts',
      'service-limit': './commission.test.ts',
      'too-many': './hostile.test.ts',
      away: './badDays.test.ts',
      busy: './limits.test.ts',
      full: './limits.test.ts',
      'script-broken': './stored.test.ts',
      internal: './limits.test.ts',
    };
    expect([...Object.keys(provoked), ...Object.keys(elsewhere)].sort()).to.deep.equal(
      Object.keys(ERRORS).sort(),
    );
    for (const [code, file] of Object.entries(elsewhere))
      expect(readFileSync(new URL(file, import.meta.url), 'utf8'), code).to.include(code);
  });
});
