import { expect, test } from '@jest/globals';
import request from 'supertest';
import { Effect, type ProposalReply, type SurveyReply } from '@syndeton/contract';
import { expectSchema } from './testing/expectSchema.ts';
import { siteApi } from './testing/siteApi.ts';
import { useApp } from './testing/useApp.ts';

const app = useApp();
const api = siteApi(app);

test('what operations would do is told before they are lined up; nothing is changed', async () => {
  const id = await api.bringIn([
    { path: 'a.html', content: '<link rel=stylesheet href=s.css><p>a' },
    { path: 'b.html', content: '<link rel=stylesheet href=s.css><p>b' },
    { path: 'c.html', content: '<!-- later <link rel=stylesheet href=s.css> --><p>c' },
    { path: 's.css', content: 'p { color: red }' },
  ]);
  const { base, version } = await api.draft(id);
  const survey = (await request(app()).get(`/api/sites/${id}/revisions/1/survey`)).body as SurveyReply;
  const { id: finding, action } = survey.findings.find(({ kind }) => kind === 'link-in-comment')!;
  expect(action).toEqual({ does: 'mend', label: 'Take it out', asks: 'later' });
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
