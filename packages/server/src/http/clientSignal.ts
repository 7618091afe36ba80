import type { Response } from 'express';

/** Aborted when the one who asked goes away before the reply is sent. */
export function clientSignal(response: Response): AbortSignal {
  const gone = new AbortController();
  response.on('close', () => {
    if (!response.writableEnded) gone.abort();
  });
  return gone.signal;
}
