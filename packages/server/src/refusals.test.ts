import { connect } from 'node:net';
import type { AddressInfo } from 'node:net';
import { beforeAll, describe, expect, test } from '@jest/globals';
import request from 'supertest';
import { addresses, addressOf, Problem, routes, type Route, type RouteName } from '@syndeton/contract';
import { hostNames } from './http/guards.ts';
import { expectSchema } from './testing/expectSchema.ts';
import { makeZip } from './testing/makeZip.ts';
import { siteApi } from './testing/siteApi.ts';
import { useApp } from './testing/useApp.ts';

/** Every request that cannot be carried out says so: its status, its code, and words. */
const app = useApp();
const api = siteApi(app);

const html = (style: string): string =>
  `<!DOCTYPE html>\r\n<title>t</title>\r\n<style>${style}</style>\r\n<h1>h</h1><p>é</p>`;
const files = [
  { path: 'a.html', content: html('p{color:red}') },
  { path: 'sub/b.html', content: html('p{color:red}\nh1{color:blue}') },
];
const nowhere = '00000000-0000-4000-8000-000000000000';
const bringIn = (name: string): Promise<string> => api.bringIn(files, name);

describe('refusals', () => {
  let id = '';
  beforeAll(async () => {
    id = await bringIn('Refusals');
  });
  test.each([
    ['no such site', 'get', '/api/sites/x', undefined, 404, 'site-not-found'],
    ['no such site, well formed', 'get', `/api/sites/${nowhere}`, undefined, 404, 'site-not-found'],
    ['no such revision', 'get', '/api/sites/ID/revisions/9/archive', undefined, 404, 'revision-not-found'],
    [
      'a revision that is no number',
      'get',
      '/api/sites/ID/revisions/one/archive',
      undefined,
      404,
      'revision-not-found',
    ],
    ['no such file', 'get', '/api/sites/ID/files/r1/none.css', undefined, 404, 'file-not-found'],
    ['no such address', 'get', '/api/nothing', undefined, 404, 'file-not-found'],
    ['no such preview', 'get', '/preview/ID/r1/none.html', undefined, 404, 'file-not-found'],
    ['an upload without an archive', 'post', '/api/sites', undefined, 400, 'bad-request'],
    [
      'an unknown operation',
      'put',
      '/api/sites/ID/draft',
      { base: 1, version: 0, operations: [{ kind: 'x' }] },
      400,
      'bad-request',
    ],
    ['an extra field', 'put', '/api/sites/ID/draft', { base: 1, version: 0, operations: [], x: 1 }, 400, 'bad-request'],
    [
      'an unsafe sheet name',
      'put',
      '/api/sites/ID/draft',
      { base: 1, version: 0, operations: [{ kind: 'gather-rules', sheet: 'a b.css' }] },
      422,
      'operation-refused',
    ],
    [
      'a link to no sheet',
      'put',
      '/api/sites/ID/draft',
      { base: 1, version: 0, operations: [{ kind: 'link-sheet', sheet: 'none.css', place: { at: 'last' } }] },
      422,
      'operation-refused',
    ],
    [
      'no such element',
      'get',
      '/api/sites/ID/revisions/1/element?path=a.html&element=x',
      undefined,
      404,
      'file-not-found',
    ],
    [
      'a selector browsers refuse',
      'get',
      '/api/sites/ID/revisions/1/question?selector=h1%7B&property=color',
      undefined,
      422,
      'question-refused',
    ],
    [
      'no such property',
      'get',
      '/api/sites/ID/revisions/1/question?selector=h1&property=colour',
      undefined,
      422,
      'question-refused',
    ],
    ['no such medium', 'get', '/api/sites/ID/revisions/1/overrides?medium=tv', undefined, 400, 'bad-request'],
    ['a width that is none', 'get', '/api/sites/ID/revisions/1/overrides?width=wide', undefined, 400, 'bad-request'],
    ['no value', 'get', '/api/sites/ID/revisions/1/value?value=', undefined, 400, 'bad-request'],
    ['a note on nothing', 'put', '/api/sites/ID/notes', { note: 'x' }, 400, 'bad-request'],
    ['an old base', 'put', '/api/sites/ID/draft', { base: 7, version: 0, operations: [] }, 409, 'site-changed'],
    ['saving nothing', 'post', '/api/sites/ID/revisions', { base: 1, version: 0 }, 409, 'draft-empty'],
  ] as const)('%s', async (_shows, method, path, body, status, code) => {
    const reply = await request(app())[method](path.replace('ID', id)).send(body);
    expect([reply.status, (reply.body as { code: string }).code]).toEqual([status, code]);
    expect(reply.headers['content-type']).toContain('application/problem+json');
    expectSchema(Problem, reply.body);
  });
  test('a body that is no JSON', async () => {
    const reply = await request(app()).put(`/api/sites/${id}/draft`).set('content-type', 'application/json').send('{');
    expect(reply.status).toBe(400);
  });
  test('a broken archive leaves nothing behind', async () => {
    // other test files bring sites into the same database meanwhile
    const reply = await request(app())
      .post('/api/sites')
      .field('name', 'Broken archive')
      .attach('archive', Buffer.from('PK no'), 'x.zip');
    expect(reply.status).toBe(400);
    const { sites } = (await request(app()).get('/api/sites')).body as { sites: readonly { name: string }[] };
    expect(sites.filter(({ name }) => name === 'Broken archive')).toEqual([]);
    expect(sites.filter(({ name }) => name === 'Refusals')).not.toEqual([]);
  });
  test('an archive without a page', async () => {
    const reply = await request(app())
      .post('/api/sites')
      .attach('archive', await makeZip([{ path: 'a.txt', content: '' }]), 'x.zip');
    expect((reply.body as { detail: string }).detail).toContain('There is no page in it');
  });
  test('another host, and a page of another site', async () => {
    expect((await request(app()).get('/api/sites').set('host', 'evil.example')).status).toBe(403);
    expect((await request(app()).delete(`/api/sites/${id}`).set('origin', 'http://evil.example')).status).toBe(403);
    // an old form sends no Origin; browsers say where it comes from all the same
    for (const from of ['cross-site', 'same-site'])
      expect((await request(app()).delete(`/api/sites/${id}`).set('sec-fetch-site', from)).status).toBe(403);
    // what a page of another site asks for it cannot read, nor show in a frame
    const { headers } = await request(app())
      .get('/api/sites')
      .set('sec-fetch-site', 'cross-site')
      .set('origin', 'http://evil.example');
    expect(headers['access-control-allow-origin']).toBeUndefined();
    expect(headers['content-security-policy']).toContain("frame-ancestors 'self'");
    expect(hostNames(' Ferry.Example , ,10.0.0.7')).toEqual(['ferry.example', '10.0.0.7']);
  });
  test('a site can be removed', async () => {
    const gone = await bringIn('Gone');
    expect((await request(app()).delete(`/api/sites/${gone}`)).status).toBe(204);
    expect((await request(app()).get(`/api/sites/${gone}`)).status).toBe(404);
  });
});

const names = Object.keys(addresses) as RouteName[];
/** A request with everything that a route asks for, as good as it gets without knowing a site. */
const good: { readonly [Name in RouteName]?: { readonly query?: object; readonly body?: object } } = {
  signIn: { body: { name: 'x', password: 'y' } },
  changePassword: { body: { old: 'x', password: 'ten letters' } },
  addPerson: { body: { name: 'x', password: 'ten letters' } },
  setPassword: { body: { password: 'ten letters' } },
  makeToken: { body: { label: 'x' } },
  setRight: { body: { name: 'x', right: 'read' } },
  renameSite: { body: { name: 'x' } },
  removeFiles: { body: { base: 1, paths: ['a.html'] } },
  takeInFile: { body: { base: 1, path: 'a.html' } },
  readAsPages: { body: { base: 1, endings: ['php'] } },
  readPage: { query: { path: 'a.html' } },
  readElement: { query: { path: 'a.html', element: 'html' } },
  askQuestion: { query: { selector: 'p', property: 'color' } },
  findValue: { query: { value: 'red' } },
  readSheet: { query: { path: 's.css' } },
  readRule: { query: { path: 's.css', start: 0 } },
  matchSelector: { query: { selector: 'p' } },
  writeNote: { body: { override: 'x', note: 'y' } },
  replaceDraft: { body: { base: 1, version: 0, operations: [] } },
  dropDraft: { query: { version: 0 } },
  redoDraft: { body: { redo: nowhere } },
  propose: { body: { base: 1, sheet: 'css/x.css' } },
  tryOperations: { body: { base: 1, version: 0, operations: [] } },
  saveDraft: { body: { base: 1, version: 0 } },
  askMachine: { body: { protocol: 'sftp', host: '127.0.0.1', port: 1 } },
  startUpload: {
    body: {
      protocol: 'sftp',
      host: '127.0.0.1',
      port: 1,
      user: 'x',
      password: 'y',
      folder: '/',
      key: 'SHA256:x',
      since: 1,
    },
  },
  fitRecipe: { body: { base: 1, version: 0, recipe: { recipe: 1, name: 'x', steps: [] } } },
  restoreRevision: { body: { base: 1 } },
  wordRevision: { body: { message: 'x' } },
  takeOutOperation: { body: { base: 1, operation: 0 } },
};

async function ask(
  name: RouteName,
  params: object,
  { query = {}, body }: { readonly query?: object; readonly body?: object } = good[name] ?? {},
) {
  const [method] = addresses[name];
  const sent = request(app())[method](addressOf(name, params as never, query as never));
  if (!(routes[name] as Route).fields) return sent.send(body);
  return sent.field('base', '1').attach('archive', await makeZip(files), 'x.zip');
}

describe('every route', () => {
  let id = '';
  beforeAll(async () => {
    id = await bringIn('Every route');
  });
  // rights are for where there are accounts: people.test.ts
  const withSite = names.filter(
    (name) => addresses[name][1].startsWith('/api/sites/:id') && !/^(list|set)Right/.test(name),
  );
  const wanted = { format: 'html', number: '1', state: 'r1', path: 'a.html' };

  test.each(withSite)('%s of a site that is not there', async (name) => {
    for (const site of [nowhere, 'x', "'; DROP TABLE site"]) {
      const reply = await ask(name, { ...wanted, id: site });
      expectSchema(Problem, reply.body);
      expect([name, reply.status, (reply.body as { code: string }).code]).toEqual([name, 404, 'site-not-found']);
    }
  });

  test.each(withSite.filter((name) => /:number|:state/.test(addresses[name][1])))(
    '%s of a revision that is not there',
    async (name) => {
      for (const number of ['9', '999999999', '0', 'one', '1e3']) {
        const reply = await ask(name, { ...wanted, id, number, state: number === '9' ? 'r9' : number });
        expect([name, number, reply.status]).toEqual([name, number, 404]);
      }
    },
  );

  test.each(names.filter((name) => 'body' in routes[name]))('%s with a body that is not as described', async (name) => {
    for (const body of [undefined, {}, [], 'text', { nobody: 'knows' }, { ...good[name]!.body, nobody: 'knows' }]) {
      const reply = await ask(name, { ...wanted, id }, { ...good[name], body: body as object });
      expect([name, body, reply.status]).toEqual([name, body, 400]);
    }
  });

  test.each(names.filter((name) => 'query' in routes[name]))(
    '%s with a query that is not as described',
    async (name) => {
      const query = { ...good[name]?.query, nobody: 'knows' };
      expect((await ask(name, { ...wanted, id }, { query })).status).toBe(400);
    },
  );

  test.each<[RouteName, object]>([
    ['removeFiles', { body: { base: 7, paths: ['a.html'] } }],
    ['takeInFile', { body: { base: 7, path: 'a.html' } }],
    ['readAsPages', { body: { base: 7, endings: ['php'] } }],
    ['replaceDraft', { body: { base: 7, version: 0, operations: [] } }],
    ['replaceDraft', { body: { base: 1, version: 7, operations: [] } }],
    ['dropDraft', { query: { version: 7 } }],
    ['propose', { body: { base: 7, sheet: 'css/x.css' } }],
    ['saveDraft', { body: { base: 7, version: 0 } }],
    ['saveDraft', { body: { base: 1, version: 7 } }],
    ['saveDraft', { body: { base: 1, version: 0 } }],
    ['restoreRevision', { body: { base: 7 } }],
    ['takeOutOperation', { body: { base: 7, operation: 0 } }],
    ['fitRecipe', { body: { base: 1, version: 7, recipe: { recipe: 1, name: 'x', steps: [] } } }],
  ])('%s on a state that is not there (%j): told what there is', async (name, given) => {
    const reply = await ask(name, { ...wanted, id }, given);
    expectSchema(Problem, reply.body);
    expect([name, reply.status]).toEqual([name, 409]);
  });

  test('nothing of all this changed the site', async () => {
    const { body } = await request(app()).get(`/api/sites/${id}`);
    expect(body).toMatchObject({ name: 'Every route', revision: 1 });
  });
});

describe('requests nobody should send', () => {
  let id = '';
  beforeAll(async () => {
    id = await bringIn('Odd requests');
  });
  const put = (type: string, text: string | Buffer) =>
    request(app()).put(`/api/sites/${id}/draft`).set('content-type', type).send(text);
  const text = (value: string): string => `{"base":1,"version":0,"operations":[{"kind":"mend","finding":"${value}"}]}`;

  test.each([
    ['a NUL in a text', () => put('application/json', text('\\u0000')), 400],
    ['half of a surrogate pair in a text', () => put('application/json', text('\\ud800')), 400],
    ['a charset nobody knows', () => put('application/json; charset=klingon', text('x')), 400],
    ['an encoding nobody knows', () => put('application/json', text('x')).set('content-encoding', 'zebra'), 400],
    ['a body that is no gzip', () => put('application/json', text('x')).set('content-encoding', 'gzip'), 400],
    ['a bad escape in an address', () => request(app()).get('/api/sites/%E0%A4%A'), 400],
    ['a NUL in an address', () => request(app()).get(`/api/sites/${id}/files/r1/a%00b.css`), 400],
    ['a NUL in a query', () => request(app()).get(`/api/sites/${id}/revisions/1/value?value=%00`), 400],
    ['a bad escape in a preview', () => request(app()).get(`/preview/${id}/r1/%E0%A4%A`), 400],
    ['a NUL in a preview', () => request(app()).get(`/preview/${id}/r1/%00`), 404],
    ['a query sent twice', () => request(app()).get(`/api/sites/${id}/revisions/1/value?value=a&value=b`), 400],
    ['a field sent twice', async () => request(app()).post('/api/sites').field('name', 'a').field('name', 'b').attach('archive', await makeZip(files), 'x.zip'), 400], // oxfmt-ignore
    ['a base sent twice', async () => request(app()).post(`/api/sites/${id}/files`).field('base', '1').field('base', '1').attach('archive', await makeZip(files), 'x.zip'), 400], // oxfmt-ignore
    ['a NUL in a field', async () => request(app()).post('/api/sites').field('name', 'a\0b').attach('archive', await makeZip(files), 'x.zip'), 400], // oxfmt-ignore
    ['a field nobody knows', async () => request(app()).post('/api/sites').field('nobody', '1').attach('archive', await makeZip(files), 'x.zip'), 400], // oxfmt-ignore
    ['two archives', async () => request(app()).post('/api/sites').attach('archive', await makeZip(files), 'x.zip').attach('archive', await makeZip(files), 'y.zip'), 400], // oxfmt-ignore
    ['a form without its boundary', () => request(app()).post('/api/sites').set('content-type', 'multipart/form-data').send('x'), 400], // oxfmt-ignore
    ['a form cut off', () => request(app()).post('/api/imports').set('content-type', 'multipart/form-data; boundary=x').send('--x\r\nContent-Disposition: form-data; name="archive"; filename="a"\r\n\r\nPK'), 400], // oxfmt-ignore
    ['an operation without its plan', async () => api.put(id, [{ kind: 'settle-drift', family: 'p', version: 'none' }]), 422], // oxfmt-ignore
    ['a proposal for a sheet outside', () => request(app()).post(`/api/sites/${id}/proposal`).send({ base: 1, sheet: '../x.css' }), 422], // oxfmt-ignore
    ['a proposal on an old revision', () => request(app()).post(`/api/sites/${id}/proposal`).send({ base: 7, sheet: 'x.css' }), 409], // oxfmt-ignore
    ['blocks to a folder outside', async () => api.put(id, [{ kind: 'gather-blocks', folder: '../x' }]), 422],
  ])('%s', async (_shows, send, status) => {
    const reply = await send();
    expect([reply.status, reply.headers['content-type']]).toEqual([status, expect.stringContaining('problem+json')]);
    expectSchema(Problem, reply.body);
  });

  test('an upload whose sender goes away leaves nothing behind', async () => {
    const server = app().listen(0, '127.0.0.1');
    await new Promise((done) => server.once('listening', done));
    const socket = connect((server.address() as AddressInfo).port, '127.0.0.1');
    socket.write(
      'POST /api/sites HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: multipart/form-data; boundary=x\r\nContent-Length: 99999\r\n\r\n--x\r\n',
    );
    await new Promise((done) => setTimeout(done, 100));
    socket.destroy();
    await new Promise((done) => setTimeout(done, 100));
    await new Promise((done) => server.close(done));
    expect((await request(app()).get('/api/health')).status).toBe(200);
  });
});
