/** Addresses of sources and of readings, thin over their services. */
import { Router, json, type Request } from 'express';
import { z } from 'zod';
import { CITATION_FORMATS, type CitationFormat } from '@ursprung/core/cite';
import { fileName } from '@ursprung/core/handoff';
import { LARGEST_FILE, LARGEST_SOURCE } from '@ursprung/core/source';
import {
  readingInput,
  sourceInput,
  sourcePatch,
  sourceSearch,
  type FoundSource,
  type Reading,
} from './api.ts';
import { ApiError } from './errors.ts';
import { streamRow } from './eventStream.ts';
import { body, id } from './input.ts';
import { sendJson } from './json.ts';
import type { Readings } from './readings.ts';
import type { Sources } from './sources.ts';

/** A file comes as base64: four characters for three bytes, and a little around it. */
const asBase64 = (bytes: number) => Math.ceil((bytes * 4) / 3) + 4096;
const EXTENSION: Readonly<Record<string, string>> = { html: 'html', markdown: 'md', pdf: 'pdf', docx: 'docx', odt: 'odt', epub: 'epub', mail: 'eml', captions: 'srt', jats: 'xml', feed: 'xml', ris: 'ris', bibtex: 'bib', 'csl-json': 'json' }; // prettier-ignore

export function sourceRoutes(
  sources: Sources,
  found: (query: z.infer<typeof sourceSearch>) => Promise<FoundSource[]>,
): Router {
  const router = Router();
  router.use(json({ limit: asBase64(LARGEST_SOURCE) }));
  router.get('/', async (req, res) => {
    const query = sourceSearch.safeParse(req.query);
    if (!query.success) throw new ApiError('bad-request', query.error.issues[0].message);
    res.json({ sources: await found(query.data) });
  });
  router.get('/names', async (_req, res) => sendJson(res, { sources: await sources.names() }));
  router.post('/', async (req, res) => {
    const input = body(sourceInput, req);
    const bytes =
      input.text !== undefined ? new TextEncoder().encode(input.text) : Buffer.from(input.base64!, 'base64');
    const made = await sources.add(bytes, input.kind ? { kind: input.kind } : {});
    sendJson(res, await sources.one(made), 201);
  });
  router.get('/:id', async (req, res) => sendJson(res, await sources.one(id(req))));
  router.patch('/:id', async (req, res) =>
    sendJson(res, await sources.change(id(req), body(sourcePatch, req))),
  );
  router.delete('/:id', async (req, res) => {
    await sources.remove(id(req));
    res.json({ id: id(req) });
  });
  router.post('/:id/restore', async (req, res) => {
    await sources.restore(id(req));
    res.json({ id: id(req) });
  });
  router.post('/:id/reread', async (req, res) => void res.json(await sources.reread(id(req))));
  router.get(
    '/:id/renewal',
    async (req, res) => void res.json(await sources.renew(id(req), { preview: true })),
  );
  router.post('/:id/renewal', async (req, res) => {
    const { lost, moved } = await sources.renew(id(req));
    sendJson(res, { source: await sources.one(id(req)), lost, moved });
  });
  router.get('/:id/cite/:format', async (req, res) => {
    const format = CITATION_FORMATS.find((f) => f === req.params.format);
    if (!format) throw new ApiError('not-found', `Citations come as ${CITATION_FORMATS.join(', ')}.`);
    res.type('text/plain; charset=utf-8').send(await sources.cite(id(req), format satisfies CitationFormat));
  });
  router.get('/:id/original', async (req, res) => {
    const { bytes, document } = await sources.original(id(req));
    // Never shown, only kept: what came from outside must not run as a page of ours.
    res
      .attachment(fileName(document.title, EXTENSION[document.format] ?? 'txt'))
      .type('application/octet-stream')
      .send(bytes);
  });
  return router;
}

export function readingRoutes(readings: Readings): Router {
  const router = Router();
  router.use(json({ limit: asBase64(LARGEST_FILE) }));
  router.post(
    '/',
    async (req, res) => void res.status(202).json(await readings.add(body(readingInput, req))),
  );
  router.get('/:id', async (req, res) => void res.json(await readings.one(id(req))));
  router.post('/:id/stop', async (req, res) => void res.json(await readings.cancel(id(req))));
  router.get('/:id/events', (req, res) =>
    streamRow<Reading>(
      req,
      res,
      (tell) => readings.watch(id(req), tell),
      (r) => r.state !== 'waiting' && r.state !== 'reading',
    ),
  );
  return router;
}

/** Sources beside one another, from a list of letters and ids. */
export const compareInput = z.object({
  sources: z
    .array(z.object({ letter: z.string().max(4), id: z.uuid() }))
    .min(2)
    .max(12),
});
export const comparing = (sources: Sources) => async (req: Request) =>
  sources.compare(body(compareInput, req).sources);
