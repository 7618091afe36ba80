import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { describe, expect, test } from '@jest/globals';
import request from 'supertest';
import { addresses, needs, People, Problem, SiteRights, Tokens, Who, type RouteName } from '@syndeton/contract';
import { hashPassword, isPassword } from './people/passwords.ts';
import { expectSchema } from './testing/expectSchema.ts';
import { makeZip } from './testing/makeZip.ts';
import { makeSequelizePeopleStore } from './stores/sequelizePeopleStore.ts';
import { useApp, useDatabase } from './testing/useApp.ts';

const app = useApp({}, { accounts: true });
const database = useDatabase();
const password = 'salt and rope 9';
let names = 0;

/** Somebody new who signs in; what stands for that person. The password is kept cheaply: this is done a hundred times. */
async function somebody(isAdministrator = false): Promise<{ name: string; id: string; cookie: string }> {
  const name = `Mara ${++names} ${Math.random()}`;
  const kept = await hashPassword(password, 1024);
  const { id } = (await makeSequelizePeopleStore(database()).add({ name, password: kept, isAdministrator }))!;
  return { name, id, cookie: await signedIn(name) };
}

async function signedIn(name: string, typed = password): Promise<string> {
  const reply = await request(app()).post('/api/session').send({ name, password: typed });
  expectSchema(Who, reply.body);
  return reply.headers['set-cookie']![0]!.split(';')[0]!;
}

const as = (cookie: string | undefined) => {
  const agent = (method: 'get' | 'post' | 'put' | 'patch' | 'delete', path: string) => {
    const asked = request(app())[method](path);
    return cookie === undefined ? asked : asked.set('cookie', cookie);
  };
  return agent;
};

async function siteOf(cookie: string): Promise<string> {
  const archive = await makeZip([{ path: 'a.html', content: '<!DOCTYPE html><style>p { top: 0 }</style><p>x' }]);
  const reply = await as(cookie)('post', '/api/sites').field('name', 'Theirs').attach('archive', archive, 'x.zip');
  expect(reply.status).toBe(201);
  return (reply.body as { id: string }).id;
}

const give = (owner: string, site: string, name: string, right: string) =>
  as(owner)('put', `/api/sites/${site}/people`).send({ name, right });

/** The address of a route for one site; whatever else is in it may be wrong. */
const pathOf = (name: RouteName, site: string): string =>
  addresses[name][1]
    .replace(':id', site)
    .replace(':number', '1')
    .replace(':state', 'r1')
    .replace(':format', 'html')
    .replace(':person', site)
    .replace(':token', site)
    .replace('*path', 'a.html');

async function statusOf(cookie: string | undefined, name: RouteName, site: string): Promise<number> {
  if (name.startsWith('follow')) return followed(cookie, name, site);
  const reply = await as(cookie)(addresses[name][0], pathOf(name, site));
  if (reply.status >= 400 && reply.status < 500) expectSchema(Problem, reply.body);
  return reply.status;
}

/** A stream of events does not end: its head is enough. */
async function followed(cookie: string | undefined, name: RouteName, site: string): Promise<number> {
  const server = app().listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  const stop = new AbortController();
  try {
    const headers = new Headers(cookie === undefined ? {} : { cookie });
    return (await fetch(`http://127.0.0.1:${port}${pathOf(name, site)}`, { headers, signal: stop.signal })).status;
  } finally {
    stop.abort();
    server.closeAllConnections();
    server.close();
  }
}

const all = Object.keys(addresses) as RouteName[];
const ofSites = all.filter((name) => /^(read|edit|own)$/.test(needs[name]));

describe('each route', () => {
  test('without signing in', async () => {
    const owner = await somebody();
    const site = await siteOf(owner.cookie);
    for (const name of all.filter((one) => needs[one] !== 'anyone'))
      expect([name, await statusOf(undefined, name, site)]).toEqual([name, 401]);
    expect((await request(app()).get(`/preview/${site}/r1/a.html`)).status).toBe(401);
  });

  test("with another's right there is no such site", async () => {
    const [owner, other] = [await somebody(), await somebody()];
    const site = await siteOf(owner.cookie);
    await siteOf(other.cookie);
    for (const name of ofSites) expect([name, await statusOf(other.cookie, name, site)]).toEqual([name, 404]);
    expect((await as(other.cookie)('get', `/preview/${site}/r1/a.html`)).status).toBe(404);
    const mine = (await as(other.cookie)('get', '/api/sites')).body as { sites: { id: string }[] };
    expect(mine.sites.map(({ id }) => id)).not.toContain(site);
    for (const name of all.filter((one) => needs[one] === 'administrator'))
      expect([name, await statusOf(other.cookie, name, site)]).toEqual([name, 403]);
  });

  test('who may look may not change, and who may change owns nothing', async () => {
    const [owner, reader, editor] = [await somebody(), await somebody(), await somebody()];
    const site = await siteOf(owner.cookie);
    await give(owner.cookie, site, reader.name, 'read');
    await give(owner.cookie, site, editor.name, 'edit');
    for (const name of ofSites) {
      const right = needs[name];
      const [looked, changed] = [
        await statusOf(reader.cookie, name, site),
        right === 'own' ? await statusOf(editor.cookie, name, site) : 0,
      ];
      expect([name, looked === 403]).toEqual([name, right !== 'read']);
      if (right === 'own') expect([name, changed]).toEqual([name, 403]);
    }
    expect((await as(reader.cookie)('get', `/preview/${site}/r1/a.html`)).status).toBe(200);
    const put = await as(editor.cookie)('put', `/api/sites/${site}/draft`).send({
      base: 1,
      version: 0,
      operations: [{ kind: 'gather-rules', sheet: 'css/all.css' }],
    });
    expect([put.status, (put.body as { detail?: string }).detail]).toEqual([200, undefined]);
  });

  test('with a right just taken away', async () => {
    const [owner, other] = [await somebody(), await somebody()];
    const site = await siteOf(owner.cookie);
    await give(owner.cookie, site, other.name, 'own');
    expect((await as(other.cookie)('get', `/api/sites/${site}`)).status).toBe(200);
    await give(owner.cookie, site, other.name, 'none');
    for (const name of ofSites) expect([name, await statusOf(other.cookie, name, site)]).toEqual([name, 404]);
  });
});

test('another site that a site is held against has to be one that may be seen', async () => {
  const [owner, other] = [await somebody(), await somebody()];
  const [theirs, mine] = [await siteOf(owner.cookie), await siteOf(other.cookie)];
  const compare = (cookie: string) => as(cookie)('get', `/api/sites/${mine}/revisions/1/proof?against=${theirs}`);
  expect((await compare(other.cookie)).status).toBe(404);
  await give(owner.cookie, theirs, other.name, 'read');
  expect((await compare(other.cookie)).status).toBe(200);
});

test('signing in and out; what stands for somebody is a cookie no script reads and no other site sends', async () => {
  const { name, cookie } = await somebody();
  const reply = await request(app()).post('/api/session').send({ name: name.toUpperCase(), password });
  expect(reply.headers['set-cookie']![0]).toMatch(/^syndeton=[\w-]{43}; .*HttpOnly; SameSite=Strict$/);
  const wrong = await request(app()).post('/api/session').send({ name, password: 'salt and rope 8' });
  const nobody = await request(app()).post('/api/session').send({ name: 'Nobody', password });
  expect([wrong.status, wrong.body]).toEqual([401, nobody.body]);
  expect((await as(cookie)('get', '/api/who')).body).toMatchObject({ accounts: true, person: { name } });
  expect((await as(undefined)('get', '/api/who')).body).toEqual({ accounts: true, person: null });
  await as(cookie)('delete', '/api/session');
  expect((await as(cookie)('get', '/api/sites')).status).toBe(401);
});

test('a changed password signs out elsewhere; the old one is asked for, a short one refused', async () => {
  const { name, cookie } = await somebody();
  const elsewhere = await signedIn(name);
  const change = (old: string, next: string) =>
    as(cookie)('put', '/api/session/password').send({ old, password: next });
  expect((await change('something else', 'another password')).status).toBe(403);
  expect((await change(password, 'short')).status).toBe(400);
  expect((await change(password, 'another password')).status).toBe(204);
  expect((await as(cookie)('get', '/api/sites')).status).toBe(200);
  expect((await as(elsewhere)('get', '/api/sites')).status).toBe(401);
  await signedIn(name, 'another password');
});

test('keys for the API: told once, taken back, none of anybody else', async () => {
  const [owner, other] = [await somebody(), await somebody()];
  const made = await as(owner.cookie)('post', '/api/tokens').send({ label: 'build server' });
  const { id, token } = made.body as { id: string; token: string };
  const asked = () => request(app()).get('/api/sites').set('authorization', `Bearer ${token}`);
  expect((await asked()).status).toBe(200);
  const list = (await as(owner.cookie)('get', '/api/tokens')).body as { tokens: object[] };
  expectSchema(Tokens, list);
  expect(JSON.stringify(list)).not.toContain(token);
  expect((await as(other.cookie)('delete', `/api/tokens/${id}`)).status).toBe(404);
  expect((await as(owner.cookie)('delete', `/api/tokens/${id}`)).status).toBe(204);
  expect((await asked()).status).toBe(401);
});

test('people are let in, given another password and removed by an administrator; what they did stays', async () => {
  const admin = await somebody(true);
  const add = (name: string) => as(admin.cookie)('post', '/api/people').send({ name, password });
  const name = `Joss ${Math.random()}`;
  const joss = (await add(name)).body as { id: string };
  expect((await add(name.toLowerCase())).status).toBe(409);
  expectSchema(People, (await as(admin.cookie)('get', '/api/people')).body);
  const cookie = await signedIn(name);
  const site = await siteOf(cookie);
  expect((await as(cookie)('get', `/api/sites/${site}`)).body).toMatchObject({ revisions: [{ by: name }] });
  await as(admin.cookie)('put', `/api/people/${joss.id}/password`).send({ password: 'given by another' });
  expect((await as(cookie)('get', '/api/sites')).status).toBe(401);
  const again = await signedIn(name, 'given by another');
  expect((await as(admin.cookie)('delete', `/api/people/${joss.id}`)).status).toBe(204);
  expect((await as(again)('get', '/api/sites')).status).toBe(401);
  expect((await as(admin.cookie)('delete', `/api/people/${joss.id}`)).status).toBe(404);
  expect((await as(admin.cookie)('get', `/api/sites/${site}`)).body).toMatchObject({ revisions: [{ by: name }] });
});

test('rights are given by name; a site is always owned by somebody', async () => {
  const [owner, other] = [await somebody(), await somebody()];
  const site = await siteOf(owner.cookie);
  expect((await give(owner.cookie, site, 'Nobody at all', 'read')).status).toBe(404);
  expect((await give(owner.cookie, site, owner.name, 'edit')).status).toBe(409);
  const given = await give(owner.cookie, site, other.name, 'own');
  expectSchema(SiteRights, given.body);
  expect(given.body).toMatchObject({ mine: 'own', rights: [{ right: 'own' }, { right: 'own' }] });
  expect((await give(owner.cookie, site, owner.name, 'read')).body).toMatchObject({ mine: 'read' });
  expect((await give(owner.cookie, site, owner.name, 'own')).status).toBe(403);
});

test('a site on its way in is seen by who brings it in', async () => {
  const [owner, other] = [await somebody(), await somebody()];
  const archive = await makeZip([{ path: 'a.html', content: '<!DOCTYPE html><p>x' }]);
  const started = await as(owner.cookie)('post', '/api/imports')
    .field('name', 'Coming')
    .attach('archive', archive, 'x.zip');
  const { id } = started.body as { id: string };
  expect((await as(owner.cookie)('get', `/api/imports/${id}`)).status).toBe(200);
  expect((await as(other.cookie)('get', `/api/imports/${id}`)).status).toBe(404);
  expect((await as(other.cookie)('get', '/api/imports')).body).toEqual({ imports: [] });
  for (let i = 0; i < 200; i++) {
    const { siteId } = (await as(owner.cookie)('get', `/api/imports/${id}`)).body as { siteId?: string };
    if (siteId !== undefined) {
      expect((await as(owner.cookie)('get', `/api/sites/${siteId}`)).status).toBe(200);
      return;
    }
    await new Promise((f) => setTimeout(f, 50));
  }
  throw new Error('the site did not come');
});

test('of a password only what cannot be turned back is kept, another time another', async () => {
  const [one, two] = [await hashPassword('salt and rope'), await hashPassword('salt and rope')];
  expect(one).not.toBe(two);
  expect(one).not.toContain('salt');
  expect([
    await isPassword('salt and rope', one),
    await isPassword('salt and rop', one),
    await isPassword('', undefined),
  ]).toEqual([true, false, false]);
});

test('ten wrong passwords for a name, and no more are tried, from wherever they come', async () => {
  const { name } = await somebody();
  const statuses: number[] = [];
  for (let i = 0; i < 11; i++) statuses.push((await request(app()).post('/api/session').send({ name, password: `wrong ${i} wrong` })).status);
  expect(new Set(statuses.slice(0, 8))).toEqual(new Set([401]));
  expect(statuses.at(-1)).toBe(429);
}); // oxfmt-ignore
