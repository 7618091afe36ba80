import type { Logger } from 'pino';
import type { Sequelize } from 'sequelize';
import type { Signals } from './db/signals.ts';
import type { Analysis } from './analysis/analysis.ts';
import { Turns } from './archive/turns.ts';
import { makeDraftService } from './features/drafts/index.ts';
import type { Blobs } from './stores/blobs.ts';
import { makeSequelizeDraftStore } from './stores/sequelizeDraftStore.ts';
import { makeFileReader } from './features/files/index.ts';
import { makeFileChanges, makeFileService, makeOutsideService } from './features/files/index.ts';
import { makeImportJob, makeImportService } from './features/imports/index.ts';
import { makeSequelizeImportStore } from './stores/sequelizeImportStore.ts';
import { makeInventoryService } from './features/inventory/index.ts';
import { makeRevisionService } from './features/revisions/index.ts';
import { makeSequelizeRevisionStore } from './stores/sequelizeRevisionStore.ts';
import { makeSequelizeSiteStore } from './stores/sequelizeSiteStore.ts';
import { makePeopleService } from './features/people/index.ts';
import { makeSequelizePeopleStore } from './stores/sequelizePeopleStore.ts';
import { makeUploadService } from './features/upload/index.ts';
import { makeSiteService } from './features/sites/index.ts';

/** Each holds 200 MB at most while it is read. */
export const archivesAtOnce = 2;
const mostWaiting = 50;

export type Services = ReturnType<typeof makeServices>;

export interface ServiceParts {
  readonly sequelize: Sequelize;
  readonly blobs: Blobs;
  readonly analysis: Analysis;
  readonly signals: Signals;
  readonly log: Logger;
}

/** The services of the application, each made of the stores and services it needs. */
export function makeServices({ sequelize, blobs, analysis, signals, log }: ServiceParts) {
  const store = makeSequelizeSiteStore(sequelize, blobs);
  const revisionStore = makeSequelizeRevisionStore(sequelize, blobs);
  const inventories = makeInventoryService({ revisions: revisionStore, analysis });
  const turns = new Turns(archivesAtOnce, mostWaiting);
  const sites = makeSiteService({ store, revisions: revisionStore, analysis, turns });
  const parts = { sites, drafts: makeSequelizeDraftStore(sequelize), revisions: revisionStore, analysis };
  const importStore = makeSequelizeImportStore(sequelize, signals);
  const warn = (error: unknown): void => log.error(error, 'an import failed');
  const fileChanges = makeFileChanges(parts);
  const drafts = makeDraftService({ ...parts, inventories, signals });
  const ofRevisions = makeRevisionService(parts);
  return {
    sites,
    people: makePeopleService(makeSequelizePeopleStore(sequelize)),
    inventories,
    drafts,
    imports: makeImportService(importStore, warn),
    importJob: makeImportJob({ store: importStore, sites, warn }),
    revisions: ofRevisions,
    uploads: makeUploadService({ sites, revisions: ofRevisions, store: revisionStore }),
    files: makeFileService(fileChanges, { revisions: revisionStore, turns }),
    outside: makeOutsideService(fileChanges, { sites, revisions: revisionStore, turns }),
    fileIn: makeFileReader({ drafts, revisions: revisionStore }),
  };
}
