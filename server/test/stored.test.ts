/** What earlier versions stored opens in today's code, with nothing lost; what can't be read harms nothing else. */
import { expect } from 'chai';
import fc from 'fast-check';
import {
  FORMAT,
  docFromJson,
  docFromSections,
  emptyLine,
  plainSections,
  scriptSchema,
  upgradedDoc,
  upgradedStep,
  type Upgrade,
} from '@ursprung/core/script';
import { migrate, migrations } from '../src/db/migrate.ts';
import {
  storedChannel,
  storedFiles,
  storedFormats,
  storedLeft,
  storedScope,
  storedSettings,
} from '../src/stored.ts';
import { BRIEF, freshServer, type TestServer } from './helpers.ts';

const PAST = ['005-handoffs.sql.gz'];

for (const dump of PAST)
  describe(`a database as ${dump.split('.')[0]} left it`, function () {
    let server: TestServer;
    before(async () => {
      server = await freshServer(undefined, {}, null, { dump });
    });
    after(() => server.stop());

    it('has every migration once, each by name', async () => {
      const rows = await server.query('SELECT name FROM "SequelizeMeta" ORDER BY name');
      expect(rows.map((r) => r.name)).to.deep.equal(migrations.map((m) => m.name));
    });

    it('opens every script with the words, links, takes and settings that were stored', async () => {
      const rows = await server.query('SELECT id, doc, settings, version FROM scripts');
      expect(rows.length).to.be.at.least(3);
      for (const row of rows) {
        const { body, status } = await server.get(`/scripts/${row.id}`);
        expect(status).to.equal(200);
        expect(plainSections(docFromJson(body.doc))).to.deep.equal(
          plainSections(scriptSchema.nodeFromJSON(row.doc)),
        );
        expect(body.settings).to.deep.include(row.settings);
        expect(body.version).to.equal(row.version);
      }
      const text = rows.map((r) => scriptSchema.nodeFromJSON(r.doc).textContent).join(' ');
      expect(text, 'what was typed then').to.include('Typed long ago.');
    });

    it('keeps every source with its facts, their ids, the marks on them and the writer’s own', async () => {
      const rows = await server.query('SELECT id, facts, marks, "ownFacts", document FROM sources');
      let marks = 0;
      for (const row of rows) {
        const { body } = await server.get(`/sources/${row.id}`);
        expect(body.document).to.deep.equal(row.document);
        expect(body.marks).to.deep.equal(row.marks);
        marks += Object.keys(row.marks).length;
        const ids = body.facts.map((f: { id: string }) => f.id);
        for (const fact of row.facts) expect(ids).to.include(fact.id);
        for (const own of row.ownFacts)
          expect(body.ownFacts.map((f: { text: string }) => f.text)).to.include(own.text);
      }
      expect(marks).to.be.at.least(6);
    });

    it('has the channels as they were, written in today’s format with the first change', async () => {
      const rows = await server.query('SELECT id, name, settings, format FROM channels');
      expect(rows.length).to.be.at.least(1);
      const { channels } = (await server.get('/library')).body;
      for (const row of rows) {
        const shown = channels.find((c: { id: string }) => c.id === row.id);
        expect([shown.name, shown.settings, row.format]).to.deep.equal([row.name, row.settings, 1]);
      }
      const [{ id, settings }] = rows;
      await server.patch(`/channels/${id}`, { settings: { pace: 151 } });
      const [after] = await server.query(`SELECT settings, format FROM channels WHERE id = '${id}'`);
      expect(after).to.deep.equal({ settings: { ...settings, pace: 151 }, format: FORMAT });
    });

    it('goes back to every state, and takes new steps on the old ones', async () => {
      const [{ id }] = await server.query(`SELECT "scriptId" AS id FROM script_steps LIMIT 1`);
      const now = (await server.get(`/scripts/${id}`)).body;
      const then = (await server.get(`/scripts/${id}/at/0`)).body;
      expect(docFromJson(now.doc).textContent).to.include('Typed long ago.');
      expect(docFromJson(then.doc).textContent).to.not.include('Typed long ago.');
      const names = (await server.get(`/scripts/${id}/history`)).body.names;
      expect(names.map((n: { name: string }) => n.name)).to.include('Before the upgrade');
      const sent = await server.post(`/scripts/${id}/steps`, {
        version: now.version,
        clientId: 'page-now',
        steps: [
          { stepType: 'replace', from: 2, to: 2, slice: { content: [{ type: 'text', text: 'Now. ' }] } },
        ],
      });
      expect(sent.status).to.equal(200);
      const [row] = await server.query(`SELECT format FROM scripts WHERE id = '${id}'`);
      expect(row.format, 'written in today’s format with the first change').to.equal(FORMAT);
      expect(docFromJson((await server.get(`/scripts/${id}/at/0`)).body.doc).toJSON()).to.deep.equal(
        then.doc,
      );
    });

    it('tells another take of a script that rests on facts of then', async () => {
      const { scripts } = (await server.get('/library')).body;
      const { id } = scripts.find((s: { sourceIds: string[] }) => s.sourceIds.length);
      const { doc } = (await server.get(`/scripts/${id}`)).body;
      const sections = plainSections(docFromJson(doc));
      const answer = await server.post(`/scripts/${id}/redo`, {
        what: 'section',
        section: sections[1].id,
        sections,
      });
      expect(answer.status).to.equal(200);
      const body = answer.body as { sections?: typeof sections; refused?: string };
      if (!body.sections) throw new Error(body.refused);
      const [row] = await server.query(
        `SELECT s.facts, s."ownFacts" FROM sources s JOIN script_sources l ON l."sourceId" = s.id WHERE l."scriptId" = '${id}' AND l.letter = 'A'`,
      );
      const known = new Set([...row.facts, ...row.ownFacts].map((f: { id: string }) => f.id));
      for (const line of body.sections.flatMap((s) => s.lines))
        for (const from of line.from)
          if (from.source === 'A' && from.fact) expect(known.has(from.fact), line.text).to.equal(true);
    });

    it('is brought up to date again without a change, also when its last migration was not noted', async () => {
      const columns = () =>
        server.query(
          `SELECT table_name, column_name FROM information_schema.columns WHERE table_schema = 'public' ORDER BY 1, 2`,
        );
      const before = await columns();
      await server.query(`DELETE FROM "SequelizeMeta" WHERE name = '${migrations.at(-1)!.name}'`);
      await Promise.all([migrate(server.databaseUrl), migrate(server.databaseUrl)]);
      expect(await columns()).to.deep.equal(before);
      const names = await server.query('SELECT name FROM "SequelizeMeta"');
      expect(names).to.have.length(migrations.length);
    });

    it('is as it was when a migration fails half way', async () => {
      const failing = [
        ...migrations,
        {
          name: '999-fails',
          up: async (q: Parameters<(typeof migrations)[0]['up']>[0]) => {
            await q.query('CREATE TABLE half (n int)');
            throw new Error('half way');
          },
        },
      ];
      const refused = await migrate(server.databaseUrl, failing).then(
        () => null,
        (e: Error) => e,
      );
      expect(refused?.message).to.match(/half way/);
      expect(await server.query(`SELECT to_regclass('half') AS half`)).to.deep.equal([{ half: null }]);
      await migrate(server.databaseUrl);
    });
  });

describe('a stored document', () => {
  const doc = docFromSections([
    {
      id: 'S1',
      title: 'One',
      role: 'hook',
      plannedMs: 0,
      locked: false,
      takes: [],
      lines: [{ ...emptyLine('L1'), text: 'Words stay.' }],
    },
  ]);

  it('of format 1 opens whatever its attributes hold: what nobody can read is left out, the words stay', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(
          'role',
          'restMs',
          'fixedMs',
          'locked',
          'speaker',
          'from',
          'fixed',
          'takes',
          'by',
          'notes',
          'scene',
        ),
        fc.jsonValue(),
        (name, value) => {
          const json = doc.toJSON() as { content: { content: { attrs: Record<string, unknown> }[] }[] };
          json.content[0].content[0].attrs[name] = value;
          const opened = docFromJson(upgradedDoc(json, 1));
          expect(opened.textContent).to.equal('Words stay.');
          expect(opened.firstChild!.firstChild!.attrs.id).to.equal('L1');
        },
      ),
      { seed: 16, numRuns: 200 },
    );
  });

  it('goes through every upgrade from its format on, in order, and no other', () => {
    const upgrade = (from: number): Upgrade => ({
      from,
      doc: (d) => `${d as string}>${from + 1}`,
      step: (s) => `${s as string}>${from + 1}`,
    });
    const upgrades = [upgrade(2), upgrade(1), upgrade(3)];
    expect(upgradedDoc('d', 1, upgrades)).to.equal('d>2>3>4');
    expect(upgradedDoc('d', 3, upgrades)).to.equal('d>4');
    expect(upgradedStep('s', 4, upgrades)).to.equal('s');
  });

  it('with settings that today’s schema refuses keeps all the others', () => {
    const sound = { ...BRIEF, title: 'T', target: { kind: 'point', seconds: 60 }, seed: 3, shape: 'none' };
    expect(storedSettings(sound)).to.deep.equal(sound);
    const read = storedSettings({ ...sound, waived: [{ rule: 7 }], pace: 'fast', cast: [] });
    expect(read).to.deep.equal({ ...sound, pace: 150, cast: [] });
    expect(storedSettings(null).title).to.equal('No title');
  });

  it('of a channel is read field by field: what today’s schema refuses is as usual', () => {
    const good = { ...BRIEF, usual: { from: 60, to: 90 }, rulesOff: ['long'] };
    expect(storedChannel(good)).to.deep.equal(good);
    expect(storedChannel({ ...good, pace: 'fast', sayings: [{ word: 7 }] })).to.deep.equal(good);
    for (const nothing of [null, 7, [], 'x'])
      expect(storedChannel(nothing)).to.deep.equal({ ...BRIEF, usual: { from: 60, to: 600 } });
  });

  it('of kits and orders is read entry by entry: what can’t be read is left out', () => {
    const file = { name: 'a.txt', format: 'text', bytes: 7, sha256: 'ab' };
    expect(storedFiles([file, null, { ...file, bytes: -1 }, 'x'])).to.deep.equal([file]);
    expect(storedLeft([{ format: 'edl', why: 'No.' }, { format: 'edl' }])).to.deep.equal([{ format: 'edl', why: 'No.' }]); // prettier-ignore
    expect(storedFormats(['text', 7, null])).to.deep.equal(['text']);
    expect([storedScope({ section: 'S1' }), storedScope({ section: 7 }), storedScope(null)]).to.deep.equal([{ section: 'S1' }, {}, {}]); // prettier-ignore
    for (const list of [storedFiles, storedLeft, storedFormats])
      for (const nothing of [null, undefined, {}, 'text', 7]) expect(list(nothing)).to.deep.equal([]);
  });
});

describe('a change that would break a document', function () {
  let server: TestServer;
  let scriptId: string;
  before(async () => {
    server = await freshServer();
    const settings = { ...BRIEF, usual: { from: 60, to: 600 } };
    const channelId = (await server.post('/channels', { name: 'One', settings })).body.id;
    const input = { ...BRIEF, channelId, target: { kind: 'point', seconds: 60 } };
    scriptId = (await server.post('/scripts', input)).body.id;
    await server.post('/scripts', input);
  });
  after(() => server.stop());

  it('is refused, whatever value it sets, and the script stays as it was', async () => {
    const before = (await server.get(`/scripts/${scriptId}`)).body;
    for (const [pos, attr, value] of [
      [1, 'from', null],
      [1, 'from', [{ source: 1 }]],
      [1, 'role', 'hero'],
      [1, 'restMs', -1],
      [1, 'takes', [{ text: 'x' }]],
      [0, 'takes', 'none'],
      [0, 'plannedMs', null],
      [0, 'locked', 'yes'],
    ] as const) {
      const step = { stepType: 'attr', pos, attr, value };
      const answer = await server.post(`/scripts/${scriptId}/steps`, {
        version: before.version,
        clientId: 'somebody',
        steps: [step],
      });
      expect([answer.status, answer.body.error?.code], `${attr}: ${JSON.stringify(value)}`).to.deep.equal([
        422,
        'step-refused',
      ]);
    }
    expect((await server.get(`/scripts/${scriptId}`)).body.doc).to.deep.equal(before.doc);
  });

  it('that stands in the database already harms one script, and is shown as such', async () => {
    await server.query(
      `UPDATE scripts SET doc = '{"type":"doc","content":[{"type":"poem"}]}' WHERE id = '${scriptId}'`,
    );
    const { status, body } = await server.get('/library');
    expect(status).to.equal(200);
    expect(body.scripts.map((s: { broken: boolean }) => s.broken)).to.deep.equal([true, false]);
    const opened = await server.get(`/scripts/${scriptId}`);
    expect([opened.status, opened.body.error.code]).to.deep.equal([422, 'script-broken']);
  });
});
