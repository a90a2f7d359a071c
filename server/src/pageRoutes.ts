/** Addresses of what the Page asks beside steps. */
import { Router, json } from 'express';
import { z } from 'zod';
import { LARGEST_DRAFT } from '@ursprung/core/drafts';
import type { VoicePort } from '@ursprung/standins';
import {
  channelPatch,
  figuresInput,
  grammarInput,
  nameInput,
  reviseInput,
  sourceInput,
  styleInput,
  tellingsInput,
  voiceInput,
} from './api.ts';
import { ApiError } from './errors.ts';
import { body, id } from './input.ts';
import type { PageDesk } from './page.ts';
import { Turns } from './turns.ts';

export function pageRoutes(page: PageDesk, voice: (pace: number) => VoicePort): Router {
  const router = Router();
  /** A voice is a program of its own; fifty at once would take the memory of everything else. */
  const speaking = new Turns(2);
  router.post('/clean', json({ limit: Math.ceil((LARGEST_DRAFT * 4) / 3) + 4096 }), async (req, res) => {
    const input = body(sourceInput, req);
    const bytes =
      input.text !== undefined ? new TextEncoder().encode(input.text) : Buffer.from(input.base64!, 'base64');
    res.json(await page.clean(bytes));
  });
  router.use(json({ limit: '2mb' }));
  router.post('/grammar', async (req, res) => {
    res.json({ hits: await page.grammar(body(grammarInput, req).texts) });
  });
  router.post('/voice', async (req, res) => {
    const { text, pace } = body(voiceInput, req);
    const wav = await speaking
      .take(() => voice(pace).speak(text))
      .catch((error: Error) => {
        if (error instanceof ApiError) throw error;
        throw new ApiError('internal', 'The stand-in voice can’t speak here: espeak-ng is not installed.');
      });
    res.type('audio/wav').send(Buffer.from(wav));
  });
  router.get('/scripts/:id/history', async (req, res) => void res.json(await page.history(id(req))));
  router.get('/scripts/:id/at/:version', async (req, res) => {
    const version = z.coerce.number().int().nonnegative().safeParse(req.params.version);
    if (!version.success) throw new ApiError('not-found');
    res.json(await page.at(id(req), version.data));
  });
  router.post('/scripts/:id/names', async (req, res) => {
    const { version, name } = body(nameInput, req);
    res.status(201).json(await page.name(id(req), version, name));
  });
  router.delete('/scripts/:id/names/:name', async (req, res) => {
    await page.unname(
      id(req),
      z
        .uuid()
        .catch(() => {
          throw new ApiError('not-found');
        })
        .parse(req.params.name),
    );
    res.json({ id: req.params.name });
  });
  router.post('/scripts/:id/revise', async (req, res) => {
    res.json(await page.revise(id(req), body(reviseInput, req)));
  });
  router.get('/model', async (_req, res) => void res.json({ host: await page.modelHost() }));
  router.post('/scripts/:id/ask', async (req, res) => {
    res.json(await page.ask(id(req), body(reviseInput, req)));
  });
  router.post('/scripts/:id/tellings', async (req, res) => {
    const { line, sections } = body(tellingsInput, req);
    res.json({ tellings: await page.tellings(id(req), line, sections) });
  });
  router.post('/scripts/:id/against', async (req, res) => {
    res.json({
      against: await page.against(id(req), body(figuresInput, req).sections),
    });
  });
  router.patch('/channels/:id', async (req, res) => {
    res.json(await page.changeChannel(id(req), body(channelPatch, req)));
  });
  router.post('/channels/:id/style', async (req, res) => {
    res.json(await page.style(id(req), body(styleInput, req).texts));
  });
  return router;
}
