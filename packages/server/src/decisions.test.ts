import { expect, test } from '@jest/globals';
import request from 'supertest';
import { Effect, type ProposalReply, type SurveyReply } from '@syndeton/contract';
import { expectSchema } from './testing/expectSchema.ts';
import { siteApi } from './testing/siteApi.ts';
import { useApp } from './testing/useApp.ts';

const app = useApp();
const api = siteApi(app);

test('what operations would do is told before they are in the draft; nothing is changed', async () => {
  const id = await api.bringIn([
    { path: 'a.html', content: '<link rel=stylesheet href=s.css><p>a' },
    { path: 'b.html', content: '<link rel=stylesheet href=s.css><p>b' },
    { path: 'c.html', content: '<!-- later <link rel=stylesheet href=s.css> --><p>c' },
    { path: 's.css', content: 'p { color: red }' },
  ]);
  const { base, version } = await api.draft(id);
  const survey = (await request(app()).get(`/api/sites/${id}/revisions/1/survey`)).body as SurveyReply;
  const { id: finding, action } = survey.findings.find(({ kind }) => kind === 'link-in-comment')!;
  expect(action).toEqual({ does: 'mend', label: 'Remove it', asks: 'later' });
  const effect = (operations: readonly object[]) =>
    request(app()).post(`/api/sites/${id}/draft/effect`).send({ base, version, operations });
  const told = await effect([{ kind: 'mend', finding }]);
  expectSchema(Effect, told.body);
  expect(told.body).toMatchObject({ differing: ['c.html'], unsure: [], elements: 1 });
  expect((await effect([])).body).toMatchObject({ differing: [], unsure: [], elements: 0, changes: [] });
  expect((await effect([{ kind: 'mend', finding: 'none' }])).status).toBe(422);
  expect(await api.draft(id)).toMatchObject({ version, operations: [] });
});

test('what was decided about a site is kept with its revisions', async () => {
  const block = '<style>.n { top: 0 }</style><p class=n>n';
  const id = await api.bringIn([
    ...Array.from({ length: 9 }, (_, i) => ({
      path: `${i}.html`,
      content: `<link rel=stylesheet href=gone.css>${block}`,
    })),
    { path: 'z.html', content: '<p class=n>z' },
  ]);
  const missing = { kind: 'take-as-missing', sheets: ['gone.css'] };
  await api.put(id, [missing]);
  const { base } = await api.draft(id);
  const plan = (await request(app()).post(`/api/sites/${id}/proposal`).send({ base, sheet: 's.css' }))
    .body as ProposalReply;
  await api.put(id, [missing, ...plan.operations]);
  expect((await api.draft(id)).missing).toEqual(['gone.css']);
  expect((await api.save(id)).status).toBe(201);
  expect((await api.draft(id)).missing).toEqual(['gone.css']);
  const kinds = async (revision: number): Promise<readonly string[]> =>
    ((await request(app()).get(`/api/sites/${id}/revisions/${revision}/survey`)).body as SurveyReply).findings.map(
      (one) => one.kind,
    );
  // z.html was left out, not forgotten; also for a survey made anew, and after files came in
  expect(await kinds(2)).not.toContain('page-without-link');
  await api.put(id, [{ kind: 'rename-sheet', sheet: 's.css', to: 't.css' }]);
  expect((await api.save(id)).status).toBe(201);
  expect(await kinds(3)).not.toContain('page-without-link');
  // before anything was decided
  const back = await request(app()).post(`/api/sites/${id}/revisions/1/restore`).send({ base: 3 });
  expect(back.status).toBe(201);
  expect((await api.draft(id)).missing).toEqual([]);
});

test('pages that a server runs are read when somebody says so; their code is neither touched nor shown', async () => {
  const head = '<!DOCTYPE html><title>t</title><style>p { color: red }</style>';
  const id = await api.bringIn([
    { path: 'a.html', content: `${head}<p>a` },
    { path: 'b.php', content: `${head}<?php if (1 > 0) echo "<b>"; ?><p>b` },
    { path: 'part.php', content: '<?php echo "<p>"; ?><p>part' },
  ]);
  const surveyOf = async (revision: number): Promise<SurveyReply> =>
    (await request(app()).get(`/api/sites/${id}/revisions/${revision}/survey`)).body as SurveyReply;
  const pages = async (revision: number): Promise<readonly string[]> =>
    (await surveyOf(revision)).pages.map(({ path }) => path);
  expect(await pages(1)).toEqual(['a.html']);
  expect((await surveyOf(1)).findings.find(({ kind }) => kind === 'page-not-read')).toMatchObject({
    id: 'page-not-read php',
    action: { does: 'read' },
  });
  const read = (base: number) =>
    request(app())
      .post(`/api/sites/${id}/files/pages`)
      .send({ base, endings: ['php'] });
  expect(await read(1)).toMatchObject({ status: 201, body: { number: 2, added: [], replaced: [] } });
  expect((await read(2)).status).toBe(400);
  expect(await pages(2)).toEqual(['a.html', 'b.php']);
  expect((await surveyOf(2)).findings.map(({ kind }) => kind)).not.toContain('page-not-read');
  const plan = (await request(app()).post(`/api/sites/${id}/proposal`).send({ base: 2, sheet: 's.css' }))
    .body as ProposalReply;
  await api.put(id, plan.operations);
  expect((await api.save(id)).status).toBe(201);
  const file = async (path: string): Promise<string> =>
    ((await request(app()).get(`/api/sites/${id}/files/r3/${path}`)).body as { text: string }).text;
  expect(await file('b.php')).toBe(
    '<!DOCTYPE html><title>t</title><link rel="stylesheet" href="s.css"><?php if (1 > 0) echo "<b>"; ?><p>b',
  );
  expect((await request(app()).get(`/preview/${id}/r3/part.php`)).text).toContain('<p>part');
  // kept with what comes after, and against what was before
  expect(await pages(3)).toEqual(['a.html', 'b.php']);
  expect((await request(app()).get(`/api/sites/${id}/revisions/3/proof?since=1`)).body).toMatchObject({
    verdict: 'same',
  });
  const shown = await request(app()).get(`/preview/${id}/r3/b.php`);
  expect(shown.headers['content-type']).toBe('text/html');
  expect(shown.text).toContain('<p>b');
  expect(shown.text).not.toContain('echo "<b>"');
});

test('a site of nothing but such pages is read without asking', async () => {
  const id = await api.bringIn([
    { path: 'index.php', content: '<!DOCTYPE html><title>t</title><?php go(); ?><p style="color:red">x' },
  ]);
  const survey = (await request(app()).get(`/api/sites/${id}/revisions/1/survey`)).body as SurveyReply;
  expect(survey.pages.map(({ path }) => path)).toEqual(['index.php']);
  const { files } = (await request(app()).get(`/api/sites/${id}`)).body as {
    files: readonly { path: string; kind: string }[];
  };
  expect(files).toMatchObject([{ path: 'index.php', kind: 'page' }]);
});
