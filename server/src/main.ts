/** The built server: DATABASE_URL, PORT and URSPRUNG_DEMO from the environment. Prints its address when it serves. */
import { fileURLToPath } from 'node:url';
import { loadDemo } from '@ursprung/demo';
import { startServer } from './start.ts';

const { DATABASE_URL, PORT, URSPRUNG_DEMO } = process.env;
if (!DATABASE_URL) {
  process.stderr.write('DATABASE_URL says where PostgreSQL is. bin/start and bin/demo set it.\n');
  process.exit(1);
}
const here = (path: string) => new URL(path, import.meta.url);
const running = await startServer({
  databaseUrl: DATABASE_URL,
  port: Number(PORT ?? 4400),
  worker: here('./worker.js'),
  webFolder: fileURLToPath(here('../../web/dist')),
  log: (line) => process.stderr.write(`${line}\n`),
});
if (URSPRUNG_DEMO === '1') await loadDemo(running.service);
process.stdout.write(`Ursprung is at ${running.url}\n`);

let stopping = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    if (stopping) return;
    stopping = true;
    void running.stop().then(() => process.exit(0));
  });
