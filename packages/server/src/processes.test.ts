import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import path from 'node:path';
import { afterAll, expect, test } from '@jest/globals';
import { pino } from 'pino';
import request from 'supertest';
import type { ImportReply, SiteSummaryReply } from '@syndeton/contract';
import { usualLimits } from './analysis/analysis.ts';
import { defineModels } from './db/models.ts';
import { startProcess, type RunningProcess } from './process.ts';
import { makeZip } from './testing/makeZip.ts';
import { siteApi } from './testing/siteApi.ts';
import { databaseUrl, useApp, useDatabase } from './testing/useApp.ts';

/** Two processes that answer requests, and those that compute come and go. */
const first = useApp({}, {}, 'serve');
const second = useApp({}, {}, 'serve');
const database = useDatabase();
const api = siteApi(first);
const other = siteApi(second);
const page = (i: number): string =>
  `<!DOCTYPE html><title>${i}</title><style>p { top: 1px }</style>${'<p>x'.repeat(100)}`;
const site = Array.from({ length: 40 }, (_, i) => ({ path: `${i}.html`, content: page(i) }));
const gather = { kind: 'gather-rules', sheet: 'css/site.css' };
const log = pino({ level: 'silent' });

const workers: RunningProcess[] = [];
const startWorker = async (): Promise<RunningProcess> => {
  const worker = await startProcess({ databaseUrl, role: 'worker', log, limits: { ...usualLimits, threads: 2 } });
  workers.push(worker);
  return worker;
};
async function stopWorkers(): Promise<void> {
  for (const worker of workers.splice(0)) {
    await worker.finish(2);
    await worker.leave();
  }
  // models are those of the last connection of a process: these here are several in one
  defineModels(database());
}
afterAll(stopWorkers);

/** A process of its own, that can be killed. */
async function spawnWorker(): Promise<ChildProcess> {
  const main = path.resolve('packages/server/src/main.ts');
  const worker = spawn(process.execPath, ['--conditions=@syndeton/source', '--import', 'tsx', main, 'worker'], {
    env: { ...process.env, DATABASE_URL: databaseUrl },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await once(worker.stdout!, 'data');
  return worker;
}

async function eventually<Value>(look: () => Promise<Value>, isIt: (value: Value) => boolean): Promise<Value> {
  for (let i = 0; ; i++) {
    const value = await look();
    if (isIt(value) || i > 1200) return value;
    await new Promise((done) => setTimeout(done, 25));
  }
}

async function startImport(name: string, files: readonly { path: string; content: string }[]): Promise<string> {
  const started = await request(first())
    .post('/api/imports')
    .field('name', name)
    .attach('archive', await makeZip(files), 'x.zip');
  expect(started.status).toBe(202);
  return (started.body as ImportReply).id;
}
const importOf = async (id: string): Promise<ImportReply> =>
  (await request(second()).get(`/api/imports/${id}`)).body as ImportReply;
const named = async (name: string): Promise<number> =>
  ((await request(second()).get('/api/sites')).body as { sites: SiteSummaryReply[] }).sites.filter(
    (one) => one.name === name,
  ).length;

test('where nobody computes it is said so', async () => {
  const reply = await request(first())
    .post('/api/sites')
    .attach('archive', await makeZip(site), 'x.zip');
  expect([reply.status, (reply.body as { detail: string }).detail]).toEqual([
    503,
    expect.stringContaining('npm run worker'),
  ]);
});

test('what one is asked another computes; what came in by one is there for all', async () => {
  const waiting = await startImport('By the queue', site);
  expect(await importOf(waiting)).toMatchObject({ status: 'reading', name: 'By the queue' });
  await startWorker();
  const { status, siteId } = await eventually(
    () => importOf(waiting),
    (one) => one.status !== 'reading' && one.status !== 'looking' && one.status !== 'storing',
  );
  expect(status).toBe('done');
  const id = siteId!;
  expect((await request(second()).get(`/api/sites/${id}/revisions/1/survey`)).status).toBe(200);
  expect((await api.put(id, [gather])).status).toBe(200);
  expect((await other.draft(id)).operations).toHaveLength(1);
  const [one, two] = await Promise.all([api.proved(id), other.proved(id)]);
  expect([one.proof.verdict, two.proof]).toEqual(['same', one.proof]);
  // refusals keep their code
  const refused = await other.put(id, [{ kind: 'delete-sheet', sheet: 'css/none.css' }]);
  expect([refused.status, (refused.body as { code: string }).code]).toEqual([422, 'operation-refused']);
  expect((await request(second()).get(`/api/sites/${id}/revisions/9/page?path=a.html`)).status).toBe(404);
  expect((await other.save(id)).status).toBe(201);
  expect((await request(first()).get(`/preview/${id}/r2/css/site.css`)).text).toContain('top');
  await stopWorkers();
});

test('a site stays with the one that holds its pages, another takes the next', async () => {
  const [left, right] = [await startWorker(), await startWorker()];
  const ids = [await api.bringIn(site, 'Tied'), await api.bringIn(site, 'Tied too')];
  for (let round = 0; round < 6; round++)
    await Promise.all(ids.map((id) => api.put(id, [{ ...gather, sheet: `css/${round}.css` }])));
  const held = [left, right].map(({ analysis }) => ids.filter((id) => analysis.held().includes(id)));
  expect(held.flat().sort()).toEqual([...ids].sort());
  await stopWorkers();
});

test('a worker that is killed in the middle: another goes on, and nothing is there twice', async () => {
  const doomed = await spawnWorker();
  const many = Array.from({ length: 700 }, (_, i) => ({ path: `${i}.html`, content: page(i) }));
  const id = await startImport('Killed', many);
  await eventually(
    () => importOf(id),
    ({ status, done }) => status === 'looking' && done > 0,
  );
  doomed.kill('SIGKILL');
  await once(doomed, 'exit');
  await startWorker();
  expect(
    await eventually(
      () => importOf(id),
      ({ status }) => status === 'done',
    ),
  ).toMatchObject({ status: 'done' });
  expect(await named('Killed')).toBe(1);
  const { siteId } = await importOf(id);

  // the same while it is asked about a site
  await stopWorkers();
  const next = await spawnWorker();
  const asked = api.put(siteId!, [gather]);
  await eventually(
    async () => (await database().query('SELECT 1 FROM graphile_worker.jobs WHERE locked_at IS NOT NULL'))[0],
    (rows) => rows.length > 0,
  );
  next.kill('SIGKILL');
  await startWorker();
  const reply = await asked;
  expect([reply.status, (reply.body as { detail?: string }).detail]).toEqual([200, undefined]);
  await stopWorkers();
});

test('what ended those who took it again and again is refused, not waited for', async () => {
  const asked = request(first())
    .post('/api/sites')
    .attach('archive', await makeZip(site), 'x.zip')
    .then((reply) => reply);
  const queued = 'UPDATE graphile_worker._private_jobs SET attempts = 3 RETURNING id';
  await eventually(
    async () => (await database().query(queued))[0],
    (rows) => rows.length > 0,
  );
  await startWorker();
  const reply = await asked;
  expect([reply.status, (reply.body as { detail: string }).detail]).toEqual([
    422,
    expect.stringContaining('ended 3 times'),
  ]);
  expect((await database().query('SELECT 1 FROM site_task'))[0]).toEqual([]);
  await stopWorkers();
});

test('an import is stopped by whom it is not run by; a task nobody waits for is not done', async () => {
  await startWorker();
  const many = Array.from({ length: 1500 }, (_, i) => ({ path: `${i}.html`, content: page(i) }));
  const id = await startImport('Stopped', many);
  await eventually(
    () => importOf(id),
    ({ status }) => status === 'looking',
  );
  expect((await request(second()).delete(`/api/imports/${id}`)).status).toBe(204);
  expect(
    (
      await eventually(
        () => importOf(id),
        ({ status }) => status === 'stopped',
      )
    ).status,
  ).toBe('stopped');
  expect(await named('Stopped')).toBe(0);
  const waiting = await database().query('SELECT 1 FROM site_task');
  expect(waiting[0]).toEqual([]);
});
