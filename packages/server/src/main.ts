import { spawn } from 'node:child_process';
import type { Server } from 'node:http';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { usualLimits } from './analysis/analysis.ts';
import { accessFrom, type Access } from './access.ts';
import { createApp } from './app.ts';
import { uploadFolder } from './archive/uploadFolder.ts';
import { makeDemoReader } from './features/demo/index.ts';
import { makeMetrics } from './http/metrics.ts';
import { hostNames } from './http/guards.ts';
import { roles, startProcess } from './process.ts';
import { blobPlaceFrom, type BlobPlace } from './stores/blobBytes.ts';

/** Seconds that requests under way may take when the server is stopped. */
const drainFor = 8;
const hour = 3_600_000;

const log = pino({ level: process.env['LOG_LEVEL'] ?? 'warn' });
const databaseUrl = process.env['DATABASE_URL'];
if (!databaseUrl) {
  process.stderr.write('DATABASE_URL is not set. Start with "npm start", which also starts PostgreSQL.\n');
  process.exit(2);
}
const role = roles.find((one) => one === (process.argv[2] ?? 'all'));
if (!role) {
  process.stderr.write(`${process.argv[2]} is nothing this can be. Allowed: ${roles.join(', ')}.\n`);
  process.exit(2);
}
const threads = Number(process.env['THREADS'] ?? 0);
if (!Number.isInteger(threads) || threads < 0 || threads > 64) {
  process.stderr.write(`THREADS=${process.env['THREADS']} is no number of threads. 1 to 64 are allowed.\n`);
  process.exit(2);
}
const port = Number(process.env['PORT'] ?? 4870);
const host = process.env['HOST'] ?? '127.0.0.1';
const access = accessFrom(host, process.env);
if ('problem' in access) {
  process.stderr.write(`${access.problem}\n`);
  process.exit(2);
}
const blobs = blobPlace();
const root = (folder: string): string => fileURLToPath(new URL(`../../../${folder}`, import.meta.url));

function blobPlace(): BlobPlace | undefined {
  try {
    return blobPlaceFrom(process.env);
  } catch (error) {
    process.stderr.write(`${(error as Error).message}\n`);
    process.exit(2);
  }
}

/** Stops what runs; without an answer to requests before there are any. */
let stopAll: (seconds: number) => Promise<void> = () => Promise.resolve(process.exit(1));
process.on('disconnect', startIsGone);
// it may have been killed before anybody listened
if (process.send && !process.connected) startIsGone();

/** The start command was killed: nobody would stop this server, or the database it runs on. */
function startIsGone(): void {
  process.once('exit', () => {
    const data = process.env['SYNDETON_STARTED_ON'];
    if (data !== undefined)
      spawn(process.execPath, ['scripts/leftBehind.mjs', data], {
        cwd: root('.'),
        detached: true,
        stdio: 'ignore',
      }).unref();
  });
  void stopAll(1);
}

// what servers that were killed left of uploads goes
uploadFolder();
const running = await startProcess({
  databaseUrl,
  blobs,
  role,
  log,
  limits: { ...usualLimits, ...(threads ? { threads } : {}) },
});
const { services, analysis } = running;
await services.sites.purge();
const purge = (): Promise<unknown> => Promise.all([services.sites.purge(), services.people.purge()]);
setInterval(() => void purge().catch((error: unknown) => log.warn(error, 'purge')), hour).unref();
const metricsPort = process.env['METRICS_PORT'];
const metrics = metricsPort === undefined ? undefined : makeMetrics(analysis);
metrics?.listen(Number(metricsPort)).on('error', (error) => {
  process.stderr.write(`METRICS_PORT=${metricsPort} cannot be listened on: ${error.message}\n`);
  process.exit(2);
});
const server = role === 'worker' ? undefined : await answerRequests(access);
if (!server) process.stdout.write('A worker of Syndeton takes jobs now  (Ctrl-C stops it)\n');

async function answerRequests({ accounts, secure, hosts }: Access): Promise<Server> {
  const demoFolder = root('demo');
  if (role === 'all' && (await services.sites.list()).length === 0 && process.env['SYNDETON_NO_DEMO'] === undefined)
    await services.sites.bringInFiles(await makeDemoReader(demoFolder)(), 'Brindle Sound Ferry');
  const allowedHosts = [
    '127.0.0.1',
    'localhost',
    '[::1]',
    host.toLowerCase(),
    ...hosts,
    ...hostNames(process.env['ALLOWED_HOSTS'] ?? ''),
  ];
  if (accounts && (await services.people.list()).length === 0)
    process.stdout.write('Nobody may sign in yet. Let somebody: npm run people -- add NAME --administrator\n');
  const webFolder = root('packages/web/dist');
  const count = metrics?.count;
  const app = createApp({ ...running, log, demoFolder, webFolder, allowedHosts, accounts, secure, count });
  return app.listen(port, host, (error?: Error) => {
    if (error) {
      process.stderr.write(
        `The server cannot listen on ${host}:${port}: ${error.message}. Choose another port: PORT=4871 npm start\n`,
      );
      process.exit(2);
    }
    process.stdout.write(`Syndeton is at http://${host}:${port}  (Ctrl-C stops it)\n`);
  });
}

// a fault in one request, or a connection lost in between, ends nothing else
process.on('unhandledRejection', (error) => log.error(error, 'unhandled'));
process.on('uncaughtException', (error) => log.error(error, 'uncaught'));

let stopping = false;
/** Requests under way are finished or told; a second signal does not wait for them. */
async function stop(seconds: number): Promise<void> {
  if (stopping) process.exit(1);
  stopping = true;
  // whatever hangs, it ends
  setTimeout(() => process.exit(1), (seconds + 4) * 1000);
  const closed = new Promise<unknown>((done) => (server ? server.close(done) : done(undefined)));
  server?.closeIdleConnections();
  await running.finish(seconds);
  const last = setTimeout(() => server?.closeAllConnections(), 1000);
  await closed;
  clearTimeout(last);
  await running.leave();
  process.exit(0);
}
stopAll = stop;
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void stop(drainFor));
