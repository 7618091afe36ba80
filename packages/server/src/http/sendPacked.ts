import { gunzipSync } from 'node:zlib';
import type { Request, Response } from 'express';

/** Sends a reply that is gzipped JSON already. */
export function sendPacked(request: Request, response: Response, body: Uint8Array): void {
  response.type('json').vary('accept-encoding');
  const bytes = Buffer.from(body.buffer, body.byteOffset, body.byteLength);
  if (request.acceptsEncodings('gzip') === 'gzip') response.set('content-encoding', 'gzip').send(bytes);
  else response.send(gunzipSync(bytes));
}
