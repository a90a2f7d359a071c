/** Sources on a real PostgreSQL: links and what is refused, reading as a job, the library, marks, citations. */
import { expect } from 'chai';
import fc from 'fast-check';
import { demoSource } from '@ursprung/demo';
import { startNewsDesk, type NewsDesk } from '@ursprung/standins';
import { fetchLink, isPublic, startServer, type Reading } from '../src/index.ts';
import { freshServer, type TestServer } from './helpers.ts';

const LONG = 'The boats of the lower river went down with coal and came back with lime. '.repeat(6);

describe('what address is public (RFC 6890, IANA special-purpose registries)', () => {
  const INSIDE = [
    '127.0.0.1',
    '10.0.0.1',
    '172.16.5.4',
    '192.168.1.1',
    '169.254.169.254',
    '0.0.0.0',
    '100.64.0.1',
    '224.0.0.1',
    '255.255.255.255',
    '::1',
    'fe80::1',
    'fc00::1',
    '::ffff:127.0.0.1',
    '::ffff:10.0.0.1',
    '::',
    'ff02::1',
    '2001:db8::1',
    '198.18.0.1',
    '198.19.255.254',
    '192.88.99.1',
    '203.0.113.9',
    'fec0::1',
    '::7f00:1',
    '::127.0.0.1',
    '64:ff9b::7f00:1',
    '64:ff9b:1::1',
    '2002:7f00:1::',
    '2001::1',
    '3fff::1',
    '100::1',
  ];
  for (const address of INSIDE) it(`${address} is not`, () => expect(isPublic(address)).to.equal(false));
  for (const address of ['93.184.216.34', '8.8.8.8', '2606:2800:220:1::1'])
    it(`${address} is`, () => expect(isPublic(address)).to.equal(true));
  it('nothing that is no address is', () =>
    fc.assert(
      fc.property(
        fc.string({ maxLength: 40 }).filter((s) => !/^[\d.:a-f]+$/i.test(s)),
        (s) => {
          expect(isPublic(s)).to.equal(false);
        },
      ),
      { seed: 3, numRuns: 200 },
    ));
});

describe('fetching a link', function () {
  let desk: NewsDesk;
  before(async () => void (desk = await startNewsDesk()));
  after(() => desk.close());

  const why = async (address: string, allowed = true, more: object = {}): Promise<string> => {
    try {
      await fetchLink(address, { ...(allowed ? { allow: [desk.host] } : {}), withinMs: 3000, ...more });
      return 'read';
    } catch (error) {
      expect((error as { code?: string }).code, String(error)).to.equal('link-refused');
      expect((error as Error).message).to.match(/Paste the text instead\.$/);
      return (error as Error).message;
    }
  };

  it('reads an allowed page and follows a redirect to one', async () => {
    expect(
      new TextDecoder().decode((await fetchLink(`${desk.url}/to-weir`, { allow: [desk.host] })).bytes),
    ).to.include('Weir at Sluice');
  });
  it('reads nothing inside the network without the setting, however the address is written', async () => {
    const port = desk.host.split(':')[1];
    const before = desk.asked.length;
    for (const host of [
      '127.0.0.1',
      'localhost',
      '2130706433',
      '0x7f.1',
      '[::1]',
      '[::ffff:127.0.0.1]',
      '127.1',
      '0',
    ])
      expect(await why(`http://${host}:${port}/weir`, false), host).to.match(/private network/);
    expect(desk.asked.length, 'requests that got through').to.equal(before);
  });
  const CASES: readonly (readonly [string, RegExp])[] = [
    ['/inside', /private network/],
    ['/inside-name', /private network/],
    ['/inside-file', /Only pages on http and https/],
    ['/loop', /again and again/],
    ['/empty', /answers with nothing/],
    ['/401', /name and password/],
    ['/404', /no page at that address/],
    ['/500', /in trouble/],
    ['/picture', /holds image\/png/],
    ['/slow', /too long/],
    ['/private/page', /robots\.txt/],
  ];
  for (const [path, reason] of CASES)
    it(`${path}: ${reason.source}`, async () => expect(await why(desk.url + path)).to.match(reason));
  it('stops a page that never ends at its limit of size', async () =>
    expect(await why(`${desk.url}/huge`, true, { largest: 1024 * 1024, withinMs: 15_000 })).to.match(
      /more than 1 MB/,
    ));
  it('never asks for a forbidden page, only for robots.txt', async () => {
    const before = desk.asked.length;
    await why(`${desk.url}/private/page`);
    expect(desk.asked.slice(before)).to.deep.equal(['/robots.txt']);
  });
  it('refuses other schemes, passwords in the address and what is no address', async () => {
    for (const address of [
      'file:///etc/passwd',
      'ftp://example.org/x',
      'javascript:alert(1)',
      'gopher://example.org',
      `http://a:b@${desk.host}/weir`,
      'http://',
      'weir',
    ])
      expect(await why(address), address).not.to.equal('read');
  });
});

describe('sources on a real PostgreSQL', function () {
  let server: TestServer;
  let desk: NewsDesk;
  before(async () => {
    desk = await startNewsDesk();
    server = await freshServer(undefined, { allow: [desk.host], withinMs: 3000 });
  });
  after(async () => {
    await server.stop();
    await desk.close();
  });

  const add = async (text: string, kind?: string) =>
    (await server.post('/sources', { text, ...(kind ? { kind } : {}) })).body;
  /** Every state a reading tells over server-sent events, to its end. */
  const events = async (id: string): Promise<Reading[]> => {
    const response = await server.raw('GET', `/readings/${id}/events`);
    expect(response.headers.get('content-type')).to.match(/^text\/event-stream/);
    return (await response.text())
      .split('\n')
      .filter((l) => l.startsWith('data: '))
      .map((l) => JSON.parse(l.slice(6)) as Reading);
  };

  it('are read as a job that tells how far it is, from a link', async () => {
    const started = await server.post('/readings', { address: `${desk.url}/weir` });
    expect(started.status).to.equal(202);
    const told = await events(started.body.id);
    expect(told.at(-1)!.state).to.equal('done');
    const { document, address } = (await server.get(`/sources/${told.at(-1)!.sourceId}`)).body;
    expect([document.title, document.publisher, document.published, document.authors]).to.deep.equal([
      'Weir at Sluice gives way in the night',
      'Lockside Wire',
      '2025-10-12',
      ['Nell Auster'],
    ]);
    expect(address).to.equal(`${desk.url}/weir`);
    expect((await server.query('SELECT original FROM readings')).every((r) => r.original === null)).to.equal(
      true,
    );
  });

  it('a link that can’t be read, a liar and a broken file fail with a reason and a way on', async () => {
    const ends = async (input: object) =>
      (await events((await server.post('/readings', input)).body.id)).at(-1)!;
    expect(await ends({ address: `${desk.url}/404` }))
      .to.include({ state: 'failed', sourceId: null })
      .and.have.property('message')
      .that.matches(/no page at that address\. Paste/);
    expect((await ends({ address: `${desk.url}/liar` })).message).to.match(/not text/);
    expect((await ends({ base64: Buffer.from('%PDF-1.4 broken').toString('base64') })).message).to.match(
      /broken or cut off/,
    );
    expect((await server.post('/readings', { address: 'ftp://x.org' })).status).to.equal(400);
    expect((await server.post('/readings', {})).status).to.equal(400);
  });

  it('a long one tells its progress, can be stopped, and keeps nobody waiting meanwhile', async () => {
    const long = Array.from(
      { length: 4000 },
      (_, i) =>
        `Boat ${i + 2} of the fleet number ${i % 97} went down to Sluice on day ${i} with ${i * 3} tonnes of coal.`,
    ).join('\n\n');
    const { id } = (await server.post('/readings', { text: long })).body;
    const hears = events(id);
    await new Promise((r) => setTimeout(r, 1500));
    // The least of up to five: a busy machine keeps everybody waiting now and then.
    let waited = Infinity;
    for (let ask = 0; ask < 5 && waited >= 1000; ask++) {
      const began = Date.now();
      expect((await server.get('/health')).status).to.equal(200);
      waited = Math.min(waited, Date.now() - began);
    }
    expect(waited, 'an answer while a long source is read').to.be.lessThan(1000);
    expect((await server.post(`/readings/${id}/stop`, {})).body.state).to.equal('stopped');
    const told = await hears;
    expect(told.at(-1)!.state).to.equal('stopped');
    expect((await server.get(`/readings/${id}`)).body).to.include({ state: 'stopped', sourceId: null });
  });

  it('a reading that waits when the server stops is done by the next one', async () => {
    const url = process.env.TEST_DATABASE_URL!;
    const name = new URL(server.databaseUrl).pathname.slice(1);
    const databaseUrl = url.replace(/\/[^/]*$/, `/${name}`);
    const id = (
      await server.query(
        "INSERT INTO readings SELECT gen_random_uuid(), id, 'waiting', 'waiting its turn', 0, 0, NULL, convert_to('The gate of the lock opened at dawn. Nobody saw it.', 'UTF8'), NULL, NULL, NULL, now() FROM workspaces RETURNING id",
      )
    )[0].id as string;
    await server.query(`INSERT INTO jobs.job (name, data) VALUES ('reading', '${JSON.stringify({ id })}')`);
    const second = await startServer({
      databaseUrl,
      port: 0,
      worker: new URL('../dist/worker.js', import.meta.url),
    });
    try {
      expect((await events(id)).at(-1)!.state).to.equal('done');
    } finally {
      await second.stop();
    }
  });

  it('are found by their words, best first, with the found words marked; and by kind, days, rights and use', async () => {
    await add(
      `Otters of the upper cut\n\nPublished 14 March 2024\n\nOtters came back to the upper cut. ${LONG}`,
      'news',
    );
    await add(`A lock-keeper’s handbook\n\nKeep the gate clear of otters. ${LONG}`, 'howto');
    const search = async (query: string) =>
      (await server.get(`/sources?${query}`)).body.sources as {
        title: string;
        found: string | null;
        rights: string;
      }[];
    const found = await search('q=otter');
    expect(found.map((f) => f.title)).to.deep.equal(['Otters of the upper cut', 'A lock-keeper’s handbook']);
    expect(found[0].found).to.include('\u0002Otters\u0003');
    expect((await search('q=otter&kind=howto')).map((f) => f.title)).to.deep.equal([
      'A lock-keeper’s handbook',
    ]);
    expect((await search('q=otter&from=2024&to=2024')).map((f) => f.title)).to.deep.equal([
      'Otters of the upper cut',
    ]);
    expect(await search('q=otter&used=yes')).to.deep.equal([]);
    expect(await search("q=%22); DROP TABLE sources; --&publisher=%25'")).to.be.an('array');
    expect((await server.get('/sources?kind=poem')).status).to.equal(400);
  });

  it('that are nearly the same are told on arrival', async () => {
    const report = demoSource('footbridge');
    const first = (await server.post('/sources', { base64: Buffer.from(report).toString('base64') })).body;
    expect(first.like).to.deep.equal([]);
    const copy = Buffer.from(
      new TextDecoder().decode(report).replace('seven centimetres', 'six centimetres'),
    ).toString('base64');
    const [near] = (await server.post('/sources', { base64: copy })).body.like;
    expect([near.id, near.share > 0.9]).to.deep.equal([first.id, true]);
  });

  it('take the writer’s ruling on facts, facts of the writer’s own and rights', async () => {
    const { id, facts, rights } = await add(`The gate opened in 1907. Nobody saw it. ${LONG}`);
    expect(rights).to.equal('not asked');
    const [f1, f2] = facts.map((f: { id: string }) => f.id);
    const patched = (
      await server.patch(`/sources/${id}`, {
        marks: {
          [f1]: { mark: 'must' },
          [f2]: { mark: 'wrong', correct: 'Two people saw it.', why: 'the log says so' },
        },
        rights: 'granted',
      })
    ).body;
    expect(patched.marks).to.deep.equal({
      [f1]: { mark: 'must' },
      [f2]: { mark: 'wrong', correct: 'Two people saw it.', why: 'the log says so' },
    });
    expect(patched.rights).to.equal('granted');
    expect(
      (await server.patch(`/sources/${id}`, { marks: { [f1]: { mark: null } } })).body.marks,
    ).to.have.keys([f2]);
    expect(
      (await server.patch(`/sources/${id}`, { marks: { [f2]: { mark: 'wrong' } } })).body.error.message,
    ).to.match(/what is right/);
    expect((await server.patch(`/sources/${id}`, { marks: { f999: { mark: 'must' } } })).status).to.equal(
      404,
    );
    const { start } = facts[0];
    await server.patch(`/sources/${id}`, { addFact: { start, end: start + 15 } });
    const { ownFacts } = (
      await server.patch(`/sources/${id}`, { addFact: { text: 'My uncle kept the gate.' } })
    ).body;
    expect(ownFacts).to.deep.equal([
      { id: 'w1', text: 'The gate opened', start, end: start + 15 },
      { id: 'w2', text: 'My uncle kept the gate.' },
    ]);
    expect(
      (await server.patch(`/sources/${id}`, { removeFact: 'w1' })).body.ownFacts.map(
        (f: { id: string }) => f.id,
      ),
    ).to.deep.equal(['w2']);
  });

  it('take the writer’s word on what belongs to the text, and keep it when the link or the site is read again', async () => {
    const page = (
      n: number,
    ) => `<html><head><title>Weir ${n} holds</title></head><body><h1>Weir ${n} holds</h1>
      <p>Weir number ${n} held through the night, although the river stood a metre above its crest for six hours.</p>
      <p>Engineers walked its length at dawn and found ${n} stones missing and nothing else to write down.</p>
      <p>Our reporters walked the river for a week in March and slept in barns.</p></body></html>`;
    const { id, document } = await add(page(7));
    const texts = (d: { blocks: { text: string }[] }) => d.blocks.map((b) => b.text);
    expect(texts(document)).to.have.length(3);
    const choose = (as: string) =>
      server.patch(`/sources/${id}`, { choose: { text: texts(document)[2], as } });
    const without = (await choose('out')).body;
    expect(texts(without.document)).to.deep.equal(texts(document).slice(0, 2));
    expect(without.facts.some((f: { text: string }) => /barns/.test(f.text))).to.equal(false);
    expect(without.document.leftOut.find((l: { chosen?: boolean }) => l.chosen).text).to.equal(
      texts(document)[2],
    );
    const again = (await server.post(`/sources/${id}/renewal`, {})).body.source;
    expect(texts(again.document)).to.deep.equal(texts(without.document));
    const back = (await choose('in')).body;
    expect(texts(back.document)).to.deep.equal(texts(document));
    expect(back.facts.map((f: { id: string }) => f.id)).to.include.members(
      without.facts.map((f: { id: string }) => f.id),
    );
    expect((await server.patch(`/sources/${id}`, { choose: { text: '', as: 'in' } })).status).to.equal(400);
    expect((await server.patch(`/sources/${id}`, { choose: { text: 'x', as: 'never' } })).status).to.equal(
      400,
    );
  });

  it('leave out of a site’s next page what was taken out of its last one', async () => {
    const read = async (path: string) => {
      const { id } = (await server.post('/readings', { address: `${desk.url}${path}` })).body;
      const { sourceId } = (await events(id)).at(-1)!;
      return (await server.get(`/sources/${sourceId}`)).body;
    };
    const first = await read('/weir');
    const [piece] = first.document.blocks.filter((b: { type: string }) => b.type === 'paragraph');
    await server.patch(`/sources/${first.id}`, { choose: { text: piece.text, as: 'out' } });
    const next = await read('/weir');
    expect(next.id).not.to.equal(first.id);
    expect(next.document.blocks.map((b: { text: string }) => b.text)).not.to.include(piece.text);
    expect(next.document.leftOut.map((l: { text: string }) => l.text)).to.include(piece.text);
    // Taken back on both, it is forgotten.
    for (const { id } of [first, next])
      await server.patch(`/sources/${id}`, { choose: { text: piece.text, as: 'as read' } });
    const later = await read('/weir');
    expect(later.document.blocks.map((b: { text: string }) => b.text)).to.include(piece.text);
  });

  it('are cited in common styles and as records, and given back as they came', async () => {
    const { id } = (
      await server.post('/sources', { base64: Buffer.from(demoSource('footbridge')).toString('base64') })
    ).body;
    const cite = async (format: string) => (await server.raw('GET', `/sources/${id}/cite/${format}`)).text();
    expect(await cite('apa')).to.match(/\(2025.*Pell Street footbridge shut.*Marrowgate Courant/s);
    expect(await cite('ris'))
      .to.match(/^TY {2}- NEWS/)
      .and.include('T2  - Marrowgate Courant');
    expect(JSON.parse(await cite('csl-json'))[0]).to.include({
      type: 'article-newspaper',
      'container-title': 'Marrowgate Courant',
    });
    expect((await server.get(`/sources/${id}/cite/mine`)).status).to.equal(404);
    const original = await server.raw('GET', `/sources/${id}/original`);
    expect(original.headers.get('content-disposition')).to.match(/^attachment; filename="?pell-street/);
    expect(original.headers.get('content-type')).to.equal('application/octet-stream');
    expect(Buffer.from(await original.arrayBuffer()).equals(Buffer.from(demoSource('footbridge')))).to.equal(
      true,
    );
  });

  it('are taken out and put back', async () => {
    const { id } = await add(`A source to lose. ${LONG}`);
    expect((await server.request('DELETE', `/sources/${id}`, {})).status).to.equal(200);
    expect((await server.get(`/sources/${id}`)).status).to.equal(404);
    await server.post(`/sources/${id}/restore`, {});
    expect((await server.get(`/sources/${id}`)).status).to.equal(200);
  });

  it('on one event are compared: told alike, and told otherwise by the newer one', async () => {
    const read = async (path: string) =>
      (await events((await server.post('/readings', { address: desk.url + path })).body.id)).at(-1)!.sourceId;
    const sources = [
      { letter: 'A', id: await read('/weir') },
      { letter: 'B', id: await read('/weir-later') },
    ];
    const { same } = (await server.post('/compare', { sources })).body;
    expect(same.length).to.be.greaterThan(0);
    expect(same[0].origins.map((o: { source: string }) => o.source)).to.deep.equal(['A', 'B']);
  });

  it('read again tell what changed since, and the lines that rest on it', async () => {
    const source = (
      await events((await server.post('/readings', { address: `${desk.url}/weir` })).body.id)
    ).at(-1)!.sourceId!;
    const channel = (
      await server.post('/channels', {
        name: 'C',
        settings: { frame: '16:9', mood: 'calm', pace: 150, voice: 'even', usual: { from: 30, to: 60 } },
      })
    ).body.id;
    const draft = await server.post('/scripts', {
      channelId: channel,
      sourceId: source,
      frame: '16:9',
      mood: 'calm',
      pace: 190,
      voice: 'quick',
      target: { kind: 'point', seconds: 17 },
    });
    expect(draft.status, JSON.stringify(draft.body)).to.equal(201);
    const now = (await import('@ursprung/standins')).STORIES['/weir'].replace(
      'fell by two metres',
      'fell by three metres',
    );
    desk.publish('/weir', now);
    const again = (await server.post(`/sources/${source}/reread`, {})).body;
    expect(again.removed.map((r: { text: string }) => r.text)[0]).to.include('two metres');
    expect(again.added[0]).to.include('three metres');
    expect(again.lines.length).to.be.greaterThan(0);
    expect((await server.post(`/sources/${(await add(LONG)).id}/reread`, {})).body.error.message).to.match(
      /without a link/,
    );
  });
});
