import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import request from 'supertest';
import { Problem, Upload, type UploadReply } from '@syndeton/contract';
import { startSftpServer, type SimulatedServer } from './testing/sftpServer.ts';
import { expectSchema } from './testing/expectSchema.ts';
import { siteApi } from './testing/siteApi.ts';
import { useApp } from './testing/useApp.ts';

const app = useApp();
const api = siteApi(app);

let root = '';
let server: SimulatedServer;
beforeAll(async () => {
  root = fs.mkdtempSync(path.join(os.tmpdir(), 'syndeton-uploads-'));
  server = await startSftpServer(root, 'ferry', 'tide');
});
afterAll(async () => {
  await server.close();
  fs.rmSync(root, { recursive: true, force: true });
});

async function ended(id: string): Promise<UploadReply> {
  for (let i = 0; i < 400; i++) {
    const { body } = (await request(app()).get(`/api/sites/${id}/upload`)) as { body: UploadReply };
    if (body.status !== 'running') return body;
    await new Promise((f) => setTimeout(f, 25));
  }
  throw new Error('the upload did not end');
}

test('what changed goes to a server, sheets before pages; broken off it says what is there, and goes on', async () => {
  const id = await api.bringIn([
    { path: 'a.html', content: '<!DOCTYPE html><style>p { color: red }</style><p>x' },
    { path: 'b.html', content: '<!DOCTYPE html><style>p { color: red }</style><p>y' },
  ]);
  const { base } = await api.draft(id);
  const plan = await request(app()).post(`/api/sites/${id}/proposal`).send({ base, sheet: 'css/site.css' });
  await api.put(id, (plan.body as { operations: object[] }).operations);
  expect((await api.save(id)).status).toBe(201);
  const machine = { protocol: 'sftp', host: '127.0.0.1', port: server.port };
  const { body: asked } = await request(app()).post(`/api/sites/${id}/upload/key`).send(machine);
  const { key } = asked as { key: string };
  expect(key).toMatch(/^SHA256:/);
  const start = (over: object = {}) =>
    request(app())
      .post(`/api/sites/${id}/revisions/2/upload`)
      .send({ ...machine, user: 'ferry', password: 'tide', folder: '/', key, since: 1, ...over });
  server.failAfter = 1;
  expect((await start()).status).toBe(202);
  const broken = await ended(id);
  expectSchema(Upload, broken);
  expect(broken).toMatchObject({ status: 'stopped', there: ['css/site.css'], total: 3, path: 'a.html', mayGo: [] });
  expect(fs.readdirSync(root, { recursive: true }).sort()).toEqual(['css', 'css/site.css']);
  server.failAfter = undefined;
  expect((await start()).status).toBe(202);
  expect(await ended(id)).toMatchObject({ status: 'done', there: ['css/site.css', 'a.html', 'b.html'] });
  expect(fs.readFileSync(path.join(root, 'a.html'), 'utf8')).toContain('css/site.css');
  // no password is kept, and none comes back
  expect(JSON.stringify((await request(app()).get(`/api/sites/${id}/upload`)).body)).not.toContain('tide');
  await start({ password: 'ebb' });
  expect(await ended(id)).toMatchObject({ status: 'stopped', why: expect.stringContaining('name and password') });
  const nothing = await start({ since: 2 });
  expectSchema(Problem, nothing.body);
  expect(nothing.status).toBe(422);
});
