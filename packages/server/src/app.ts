import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { Sequelize } from 'sequelize';
import { openApiDocument } from '@syndeton/contract';
import type { Analysis } from './analysis/analysis.ts';
import { makeDemoReader } from './features/demo/index.ts';
import { draftHandlers } from './features/drafts/index.ts';
import { fileHandlers } from './features/files/index.ts';
import { importHandlers } from './features/imports/index.ts';
import { precedenceHandlers } from './features/precedence/index.ts';
import { makeAdmission, openDoor, passwordLimits, peopleHandlers } from './features/people/index.ts';
import { leadBackToPreview, previewRoutes } from './features/preview/index.ts';
import { uploadHandlers } from './features/upload/index.ts';
import { revisionHandlers } from './features/revisions/index.ts';
import { sheetHandlers } from './features/sheets/index.ts';
import { siteHandlers } from './features/sites/index.ts';
import { handleErrors } from './http/errors.ts';
import { guardOrigin } from './http/guards.ts';
import { Refusal } from './http/refusal.ts';
import { makeRouter } from './http/router.ts';
import type { Services } from './services.ts';

export interface AppParts {
  readonly sequelize: Sequelize;
  readonly analysis: Analysis;
  readonly services: Services;
  readonly log: Logger;
  readonly demoFolder: string;
  /** Where the built interface lies; absent in tests of the API. */
  readonly webFolder?: string;
  readonly allowedHosts: readonly string[];
  /** People sign in, and do what they have a right to. */
  readonly accounts?: boolean;
  /** It is opened by https, from a proxy before it. */
  readonly secure?: boolean;
  /** Counts requests for who watches over it. */
  readonly count?: RequestHandler | undefined;
}

export const { version } = JSON.parse(fs.readFileSync(new URL('../package.json', import.meta.url), 'utf8')) as {
  version: string;
};

export function createApp({
  sequelize,
  analysis,
  services,
  log,
  demoFolder,
  webFolder,
  allowedHosts,
  accounts = false,
  secure = false,
  count,
}: AppParts): Express {
  const { people } = services;
  const admission = accounts ? makeAdmission(people) : openDoor;
  const { sites, uploads, inventories, drafts, revisions, files, outside, fileIn, imports } = services;
  const app = express();
  app.disable('x-powered-by');
  // of the address a proxy says only what it says itself counts
  if (secure) app.set('trust proxy', 1);
  if (count) app.use(count);
  app.use(
    pinoHttp({
      logger: log,
      genReqId: (_request, response) => {
        const id = randomUUID();
        response.setHeader('x-request-id', id);
        return id;
      },
      customLogLevel: (_request, response) => (response.statusCode >= 500 ? 'error' : 'info'),
      // no headers: what stands for people stays out of it
      serializers: {
        req: ({ id, method, url }: { id: string; method: string; url: string }) => ({ id, method, url }),
        res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
      },
    }),
  );
  app.use(guardOrigin(new Set(allowedHosts)));
  app.use(leadBackToPreview);
  app.use(
    helmet({
      strictTransportSecurity: secure,
      contentSecurityPolicy: {
        directives: {
          upgradeInsecureRequests: null,
          styleSrc: ["'self'", "'unsafe-inline'"],
          workerSrc: ["'self'", 'blob:'],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'"],
        },
      },
    }),
  );
  app.use(compression());
  app.get('/api/openapi.json', (_request, response) => {
    response.json(openApiDocument(version));
  });
  app.use(
    makeRouter(
      {
        async health() {
          await sequelize.query('SELECT 1');
          return { ok: true, version };
        },
        ...siteHandlers(sites, makeDemoReader(demoFolder)),
        ...importHandlers(imports),
        ...fileHandlers(files, outside, fileIn),
        ...draftHandlers(drafts),
        ...revisionHandlers({ sites, drafts, revisions, analysis, inventories }),
        ...precedenceHandlers({ sites, drafts, analysis }),
        ...uploadHandlers(uploads),
        ...sheetHandlers({ drafts, analysis }),
        ...peopleHandlers(people, admission.isOn, secure),
      },
      { admit: admission.admit, limits: accounts ? passwordLimits() : {} },
    ),
  );
  app.use('/api', () => {
    throw new Refusal('file-not-found', 'There is no such address. /api/openapi.json lists them all.');
  });
  app.use(previewRoutes(fileIn, admission.admitPreview));
  if (webFolder) serveInterface(app, webFolder);
  app.use(handleErrors(log));
  return app;
}

function serveInterface(app: Express, folder: string): void {
  app.use(
    '/assets',
    express.static(path.join(folder, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }),
  );
  app.use(express.static(folder, { index: false }));
  app.get('/{*path}', (_request, response) => {
    response.sendFile('index.html', { root: folder, headers: { 'cache-control': 'no-cache' } });
  });
}
