import { describe, expect, test } from '@jest/globals';
import request from 'supertest';
import type { Manifest } from './stores/revisionStore.ts';
import { makeSiteTasks } from './analysis/siteTasks.ts';
import { siteApi } from './testing/siteApi.ts';
import { useApp } from './testing/useApp.ts';

/** One site, one request, one thread that misbehaves costs only itself. */
const app = useApp({ heap: 300 });
const api = siteApi(app);
const plain = [{ path: 'a.html', content: '<style>p{color:red}</style><p>x' }];
const names = (n: number, write: (i: number) => string): string =>
  Array.from({ length: n }, (_, i) => write(i)).join('');

describe('a page made to hurt', () => {
  const n = 100_000;
  test.each([
    ['unclosed formatting elements with styles', names(n, () => '<b style="color:red">')],
    [
      'a rule for each element',
      `<style>${names(n / 5, (i) => `.c${i}{top:0}`)}</style>${names(n / 5, (i) => `<p class=c${i}>`)}`,
    ],
    [
      'elements that ask for their place',
      `<style>p:nth-last-child(2 of p), p:nth-last-of-type(2n), p:has(~ b) {top:0}</style>${names(n, () => '<p>')}`,
    ],
  ])('%s: it is answered or refused in words, and others do not wait', async (_shows, content) => {
    const [id, other] = await Promise.all([api.bringIn([{ path: 'a.html', content }]), api.bringIn(plain)]);
    const asked = Promise.all(
      ['attributes', 'survey', 'overrides', 'page?path=a.html'].map((what) =>
        request(app()).get(`/api/sites/${id}/revisions/1/${what}`),
      ),
    );
    let isDone = false;
    void asked.then(() => (isDone = true));
    const others = await Promise.all([
      request(app()).get(`/preview/${other}/r1/a.html`),
      request(app()).get(`/preview/${id}/r1/a.html`),
      request(app()).get(`/api/sites/${other}/revisions/1/attributes`),
      request(app()).get('/api/health'),
    ]);
    expect(others.map(({ status }) => status)).toEqual([200, 200, 200, 200]);
    expect(isDone).toBe(false);
    for (const reply of await asked) {
      expect([200, 422]).toContain(reply.status);
      if (reply.status === 422) expect((reply.body as { code: string }).code).toBe('too-much');
    }
    expect((await request(app()).get(`/api/sites/${id}`)).status).toBe(200);
  });
});

test('a read that failed once does not stay failed', async () => {
  let fails = true;
  const manifest = (): Promise<Manifest> =>
    fails ? Promise.reject(new Error('a hiccup')) : Promise.resolve({ 'a.html': 'h' });
  const tasks = makeSiteTasks({
    steps: () => Promise.resolve([]),
    manifest,
    decisions: () => Promise.resolve({ absent: [], leftOut: [] }),
    readBlobs: () => Promise.resolve(new Map([['h', Buffer.from('<p>')]])),
  });
  const state = { siteId: 's', number: 1, operations: [] };
  const step = (): void => undefined;
  await expect(tasks.draft({ state, have: [] }, step)).rejects.toThrow('a hiccup');
  fails = false;
  expect((await tasks.draft({ state, have: [] }, step)).draft.operations).toEqual([]);
});
