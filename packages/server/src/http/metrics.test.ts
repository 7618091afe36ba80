import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { afterAll, expect, test } from '@jest/globals';
import express from 'express';
import request from 'supertest';
import { makeMetrics } from './metrics.ts';

const metrics = makeMetrics({ load: () => ({ running: 2, waiting: 5 }) });
const server = metrics.listen(0);
afterAll(() => new Promise((done) => server.close(done)));

test('requests by their names, few whatever is asked for; what runs and waits; on loopback', async () => {
  const app = express().use(metrics.count, (_request, response) => response.sendStatus(204));
  for (const path of ['/api/sites', '/api/sites/one', '/api/sites/two', '/preview/one/r1/a.html', '/api/nothing', '/x'])
    await request(app).get(path);
  await request(app).delete('/api/sites/one');
  if (!server.listening) await once(server, 'listening');
  const { port, address } = server.address() as AddressInfo;
  expect(address).toBe('127.0.0.1');
  const reply = await fetch(`http://127.0.0.1:${port}/metrics`);
  expect(reply.headers.get('content-type')).toContain('text/plain');
  const text = await reply.text();
  const counted = Object.fromEntries(
    [...text.matchAll(/syndeton_request_seconds_count\{name="(\w+)",status="204"\} (\d+)/g)].map(([, name, n]) => [
      name,
      Number(n),
    ]),
  );
  expect(counted).toEqual({ listSites: 1, readSite: 2, preview: 1, unknown: 1, interface: 1, removeSite: 1 });
  expect(text).toMatch(/^syndeton_tasks_running 2$/m);
  expect(text).toMatch(/^syndeton_tasks_waiting 5$/m);
  expect(text).toMatch(/^process_resident_memory_bytes \d/m);
  expect((await fetch(`http://127.0.0.1:${port}/`)).status).toBe(404);
});
