/** Starts the whole server on loopback and stops it again. */
import type { Server } from 'node:http';
import { connect } from './db/connect.ts';
import { migrate } from './db/migrate.ts';
import { makeApp } from './app.ts';
import type { LinkSettings } from './link.ts';
import type { TextModel } from './model.ts';
import { apertium } from '@ursprung/standins';
import { Handoffs } from './handoffs.ts';
import { Commissions } from './commissions.ts';
import { Notices } from './notices.ts';
import { PageDesk } from './page.ts';
import { Rounds } from './rounds.ts';
import { Readings } from './readings.ts';
import { secretsFrom } from './secrets.ts';
import { endStreams } from './eventStream.ts';
import { findAgain, holdPresence } from './presence.ts';
import { Service } from './service.ts';
import { TextServices } from './textServices.ts';
import { startWork, type TextWork } from './work.ts';

export interface Running {
  url: string;
  service: Service;
  work: TextWork;
  /** Keeps a stand-in as the text service, unless the workspace has one of its own. */
  keepService: (standIn: { host: string; url: string; key: string }) => Promise<void>;
  stop: () => Promise<void>;
}

export interface StartOptions {
  databaseUrl: string;
  /** 0 takes any free port. */
  port: number;
  /** The built worker file, or a pool of workers that others use too; such a one is not closed here. */
  worker: URL | TextWork;
  webFolder?: string;
  log?: (line: string) => void;
  /** Hosts inside the network that may be read: the stand-in news desk. */
  links?: LinkSettings;
  /** The text service that the environment names. */
  model?: TextModel | null;
  /** Seals keys that are entered in the page; without it none is kept. */
  secret?: string;
  /** The host of the stand-in that ships, where it runs. */
  standIn?: string;
  /** Saves a minute from one page. */
  perMinute?: number;
}

export async function startServer(options: StartOptions): Promise<Running> {
  await migrate(options.databaseUrl);
  const db = connect(options.databaseUrl);
  const { worker } = options;
  const work = worker instanceof URL ? startWork(worker) : worker;
  const now = () => new Date();
  const links = options.links ?? {};
  const service = await Service.open({ db, work, now, links });
  const log = options.log ?? (() => {});
  const leave = await holdPresence(options.databaseUrl, log, findAgain);
  const readings = await Readings.start({
    databaseUrl: options.databaseUrl,
    models: service.models,
    sources: service.sources,
    workspaceId: service.workspaceId,
    links,
    now,
    log,
  });
  const standIn = options.standIn ?? null;
  const services = new TextServices({
    models: service.models,
    workspaceId: service.workspaceId,
    secrets: secretsFrom(options.secret),
    links,
    fromEnvironment: options.model ?? null,
    standIn,
    now,
  });
  const notices = await Notices.start(options.databaseUrl, 'ursprung_commission', log);
  const commissions = new Commissions({
    models: service.models,
    workspaceId: service.workspaceId,
    services,
    notices,
    standIn,
    now,
    log,
  });
  const handoffNotices = await Notices.start(options.databaseUrl, 'ursprung_handoff', log);
  const handoffs = await Handoffs.start({
    databaseUrl: options.databaseUrl,
    service,
    work,
    notices: handoffNotices,
    translator: apertium(),
    now,
    log,
  });
  const roundsNotices = await Notices.start(options.databaseUrl, 'ursprung_rounds', log);
  const rounds = await Rounds.start({
    databaseUrl: options.databaseUrl,
    service,
    work,
    commissions,
    services,
    notices: roundsNotices,
    now,
    log,
  });
  const app = makeApp({
    handoffs,
    rounds,
    service,
    readings,
    page: new PageDesk(service, work, now, services),
    commissions,
    services,
    ...(options.webFolder ? { webFolder: options.webFolder } : {}),
    ...(options.log ? { log: options.log } : {}),
    ...(options.perMinute ? { perMinute: options.perMinute } : {}),
  });
  const server = await new Promise<Server>((resolve, reject) => {
    const s: Server = app.listen(options.port, '127.0.0.1', () => resolve(s));
    // A page that rests between two saves finds its connection still open.
    s.keepAliveTimeout = 65_000;
    s.on('error', reject);
  });
  const address = server.address() as { port: number };
  return {
    url: `http://127.0.0.1:${address.port}`,
    service,
    work,
    keepService: async ({ url, key }) => {
      const { service: kept, canKeep } = await services.state();
      if (
        !canKeep ||
        kept?.from === 'environment' ||
        (kept && kept.address !== null && !isLoopback(kept.address))
      )
        return;
      await services.keep({
        address: url,
        key,
        speaks: 'chat',
        model: 'stand-in',
        priceIn: null,
        priceOut: null,
        monthlyTokens: null,
      });
    },
    stop: async () => {
      await drained(server);
      const told = rounds.stop();
      await commissions.stop();
      await told;
      await roundsNotices.stop();
      await notices.stop();
      await handoffs.stop();
      await handoffNotices.stop();
      await readings.stop();
      if (work !== worker) await work.close();
      await leave();
      await db.close();
    },
  };
}

/** How long requests that were begun may take to end, in milliseconds: a draft is finished and answered. */
const DRAIN_MS = 20_000;
async function drained(server: Server): Promise<void> {
  const closed = new Promise((resolve) => server.close(resolve));
  endStreams();
  server.closeIdleConnections();
  const late = setTimeout(() => server.closeAllConnections(), DRAIN_MS);
  await closed;
  clearTimeout(late);
}

const isLoopback = (address: string) => /^https?:\/\/127\.0\.0\.1[:/]/.test(address);
