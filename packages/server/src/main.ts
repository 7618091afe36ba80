import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { startAnalysis } from './analysis/pool.ts';
import { createApp } from './app.ts';
import { connect, migrate } from './db/connect.ts';
import { makeDemoReader } from './features/demo/readDemo.ts';
import { makeInventoryService } from './features/inventory/inventoryService.ts';
import { makeSequelizeSiteStore } from './features/sites/sequelizeSiteStore.ts';
import { makeSiteService } from './features/sites/siteService.ts';

const log = pino({ level: process.env['LOG_LEVEL'] ?? 'warn' });
const databaseUrl = process.env['DATABASE_URL'];
if (!databaseUrl) {
  process.stderr.write('DATABASE_URL is not set. Start with "npm start", which also starts PostgreSQL.\n');
  process.exit(2);
}
const port = Number(process.env['PORT'] ?? 4870);
const host = process.env['HOST'] ?? '127.0.0.1';
const root = (folder: string): string => fileURLToPath(new URL(`../../../${folder}`, import.meta.url));

const sequelize = connect(databaseUrl);
await migrate(sequelize);
const analysis = startAnalysis(databaseUrl);
const demoFolder = root('demo');
const store = makeSequelizeSiteStore(sequelize);
await store.purge(new Date(Date.now() - 7 * 86_400_000));
if ((await store.list()).length === 0 && process.env['SYNDETON_NO_DEMO'] === undefined)
  await makeSiteService({ store, analysis, inventories: makeInventoryService({ store, analysis }) }).bringInFiles(
    await makeDemoReader(demoFolder)(),
    'Brindle Sound Ferry',
  );

const allowedHosts = [
  '127.0.0.1',
  'localhost',
  '[::1]',
  host,
  ...(process.env['ALLOWED_HOSTS'] ?? '').split(',').filter((h) => h !== ''),
];
const app = createApp({ sequelize, analysis, log, demoFolder, webFolder: root('packages/web/dist'), allowedHosts });
const server = app.listen(port, host, (error?: Error) => {
  if (error) {
    process.stderr.write(
      `The server cannot listen on ${host}:${port}: ${error.message}. Choose another port: PORT=4871 npm start\n`,
    );
    process.exit(2);
  }
  process.stdout.write(`Syndeton is at http://${host}:${port}  (Ctrl-C stops it)\n`);
  process.send?.('ready');
});

let stopping = false;
async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  server.closeAllConnections();
  await new Promise((done) => server.close(done));
  await analysis.close();
  await sequelize.close();
  process.exit(0);
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void stop());
