import { beforeAll, describe, expect, test } from '@jest/globals';
import request from 'supertest';
import { Effect, Proof, RuleScore, SelectorReach, SheetReach, SiteWords, type ProofReply } from '@syndeton/contract';
import { expectSchema } from './testing/expectSchema.ts';
import { makeZip } from './testing/makeZip.ts';
import { useApp } from './testing/useApp.ts';

const app = useApp();
const sheet = 'h2 { color: red; top: 0 }\n.gone { top: 0 }\na:hover { color: red }\n';
const page = (body: string) =>
  `<!DOCTYPE html><html><head><title>t</title><link rel="stylesheet" href="s.css"><style>#w h2 { color: blue }</style></head><body>${body}</body></html>`;
const files = [
  { path: 'a.html', content: page('<h2 class="big">x</h2><h2>y</h2><a href="b.html">z</a>') },
  { path: 'b.html', content: page('<div id="w"><h2>x</h2></div>') },
  { path: 's.css', content: sheet },
];
let at = '';
let id = '';
beforeAll(async () => {
  const reply = await request(app())
    .post('/api/sites')
    .field('name', 'Sheets')
    .attach('archive', await makeZip(files), 'x.zip');
  id = (reply.body as { id: string }).id;
  at = `/api/sites/${id}/revisions/1`;
});

describe('what a sheet reaches, wins and loses', () => {
  test('each rule with its pages', async () => {
    const { body } = await request(app()).get(`${at}/sheet`).query({ path: 's.css' });
    expectSchema(SheetReach, body);
    expect(body).toMatchObject({
      pages: ['a.html', 'b.html'],
      rules: [
        { start: 0, elements: 3, strip: [2, 1], pages: 2 },
        { start: 26, elements: 0, pages: 0 },
        // in some state
        { start: 43, elements: 1, pages: 1 },
      ],
    });
  });
  test('one rule: who beats it, by name and place', async () => {
    const { body } = await request(app()).get(`${at}/rule`).query({ path: 's.css', start: 0 });
    expectSchema(RuleScore, body);
    expect(body).toMatchObject({
      specificity: '(0,0,1)',
      declarations: [
        {
          property: 'color',
          wins: 2,
          loses: 1,
          pages: [
            { path: 'a.html', wins: 2 },
            { path: 'b.html', loses: 1 },
          ],
        },
        { property: 'top', wins: 3, loses: 0 },
      ],
      beaters: [
        {
          kind: 'embedded',
          selector: '#w h2',
          specificity: '(1,0,1)',
          why: 'specificity',
          properties: ['color'],
          elements: 1,
          pages: ['b.html'],
        },
      ],
    });
  });
  test('a selector that is in no sheet yet', async () => {
    const { body } = await request(app()).get(`${at}/match`).query({ selector: '.big, #w', sheet: 's.css' });
    expectSchema(SelectorReach, body);
    expect(body).toEqual({
      elements: 2,
      pages: [
        { path: 'a.html', elements: 1 },
        { path: 'b.html', elements: 1 },
      ],
    });
    const refused = await request(app()).get(`${at}/match`).query({ selector: 'h2,,' });
    expect([refused.status, (refused.body as { detail: string }).detail]).toEqual([
      422,
      'Browsers cannot read the selector h2,,.',
    ]);
  });
  test('the words of the site', async () => {
    const { body } = await request(app()).get(`${at}/words`);
    expectSchema(SiteWords, body);
    expect(body).toMatchObject({
      classes: [{ name: 'big', uses: 1 }],
      ids: [{ name: 'w', uses: 1 }],
      colours: expect.arrayContaining([{ name: 'red', uses: 2 }]),
    });
  });
  test('a sheet that is not there', async () => {
    const reply = await request(app()).get(`${at}/sheet`).query({ path: 'x.css' });
    expect([reply.status, (reply.body as { detail: string }).detail]).toEqual([
      404,
      'There is no sheet x.css. Ask with ?path=css/site.css.',
    ]);
  });
});

describe('an edit before and after it is in the draft', () => {
  const edited = (hash: string, text: string) => [{ kind: 'edit-sheet', path: 's.css', hash, text }];
  test('what changes, by what changes', async () => {
    const file = (await request(app()).get(`/api/sites/${id}/files/draft/s.css`)).body as { hash: string };
    const { body } = await request(app())
      .post(`/api/sites/${id}/draft/effect`)
      .send({ base: 1, version: 0, operations: edited(file.hash, sheet.replace('red', 'teal')) });
    expectSchema(Effect, body);
    expect(body).toMatchObject({
      differing: ['a.html'],
      elements: 2,
      changes: [
        {
          property: 'color',
          before: 'red',
          after: 'teal',
          elements: 2,
          pages: [{ path: 'a.html', elements: 2 }],
          sample: { page: 'a.html' },
        },
      ],
    });
  });
  test('what is wrong in it stands with the draft', async () => {
    const file = (await request(app()).get(`/api/sites/${id}/files/draft/s.css`)).body as { hash: string };
    const text = sheet.replace('.gone { top: 0 }', '.gone { tpo: 0 }\nh3 {\n  top: 0;\nh4 { top: 0 }');
    const { body } = await request(app())
      .put(`/api/sites/${id}/draft`)
      .send({ base: 1, version: 0, operations: edited(file.hash, text) });
    expect((body as { mistakes: object[] }).mistakes).toEqual([
      { path: 's.css', line: 2, sentence: 'No property has this name, so the line does nothing.' },
      { path: 's.css', line: 3, sentence: 'The closing brace of `h3` is missing, so `h4` counts as a part of it.' },
    ]);
  });
  test('what was wrong in the pages already is no mistake of the draft', async () => {
    const wrong = [
      { path: 'a.html', content: '<!DOCTYPE html><title>t</title><style>h2 { tpo: 0; color: red }</style><h2>x</h2>' },
      { path: 'b.html', content: '<!DOCTYPE html><title>t</title><style>h2 { tpo: 0; color: red }</style><h2>x</h2>' },
    ];
    const reply = await request(app())
      .post('/api/sites')
      .field('name', 'Wrong')
      .attach('archive', await makeZip(wrong), 'x.zip');
    const other = (reply.body as { id: string }).id;
    const operations = [{ kind: 'gather-rules', sheet: 's.css', rules: [{ family: 'h2' }] }];
    const { body } = await request(app()).put(`/api/sites/${other}/draft`).send({ base: 1, version: 0, operations });
    expect(body).toMatchObject({ mistakes: [], changes: [{ path: 'a.html' }, { path: 'b.html' }, { path: 's.css' }] });
  });
});

describe('two states of a site', () => {
  let site = '';
  const operations = (value: string) => [
    { kind: 'add-rule', sheet: 's.css', selector: 'h2', declarations: [{ property: 'color', value }] },
  ];
  beforeAll(async () => {
    const reply = await request(app())
      .post('/api/sites')
      .field('name', 'Two')
      .attach('archive', await makeZip(files), 'x.zip');
    site = `/api/sites/${(reply.body as { id: string }).id}`;
    await request(app())
      .put(`${site}/draft`)
      .send({ base: 1, version: 0, operations: operations('teal') });
    await request(app()).post(`${site}/revisions`).send({ base: 1, version: 1 });
    await request(app())
      .put(`${site}/draft`)
      .send({ base: 2, version: 2, operations: operations('red') });
  });
  const compare = async (address: string) => {
    const { body } = await request(app()).get(`${site}${address}`);
    expectSchema(Proof, body);
    const { pages } = body as ProofReply;
    return pages.map(({ path, verdict, causes }) => [path, verdict, causes[0]?.before?.value, causes[0]?.after?.value]);
  };
  test('a revision against the one before, and the draft against an older one', async () => {
    const teal = [
      ['a.html', 'intended', 'red', 'teal'],
      ['b.html', 'same', undefined, undefined],
    ];
    expect(await compare('/revisions/2/proof')).toEqual(teal);
    expect(await compare('/revisions/2/proof?since=1')).toEqual(teal);
    // red again: what the draft says is what r1 said
    expect((await compare('/revisions/2/proof?since=1&with=draft')).map(([, verdict]) => verdict)).toEqual([
      'same',
      'same',
    ]);
    expect((await request(app()).get(`${site}/revisions/9/proof`)).status).toBe(404);
  });
  test('against another site: what is on a server, brought in to be compared', async () => {
    const html = files.find(({ path }) => path === 'a.html')!.content;
    const theirs = [
      { path: 'a.html', content: html },
      { path: 'c.html', content: html },
      { path: 's.css', content: 'h2 { color: olive }' },
    ];
    const reply = await request(app())
      .post('/api/sites')
      .field('name', 'There')
      .attach('archive', await makeZip(theirs), 'x.zip');
    const other = (reply.body as { id: string }).id;
    expect(await compare(`/revisions/2/proof?against=${other}`)).toEqual([
      ['a.html', 'differs', 'olive', 'teal'],
      ['c.html', 'removed', undefined, undefined],
      ['b.html', 'added', undefined, undefined],
    ]);
    expect((await compare(`/revisions/2/proof?against=${other}&since=1&with=draft`))[0]).toEqual([
      'a.html',
      'differs',
      'olive',
      'red',
    ]);
    for (const wrong of [`against=${other}&since=2`, 'against=00000000-0000-4000-8000-000000000000'])
      expect((await request(app()).get(`${site}/revisions/2/proof?${wrong}`)).status).toBe(404);
    expect((await request(app()).get(`${site}/revisions/2/proof?against=x`)).status).toBe(400);
  });
  test('what changed as a patch', async () => {
    const reply = await request(app())
      .get(`${site}/revisions/2/patch?since=1`)
      .buffer(true)
      .parse((response, done) => {
        // oxfmt-ignore
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('end', () => done(null, Buffer.concat(parts).toString()));
      });
    expect(reply.headers['content-type']).toContain('text/x-patch');
    expect(reply.headers['content-disposition']).toContain('Two-r1-to-r2.patch');
    expect(reply.body).toContain('diff --git a/s.css b/s.css\n--- a/s.css\n+++ b/s.css\n');
    expect(reply.body).toMatch(/^\+.*color: teal/m);
  });
});
