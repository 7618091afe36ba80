import { reportCsv, reportHtml, type HandoffReport } from '@syndeton/core';
import type { ReportReply } from '@syndeton/contract';
import { writeArchive } from '../../archive/writeArchive.ts';
import type { Analysis } from '../../analysis/analysis.ts';
import { Refusal } from '../../http/refusal.ts';
import type { Handlers } from '../../http/router.ts';
import type { DraftService } from '../drafts/index.ts';
import type { InventoryService } from '../inventory/index.ts';
import type { SiteService } from '../sites/index.ts';
import { revisionNumber } from './revisionNumber.ts';
import type { RevisionService } from './revisionService.ts';

interface Services {
  readonly sites: SiteService;
  readonly drafts: DraftService;
  readonly revisions: RevisionService;
  readonly analysis: Analysis;
  readonly inventories: InventoryService;
}

type Names =
  | 'readSurvey'
  | 'readFamilies'
  | 'readAttributes'
  | 'readPage'
  | 'downloadArchive'
  | 'downloadPatch'
  | 'readReport'
  | 'readRecipe'
  | 'downloadReport'
  | 'compareRevisions'
  | 'listChanges'
  | 'restoreRevision'
  | 'wordRevision'
  | 'takeOutOperation';

const reportWriters = {
  html: { type: 'text/html; charset=utf-8', text: reportHtml },
  csv: { type: 'text/csv; charset=utf-8', text: reportCsv },
  json: { type: 'application/json; charset=utf-8', text: (report: HandoffReport) => JSON.stringify(report, null, 2) },
};

export function revisionHandlers({ sites, drafts, revisions, analysis, inventories }: Services): Handlers<Names> {
  return {
    async readSurvey({ params, query }) {
      return (await inventories.get(await drafts.stateAt(params, query))).survey;
    },
    async readFamilies({ params, query }) {
      return (await inventories.get(await drafts.stateAt(params, query))).families;
    },
    async readAttributes({ params, query }, { signal }) {
      const state = await drafts.stateAt(params, query);
      return analysis.run(state.siteId, 'attributes', { state }, { signal });
    },
    async readPage({ params, query }, { signal }) {
      const { path } = query;
      const state = await drafts.stateAt(params, query);
      const bands = await analysis.run(state.siteId, 'page', { state, path }, { signal });
      if (!bands)
        throw new Refusal(
          'file-not-found',
          `There is no page ${path} to read here. Ask with ?path= and a page of the site.`,
        );
      return bands;
    },
    async downloadArchive({ params: { id, number }, query: { since } }, { response }) {
      const wanted = revisionNumber(number);
      const files = await revisions.files(id, wanted, since);
      const { name } = await sites.get(id);
      const only = since === undefined ? '' : `-since-r${since}`;
      response.attachment(`${name.replace(/[^\p{L}\p{N}._-]+/gu, '-')}-r${wanted}${only}.zip`);
      response.setHeader('content-type', 'application/zip');
      writeArchive(files).pipe(response);
    },
    async downloadPatch({ params: { id, number }, query: { since = 1 } }, { response }) {
      const wanted = revisionNumber(number);
      const bytes = await revisions.patch(id, wanted, since);
      const { name } = await sites.get(id);
      response.attachment(`${name.replace(/[^\p{L}\p{N}._-]+/gu, '-')}-r${since}-to-r${wanted}.patch`);
      response.setHeader('content-type', 'text/x-patch');
      response.end(bytes);
    },
    readRecipe: ({ params: { id, number }, query: { since = 1 } }) =>
      revisions.recipe(id, revisionNumber(number), since),
    async readReport({ params: { id, number }, query: { since = 1 } }, { signal }) {
      return (await revisions.report(id, revisionNumber(number), since, signal)) as unknown as ReportReply;
    },
    async downloadReport({ params: { id, number, format }, query: { since = 1 } }, { response, signal }) {
      const write = reportWriters[format as keyof typeof reportWriters];
      if (!write) throw new Refusal('file-not-found', `A report is html, csv or json, not ${format}.`);
      const wanted = revisionNumber(number);
      const report = await revisions.report(id, wanted, since, signal);
      const { name } = await sites.get(id);
      const file = `${name.replace(/[^\p{L}\p{N}._-]+/gu, '-')}-r${since}-to-r${wanted}.${format}`;
      if (format !== 'html') response.attachment(file);
      // names and values of a site stand in it: nothing may run, nothing is fetched
      else response.setHeader('content-security-policy', "default-src 'none'; style-src 'unsafe-inline'");
      response.setHeader('content-type', write.type);
      response.end(write.text(report));
    },
    async compareRevisions({ params, query }, { signal }) {
      const state = await drafts.stateAt(params, query);
      return revisions.proof(state, query.since, query.against, signal);
    },
    async listChanges({ params: { id, number }, query: { since = 1 } }) {
      return { changes: [...(await revisions.changes(id, revisionNumber(number), since))] };
    },
    restoreRevision: ({ params, body }) => revisions.restore(params.id, revisionNumber(params.number), body),
    wordRevision: ({ params, body }) => revisions.word(params.id, revisionNumber(params.number), body),
    takeOutOperation: ({ params, body }) => revisions.without(params.id, revisionNumber(params.number), body),
  };
}
