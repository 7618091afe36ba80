import { afterEach, beforeEach } from '@jest/globals';

export type Answer = (body: unknown) => readonly [status: number, body?: unknown];

export interface AnsweringServer {
  /** What was asked, in order: `POST /api/sites {"name":"x"}`. */
  readonly asked: string[];
  /** What was last sent with a request; undefined where it was not made. */
  readonly bodyOf: (name: string) => unknown;
  /** What is said to which request, with its query or without; 404 to any other. */
  says: Record<string, Answer>;
}

/** In place of the server, in each test of the file: what it is asked, and what it says to it. */
export function answeringServer(says: () => Record<string, Answer> = () => ({})): AnsweringServer {
  const asked: string[] = [];
  const bodyOf = (name: string): unknown => {
    const last = asked.findLast((one) => one.startsWith(`${name} `));
    return last === undefined ? undefined : JSON.parse(last.slice(name.length + 1));
  };
  const server: AnsweringServer = { asked, bodyOf, says: {} };
  const { fetch: plainFetch, Request: PlainRequest } = globalThis;
  beforeEach(() => {
    localStorage.clear();
    server.asked.length = 0;
    server.says = says();
    // a browser counts addresses from the page's
    globalThis.Request = class extends PlainRequest {
      constructor(input: RequestInfo | URL, init?: RequestInit) {
        super(typeof input === 'string' ? new URL(input, 'http://localhost') : input, init);
      }
    };
    globalThis.fetch = (async (request: Request) => {
      const form = request.headers.get('content-type')?.startsWith('multipart/') === true;
      const text = form ? '' : await request.text();
      const { pathname, search } = new URL(request.url);
      const name = `${request.method} ${pathname}`;
      server.asked.push(text === '' ? name : `${name} ${text}`);
      const says = server.says[name + decodeURIComponent(search)] ?? server.says[name];
      const answer = says?.(text === '' ? undefined : JSON.parse(text));
      const [status, body] = answer ?? [404, { detail: `nothing at ${name}` }];
      return new Response(body === undefined ? null : JSON.stringify(body), {
        status,
        headers: { 'content-type': 'application/json' },
      });
    }) as typeof fetch;
  });
  afterEach(() => {
    globalThis.fetch = plainFetch;
    globalThis.Request = PlainRequest;
  });
  return server;
}
