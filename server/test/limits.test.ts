/** Who may ask how often, and what the server says when something else gives way. */
import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { expect } from 'chai';
import pg from 'pg';
import { makeApp, type AppOptions } from '../src/app.ts';
import type { ERRORS } from '../src/errors.ts';
import { freshServer, toldScript, type TestServer } from './helpers.ts';

type Fields = Record<string, string>;
const OWN: Fields = { 'content-type': 'application/json', 'x-requested-with': 'ursprung' };
const ID = '00000000-0000-4000-8000-000000000000';

/** An application over parts that answer as a test wants. */
async function appOf(parts: object) {
  const app = makeApp(parts as unknown as AppOptions).listen(0, '127.0.0.1');
  await once(app, 'listening');
  const { port } = app.address() as AddressInfo;
  const ask = async (method: string, path: string, headers: Fields = {}, body?: BodyInit) => {
    const answer = await fetch(`http://127.0.0.1:${port}/api${path}`, {
      method,
      headers: { ...OWN, ...headers },
      ...(method === 'GET' ? {} : { body: body ?? '{}' }),
    });
    return { status: answer.status, code: ((await answer.json().catch(() => ({}))) as { error?: { code: string } }).error?.code, headers: answer.headers }; // prettier-ignore
  };
  return { ask, close: () => app.close() };
}
const idle = { library: () => Promise.resolve({}), appendSteps: () => Promise.resolve({}), carries: () => Promise.resolve({}), sources: {} }; // prettier-ignore
const steps = JSON.stringify({
  version: 0,
  steps: [{ stepType: 'attr' }],
  clientId: 'page',
  origin: 'typing',
});

describe('limits', () => {
  it('are apart for saves, for reads and for work, and for each page', async () => {
    const { ask, close } = await appOf({ service: idle, perMinute: 4 });
    const save = (page: string) => ask('POST', `/scripts/${ID}/steps`, { 'x-page': page }, steps);
    const times = async (n: number, one: () => Promise<{ status: number }>) =>
      (await Promise.all(Array.from({ length: n }, one))).map((a) => a.status).sort();
    expect(await times(6, () => save('one'))).to.deep.equal([200, 200, 200, 200, 429, 429]);
    // Another page's saves, and this one's reads and work, are untouched.
    expect(await times(4, () => save('two'))).to.deep.equal([200, 200, 200, 200]);
    expect(await times(8, () => ask('GET', '/library', { 'x-page': 'one' }))).to.deep.equal(
      Array(8).fill(200),
    );
    const work = await times(3, () => ask('POST', '/carries', { 'x-page': 'one' }));
    expect(work).to.deep.equal([400, 400, 429]);
    close();
  });

  it('are not used up by pages of others: those are refused before they count', async () => {
    const { ask, close } = await appOf({ service: idle, perMinute: 2 });
    for (let i = 0; i < 20; i++)
      expect((await ask('GET', '/library', { 'sec-fetch-site': i % 2 ? 'cross-site' : 'same-site' })).code).to.equal('other-origin'); // prettier-ignore
    expect((await ask('GET', '/library', { 'sec-fetch-site': 'same-origin' })).status).to.equal(200);
    expect((await ask('GET', '/library', { 'sec-fetch-site': 'none' })).status).to.equal(200);
    close();
  });

  it('let no more than two voices speak at once, and turn the fortieth away', async () => {
    let [now, most] = [0, 0];
    let sayOn = () => {};
    const waits = new Promise<void>((r) => (sayOn = r));
    const voice = () => ({
      speak: async () => {
        most = Math.max(most, ++now);
        await waits;
        now--;
        return new Uint8Array(4);
      },
    });
    const { ask, close } = await appOf({ service: idle, page: {}, voice });
    const say = () => ask('POST', '/voice', {}, JSON.stringify({ text: 'Once.', pace: 150 }));
    const asked = Array.from({ length: 40 }, say);
    // Two speak and sixteen wait; the others hear at once that it is too much.
    await Promise.any(asked);
    sayOn();
    const all = await Promise.all(asked);
    expect(most).to.equal(2);
    expect([...new Set(all.map((a) => a.status))].sort()).to.deep.equal([200, 429]);
    expect((await say()).status).to.equal(200);
    close();
  });
});

describe('what the database says', () => {
  const CODES: [string, string, keyof typeof ERRORS][] = [
    ['57014', 'cancelled by its time limit', 'busy'],
    ['55P03', 'no lock within its time', 'busy'],
    ['40P01', 'two that wait for one another', 'busy'],
    ['53100', 'its disk is full', 'full'],
    ['53300', 'too many connections', 'away'],
    ['57P01', 'it is shut down', 'away'],
  ];
  for (const [code, what, answer] of CODES)
    it(`${code}, ${what}, is told in words (PostgreSQL manual, appendix A)`, async () => {
      const error = Object.assign(new Error(what), { name: 'SequelizeDatabaseError', original: { code } });
      const lines: string[] = [];
      const { ask, close } = await appOf({ service: { ...idle, library: () => Promise.reject(error) }, log: (l: string) => lines.push(l) }); // prettier-ignore
      const said = await ask('GET', '/library');
      expect([said.status, said.code]).to.deep.equal([503, answer]);
      // The log says where it happened.
      expect(lines.join()).to.include('GET /api/library').and.to.include(what);
      close();
    });
});

it('what nobody expected is told as that, and logged with where and why', async () => {
  const lines: string[] = [];
  const { ask, close } = await appOf({ service: { ...idle, library: () => Promise.reject(new Error('a slip')) }, log: (l: string) => lines.push(l) }); // prettier-ignore
  const said = await ask('GET', '/library');
  expect([said.status, said.code]).to.deep.equal([500, 'internal']);
  expect(lines.join()).to.match(/^GET \/api\/library: Error: a slip\n\s+at /);
  close();
});

describe('a database that does not answer', () => {
  let server: TestServer;
  before(async () => void (server = await freshServer()));
  after(() => server.stop());

  it('holds a request no longer than its limit for locks, and the next is served', async () => {
    const { scriptId } = await toldScript(server, 60);
    const holder = new pg.Client({ connectionString: server.databaseUrl });
    await holder.connect();
    await holder.query('BEGIN; LOCK TABLE scripts IN ACCESS EXCLUSIVE MODE');
    // More requests than connections: what waits for one is told so too.
    const held = await Promise.all(Array.from({ length: 12 }, () => server.get(`/scripts/${scriptId}`)));
    for (const { status, body } of held) expect([status, body.error.code]).to.be.deep.oneOf([[503, 'busy'], [503, 'away']]); // prettier-ignore
    await holder.end();
    expect((await server.get(`/scripts/${scriptId}`)).status).to.equal(200);
  });

  it('is asked nothing by what is no request of ours', async () => {
    const broken = await server.raw('POST', '/carries', 'no gzip at all', { 'content-encoding': 'gzip' });
    expect(broken.status).to.equal(400);
    for (const path of ['/assets/..%2f', '/assets/%2e%2e/%2e%2e/package.json', '/%ff', '/assets/%00'])
      expect((await fetch(server.url + path)).status, path).to.be.within(400, 404);
  });

  it('and its words are kept by no cache', async () => {
    const { headers } = await server.raw('GET', '/library');
    expect(headers.get('cache-control')).to.equal('no-store');
    expect(headers.get('content-security-policy')).to.include("font-src 'self';");
  });

  it('a kept key goes to the host it was given for, in the way it was given for', async () => {
    const own = await freshServer(undefined, { allow: ['127.0.0.1:9'] }, null, { secret: 'a secret of thirty letters or so' }); // prettier-ignore
    const service = (address: string, key?: string) =>
      own.request('PUT', '/service', { address, model: 'm', priceIn: null, priceOut: null, monthlyTokens: null, ...(key ? { key } : {}) }); // prettier-ignore
    expect((await service('https://127.0.0.1:9/v1', 'k')).body.service.hasKey).to.equal(true);
    expect((await service('https://127.0.0.1:9/v2')).body.service.hasKey).to.equal(true);
    expect((await service('http://127.0.0.1:9/v2')).body.service.hasKey).to.equal(false);
    await own.stop();
  });
});
