/** The way to the server: answers as they are, failures in words, nothing taken for an answer that is none. */
import { expect } from 'chai';
import type { RequestError } from '../src/api.ts';
import { api } from '../src/api.ts';

describe('the way to the server', () => {
  const before = globalThis.fetch;
  afterEach(() => void (globalThis.fetch = before));
  const answers = (answer: () => Response | Promise<Response>) =>
    void (globalThis.fetch = () => Promise.resolve().then(answer));
  const failed = (asked: Promise<unknown>) =>
    asked.then(
      () => expect.fail('It was taken for an answer.'),
      (error: RequestError) => error,
    );

  it('gives the answer as it is', async () => {
    answers(() => Response.json({ channels: [], scripts: [], sources: [] }));
    expect(await api.library()).to.deep.equal({ channels: [], scripts: [], sources: [] });
  });

  it('gives a refusal with code, words and what comes with it', async () => {
    answers(() => Response.json({ error: { code: 'behind', message: 'Changed elsewhere.' }, version: 7 }, { status: 409 })); // prettier-ignore
    const error = await failed(api.stepsSince('x', 1));
    expect([error.status, error.code, error.message, error.body.version]).to.deep.equal([
      409,
      'behind',
      'Changed elsewhere.',
      7,
    ]);
  });

  it('says that a server can’t be reached, and that the words are kept', async () => {
    answers(() => {
      throw new TypeError('Failed to fetch');
    });
    const { status, code, message } = await failed(api.library());
    expect([status, code]).to.deep.equal([0, 'offline']);
    expect(message).to.match(/kept here/);
  });

  for (const status of [200, 409, 502])
    it(`takes an answer that was cut off or is no JSON (${status}) for no answer, to be asked again`, async () => {
      const cut = new ReadableStream({
        start(out) {
          out.enqueue(new TextEncoder().encode('{"version": 3, "steps": [{"step'));
          out.error(new Error('terminated'));
        },
      });
      for (const text of ['<html>Bad gateway</html>', '', '{"version": 3, "steps"', cut]) {
        answers(() => new Response(text, { status }));
        const error = await failed(api.stepsSince('x', 1));
        expect([error.status, error.code]).to.deep.equal([0, 'offline']);
      }
    });

  it('sends plain JSON, with names in an address written safely', async () => {
    const sent: [string, RequestInit][] = [];
    globalThis.fetch = (url, init) => {
      sent.push([String(url), init!]);
      return Promise.resolve(Response.json({}));
    };
    await api.sheet('s', 'pt-BR & more');
    await api.patchSettings('s', 3, { title: 'A “bell”' });
    expect(sent[0][0]).to.equal('/api/scripts/s/sheet?language=pt-BR%20%26%20more');
    expect(JSON.parse(sent[1][1].body as string)).to.deep.equal({
      revision: 3,
      settings: { title: 'A “bell”' },
    });
    expect([sent[0][1].method, sent[1][1].method, sent[0][1].body]).to.deep.equal([
      'GET',
      'PATCH',
      undefined,
    ]);
  });
});
