/** A text service in the common shape, played by a small server here: what is sent, what is taken, what is refused. */
import { createServer, type Server } from 'node:http';
import { expect } from 'chai';
import { docFromJson, plainSections, type PlainSection } from '@ursprung/core/script';
import { modelFrom, textModel } from '../src/model.ts';
import { freshServer, toldScript, type TestServer } from './helpers.ts';

describe('a note put to a text service', function () {
  let service: Server;
  let server: TestServer;
  let scriptId: string;
  let sections: PlainSection[];
  let heard: { url: string; key: string; body: string }[] = [];
  let says: (order: string) => { status?: number; body: string } = () => ({ body: '' });

  before(async () => {
    service = createServer((req, res) => {
      let body = '';
      req.on('data', (c: Buffer) => (body += c.toString()));
      req.on('end', () => {
        heard.push({ url: req.url!, key: req.headers.authorization ?? '', body });
        const order = (JSON.parse(body) as { messages: { content: string }[] }).messages[0].content;
        const { status = 200, body: answer } = says(order);
        res.writeHead(status, { 'content-type': 'application/json' }).end(answer);
      });
    });
    await new Promise<void>((r) => service.listen(0, '127.0.0.1', r));
    const { port } = service.address() as { port: number };
    const model = modelFrom({
      URSPRUNG_MODEL_URL: `http://127.0.0.1:${port}/v1/`,
      URSPRUNG_MODEL_KEY: 'secret',
      URSPRUNG_MODEL_NAME: 'any',
    });
    server = await freshServer(undefined, {}, model);
    ({ scriptId } = await toldScript(server, 120));
    sections = plainSections(docFromJson((await server.get(`/scripts/${scriptId}`)).body.doc));
  });
  after(async () => {
    await server.stop();
    service.close();
  });

  const content = (text: string) => ({ body: JSON.stringify({ choices: [{ message: { content: text } }] }) });
  const ask = (more: object = {}) =>
    server.post(`/scripts/${scriptId}/ask`, { note: 'make it funnier', sections, ...more });

  it('sends the wish, the lines asked about and their passages; the key never comes back', async () => {
    heard = [];
    const [first] = sections[1].lines;
    says = () => content(`${first.id}: Ha.`);
    const answer = await ask({ selection: { section: sections[1].id, lines: [first.id] } });
    expect(heard[0]).to.include({ url: '/v1/chat/completions', key: 'Bearer secret' });
    expect(heard[0].body)
      .to.include('make it funnier')
      .and.include(first.id)
      .and.not.include(sections[0].lines[0].id + ':');
    expect(JSON.stringify([answer.body, (await server.get('/model')).body])).to.not.include('secret');
  });

  it('answers with a proposal: its own trace, nothing else changed, markup off, strange rows said', async () => {
    const [first, second] = sections.flatMap((s) => s.lines);
    says = () =>
      content(
        `Sure! Here you go:\n**${first.id}**: It cost *£999*. [laughs]\n${second.id}:\nL999: not yours`,
      );
    const { proposal } = (await ask()).body;
    const texts = (proposal.sections as PlainSection[]).flatMap((s) => s.lines);
    expect(texts.find((l) => l.id === first.id)?.text).to.equal('It cost £999.');
    expect(texts.some((l) => l.id === second.id)).to.equal(false);
    expect(proposal.unsupported.after).to.be.greaterThan(proposal.unsupported.before);
    expect(proposal.notes.join()).to.match(/1 rows of its answer name no line/);
    const rest = sections.flatMap((s) => s.lines).slice(2);
    for (const l of rest) expect(texts.find((x) => x.id === l.id)?.text).to.equal(l.text);
  });

  it('never changes a locked line', async () => {
    const locked = sections.map((s, i) => (i === 0 ? { ...s, locked: true } : s));
    says = () => content(`${sections[0].lines[0].id}: Changed.\n${sections[1].lines[0].id}: Changed too.`);
    const { proposal } = (await ask({ sections: locked })).body;
    expect(proposal.sections[0].lines[0].text).to.equal(sections[0].lines[0].text);
  });

  it('says in words when the service refuses, rambles or sends nonsense', async () => {
    says = () => ({ status: 429, body: '{}' });
    expect((await ask()).body.error).to.deep.include({ code: 'service-silent' });
    says = () => ({ body: '<html>' });
    expect((await ask()).body.error.message).to.match(/can’t be read/);
    says = () => content('I’m sorry, I can’t.');
    expect((await ask()).body.cannot).to.equal('The answer changes no line that was asked about.');
  });

  it('is not there while nothing is configured', async () => {
    expect(modelFrom({})).to.equal(null);
    const plain = await freshServer();
    expect((await plain.get('/model')).body).to.deep.equal({ host: null });
    await plain.stop();
  });
});

describe('an answer that never ends', () => {
  /** Says a word every few milliseconds, for ever. */
  const drips = createServer((_req, res) => {
    res.writeHead(200, { 'content-type': 'text/event-stream' });
    const drip = setInterval(() => res.write('data: {"choices":[{"delta":{"content":"on "}}]}\n\n'), 10);
    res.on('close', () => clearInterval(drip));
  });
  before(() => new Promise<void>((r) => drips.listen(0, '127.0.0.1', r)));
  after(() => drips.close());
  const asked = (wholeMs: number, signal: AbortSignal) =>
    textModel({ address: `http://127.0.0.1:${(drips.address() as { port: number }).port}`, wholeMs }).stream('Tell it.', { signal }); // prettier-ignore

  it('is ended by its time limit, also while somebody may stop it, and what came is kept', async () => {
    const { text, early } = await asked(300, new AbortController().signal);
    expect([text.slice(0, 6), early]).to.deep.equal(['on on ', 'The answer broke off before its end.']);
  });
  it('and by whoever stops it, before or while it comes', async () => {
    const stopper = new AbortController();
    setTimeout(() => stopper.abort(), 200);
    expect((await asked(600_000, stopper.signal)).early).to.equal('Stopped.');
    expect(await asked(600_000, AbortSignal.abort())).to.include({ text: '', early: 'Stopped.' });
  });
});
