import { Router } from 'express';
import {
  DraftBody,
  ProposalBody,
  SaveBody,
  type DraftBodyRequest,
  type ProposalRequest,
  type SaveRequest,
} from '@syndeton/contract';
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
    await drafts.drop(request.params.id);
    response.status(204).end();
  });
  router.get('/sites/:id/draft/proof', async (request, response) => {
    response.json(await drafts.proof(request.params.id));
  });
  router.post('/sites/:id/proposal', async (request, response) => {
    response.json(await drafts.propose(request.params.id, validBody<ProposalRequest>(ProposalBody, request.body)));
  });
  router.post('/sites/:id/revisions', async (request, response) => {
    const saved = await drafts.save(request.params.id, validBody<SaveRequest>(SaveBody, request.body));
    response.status(201).json(saved);
  });
  return router;
}
