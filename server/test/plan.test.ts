/** Promise, brief, takes and what a script can become, over HTTP on a real PostgreSQL. */
import { expect } from 'chai';
import { docFromJson, plainSections, type PlainSection } from '@ursprung/core/script';
import { demoSource } from '@ursprung/demo';
import { freshServer, type TestServer } from './helpers.ts';

const CHANNEL = {
  name: 'Quiet Machinery',
  settings: { frame: '16:9', mood: 'calm', pace: 150, voice: 'even', usual: { from: 300, to: 600 } },
};
const BRIEF = { frame: '16:9', mood: 'calm', pace: 150, voice: 'even' };

describe('planning a script over HTTP', function () {
  let server: TestServer;
  let channelId: string;
  let sourceId: string;
  let scriptId: string;
  let sections: PlainSection[];

  const make = async (more: object = {}) =>
    (
      await server.post('/scripts', {
        ...BRIEF,
        channelId,
        sourceId,
        target: { kind: 'point', seconds: 120 },
        ...more,
      })
    ).body;
  const sectionsOf = async (id: string) =>
    plainSections(docFromJson((await server.get(`/scripts/${id}`)).body.doc));

  before(async () => {
    server = await freshServer();
    channelId = (await server.post('/channels', CHANNEL)).body.id;
    sourceId = (
      await server.post('/sources', { base64: Buffer.from(demoSource('footbridge')).toString('base64') })
    ).body.id;
    scriptId = (await make()).id;
    sections = await sectionsOf(scriptId);
  });
  after(() => server.stop());

  it('offers angles, titles, pictures, hooks and shapes for a source, and checks a title', async () => {
    const { body } = await server.post('/promise', {
      sourceId,
      voice: 'even',
      pace: 150,
      title: 'Nine dragons on the bridge',
    });
    expect(body.angles).to.have.length(5);
    expect(body.titles.length).to.be.within(3, 10);
    expect(body.hooks.length).to.be.greaterThan(0);
    expect(body.shapes[0].id).to.equal('news');
    expect(body.check.paid).to.equal(false);
    const other = (await server.post('/promise', { sourceId, voice: 'even', pace: 150, page: 1 })).body;
    expect(other.angles.map((a: { id: string }) => a.id)).to.not.include(body.angles[0].id);
  });

  it('keeps with a script what its title rests on; a title that can’t be paid for promises nothing, and says so', async () => {
    const { titles } = (await server.post('/promise', { sourceId, voice: 'even', pace: 150 })).body;
    const paid = await make({ title: titles[0].text });
    const stored = (await server.get(`/scripts/${paid.id}`)).body.settings;
    expect(stored.promise.pays).to.deep.equal(titles[0].pays);
    const told = (await sectionsOf(paid.id)).flatMap((s) =>
      s.lines.flatMap((l) => l.from.map((f) => f.fact)),
    );
    expect(told).to.include(titles[0].pays.fact);
    const unpaid = await make({ title: 'Nine dragons on the bridge' });
    expect(unpaid.notes.join(' ')).to.match(/can’t pay for/);
    expect((await server.get(`/scripts/${unpaid.id}`)).body.settings.promise?.pays).to.equal(undefined);
  });

  it('keeps the brief and drafts by it', async () => {
    const { id } = await make({
      brief: { mood: 'grave', spelling: 'American', avoid: ['volunteers'] },
      fixed: [{ id: 'x', name: 'sign-off', text: 'That was the river.', where: 'end' }],
    });
    const { settings } = (await server.get(`/scripts/${id}`)).body;
    expect(settings.brief).to.deep.include({ spelling: 'American', avoid: ['volunteers'] });
    const lines = (await sectionsOf(id)).flatMap((s) => s.lines);
    expect(lines.at(-1)).to.deep.include({ text: 'That was the river.', fixed: 'sign-off', locked: true });
    expect(lines.map((l) => l.text).join(' ')).to.not.match(/volunteers|harbour/);
  });

  it('tells a section or a line another way on the page’s own sections, without storing anything', async () => {
    const answers = [];
    for (const s of sections.slice(1))
      answers.push(
        (await server.post(`/scripts/${scriptId}/redo`, { what: 'section', sections, section: s.id })).body,
      );
    const taken = answers.find((a) => a.sections);
    expect(taken.sections.some((s: PlainSection) => s.takes.length === 1)).to.equal(true);
    expect(await sectionsOf(scriptId)).to.deep.equal(sections);
    const locked = sections.map((s) => ({ ...s, locked: true }));
    expect(
      (
        await server.post(`/scripts/${scriptId}/redo`, {
          what: 'section',
          sections: locked,
          section: sections[1].id,
        })
      ).body.refused,
    ).to.match(/locked/);
  });

  it('gives another hook, shape and fit', async () => {
    for (const request of [
      { what: 'hook' },
      { what: 'shape', shape: 'case' },
      { what: 'fit' },
      { what: 'whole', seed: 4 },
    ]) {
      const { status, body } = await server.post(`/scripts/${scriptId}/redo`, { ...request, sections });
      expect(status, request.what).to.equal(200);
      expect(body.sections ?? body.refused, request.what).to.not.equal(undefined);
    }
  });

  it('tells a script anew as it was told, in the shape that suited it; in one that was asked for, by that', async () => {
    const textsOf = (list: readonly PlainSection[]) => list.flatMap((s) => s.lines.map((l) => l.text));
    const anew = async (id: string, sections: readonly PlainSection[]) =>
      (await server.post(`/scripts/${id}/redo`, { what: 'whole', sections })).body.sections;
    const plain = (await make({})).id;
    const { shape, shapeAsked } = (await server.get(`/scripts/${plain}`)).body.settings;
    expect(shapeAsked).to.equal(undefined);
    const first = await sectionsOf(plain);
    expect(textsOf(await anew(plain, first))).to.deep.equal(textsOf(first));
    const asked = (await make({ shape: shape === 'chronicle' ? 'question' : 'chronicle' })).id;
    expect((await server.get(`/scripts/${asked}`)).body.settings.shapeAsked).to.equal(true);
    const other = await sectionsOf(asked);
    expect(textsOf(other)).to.not.deep.equal(textsOf(first));
    expect(textsOf(await anew(asked, other))).to.deep.equal(textsOf(other));
  });

  it('refuses what it can’t read with words and changes nothing', async () => {
    for (const bad of [{ what: 'everything', sections }, { what: 'hook', sections: [] }, { what: 'hook' }]) {
      const { status, body } = await server.post(`/scripts/${scriptId}/redo`, bad);
      expect(status).to.equal(400);
      expect(body.error.message).to.match(/\w/);
    }
    expect(
      (
        await server.post('/promise', {
          sourceId: '00000000-0000-4000-8000-000000000000',
          voice: 'even',
          pace: 150,
        })
      ).status,
    ).to.equal(404);
    expect((await server.post(`/scripts/${scriptId}/derive`, { kind: 'opera' })).status).to.equal(400);
  });

  it('makes a vertical short with an end of its own, a second part from what is left, and the same for others', async () => {
    const short = (await server.post(`/scripts/${scriptId}/derive`, { kind: 'short' })).body;
    const { settings } = (await server.get(`/scripts/${short.id}`)).body;
    expect([settings.frame, settings.target]).to.deep.equal(['9:16', { kind: 'ceiling', seconds: 60 }]);
    const factsOf = (s: readonly PlainSection[]) =>
      new Set(s.flatMap((x) => x.lines.flatMap((l) => l.from.map((f) => f.fact))));
    const second = (await server.post(`/scripts/${scriptId}/derive`, { kind: 'second' })).body;
    expect(second.error, JSON.stringify(second.error)).to.equal(undefined);
    const told = factsOf(sections);
    for (const f of factsOf(await sectionsOf(second.id))) expect([...told]).to.not.include(f);
    const children = (
      await server.post(`/scripts/${scriptId}/derive`, { kind: 'audience', audience: 'children' })
    ).body;
    expect((await server.get(`/scripts/${children.id}`)).body.settings.brief.audience).to.equal('children');
    for (const id of [short.id, second.id, children.id])
      for (const line of (await sectionsOf(id)).flatMap((s) => s.lines))
        if (line.role !== 'lead' && line.role !== 'frame') expect(line.from, line.text).to.not.be.empty;
  });

  it('has nothing to tell anew in a script without a source', async () => {
    const empty = (
      await server.post('/scripts', { ...BRIEF, channelId, target: { kind: 'point', seconds: 60 } })
    ).body;
    const { status, body } = await server.post(`/scripts/${empty.id}/redo`, {
      what: 'hook',
      sections: await sectionsOf(empty.id),
    });
    expect(status).to.equal(400);
    expect(body.error.message).to.match(/no source/);
  });
});
