/** Addresses of scenes, kits, translations and recordings. */
import { Router, json, type Request } from 'express';
import { fileName, writerById, writers } from '@ursprung/core/handoff';
import {
  filmInput,
  handoffInput,
  machineInput,
  translatedLineInput,
  translationInput,
  type HandoffView,
} from './api.ts';
import { ApiError } from './errors.ts';
import { streamRow } from './eventStream.ts';
import type { Handoffs } from './handoffs.ts';
import { body, id } from './input.ts';

const language = (req: Request): string | null => {
  const asked = req.query.language;
  if (asked === undefined || asked === '') return null;
  if (typeof asked !== 'string' || !/^[A-Za-z]{2,3}(?:-[A-Za-z0-9]{2,8})*$/.test(asked))
    throw new ApiError('bad-request', 'A language is named like “es” or “pt-BR”.');
  return asked;
};

export function handoffRoutes(handoffs: Handoffs): Router {
  const router = Router();
  const taken = json({ limit: '9mb' });
  router.post('/scripts/:id/film', taken, async (req, res) => {
    res.json(await handoffs.film(id(req), body(filmInput, req).sections));
  });
  router.get(
    '/scripts/:id/sheet',
    async (req, res) => void res.json(await handoffs.sheet(id(req), language(req))),
  );
  router.post('/scripts/:id/sheet', taken, async (req, res) => {
    res.json(await handoffs.sheet(id(req), language(req), body(filmInput, req).sections));
  });
  router.get('/scripts/:id/export/:format', async (req, res) => {
    const format = String(req.params.format);
    if (!writerById(format))
      throw new ApiError(
        'not-found',
        `There is no format “${format.slice(0, 20)}”. Formats: ${writers.map((w) => w.id).join(', ')}.`,
      );
    const section = typeof req.query.section === 'string' ? req.query.section.slice(0, 60) : undefined;
    const written = await handoffs.written(id(req), format, language(req), section);
    if ('refused' in written) throw new ApiError('bad-request', written.refused);
    res.type(/^text\/|json$|xml$/.test(written.mime) ? `${written.mime}; charset=utf-8` : written.mime);
    // Shown in the page as text or sent as a file: never run as anything.
    res.set('content-security-policy', "sandbox; default-src 'none'; style-src 'unsafe-inline'");
    if (req.query.show === undefined) res.attachment(written.name);
    res.send(Buffer.from(written.bytes));
  });
  router.get(
    '/scripts/:id/handoffs',
    async (req, res) => void res.json({ handoffs: await handoffs.list(id(req)) }),
  );
  router.post(
    '/scripts/:id/handoffs',
    taken,
    async (req, res) => void res.status(201).json(await handoffs.add(id(req), body(handoffInput, req))),
  );
  router.get('/handoffs/:id/events', (req, res) =>
    streamRow<HandoffView>(
      req,
      res,
      (tell) => handoffs.watch(id(req), tell),
      (h) => h.state === 'done' || h.state === 'failed',
    ),
  );
  router.get('/handoffs/:id/zip', async (req, res) => {
    const { bytes, title, who } = await handoffs.zip(id(req));
    res
      .type('application/zip')
      .attachment(fileName(`${title} ${who ?? 'kit'}`, 'zip'))
      .send(bytes);
  });
  router.get(
    '/scripts/:id/translations',
    async (req, res) => void res.json({ translations: await handoffs.translations(id(req)) }),
  );
  router.post(
    '/scripts/:id/translations',
    taken,
    async (req, res) =>
      void res.status(201).json(await handoffs.takeXliff(id(req), body(translationInput, req).xliff)),
  );
  router.post(
    '/scripts/:id/translate',
    taken,
    async (req, res) =>
      void res.status(201).json(await handoffs.translate(id(req), body(machineInput, req).language)),
  );
  router.patch('/scripts/:id/translations/:language', taken, async (req, res) => {
    const language = String(req.params.language).slice(0, 20);
    res.json(await handoffs.sayTranslated(id(req), language, body(translatedLineInput, req)));
  });
  router.delete('/scripts/:id/translations/:language', async (req, res) => {
    await handoffs.removeTranslation(id(req), String(req.params.language).slice(0, 20));
    res.json({ language: req.params.language });
  });
  return router;
}
