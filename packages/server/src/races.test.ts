import { describe, expect, test } from '@jest/globals';
import request from 'supertest';
import { Draft, Problem, type DraftReply } from '@syndeton/contract';
import { makeBlobs } from './stores/blobs.ts';
import { makeSequelizeRevisionStore } from './stores/sequelizeRevisionStore.ts';
import { makeSequelizeSiteStore } from './stores/sequelizeSiteStore.ts';
import { expectSchema } from './testing/expectSchema.ts';
import { makeZip } from './testing/makeZip.ts';
import { siteApi } from './testing/siteApi.ts';
import { useApp, useDatabase } from './testing/useApp.ts';

/** Two who change one site at the same time: the second is told, and neither loses anything. */
const app = useApp();
const api = siteApi(app);
const database = useDatabase();

const page = (style: string): string => `<!DOCTYPE html>\n<title>t</title>\n<style>${style}</style>\n<p>x</p>\n`;
const files = [
  { path: 'a.html', content: page('p { color: red }\nh1 { margin: 0 }') },
  { path: 'b.html', content: page('p { color: red }') },
];
const gather = (family: string, sheet: string): object => ({ kind: 'gather-rules', sheet, rules: [{ family }] });
const first = gather('p', 'p.css');
const second = gather('h1', 'h.css');
const codeOf = (reply: { readonly body: unknown }): string => (reply.body as { code: string }).code;
const redoOf = (reply: { readonly body: unknown }): string => (reply.body as { redo: string }).redo;
const redo = (id: string, name: string) => request(app()).post(`/api/sites/${id}/draft/redo`).send({ redo: name });
const sheetsOf = ({ operations }: DraftReply): string[] =>
  operations.map((one) => ('sheet' in one ? one.sheet : one.kind));

describe('PUT against PUT', () => {
  test('one is done, the other told and redone on top; both stand then', async () => {
    const id = await api.bringIn(files);
    const seen = { base: 1, version: 0 };
    const both = await Promise.all([api.put(id, [first], seen), api.put(id, [second], seen)]);
    expect(both.map((reply) => reply.status).sort()).toEqual([200, 409]);
    const late = both.find((reply) => reply.status === 409)!;
    expectSchema(Problem, late.body);
    expect([codeOf(late), (late.body as { detail: string }).detail]).toEqual([
      'draft-changed',
      expect.stringContaining('In another window 1 operation was put in meanwhile'),
    ]);
    const done = await redo(id, redoOf(late));
    expectSchema(Draft, done.body);
    expect(sheetsOf(await api.draft(id)).sort()).toEqual(['h.css', 'p.css']);
    // once redone it is not there any more
    expect((await redo(id, redoOf(late))).status).toBe(404);
  });

  test('twelve at once: each is in the draft in the end', async () => {
    const id = await api.bringIn(files);
    const operations = Array.from({ length: 12 }, (_, i) => ({
      kind: 'add-baseline',
      sheet: `base${i}.css`,
      pages: [i % 2 ? 'a.html' : 'b.html'],
    }));
    const asked = await Promise.all(operations.map((one) => api.put(id, [one], { base: 1, version: 0 })));
    for (const reply of asked.filter(({ status }) => status === 409))
      expect((await redo(id, redoOf(reply))).status).toBe(200);
    expect(asked.filter(({ status }) => status === 200)).toHaveLength(1);
    expect(sheetsOf(await api.draft(id)).sort()).toEqual(operations.map((one) => one.sheet).sort());
  });

  test('redoing what cannot be done any more is refused, and still kept', async () => {
    const id = await api.bringIn(files);
    await api.put(id, [first]);
    const late = await api.put(id, [first, second], { base: 1, version: 0 });
    await api.put(id, [gather('h1', 'other.css')]);
    const refused = await redo(id, redoOf(late));
    expect([refused.status, codeOf(refused)]).toEqual([422, 'operation-refused']);
    expect(sheetsOf(await api.draft(id))).toEqual(['other.css']);
    await api.put(id, []);
    expect((await redo(id, redoOf(late))).status).toBe(200);
  });

  test('dropping a draft that was changed since is refused', async () => {
    const id = await api.bringIn(files);
    await api.put(id, [first]);
    const drop = (version: number) => request(app()).delete(`/api/sites/${id}/draft?version=${version}`);
    expect(codeOf(await drop(0))).toBe('draft-changed');
    expect((await request(app()).delete(`/api/sites/${id}/draft`)).status).toBe(400);
    expect((await drop(1)).status).toBe(204);
    expect((await api.draft(id)).operations).toEqual([]);
  });
});

describe('PUT against save', () => {
  test('whatever comes first, no list is lost: 12 tries', async () => {
    for (let i = 0; i < 12; i++) {
      const id = await api.bringIn(files);
      await api.put(id, [first]);
      const seen = { base: 1, version: 1 };
      const [save, put] = await Promise.all([api.save(id, seen), api.put(id, [first, second], seen)]);
      const draft = await api.draft(id);
      if (put.status === 200) {
        // the save wrote nothing: what it was asked to save is not what the draft is
        expect([save.status, codeOf(save)]).toEqual([409, 'draft-changed']);
        expect([draft.base, sheetsOf(draft)]).toEqual([1, ['p.css', 'h.css']]);
      } else {
        expect([save.status, put.status, codeOf(put)]).toEqual([201, 409, 'site-changed']);
        expect([draft.base, sheetsOf(draft)]).toEqual([2, []]);
        // what was saved is not done twice
        expect(sheetsOf((await redo(id, redoOf(put))).body as DraftReply)).toEqual(['h.css']);
      }
    }
  });

  test('what one window shows is what its save writes', async () => {
    const id = await api.bringIn(files);
    await api.put(id, [first]);
    await api.put(id, [first, second]);
    expect(codeOf(await api.save(id, { base: 1, version: 1 }))).toBe('draft-changed');
    expect((await api.save(id, { base: 1, version: 2 })).status).toBe(201);
  });
});

describe('save against a change of files', () => {
  const putIn = async (id: string) =>
    request(app())
      .post(`/api/sites/${id}/files`)
      .field('base', '1')
      .attach('archive', await makeZip([{ path: 'c.html', content: page('p { top: 0 }') }]), 'x.zip');

  test('one is done, the other told: 6 tries', async () => {
    for (let i = 0; i < 6; i++) {
      const id = await api.bringIn(files);
      const [put, changed] = await Promise.all([api.put(id, [first], { base: 1, version: 0 }), putIn(id)]);
      const draft = await api.draft(id);
      if (put.status === 200) {
        expect([changed.status, codeOf(changed)]).toEqual([409, 'draft-not-empty']);
        expect([draft.base, sheetsOf(draft)]).toEqual([1, ['p.css']]);
      } else {
        expect([put.status, changed.status]).toEqual([409, 201]);
        expect(sheetsOf((await redo(id, redoOf(put))).body as DraftReply)).toEqual(['p.css']);
      }
    }
  });

  test('going back to a revision does not throw a draft away', async () => {
    const id = await api.bringIn(files);
    await api.put(id, [first]);
    await api.save(id);
    await api.put(id, [second]);
    const back = () => request(app()).post(`/api/sites/${id}/revisions/1/restore`).send({ base: 2 });
    expect(codeOf(await back())).toBe('draft-not-empty');
    await api.put(id, []);
    expect((await back()).status).toBe(201);
    const survey = await request(app()).get(`/api/sites/${id}/revisions/3/survey`);
    expect((survey.body as { pages: { embeddedRules: number }[] }).pages.map((one) => one.embeddedRules)).toEqual([
      2, 1,
    ]);
  });
});

describe('purge', () => {
  const long = (n: number): string => page(`p { color: red; /* ${String(n).repeat(2000)} */ }`);
  test('against writes that name the same bytes: every byte named is there', async () => {
    const sites = makeSequelizeSiteStore(database(), makeBlobs(database()));
    const revisions = makeSequelizeRevisionStore(database(), makeBlobs(database()));
    const never = new Date(0);
    for (let i = 0; i < 6; i++) {
      const same = Array.from({ length: 20 }, (_, n) => ({ path: `${n}.html`, content: long(n) }));
      const gone = await api.bringIn(same);
      await database().query('DELETE FROM site WHERE id = $1', { bind: [gone] });
      // the bytes belong to nobody now; they are purged and named again at the same time
      const [id] = await Promise.all([api.bringIn(same), sites.purge(never), sites.purge(never)]);
      await sites.purge(never);
      const manifest = (await revisions.manifest(id, 1))!;
      expect((await revisions.readBlobs(Object.values(manifest))).size).toBe(20);
      expect((await request(app()).get(`/api/sites/${id}/revisions/1/archive`)).status).toBe(200);
      await database().query('DELETE FROM site WHERE id = $1', { bind: [id] });
    }
    await sites.purge(never);
    const [left] = await database().query(
      'SELECT count(*)::int AS n FROM blob WHERE size > 2000 AND hash NOT IN (SELECT hash FROM blob_use)',
    );
    expect(left).toEqual([{ n: 0 }]);
  });
});
