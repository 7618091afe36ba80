import http, { type Server } from 'node:http';
import type { RequestHandler } from 'express';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import { addresses, type RouteName } from '@syndeton/contract';
import type { Analysis } from '../analysis/analysis.ts';

/** What to watch, in the common text format: how long requests take, what runs and waits, memory of the process. */
export interface Metrics {
  /** Counts each request by its name in the contract. */
  readonly count: RequestHandler;
  /** Serves them on loopback alone: who may reach the application need not see them. */
  listen(port: number): Server;
}

const seconds = [0.01, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10, 30, 60, 300];

export function makeMetrics(analysis: Pick<Analysis, 'load'>): Metrics {
  const register = new Registry();
  collectDefaultMetrics({ register });
  const requests = new Histogram({
    name: 'syndeton_request_seconds',
    help: 'Requests by name, method and status, until the last byte was sent',
    labelNames: ['name', 'status'],
    buckets: seconds,
    registers: [register],
  });
  for (const what of ['running', 'waiting'] as const)
    new Gauge({
      name: `syndeton_tasks_${what}`,
      help: `Tasks about sites that are ${what}`,
      registers: [register],
      collect() {
        this.set(analysis.load()[what]);
      },
    });
  return {
    count(request, response, next) {
      const end = requests.startTimer();
      response.once('close', () => end({ name: nameOf(request.method, request.path), status: response.statusCode }));
      next();
    },
    listen(port) {
      const server = http.createServer((request, response) => {
        if (request.url !== '/metrics') {
          response.writeHead(404).end();
          return;
        }
        void register
          .metrics()
          .then((text) => response.writeHead(200, { 'content-type': register.contentType }).end(text));
      });
      return server.listen(port, '127.0.0.1');
    },
  };
}

const patterns = (Object.keys(addresses) as RouteName[]).map((name) => {
  const [method, path] = addresses[name];
  return { name, method, pattern: new RegExp(`^${path.replace(/\*\w+/g, '.+').replace(/:\w+/g, '[^/]+')}$`) };
});

/** Few names, whatever is asked for. */
function nameOf(method: string, path: string): string {
  const found = patterns.find((one) => one.method === method.toLowerCase() && one.pattern.test(path));
  return found?.name ?? (path.startsWith('/preview/') ? 'preview' : path.startsWith('/api/') ? 'unknown' : 'interface');
}
