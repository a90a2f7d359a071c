/** A library of many scripts and sources: lists by the page, found by words. */
import { expect } from 'chai';
import { freshServer, toldScript, type TestServer } from './helpers.ts';

const MANY = 170;

describe(`a library of ${MANY} scripts`, function () {
  this.timeout(120_000);
  let server: TestServer;
  let told: Awaited<ReturnType<typeof toldScript>>;
  const library = async (query = '') => (await server.get(`/library${query}`)).body;

  before(async () => {
    server = await freshServer();
    told = await toldScript(server, 60);
    // Copies, each a minute newer than the one before, under titles of their own.
    for (const [table, changed] of [
      ['scripts', `settings = jsonb_set(settings, '{title}', to_jsonb('Bell ' || n || '%'))`],
      ['sources', `title = 'Tower ' || n`],
    ]) {
      const [{ columns }] = await server.query(
        `SELECT string_agg(quote_ident(attname), ', ') AS columns FROM pg_attribute
          WHERE attrelid = '${table}'::regclass AND attnum > 0 AND NOT attisdropped AND attgenerated = '' AND attname NOT IN ('id', 'createdAt')`,
      );
      await server.query(`INSERT INTO ${table} (id, "createdAt", ${columns})
        SELECT gen_random_uuid(), "createdAt" + n * interval '1 minute', ${columns} FROM ${table}, generate_series(1, ${MANY - 1}) n`); // prettier-ignore
      await server.query(`UPDATE ${table} t SET ${changed} FROM (SELECT id, row_number() OVER (ORDER BY "createdAt") - 1 AS n FROM ${table}) k
        WHERE k.id = t.id AND n > 0`); // prettier-ignore
    }
  });
  after(() => server.stop());

  it('gives the newest of each, the newest last, and how many there are', async () => {
    const { scripts, sources, counts } = await library();
    expect(counts).to.deep.equal({ scripts: MANY, sources: MANY });
    expect(scripts).to.have.length(60);
    expect(sources).to.have.length(60);
    expect(scripts[59].settings.title).to.equal(`Bell ${MANY - 1}%`);
    expect(scripts[0].settings.title).to.equal(`Bell ${MANY - 60}%`);
    expect(sources[59].title).to.equal(`Tower ${MANY - 1}`);
  });

  it('gives as many as are asked for, and refuses what is no number', async () => {
    expect((await library('?scripts=500&sources=0')).scripts).to.have.length(MANY);
    expect((await library('?scripts=500&sources=0')).sources).to.have.length(0);
    for (const query of ['?scripts=many', '?scripts=-1', '?sources=1e9', '?channel=all'])
      expect((await server.get(`/library${query}`)).status, query).to.equal(400);
  });

  it('finds scripts by words of their titles, taken as they stand', async () => {
    const titles = async (find: string) =>
      (await library(`?find=${encodeURIComponent(find)}`)).scripts.map((s: { settings: { title: string } }) => s.settings.title); // prettier-ignore
    expect(await titles('bELL 16')).to.have.length(11);
    expect(await titles('%_')).to.deep.equal([]);
    expect(await titles('7%')).to.have.length(17);
  });

  it('gives the scripts of one channel', async () => {
    const { scripts, counts } = await library(`?channel=${told.channelId}`);
    expect(counts.scripts).to.equal(MANY);
    expect(scripts).to.have.length(60);
    const { channels } = (await server.get('/channels')).body;
    expect(channels).to.have.length(1);
    expect(channels[0]).to.include({ id: told.channelId, scripts: MANY });
  });

  it('finds sources beyond the page, as the library lists them', async () => {
    const { sources } = (await server.get('/sources?used=yes')).body;
    expect(sources).to.have.length(1);
    expect(sources[0]).to.include({ id: told.sourceId, scripts: 1 });
    expect(sources[0].heard).to.be.greaterThan(0);
    expect(sources[0].strip.some((p: { heard: boolean }) => p.heard)).to.equal(true);
  });

  it('names every source, for choosing one', async () => {
    const { sources } = (await server.get('/sources/names')).body;
    expect(sources).to.have.length(MANY);
    expect(sources[0]).to.include({ title: `Tower ${MANY - 1}`, kind: 'news' });
    expect(sources[MANY - 1].id).to.equal(told.sourceId);
  });
});
