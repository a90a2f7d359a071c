/** Orders sent to a text service and replies that come back, on a real PostgreSQL; the stand-in writer plays the service. */
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { expect } from 'chai';
import { startTextService, type TextService } from '@ursprung/standins';
import { secretsFrom } from '../src/secrets.ts';
import { modelFrom, textModel } from '../src/model.ts';
import type { CommissionView, TextServiceState } from '../src/api.ts';
import { freshServer, toldScript, type TestServer } from './helpers.ts';

const SECRET = 'a secret that only tests have';
const ORDER =
  'ORDER: narration for section 1 of 1, “Eels”\n\nSECTION 1 of 1: One, 20 words\nMust be said:\n- A1 «Eels swim past lamps at night.»\n- A2 «About 40 eels were counted.»\n\nTHE REPLY\nOnly the words.';

describe('commissions', function () {
  let writer: TextService;
  let server: TestServer;
  let scriptId: string;
  before(async () => {
    writer = await startTextService({ paceMs: 1 });
    server = await freshServer(undefined, { allow: [writer.host] }, null, {
      secret: SECRET,
      standIn: writer.host,
    });
    ({ scriptId } = await toldScript(server, 120));
  });
  after(async () => {
    await server.stop();
    await writer.close();
  });

  const keep = (more: object = {}) =>
    server.request('PUT', '/service', { address: writer.url, model: 'stand-in', key: writer.key, ...more });
  const service = async () => ((await server.get('/service')).body as TextServiceState).service;
  const add = async (to: 'person' | 'service' = 'service', order = ORDER) =>
    (
      await server.post(`/scripts/${scriptId}/commissions`, {
        scope: { section: 'S1' },
        order,
        to: { kind: to },
      })
    ).body as CommissionView;
  const ended = async (id: string): Promise<CommissionView> => {
    for (let i = 0; i < 400; i++) {
      const { commissions } = (await server.get(`/scripts/${scriptId}/commissions`)).body as {
        commissions: CommissionView[];
      };
      const c = commissions.find((x) => x.id === id)!;
      if (c.state !== 'arriving') return c;
      await new Promise((r) => setTimeout(r, 25));
    }
    throw new Error('The reply never ended.');
  };
  const sent = async (order = ORDER) => {
    const c = await add('service', order);
    const answer = await server.post(`/commissions/${c.id}/send`, {});
    return answer.status === 200 ? ended(c.id) : answer;
  };

  it('without a service says so, and takes orders for people all the same', async () => {
    expect((await server.get('/service')).body).to.deep.equal({ service: null, canKeep: true });
    const refused = await server.post(`/scripts/${scriptId}/commissions`, {
      scope: {},
      order: ORDER,
      to: { kind: 'service' },
    });
    expect([refused.status, refused.body.error.message]).to.deep.equal([
      404,
      'No text service is configured.',
    ]);
    const person = await add('person');
    expect(person).to.include({ state: 'waiting', reply: '' });
    const replied = await server.patch(`/commissions/${person.id}`, {
      reply: 'Eels swim by.',
      who: 'Ines Okafor',
    });
    expect(replied.body).to.deep.include({
      state: 'arrived',
      reply: 'Eels swim by.',
      to: { kind: 'person', who: 'Ines Okafor' },
    });
  });

  it('keeps a service with its key sealed: it is in no answer and not readable in the database', async () => {
    const kept = await keep({ key: 'very-secret-key-1', priceIn: 2, priceOut: 10, monthlyTokens: 50_000 });
    expect(kept.status).to.equal(200);
    expect(kept.body.service).to.include({
      host: writer.host,
      model: 'stand-in',
      from: 'settings',
      hasKey: true,
      standIn: true,
      monthlyTokens: 50_000,
    });
    expect(
      JSON.stringify([kept.body, (await server.get('/service')).body, (await server.get('/model')).body]),
    ).to.not.include('very-secret');
    const [row] = await server.query('SELECT * FROM text_services');
    expect(JSON.stringify(row)).to.not.include('very-secret');
    expect(secretsFrom(SECRET)!.open(row.sealedKey as string)).to.equal('very-secret-key-1');
    // Left out, the key that is kept stays; another host does not get it.
    await server.request('PUT', '/service', { address: writer.url, model: 'other' });
    expect((await service())!.hasKey).to.equal(true);
    await server.request('PUT', '/service', { address: 'https://example.com/v1', model: 'other' });
    expect((await service())!.hasKey).to.equal(false);
  });

  it('streams a reply in, counts its tokens and its cost, and tells every page that looks', async () => {
    await keep({ priceIn: 2, priceOut: 10 });
    const c = await add();
    const stream = server.raw('GET', `/commissions/${c.id}/events`);
    expect((await (await stream).text()).match(/^data: /gm)).to.have.length(1);
    expect((await server.post(`/commissions/${c.id}/send`, {})).body.state).to.equal('arriving');
    const events = (await (await server.raw('GET', `/commissions/${c.id}/events`)).text())
      .split('\n\n')
      .filter(Boolean);
    const last = JSON.parse(events.at(-1)!.slice(6)) as CommissionView;
    expect(last).to.deep.include({ state: 'arrived', message: null });
    expect(last.to.kind).to.equal('stand-in');
    expect(last.reply).to.include('This is a stand-in').and.include(' 40 eels were counted.');
    expect(last.cost).to.be.closeTo((last.tokensIn * 2 + last.tokensOut * 10) / 1e6, 1e-9);
    const view = (await service())!;
    expect(view.usedTokens).to.equal(last.tokensIn + last.tokensOut);
    expect(view.usedCost).to.be.closeTo(last.cost!, 1e-9);
    expect(writer.orders.at(-1)).to.equal(ORDER);
  });

  for (const [model, state, message] of [
    ['stand-in/unauthorised', 'failed', 'does not accept the key'],
    ['stand-in/too-many', 'arrived', null],
    ['stand-in/cut-off', 'broken', 'broke off before its end'],
  ] as const)
    it(`${model}: ${state}`, async () => {
      await keep({ model });
      const c = (await sent(`${ORDER} ${model}`)) as CommissionView;
      expect(c.state).to.equal(state);
      if (message) expect(c.message).to.include(message);
      if (state === 'broken') expect(c.reply.length).to.be.greaterThan(20);
    });

  describe('in plain text', () => {
    const text = (more = '') => keep({ address: `${writer.textUrl}${more}`, speaks: 'text', model: '' });
    it('the order is posted as it is, and the narration streams back; its tokens are estimated', async () => {
      await text();
      expect(await service()).to.deep.include({ speaks: 'text', address: writer.textUrl, standIn: true });
      const c = (await sent(`${ORDER} plainly`)) as CommissionView;
      expect([c.state, c.message]).to.deep.equal(['arrived', null]);
      expect(c.reply).to.include(' 40 eels were counted.');
      expect(c.tokensOut).to.be.greaterThan(10);
      expect(writer.orders.at(-1)).to.equal(`${ORDER} plainly`);
    });
    for (const [behaviour, state, message] of [
      ['unauthorised', 'failed', 'does not accept the key'],
      ['too-many', 'arrived', null],
      ['cut-off', 'broken', 'broke off before its end'],
      ['huge', 'broken', 'longer than any narration'],
    ] as const)
      it(`${behaviour}: ${state}`, async () => {
        await text(`/${behaviour}`);
        const c = (await sent(`${ORDER} plain ${behaviour}`)) as CommissionView;
        expect(c.state).to.equal(state);
        if (message) expect(c.message).to.include(message);
        if (state === 'broken') expect(c.reply.length).to.be.greaterThan(20);
      });
    for (const [type, body, says] of [
      [
        'text/html; charset=utf-8',
        '<p>Log in first.</p>',
        /answered with text\/html where plain text was asked for/,
      ],
      ['application/json', '{"error": "no"}', /answered with application\/json/],
      ['text/plain', ' \n', /ended without a word/],
    ] as const)
      it(`an answer of ${type}, ${JSON.stringify(body)}, is no narration`, async () => {
        const other = createServer((_, res) => res.writeHead(200, { 'content-type': type }).end(body));
        await new Promise<void>((r) => other.listen(0, '127.0.0.1', r));
        const address = `http://127.0.0.1:${(other.address() as AddressInfo).port}/`;
        const failed = await textModel({ address, speaks: 'text' }).answer(ORDER).catch((e: Error) => e.message); // prettier-ignore
        other.close();
        expect(failed).to.match(says);
      });
    it('by the environment, which says how it is asked; anything else is refused in words', async () => {
      const env = { URSPRUNG_MODEL_URL: writer.textUrl, URSPRUNG_MODEL_KEY: writer.key };
      expect(await modelFrom({ ...env, URSPRUNG_MODEL_SPEAKS: 'text' })!.answer(ORDER)).to.include('40 eels');
      expect(() => modelFrom({ ...env, URSPRUNG_MODEL_SPEAKS: 'soap' })).to.throw('“chat” or “text”');
    });
    after(() => keep());
  });

  it('tries a service in trouble again, waiting longer each time, then says so', async () => {
    const waits: number[] = [];
    const model = textModel({
      address: writer.url,
      key: writer.key,
      model: 'stand-in/broken',
      sleep: (ms) => (waits.push(ms), Promise.resolve()),
    });
    const said: string[] = [];
    const failure = await model.stream(ORDER, { onWait: (w) => said.push(w) }).catch((e: Error) => e.message);
    expect(failure).to.equal(`${writer.host} is in trouble (500).`);
    expect(waits).to.deep.equal([1000, 2000]);
    expect(said[0]).to.include('Trying again in 1 s');
  });

  it('reads no more than a narration can have, of five megabytes', async () => {
    await keep({ model: 'stand-in/huge' });
    const c = (await sent(`${ORDER} huge`)) as CommissionView;
    expect(c.state).to.equal('broken');
    expect(c.message).to.include('longer than any narration');
    expect(c.reply.length).to.be.at.most(400_000);
  });

  it('can be stopped while it arrives, and keeps what came', async () => {
    await keep({ model: 'stand-in/slow' });
    const c = await add();
    await server.post(`/commissions/${c.id}/send`, {});
    for (let i = 0; i < 100; i++) {
      const { body } = await server.get(`/scripts/${scriptId}/commissions`);
      if ((body.commissions as CommissionView[]).find((x) => x.id === c.id)!.reply) break;
      await new Promise((r) => setTimeout(r, 50));
    }
    await server.post(`/commissions/${c.id}/stop`, {});
    const over = await ended(c.id);
    expect(over).to.include({ state: 'broken', message: 'Stopped.' });
    expect(over.reply).to.not.equal('');
  });

  it('keeps to the month’s limit before anything is sent', async () => {
    await keep({ monthlyTokens: 1000 });
    const before = writer.orders.length;
    const refused = (await sent(ORDER.repeat(20))) as unknown as {
      status: number;
      body: { error: { code: string; message: string } };
    };
    expect([refused.status, refused.body.error.code]).to.deep.equal([409, 'service-limit']);
    expect(refused.body.error.message).to.match(/would take about [\d,]+ tokens/);
    expect(writer.orders.length).to.equal(before);
    await keep({ monthlyTokens: null });
  });

  it('asks no address inside the network that a person typed, whatever its name leads to', async () => {
    for (const address of [
      'http://127.0.0.1:1/v1',
      'http://localhost:5432/v1',
      'http://169.254.169.254/latest',
      'http://[::1]/v1',
      'file:///etc/passwd',
      'http://user:pw@example.com/v1',
    ]) {
      const refused = await server.request('PUT', '/service', { address, model: '' });
      expect([address, refused.status]).to.deep.equal([address, 400]);
      expect(refused.body.error.message).to.not.include('Paste the text');
    }
  });

  it('without a secret keeps no key, and with another secret asks for it again', async () => {
    const bare = await freshServer(undefined, { allow: [writer.host] });
    expect((await bare.get('/service')).body.canKeep).to.equal(false);
    const refused = await bare.request('PUT', '/service', { address: writer.url, model: 'x', key: 'k' });
    expect([refused.status, refused.body.error.code]).to.deep.equal([409, 'no-secret']);
    await bare.stop();
    await keep();
    await server.query(
      `UPDATE text_services SET "sealedKey" = '${secretsFrom('another secret, long enough')!.seal('k')}'`,
    );
    const c = await add().catch((e: Error) => e);
    expect(JSON.stringify(c)).to.include('kept with another secret');
    await keep();
  });

  it('seals differently each time, and opens nothing that was touched', () => {
    const secrets = secretsFrom(SECRET)!;
    const sealed = secrets.seal('key');
    expect(secrets.seal('key')).to.not.equal(sealed);
    const touched = Buffer.from(sealed, 'base64');
    touched[touched.length - 1] ^= 1;
    expect(() => secrets.open(touched.toString('base64'))).to.throw();
    expect(secretsFrom('short')).to.equal(null);
  });

  it('puts a commission away, and knows none of another script or workspace', async () => {
    const c = await add('person');
    expect((await server.request('DELETE', `/commissions/${c.id}`, {})).status).to.equal(200);
    expect((await server.patch(`/commissions/${c.id}`, { reply: 'x' })).status).to.equal(404);
    const other = await add('person');
    await server.query(`INSERT INTO workspaces SELECT gen_random_uuid(), 'other', now()`);
    await server.query(
      `UPDATE commissions SET "workspaceId" = (SELECT id FROM workspaces WHERE name = 'other') WHERE id = '${other.id}'`,
    );
    for (const answer of [
      await server.patch(`/commissions/${other.id}`, { reply: 'x' }),
      await server.post(`/commissions/${other.id}/send`, {}),
      await server.get(`/commissions/${other.id}/events`),
    ])
      expect(answer.status).to.equal(404);
  });

  it('refuses what is no order or no reply in words', async () => {
    const none = await server.post(`/scripts/${scriptId}/commissions`, {
      scope: {},
      order: '',
      to: { kind: 'person' },
    });
    expect(none.status).to.equal(400);
    const c = await add('person');
    const long = await server.patch(`/commissions/${c.id}`, { reply: 'x'.repeat(400_001) });
    expect([long.status, long.body.error.message]).to.deep.equal([
      400,
      'A reply can have at most 400,000 letters. Paste the part you need.',
    ]);
  });
});
