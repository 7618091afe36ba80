import { expect, test } from '@jest/globals';
import addFormats from 'ajv-formats';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { addresses, routes, type Route, type RouteName } from '@syndeton/contract';
import { replies } from './recordedSite.tsx';

/** The route of `GET /api/sites/x/revisions/1/page?path=y`. */
function routeOf(request: string): Route {
  const [method = '', address = ''] = request.split(' ');
  const parts = address.replace(/\?.*$/, '').split('/');
  const found = (Object.keys(addresses) as RouteName[]).filter((name) => {
    const [verb, pattern] = addresses[name];
    const wanted = pattern.split('/');
    const fits = wanted.length === parts.length && wanted.every((one, i) => one.startsWith(':') || one === parts[i]);
    return fits && verb.toUpperCase() === method;
  });
  // "demo" is a word of its own where an ID could stand
  return routes[found.at(-1)!];
}

// scripts/recordReplies.mjs asks the server anew
test.each(Object.keys(replies))('%s: what was recorded is what the contract says today', (request) => {
  const { body } = routeOf(request).reply;
  expect(typeof body).toBe('object');
  const ajv = new Ajv2020({ strict: false });
  (addFormats as unknown as { default: (a: Ajv2020) => void }).default(ajv);
  ajv.validate(body as object, replies[request]);
  expect(ajv.errors).toBeNull();
});
