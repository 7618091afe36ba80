import { Router } from 'express';
import { RenameBody, type RenameRequest } from '@syndeton/contract';
import { archiveIn, uploadArchive } from '../../http/uploadArchive.ts';
import { validBody } from '../../http/validate.ts';
import type { DemoReader } from '../demo/readDemo.ts';
import type { SiteService } from './siteService.ts';

export function siteRoutes({
  sites,
  readDemo,
}: {
  readonly sites: SiteService;
  readonly readDemo: DemoReader;
}): Router {
  const router = Router();
  router.get('/sites', async (_request, response) => {
    response.json({ sites: await sites.list() });
  });
  router.post('/sites', uploadArchive(), async (request, response) => {
    const { archive, name } = archiveIn(request);
    const created = await sites.bringIn(archive, name);
    response.status(201).location(`/api/sites/${created.id}`).json(created);
  });
  router.post('/sites/demo', async (_request, response) => {
    const created = await sites.bringInFiles(await readDemo(), 'Brindle Sound Ferry');
    response.status(201).location(`/api/sites/${created.id}`).json(created);
  });
  router.get('/sites/:id', async (request, response) => {
    response.json(await sites.detail(request.params.id));
  });
  router.delete('/sites/:id', async (request, response) => {
    await sites.remove(request.params.id);
    response.status(204).end();
  });
  router.patch('/sites/:id', async (request, response) => {
    const { name } = validBody<RenameRequest>(RenameBody, request.body);
    await sites.rename(request.params.id, name);
    response.status(204).end();
  });
  router.post('/sites/:id/restore', async (request, response) => {
    await sites.restore(request.params.id);
    response.status(204).end();
  });
  return router;
}
