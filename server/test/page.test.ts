import { expect } from 'chai';
import { docFromJson, plainSections, scriptSchema, type PlainSection } from '@ursprung/core/script';
import { Transform } from 'prosemirror-transform';
import { BRIEF, freshServer, toldScript, type TestServer } from './helpers.ts';

const CHANNEL = { name: 'Quiet Machinery', settings: { ...BRIEF, usual: { from: 60, to: 600 } } };
const MESSY = `Sure! Here's your script:

# The Lift
**Hook (0:00-0:10)**
[drone shot]
Welcome back to the channel. The lift has no engine.

**Main (0:10-0:40)**
VO: It was actually built in 1889. (pause 2s)
Visual: the wheel
VO: Nobody has greased it since.
Word count: 20`;

describe('what the Page asks of the server', function () {
  let server: TestServer;
  let channelId: string;
  let scriptId: string;
  const script = async (id = scriptId) => (await server.get(`/scripts/${id}`)).body;
  const sections = async (id = scriptId): Promise<PlainSection[]> =>
    plainSections(docFromJson((await script(id)).doc));
  const texts = (list: readonly PlainSection[]) => list.flatMap((s) => s.lines.map((l) => l.text));
  const type = async (text: string) => {
    const { doc, version } = await script();
    const steps = new Transform(docFromJson(doc))
      .insert(2, scriptSchema.text(text))
      .steps.map((s) => s.toJSON() as unknown);
    return server.post(`/scripts/${scriptId}/steps`, { version, clientId: 'page-test', steps });
  };

  before(async () => {
    server = await freshServer();
    ({ channelId, scriptId } = await toldScript(server, 120));
  });
  after(() => server.stop());

  it('reaches every state a script has had, and compares with none lost', async () => {
    const first = await sections();
    for (const t of ['One ', 'Two ', 'Three ']) await type(t);
    const { version, stretches } = (await server.get(`/scripts/${scriptId}/history`)).body;
    expect(version).to.equal(3);
    expect(stretches).to.have.length(1);
    expect(stretches[0]).to.include({ from: 0, to: 3, origin: 'typing' });
    const at = async (v: number) =>
      plainSections(docFromJson((await server.get(`/scripts/${scriptId}/at/${v}`)).body.doc));
    expect(await at(0)).to.deep.equal(first);
    expect((await at(2))[0].lines[0].text).to.match(/^Two One /);
    expect(await at(3)).to.deep.equal(await sections());
    expect((await server.get(`/scripts/${scriptId}/at/4`)).status).to.equal(404);
    expect((await server.get(`/scripts/${scriptId}/at/-1`)).status).to.equal(404);
  });

  it('names versions, and takes a name off again', async () => {
    const named = await server.post(`/scripts/${scriptId}/names`, { version: 1, name: 'before the lawyer' });
    expect(named.status).to.equal(201);
    expect(
      (await server.get(`/scripts/${scriptId}/history`)).body.names.map((n: { name: string }) => n.name),
    ).to.deep.equal(['before the lawyer']);
    expect((await server.post(`/scripts/${scriptId}/names`, { version: 99, name: 'x' })).status).to.equal(
      404,
    );
    expect(
      (await server.post(`/scripts/${scriptId}/names`, { version: 1, name: ' ' })).body.error.message,
    ).to.equal('A version has a name.');
    await server.request('DELETE', `/scripts/${scriptId}/names/${named.body.id}`, {});
    expect((await server.get(`/scripts/${scriptId}/history`)).body.names).to.deep.equal([]);
  });

  it('answers a note with a proposal on the page’s own sections, and tells anew from the sources', async () => {
    const own = await sections();
    const dropped = (
      await server.post(`/scripts/${scriptId}/revise`, { note: 'drop the last line', sections: own })
    ).body.proposal;
    expect(texts(dropped.sections)).to.deep.equal(texts(own).slice(0, -1));
    expect(dropped.overlap.before).to.be.greaterThan(0.5);
    const another = (
      await server.post(`/scripts/${scriptId}/revise`, {
        note: 'another take of the second section',
        sections: own,
      })
    ).body.proposal;
    expect(texts(another.sections)).to.not.deep.equal(texts(own));
    expect(another.sections[1].takes).to.have.length(1);
    expect(another.unsupported.after).to.be.at.most(another.unsupported.before);
    const many = await server.post(`/scripts/${scriptId}/revise`, {
      note: 'cut it into 2 pictures',
      sections: own,
    });
    expect(many.body.proposal.changes).to.deep.equal([]);
    expect(many.body.proposal.settings.paceCurve[0].seconds).to.be.greaterThan(0);
    const none = (await server.post(`/scripts/${scriptId}/revise`, { note: 'make it pop', sections: own }))
      .body;
    expect(none.cannot).to.equal('I don’t know this change.');
    expect(
      (await server.post(`/scripts/${scriptId}/revise`, { note: ' ', sections: own })).body.error.message,
    ).to.equal('Say what should change.');
    // Nothing was applied.
    expect(await sections()).to.deep.equal(own);
  });

  it('takes a finished draft in: narration as lines, the rest as notes at its place', async () => {
    const made = await server.post('/scripts', {
      ...BRIEF,
      channelId,
      target: { kind: 'point', seconds: 30 },
      draft: { text: MESSY },
    });
    expect(made.status).to.equal(201);
    expect(made.body.notes[0]).to.match(/^\d+ pieces that are not spoken were set aside/);
    const list = await sections(made.body.id);
    expect((await script(made.body.id)).settings.title).to.equal('The Lift');
    expect(list.map((s) => s.title)).to.deep.equal(['Hook', 'Main']);
    expect(texts(list)).to.deep.equal([
      'Welcome back to the channel.',
      'The lift has no engine.',
      'It was actually built in 1889.',
      'Nobody has greased it since.',
    ]);
    expect(list[1].lines[0].restMs).to.equal(2000);
    expect(
      list.flatMap((s) => s.lines.flatMap((l) => (l.notes ?? []).map((n) => n.text))),
    ).to.include.members(['[drone shot]', 'Visual: the wheel']);
    const empty = await server.post('/scripts', {
      ...BRIEF,
      channelId,
      target: { kind: 'point', seconds: 30 },
      draft: { text: '[music]' },
    });
    expect([empty.status, empty.body.error.message]).to.deep.equal([
      422,
      'Nothing spoken was found in this draft.',
    ]);
  });

  it('measures a channel from its scripts and holds another against it', async () => {
    const style = (await server.post(`/channels/${channelId}/style`, {})).body;
    expect(style.scripts).to.equal(2);
    expect(style.measures.filter((m: { middle: number | null }) => m.middle !== null).length).to.be.at.least(
      24,
    );
    for (const m of style.measures) expect(m.examples.length, m.id).to.be.at.most(2);
    const { against } = (await server.post(`/scripts/${scriptId}/against`, { sections: await sections() }))
      .body;
    expect(against.differences.length).to.be.at.least(24);
    const fresh = (await server.post('/channels', { ...CHANNEL, name: 'Empty' })).body.id;
    expect((await server.post(`/channels/${fresh}/style`, {})).body.error.message).to.match(/has none yet/);
    const pasted = await server.post(`/channels/${fresh}/style`, {
      texts: ['It fell. Nobody ran.', 'It stopped. Why?'],
    });
    expect(pasted.body.scripts).to.equal(2);
  });

  it('keeps what a channel switches off and how it says words', async () => {
    const patched = await server.patch(`/channels/${channelId}`, {
      settings: { rulesOff: ['filler'], sayings: [{ word: 'Orrin', say: 'ORR-in' }] },
    });
    expect(patched.body.settings).to.deep.include({ rulesOff: ['filler'], pace: 150 });
    expect((await script()).channel.sayings).to.deep.equal([{ word: 'Orrin', say: 'ORR-in' }]);
    // Every clock follows: the library's, the files', a note's.
    const ms = async () =>
      (await server.get('/library')).body.scripts.find((s: { id: string }) => s.id === scriptId).ms;
    const before = await ms();
    const say = { word: 'bridge', say: 'the bridge that nobody could name without a breath' };
    await server.patch(`/channels/${channelId}`, { settings: { sayings: [say] } });
    expect(await ms()).to.be.greaterThan(before + 2000);
    const { proposal } = (
      await server.post(`/scripts/${scriptId}/revise`, {
        note: 'lock the ending',
        sections: await sections(),
      })
    ).body;
    expect(proposal.beforeMs).to.equal(await ms());
    const file = await (await server.raw('GET', `/scripts/${scriptId}/export/json`)).json();
    expect(Math.round((file as { seconds: number }).seconds * 1000)).to.equal(await ms());
    expect((await server.patch(`/channels/${channelId}`, { settings: { pace: 5 } })).status).to.equal(400);
  });

  it('checks spelling and grammar', async () => {
    const { hits } = (
      await server.post('/grammar', {
        texts: [
          'He recieved a letter.',
          'The lift has no engine.',
          'They dug the Upper Cut for coal.',
          'He gave it an upper cut.',
        ],
      })
    ).body;
    expect(hits[0][0]).to.deep.include({ start: 3, end: 11, kind: 'Spelling' });
    expect(hits[1]).to.deep.equal([]);
    // A name of two words is run together by nobody; common words are.
    expect(hits[2]).to.deep.equal([]);
    expect(hits[3].map((h: { by: string[] }) => h.by)).to.deep.equal([['uppercut']]);
  });

  it('speaks with the stand-in voice', async () => {
    const answer = await server.raw(
      'POST',
      '/voice',
      JSON.stringify({ text: 'The lift has no engine.', pace: 160 }),
    );
    expect(answer.headers.get('content-type')).to.equal('audio/wav');
    const bytes = new Uint8Array(await answer.arrayBuffer());
    expect(new TextDecoder().decode(bytes.subarray(0, 4))).to.equal('RIFF');
    expect((await server.post('/voice', { text: ' ', pace: 160 })).status).to.equal(400);
  });

  it('shows nothing of another workspace', async () => {
    const other = '11111111-1111-4111-8111-111111111111';
    for (const path of [`/scripts/${other}/history`, `/scripts/${other}/at/0`])
      expect((await server.get(path)).status).to.equal(404);
    expect((await server.post(`/channels/${other}/style`, {})).status).to.equal(404);
    expect((await server.patch(`/channels/${other}`, { name: 'x' })).status).to.equal(404);
  });

  it('takes what a draft says for under the video to the upload sheet, and lays its times against the clock', async () => {
    const made = await server.post('/scripts', {
      ...BRIEF,
      channelId,
      target: { kind: 'point', seconds: 30 },
      draft: {
        text: '[0:00] The clock of Tarn Hill has run for two hundred and twelve years.\n\n[0:40] This winter it stopped.\n\nDescription: A clock and a family.\n#clocks #tarn\n',
      },
    });
    expect(made.status).to.equal(201);
    expect((await script(made.body.id)).settings.handoff.upload).to.deep.equal({
      summary: 'A clock and a family.',
      hashtags: '#clocks #tarn',
    });
    expect(made.body.notes[1]).to.equal(
      'For under the video: the description and the hashtags, now on the upload sheet.',
    );
    expect(made.body.notes[2]).to.match(
      /^The draft stamps 2 times; by the clock 1 of them holds to a second\. Furthest off: “This winter it stopped\.”, stamped 0:40, falls at 0:0\d\.$/,
    );
  });
});
