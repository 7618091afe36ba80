import { Router } from 'express';
import { RemoveFilesBody, TakeInBody, type RemoveFilesRequest, type TakeInRequest } from '@syndeton/contract';
import { Refusal } from '../../http/refusal.ts';
import { archiveIn, uploadArchive } from '../../http/uploadArchive.ts';
import { validBody } from '../../http/validate.ts';
import type { FileService } from './fileService.ts';

export function fileRoutes(files: FileService): Router {
  const router = Router();
  router.post('/sites/:id/files', uploadArchive(), async (request, response) => {
    const { archive, base, folder } = archiveIn(request);
    if (typeof base !== 'string' || !/^[1-9]\d{0,8}$/.test(base))
      throw new Refusal('bad-request', 'The field base is missing. Send the number of the newest revision.');
    const { id } = request.params as { id: string };
    response.status(201).json(await files.add(id, Number(base), archive, typeof folder === 'string' ? folder : ''));
  });
  router.post('/sites/:id/files/remove', async (request, response) => {
    response
      .status(201)
      .json(await files.remove(request.params.id, validBody<RemoveFilesRequest>(RemoveFilesBody, request.body)));
  });
  router.post('/sites/:id/files/take', async (request, response) => {
    response
      .status(201)
      .json(await files.takeIn(request.params.id, validBody<TakeInRequest>(TakeInBody, request.body)));
  });
  return router;
}
