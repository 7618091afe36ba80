import { Router, type Request } from 'express';
import { NoteBody, type NoteRequest } from '@syndeton/contract';
import type { Environment } from '@syndeton/core';
import type { Analysis } from '../../analysis/analysis.ts';
import { clientSignal } from '../../http/clientSignal.ts';
import { Refusal } from '../../http/refusal.ts';
import { validBody } from '../../http/validate.ts';
import type { DraftService } from '../drafts/draftService.ts';
import type { SiteService } from '../sites/siteService.ts';

interface Services {
  readonly sites: SiteService;
  readonly drafts: DraftService;
  readonly analysis: Analysis;
}

/** Who wins: for one element, for a property over all pages, and where pages beat shared sheets. */
export function precedenceRoutes({ sites, drafts, analysis }: Services): Router {
  const router = Router();
  const base = '/sites/:id/revisions/:number';
  const stateOf = (request: Request<{ id: string; number: string }>) =>
    drafts.state(request.params.id, request.query['with'] === 'draft' ? 'draft' : `r${request.params.number}`);
  router.get(`${base}/element`, async (request, response) => {
    const [page, element] = [textOf(request, 'path'), textOf(request, 'element')];
    const query = {
      page,
      element,
      pseudoElement: textOf(request, 'pseudo'),
      environment: environmentOf(request),
      forced: listOf(request, 'state'),
      peeled: listOf(request, 'peel'),
    };
    const state = await stateOf(request);
    const table = await analysis.run(state.siteId, 'element', { state, query }, { signal: clientSignal(response) });
    if (!table)
      throw new Refusal(
        'file-not-found',
        `There is no element ${element} on a page ${page}. Ask with ?path= and ?element=, such as html>body:nth-child(2).`,
      );
    response.json(table);
  });
  router.get(`${base}/question`, async (request, response) => {
    const question = {
      selector: textOf(request, 'selector'),
      property: textOf(request, 'property'),
      environment: environmentOf(request),
    };
    const state = await stateOf(request);
    const signal = clientSignal(response);
    response.json(await analysis.run(state.siteId, 'question', { state, question }, { signal }));
  });
  router.get(`${base}/overrides`, async (request, response) => {
    const state = await stateOf(request);
    const environment = environmentOf(request);
    const signal = clientSignal(response);
    const found = await analysis.run(state.siteId, 'overrides', { state, environment }, { signal });
    const { notes } = await sites.get(request.params.id);
    const overrides = found.overrides.map((one) => ({ ...one, note: notes[one.id] ?? null }));
    response.json({ ...found, overrides });
  });
  router.get(`${base}/value`, async (request, response) => {
    const value = textOf(request, 'value').trim();
    if (value === '') throw new Refusal('bad-request', 'Ask with ?value=, such as #0b5563, Georgia or 1.5em.');
    const state = await stateOf(request);
    response.json(await analysis.run(state.siteId, 'value', { state, value }, { signal: clientSignal(response) }));
  });
  router.put('/sites/:id/notes', async (request, response) => {
    const { override, note } = validBody<NoteRequest>(NoteBody, request.body);
    await sites.note(request.params.id, override, note.trim());
    response.status(204).end();
  });
  return router;
}

function textOf(request: Request, name: string): string {
  const value = request.query[name];
  return typeof value === 'string' ? value : '';
}

function listOf(request: Request, name: string): readonly string[] {
  const value = request.query[name];
  const list = Array.isArray(value) ? value : value === undefined ? [] : [value];
  return list.filter((one): one is string => typeof one === 'string' && one !== '');
}

function environmentOf(request: Request): Environment {
  const medium = textOf(request, 'medium') || 'screen';
  if (medium !== 'screen' && medium !== 'print')
    throw new Refusal('bad-request', `There is no medium ${medium} here. Allowed: screen, print.`);
  const width = Number(textOf(request, 'width') || 1280);
  if (!Number.isInteger(width) || width < 1 || width > 100_000)
    throw new Refusal(
      'bad-request',
      `${textOf(request, 'width')} is no width. Whole CSS pixels from 1 to 100000 are allowed.`,
    );
  return { medium, width, height: 800 };
}
