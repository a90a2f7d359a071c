/** Files and texts made to do harm, on the real server: each ends in words, and nobody else notices. */
import { readFileSync, readdirSync } from 'node:fs';
import { expect } from 'chai';
import fc from 'fast-check';
import { ApiError, startWork, type TextWork } from '../src/index.ts';
import { Turns, askedBy } from '../src/turns.ts';
import { packedFile } from '../../core/test/source/packed.ts';
import { freshServer, type TestServer } from './helpers.ts';

const WORKER = new URL('../dist/worker.js', import.meta.url);
const bytes = (text: string) => new TextEncoder().encode(text);
/** Prose in which no two sentences are alike, so that it costs what prose costs. */
const prose = (sentences: number) =>
  Array.from(
    { length: sentences },
    (_, i) =>
      `In ${1500 + (i % 500)} keeper ${i} of the lower lock counted ${i + 3} boats with coal.${i % 6 ? '' : '\n\n'}`,
  ).join(' ');
const refused = (work: Promise<unknown>) =>
  work.then(
    () => null,
    (error: Error) => error,
  );
/** Processes that read for this one. */
const readers = (): number[] =>
  readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map(Number)
    .filter((pid) => {
      try {
        const stat = readFileSync(`/proc/${pid}/stat`, 'latin1');
        const parent = Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[1]);
        return parent === process.pid && readFileSync(`/proc/${pid}/cmdline`, 'latin1').includes('reader.js');
      } catch {
        return false;
      }
    });

describe('a reading that takes too much', () => {
  let work: TextWork;
  afterEach(() => work.close());

  it('of memory is ended from outside, says so, and the next one is read', async () => {
    work = startWork(WORKER, { memoryMb: 350 });
    const error = await refused(work.read(bytes(`<html><body>${'<p>a</p>'.repeat(400_000)}`)));
    expect(error).to.be.instanceOf(ApiError);
    expect(error!.message).to.match(/needs more memory .* Paste a shorter part\.$/);
    expect(JSON.parse((await work.read(bytes(prose(12)))).facts)).to.have.length(12);
  });

  it('of time is ended from outside, says so, and others work meanwhile', async () => {
    work = startWork(WORKER, { busyMs: 2500 });
    const long = [refused(work.read(bytes(prose(20_000)))), refused(work.read(bytes(prose(20_000))))];
    // Reading has processes of its own: two of these stop no text work.
    const [own] = await work.own({ document: (await demo()).document, own: [{ text: 'The keeper was a woman of sixty.' }] }); // prettier-ignore
    expect(own?.made?.fact.text).to.equal('The keeper was a woman of sixty.');
    for (const error of await Promise.all(long))
      expect(error!.message).to.match(/longer than a minute of work/);
    expect(JSON.parse((await work.read(bytes(prose(12)))).facts)).to.have.length(12);
  });

  it('as a PDF whose forms hold one another, sixteen million times in all, is ended too', async () => {
    const DEEP = 24;
    const form = (n: number, content: string, holds: string) =>
      `${n} 0 obj\n<</Type/XObject/Subtype/Form/BBox[0 0 600 800]/Resources<<${holds}>>/Length ${content.length}>>stream\n${content}\nendstream\nendobj\n`;
    const forms = Array.from({ length: DEEP }, (_, i) => form(10 + i, '/X Do /X Do', `/XObject<</X ${11 + i} 0 R>>`)); // prettier-ignore
    const pdf = `%PDF-1.4\n1 0 obj\n<</Type/Catalog/Pages 2 0 R>>\nendobj\n2 0 obj\n<</Type/Pages/Kids[4 0 R]/Count 1>>\nendobj\n3 0 obj\n<</Type/Font/Subtype/Type1/BaseFont/Helvetica>>\nendobj\n4 0 obj\n<</Type/Page/Parent 2 0 R/MediaBox[0 0 600 800]/Resources<</XObject<</X 10 0 R>>>>/Contents 5 0 R>>\nendobj\n5 0 obj\n<</Length 5>>stream\n/X Do\nendstream\nendobj\n${forms.join('')}${form(10 + DEEP, 'BT /F 9 Tf 50 700 Td (The gate was opened.) Tj ET', '/Font<</F 3 0 R>>')}trailer\n<</Root 1 0 R>>\n%%EOF`;
    expect(pdf.length).to.be.lessThan(6000);
    work = startWork(WORKER, { busyMs: 2500 });
    expect((await refused(work.read(bytes(pdf))))!.message).to.match(/longer than a minute of work/);
  });

  it('is held only to its own time: waiting in line is no work', async () => {
    work = startWork(WORKER, { busyMs: 15_000, wholeMs: 240_000 });
    const all = await Promise.all(Array.from({ length: 6 }, () => refused(work.read(bytes(prose(1500))))));
    expect(all).to.deep.equal(Array.from({ length: 6 }, () => null));
  });

  it('and is killed by the machine is told so, and is not begun again', async () => {
    work = startWork(WORKER);
    const reading = refused(work.read(bytes(prose(20_000))));
    while (!readers().length) await new Promise((r) => setTimeout(r, 20));
    for (const pid of readers()) process.kill(pid, 'SIGKILL');
    expect((await reading)!.message).to.match(/ended the program that read it/);
    expect(readers()).to.deep.equal([]);
  });

  it('stops when nobody wants it any more', async () => {
    work = startWork(WORKER);
    const stopper = new AbortController();
    const reading = refused(work.read(bytes(prose(20_000)), { signal: stopper.signal }));
    while (!readers().length) await new Promise((r) => setTimeout(r, 20));
    stopper.abort();
    expect((await reading)!.message).to.equal('Reading was stopped.');
  });

  it('knows no database and no secret', async () => {
    work = startWork(WORKER);
    await demo();
    const [pid] = readers();
    const environment = readFileSync(`/proc/${pid}/environ`, 'latin1').split('\0');
    expect(environment.map((e) => e.split('=')[0]).filter(Boolean)).to.have.members(
      ['PATH', 'TZ', 'LANG', 'NODE_ENV', 'NODE_CHANNEL_FD', 'NODE_CHANNEL_SERIALIZATION_MODE'].filter(
        (name) => name.startsWith('NODE_') || process.env[name],
      ),
    );
  });

  const demo = () => work.read(bytes(prose(12)));
});

describe('whose turn it is', () => {
  const pause = () => new Promise<void>((r) => setTimeout(r, 5));
  it('goes from page to page, not to the one that asks most', async () => {
    const turns = new Turns(1);
    const done: string[] = [];
    const ask = (page: string, n: number) =>
      Array.from({ length: n }, () => askedBy.run(page, () => turns.take(async () => { await pause(); done.push(page); }))); // prettier-ignore
    await Promise.all([...ask('busy', 5), ...ask('calm', 1), ...ask('other', 2)]);
    expect(done).to.deep.equal(['busy', 'busy', 'calm', 'other', 'busy', 'other', 'busy', 'busy']);
  });
  it('is refused at once where too many wait already, and given again when they are done', async () => {
    const turns = new Turns(1);
    const all = Array.from({ length: 40 }, () => turns.take(pause).then(() => 'done', (e: ApiError) => e.code)); // prettier-ignore
    const ends = await Promise.all(all);
    expect(ends.filter((e) => e === 'done')).to.have.length(17);
    expect(new Set(ends.filter((e) => e !== 'done'))).to.deep.equal(new Set(['too-many']));
    expect(await turns.take(() => Promise.resolve('again'))).to.equal('again');
    expect(turns.waits).to.equal(0);
  });
  it('any order of asking, failing and giving up leaves nobody waiting and the place free', () =>
    fc.assert(
      fc.asyncProperty(
        fc.array(fc.record({ page: fc.constantFrom('a', 'b', 'c'), fails: fc.boolean(), givesUp: fc.boolean() }), { maxLength: 14 }), // prettier-ignore
        async (asked) => {
          const turns = new Turns(2);
          let [now, most] = [0, 0];
          await Promise.all(
            asked.map(({ page, fails, givesUp }) => {
              const stopper = new AbortController();
              const work = askedBy.run(page, () =>
                turns.take(async () => {
                  most = Math.max(most, ++now);
                  await Promise.resolve();
                  now--;
                  if (fails) throw new Error('fails');
                }, stopper.signal),
              );
              if (givesUp) stopper.abort(new Error('gave up'));
              return work.catch(() => undefined);
            }),
          );
          expect([now, turns.waits, most <= 2]).to.deep.equal([0, 0, true]);
          expect(await turns.take(() => Promise.resolve(1))).to.equal(1);
        },
      ),
      { seed: 17, numRuns: 200 },
    ));
});

describe('what is sent to be read', () => {
  let server: TestServer;
  before(async () => {
    server = await freshServer();
  });
  after(() => server.stop());
  const over = async (id: string) => {
    for (;;) {
      const { body } = await server.get(`/readings/${id}`);
      if (body.state !== 'waiting' && body.state !== 'reading') return body;
      await new Promise((r) => setTimeout(r, 50));
    }
  };

  it('as a document that says one thing at its end and another inside fails with its reason', async () => {
    const inner = packedFile([{ name: 'word/document.xml', data: new Uint8Array(30_000_000) }]);
    const liar = packedFile([
      { name: 'word/x', data: inner, stored: true, listed: { name: 'word/document.xml', method: 8, at: 36 } },
    ]);
    const { id } = (await server.post('/readings', { base64: Buffer.from(liar).toString('base64') })).body;
    expect(await over(id)).to.deep.include({ state: 'failed', sourceId: null });
    expect((await over(id)).message).to.match(/says one thing at its end and another inside/);
    const [{ tries }] = await server.query(`SELECT count(*)::int AS tries FROM jobs.job WHERE state <> 'completed' AND name = 'reading'`); // prettier-ignore
    expect(tries).to.equal(0);
  });

  it('as any bytes, to any address that takes them, is read or refused in words', () =>
    fc.assert(
      fc.asyncProperty(
        fc.constantFrom('/sources', '/clean'),
        fc.oneof(
          fc.uint8Array({ maxLength: 300 }),
          fc.tuple(fc.constantFrom('PK\x03\x04', '%PDF-1.4\n', '<html><body>', '{\\rtf1', 'WEBVTT\n\n', 'From: a\nTo: b\nDate: c\n\n', '\xef\xbb\xbf', '\xff\xfe'), fc.uint8Array({ maxLength: 300 })).map(([head, rest]) => new Uint8Array([...Buffer.from(head, 'latin1'), ...rest])), // prettier-ignore
        ),
        async (path, any) => {
          const { status, body } = await server.post(path, {
            base64: Buffer.from(any).toString('base64') || 'AA==',
          });
          expect(status, JSON.stringify(body)).to.be.oneOf([200, 201, 400, 422]);
          if (status >= 400) expect(body.error.message).to.match(/^\p{Lu}.*\.$/u);
          expect((await server.get('/health')).status).to.equal(200);
        },
      ),
      { seed: 17, numRuns: 60 },
    ));

  // Marks for which PostgreSQL's parser of searched words takes the square of their number (measured on its version 15 and 17).
  for (const marks of ['<!--', 'a_b-', 'x-y_'])
    it(`as "${marks}" twenty thousand times holds up no other search`, async () => {
      const text = `The keeper shut the lock at noon. ${marks.repeat(20_000)} The boats waited below it.`;
      const made = await server.post('/sources', { text });
      expect(made.status, JSON.stringify(made.body).slice(0, 300)).to.equal(201);
      const { status, body } = await server.get('/sources?q=keeper');
      expect([status, body.sources.map((s: { id: string }) => s.id)]).to.deep.equal([200, [made.body.id]]);
      expect(body.sources[0].found).to.include('\x02keeper\x03');
      await server.request('DELETE', `/sources/${made.body.id}`, {});
    });

  it('is found by hyphenated words and by parts of an address, as they are written', async () => {
    const { id } = (await server.post('/sources', { text: 'The boat-lift stood at www.example.org/lift/1834 by night. It was a wonder of its day.' })).body; // prettier-ignore
    for (const q of ['boat-lift', 'lift', '"boat-lift stood"', 'www.example.org', '1834'])
      expect(
        (await server.get(`/sources?q=${encodeURIComponent(q)}`)).body.sources.map(
          (s: { id: string }) => s.id,
        ),
        q,
      ).to.deep.equal([id]);
  });
});
