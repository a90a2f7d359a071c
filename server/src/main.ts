/** The built server: DATABASE_URL, PORT, URSPRUNG_DEMO and URSPRUNG_READ_INSIDE (hosts inside the network that may be read, "host:port,…") from the environment; a text service by URSPRUNG_MODEL_URL, _KEY and _NAME, or entered in the page and kept under URSPRUNG_SECRET. Prints its address when it serves. */
import { fileURLToPath } from 'node:url';
import { loadDemo } from '@ursprung/demo';
import { startNewsDesk, startTextService } from '@ursprung/standins';
import { modelFrom } from './model.ts';
import { startServer } from './start.ts';

const { DATABASE_URL, PORT, URSPRUNG_DEMO, URSPRUNG_READ_INSIDE, URSPRUNG_SECRET } = process.env;
if (!DATABASE_URL) {
  process.stderr.write('DATABASE_URL says where PostgreSQL is. bin/start and bin/demo set it.\n');
  process.exit(1);
}
// The demo brings a news desk of its own, so that links can be tried without a network.
const desk = URSPRUNG_DEMO === '1' ? await startNewsDesk() : null;
const writer = URSPRUNG_DEMO === '1' ? await startTextService({ paceMs: 40 }) : null;
const inside = [
  ...(URSPRUNG_READ_INSIDE?.split(',') ?? []),
  ...(desk ? [desk.host] : []),
  ...(writer ? [writer.host] : []),
];
/** A line of the log says when. */
const log = (line: string) => process.stderr.write(`${new Date().toISOString()} ${line}\n`);
const here = (path: string) => new URL(path, import.meta.url);
const running = await startServer({
  databaseUrl: DATABASE_URL,
  port: Number(PORT ?? 4400),
  worker: here('./worker.js'),
  webFolder: fileURLToPath(here('../../web/dist')),
  log,
  model: modelFrom(process.env),
  ...(URSPRUNG_SECRET ? { secret: URSPRUNG_SECRET } : {}),
  ...(writer ? { standIn: writer.host } : {}),
  links: { allow: inside.map((h) => h.trim()).filter(Boolean) },
});
if (desk) await loadDemo(running.service, true);
// The stand-in writer is kept like any service that a person enters; a restart gives it another port.
if (writer) await running.keepService(writer);
process.stdout.write(`Ursprung is at ${running.url}\n`);
if (desk) process.stdout.write(`Reports to try as links: ${desk.url}/weir and ${desk.url}/weir-later\n`);

// What nobody waited for must not take the pages of everybody with it.
process.on('unhandledRejection', (error) => {
  log(error instanceof Error ? (error.stack ?? error.message) : String(error));
});

let stopping = false;
const stop = () => {
  if (stopping) return;
  stopping = true;
  running.stop().then(
    () => process.exit(0),
    (error: Error) => {
      log(error.message);
      process.exit(1);
    },
  );
};
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, stop);
// Whoever started it is gone: it is not left behind.
process.on('disconnect', stop);
