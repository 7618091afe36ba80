import fs from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import request from 'supertest';
import {
  ChangedSite,
  OutsideChanges,
  Import,
  PageBands,
  Survey,
  type ChangedSiteReply,
  type ImportReply,
  type SiteDetailReply,
  type SiteSummaryReply,
  type SurveyReply,
} from '@syndeton/contract';
import { uploadFolder } from './archive/uploadFolder.ts';
import { expectSchema } from './testing/expectSchema.ts';
import { makeZip, withName } from './testing/makeZip.ts';
import { useApp } from './testing/useApp.ts';

const app = useApp();
const nowhere = '00000000-0000-4000-8000-000000000000';
const page = (head: string): string => `<!DOCTYPE html>\n<title>t</title>\n${head}\n<p>x</p>\n`;
const link = (href: string): string => `<link rel="stylesheet" href="${href}">`;
const site = [
  { path: 'walks/index.html', content: page(link('css/s.css')) },
  { path: 'walks/a.html', content: page(link('css/s.css')) },
  { path: 'walks/b.html', content: page(link('css/s.css')) },
  { path: 'walks/css/s.css', content: 'p{color:red}' },
  { path: 'walks/Thumbs.db', content: 'thumbs' },
  { path: 'walks/old.html', content: 'index.html', mode: 0o120777 },
];

const send = async (path: string, zip: Buffer, fields: Record<string, string> = {}) => {
  let sent = request(app()).post(path).attach('archive', zip, 'x.zip');
  for (const [name, value] of Object.entries(fields)) sent = sent.field(name, value);
  return sent;
};
const sitesNamed = async (name: string): Promise<SiteSummaryReply[]> =>
  ((await request(app()).get('/api/sites')).body as { sites: SiteSummaryReply[] }).sites.filter((s) => s.name === name);

async function ended(id: string): Promise<ImportReply> {
  for (let i = 0; i < 600; i++) {
    const { body } = (await request(app()).get(`/api/imports/${id}`)) as { body: ImportReply };
    expectSchema(Import, body);
    if (['done', 'failed', 'stopped'].includes(body.status)) return body;
    await new Promise((f) => setTimeout(f, 25));
  }
  throw new Error('the import did not end');
}

async function bringIn(name: string, files = site): Promise<string> {
  const started = await send('/api/imports', await makeZip(files), { name });
  expect(started.status).toBe(202);
  const { status, siteId, detail } = await ended((started.body as ImportReply).id);
  expect([status, detail]).toEqual(['done', undefined]);
  return siteId!;
}

describe('on the way in', () => {
  test('figures as they come; what was left out, and why; the survey is kept with the revision', async () => {
    const started = await send('/api/imports', await makeZip(site), { name: 'Walks' });
    const job = await ended((started.body as ImportReply).id);
    expect(job).toMatchObject({ name: 'Walks', status: 'done', done: 3, total: 3, rules: 0 });
    expect(job.leftOut).toEqual([
      { path: 'Thumbs.db', reason: 'it is not part of a site', kept: true },
      { path: 'old.html', reason: 'it is a link to another file; put the file itself into the archive', kept: false },
    ]);
    const survey = await request(app()).get(`/api/sites/${job.siteId}/revisions/1/survey`);
    expectSchema(Survey, survey.body);
    expect((survey.body as SurveyReply).reach).toEqual([
      { sheet: 'css/s.css', selector: 'p', line: 1, elements: 3, pages: 3 },
    ]);
    const plain = await request(app())
      .get(`/api/sites/${job.siteId}/revisions/1/survey`)
      .set('accept-encoding', 'identity');
    expect(plain.body).toEqual(survey.body);
  });

  test.each<[string, () => Promise<Buffer>, RegExp]>([
    ['truncated', async () => (await makeZip(site)).subarray(0, 200), /no zip we can read/],
    ['cut in the middle of a file', async () => damaged(await makeZip(site)), /no zip we can read|damaged|invalid/i],
    [
      'climbing',
      async () => withName(await makeZip(site), 'walks/index.html', '../../../../x.ht'),
      /climbs out of the site/,
    ],
    ['encrypted', async () => encrypted(await makeZip(site)), /is encrypted\. Make a zip without a password/],
    ['no page', () => makeZip([{ path: 'a.css', content: 'p{}' }]), /no page in it/],
    [
      'a bomb',
      () => makeZip(['a', 'b', 'c'].map((n) => ({ path: `${n}.bin`, content: Buffer.alloc(70_000_000) }))),
      /more than 200 MB/,
    ],
  ])('an archive that is %s: a clear message, and nothing is kept', async (shows, zip, message) => {
    const started = await send('/api/imports', await zip(), { name: `Bad ${shows}` });
    const job = await ended((started.body as ImportReply).id);
    expect(job.status).toBe('failed');
    expect(job.detail).toMatch(message);
    expect(await sitesNamed(`Bad ${shows}`)).toEqual([]);
  });

  test('stopped: nothing is kept', async () => {
    const many = Array.from({ length: 400 }, (_, i) => ({
      path: `${i}.html`,
      content: page(`<style>p{top:${i}px}</style>`).repeat(20),
    }));
    const started = await send('/api/imports', await makeZip(many), { name: 'Stopped' });
    const { id } = started.body as ImportReply;
    expect((await request(app()).delete(`/api/imports/${id}`)).status).toBe(204);
    expect((await ended(id)).status).toBe('stopped');
    expect(await sitesNamed('Stopped')).toEqual([]);
    expect((await request(app()).get('/api/imports/none')).status).toBe(404);
  });
});

/** A byte of the first file's compressed data turned over. */
function damaged(zip: Buffer): Buffer {
  const out = Buffer.from(zip);
  const at = 30 + out.readUInt16LE(26) + out.readUInt16LE(28);
  for (let i = at; i < at + 20; i++) out[i] = out[i]! ^ 0xff;
  return out;
}

/** Marks every entry as encrypted: APPNOTE.TXT, "general purpose bit flag", bit 0; from memory. */
function encrypted(zip: Buffer): Buffer {
  const out = Buffer.from(zip);
  for (let at = 0; at < out.length - 46; at++) {
    const mark = out.readUInt32LE(at);
    if (mark === 0x04034b50) out[at + 6] = out[at + 6]! | 1;
    if (mark === 0x02014b50) out[at + 8] = out[at + 8]! | 1;
  }
  return out;
}

describe('files later', () => {
  const changed = (body: unknown): ChangedSiteReply => {
    expectSchema(ChangedSite, body);
    return body as ChangedSiteReply;
  };

  test('put in and replaced as a new revision; new pages are compared with what the site links, and one operation links them', async () => {
    const id = await bringIn('Later');
    const zip = await makeZip([
      { path: 'walks/new.html', content: page('<style>p{top:0}</style>') },
      { path: 'walks/css/s.css', content: 'p{color:blue}' },
    ]);
    const reply = changed((await send(`/api/sites/${id}/files`, zip, { base: '1' })).body);
    expect(reply).toMatchObject({
      number: 2,
      added: ['new.html'],
      replaced: ['css/s.css'],
      lacking: [{ page: 'new.html', sheets: ['css/s.css'] }],
    });
    const draft = await request(app())
      .put(`/api/sites/${id}/draft`)
      .send({ base: 2, version: 1, operations: [{ kind: 'link-alike', pages: ['new.html'] }] });
    expect(draft.body).toMatchObject({ steps: [{ sentence: 'Link css/s.css from new.html, as the others do' }] });
    const blocked = await send(`/api/sites/${id}/files`, zip, { base: '2' });
    expect([blocked.status, (blocked.body as { code: string }).code]).toEqual([409, 'draft-not-empty']);
  });

  test('a folder of new pages keeps its name; into a folder by name; the same bytes again change nothing', async () => {
    const id = await bringIn('Folders');
    const news = await makeZip([{ path: 'news/1.html', content: page('') }]);
    expect(changed((await send(`/api/sites/${id}/files`, news, { base: '1' })).body).added).toEqual(['news/1.html']);
    const into = await makeZip([{ path: '2.html', content: page('') }]);
    expect(changed((await send(`/api/sites/${id}/files`, into, { base: '2', folder: 'news' })).body).added).toEqual([
      'news/2.html',
    ]);
    const again = await send(`/api/sites/${id}/files`, news, { base: '3' });
    expect([again.status, (again.body as { detail: string }).detail]).toEqual([
      400,
      expect.stringContaining('byte for byte'),
    ]);
  });

  test('taken out; taken in after all; what no revision is refused', async () => {
    const id = await bringIn('Taken');
    const out = await request(app())
      .post(`/api/sites/${id}/files/remove`)
      .send({ base: 1, paths: ['b.html'] });
    expect(changed(out.body)).toMatchObject({ number: 2, removed: ['b.html'] });
    const taken = await request(app()).post(`/api/sites/${id}/files/take`).send({ base: 2, path: 'Thumbs.db' });
    expect(changed(taken.body)).toMatchObject({ number: 3, added: ['Thumbs.db'] });
    const detail = (await request(app()).get(`/api/sites/${id}`)).body as SiteDetailReply;
    expect(detail.files.map((f) => f.path)).toEqual(['Thumbs.db', 'a.html', 'css/s.css', 'index.html']);
    expect(detail.leftOut.map((f) => f.path)).toEqual(['old.html']);
    const post = (what: string, body: object) => request(app()).post(`/api/sites/${id}/files/${what}`).send(body);
    const refusals = [
      await post('remove', { base: 3, paths: ['gone.html'] }),
      await post('remove', { base: 1, paths: ['a.html'] }),
      await post('remove', { base: 3, paths: ['a.html', 'index.html'] }),
      await post('take', { base: 3, path: 'old.html' }),
      await send(`/api/sites/${id}/files`, await makeZip([{ path: 'x.html', content: '' }])),
      await send(`/api/sites/${id}/files`, await makeZip([{ path: 'x.html', content: '' }]), {
        base: '3',
        folder: '../up',
      }),
    ];
    expect(refusals.map((r) => `${r.status} ${(r.body as { code: string }).code}`)).toEqual([
      '404 file-not-found',
      '409 site-changed',
      '400 bad-request',
      '404 file-not-found',
      '400 bad-request',
      '400 bad-request',
    ]);
  });
});

describe('the site as it is outside by now', () => {
  const outside = async (
    id: string,
    what: 'compare' | 'outside',
    files: readonly { path: string; content: string }[],
    base: string,
    more: Record<string, string> = {},
  ) => send(`/api/sites/${id}/files/${what}`, await makeZip(files), { base, ...more });

  test('what changed, is new, moved or gone there is told apart from what never got there; taken, it is a revision', async () => {
    const id = await bringIn('Outside');
    const detail = (await request(app()).get(`/api/sites/${id}`)).body as SiteDetailReply;
    expect(detail.files.map((file) => file.path)).toEqual(['a.html', 'b.html', 'css/s.css', 'index.html']);
    const text = async (name: string, state = 'r1') =>
      ((await request(app()).get(`/api/sites/${id}/files/${state}/${name}`)).body as { text: string }).text;
    const [a, b, css, index] = await Promise.all(
      ['a.html', 'b.html', 'css/s.css', 'index.html'].map((name) => text(name)),
    );
    // here a sheet was changed since; there it is as it was
    const put = await send(`/api/sites/${id}/files`, await makeZip([{ path: 'css/s.css', content: 'p{top:9px}' }]), {
      base: '1',
    });
    expect(put.status).toBe(201);
    const there = [
      { path: 'walks/a.html', content: `${a}<p>more` },
      { path: 'walks/new/b.html', content: b! },
      { path: 'walks/fresh.html', content: page('<style>i{top:0}</style>') },
      { path: 'walks/css/s.css', content: css! },
    ];
    expect(index).not.toBe('');
    const told = await outside(id, 'compare', there, '2');
    expectSchema(OutsideChanges, told.body);
    expect(told.body).toEqual({
      same: 0,
      changed: ['a.html'],
      fresh: ['fresh.html'],
      gone: ['index.html'],
      moved: [{ from: 'b.html', to: 'new/b.html' }],
      older: [{ path: 'css/s.css', revision: 1 }],
    });
    const taken = await outside(id, 'outside', there, '2', { gone: 'true' });
    expect(taken.body).toMatchObject({ number: 3, replaced: ['a.html'], removed: ['index.html', 'b.html'] });
    const after = (await request(app()).get(`/api/sites/${id}`)).body as SiteDetailReply;
    expect(after.files.map((file) => file.path)).toEqual(['a.html', 'css/s.css', 'fresh.html', 'new/b.html']);
    expect(after.revisions[0]).toMatchObject({
      number: 3,
      message: 'Changed outside: 1 changed, 1 new, 1 moved, 1 gone',
    });
    expect(await text('css/s.css', 'r3')).toBe('p{top:9px}');
  });

  test('what is gone there stays here unless it is asked for; nothing to take, an old base and a draft are refused', async () => {
    const id = await bringIn('Outside, quiet');
    const only = async (name: string) => ({
      path: name,
      content: ((await request(app()).get(`/api/sites/${id}/files/r1/${name}`)).body as { text: string }).text,
    });
    const there = [await only('a.html')];
    expect((await outside(id, 'compare', there, '1')).body).toMatchObject({
      same: 1,
      gone: ['b.html', 'css/s.css', 'index.html'],
    });
    const code = ({ status, body }: { status: number; body: unknown }) =>
      `${status} ${(body as { code: string }).code}`;
    expect(code(await outside(id, 'outside', there, '1'))).toBe('400 bad-request');
    expect(code(await outside(id, 'compare', there, '7'))).toBe('409 site-changed');
    expect(code(await outside(nowhere, 'compare', there, '1'))).toBe('404 site-not-found');
    const operations = [{ kind: 'rename-sheet', sheet: 'css/s.css', to: 'css/t.css' }];
    expect((await request(app()).put(`/api/sites/${id}/draft`).send({ base: 1, version: 0, operations })).status).toBe(
      200,
    );
    expect((await outside(id, 'compare', there, '1')).status).toBe(200);
    expect(code(await outside(id, 'outside', there, '1', { gone: 'true' }))).toBe('409 draft-not-empty');
  });
});

test('one page opened', async () => {
  const id = await bringIn('Opened');
  const reply = await request(app()).get(`/api/sites/${id}/revisions/1/page?path=a.html`);
  expectSchema(PageBands, reply.body);
  expect((reply.body as { bands: { name: string }[] }).bands.map((b) => b.name)).toEqual(['css/s.css']);
  expect((await request(app()).get(`/api/sites/${id}/revisions/1/page?path=gone.html`)).status).toBe(404);
});

test('renamed, removed and brought back; two sites may have one name', async () => {
  const id = await bringIn('One name');
  const other = await bringIn('Other');
  expect((await request(app()).patch(`/api/sites/${other}`).send({ name: ' One name ' })).status).toBe(204);
  expect((await sitesNamed('One name')).map((s) => s.id).sort()).toEqual([id, other].sort());
  expect((await request(app()).patch(`/api/sites/${other}`).send({ name: '  ' })).status).toBe(400);
  expect((await request(app()).delete(`/api/sites/${id}`)).status).toBe(204);
  expect((await request(app()).get(`/api/sites/${id}`)).status).toBe(404);
  expect((await request(app()).post(`/api/sites/${id}/restore`)).status).toBe(204);
  expect((await request(app()).post(`/api/sites/${id}/restore`)).status).toBe(404);
  expect((await request(app()).get(`/api/sites/${id}/revisions/1/survey`)).status).toBe(200);
});

test('no upload stays on disk, whatever becomes of it', async () => {
  const zip = await makeZip([{ path: 'a.html', content: page('') }]);
  const started = await send('/api/imports', zip, { name: 'Tidy' });
  await ended((started.body as ImportReply).id);
  await send('/api/imports', Buffer.from('no zip'), { name: 'Untidy' });
  await send('/api/sites', zip, { name: 'Twice', more: 'than is known' });
  await send('/api/sites', zip, { name: 'Tidy' });
  const left = (): readonly string[] => fs.readdirSync(uploadFolder());
  for (let i = 0; i < 100 && left().length > 0; i++) await new Promise((f) => setTimeout(f, 20));
  expect(left()).toEqual([]);
});

test('names in an old code page are asked about, and read as said', async () => {
  const zip = withName(await makeZip([{ path: 'caf_.html', content: page('') }]), 'caf_', 'caf\x82');
  // APPNOTE.TXT, "Language Encoding (EFS)"
  for (const [mark, at] of [
    [0x04034b50, 7],
    [0x02014b50, 9],
  ] as const) {
    // oxfmt-ignore
    const found = zip.findIndex((_, i) => i + 4 <= zip.length && zip.readUInt32LE(i) === mark);
    zip[found + at] = zip[found + at]! & ~8;
  }
  const refused = await send('/api/sites', zip, { name: 'Old' });
  expect([refused.status, (refused.body as { detail: string }).detail]).toEqual([
    400,
    expect.stringContaining('café.html (IBM 437, names=cp437)'),
  ]);
  const taken = await send('/api/sites', zip, { name: 'Old', names: 'cp437' });
  const { files } = (await request(app()).get(`/api/sites/${(taken.body as { id: string }).id}`))
    .body as SiteDetailReply;
  expect(files.map(({ path }) => path)).toEqual(['café.html']);
  expect((await send('/api/sites', zip, { name: 'Old', names: 'latin9' })).status).toBe(400);
});
