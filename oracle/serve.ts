import http from 'node:http';
import type { AddressInfo } from 'node:net';
import path from 'node:path';

const types: Readonly<Record<string, string>> = {
  '.css': 'text/css',
  '.png': 'image/png',
  '.gif': 'image/gif',
  '.jpg': 'image/jpeg',
  '.svg': 'image/svg+xml',
  '.html': 'text/html',
  '.htm': 'text/html',
  '.shtml': 'text/html',
  '.xhtml': 'text/html',
};

/** A site served on loopback without charset, as plain servers do; its scripts are kept from running. */
export async function serve(
  read: (path: string) => Uint8Array | string | undefined,
): Promise<{ readonly origin: string; readonly close: () => void }> {
  const server = http.createServer((request, response) => {
    const wanted = decodeURIComponent(new URL(request.url ?? '/', 'http://x').pathname.slice(1));
    const body = read(wanted);
    if (body === undefined) {
      response.writeHead(404).end();
      return;
    }
    response.writeHead(200, {
      'content-type': types[path.extname(wanted).toLowerCase()] ?? 'application/octet-stream',
      'content-security-policy': "script-src 'none'",
    });
    response.end(body);
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  return { origin: `http://127.0.0.1:${(server.address() as AddressInfo).port}`, close: () => server.close() };
}
