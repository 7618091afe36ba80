import { randomBytes } from 'node:crypto';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll } from '@jest/globals';
import type { Express } from 'express';
import { pino } from 'pino';
import type { Sequelize } from 'sequelize';
import { usualLimits } from '../analysis/analysis.ts';
import type { ThreadLimits } from '../analysis/siteThreads.ts';
import { createApp, type AppParts } from '../app.ts';
import { startProcess, type Role, type RunningProcess } from '../process.ts';
import { connect, migrate } from '../db/connect.ts';

/** A database of its own for each test file: what others put into its queue is none of its business. */
const server = process.env['TEST_DATABASE_URL'];
const name = `test_${randomBytes(6).toString('hex')}`;
export const databaseUrl = server === undefined ? '' : server.replace(/\/[^/?]*(?=\?|$)/, `/${name}`);
const made = once(async () => {
  const first = connect(server!, 1);
  await first.query(`CREATE DATABASE ${name}`);
  await first.close();
  const own = connect(databaseUrl);
  await migrate(own);
  await own.close();
});

function once<Result>(act: () => Promise<Result>): () => Promise<Result> {
  let done: Promise<Result> | undefined;
  return () => (done ??= act());
}

/** The application on the tests' database, for one test file; as the only process, or as one of several. */
export function useApp(
  limits: Partial<ThreadLimits> = {},
  access: Pick<AppParts, 'accounts' | 'secure'> = {},
  role: Role = 'all',
): () => Express {
  const log = pino({ level: process.env['LOG_LEVEL'] ?? 'silent' });
  let running: RunningProcess;
  let app: Express;
  beforeAll(async () => {
    await made();
    running = await startProcess({ databaseUrl, role, log, limits: { ...usualLimits, threads: 2, ...limits } });
    app = createApp({
      ...running,
      log,
      demoFolder: fileURLToPath(new URL('../../../../demo', import.meta.url)),
      allowedHosts: ['127.0.0.1'],
      ...access,
    });
  });
  afterAll(async () => {
    await running.finish(0);
    await running.leave();
  });
  return () => app;
}

/** The tests' database, for one test file that looks into it itself. */
export function useDatabase(): () => Sequelize {
  const sequelize = connect(databaseUrl);
  beforeAll(made);
  afterAll(() => sequelize.close());
  return () => sequelize;
}
