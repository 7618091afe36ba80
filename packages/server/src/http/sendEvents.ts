import type { Response } from 'express';
import type { Follow } from '@syndeton/contract';

/** Milliseconds after which a browser asks again when the stream ended, and between signs of life. */
const retry = 300;
const alive = 20_000;

/** Server-Sent Events as they come. HTML Standard, "Server-sent events". */
export function sendEvents(response: Response, follow: Follow<unknown>): void {
  // no-transform: compressed they would wait for each other
  response.set({ 'content-type': 'text/event-stream', 'cache-control': 'no-store, no-transform' });
  response.flushHeaders();
  response.write(`retry: ${retry}\n\n`);
  const sign = setInterval(() => response.write(':\n\n'), alive).unref();
  const stop = follow(
    (reply) => response.write(`data: ${JSON.stringify(reply)}\n\n`),
    () => response.end(),
  );
  response.on('close', () => {
    clearInterval(sign);
    stop();
  });
}
