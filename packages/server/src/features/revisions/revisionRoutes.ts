import { Router, type Request } from 'express';
import { RestoreBody, type FileTextReply, type RestoreRequest } from '@syndeton/contract';
import { makeSiteFile } from '@syndeton/core';
import type { Analysis } from '../../analysis/analysis.ts';
import { writeArchive } from '../../archive/writeArchive.ts';
import { Refusal } from '../../http/refusal.ts';
import { clientSignal } from '../../http/clientSignal.ts';
import { sendPacked } from '../../http/sendPacked.ts';
import { validBody } from '../../http/validate.ts';
import type { DraftService } from '../drafts/draftService.ts';
import type { FileReader } from '../files/fileReader.ts';
import type { InventoryService } from '../inventory/inventoryService.ts';
import type { SiteService } from '../sites/siteService.ts';
import type { RevisionService } from './revisionService.ts';

interface Services {
  readonly sites: SiteService;
  readonly drafts: DraftService;
  readonly revisions: RevisionService;
  readonly analysis: Analysis;
  readonly inventories: InventoryService;
  readonly fileIn: FileReader;
}

export function revisionRoutes({ sites, drafts, revisions, analysis, inventories, fileIn }: Services): Router {
  const router = Router();
  const base = '/sites/:id/revisions/:number';
  const stateOf = (request: Request<{ id: string; number: string }>) =>
    drafts.state(request.params.id, request.query['with'] === 'draft' ? 'draft' : `r${request.params.number}`);
  router.get(`${base}/survey`, async (request, response) => {
    sendPacked(request, response, (await inventories.get(await stateOf(request))).survey);
  });
  router.get(`${base}/families`, async (request, response) => {
    sendPacked(request, response, (await inventories.get(await stateOf(request))).families);
  });
  router.get(`${base}/attributes`, async (request, response) => {
    const state = await stateOf(request);
    const signal = clientSignal(response);
    response.json(await analysis.run(state.siteId, 'attributes', { state }, { signal }));
  });
  router.get(`${base}/page`, async (request, response) => {
    const path = typeof request.query['path'] === 'string' ? request.query['path'] : '';
    const state = await stateOf(request);
    const bands = await analysis.run(state.siteId, 'page', { state, path }, { signal: clientSignal(response) });
    if (!bands)
      throw new Refusal(
        'file-not-found',
        `There is no page ${path} to read here. Ask with ?path= and a page of the site.`,
      );
    response.json(bands);
  });
  router.get(`${base}/archive`, async (request, response) => {
    const { id } = request.params;
    const number = numberOf(request.params.number);
    const since = sinceOf(request);
    const files = await revisions.files(id, number, since);
    const { name } = await sites.get(id);
    const fileName = `${name.replace(/[^\p{L}\p{N}._-]+/gu, '-')}-r${number}${since === undefined ? '' : `-since-r${since}`}.zip`;
    response.attachment(fileName);
    response.setHeader('content-type', 'application/zip');
    writeArchive(files).pipe(response);
  });
  router.get(`${base}/changes`, async (request, response) => {
    const changes = await revisions.changes(request.params.id, numberOf(request.params.number), sinceOf(request) ?? 1);
    response.json({ changes });
  });
  router.post(`${base}/restore`, async (request, response) => {
    const body = validBody<RestoreRequest>(RestoreBody, request.body);
    response.status(201).json(await revisions.restore(request.params.id, numberOf(request.params.number), body));
  });
  router.get('/sites/:id/files/:state/*path', async (request, response) => {
    const { id, state } = request.params;
    const path = request.params.path.join('/');
    const bytes = await fileIn(id, state, path);
    const { hash, encoding = '', text = null } = makeSiteFile(path, bytes);
    response.json({ path, hash, encoding, text } satisfies FileTextReply);
  });
  return router;
}

function numberOf(text: string): number {
  if (/^[1-9]\d{0,8}$/.test(text)) return Number(text);
  throw new Refusal('revision-not-found', `${text} is no revision number. Numbers from 1 are allowed.`);
}

function sinceOf(request: Request): number | undefined {
  const { since } = request.query;
  return since === undefined ? undefined : numberOf(typeof since === 'string' ? since : '');
}
