import type { Response } from 'express';
import type { Follow } from '@syndeton/contract';

/** Milliseconds after which a browser asks again when the stream ended, and between signs of life. */
const retry = 300;
const alive = 20_000;

/**
 * Server-Sent Events as they come. HTML Standard, "Server-sent events". `mayStill` is asked with each sign of life: who may not follow
 * any more is told nothing further.
 */
export function sendEvents(
  response: Response,
  follow: Follow<unknown>,
  mayStill: () => Promise<unknown>,
  every = alive,
): void {
  // no-transform: compressed they would wait for each other
  response.set({ 'content-type': 'text/event-stream', 'cache-control': 'no-store, no-transform' });
  response.flushHeaders();
  response.write(`retry: ${retry}\n\n`);
  const sign = setInterval(() => {
    void mayStill().then(
      () => response.writableEnded || response.write(':\n\n'),
      () => response.end(),
    );
  }, every).unref();
  const stop = follow(
    (reply) => {
      if (!response.writableEnded) response.write(`data: ${JSON.stringify(reply)}\n\n`);
    },
    () => response.end(),
  );
  response.on('close', () => {
    clearInterval(sign);
    stop();
  });
}
