import { createServer, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';

/** A small store of the S3 protocol on loopback, in memory: PUT, GET, and the deletion of many. Amazon S3 API Reference, from memory. */
export interface BlobServer {
  readonly address: string;
  readonly objects: Map<string, Buffer>;
  /** It answers that it cannot. */
  away: boolean;
  close(): Promise<void>;
}

export async function startBlobServer(bucket: string, key: string): Promise<BlobServer> {
  const objects = new Map<string, Buffer>();
  const state = { away: false };
  const server = createServer((request, response) => {
    void bodyOf(request).then((body) => {
      const say = (status: number, text: string | Buffer = ''): void => void response.writeHead(status, { 'content-type': 'application/xml' }).end(text);
      const url = new URL(request.url!, 'http://store');
      const [, named, name = ''] = url.pathname.split('/');
      const signed = new RegExp(`^AWS4-HMAC-SHA256 Credential=${key}/\\d{8}/[\\w-]+/s3/aws4_request, SignedHeaders=[\\w;-]+, Signature=[0-9a-f]{64}$`);
      if (state.away) say(503, problem('SlowDown'));
      else if (!signed.test(request.headers.authorization ?? '')) say(403, problem('AccessDenied'));
      else if (named !== bucket) say(404, problem('NoSuchBucket'));
      else if (request.method === 'PUT') {
        objects.set(name, body);
        say(200);
      } else if (request.method === 'POST' && url.searchParams.has('delete')) {
        for (const [, gone] of body.toString().matchAll(/<Key>([^<]*)<\/Key>/g)) objects.delete(gone!);
        say(200, '<DeleteResult xmlns="http://s3.amazonaws.com/doc/2006-03-01/"></DeleteResult>');
      } else if (request.method === 'GET' && objects.has(name)) say(200, objects.get(name));
      else say(404, problem('NoSuchKey'));
    });
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  return Object.assign(state, {
    address: `http://127.0.0.1:${(server.address() as AddressInfo).port}/${bucket}`,
    objects,
    close: () => new Promise<void>((done) => {
      server.closeAllConnections();
      server.close(() => done());
    }),
  });
} // oxfmt-ignore

const problem = (code: string): string => `<?xml version="1.0"?><Error><Code>${code}</Code></Error>`;

async function bodyOf(request: IncomingMessage): Promise<Buffer> {
  const parts: Buffer[] = [];
  for await (const part of request) parts.push(part as Buffer);
  return Buffer.concat(parts);
}
