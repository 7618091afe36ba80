import { Router } from 'express';
import multer from 'multer';
import { limits } from '../../archive/limits.ts';
import { Refusal } from '../../http/refusal.ts';
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
  const upload = multer({
    storage: multer.memoryStorage(),
    limits: { fileSize: limits.bytes, files: 1, fields: 10, fieldSize: 2000 },
  });
  router.get('/sites', async (_request, response) => {
    response.json({ sites: await sites.list() });
  });
  router.post('/sites', upload.single('archive'), async (request, response) => {
    if (!request.file)
      throw new Refusal(
        'bad-request',
        'There is no archive in the request. Send one zip as "archive" in multipart/form-data.',
      );
    const { name } = (request.body ?? {}) as { name?: string };
    const created = await sites.bringIn(request.file.buffer, name);
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
  return router;
}
