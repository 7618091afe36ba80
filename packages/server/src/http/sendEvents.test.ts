import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { expect, test } from '@jest/globals';
import express from 'express';
import { sendEvents } from './sendEvents.ts';

test('who may not follow any more is told nothing further', async () => {
  let may = true;
  let stopped = false;
  let tell: (reply: unknown) => void = () => undefined;
  const app = express().get('/', (_request, response) => {
    const follow = (say: typeof tell) => {
      tell = say;
      say({ n: 1 });
      return () => (stopped = true);
    };
    sendEvents(response, follow, () => (may ? Promise.resolve() : Promise.reject(new Error('no'))), 20);
  });
  const server = app.listen(0, '127.0.0.1');
  await once(server, 'listening');
  try {
    const reply = await fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`);
    let text = '';
    for await (const part of reply.body!) {
      text += Buffer.from(part).toString();
      // signs of life come as long as it may go on
      if (may && text.includes('\n:\n')) {
        tell({ n: 2 });
        may = false;
      }
    }
    expect(text).toContain('data: {"n":1}');
    expect(text).toContain('data: {"n":2}');
    for (let i = 0; i < 100 && !stopped; i++) await new Promise((f) => setTimeout(f, 10));
    expect(stopped).toBe(true);
  } finally {
    server.close();
  }
});
