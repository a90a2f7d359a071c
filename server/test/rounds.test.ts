/** A script told by the text service in one go, on a real PostgreSQL; the stand-in writer plays the service, well and badly. */
import { expect } from 'chai';
import { startTextService, type TextService } from '@ursprung/standins';
import { plainSections, docFromJson, type PlainSection } from '@ursprung/core/script';
import type { RoundsView } from '../src/api.ts';
import { startServer } from '../src/index.ts';
import { freshServer, toldScript, type TestServer } from './helpers.ts';

const SECRET = 'a secret that only tests have';

describe('a script told by the text service', function () {
  this.timeout(120_000);
  let writer: TextService;
  /** One that takes its time. */
  let slow: TextService;
  let server: TestServer;
  let shelf: Awaited<ReturnType<typeof toldScript>>;
  before(async () => {
    writer = await startTextService({ paceMs: 1 });
    slow = await startTextService({ paceMs: 12 });
    server = await freshServer(undefined, { allow: [writer.host, slow.host] }, null, { secret: SECRET, standIn: writer.host });
    shelf = await toldScript(server, 120);
  });
  after(async () => {
    await server.stop();
    await writer.close();
    await slow.close();
  });

  const keep = (model: string, more: object = {}) => server.request('PUT', '/service', { address: writer.url, model, key: writer.key, ...more });
  const script = async (): Promise<string> =>
    (await server.post('/scripts', { channelId: shelf.channelId, sourceId: shelf.sourceId, frame: '16:9', mood: 'calm', pace: 150, voice: 'even', target: { kind: 'point', seconds: 90 }, seed: 1 })).body.id as string;
  const sections = async (id: string): Promise<PlainSection[]> => plainSections(docFromJson((await server.get(`/scripts/${id}`)).body.doc));
  const one = async (id: string, script: string) => ((await server.get(`/scripts/${script}/rounds`)).body.rounds as RoundsView[]).find((r) => r.id === id)!;
  const until = async (id: string, script: string, is: (r: RoundsView) => boolean): Promise<RoundsView> => {
    for (let i = 0; i < 1500; i++) {
      const now = await one(id, script);
      if (is(now)) return now;
      await new Promise((r) => setTimeout(r, 40));
    }
    throw new Error(`It never came to be so: ${JSON.stringify(await one(id, script))}`);
  };
  const over = (r: RoundsView) => r.endedAt !== null;
  /** A new script, told by such a service to the end. */
  const told = async (model: string, most = 3, more: object = {}) => {
    await keep(model, more);
    const id = await script();
    const before = await sections(id);
    const { body } = await server.post(`/scripts/${id}/rounds`, { most });
    return { id, before, now: await until(body.id as string, id, over) };
  };

  it('needs a service, and says so', async () => {
    const id = await script();
    const refused = await server.post(`/scripts/${id}/rounds`, {});
    expect([refused.status, refused.body.error.message]).to.deep.equal([404, 'No text service is configured.']);
  });

  it('is asked, checked, asked again for what failed, and stands at its seconds, with who wrote what and what it cost', async () => {
    await keep('stand-in', { priceIn: 1, priceOut: 2 });
    const id = await script();
    const before = await sections(id);
    const { body: started } = await server.post(`/scripts/${id}/rounds`, { most: 2 });
    expect(started).to.include({ state: 'waiting', orders: 0 });
    // One at a time.
    expect((await server.post(`/scripts/${id}/rounds`, {})).status).to.equal(400);
    const done = await until(started.id, id, over);
    expect(done.state, done.message ?? '').to.equal('done');
    expect(done.orders).to.be.at.most(2);
    const after = await sections(id);
    const lines = after.flatMap((s) => s.lines);
    expect(lines.filter((l) => l.by?.kind === 'stand-in').length).to.equal(done.outcome!.count.taken + done.outcome!.count.mended);
    expect(lines.filter((l) => l.by).length).to.be.greaterThan(3);
    expect(Math.abs(done.outcome!.offMs)).to.be.at.most(900);
    expect(done.says).to.match(/^\d+ lines by 127\.0\.0\.1:\d+, stand-in.*; \d rounds?, \d orders?, [\d,]+ tokens, 0\.\d+ in its money\. It lasts 1:(?:29|30|31)\.$/);
    // What stood there is a take, and one step back away.
    for (const s of after.filter((x) => x.lines.some((l) => l.by))) expect(s.takes.at(-1)!.lines.map((l) => l.text)).to.deep.equal(before.find((b) => b.id === s.id)!.lines.map((l) => l.text));
    // Counted once.
    const [{ n, tokens }] = await server.query(`SELECT count(*)::int AS n, sum("tokensIn" + "tokensOut")::int AS tokens FROM spending`);
    expect([n, tokens]).to.deep.equal([done.orders, done.tokensIn + done.tokensOut]);
    const { commissions } = (await server.get(`/scripts/${id}/commissions`)).body;
    expect(commissions).to.have.length(done.orders);
  });

  it('of a part that the script hasn’t is refused, and so is a number that is none', async () => {
    const id = await script();
    const refused = await server.post(`/scripts/${id}/rounds`, { scope: { section: 'S99' } });
    expect([refused.status, refused.body.error.message]).to.deep.equal([400, 'The script has no such part.']);
    expect((await server.post(`/scripts/${id}/rounds`, { most: 99 })).status).to.equal(400);
  });

  it('by a writer at its worst has nothing of it in the script', async () => {
    const { id, now } = await told('stand-in/worst');
    expect(now.state, now.message ?? '').to.equal('done');
    const said = (await sections(id)).flatMap((s) => s.lines.map((l) => l.text)).join('\n');
    expect(said).to.not.match(/Wren|1066|Let me know|Word count/);
    expect(now.outcome!.refused.length + now.outcome!.count.byRule).to.be.greaterThan(0);
  });

  for (const [model, word] of [['stand-in/unauthorised', /does not accept the key/], ['stand-in/broken', /in trouble \(500\)/]] as const)
    it(`by a service that is ${model.split('/')[1]} leaves the script as it was, and says why`, async () => {
      const { id, before, now } = await told(model);
      expect(now.state).to.equal('failed');
      expect(now.message).to.match(word);
      expect(await sections(id)).to.deep.equal(before);
    });

  it('that breaks off in mid-sentence uses the whole sentences, and asks for the rest', async () => {
    const { id, now } = await told('stand-in/cut-off', 2);
    expect(now.state, now.message ?? '').to.equal('done');
    for (const l of (await sections(id)).flatMap((s) => s.lines)) if (l.text) expect(l.text).to.match(/[.!?…”:]$/);
  });

  it('over the month’s limit is not asked', async () => {
    const { now } = await told('stand-in', 3, { monthlyTokens: 1000 });
    expect([now.state, now.tokensIn]).to.deep.equal(['failed', 0]);
    expect(now.message).to.match(/of the month’s 1,000 are left/);
    await keep('stand-in', { monthlyTokens: null });
  });

  it('stops at any time, and nothing is put into the script', async () => {
    await keep('stand-in', { address: slow.url });
    const id = await script();
    const before = await sections(id);
    const { body } = await server.post(`/scripts/${id}/rounds`, {});
    await until(body.id, id, (r) => r.state === 'asking' && r.came > 0);
    const stopped = (await server.post(`/rounds/${body.id}/stop`, {})).body as RoundsView;
    expect(stopped.state).to.equal('stopped');
    await new Promise((r) => setTimeout(r, 300));
    expect((await one(body.id, id)).state).to.equal('stopped');
    expect(await sections(id)).to.deep.equal(before);
  });

  it('lets a section stand that was written in meanwhile', async () => {
    await keep('stand-in', { address: slow.url });
    const id = await script();
    const { body } = await server.post(`/scripts/${id}/rounds`, { most: 1 });
    await until(body.id, id, (r) => r.state === 'asking' && r.came > 0);
    const { version, doc } = (await server.get(`/scripts/${id}`)).body as { version: number; doc: { content: { content: { attrs: { id: string } }[] }[] } };
    const [section] = (await sections(id)).slice(-1);
    // A letter in front of the last section's first line.
    const at = docFromJson(doc).content.size - docFromJson(doc).lastChild!.nodeSize + 2;
    const step = { stepType: 'replace', from: at, to: at, slice: { content: [{ type: 'text', text: 'Mine: ' }] } };
    expect((await server.post(`/scripts/${id}/steps`, { version, clientId: 'a-page', steps: [step] })).status).to.equal(200);
    const done = await until(body.id, id, over);
    expect(done.state, done.message ?? '').to.equal('done');
    const [last] = (await sections(id)).slice(-1);
    expect(last.lines.map((l) => l.text)).to.deep.equal(section.lines.map((l, i) => (i ? l.text : `Mine: ${l.text}`)));
    expect((await sections(id)).flatMap((s) => s.lines).some((l) => l.by)).to.equal(true);
  });

  it('goes on in the next process where one stopped', async () => {
    await keep('stand-in', { address: slow.url });
    const id = await script();
    const { body } = await server.post(`/scripts/${id}/rounds`, { most: 1 });
    await until(body.id, id, (r) => r.state === 'asking' && r.came > 0);
    await server.close();
    const next = await startServer({ databaseUrl: server.databaseUrl, port: 0, worker: server.work, links: { allow: [writer.host, slow.host] }, secret: SECRET, standIn: writer.host, log: () => undefined });
    try {
      let now: RoundsView | undefined;
      for (let i = 0; i < 1500 && !now?.endedAt; i++) {
        const rows = (await (await fetch(`${next.url}/api/scripts/${id}/rounds`)).json()) as { rounds: RoundsView[] };
        now = rows.rounds.find((r) => r.id === body.id);
        await new Promise((r) => setTimeout(r, 40));
      }
      expect(now).to.include({ state: 'done', orders: 1 });
    } finally {
      await next.stop();
    }
  });
}); // prettier-ignore
