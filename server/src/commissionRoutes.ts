/** Addresses of orders, replies and the text service. */
import { Router, json } from 'express';
import {
  commissionInput,
  replyInput,
  roundsInput,
  textServiceInput,
  type CommissionView,
  type RoundsView,
} from './api.ts';
import type { Commissions } from './commissions.ts';
import { streamRow } from './eventStream.ts';
import { body, id } from './input.ts';
import type { Rounds } from './rounds.ts';
import type { TextServices } from './textServices.ts';

export function commissionRoutes(commissions: Commissions, rounds: Rounds, services: TextServices): Router {
  const router = Router();
  router.use(json({ limit: '2mb' }));
  router.get('/service', async (_req, res) => void res.json(await services.state()));
  router.put('/service', async (req, res) => void res.json(await services.keep(body(textServiceInput, req))));
  router.delete('/service', async (_req, res) => void res.json(await services.forget()));
  router.get('/scripts/:id/commissions', async (req, res) => {
    res.json({ commissions: await commissions.list(id(req)) });
  });
  router.post('/scripts/:id/commissions', async (req, res) => {
    res.status(201).json(await commissions.add(id(req), body(commissionInput, req)));
  });
  router.patch('/commissions/:id', async (req, res) => {
    res.json(await commissions.reply(id(req), body(replyInput, req)));
  });
  router.post('/commissions/:id/send', async (req, res) => void res.json(await commissions.send(id(req))));
  router.post('/commissions/:id/stop', async (req, res) => void res.json(await commissions.halt(id(req))));
  router.delete('/commissions/:id', async (req, res) => {
    await commissions.remove(id(req));
    res.json({ id: id(req) });
  });
  router.get('/commissions/:id/events', (req, res) =>
    streamRow<CommissionView>(
      req,
      res,
      (tell) => commissions.watch(id(req), tell),
      (c) => c.state !== 'arriving',
    ),
  );
  router.get('/scripts/:id/rounds', async (req, res) => {
    res.json({ rounds: await rounds.list(id(req)) });
  });
  router.post('/scripts/:id/rounds', async (req, res) => {
    res.status(201).json(await rounds.add(id(req), body(roundsInput, req)));
  });
  router.post('/rounds/:id/stop', async (req, res) => void res.json(await rounds.halt(id(req))));
  router.get('/rounds/:id/events', (req, res) =>
    streamRow<RoundsView>(
      req,
      res,
      (tell) => rounds.watch(id(req), tell),
      (r) => r.endedAt !== null,
    ),
  );
  return router;
}
