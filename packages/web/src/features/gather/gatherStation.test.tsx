import { expect, test } from '@jest/globals';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ProposalReply } from '@syndeton/contract';
import { at, openAt, recordedSite, replies } from '../../testing/recordedSite.tsx';

const server = recordedSite();
const proposal = replies[`POST ${at}/proposal`] as ProposalReply;

const opened = async (place = 'gather'): Promise<void> => {
  openAt(place);
  await screen.findByRole('heading', { level: 1, name: /famil/ });
};
const draftSays = (words: string) =>
  waitFor(() => expect(screen.getByRole('region', { name: 'Draft' }).textContent).toContain(words));
const kinds = () => server.draft().operations.map(({ kind }) => kind);
const heading = () => screen.getByRole('heading', { level: 1 }).textContent;
const choose = (name: string) => userEvent.click(screen.getByRole('checkbox', { name: `Choose ${name}` }));

test('families, what of them drifted, and which are shown', async () => {
  await opened();
  expect(heading()).toBe('3 pages hold 2 families of rules; 1 has drifted.');
  await userEvent.click(screen.getByRole('button', { name: /^Drifted/ }));
  expect(screen.queryByRole('checkbox', { name: 'Choose h2' })).toBeNull();
  expect(screen.getByRole('checkbox', { name: 'Choose .notice' })).toBeTruthy();
});

test('chosen rules go to a sheet by name; of all pages, unless some are chosen', async () => {
  await opened();
  await choose('h2');
  await userEvent.keyboard('m');
  const box = await screen.findByRole('dialog', { name: 'Send 1 rule from 3 pages to a sheet' });
  const field = within(box).getByRole('combobox');
  await userEvent.clear(field);
  await userEvent.type(field, 'css/heads{Enter}');
  await draftSays('1 operation');
  expect(server.draft().operations).toEqual([
    { kind: 'gather-rules', sheet: 'css/heads.css', rules: [{ family: 'h2', version: 'color:#0b5563' }] },
  ]);
  expect(screen.queryByRole('dialog')).toBeNull();
  // its row, which opened the box, is there no more or not: the keyboard goes on in the station
  await waitFor(() => expect(document.activeElement?.closest('[data-work]')).toBeTruthy());
});

test('of the pages chosen only', async () => {
  await opened('gather?page=index.html');
  expect(heading()).toBe('1 of 3 pages hold 2 families of rules.');
  await choose('.notice');
  await userEvent.keyboard('m');
  await userEvent.keyboard('{Enter}');
  await draftSays('1 operation');
  expect(server.draft().operations[0]).toMatchObject({ kind: 'gather-rules', pages: ['index.html'] });
});

test('a name that is refused is said in the box, and what was chosen stays chosen', async () => {
  await opened();
  server.says[`PUT ${at}/draft`] = () => [422, { detail: 'css/../x.css leads out of the site.' }];
  await choose('h2');
  await userEvent.keyboard('m');
  await userEvent.keyboard('{Enter}');
  const box = await screen.findByRole('dialog');
  await waitFor(() => expect(within(box).getByRole('alert').textContent).toContain('css/../x.css leads out'));
  await userEvent.keyboard('{Escape}');
  expect(screen.getByRole('checkbox', { name: 'Choose h2' }).getAttribute('aria-checked')).toBe('true');
});

test('a plan is put in the draft as a whole, and says that all is decided', async () => {
  await opened();
  await userEvent.keyboard('p');
  await draftSays('2 operations');
  expect(server.draft().operations).toEqual(proposal.operations);
  expect(server.asked.some((one) => one.startsWith(`POST ${at}/proposal {"base":1,"sheet":"css/shared.css"`))).toBe(
    true,
  );
  await waitFor(() => expect(heading()).toContain('all decided'));
});

test('what a plan leaves is said again after a reload, until the plan is out of the draft', async () => {
  const stays: ProposalReply['stays'] = [
    { page: 'index.html', line: 3, kind: 'block', code: 'no-rule', reason: 'it holds no rule' },
  ];
  server.says[`POST ${at}/proposal`] = () => [200, { ...proposal, stays }];
  await opened();
  await userEvent.keyboard('p');
  await draftSays('2 operations');
  expect(await screen.findByText('1 thing stays in the pages, and why')).toBeTruthy();
  cleanup();
  await opened();
  expect(await screen.findByText('1 thing stays in the pages, and why')).toBeTruthy();
  cleanup();
  server.changeElsewhere([{ kind: 'import-to-link' }]);
  await opened();
  await draftSays('1 operation');
  expect(screen.queryByText('1 thing stays in the pages, and why')).toBeNull();
});

test('nothing more to gather, and a plan that is refused, are said; the draft stays what it was', async () => {
  await opened();
  server.says[`POST ${at}/proposal`] = () => [200, { ...proposal, operations: [] }];
  await userEvent.keyboard('p');
  expect(await screen.findByText('Nothing more can be gathered with the same look.')).toBeTruthy();
  server.says[`POST ${at}/proposal`] = () => [422, { detail: 'This took longer than 300 seconds.' }];
  await userEvent.keyboard('p');
  expect(await screen.findByText('This took longer than 300 seconds.')).toBeTruthy();
  expect(kinds()).toEqual([]);
});

test('a draft that was changed while the plan was made is left alone', async () => {
  await opened();
  server.says[`POST ${at}/proposal`] = () => {
    server.changeElsewhere([{ kind: 'sort-rules', sheet: 'css/site.css' }]);
    return [200, proposal];
  };
  await userEvent.keyboard('p');
  await draftSays('In another window 1 operation was put in meanwhile.');
  expect(kinds()).toEqual(['sort-rules']);
});

test('a version may stay, go to a sheet of its own, or take the other', async () => {
  await opened();
  await userEvent.click(screen.getByRole('button', { name: '.notice' }));
  const becomes = async (words: RegExp): Promise<void> => {
    const all = await screen.findAllByRole('radio', { name: words });
    await userEvent.click(all.at(-1)!);
  };
  const words = (await screen.findAllByRole('radio')).map((one) => one.getAttribute('aria-labelledby') ?? one.id);
  expect(words.length).toBeGreaterThan(3);
  await becomes(/own/);
  await waitFor(() => expect(kinds()).toEqual(['gather-rules']));
  expect(server.draft().operations[0]).toMatchObject({ sheet: 'css/old.css', rules: [{ family: '.notice' }] });
  await becomes(/stay/);
  await waitFor(() => expect(kinds()).toEqual([]));
});

test('style attributes are named as classes; what is no class name is refused', async () => {
  await opened();
  await userEvent.click(screen.getByRole('button', { name: /^Style attributes/ }));
  const field = await screen.findByRole('textbox', { name: /text-purple/ });
  await userEvent.clear(field);
  await userEvent.type(field, 'two words{Enter}');
  expect(await screen.findByText(/a space would part it into two classes/)).toBeTruthy();
  await userEvent.clear(field);
  await userEvent.type(field, 'changed{Enter}');
  await userEvent.click(screen.getByRole('button', { name: /^Propose a plan/ }));
  await draftSays('2 operations');
  expect(server.draft().operations[1]).toMatchObject({
    kind: 'gather-attributes',
    names: { 'color:#84306f': 'changed' },
  });
});

test('how plans are made: what is no number of sheets is refused, what is set is asked for', async () => {
  await opened();
  await userEvent.click(screen.getByRole('button', { name: 'Settings' }));
  const box = await screen.findByRole('dialog', { name: 'How plans are made' });
  const most = within(box).getByRole('textbox', { name: /At most/ });
  await userEvent.type(most, 'many{Enter}');
  expect(within(box).getByRole('alert').textContent).toContain('a whole number from 1 to 9999');
  await userEvent.clear(most);
  await userEvent.type(most, '2{Enter}');
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  await userEvent.keyboard('p');
  await draftSays('2 operations');
  expect(server.asked.find((one) => one.startsWith(`POST ${at}/proposal`))).toContain('"maxSheets":2');
});

test('style attributes that are still read, or cannot be, are no zero', async () => {
  server.says[`GET ${at}/revisions/1/attributes`] = () => [
    503,
    { detail: 'The site needs more memory than there is.' },
  ];
  await opened();
  const tab = await screen.findByRole('button', { name: 'Style attributes ?' });
  await userEvent.click(tab);
  expect((await screen.findByRole('alert')).textContent).toContain('more memory');
});

test('rules that cannot be grouped: it says why', async () => {
  server.says[`GET ${at}/revisions/1/families`] = () => [503, { detail: 'The server is being stopped.' }];
  openAt('gather');
  expect((await screen.findByRole('heading', { level: 1, name: /being stopped/ })).textContent).toContain(
    'being stopped',
  );
});

test('where nothing is left but presentational attributes, a plan is about these', async () => {
  type Pages = { pages: { styleAttributes: number; sources: { kind: string; bytes: number }[] }[] };
  const survey = structuredClone(replies[`GET ${at}/revisions/1/survey`]) as Pages;
  const sources = [{ kind: 'presentational', bytes: 700 }];
  const pages = survey.pages.map((page) => ({ ...page, styleAttributes: 0, embeddedRules: 0, sources }));
  server.says[`GET ${at}/revisions/1/survey`] = () => [200, { ...survey, pages }];
  server.says[`GET ${at}/revisions/1/families`] = () => [200, { families: [] }];
  server.says[`GET ${at}/revisions/1/attributes`] = () => [200, { groups: [], left: [] }];
  openAt('survey');
  const left = await screen.findByRole('heading', { level: 1, name: /^No rule and no style attribute is left/ });
  expect(left.textContent).toContain('presentational attributes say 2.1 kB.');
  await userEvent.click(screen.getByRole('button', { name: /^Propose a plan/ }));
  await waitFor(() => expect(heading()).toMatch(/^No page holds a rule.* say 2\.1 kB\.$/));
  await waitFor(() => expect(server.bodyOf(`POST ${at}/proposal`)).toMatchObject({ settings: { hints: true } }));
});
