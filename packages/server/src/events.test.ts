import type { AddressInfo } from 'node:net';
import type { Server } from 'node:http';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import {
  DraftProof,
  DraftVersion,
  PlanProgress,
  type DraftProofReply,
  type DraftVersionReply,
  type ImportReply,
  type PlanProgressReply,
} from '@syndeton/contract';
import { expectSchema } from './testing/expectSchema.ts';
import { makeZip } from './testing/makeZip.ts';
import { siteApi } from './testing/siteApi.ts';
import { useApp, useDatabase } from './testing/useApp.ts';

/** What runs is told of while it runs. */
const app = useApp();
const api = siteApi(app);
const database = useDatabase();
/** Another process on the same database. */
const other = useApp();
let server: Server;
beforeAll(async () => {
  server = app().listen(0, '127.0.0.1');
  await new Promise((done) => server.once('listening', done));
});
afterAll(() => new Promise((done) => server.close(done)));
const at = (path: string): string => `http://127.0.0.1:${(server.address() as AddressInfo).port}${path}`;

/** The data of events as they come, until the stream ends. */
async function* eventsOf(path: string, signal?: AbortSignal): AsyncGenerator<unknown> {
  const reply = await fetch(at(path), signal ? { signal } : {});
  expect([reply.status, reply.headers.get('content-type')]).toEqual([
    200,
    expect.stringContaining('text/event-stream'),
  ]);
  let text = '';
  for await (const part of reply.body!) {
    text += Buffer.from(part).toString();
    for (let end = text.indexOf('\n\n'); end >= 0; end = text.indexOf('\n\n')) {
      const data = /^data: (.*)$/m.exec(text.slice(0, end))?.[1];
      text = text.slice(end + 2);
      if (data !== undefined) yield JSON.parse(data);
    }
  }
}

const many = Array.from({ length: 80 }, (_, i) => ({
  path: `${i}.html`,
  content: `<style>p { top: ${i}px }</style>${'<p>x</p>'.repeat(200)}`,
}));
const gather = { kind: 'gather-rules', sheet: 'css/site.css' };

test('the proof of a draft, until it is done', async () => {
  const id = await api.bringIn(many);
  await api.put(id, [gather]);
  const told: DraftProofReply[] = [];
  for await (const reply of eventsOf(`/api/sites/${id}/draft/proof/events`)) {
    expectSchema(DraftProof, reply);
    told.push(reply as DraftProofReply);
  }
  const last = told.at(-1);
  expect(last?.status === 'done' && last.proof.pages.length).toBe(80);
  expect(told.slice(0, -1).every(({ status }) => status === 'running')).toBe(true);
});

test('a proof that a newer draft has overtaken ends, and the newer one is told of', async () => {
  const id = await api.bringIn(many);
  await api.put(id, [gather]);
  const told: DraftProofReply[] = [];
  let changed: Promise<unknown> | undefined;
  for await (const reply of eventsOf(`/api/sites/${id}/draft/proof/events`)) {
    told.push(reply as DraftProofReply);
    changed ??= api.put(id, [{ ...gather, sheet: 'css/other.css' }]);
  }
  await changed;
  expect(told.some(({ status }) => status === 'done')).toBe(false);
  expect((await api.proved(id)).proof.pages).toHaveLength(80);
});

test('a plan while it is made: pages are read, then proved', async () => {
  const id = await api.bringIn(many);
  const stop = new AbortController();
  const asked = fetch(at(`/api/sites/${id}/proposal`), {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ base: 1, sheet: 'css/site.css' }),
  });
  const steps = new Set<string>();
  for await (const reply of eventsOf(`/api/sites/${id}/proposal/events`, stop.signal)) {
    expectSchema(PlanProgress, reply);
    const { step, done, total } = reply as PlanProgressReply;
    expect([total, done <= total]).toEqual([80, true]);
    steps.add(step);
    if (step === 'proving') break;
  }
  stop.abort();
  expect((await asked).status).toBe(200);
  expect(steps.has('proving')).toBe(true);
});

test('sites on their way in, as they come further', async () => {
  const stop = new AbortController();
  const seen = new Set<string>();
  const form = new FormData();
  form.set('name', 'Told of');
  form.set('archive', new Blob([new Uint8Array(await makeZip(many))]), 'x.zip');
  let started: Promise<Response> | undefined;
  for await (const reply of eventsOf('/api/imports/events', stop.signal)) {
    started ??= fetch(at('/api/imports'), { method: 'POST', body: form });
    const own = (reply as { imports: ImportReply[] }).imports.find(({ name }) => name === 'Told of');
    if (own) seen.add(own.status);
    if (own?.status === 'done') break;
  }
  stop.abort();
  expect((await started)!.status).toBe(202);
  expect(seen.has('done')).toBe(true);
});

test('what somebody changes through another server is told of, also after the connection that hears of it was lost', async () => {
  const id = await api.bringIn(many.slice(0, 2));
  const elsewhere = siteApi(other);
  const stop = new AbortController();
  const told: DraftVersionReply[] = [];
  const acts = [
    () => elsewhere.put(id, [gather]),
    async () => {
      await database().query(`SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE query LIKE 'LISTEN%'`);
      await elsewhere.put(id, []);
    },
    () => elsewhere.put(id, [gather]),
    () => elsewhere.save(id),
  ];
  for await (const reply of eventsOf(`/api/sites/${id}/draft/events`, stop.signal)) {
    expectSchema(DraftVersion, reply);
    told.push(reply as DraftVersionReply);
    const next = acts.shift();
    if (!next) break;
    await next();
  }
  stop.abort();
  expect(told).toEqual([
    { base: 1, version: 0 },
    { base: 1, version: 1 },
    { base: 1, version: 2 },
    { base: 1, version: 3 },
    { base: 2, version: 4 },
  ]);
});
