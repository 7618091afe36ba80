import { describe, expect, test } from '@jest/globals';
import request, { type Response } from 'supertest';
import {
  Draft,
  DraftProof,
  AttributeGroups,
  ElementTable,
  Families,
  Overrides,
  Problem,
  Proposal,
  QuestionAnswer,
  SiteDetail,
  Survey,
  ValuePlaces,
  type DraftReply,
} from '@syndeton/contract';
import { readArchive } from './archive/readArchive.ts';
import { expectSchema } from './testing/expectSchema.ts';
import { makeZip } from './testing/makeZip.ts';
import { siteApi } from './testing/siteApi.ts';
import { useApp } from './testing/useApp.ts';

const app = useApp();
const api = siteApi(app);

const html = (style: string): string =>
  `<!DOCTYPE html>\r\n<title>t</title>\r\n<style>${style}</style>\r\n<h1>h</h1><p>é</p>`;
const files = [
  { path: 'a.html', content: html('p{color:red}') },
  { path: 'sub/b.html', content: html('p{color:red}\nh1{color:blue}') },
  { path: 'img/x.bin', content: Buffer.from([0, 1, 254, 255]) },
];

const bringIn = (name = 'Test'): Promise<string> => api.bringIn(files, name);

async function proved(id: string): ReturnType<typeof api.proved> {
  const proof = await api.proved(id);
  expectSchema(DraftProof, proof);
  return proof;
}

const zipOf = (reply: Response): Promise<Awaited<ReturnType<typeof readArchive>>> => readArchive(reply.body as Buffer);
const download = (path: string) =>
  request(app())
    .get(path)
    .buffer()
    .parse((response, done) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () => done(null, Buffer.concat(parts)));
    });

const gather = { kind: 'gather-rules', sheet: 'css/site' };

describe('the whole way', () => {
  test('in and out at once gives the same bytes', async () => {
    const id = await bringIn();
    const out = await zipOf(await download(`/api/sites/${id}/revisions/1/archive`));
    expect(
      [...out.files].map(([path, bytes]) => [
        path,
        bytes.equals(Buffer.from(files.find((f) => f.path === path)!.content)),
      ]),
    ).toEqual(
      [...files]
        .map((f) => f.path)
        .sort()
        .map((path) => [path, true]),
    );
  });

  test('gather, prove, save, hand off, go back', async () => {
    const id = await bringIn();
    const survey = await request(app()).get(`/api/sites/${id}/revisions/1/survey`);
    expectSchema(Survey, survey.body);
    const families = await request(app()).get(`/api/sites/${id}/revisions/1/families`);
    expectSchema(Families, families.body);
    const attributes = await request(app()).get(`/api/sites/${id}/revisions/1/attributes`);
    expectSchema(AttributeGroups, attributes.body);
    const draft = await api.put(id, [gather]);
    expect(draft.status).toBe(200);
    expectSchema(Draft, draft.body);
    expect((draft.body as DraftReply).steps[0]!.sentence).toBe(
      'Gather 2 rules from 2 pages into css/site.css, a new sheet',
    );
    const proof = await proved(id);
    expect(proof.proof.pages.map((p) => `${p.path} ${p.verdict}`)).toEqual(['a.html differs', 'sub/b.html same']);
    const preview = await request(app()).get(`/preview/${id}/draft/a.html`);
    expect(preview.text).toContain('<link rel="stylesheet" href="css/site.css">');
    expect(preview.headers['content-security-policy']).toContain('sandbox allow-same-origin');
    expect(preview.headers['content-type']).toBe('text/html');
    const saved = await api.save(id);
    expect([saved.status, saved.body]).toEqual([201, { number: 2, changedFiles: 3 }]);
    const changed = await zipOf(await download(`/api/sites/${id}/revisions/2/archive?since=1`));
    expect([...changed.files.keys()].sort()).toEqual(['a.html', 'css/site.css', 'sub/b.html']);
    const back = await request(app()).post(`/api/sites/${id}/revisions/1/restore`).send({ base: 2 });
    expect([back.status, back.body]).toEqual([201, { number: 3, changedFiles: 3 }]);
    const out = await zipOf(await download(`/api/sites/${id}/revisions/3/archive`));
    expect(out.files.get('a.html')!.toString()).toBe(files[0]!.content);
    const detail = await request(app()).get(`/api/sites/${id}`);
    expectSchema(SiteDetail, detail.body);
  });

  test('a proposal looks the same everywhere', async () => {
    const id = await bringIn();
    const proposal = await request(app()).post(`/api/sites/${id}/proposal`).send({ base: 1, sheet: 'css/site.css' });
    expectSchema(Proposal, proposal.body);
    const { operations } = proposal.body as { operations: object[] };
    await api.put(id, operations);
    expect((await proved(id)).proof.verdict).toBe('same');
  });

  test('a sheet edited on top of a gathering, then the gathering taken out: refused, nothing lost', async () => {
    const id = await bringIn();
    await api.put(id, [gather]);
    const text = (await request(app()).get(`/api/sites/${id}/files/draft/css/site.css`)).body as {
      hash: string;
      text: string;
    };
    const edit = { kind: 'edit-sheet', path: 'css/site.css', hash: text.hash, text: text.text.replace('red', 'green') };
    expect((await api.put(id, [gather, edit])).status).toBe(200);
    const alone = await api.put(id, [edit]);
    expect([alone.status, (alone.body as { code: string }).code]).toEqual([422, 'operation-refused']);
    expect(((await request(app()).get(`/api/sites/${id}/draft`)).body as DraftReply).operations).toHaveLength(2);
  });

  test('two who save at once: one wins, the other is told', async () => {
    const id = await bringIn();
    await api.put(id, [gather]);
    const both = await Promise.all([1, 2].map(() => api.save(id, { base: 1, version: 1 })));
    expect(both.map((r) => r.status).sort()).toEqual([201, 409]);
    expectSchema(Problem, both.find((r) => r.status === 409)!.body);
    const late = await api.put(id, [gather], { base: 1, version: 1 });
    expect((late.body as { detail: string }).detail).toContain('r2 was saved meanwhile');
  });

  test('the demo comes in whole', async () => {
    const created = await request(app()).post('/api/sites/demo');
    expect(created.status).toBe(201);
    const survey = (await request(app()).get(`/api/sites/${(created.body as { id: string }).id}/revisions/1/survey`))
      .body as { pages: { opaque: boolean; styleAttributes: number }[] };
    expect(survey.pages).toHaveLength(26);
    expect(survey.pages.some((p) => p.opaque)).toBe(false);
    expect(survey.pages.reduce((n, p) => n + p.styleAttributes, 0)).toBeGreaterThanOrEqual(150);
  });
});

describe('who wins', () => {
  const linked = (body: string): string => `<link rel="stylesheet" href="s.css">\n${body}`;
  async function bringInLinked(): Promise<string> {
    const zip = await makeZip([
      { path: 's.css', content: 'h1 { color: teal }\n' },
      { path: 'a.html', content: linked('<h1>a</h1>') },
      { path: 'b.html', content: linked('<style>h1 { color: #008080 }</style><h1 style="color: red">b</h1>') },
    ]);
    const { body } = await request(app()).post('/api/sites').field('name', 'Linked').attach('archive', zip, 'x.zip');
    return (body as { id: string }).id;
  }
  const get = async (id: string, what: string): Promise<unknown> => {
    const reply = await request(app()).get(`/api/sites/${id}/revisions/1/${what}`);
    expect(reply.status).toBe(200);
    return reply.body;
  };

  test('an element, a question, overrides with notes, a value; all with the draft', async () => {
    const id = await bringInLinked();
    const element = encodeURIComponent('html>body:nth-child(2)>h1:nth-child(1)');
    const table = await get(id, `element?path=b.html&element=${element}`);
    expectSchema(ElementTable, table);
    expect(table).toMatchObject({
      rows: expect.arrayContaining([expect.objectContaining({ property: 'color', value: 'red' })]),
    });
    const peeled = await get(id, `element?path=b.html&element=${element}&peel=attribute&peel=1:b.html`);
    expect((peeled as { rows: { property: string }[] }).rows.find((row) => row.property === 'color')).toMatchObject({
      value: 'teal',
      sentence: { lead: 's.css wins next.' },
    });

    const answer = await get(id, 'question?selector=h1&property=color');
    expectSchema(QuestionAnswer, answer);
    expect(answer).toMatchObject({
      pages: 2,
      values: [{ value: 'teal' }, { value: 'red', deciders: [{ first: { text: 'b' } }] }],
    });

    const overrides = (await get(id, 'overrides')) as { overrides: { id: string; note: string | null }[] };
    expectSchema(Overrides, overrides);
    const [first] = overrides.overrides;
    const kept = await request(app()).put(`/api/sites/${id}/notes`).send({ override: first!.id, note: 'for the fair' });
    expect(kept.status).toBe(204);
    expect(await get(id, 'overrides')).toMatchObject({ overrides: [{ note: 'for the fair' }] });
    await request(app()).put(`/api/sites/${id}/notes`).send({ override: first!.id, note: '' });
    expect(await get(id, 'overrides')).toMatchObject({ overrides: [{ note: null }] });

    const places = await get(id, 'value?value=TEAL');
    expectSchema(ValuePlaces, places);
    expect(places).toMatchObject({ total: 2, places: [{ path: 's.css' }, { path: 'b.html', kind: 'block' }] });

    const drop = { kind: 'drop-declaration', where: 'attribute', property: 'color', value: 'red' };
    await api.put(id, [drop]);
    expect(await get(id, 'question?selector=h1&property=color&with=draft')).toMatchObject({
      values: [{ value: 'teal', pages: ['a.html', 'b.html'] }],
    });
  });
});

test('health and the OpenAPI document', async () => {
  expect((await request(app()).get('/api/health')).body).toMatchObject({ ok: true });
  const { body } = await request(app()).get('/api/openapi.json');
  expect(Object.keys((body as { paths: object }).paths)).toContain('/api/sites/{id}/revisions/{number}/archive');
});

test('a root-relative address in a preview is led back to it', async () => {
  const id = await bringIn();
  const reply = await request(app()).get('/css/x.css').set('referer', `http://127.0.0.1/preview/${id}/r1/a.html`);
  expect([reply.status, reply.headers['location']]).toEqual([307, `/preview/${id}/r1/css/x.css`]);
});
