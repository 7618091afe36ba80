import { Router } from 'express';
import { archiveIn, uploadArchive } from '../../http/uploadArchive.ts';
import type { ImportService } from './importService.ts';

export function importRoutes(imports: ImportService): Router {
  const router = Router();
  router.get('/imports', (_request, response) => {
    response.json({ imports: imports.list() });
  });
  router.post('/imports', uploadArchive(), (request, response) => {
    const { archive, name } = archiveIn(request);
    const started = imports.start(archive, name);
    response.status(202).location(`/api/imports/${started.id}`).json(started);
  });
  router.get('/imports/:id', (request, response) => {
    response.json(imports.get(request.params.id));
  });
  router.delete('/imports/:id', (request, response) => {
    imports.stop(request.params.id);
    response.status(204).end();
  });
  return router;
}
