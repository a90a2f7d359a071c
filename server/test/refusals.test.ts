/** Every address of the server: answers what is asked of it well, and refuses what is not, in words, without falling over. */
import { expect } from 'chai';
import fc from 'fast-check';
import { docFromJson, plainSections } from '@ursprung/core/script';
import { makeApp, type AppOptions } from '../src/app.ts';
import { BRIEF, freshServer, toldScript, type TestServer } from './helpers.ts';

/** Of the router's own structure, only what is read here. */
interface Layer {
  rawPath?: string;
  route?: { methods: Record<string, boolean> };
  handle: { stack?: Layer[] };
}

/** What a careless program, or a hostile one, puts where something else is meant. */
const oddValue = fc.oneof(
  fc.constantFrom<unknown>(null, true, -1, 0, 0.5, 1e308, 2 ** 31, '', ' ', 'a\u0000b', '\ud800', '\u202e', '__proto__', '../../etc', '%00', '<b>', [], {}, [[]], [null], { a: { b: null } }, JSON.parse('{"__proto__": {"x": 1}}')), // prettier-ignore
  fc.string({ unit: 'binary', maxLength: 40 }),
  fc.constant('x'.repeat(30_000)),
  fc.jsonValue({ maxDepth: 3 }),
);

/** A value with one of its places, any of them, changed or gone. */
function spoiled(value: unknown): fc.Arbitrary<unknown> {
  const entries =
    Array.isArray(value) || (value && typeof value === 'object')
      ? Object.entries(value as Record<string, unknown>)
      : [];
  if (!entries.length) return oddValue;
  const within = fc.nat(entries.length - 1).chain((i) => {
    const [key, inner] = entries[i];
    return spoiled(inner).map((now) =>
      Array.isArray(value)
        ? value.map((v, at) => (at === i ? now : v))
        : { ...(value as object), [key]: now },
    );
  });
  const without = fc
    .nat(entries.length - 1)
    .map((i) =>
      Array.isArray(value)
        ? value.filter((_, at) => at !== i)
        : Object.fromEntries(entries.filter((_, at) => at !== i)),
    );
  return fc.oneof(
    { arbitrary: within, weight: 6 },
    { arbitrary: without, weight: 1 },
    { arbitrary: oddValue, weight: 1 },
  );
}

/** Where there are words in it: of a long list the first entry stands for the others. */
function places(value: unknown): string[][] {
  if (typeof value === 'string') return [[]];
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value)
    .slice(0, Array.isArray(value) ? 1 : undefined)
    .flatMap(([key, inner]) => places(inner).map((rest) => [key, ...rest]));
}
function changed(value: unknown, [key, ...rest]: string[], change: (text: string) => string): unknown {
  if (key === undefined) return change(value as string);
  const inner = changed((value as Record<string, unknown>)[key], rest, change);
  return Array.isArray(value)
    ? value.map((v, i) => (String(i) === key ? inner : (v as unknown)))
    : { ...(value as object), [key]: inner };
}

/** "POST /scripts/:id/redo" and its like, as the application knows them. */
const addressesOf = (stack: readonly Layer[], under = ''): string[] =>
  stack.flatMap(({ rawPath = '', route, handle }) => {
    const path = `${under}${rawPath === '/' ? '' : rawPath}`;
    if (route)
      return Object.keys(route.methods).map((m) => `${m.toUpperCase()} ${path.replace(/^\/api/, '')}`);
    return handle.stack ? addressesOf(handle.stack, path) : [];
  });

describe('every address of the server', function () {
  this.timeout(240_000);
  let server: TestServer;
  let known: Record<string, string>;
  let asked: Record<string, () => unknown>;

  before(async () => {
    server = await freshServer(undefined, {}, null, { perMinute: 1_000_000 });
    const told = await toldScript(server, 60);
    const script = `/scripts/${told.scriptId}`;
    const second: string = (await server.post('/sources', { text: 'A bell was cast in 1704. It hung in the tower for a year.' })).body.id; // prettier-ignore
    const { doc, version } = (await server.get(script)).body;
    const sections = plainSections(docFromJson(doc));
    const line = sections[0].lines[0].id;
    const step = {
      stepType: 'replace',
      from: 2,
      to: 2,
      slice: { content: [{ type: 'text', text: 'Now ' }] },
    };
    known = {
      scripts: told.scriptId,
      sources: told.sourceId,
      channels: told.channelId,
      commissions: (await server.post(`${script}/commissions`, { scope: {}, order: 'Tell it.', to: { kind: 'person' } })).body.id, // prettier-ignore
      handoffs: (await server.post(`${script}/handoffs`, {})).body.id,
      readings: (await server.post('/readings', { text: 'A bell was cast in 1704. It hung for a year.' })).body.id, // prettier-ignore
    };
    const settings = { ...BRIEF, usual: { from: 60, to: 600 } };
    asked = {
      'POST /sources': () => ({
        text: 'A bell was cast in 1704. It hung in the tower for a year.',
        kind: 'news',
      }),
      'PATCH /sources/:id': () => ({ kind: 'news', rights: 'own', addFact: { text: 'It rang at noon.' } }),
      'POST /readings': () => ({ text: 'A bell was cast in 1704. It hung for a year.' }),
      'POST /scripts/:id/film': () => ({ sections }),
      'POST /scripts/:id/sheet': () => ({ sections }),
      'POST /scripts/:id/handoffs': () => ({ who: null, without: ['pdf'] }),
      'POST /clean': () => ({ text: 'INTRO\n\nA bell was cast in 1704.\n' }),
      'POST /grammar': () => ({ texts: ['A bell was cast in 1704.'] }),
      'POST /voice': () => ({ text: 'A bell.', pace: 150 }),
      'POST /scripts/:id/names': () => ({ version, name: 'As sent' }),
      'POST /scripts/:id/revise': () => ({ note: 'shorter', sections }),
      'POST /scripts/:id/tellings': () => ({ line, sections }),
      'POST /scripts/:id/against': () => ({ sections }),
      'PATCH /channels/:id': () => ({ name: 'Quiet Machinery', settings }),
      'POST /channels/:id/style': () => ({ texts: ['A bell was cast in 1704. It hung for a year.'] }),
      'POST /scripts/:id/commissions': () => ({
        scope: {},
        order: 'Tell it.',
        to: { kind: 'person', who: 'Ida' },
      }),
      'PATCH /commissions/:id': () => ({ reply: '## One\nA bell was cast.', who: 'Ida' }),
      'POST /channels': () => ({ name: 'Bells', settings }),
      'POST /compare': () => ({ sources: [{ letter: 'A', id: told.sourceId }, { letter: 'B', id: told.sourceId }] }), // prettier-ignore
      'POST /carries': () => ({ sourceId: told.sourceId, mood: 'calm', pace: 150, voice: 'even' }),
      'POST /promise': () => ({ sourceId: told.sourceId, voice: 'even', pace: 150, title: 'The bridge' }),
      'POST /scripts/:id/redo': () => ({ what: 'hook', sections }),
      'POST /scripts/:id/derive': () => ({ kind: 'second', seconds: 60 }),
      'POST /scripts': () => ({ ...BRIEF, channelId: told.channelId, sourceId: told.sourceId, target: { kind: 'point', seconds: 60 } }), // prettier-ignore
      'POST /scripts/:id/sources': () => ({ sourceId: second }),
      'PATCH /scripts/:id': () => ({ revision: 0, settings: { title: 'The bridge', pace: 160 } }),
      'POST /scripts/:id/steps': () => ({ version, clientId: 'someone', steps: [step] }),
    };
  });
  after(() => server.stop());

  /** The address with ids of things that are there, or with what is given for them. */
  const at = (path: string, given?: string) =>
    path
      .replace(':id', encodeURIComponent(given ?? known[path.split('/')[1]]))
      .replace(':version', '0')
      .replace(/steps$/, 'steps?since=0')
      .replace(':format', path.includes('cite') ? 'apa' : 'text')
      .replace(/:(?:name|language)/, 'es');
  const all = () => {
    const nothing = {} as AppOptions;
    const sources = { compare: () => undefined };
    const app = makeApp({ ...nothing, service: { sources } as unknown as AppOptions['service'] });
    return addressesOf((app as unknown as { router: { stack: Layer[] } }).router.stack);
  };
  /** Addresses that take nothing in. */
  const bare = () => all().filter((a) => !(a in asked));
  const plainly = () => all().filter((a) => a.startsWith('GET ') && !/events$|zip$/.test(a));
  const send = async (address: string, body: unknown, id?: string) => {
    const [method, path] = address.split(' ');
    const answer = await server.raw(
      method,
      at(path, id),
      body === undefined ? undefined : JSON.stringify(body),
    );
    const text = answer.headers.get('content-type')?.includes('json') ? await answer.text() : '{}';
    return { status: answer.status, body: JSON.parse(text) as { error?: { code: string; message: string } } };
  };
  /** Refused with a code and with words that a person can read. */
  const refused = ({ status, body }: Awaited<ReturnType<typeof send>>, about: string) => {
    expect(status, about).to.be.within(400, 499);
    expect(body.error?.message, about).to.match(/^\p{L}.*[.!?]$/u);
  };

  it('is tried here', () => {
    expect(Object.keys(asked).filter((a) => !all().includes(a))).to.deep.equal([]);
    expect(bare().filter((a) => /^(?:POST|PATCH|PUT) /.test(a))).to.have.members([
      'POST /sources/:id/restore',
      'POST /sources/:id/reread',
      'POST /sources/:id/renewal',
      'POST /readings/:id/stop',
      'POST /scripts/:id/ask',
      'POST /scripts/:id/translations',
      'POST /scripts/:id/translate',
      'PATCH /scripts/:id/translations/:language',
      'PUT /service',
      'POST /commissions/:id/send',
      'POST /commissions/:id/stop',
      'POST /scripts/:id/rounds',
      'POST /rounds/:id/stop',
      'POST /scripts/:id/restore',
    ]);
  });

  it('answers what is asked of it well', async () => {
    for (const address of plainly().filter((a) => !/export|translations/.test(a)))
      expect((await send(address, undefined)).status, address).to.equal(200);
    for (const [address, body] of Object.entries(asked))
      expect((await send(address, body())).status, address).to.be.within(200, 202);
  });

  it('says of what is not there that it is not there, whatever it is called', async () => {
    const nobody = '00000000-0000-4000-8000-000000000000';
    for (const address of all().filter((a) => a.includes('/:id')))
      for (const id of [nobody, 'undefined', "x' OR 1=1", '..', 'a\u0000', '\u{1f600}'])
        refused(await send(address, asked[address]?.(), id), `${address} ${JSON.stringify(id)}`);
  });

  it('takes words with characters that no database keeps, or says why not', async () => {
    for (const [address, body] of Object.entries(asked))
      for (const place of places(body()))
        for (const bad of ['a\u0000b', 'a\ud800', '\udc00b']) {
          const answer = await send(
            address,
            changed(body(), place, (text) => `${text}${bad}`),
          );
          if (answer.status > 299) refused(answer, `${address} ${place.join('.')} ${JSON.stringify(bad)}`);
        }
    const { version } = (await server.get(`/scripts/${known.scripts}`)).body;
    const typed = { stepType: 'replace', from: 2, to: 2, slice: { content: [{ type: 'text', text: 'a\u0000\ud800 ' }] } }; // prettier-ignore
    await server.post(`/scripts/${known.scripts}/steps`, { version, clientId: 'someone', steps: [typed] });
    const { doc } = (await server.get(`/scripts/${known.scripts}`)).body;
    // As long as it was, so that what is typed next lands where it was meant.
    expect(plainSections(docFromJson(doc))[0].lines[0].text).to.match(/^a\ufffd\ufffd /);
  });

  it('refuses what is spoiled, in words, or takes it, and stays up', async () => {
    const library = async () => (await server.get('/library')).body.scripts.length as number;
    const before = await library();
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(...Object.keys(asked)).chain((address) => fc.tuple(fc.constant(address), spoiled(asked[address]()))), // prettier-ignore
        async ([address, body]) => {
          const answer = await send(address, body);
          if (answer.status > 299) refused(answer, address);
        },
      ),
      {
        numRuns: Number(process.env.REFUSAL_RUNS ?? 200),
        seed: Number(process.env.REFUSAL_SEED ?? 17),
      },
    );
    expect(await library()).to.be.at.least(before);
    expect((await send('GET /scripts/:id', undefined)).status).to.equal(200);
  });
});
