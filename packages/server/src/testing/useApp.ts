import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll } from '@jest/globals';
import type { Express } from 'express';
import { pino } from 'pino';
import { startAnalysis, type Analysis } from '../analysis/pool.ts';
import { createApp } from '../app.ts';
import { connect, migrate } from '../db/connect.ts';

/** The application on the tests' database, for one test file. */
export function useApp(): () => Express {
  const databaseUrl = process.env['TEST_DATABASE_URL']!;
  const sequelize = connect(databaseUrl);
  let analysis: Analysis;
  let app: Express;
  beforeAll(async () => {
    await migrate(sequelize);
    analysis = startAnalysis(databaseUrl, 1);
    app = createApp({
      sequelize,
      analysis,
      log: pino({ level: 'silent' }),
      demoFolder: fileURLToPath(new URL('../../../../demo', import.meta.url)),
      allowedHosts: ['127.0.0.1'],
    });
  });
  afterAll(async () => {
    await analysis.close();
    await sequelize.close();
  });
  return () => app;
}
