import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll } from '@jest/globals';
import type { Express } from 'express';
import { pino } from 'pino';
import type { Sequelize } from 'sequelize';
import { startAnalysis, usualLimits, type Analysis } from '../analysis/analysis.ts';
import type { ThreadLimits } from '../analysis/siteThreads.ts';
import { createApp, type AppParts } from '../app.ts';
import { makeServices } from '../services.ts';
import { connect, migrate } from '../db/connect.ts';

/** The application on the tests' database, for one test file. */
export function useApp(
  limits: Partial<ThreadLimits> = {},
  access: Pick<AppParts, 'accounts' | 'secure'> = {},
): () => Express {
  const databaseUrl = process.env['TEST_DATABASE_URL']!;
  const sequelize = connect(databaseUrl);
  const log = pino({ level: process.env['LOG_LEVEL'] ?? 'silent' });
  let analysis: Analysis;
  let app: Express;
  beforeAll(async () => {
    await migrate(sequelize);
    analysis = startAnalysis(databaseUrl, { ...usualLimits, threads: 2, ...limits });
    app = createApp({
      sequelize,
      analysis,
      services: makeServices(sequelize, analysis, log),
      log,
      demoFolder: fileURLToPath(new URL('../../../../demo', import.meta.url)),
      allowedHosts: ['127.0.0.1'],
      ...access,
    });
  });
  afterAll(async () => {
    await analysis.close();
    await sequelize.close();
  });
  return () => app;
}

/** The tests' database, for one test file that looks into it itself. */
export function useDatabase(): () => Sequelize {
  const sequelize = connect(process.env['TEST_DATABASE_URL']!);
  afterAll(() => sequelize.close());
  return () => sequelize;
}
