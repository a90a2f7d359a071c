/** One long source, or many scripts, hold up nobody: the server's own thread is watched while they are looked at. */
import { monitorEventLoopDelay, performance } from 'node:perf_hooks';
import { expect } from 'chai';
import { freshServer, toldScript, type TestServer } from './helpers.ts';

/** A list, in which every row is a fact and every other a name: what froze the library once. */
const list = (rows: number) =>
  Array.from({ length: rows }, (_, i) => `* Lock ${i} of the Upper Cut, ${1700 + (i % 300)}, ${i + 2} gates, keeper Anna Bell${i}.`).join('\n'); // prettier-ignore
const prose = (sentences: number) =>
  Array.from(
    { length: sentences },
    (_, i) =>
      `In ${1500 + (i % 500)} the keeper of lock ${i} counted ${i + 3} boats with coal.${i % 5 ? '' : '\n\n'}`,
  ).join(' ');

/** The longest time, in milliseconds, that nothing else could be done while `work` was done. */
async function longestStop(work: () => Promise<unknown>): Promise<number> {
  const delay = monitorEventLoopDelay({ resolution: 1 });
  delay.enable();
  await work();
  await new Promise((r) => setTimeout(r, 20));
  delay.disable();
  return delay.max / 1e6;
}

describe('the server’s own thread', () => {
  let server: TestServer;
  let ids: string[];
  before(async () => {
    server = await freshServer();
    const told = await toldScript(server, 60);
    const made = [];
    for (const text of [list(2500), prose(6000)]) made.push((await server.post('/sources', { text })).body.id as string); // prettier-ignore
    ids = [...made, told.sourceId];
    for (const sourceId of made) await server.post(`/scripts/${told.scriptId}/sources`, { sourceId });
    // Forty scripts more, as copies.
    await server.query(`INSERT INTO scripts ("id", "workspaceId", "channelId", settings, "settingsRevision", doc, version, "createdAt", "updatedAt", format) SELECT gen_random_uuid(), "workspaceId", "channelId", settings, "settingsRevision", doc, version, now(), now(), format FROM scripts, generate_series(1, 40)`); // prettier-ignore
  });
  after(() => server.stop());

  /** As a browser asks: what comes is read as bytes, which costs this thread next to nothing. */
  const look = async (method: string, path: string, input?: unknown) => {
    const answer = await server.raw(method, path, input === undefined ? undefined : JSON.stringify(input));
    const bytes = await answer.arrayBuffer();
    expect(answer.status).to.equal(200);
    return bytes;
  };

  it('is never stopped for half as long as taking a long source apart into objects would take', async () => {
    // Measured by what the database holds of the longest: read and written once, which any work on it here would need.
    const [{ facts }] = await server.query(`SELECT facts::text AS facts FROM sources WHERE id = '${ids[1]}'`);
    const began = performance.now();
    JSON.stringify(JSON.parse(facts as string));
    const objects = performance.now() - began;
    const views: Record<string, () => Promise<unknown>> = {
      'the library': () => look('GET', '/library'),
      'the library again': () => look('GET', '/library'),
      'the long list': () => look('GET', `/sources/${ids[0]}`),
      'the long prose': () => look('GET', `/sources/${ids[1]}`),
      'a mark on it': () => look('PATCH', `/sources/${ids[1]}`, { rights: 'own' }),
      'both beside one another': () => look('POST', '/compare', { sources: ids.map((id, i) => ({ letter: 'ABC'[i], id })) }), // prettier-ignore
    };
    const stops: Record<string, number> = {};
    // A busy machine stops everybody now and then: the least of up to nine looks, as many as it takes.
    for (const [name, view] of Object.entries(views))
      for (let look = 0; look < 9 && !(stops[name] < objects / 2); look++)
        stops[name] = Math.min(stops[name] ?? Infinity, await longestStop(view));
    process.stdout.write(`      ${Object.entries(stops).map(([n, ms]) => `${n} ${ms.toFixed(0)} ms`).join(', ')}; objects of the longest once ${objects.toFixed(0)} ms\n`); // prettier-ignore
    for (const [name, ms] of Object.entries(stops)) expect(ms, name).to.be.lessThan(objects / 2);
  });

  it('shows of each script and source what they hold, also when another tab has changed them since', async () => {
    const { scripts, sources } = (await server.get('/library')).body;
    const [script] = scripts.filter((s: { sourceIds: string[] }) => s.sourceIds.length === 3);
    const { doc, settings } = (await server.get(`/scripts/${script.id}`)).body;
    expect(script.words).to.be.greaterThan(60);
    expect(script.sections).to.have.length(doc.content.length);
    const source = sources.find((s: { id: string }) => s.id === ids[2]);
    expect(source.heard).to.be.within(1, source.passages);
    expect(source.strip.filter((p: { heard: boolean }) => p.heard)).to.have.length(source.heard);
    const [long] = sources.filter((s: { id: string }) => s.id === ids[0]);
    expect(long.passages).to.be.greaterThan(2000);
    expect(long.strip.length).to.be.lessThan(200);
    await server.patch(`/scripts/${script.id}`, { revision: 0, settings: { pace: settings.pace * 2 } });
    const faster = (await server.get('/library')).body.scripts.find(
      (s: { id: string }) => s.id === script.id,
    );
    expect(faster.ms / script.ms).to.be.within(0.4, 0.75);
    expect(faster.words).to.equal(script.words);
  });
});
