import { expect, test } from '@jest/globals';
import request from 'supertest';
import { FittedRecipe, Problem, Recipe, Report, SiteDetail, type SiteDetailReply } from '@syndeton/contract';
import { expectSchema } from './testing/expectSchema.ts';
import { siteApi } from './testing/siteApi.ts';
import { useApp } from './testing/useApp.ts';

const app = useApp();
const api = siteApi(app);

const page = '<!DOCTYPE html><link rel=stylesheet href=s.css><p class=note>a';
const rename = { kind: 'rename-name', of: 'class', from: 'note', to: 'hint' };
const colour = { kind: 'change-rule', sheet: 's.css', rule: { selector: 'p' }, set: [{ property: 'color', value: 'navy' }] }; // oxfmt-ignore

async function site(): Promise<string> {
  const id = await api.bringIn([
    { path: 'a.html', content: page },
    { path: 's.css', content: 'p { color: red }\n.note { top: 0 }\n' },
  ]);
  await api.put(id, [rename, colour]);
  expect((await api.save(id)).status).toBe(201);
  return id;
}

const detail = async (id: string): Promise<SiteDetailReply> => {
  const { body } = await request(app()).get(`/api/sites/${id}`);
  expectSchema(SiteDetail, body);
  return body as SiteDetailReply;
};
const text = async (id: string, revision: number, path: string): Promise<string> =>
  ((await request(app()).get(`/api/sites/${id}/files/r${revision}/${path}`)).body as { text: string }).text;
const without = (id: string, number: number, body: object) =>
  request(app()).post(`/api/sites/${id}/revisions/${number}/without`).send(body);

test('a revision tells what it did, and takes a name and a note', async () => {
  const id = await site();
  const [newest] = (await detail(id)).revisions;
  expect(newest!.steps).toEqual([expect.stringContaining('note'), 'Let p in s.css say color: navy']);
  const at = `/api/sites/${id}/revisions/2`;
  expect((await request(app()).patch(at).send({ message: 'Hints', note: 'as agreed' })).status).toBe(204);
  expect((await request(app()).patch(at).send({ message: ' ' })).status).toBe(400);
  expect((await detail(id)).revisions[0]).toMatchObject({ message: 'Hints', note: 'as agreed' });
});

test('one operation is taken out of the past: what came after it stands', async () => {
  const id = await site();
  await api.put(id, [
    { kind: 'add-rule', sheet: 's.css', selector: 'b', declarations: [{ property: 'top', value: '1px' }] },
  ]);
  expect((await api.save(id)).status).toBe(201);
  expect((await without(id, 2, { base: 3, operation: 1 })).body).toMatchObject({ number: 4, changedFiles: 1 });
  expect(await text(id, 4, 's.css')).toBe('p { color: red }\n.hint { top: 0 }\nb { top: 1px; }\n');
  expect((await detail(id)).revisions[0]!.message).toBe('Without “Let p in s.css say color: navy” of r2');
  // and the way back
  expect((await request(app()).post(`/api/sites/${id}/revisions/3/restore`).send({ base: 4 })).status).toBe(201);
  expect(await text(id, 5, 's.css')).toContain('navy');
});

test('what later operations need stays, and who needs it is said', async () => {
  const id = await site();
  await api.put(id, [{ kind: 'rename-name', of: 'class', from: 'hint', to: 'tip' }]);
  expect((await api.save(id)).status).toBe(201);
  const refused = await without(id, 2, { base: 3, operation: 0 });
  expectSchema(Problem, refused.body);
  expect(refused.status).toBe(422);
  expect((refused.body as { detail: string }).detail).toContain('r3 needs it');
  expect((await without(id, 2, { base: 3, operation: 7 })).status).toBe(404);
  expect((await without(id, 1, { base: 3, operation: 0 })).status).toBe(404);
  await api.put(id, [colour]);
  expect((await without(id, 2, { base: 3, operation: 1 })).status).toBe(409);
  expect((await detail(id)).revision).toBe(3);
});

test('what an author says about a change of look is kept with the revision', async () => {
  const id = await site();
  await api.put(id, [colour]);
  const { base, version } = await api.draft(id);
  const body = { base, version, note: ' the harbour asked for it ' };
  expect((await request(app()).post(`/api/sites/${id}/revisions`).send(body)).status).toBe(201);
  expect((await detail(id)).revisions[0]!.note).toBe('the harbour asked for it');
});

test('a report of what is handed off, to read and to keep; what was chosen is intended', async () => {
  const id = await site();
  const at = `/api/sites/${id}/revisions/2/report`;
  const { body } = await request(app()).get(at);
  expectSchema(Report, body);
  expect(body).toMatchObject({
    from: 'r1',
    to: 'r2',
    proof: { verdict: 'intended', same: 0 },
    revisions: [{ number: 2, steps: [expect.any(String), 'Let p in s.css say color: navy'] }],
    files: [{ path: 's.css', change: 'edited' }, { path: 'a.html' }],
  });
  const html = await request(app()).get(`${at}/html`);
  expect(html.headers['content-type']).toContain('text/html');
  expect(html.headers['content-security-policy']).toContain("default-src 'none'");
  expect(html.text).toContain('<h1>Test</h1>');
  expect((await request(app()).get(`${at}/csv`)).headers['content-disposition']).toContain('Test-r1-to-r2.csv');
  expect((await request(app()).get(`${at}/doc`)).status).toBe(404);
});

test('what was done is kept as a recipe; on another site what fits is told before anything is in the draft', async () => {
  const id = await site();
  const { body: recipe } = await request(app()).get(`/api/sites/${id}/revisions/2/recipe`);
  expectSchema(Recipe, recipe);
  expect(recipe).toMatchObject({ name: 'Test', steps: [{ operation: rename }, { operation: colour }] });
  const other = await api.bringIn([
    { path: 'x.html', content: page },
    { path: 's.css', content: 'b { top: 0 }' },
  ]);
  const { base, version } = await api.draft(other);
  const fitted = await request(app()).post(`/api/sites/${other}/draft/recipe`).send({ base, version, recipe });
  expectSchema(FittedRecipe, fitted.body);
  expect(fitted.body).toMatchObject({
    operations: [rename],
    misfits: [{ step: 1, why: expect.stringContaining('s.css') }],
  });
  expect((await api.draft(other)).operations).toEqual([]);
});
