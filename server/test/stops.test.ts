/** Servers that are stopped, killed or lose their database leave nothing stranded. */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect } from 'chai';
import { startServer } from '../src/index.ts';
import { BRIEF, freshServer, toldScript, type TestServer } from './helpers.ts';

const root = fileURLToPath(new URL('../..', import.meta.url));
const JSON_FROM_HERE = { 'content-type': 'application/json', 'x-requested-with': 'ursprung' };
const soon = (ms = 50) => new Promise((r) => setTimeout(r, ms));
async function until<T>(look: () => Promise<T | null | undefined | false>): Promise<T> {
  for (;;) {
    const seen = await look();
    if (seen) return seen;
    await soon();
  }
}
const PROSE = Array.from({ length: 6000 }, (_, i) => `In ${1500 + (i % 500)} keeper ${i} of the lower lock counted ${i + 3} boats.`).join('\n\n'); // prettier-ignore

/** The program itself, as it is started for people. */
async function program(
  databaseUrl: string,
): Promise<{ url: string; process: ChildProcess; ended: Promise<void> }> {
  const child = spawn(process.execPath, [join(root, 'server/dist/main.js')], {
    env: { ...process.env, DATABASE_URL: databaseUrl, PORT: '0' },
    stdio: ['ignore', 'pipe', 'ignore'],
  });
  const ended = new Promise<void>((resolve) => void child.once('exit', () => resolve()));
  let said = '';
  child.stdout.on('data', (d: Buffer) => (said += d.toString()));
  const url = await until(() => Promise.resolve(/http:\S+/.exec(said)?.[0]));
  return { url, process: child, ended };
}
// eslint-disable-next-line @typescript-eslint/no-explicit-any
const ask = async (url: string, path: string, input?: unknown): Promise<any> =>
  (
    await fetch(`${url}/api${path}`, {
      headers: JSON_FROM_HERE,
      ...(input === undefined ? {} : { method: 'POST', body: JSON.stringify(input) }),
    })
  ).json();

describe('a server that ends', () => {
  let server: TestServer;
  let scriptId: string;
  let told: { channelId: string; sourceId: string };
  before(async () => {
    server = await freshServer();
    ({ scriptId, ...told } = await toldScript(server, 60));
  });
  after(() => server.stop());

  const beside = () => startServer({ databaseUrl: server.databaseUrl, port: 0, worker: server.work });
  const stateOf = async (table: string, id: string) =>
    (await server.query(`SELECT state, stage, message FROM ${table} WHERE id = '${id}'`))[0] as { state: string; stage: string; message: string | null }; // prettier-ignore

  it('by a stop answers what was asked of it before', async () => {
    const second = await beside();
    const draft = ask(second.url, '/scripts', {
      ...BRIEF,
      ...told,
      seed: 2,
      target: { kind: 'point', seconds: 60 },
    });
    await soon();
    await second.stop();
    expect((await draft).id).to.match(/^[\da-f-]{36}$/);
  });

  it('by a stop in the middle of a reading leaves it to the next one', async () => {
    const own = await program(server.databaseUrl);
    // Only the program that stops has a place for it: the others are busy with as long a text.
    const { id } = await ask(own.url, '/readings', { text: PROSE });
    await until(async () => (await stateOf('readings', id)).state === 'reading');
    own.process.kill('SIGTERM');
    await own.ended;
    await until(async () => (await stateOf('readings', id)).state === 'done');
  });

  it('by a kill in the middle of a reading, a kit and an answer: the next one takes them up at once', async () => {
    // Alone on its database, as a server at home is.
    await server.close();
    const first = await program(server.databaseUrl);
    const reading = (await ask(first.url, '/readings', { text: PROSE })).id as string;
    const kit = (await ask(first.url, `/scripts/${scriptId}/handoffs`, { who: null, without: [] }))
      .id as string;
    await server.query(`INSERT INTO commissions SELECT gen_random_uuid(), "workspaceId", id, '{}', 'Tell it.', 'service', 'far', 'arriving', 'Half a', NULL, 0, 0, NULL, now(), NULL FROM scripts LIMIT 1`); // prettier-ignore
    await until(async () => (await stateOf('readings', reading)).state === 'reading' && (await stateOf('handoffs', kit)).state === 'writing'); // prettier-ignore
    first.process.kill('SIGKILL');
    await first.ended;
    const second = await program(server.databaseUrl);
    try {
      // A job that is active is otherwise let go after ten minutes, which is longer than this test may take.
      await until(async () => (await stateOf('readings', reading)).state === 'done' && (await stateOf('handoffs', kit)).state === 'done'); // prettier-ignore
      const [{ state, reply }] = await server.query('SELECT state, reply FROM commissions');
      expect([state, reply]).to.deep.equal(['broken', 'Half a']);
    } finally {
      second.process.kill('SIGTERM');
      await second.ended;
    }
  });

  it('again and again with one reading: that is said, and not begun a fourth time', async () => {
    const id = (await server.query(`INSERT INTO readings SELECT gen_random_uuid(), id, 'reading', 'taking it apart', 1, 9, NULL, 'x', NULL, NULL, NULL, now() FROM workspaces RETURNING id`))[0].id as string; // prettier-ignore
    await server.query(`INSERT INTO jobs.job (name, data, state, retry_count, retry_limit, started_on) VALUES ('reading', '${JSON.stringify({ id })}', 'active', 2, 2, now())`); // prettier-ignore
    const next = await program(server.databaseUrl);
    next.process.kill('SIGTERM');
    await next.ended;
    const { state, message } = await stateOf('readings', id);
    expect([state, message]).to.deep.equal([
      'failed',
      'This broke off with the server and was not begun again. Nothing else is lost; try again.',
    ]);
  });
});

describe('bin/start', () => {
  const folder = mkdtempSync(join(tmpdir(), 'ursprung-start-'));
  let starter: ChildProcess | undefined;
  after(() => {
    starter?.kill('SIGTERM');
  });
  const parentOf = (pid: string) => {
    try {
      const stat = readFileSync(`/proc/${pid}/stat`, 'latin1');
      return Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[1]);
    } catch {
      return 0;
    }
  };
  const commandOf = (pid: string) => {
    try {
      return readFileSync(`/proc/${pid}/cmdline`, 'latin1');
    } catch {
      return '';
    }
  };
  const serverOf = (parent: number) =>
    readdirSync('/proc').filter(
      (pid) =>
        /^\d+$/.test(pid) && parentOf(pid) === parent && commandOf(pid).includes('server/dist/main.js'),
    );
  const isThere = (pid: string) => {
    try {
      return /State:\s+[^Z\s]/.test(readFileSync(`/proc/${pid}/status`, 'latin1'));
    } catch {
      return false;
    }
  };

  it('starts a server that died again on its address, and leaves none behind when it is killed itself', async () => {
    starter = spawn(process.execPath, [join(root, 'scripts/serve.mjs'), 'start'], {
      env: { ...process.env, URSPRUNG_DATA: folder, PORT: '4700', URSPRUNG_TEST: '1' },
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    let said = '';
    starter.stdout!.on('data', (d: Buffer) => (said += d.toString()));
    const url = await until(() => Promise.resolve(/http:\S+/.exec(said)?.[0]));
    const [first] = serverOf(starter.pid!);
    process.kill(Number(first), 'SIGKILL');
    const second = await until(() => Promise.resolve(serverOf(starter!.pid!).find((pid) => pid !== first && isThere(pid)))); // prettier-ignore
    await until(() => fetch(`${url}/api/health`).then((r) => r.ok, () => false)); // prettier-ignore
    starter.kill('SIGKILL');
    await until(() => Promise.resolve(!isThere(second)));
    // What it left of PostgreSQL is taken over, and stopped, by the next one.
    starter = spawn(process.execPath, [join(root, 'scripts/serve.mjs'), 'start'], {
      env: { ...process.env, URSPRUNG_DATA: folder, PORT: '4700', URSPRUNG_TEST: '1' },
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    let again = '';
    starter.stdout!.on('data', (d: Buffer) => (again += d.toString()));
    await until(() => Promise.resolve(/http:\S+/.test(again)));
    const over = new Promise((resolve) => starter!.once('exit', resolve));
    starter.kill('SIGTERM');
    expect(await over).to.equal(0);
    const [data] = readdirSync(folder);
    expect(readdirSync(join(folder, data, 'pg'))).not.to.include('postmaster.pid');
    rmSync(folder, { recursive: true, force: true });
  });
});
