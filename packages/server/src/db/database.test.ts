import { execFileSync, spawn, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, expect, test } from '@jest/globals';
import type { Express } from 'express';
import { pino } from 'pino';
import { QueryTypes, type Sequelize } from 'sequelize';
import request from 'supertest';
import { usualLimits } from '../analysis/analysis.ts';
import { startProcess, type RunningProcess } from '../process.ts';
import { createApp } from '../app.ts';
import { Overtaken } from '../stores/importStore.ts';
import { makeSequelizeImportStore } from '../stores/sequelizeImportStore.ts';
import { makeZip } from '../testing/makeZip.ts';
import { siteApi } from '../testing/siteApi.ts';
import { connect, migrate } from './connect.ts';

/** A database of its own for tests that end it. */
const tmp = process.getuid?.() === 0 ? '/tmp' : os.tmpdir();
const data = fs.mkdtempSync(path.join(tmp, 'syndeton-database-'));
fs.chmodSync(data, 0o755);
const log = pino({ level: 'silent' });
const pg = (command: string): string[] => ['scripts/pg.mjs', command, '--data', data, '--db', 'own'];
const start = (): { url: string; port: number; dataDir: string } =>
  JSON.parse(execFileSync(process.execPath, pg('start'), { encoding: 'utf8' })) as ReturnType<typeof start>;
afterAll(() => {
  execFileSync(process.execPath, pg('stop'));
  fs.rmSync(data, { recursive: true, force: true });
});
const postmaster = (dataDir: string): number =>
  Number(fs.readFileSync(path.join(dataDir, 'postmaster.pid'), 'utf8').split('\n')[0]);

test('killed in the middle of its first start at any moment, the folder can be used by the next', async () => {
  for (const after of [150, 600, 1200]) {
    const first = spawn(process.execPath, pg('start'), { stdio: 'ignore', detached: true });
    const ended = new Promise((done) => first.once('exit', done));
    await new Promise((done) => setTimeout(done, after));
    // with all it has started; on a fast machine it may be done already
    try {
      process.kill(-first.pid!, 'SIGKILL');
    } catch (error) {
      expect(error).toMatchObject({ code: 'ESRCH' });
    }
    await ended;
  }
  expect(start().url).toContain('127.0.0.1');
});

test('a database that died and came back is where it was, and the application goes on', async () => {
  const { url, port, dataDir } = start();
  const { running, app } = await started(url);
  const { sequelize } = running;
  const api = siteApi(() => app);
  try {
    const id = await api.bringIn([{ path: 'a.html', content: '<style>p{color:red}</style><p>' }]);
    await api.put(id, [{ kind: 'gather-rules', sheet: 'a.css' }]);

    // one connection after the other is ended under it
    await sequelize.query(
      'SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE pid <> pg_backend_pid() AND datname = current_database()',
    );
    await new Promise((done) => setTimeout(done, 100));
    expect((await api.draft(id)).operations).toHaveLength(1);

    process.kill(postmaster(dataDir), 'SIGQUIT');
    await new Promise((done) => setTimeout(done, 500));
    const away = await request(app).get(`/api/sites/${id}`);
    expect([away.status, (away.body as { code: string }).code]).toEqual([503, 'database-away']);

    expect(start().port).toBe(port);
    expect((await api.draft(id)).operations).toHaveLength(1);
    expect((await api.save(id)).status).toBe(201);
    expect((await request(app).get(`/api/sites/${id}/revisions/2/survey`)).status).toBe(200);
    expect((await request(app).get(`/preview/${id}/r2/a.css`)).text).toContain('color:red');
    // the queue goes on as well
    const zip = await makeZip([{ path: 'b.html', content: '<p>' }]);
    const { id: coming } = (
      await request(app).post('/api/imports').field('name', 'Later').attach('archive', zip, 'x.zip')
    ).body as { id: string };
    const status = async (): Promise<string> =>
      ((await request(app).get(`/api/imports/${coming}`)).body as { status: string }).status;
    for (let i = 0; i < 400 && (await status()) !== 'done'; i++) await new Promise((done) => setTimeout(done, 25));
    expect(await status()).toBe('done');
  } finally {
    await ended(running);
  }
});

/** The only process on a database, as the start command starts it. */
async function started(url: string): Promise<{ running: RunningProcess; app: Express }> {
  const running = await startProcess({ databaseUrl: url, role: 'all', log, limits: { ...usualLimits, threads: 2 } });
  return { running, app: createApp({ ...running, log, demoFolder: '', allowedHosts: ['127.0.0.1'] }) };
}

async function ended(running: RunningProcess): Promise<void> {
  await running.finish(0);
  await running.leave();
}

test('an import that a process left in the middle is ended by the next one, once; one that ends its process every time is told of', async () => {
  const { url } = start();
  const own = connect(url);
  await emptied(own);
  await migrate(own);
  const store = makeSequelizeImportStore(own, { on: () => () => undefined });
  const archive = path.join(fs.mkdtempSync(path.join(os.tmpdir(), 'syndeton-test-')), 'a.zip');
  fs.writeFileSync(archive, await makeZip([{ path: 'a.html', content: '<p>' }]));
  const reply = { name: 'Walks', status: 'reading' as const, done: 0, total: 0, rules: 0, leftOut: [] };
  const [left, deadly] = ['00000000-0000-4000-8000-000000000001', '00000000-0000-4000-8000-000000000002'] as const;
  for (const id of [left, deadly]) await store.add({ id, ...reply }, { name: 'Walks' }, undefined, archive);
  // one that took both ended: its jobs stay locked, once for the one, each time for the other
  await own.query(`INSERT INTO process (workers) VALUES ('{gone}')`);
  await own.query(
    `UPDATE graphile_worker._private_jobs SET locked_by = 'gone', locked_at = now(), attempts = CASE key WHEN '${left}' THEN 1 ELSE 3 END`,
  );
  await store.begin(left);
  const { running } = await started(url);
  try {
    const status = async (id: string): Promise<string> => (await store.find(id))!.reply.status;
    for (let i = 0; i < 600 && (await status(left)) !== 'done'; i++) await new Promise((done) => setTimeout(done, 25));
    expect(await status(left)).toBe('done');
    await running.services.imports.tidy();
    expect((await store.find(deadly))!.reply).toMatchObject({
      status: 'interrupted',
      detail: expect.stringContaining('bring it in again'),
    });
    expect((await running.services.sites.list()).map(({ name }) => name)).toEqual(['Walks']);
    // what the first one still did does not count
    await expect(store.end({ id: left, attempt: 1 }, { status: 'failed' })).rejects.toThrow(Overtaken);
  } finally {
    await ended(running);
    await own.close();
    fs.rmSync(path.dirname(archive), { recursive: true });
  }
});

test('each older schema is brought up to date with what it holds', async () => {
  const { url } = start();
  const sequelize = connect(url);
  const select = <Row extends object>(sql: string): Promise<Row[]> =>
    sequelize.query<Row>(sql, { type: QueryTypes.SELECT });
  try {
    const early = ['0001-sites', '0002-inventory', '0003-notes'];
    for (const from of [
      ...early,
      '0004-versions',
      '0005-imports',
      '0006-decisions',
      '0007-steps',
      '0008-people',
      '0009-processes',
    ]) {
      // oxfmt-ignore
      await emptied(sequelize);
      await migrate(sequelize, from);
      const id = '00000000-0000-4000-8000-000000000001';
      const manifest = JSON.stringify({ 'a.html': 'h1', 'b.html': 'h2' });
      const operations = '[{"kind":"mend","finding":"f"}]';
      await sequelize.query(
        `INSERT INTO site (id, name, prefix, head, left_out, created_at) VALUES ('${id}', 'Old', '', 2, '[{"path":"x","reason":"y","hash":"h3"},{"path":"z","reason":"y"}]', now());
         INSERT INTO blob (hash, size, bytes) VALUES ('h1', 1, 'a'), ('h2', 1, 'b'), ('h3', 1, 'c'), ('h4', 1, 'd');
         INSERT INTO revision (site_id, number, parent, message, manifest, figures, changed_files, created_at)
           VALUES ('${id}', 1, NULL, 'm', '{"a.html":"h1"}', '{}', 1, now()), ('${id}', 2, 1, 'm', '${manifest}', '{}', 1, now());`,
      );
      if (early.includes(from))
        await sequelize.query(
          `INSERT INTO draft (site_id, base, operations, updated_at) VALUES ('${id}', 2, '${operations}', now())`,
        );
      else
        await sequelize.query(
          `INSERT INTO blob_use (site_id, hash) VALUES ('${id}', 'h1'), ('${id}', 'h2'), ('${id}', 'h3');
           INSERT INTO draft_version (site_id, version, base, operations, updated_at) VALUES ('${id}', 1, 2, '${operations}', now());
           UPDATE site SET draft_version = 1;`,
        );
      // one that was on its way in when its server was stopped for the upgrade, before archives were kept
      if (from >= '0005')
        await sequelize.query(
          `INSERT INTO import (id, reply, running, updated_at) VALUES ('${id}', '{"id":"${id}","name":"Cut","status":"looking","leftOut":[]}', true, now())`,
        );
      const { running } = await started(url);
      const { drafts, sites, imports } = running.services;
      expect(await select('SELECT hash FROM blob_use ORDER BY hash')).toEqual(
        ['h1', 'h2', 'h3'].map((hash) => ({ hash })),
      );
      expect(await drafts.state(id, 'draft')).toEqual({
        siteId: id,
        number: 2,
        operations: [{ kind: 'mend', finding: 'f' }],
      });
      expect(
        (await sites.list()).map(({ name, revision, draftOperations }) => [name, revision, draftOperations]),
      ).toEqual([['Old', 2, 1]]);
      expect((await imports.list()).map(({ status }) => status)).toEqual(from >= '0005' ? ['interrupted'] : []);
      await sites.purge();
      expect(await select('SELECT hash FROM blob ORDER BY hash')).toEqual(['h1', 'h2', 'h3'].map((hash) => ({ hash })));
      await ended(running);
    }
  } finally {
    await sequelize.close();
  }
});

test('a backup holds everything, while the application runs; it goes into an empty database, over data only when told, or not at all', async () => {
  const { url } = start();
  const own = connect(url);
  await emptied(own);
  await own.close();
  const { running, app } = await started(url);
  const { sequelize } = running;
  const api = siteApi(() => app);
  const file = path.join(data, 'all.backup');
  const env = { ...process.env, DATABASE_URL: url };
  const run = (...args: string[]) =>
    spawnSync(process.execPath, ['scripts/backup.mjs', ...args], { encoding: 'utf8', env });
  const sites = async (): Promise<number> =>
    ((await request(app).get('/api/sites')).body as { sites: unknown[] }).sites.length;
  try {
    const id = await api.bringIn([{ path: 'a.html', content: '<style>p{color:red}</style><p>' }]);
    await api.put(id, [{ kind: 'gather-rules', sheet: 'a.css' }]);
    const bytes = async (): Promise<string> => (await request(app).get(`/preview/${id}/draft/a.css`)).text;
    const before = await bytes();
    expect(run('backup', file)).toMatchObject({ status: 0, stdout: expect.stringContaining('1 sites, 1 revisions') });
    expect(run('backup', file)).toMatchObject({ status: 2, stderr: expect.stringContaining('is there already') });
    await api.bringIn([{ path: 'b.html', content: '<p>' }]);
    expect(run('restore', file)).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('There is data already (2 sites'),
    });
    const cut = path.join(data, 'cut.backup');
    fs.writeFileSync(cut, fs.readFileSync(file).subarray(0, -2000));
    expect(run('restore', cut, '--over').status).toBe(2);
    expect(run('restore', 'package.json', '--over')).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('is no backup'),
    });
    expect(await sites()).toBe(2);
    // what a later version made goes too
    await sequelize.query("CREATE TYPE later AS ENUM ('x'); CREATE TABLE later_table (one later)");
    expect(run('restore', file, '--over')).toMatchObject({ status: 0 });
    expect(await sites()).toBe(1);
    expect([await bytes(), (await api.draft(id)).operations.length]).toEqual([before, 1]);
    expect(
      await sequelize.query("SELECT 1 FROM pg_tables WHERE tablename = 'later_table'", { type: QueryTypes.SELECT }),
    ).toEqual([]);
    expect((await api.save(id)).status).toBe(201);
  } finally {
    await ended(running);
  }
});

async function emptied(sequelize: Sequelize): Promise<void> {
  await sequelize.query(
    'DROP SCHEMA IF EXISTS graphile_worker CASCADE; DROP SCHEMA public CASCADE; CREATE SCHEMA public;',
  );
}

test('one program at a time works on a data folder; one that was killed leaves it free', async () => {
  const folder = fs.mkdtempSync(path.join(tmp, 'syndeton-lock-'));
  const script = `import { takeFolder } from ${JSON.stringify(path.resolve('scripts/dataLock.mjs'))};
    process.stdout.write(String(takeFolder(${JSON.stringify(folder)}))); setTimeout(() => {}, Number(process.argv[1]));`;
  const take = (): string =>
    spawnSync(process.execPath, ['--input-type=module', '-e', script, '0'], { encoding: 'utf8' }).stdout;
  const first = spawn(process.execPath, ['--input-type=module', '-e', script, '60000'], {
    stdio: ['ignore', 'pipe', 'ignore'],
  });
  const said = await new Promise((done) => first.stdout.once('data', (text: Buffer) => done(text.toString())));
  expect([said, take()]).toEqual(['undefined', String(first.pid)]);
  first.kill('SIGKILL');
  await new Promise((done) => first.once('exit', done));
  expect(take()).toBe('undefined');
  fs.rmSync(folder, { recursive: true });
});
