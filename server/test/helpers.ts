/** A server on a database of its own, for one test file. */
import { execFileSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import pg from 'pg';
import { demoSource, loadDemo } from '@ursprung/demo';
import type { TextModel } from '../src/model.ts';
import { startServer, startWork, type LinkSettings, type Running, type TextWork } from '../src/index.ts';

export interface Answer {
  status: number;
  // Tests look into answers freely.
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  body: any;
}
export interface TestServer extends Running {
  databaseUrl: string;
  request: (method: string, path: string, input?: unknown) => Promise<Answer>;
  get: (path: string) => Promise<Answer>;
  post: (path: string, input: unknown) => Promise<Answer>;
  patch: (path: string, input: unknown) => Promise<Answer>;
  raw: (method: string, path: string, body?: string, headers?: Record<string, string>) => Promise<Response>;
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  query: (sql: string) => Promise<any[]>;
  /** Stops it and leaves its database. */
  close: () => Promise<void>;
}

async function admin<T>(url: string, work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

/** One pool for all servers of a run: what a worker has warmed up need not be warmed again. */
let workers: TextWork | undefined;

/** Starts a server on a fresh database, on a copy of another (`template`) or of one as an earlier version left it (`dump`); `stop` drops it again. The address of PostgreSQL comes from bin/test. */
export async function freshServer(
  webFolder?: string,
  links: LinkSettings = {},
  model: TextModel | null = null,
  more: { secret?: string; standIn?: string; dump?: string; perMinute?: number; template?: string } = {},
): Promise<TestServer> {
  const base = process.env.TEST_DATABASE_URL;
  if (!base) throw new Error('TEST_DATABASE_URL is not set: run bin/test.');
  const name = `t_${randomBytes(6).toString('hex')}`;
  await admin(base, (c) =>
    c.query(`CREATE DATABASE ${name} ${more.template ? `TEMPLATE ${more.template}` : ''}`),
  );
  const databaseUrl = base.replace(/\/[^/]*$/, `/${name}`);
  if (more.dump)
    execFileSync('psql', ['-q', '-v', 'ON_ERROR_STOP=1', '-d', databaseUrl], {
      input: gunzipSync(readFileSync(new URL(`./databases/${more.dump}`, import.meta.url))),
      stdio: ['pipe', 'ignore', 'inherit'],
    });
  const running = await startServer({
    databaseUrl,
    port: 0,
    worker: (workers ??= startWork(new URL('../dist/worker.js', import.meta.url))),
    ...(webFolder ? { webFolder } : {}),
    links,
    model,
    ...more,
    log: (line) => process.stderr.write(`${line}\n`),
  });
  const raw: TestServer['raw'] = (method, path, body, headers = {}) =>
    fetch(`${running.url}/api${path}`, {
      method,
      ...(body === undefined ? {} : { body }),
      headers: Object.fromEntries(
        Object.entries({
          'content-type': 'application/json',
          'x-requested-with': 'ursprung',
          ...headers,
        }).filter(([, v]) => v !== ''),
      ),
    });
  const request: TestServer['request'] = async (method, path, input) => {
    const answer = await raw(method, path, input === undefined ? undefined : JSON.stringify(input));
    return { status: answer.status, body: await answer.json() };
  };
  return {
    ...running,
    databaseUrl,
    raw,
    request,
    get: (path) => request('GET', path),
    post: (path, input) => request('POST', path, input),
    patch: (path, input) => request('PATCH', path, input),
    query: (sql) => admin(databaseUrl, async (c) => (await c.query(sql)).rows),
    close: () => running.stop(),
    stop: async () => {
      await running.stop();
      await admin(base, (c) => c.query(`DROP DATABASE ${name} WITH (FORCE)`));
    },
  };
}

let demo: Promise<string> | undefined;
/** The name of a database with the demo in it, made once a run: others are copies of it. */
export const demoDatabase = (): Promise<string> =>
  (demo ??= (async () => {
    const server = await freshServer();
    await loadDemo(server.service);
    const name = `demo_${randomBytes(6).toString('hex')}`;
    const own = new URL(server.databaseUrl).pathname.slice(1);
    // A copy is made of a database that nobody is connected to.
    await server.close();
    await admin(process.env.TEST_DATABASE_URL!, (c) => c.query(`ALTER DATABASE ${own} RENAME TO ${name}`));
    return name;
  })());

after(async () => {
  const name = await demo;
  if (name) await admin(process.env.TEST_DATABASE_URL!, (c) => c.query(`DROP DATABASE ${name} WITH (FORCE)`));
});

/** How the tests' channels and scripts sound. */
export const BRIEF = { frame: '16:9', mood: 'calm', pace: 150, voice: 'even' };

/** A channel, the demo's report as source, and a script told from it. */
export async function toldScript(server: TestServer, seconds: number) {
  const channelId: string = (
    await server.post('/channels', {
      name: 'Quiet Machinery',
      settings: { ...BRIEF, usual: { from: 60, to: 600 } },
    })
  ).body.id;
  const sourceId: string = (
    await server.post('/sources', { base64: Buffer.from(demoSource('footbridge')).toString('base64') })
  ).body.id;
  const scriptId: string = (
    await server.post('/scripts', { ...BRIEF, channelId, sourceId, target: { kind: 'point', seconds } })
  ).body.id;
  return { channelId, sourceId, scriptId };
}
