/** Bad days: the database away and back, two of everything at once, a worker out of memory; nothing is lost or done twice. */
import { randomBytes } from 'node:crypto';
import { expect } from 'chai';
import pg from 'pg';
import { startTextService, type TextService } from '@ursprung/standins';
import { fetchLink, startServer } from '../src/index.ts';
import { BRIEF, freshServer, type TestServer } from './helpers.ts';

const WORDS = 'The boats of the lower river went down with coal and came back with lime. ';

describe('bad days', function () {
  let server: TestServer;
  let writer: TextService;
  let scriptId: string;
  before(async () => {
    writer = await startTextService({ paceMs: 1 });
    server = await freshServer(undefined, { allow: [writer.host] }, null, {
      secret: 'a secret that only tests have',
    });
    await server.keepService(writer);
    const settings = { ...BRIEF, usual: { from: 60, to: 600 } };
    const channelId = (await server.post('/channels', { name: 'One', settings })).body.id;
    scriptId = (
      await server.post('/scripts', { ...BRIEF, channelId, target: { kind: 'point', seconds: 60 } })
    ).body.id;
  });
  after(async () => {
    await server.stop();
    await writer.close();
  });

  /** A connection that stands outside of the database under test. */
  const outside = async <T>(work: (client: pg.Client, name: string) => Promise<T>): Promise<T> => {
    const client = new pg.Client({ connectionString: process.env.TEST_DATABASE_URL });
    await client.connect();
    try {
      return await work(client, new URL(server.databaseUrl).pathname.slice(1));
    } finally {
      await client.end();
    }
  };
  const type = (version: number, text: string) =>
    server.post(`/scripts/${scriptId}/steps`, {
      version,
      clientId: 'somebody',
      steps: [{ stepType: 'replace', from: 2, to: 2, slice: { content: [{ type: 'text', text }] } }],
    });
  /** Until something is so, however long a busy machine takes. */
  const until = async (so: () => Promise<boolean>) => {
    while (!(await so())) await new Promise((r) => setTimeout(r, 100));
  };

  it('the database goes away while somebody types, and comes back: no word acknowledged is lost, pages hear again', async () => {
    expect((await type(0, 'Before. ')).status).to.equal(200);
    await outside(async (client, name) => {
      await client.query(`ALTER DATABASE ${name} WITH ALLOW_CONNECTIONS false`);
      await client.query('SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = $1', [name]);
    });
    const away = await type(1, 'Away. ');
    // Refused in a way that the page keeps it and tries again.
    expect([away.status, away.body.error.code]).to.deep.equal([503, 'away']);
    expect((await server.get('/health')).status).to.equal(503);
    await outside((client, name) => client.query(`ALTER DATABASE ${name} WITH ALLOW_CONNECTIONS true`));
    await until(async () => (await server.get('/health')).status === 200);
    expect((await type(1, 'Back. ')).status).to.equal(200);
    const { doc, version } = (await server.get(`/scripts/${scriptId}`)).body;
    expect(version).to.equal(2);
    expect(JSON.stringify(doc)).to.include('Back. Before. ');
    // A reading is a job, told of over LISTEN: its page hears of the end of it.
    const { id } = (await server.post('/readings', { text: WORDS.repeat(8) })).body;
    const events = await server.raw('GET', `/readings/${id}/events`);
    const heard = await events.text();
    expect(heard).to.match(/"state":"done"/);
  });

  it('two first starts at the same time make one workspace', async () => {
    const name = `t_${randomBytes(6).toString('hex')}`;
    await outside((client) => client.query(`CREATE DATABASE ${name}`));
    const databaseUrl = server.databaseUrl.replace(/[^/]*$/, name);
    const start = () =>
      startServer({ databaseUrl, port: 0, worker: new URL('../dist/worker.js', import.meta.url) });
    const both = await Promise.all([start(), start()]);
    expect(both[0].service.workspaceId).to.equal(both[1].service.workspaceId);
    await Promise.all(both.map((s) => s.stop()));
    await outside((client) => client.query(`DROP DATABASE ${name} WITH (FORCE)`));
  });

  it('an order sent twice at once is asked once', async () => {
    const { id } = (
      await server.post(`/scripts/${scriptId}/commissions`, {
        scope: {},
        order: 'Write three words.',
        to: { kind: 'service' },
      })
    ).body;
    const before = await spent();
    await Promise.all([1, 2, 3].map(() => server.post(`/commissions/${id}/send`, {})));
    await until(async () => {
      const { commissions } = (await server.get(`/scripts/${scriptId}/commissions`)).body;
      return commissions.find((c: { id: string }) => c.id === id).state !== 'arriving';
    });
    expect((await spent()).length - before.length).to.equal(1);
  });

  const spent = () =>
    server.query(`SELECT what, "tokensIn" + "tokensOut" AS tokens FROM spending ORDER BY at`);

  it('what notes and orders used stays counted when the order is deleted', async () => {
    const { doc } = (await server.get(`/scripts/${scriptId}`)).body;
    const { docFromJson, plainSections } = await import('@ursprung/core/script');
    const before = (await server.get('/service')).body.service.usedTokens as number;
    await server.post(`/scripts/${scriptId}/ask`, {
      note: 'say it kindly',
      sections: plainSections(docFromJson(doc)),
    });
    const after = (await server.get('/service')).body.service.usedTokens as number;
    expect(after).to.be.greaterThan(before);
    for (const { id } of (await server.get(`/scripts/${scriptId}/commissions`)).body.commissions)
      expect((await server.request('DELETE', `/commissions/${id}`, {})).status).to.equal(200);
    expect((await server.get('/service')).body.service.usedTokens).to.equal(after);
    expect((await spent()).map((r) => r.what)).to.include('note');
  });

  it('two changes of a channel at once are both kept', async () => {
    const { channels } = (await server.get('/library')).body;
    const [{ id }] = channels;
    await Promise.all([
      server.patch(`/channels/${id}`, { settings: { rulesOff: ['filler'] } }),
      server.patch(`/channels/${id}`, { settings: { sayings: [{ word: 'Orrin', say: 'orr-in' }] } }),
    ]);
    const [{ settings }] = (await server.get('/library')).body.channels;
    expect(settings).to.deep.include({ rulesOff: ['filler'], sayings: [{ word: 'Orrin', say: 'orr-in' }] });
  });

  it('says whether database and workers answer, and whether the disk has room', async () => {
    // A worker that is only just starting, on a busy machine, answers a little later.
    await until(async () => (await server.get('/health?deep')).status === 200);
    expect((await server.get('/health?deep')).body).to.deep.equal({
      ok: true,
      app: 'ursprung',
      database: true,
      room: true,
      workers: true,
    });
  });

  it('a disk without room is said, though what is small would still find its place', async () => {
    const full = await freshServer();
    try {
      // As on a full disk, PostgreSQL lays down no more than so much.
      const name = new URL(full.databaseUrl).pathname.slice(1);
      await full.query(`ALTER DATABASE ${name} SET temp_file_limit = '1MB'`);
      await full.query('SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid()'); // prettier-ignore
      await until(async () => (await full.get('/health')).body.database === true);
      const { status, body } = await full.get('/health');
      expect(status).to.equal(503);
      expect(body).to.include({ ok: false, database: true, room: false });
      expect((await full.post('/channels', { name: 'Bells', settings: { ...BRIEF, usual: { from: 60, to: 600 } } })).status).to.equal(201); // prettier-ignore
    } finally {
      await full.stop();
    }
  });

  it('a host inside the network is read on the port that was allowed, and on no other', async () => {
    const { port } = new URL(`http://${writer.host}`);
    const other = `http://localhost:${Number(port) + 1}/`;
    const why = (address: string) =>
      fetchLink(address, { allow: [`localhost:${port}`], withinMs: 3000 }).then(
        () => 'read',
        (error: Error) => error.message,
      );
    expect(await why(other)).to.match(/inside a private network/);
    expect(await why(`http://localhost:${port}/`)).to.not.match(/inside a private network/);
  });
});
