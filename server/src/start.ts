/** Starts the whole server on loopback and stops it again. */
import type { Server } from 'node:http';
import { connect } from './db/connect.ts';
import { migrate } from './db/migrate.ts';
import { makeApp } from './app.ts';
import type { LinkSettings } from './link.ts';
import type { TextModel } from './model.ts';
import { PageDesk } from './page.ts';
import { Readings } from './readings.ts';
import { Service } from './service.ts';
import { startWork, type TextWork } from './work.ts';

export interface Running {
  url: string;
  service: Service;
  work: TextWork;
  stop: () => Promise<void>;
}

export interface StartOptions {
  databaseUrl: string;
  /** 0 takes any free port. */
  port: number;
  worker: URL;
  webFolder?: string;
  log?: (line: string) => void;
  /** Hosts inside the network that may be read: the stand-in news desk. */
  links?: LinkSettings;
  /** A text service for what our own operations can't do. */
  model?: TextModel | null;
}

export async function startServer(options: StartOptions): Promise<Running> {
  const db = connect(options.databaseUrl);
  await migrate(db);
  const work = startWork(options.worker);
  const now = () => new Date();
  const links = options.links ?? {};
  const service = await Service.open({ db, work, now, links });
  const readings = await Readings.start({
    databaseUrl: options.databaseUrl,
    models: service.models,
    sources: service.sources,
    workspaceId: service.workspaceId,
    links,
    now,
    log: options.log ?? (() => {}),
  });
  const app = makeApp({
    service,
    readings,
    page: new PageDesk(service, work, now, options.model ?? null),
    ...(options.webFolder ? { webFolder: options.webFolder } : {}),
    ...(options.log ? { log: options.log } : {}),
  });
  const server = await new Promise<Server>((resolve, reject) => {
    const s: Server = app.listen(options.port, '127.0.0.1', () => resolve(s));
    s.on('error', reject);
  });
  const address = server.address() as { port: number };
  return {
    url: `http://127.0.0.1:${address.port}`,
    service,
    work,
    stop: async () => {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await readings.stop();
      await work.close();
      await db.close();
    },
  };
}
