/** The Express application: who may write, what each address answers, errors as JSON. */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import expressStaticGzip from 'express-static-gzip';
import express, { type NextFunction, type Request, type Response } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import helmet from 'helmet';
import { z } from 'zod';
import { espeak, type VoicePort } from '@ursprung/standins';
import {
  carriesInput,
  channelInput,
  deriveInput,
  libraryQuery,
  promiseQuery,
  redoInput,
  scriptInput,
  scriptSourceInput,
  settingsPatch,
  stepsInput,
} from './api.ts';
import { roomOn } from './db/room.ts';
import { ApiError, ERRORS, type ErrorCode } from './errors.ts';
import { body, id } from './input.ts';
import { sendJson } from './json.ts';
import { handoffRoutes } from './handoffRoutes.ts';
import type { Handoffs } from './handoffs.ts';
import { commissionRoutes } from './commissionRoutes.ts';
import type { Commissions } from './commissions.ts';
import type { Rounds } from './rounds.ts';
import type { PageDesk } from './page.ts';
import { pageRoutes } from './pageRoutes.ts';
import type { Readings } from './readings.ts';
import type { Service } from './service.ts';
import type { TextServices } from './textServices.ts';
import { askedBy } from './turns.ts';
import { comparing, readingRoutes, sourceRoutes } from './sourceRoutes.ts';

export interface AppOptions {
  service: Service;
  readings: Readings;
  page: PageDesk;
  commissions: Commissions;
  rounds: Rounds;
  services: TextServices;
  handoffs: Handoffs;
  /** Who reads aloud at a pace, in words a minute. */
  voice?: (pace: number) => VoicePort;
  /** The built page; left out in API tests. */
  webFolder?: string;
  log?: (line: string) => void;
  /** Saves a minute from one page; twice as many reads, half as much of what takes work. */
  perMinute?: number;
}

/** Only this server's own page asks; writes come as JSON: Host, Origin and Sec-Fetch-Site are checked before anything is counted. */
function ownOrigin(req: Request, _res: Response, next: NextFunction): void {
  const host = req.headers.host ?? '';
  if (!/^(?:127\.0\.0\.1|localhost|\[::1\])(?::\d+)?$/.test(host)) throw new ApiError('other-origin');
  const origin = req.headers.origin;
  const site = req.headers['sec-fetch-site'];
  if (req.method === 'GET' || req.method === 'HEAD') {
    // "none": somebody typed the address.
    if (site !== undefined && site !== 'same-origin' && site !== 'none') throw new ApiError('other-origin');
    return next();
  }
  if (origin !== undefined && origin !== `http://${host}`) throw new ApiError('other-origin');
  if (site !== undefined && site !== 'same-origin') throw new ApiError('other-origin');
  if (origin === undefined && site === undefined && req.headers['x-requested-with'] !== 'ursprung')
    throw new ApiError('other-origin');
  if (!req.is('application/json')) throw new ApiError('not-json');
  next();
}

/** Which page asks: by the name it goes by, else by its address. */
const pageOf = (req: Request): string => {
  const name = req.headers['x-page'];
  return typeof name === 'string' && /^[\w-]{1,60}$/.test(name) ? name : ipKeyGenerator(req.ip ?? '');
};
const isSave = (req: Request) =>
  req.method === 'PATCH' || (req.method === 'POST' && /^\/scripts\/[^/]+\/steps$/.test(req.path));
const isRead = (req: Request) => req.method === 'GET' || req.method === 'HEAD';

/** Limits a minute, apart for saves, for reads and for all that takes work, so that none of them uses up another's. */
function limits(perMinute: number) {
  const limit = (most: number, counts: (req: Request) => boolean) =>
    rateLimit({
      windowMs: 60_000,
      limit: most,
      standardHeaders: true,
      legacyHeaders: false,
      keyGenerator: pageOf,
      skip: (req) => !counts(req),
      handler: () => {
        throw new ApiError('too-many');
      },
    });
  return [
    limit(perMinute, isSave),
    limit(perMinute * 2, isRead),
    limit(Math.ceil(perMinute / 2), (req) => !isSave(req) && !isRead(req)),
  ];
}

export function makeApp({
  service,
  readings,
  page,
  commissions,
  rounds,
  services,
  handoffs,
  voice = (pace) => espeak('en-gb', Math.round(pace)),
  webFolder,
  log = () => {},
  perMinute = 1200,
}: AppOptions) {
  const app = express();
  app.disable('x-powered-by');
  // Answers are never kept, so nothing has to be told from what was kept.
  app.disable('etag');
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          fontSrc: ["'self'"],
          imgSrc: ["'self'", 'data:'],
          mediaSrc: ["'self'", 'blob:'],
          workerSrc: ["'self'"],
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use('/api', ownOrigin, ...limits(perMinute), (req, res, next) => {
    // Answers hold people's words: no cache on the way keeps them.
    res.set('cache-control', 'no-store');
    askedBy.run(pageOf(req), next);
  });
  app.use(
    '/api/sources',
    sourceRoutes(service.sources, (query) => service.found(query)),
  );
  app.use('/api/readings', readingRoutes(readings));
  app.use('/api', handoffRoutes(handoffs));
  app.use('/api', pageRoutes(page, voice));
  app.use('/api', commissionRoutes(commissions, rounds, services));
  app.use('/api', express.json({ limit: '2mb' }));

  // With "?deep" a worker has to answer too: whoever waits for a start need not wait for that.
  const hasRoom = roomOn(service.db);
  app.get('/api/health', async (req, res) => {
    const [database, room, workers] = await Promise.all([
      answers(service.db.query('SELECT 1')),
      answers(hasRoom()),
      req.query.deep === undefined ? true : answers(service.work.ping()),
    ]);
    const ok = database && room && workers;
    res.status(ok ? 200 : 503).json({ ok, app: 'ursprung', database, room, workers });
  });
  app.get('/api/library', async (req, res) => {
    const query = libraryQuery.safeParse(req.query);
    if (!query.success) throw new ApiError('bad-request', query.error.issues[0].message);
    await sendJson(res, await service.library(query.data));
  });
  app.get('/api/channels', async (_req, res) => res.json({ channels: await service.channels() }));
  app.post(
    '/api/channels',
    async (req, res) => void res.status(201).json(await service.addChannel(body(channelInput, req))),
  );
  app.post('/api/compare', async (req, res) => sendJson(res, await comparing(service.sources)(req)));
  app.post('/api/carries', async (req, res) => {
    res.json(await service.carries(body(carriesInput, req)));
  });
  app.post('/api/promise', async (req, res) => {
    res.json(await service.promise(body(promiseQuery, req)));
  });
  app.post('/api/scripts/:id/redo', async (req, res) => {
    res.json(await service.redo(id(req), body(redoInput, req)));
  });
  app.post('/api/scripts/:id/derive', async (req, res) => {
    res.status(201).json(await service.derive(id(req), body(deriveInput, req)));
  });
  app.post(
    '/api/scripts',
    async (req, res) => void res.status(201).json(await service.addScript(body(scriptInput, req))),
  );
  app.post('/api/scripts/:id/sources', async (req, res) =>
    sendJson(res, await service.addSourceTo(id(req), body(scriptSourceInput, req).sourceId)),
  );
  app.get('/api/scripts/:id', async (req, res) => sendJson(res, await service.script(id(req))));
  app.patch(
    '/api/scripts/:id',
    async (req, res) => void res.json(await service.patchSettings(id(req), body(settingsPatch, req))),
  );
  app.delete('/api/scripts/:id', async (req, res) => {
    await service.remove(id(req));
    res.json({ id: id(req) });
  });
  app.post('/api/scripts/:id/restore', async (req, res) => {
    await service.restore(id(req));
    res.json({ id: id(req) });
  });
  app.post(
    '/api/scripts/:id/steps',
    async (req, res) => void res.json(await service.appendSteps(id(req), body(stepsInput, req))),
  );
  app.get('/api/scripts/:id/steps', async (req, res) => {
    const since = z.coerce.number().int().nonnegative().safeParse(req.query.since);
    if (!since.success) throw new ApiError('bad-request');
    res.json(await service.steps(id(req), since.data));
  });
  app.use('/api', () => {
    throw new ApiError('not-found');
  });

  if (webFolder && existsSync(webFolder)) {
    app.use(
      '/assets',
      expressStaticGzip(join(webFolder, 'assets'), {
        enableBrotli: true,
        orderPreference: ['br', 'gz'],
        serveStatic: { immutable: true, maxAge: '365d', fallthrough: false },
      }),
    );
    app.use(express.static(webFolder, { index: false }));
    app.get(/^\/(?!api\/).*/, (_req, res) => res.sendFile(join(webFolder, 'index.html')));
  }

  app.use((error: unknown, req: Request, res: Response, next: NextFunction) => {
    if (res.headersSent) return next(error);
    const { code, message, extra } = described(error, log, `${req.method} ${req.path}`);
    const { field, ...rest } = extra as { field?: string };
    // Whatever the answer was going to be.
    res.type('json');
    res.status(ERRORS[code].status).json({ error: { code, message, ...(field ? { field } : {}) }, ...rest });
  });
  return app;
}

/** How long a part of the server may take to say that it is there and well, in milliseconds. */
const ANSWERS_WITHIN_MS = 5000;
const answers = (asked: Promise<unknown>): Promise<boolean> => {
  let timer: NodeJS.Timeout;
  const late = new Promise<false>((resolve) => {
    timer = setTimeout(() => resolve(false), ANSWERS_WITHIN_MS);
  });
  const answered = asked.then(
    (well) => well !== false,
    () => false,
  );
  return Promise.race([answered, late]).finally(() => clearTimeout(timer));
};

/** What went wrong with the database, by Sequelize's names and PostgreSQL's codes (appendix A of its manual). */
function ofDatabase(error: unknown): 'away' | 'busy' | 'full' | null {
  const { name = '', original } = error as { name?: string; original?: { code?: string } };
  if (original?.code === '53100') return 'full';
  // Cancelled by a time limit, no lock within one, two that wait for one another.
  if (['57014', '55P03', '40P01'].includes(original?.code ?? '')) return 'busy';
  return name.startsWith('SequelizeConnection') || /^(?:57P|08|53)/.test(original?.code ?? '')
    ? 'away'
    : null;
}

function described(
  error: unknown,
  log: (line: string) => void,
  where: string,
): { code: ErrorCode; message: string; extra: Record<string, unknown> } {
  if (error instanceof ApiError) return error;
  const type = (error as { type?: string }).type;
  if (type === 'entity.too.large') return new ApiError('too-large');
  if (type === 'entity.parse.failed' || type === 'encoding.unsupported' || type === 'charset.unsupported')
    return new ApiError('bad-request');
  // What Express itself refuses, such as an address that isn't well written, and a body that does not unpack.
  const { status = 500, code: named = '' } = error as { status?: number; code?: string };
  if (status === 404) return new ApiError('not-found');
  if ((status >= 400 && status < 500) || named.startsWith('Z_')) return new ApiError('bad-request');
  const database = ofDatabase(error);
  if (database) {
    log(`${where}: ${(error as Error).name}: ${(error as Error).message}`);
    return new ApiError(database);
  }
  log(`${where}: ${(error as Error).stack ?? String(error)}`);
  return new ApiError('internal');
}
