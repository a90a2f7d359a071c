/** Facts in the database: made once, the writer's own among them, carried over when a source is read again by newer code. */
import { expect } from 'chai';
import type { Fact } from '@ursprung/core/facts';
import { docFromJson, plainSections } from '@ursprung/core/script';
import { demoSource } from '@ursprung/demo';
import { BRIEF, freshServer, toldScript, type TestServer } from './helpers.ts';

describe('facts on a real PostgreSQL', function () {
  let server: TestServer;
  before(async () => {
    server = await freshServer();
  });
  after(() => server.stop());

  const source = async () =>
    (await server.post('/sources', { base64: Buffer.from(demoSource('lift')).toString('base64') })).body as {
      id: string;
      facts: Fact[];
      document: { text: string };
      older: boolean;
    };
  const linesOf = async (id: string) =>
    plainSections(docFromJson((await server.get(`/scripts/${id}`)).body.doc)).flatMap((s) => s.lines);
  const channel = async () =>
    (await server.post('/channels', { name: 'One', settings: { ...BRIEF, usual: { from: 60, to: 600 } } }))
      .body.id as string;

  it('are stored with their tags and the extractor’s version when a source is read', async () => {
    const { id, older, facts } = await source();
    expect(older).to.equal(false);
    const [row] = await server.query(
      `SELECT extractor, jsonb_array_length(tags) AS tags FROM sources WHERE id = '${id}'`,
    );
    expect(row.extractor).to.be.at.least(2);
    expect(row.tags).to.equal(facts.length);
    expect((await server.get(`/sources/${id}`)).body).to.not.have.property('tags');
  });

  it('that the writer knows are ticked, told, and cited as the writer’s own; a title can rest on them', async () => {
    const { id } = await source();
    const added = (
      await server.patch(`/sources/${id}`, {
        addFact: { text: 'My grandfather painted the gate green in 1931.' },
      })
    ).body;
    const [own] = (added.facts as Fact[]).filter((f) => f.own === 'known');
    expect(own.id).to.equal('w1');
    await server.patch(`/sources/${id}`, { marks: { w1: { mark: 'must' } } });
    const made = await server.post('/scripts', {
      ...BRIEF,
      channelId: await channel(),
      sourceId: id,
      title: 'The gate my grandfather painted green',
      target: { kind: 'point', seconds: 180 },
    });
    expect(made.status, JSON.stringify(made.body)).to.equal(201);
    const lines = await linesOf(made.body.id);
    const told = lines.filter((l) => l.from.some((f) => f.fact === 'w1'));
    expect(told.map((l) => l.text).join(' ')).to.match(/grandfather/);
    const { settings } = (await server.get(`/scripts/${made.body.id}`)).body;
    expect(settings.promise?.pays).to.deep.equal({ source: 'A', fact: 'w1' });
  });

  it('that were made of chosen words and ticked have the facts told that hold them', async () => {
    const { id, facts } = await source();
    const fact = facts.find((f) => f.text.length > 60 && f.strength < 0.4)!;
    const { body } = await server.patch(`/sources/${id}`, {
      addFact: { start: fact.start + 2, end: fact.start + 40 },
    });
    expect(body.ownFacts).to.have.length(1);
    await server.patch(`/sources/${id}`, { marks: { w1: { mark: 'must' } } });
    const made = await server.post('/scripts', {
      ...BRIEF,
      channelId: await channel(),
      sourceId: id,
      target: { kind: 'point', seconds: 240 },
    });
    expect((await linesOf(made.body.id)).flatMap((l) => l.from.map((f) => f.fact))).to.include(fact.id);
  });

  it('of a source read by an earlier version can be read again: said beforehand, then ids, marks, lines and promise follow the words', async () => {
    const { sourceId, scriptId } = await toldScript(server, 120);
    // As an earlier version may have left it: other ids, one sentence taken for two, one that is no sentence any more.
    const [row] = await server.query(`SELECT facts FROM sources WHERE id = '${sourceId}'`);
    const facts = row.facts as Fact[];
    const told = (await linesOf(scriptId)).flatMap((l) => l.from.map((f) => f.fact!)).filter(Boolean);
    const split = facts.find((f) => told.includes(f.id) && f.text.split(' ').length > 8)!;
    const at = split.text.indexOf(' ', 20);
    const ids = new Map(facts.map((f, i) => [f.id, `f${i + 1}`]));
    const old = facts.map((f) => ({ ...f, id: ids.get(f.id)!, leans: [] }));
    const i = facts.indexOf(split);
    old[i] = { ...old[i], text: split.text.slice(0, at), end: split.start + at };
    old.push({ ...old[0], id: 'f900', text: 'Advertisement: buy bread.' });
    const text = JSON.stringify(old).replaceAll("'", "''");
    await server.query(
      `UPDATE sources SET facts = '${text}', extractor = NULL, tags = NULL, marks = '${JSON.stringify({ [ids.get(split.id)!]: { mark: 'must' }, f900: { mark: 'must' } })}' WHERE id = '${sourceId}'`,
    );
    let doc = JSON.stringify((await server.get(`/scripts/${scriptId}`)).body.doc);
    for (const [now, then] of ids) doc = doc.replaceAll(`"${now}"`, `"${then}"`);
    await server.query(
      `UPDATE scripts SET doc = '${doc.replaceAll("'", "''")}', settings = jsonb_set(settings, '{promise}', '{"sentence":"","pays":{"source":"A","fact":"${ids.get(split.id)!}"}}') WHERE id = '${scriptId}'`,
    );

    const { older } = (await server.get(`/sources/${sourceId}`)).body;
    expect(older).to.equal(true);
    const before = await linesOf(scriptId);
    const preview = (await server.get(`/sources/${sourceId}/renewal`)).body;
    expect(preview.facts).to.deep.equal({
      before: facts.length + 1,
      after: facts.length,
      same: facts.length - 1,
    });
    expect(preview.lost).to.deep.equal([{ id: 'f900', text: 'Advertisement: buy bread.', mark: 'must' }]);
    expect(preview.moved).to.deep.equal([{ id: ids.get(split.id), text: old[i].text, to: [split.text] }]);
    expect(await linesOf(scriptId), 'a look changes nothing').to.deep.equal(before);

    const renewed = await server.post(`/sources/${sourceId}/renewal`, {});
    expect(renewed.status).to.equal(200);
    const after = (await server.get(`/sources/${sourceId}`)).body;
    expect(after.older).to.equal(false);
    expect(after.marks, 'the mark follows the words').to.deep.equal({ [split.id]: { mark: 'must' } });
    const known = new Set((after.facts as Fact[]).map((f) => f.id));
    const lines = await linesOf(scriptId);
    expect(lines.map((l) => l.text)).to.deep.equal(before.map((l) => l.text));
    for (const l of lines)
      for (const f of l.from) if (f.fact) expect(known.has(f.fact), f.fact).to.equal(true);
    expect(lines.flatMap((l) => l.from.map((f) => f.fact))).to.include(split.id);
    const script = (await server.get(`/scripts/${scriptId}`)).body;
    expect(script.settings.promise.pays).to.deep.equal({ source: 'A', fact: split.id });
    const { stretches } = (await server.get(`/scripts/${scriptId}/history`)).body;
    expect(stretches.at(-1).origin).to.equal('read again');
    expect((await server.get(`/sources/${sourceId}/renewal`)).body.tidy).to.equal(true);
  });

  it('that were taken away take their mark with them, and no other gets their id', async () => {
    const { id } = await source();
    for (const text of ['The gate was green.', 'The gate was sold.'])
      await server.patch(`/sources/${id}`, { addFact: { text } });
    await server.patch(`/sources/${id}`, { marks: { w2: { mark: 'must' } } });
    const { body } = await server.patch(`/sources/${id}`, { removeFact: 'w2' });
    expect(body.marks).to.deep.equal({});
    expect(body.ownFacts.map((f: { id: string }) => f.id)).to.deep.equal(['w1']);
    expect((body.facts as Fact[]).filter((f) => f.own).map((f) => f.id)).to.deep.equal(['w1']);
    const again = (await server.patch(`/sources/${id}`, { addFact: { text: 'The gate came back.' } })).body;
    expect(again.ownFacts.map((f: { id: string }) => f.id)).to.deep.equal(['w1', 'w3']);
    expect((await server.patch(`/sources/${id}`, { marks: { w2: { mark: 'must' } } })).status).to.equal(404);
    const renewed = (await server.post(`/sources/${id}/renewal`, {})).body.source;
    expect(renewed.ownFacts.map((f: { id: string }) => f.id)).to.deep.equal(['w1', 'w3']);
  });

  it('as another kind keeps marks and ids of what stands', async () => {
    const { id, facts } = await source();
    await server.patch(`/sources/${id}`, { marks: { [facts[5].id]: { mark: 'out' } } });
    const { body } = await server.patch(`/sources/${id}`, { kind: 'news' });
    expect(body.document.kind).to.equal('news');
    expect(body.marks).to.deep.equal({ [facts[5].id]: { mark: 'out' } });
  });

  it('marked by two at once are both marked', async () => {
    const { id, facts } = await source();
    const ids = facts.slice(0, 8).map((f) => f.id);
    const answers = await Promise.all(
      ids.map((f) => server.patch(`/sources/${id}`, { marks: { [f]: { mark: 'must' } } })),
    );
    expect(answers.map((a) => a.status)).to.deep.equal(ids.map(() => 200));
    expect(Object.keys((await server.get(`/sources/${id}`)).body.marks).sort()).to.deep.equal(
      [...ids].sort(),
    );
  });
});
