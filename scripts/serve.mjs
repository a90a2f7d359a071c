// Builds, starts PostgreSQL and the server (again, when it dies), prints the address, and stops what it started on Ctrl C.
// Usage: node scripts/serve.mjs demo|start
import { execFileSync, spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { chmodSync, existsSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { dataFolder, ensureDatabase, startPostgres } from './postgres.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const use = process.argv[2] === 'demo' ? 'demo' : 'start';
const FIRST_PORT = Number(process.env.PORT ?? (use === 'demo' ? 4410 : 4400));

/** A server that ends so often within so many milliseconds has something wrong with it that starting again does not mend. */
const MOST_DEATHS = 5;
const DEATHS_WITHIN_MS = 60_000;

const isFree = (port) =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
  });
async function freeFrom(port) {
  for (let p = port; p < port + 50; p++) if (await isFree(p)) return p;
  throw new Error(`No port from ${port} to ${port + 49} is free.`);
}

/** What seals keys that are kept: made once, beside the data, for this user only. */
function secretIn(folder) {
  const file = join(folder, 'secret');
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('base64'), { mode: 0o600 });
  chmodSync(file, 0o600);
  return readFileSync(file, 'utf8').trim();
}

try {
  execFileSync(process.execPath, [join(root, 'scripts/build.mjs')], {
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  const postgres = await startPostgres(dataFolder(root, use));
  const url = await ensureDatabase(postgres, 'ursprung');
  const port = await freeFrom(FIRST_PORT);
  let stopping = false;
  let server;
  const deaths = [];
  const end = (code) => {
    postgres.stop();
    process.exit(code);
  };
  const run = () => {
    server = spawn(process.execPath, [join(root, 'server/dist/main.js')], {
      // A server whose starter is gone hears of it by this channel, and stops.
      stdio: ['inherit', 'inherit', 'inherit', 'ipc'],
      env: {
        ...process.env,
        DATABASE_URL: url,
        PORT: String(port),
        NODE_ENV: 'production',
        URSPRUNG_SECRET: process.env.URSPRUNG_SECRET ?? secretIn(dataFolder(root, use)),
        ...(use === 'demo' ? { URSPRUNG_DEMO: '1' } : {}),
      },
    });
    server.on('exit', (code) => {
      const now = Date.now();
      deaths.push(now);
      const often = deaths.filter((at) => now - at < DEATHS_WITHIN_MS).length > MOST_DEATHS;
      if (often) process.stderr.write('The server ended again and again, so it was not started once more.\n');
      if (stopping || code === 0 || often) return end(code ?? (stopping ? 0 : 1));
      process.stderr.write('The server ended by itself; it is started again.\n');
      // It may be stopped while there is none.
      setTimeout(() => (stopping ? end(0) : run()), 500);
    });
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
    process.on(signal, () => {
      stopping = true;
      server.kill('SIGTERM');
    });
  run();
} catch (error) {
  process.stderr.write(`${error.message}\n`);
  process.exit(1);
}
