import { createHash } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { pino } from 'pino';
import request from 'supertest';
import { usualLimits } from '../analysis/analysis.ts';
import { createApp } from '../app.ts';
import { startProcess, type RunningProcess } from '../process.ts';
import { startBlobServer, type BlobServer } from '../testing/blobServer.ts';
import { siteApi } from '../testing/siteApi.ts';
import { databaseUrl, useDatabase } from '../testing/useApp.ts';
import { blobPlaceFrom } from './blobBytes.ts';

const database = useDatabase();
const log = pino({ level: 'silent' });
let store: BlobServer;
let running: RunningProcess;

/** The application with its files in the store, or in the database. */
async function start(inStore: boolean): Promise<void> {
  const blobs = inStore ? blobPlaceFrom({ BLOBS: store.address, BLOBS_KEY: 'ferry', BLOBS_SECRET: 'salt' }) : undefined;
  running = await startProcess({ databaseUrl, blobs, role: 'all', log, limits: { ...usualLimits, threads: 1 } });
}
async function stop(): Promise<void> {
  await running.finish(2);
  await running.leave();
}
const app = () => createApp({ ...running, log, demoFolder: '', allowedHosts: ['127.0.0.1'] });
const api = siteApi(app);
const hash = (text: string): string => createHash('sha256').update(text).digest('hex');
const held = async (text: string): Promise<unknown> =>
  (await database().query('SELECT bytes IS NULL AS elsewhere FROM blob WHERE hash = $1', { bind: [hash(text)] }))[0];

beforeAll(async () => {
  store = await startBlobServer('files', 'ferry');
});
afterAll(() => store.close());

test('files lie in the store; those from before in the database; both are read, handed off and purged', async () => {
  const page = (n: number): string => `<!DOCTYPE html><title>${n}</title><style>p { top: 1px }</style><p>${n}`;
  await start(false);
  const old = await api.bringIn([{ path: 'a.html', content: page(1) }], 'Before');
  await stop();

  await start(true);
  const id = await api.bringIn(
    [
      { path: 'a.html', content: page(1) },
      { path: 'b.html', content: page(2) },
    ],
    'After',
  );
  expect([await held(page(1)), await held(page(2))]).toEqual([[{ elsewhere: false }], [{ elsewhere: true }]]);
  expect(store.objects.get(hash(page(2)))?.toString()).toBe(page(2));
  await api.put(id, [{ kind: 'gather-rules', sheet: 'css/site.css' }]);
  expect((await api.proved(id)).proof.verdict).toBe('same');
  expect((await api.save(id)).status).toBe(201);
  const file = async (site: string, path: string) => (await request(app()).get(`/preview/${site}/${path}`)).text;
  expect(await file(id, 'r1/b.html')).toContain('<p>2');
  expect(await file(id, 'r2/css/site.css')).toContain('top');
  expect(await file(old, 'r1/a.html')).toContain('<p>1');

  // what nobody uses any more goes from the store as well
  expect((await request(app()).delete(`/api/sites/${id}`)).status).toBe(204);
  await database().query("UPDATE site SET removed_at = now() - interval '30 days' WHERE removed_at IS NOT NULL");
  await running.services.sites.purge();
  expect([...store.objects.keys()]).toEqual([]);
  expect(await file(old, 'r1/a.html')).toContain('<p>1');
});

test('a store that is away: nothing is half-written, and work goes on when it is back', async () => {
  store.away = true;
  const page = '<!DOCTYPE html><title>x</title><p>away';
  await expect(api.bringIn([{ path: 'a.html', content: page }], 'Away')).rejects.toThrow(/brought in: 503 .*store/);
  expect(await held(page)).toEqual([]);
  store.away = false;
  const id = await api.bringIn([{ path: 'a.html', content: page }], 'Away');
  store.objects.set(hash(page), Buffer.from('something else'));
  const changed = await request(app()).get(`/preview/${id}/r1/a.html`);
  expect([changed.status, changed.text.includes('something else')]).toEqual([500, false]);
  await stop();
});

test.each<readonly [BLOBS: string, rest: object, says: RegExp]>([
  ['files', {}, /BLOBS=files names no store\. Like https:/],
  ['https://store.example', {}, /names no store/],
  ['ftp://store.example/files', {}, /names no store/],
  ['https://store.example/files', { BLOBS_KEY: 'k' }, /BLOBS_KEY and BLOBS_SECRET/],
])('%s is refused in words', (BLOBS, rest, says) => {
  expect(() => blobPlaceFrom({ BLOBS, ...rest })).toThrow(says);
});
