import { Router } from 'express';
import {
  DraftBody,
  ProposalBody,
  RedoBody,
  SaveBody,
  type DraftBodyRequest,
  type ProposalRequest,
  type RedoRequest,
  type SaveRequest,
} from '@syndeton/contract';
import { clientSignal } from '../../http/clientSignal.ts';
import { Refusal } from '../../http/refusal.ts';
import { validBody } from '../../http/validate.ts';
import type { DraftService } from './draftService.ts';

export function draftRoutes(drafts: DraftService): Router {
  const router = Router();
  router.get('/sites/:id/draft', async (request, response) => {
    response.json(await drafts.read(request.params.id));
  });
  router.put('/sites/:id/draft', async (request, response) => {
    response.json(await drafts.replace(request.params.id, validBody<DraftBodyRequest>(DraftBody, request.body)));
  });
  router.delete('/sites/:id/draft', async (request, response) => {
    const { version } = request.query;
    if (typeof version !== 'string' || !/^\d{1,9}$/.test(version))
      throw new Refusal('bad-request', 'Say which draft to drop: ?version= with the version you have seen.');
    await drafts.drop(request.params.id, Number(version));
    response.status(204).end();
  });
  router.post('/sites/:id/draft/redo', async (request, response) => {
    const { redo } = validBody<RedoRequest>(RedoBody, request.body);
    response.json(await drafts.redo(request.params.id, redo));
  });
  router.get('/sites/:id/draft/proof', async (request, response) => {
    response.json(await drafts.proof(request.params.id));
  });
  router.post('/sites/:id/proposal', async (request, response) => {
    const body = validBody<ProposalRequest>(ProposalBody, request.body);
    response.json(await drafts.propose(request.params.id, body, clientSignal(response)));
  });
  router.post('/sites/:id/revisions', async (request, response) => {
    const saved = await drafts.save(request.params.id, validBody<SaveRequest>(SaveBody, request.body));
    response.status(201).json(saved);
  });
  return router;
}
