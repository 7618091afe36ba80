import { beforeEach, expect, jest, test } from '@jest/globals';
import type { OperationBody } from '@syndeton/contract';
import { makeStore } from '../../app/store.ts';
import { changeDraft, discardDraft, redoLate, redoStep, saveDraft, takeStepBack } from './draftCommands.ts';
import { draftsApi } from './draftsApi.ts';
import { problemLeft, selectSiteDraft } from './draftsSlice.ts';
import { withoutOperation } from './withoutOperation.ts';

const mend = (finding: string): OperationBody => ({ kind: 'mend', finding });

interface Served {
  version: number;
  operations: OperationBody[];
  revision: number;
}

/** A server that holds one draft a site and checks versions as ours does. */
function serve() {
  const sites = new Map<string, Served>();
  const late = new Map<string, OperationBody[]>();
  const asked: string[] = [];
  const of = (id: string): Served => {
    const known = sites.get(id) ?? { version: 0, operations: [], revision: 1 };
    sites.set(id, known);
    return known;
  };
  const reply = (body: unknown, status = 200): Response =>
    new Response(status === 204 ? null : JSON.stringify(body), {
      status,
      headers: { 'content-type': 'application/json' },
    });
  const draftOf = ({ version, operations, revision }: Served) => ({
    base: revision,
    version,
    operations,
    steps: [],
    changes: [],
    sheets: [],
  });
  const answer = async (request: Request): Promise<Response> => {
    const [, id = '', what = ''] = /\/api\/sites\/([^/]+)\/(.*)$/.exec(request.url) ?? [];
    const site = of(id);
    const body = /GET|DELETE/.test(request.method)
      ? undefined
      : ((await request.json()) as { version: number; operations: OperationBody[]; redo: string });
    // slow enough for a second act to come before the first has come back
    await new Promise((done) => setTimeout(done, 20));
    asked.push(`${request.method} ${id} ${what}`);
    if (what === 'draft/redo' && site.operations.length > 3)
      return reply({ detail: 'it does not fit any more', code: 'operation-refused' }, 422);
    if (what === 'draft/redo') {
      Object.assign(site, { version: site.version + 1, operations: [...site.operations, ...late.get(body!.redo)!] });
      return reply(draftOf(site));
    }
    if (request.method === 'DELETE') {
      const seen = Number(new URL(request.url).searchParams.get('version'));
      if (seen !== site.version) return reply({ detail: 'changed meanwhile', code: 'draft-changed' }, 409);
      Object.assign(site, { version: site.version + 1, operations: [] });
      return reply(undefined, 204);
    }
    if (body && body.version !== site.version) {
      late.set('late-1', body.operations);
      return reply({ detail: 'changed meanwhile', code: 'draft-changed', redo: 'late-1' }, 409);
    }
    if (request.method === 'PUT') Object.assign(site, { version: site.version + 1, operations: body!.operations });
    if (what === 'revisions') {
      Object.assign(site, { version: site.version + 1, operations: [], revision: site.revision + 1 });
      return reply({ number: site.revision, changedFiles: 1 }, 201);
    }
    return reply(draftOf(site));
  };
  globalThis.fetch = jest.fn((input: unknown) => answer(input as Request)) as unknown as typeof fetch;
  return { of, asked };
}

// addresses of the API are relative to the page; jsdom's signals are not those of Node's requests
const NodeRequest = globalThis.Request;
globalThis.Request = class extends NodeRequest {
  constructor(input: RequestInfo | URL, init: RequestInit = {}) {
    super(new URL(String(input), 'http://127.0.0.1'), { ...init, signal: null });
  }
};

let server: ReturnType<typeof serve>;
beforeEach(() => {
  server = serve();
});
const findings = (id: string): string =>
  server
    .of(id)
    .operations.map((o) => (o.kind === 'mend' ? o.finding : ''))
    .join('');

test('a quick second choice goes on from the first, whoever asks', async () => {
  const store = makeStore();
  await Promise.all(['a', 'b', 'c'].map((one) => store.dispatch(changeDraft('s', (now) => [...now, mend(one)]))));
  expect(findings('s')).toBe('abc');
});

test('what is pending for one site never reaches another', async () => {
  const store = makeStore();
  await Promise.all([
    store.dispatch(changeDraft('s', (now) => [...now, mend('a')])),
    store.dispatch(changeDraft('t', (now) => [...now, mend('b')])),
  ]);
  expect([findings('s'), findings('t')]).toEqual(['a', 'b']);
});

test('saving waits for what is pending', async () => {
  const store = makeStore();
  await Promise.all([store.dispatch(changeDraft('s', (now) => [...now, mend('a')])), store.dispatch(saveDraft('s'))]);
  expect([server.of('s').revision, findings('s')]).toEqual([2, '']);
  expect(server.asked.filter((one) => !one.startsWith('GET'))).toEqual(['PUT s draft', 'POST s revisions']);
});

test('another window changed the draft: refused, said, and redone on top by the server', async () => {
  const store = makeStore();
  // a station shows the draft
  await store.dispatch(draftsApi.endpoints.draft.initiate('s'));
  await store.dispatch(changeDraft('s', (now) => [...now, mend('a')]));
  await Promise.all(store.dispatch(draftsApi.util.getRunningQueriesThunk()));
  Object.assign(server.of('s'), { version: 7, operations: [mend('x')] });
  await expect(store.dispatch(changeDraft('s', (now) => [...now, mend('b')]))).rejects.toMatchObject({ status: 409 });
  expect(selectSiteDraft(store.getState(), 's')).toEqual({
    pending: 0,
    problem: { detail: 'changed meanwhile', late: true, redo: 'late-1' },
    undone: [],
  });
  expect(findings('s')).toBe('x');
  await store.dispatch(redoLate('s'));
  expect([findings('s'), selectSiteDraft(store.getState(), 's').problem]).toEqual(['xab', undefined]);
});

test('what cannot be redone now stays there to be redone later', async () => {
  const store = makeStore();
  await store.dispatch(draftsApi.endpoints.draft.initiate('s'));
  Object.assign(server.of('s'), { version: 7, operations: ['w', 'x', 'y', 'z'].map(mend) });
  await expect(store.dispatch(changeDraft('s', (now) => [...now, mend('b')]))).rejects.toMatchObject({ status: 409 });
  await expect(store.dispatch(redoLate('s'))).rejects.toMatchObject({ status: 422 });
  expect(selectSiteDraft(store.getState(), 's').problem).toEqual({
    detail: 'it does not fit any more',
    late: true,
    redo: 'late-1',
  });
  Object.assign(server.of('s'), { operations: [mend('x')] });
  await store.dispatch(redoLate('s'));
  expect([findings('s'), selectSiteDraft(store.getState(), 's').problem]).toEqual(['xb', undefined]);
});

test('a change that is refused keeps none of those behind it waiting', async () => {
  const store = makeStore();
  await store.dispatch(changeDraft('s', (now) => [...now, mend('a')]));
  const refused = store.dispatch(
    changeDraft('s', () => {
      throw new Error('no');
    }),
  );
  const next = store.dispatch(changeDraft('s', (now) => [...now, mend('b')]));
  await expect(refused).rejects.toThrow('no');
  await next;
  expect(findings('s')).toBe('ab');
});

test.each([
  ['where it was seen', ['a', 'b', 'c'], 'b', 1, ['a', 'c']],
  ['where it stands by now', ['b', 'c'], 'b', 1, ['c']],
  ['gone already', ['a', 'c'], 'b', 1, ['a', 'c']],
])('an operation is taken out %s', (_shows, now, seen, index, left) => {
  expect(withoutOperation(now.map(mend), mend(seen), index)).toEqual(left.map(mend));
});

test('a plan is one step: taken back with one act, and put back with one while nothing else was done', async () => {
  const store = makeStore();
  const server = serve();
  const sheet: OperationBody = {
    kind: 'gather-sheet',
    sheet: 'a.css',
    pages: ['a.html'],
    rules: [{ family: 'p', version: 'top:0' }],
  };
  const plan: OperationBody[] = [sheet, { kind: 'gather-attributes', sheet: 'a.css' }];
  const kinds = (): string =>
    server
      .of('s')
      .operations.map(({ kind }) => kind)
      .join(' ');
  await store.dispatch(changeDraft('s', () => [mend('a'), ...plan]));
  await store.dispatch(takeStepBack('s'));
  expect(kinds()).toBe('mend');
  await store.dispatch(redoStep('s'));
  expect(kinds()).toBe('mend gather-sheet gather-attributes');
  await store.dispatch(takeStepBack('s'));
  await store.dispatch(changeDraft('s', (now) => [...now, mend('b')]));
  await store.dispatch(redoStep('s'));
  expect(kinds()).toBe('mend mend');
});

const late = [
  ['a save', () => saveDraft('s')],
  ['a change', () => changeDraft('s', (now) => [...now, mend('b')])],
] as const;
const meant = [
  ['a save', () => saveDraft('s'), [2, '']],
  ['discarding', () => discardDraft('s'), [1, '']],
  ['taking the last step back', () => takeStepBack('s'), [1, '']],
] as const;

test.each(late.flatMap((one) => meant.map(([what, second, then]) => [one[0], what, one[1], second, then] as const)))(
  'behind %s that comes too late %s does nothing: what is there now was not seen',
  async (_first, _second, first, second, then) => {
    const store = makeStore();
    await store.dispatch(draftsApi.endpoints.draft.initiate('s'));
    await store.dispatch(changeDraft('s', (now) => [...now, mend('a')]));
    await Promise.all(store.dispatch(draftsApi.util.getRunningQueriesThunk()));
    Object.assign(server.of('s'), { version: 7, operations: [mend('x')] });
    const done = await Promise.allSettled([store.dispatch(first()), store.dispatch(second())]);
    expect(done.map(({ status }) => status)).toEqual(['rejected', 'rejected']);
    expect([server.of('s').revision, findings('s')]).toEqual([1, 'x']);
    // it is still said, and once that is left it can be done
    expect(selectSiteDraft(store.getState(), 's')).toMatchObject({ pending: 0, problem: { late: true } });
    store.dispatch(problemLeft('s'));
    await store.dispatch(second());
    expect([server.of('s').revision, findings('s')]).toEqual(then);
  },
);
