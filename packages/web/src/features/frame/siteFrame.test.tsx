import { expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { at, openAt, recordedSite } from '../../testing/recordedSite.tsx';

const server = recordedSite();

const heading = (words: RegExp | string) => screen.findByRole('heading', { level: 1, name: words });
const draftBar = () => screen.getByRole('region', { name: 'Draft' });
const barSays = (words: string | RegExp) => waitFor(() => expect(draftBar().textContent).toMatch(words));
const sort = { kind: 'sort-rules', sheet: 'css/site.css' } as const;
const address = () => window.location.pathname.split('/').at(-1)! + decodeURIComponent(window.location.search);

test('the stations are at their numbers; the frame says where one is', async () => {
  openAt('survey');
  await heading(/still sit inside 3 pages/);
  const stations: [key: string, name: string][] = [
    ['2', 'gather'],
    ['4', 'links'],
    ['7', 'hand-off'],
    ['1', 'survey'],
  ];
  for (const [key, name] of stations) {
    await userEvent.keyboard(key);
    await waitFor(() => expect(address()).toBe(name));
  }
  const tabs = within(screen.getByRole('navigation', { name: 'Stations' })).getAllByRole('link');
  expect(tabs.map((one) => one.textContent)).toEqual([
    'Survey 3 pages',
    'Gather 6 left',
    'Sheets 1 sheet',
    'Links 2 to mend',
    'Precedence 1 override',
    'Proof  nothing to compare',
    'Hand-off  no change yet',
  ]);
  expect(tabs[0]!.getAttribute('aria-current')).toBe('page');
});

test('what is in the draft is said, taken back, done again, asked about before all of it is dropped', async () => {
  server.changeElsewhere([sort]);
  openAt('survey');
  await heading(/3 pages/);
  await barSays('1 operation changes 1 file.');
  await userEvent.keyboard('{Control>}z{/Control}');
  await barSays('The draft is empty');
  await userEvent.keyboard('{Control>}y{/Control}');
  await barSays('1 operation');
  await userEvent.click(within(draftBar()).getByRole('button', { name: 'Review' }));
  expect((await screen.findByRole('dialog')).textContent).toContain('Does sort-rules.');
  await userEvent.keyboard('{Escape}');
  // one is dropped at once and can be put back
  await userEvent.click(within(draftBar()).getByRole('button', { name: 'Discard' }));
  await barSays('The draft is empty');
  await userEvent.click(within(draftBar()).getByRole('button', { name: 'Put back' }));
  await barSays('1 operation');
  expect(server.written()).toEqual([
    `PUT draft {"base":1,"version":1,"operations":[]}`,
    `PUT draft {"base":1,"version":2,"operations":[${JSON.stringify(sort)}]}`,
    'DELETE draft',
    `PUT draft {"base":1,"version":4,"operations":[${JSON.stringify(sort)}]}`,
  ]);
});

test('several are dropped once that is agreed to', async () => {
  server.changeElsewhere([sort, { ...sort, sheet: 'b.css' }]);
  openAt('survey');
  await barSays('2 operations change 2 files.').catch(() => screen.findByRole('heading', { level: 1 }));
  await barSays('2 operations change 2 files.');
  await userEvent.click(within(draftBar()).getByRole('button', { name: 'Discard' }));
  const box = await screen.findByRole('dialog', { name: 'Discard 2 operations?' });
  await userEvent.click(within(box).getByRole('button', { name: 'Cancel' }));
  await barSays('2 operations');
  await userEvent.click(within(draftBar()).getByRole('button', { name: 'Discard' }));
  await userEvent.click(await screen.findByRole('button', { name: 'Discard them' }));
  await barSays('The draft is empty');
});

test('one operation is taken out of the draft by its sentence, the others stay', async () => {
  server.changeElsewhere([sort, { ...sort, sheet: 'b.css' }]);
  openAt('survey');
  await heading(/3 pages/);
  await barSays('2 operations');
  await userEvent.click(within(draftBar()).getByRole('button', { name: 'Review' }));
  const box = within(await screen.findByRole('dialog', { name: '2 operations, 2 files' }));
  await userEvent.click(box.getByRole('button', { name: 'Remove operation 1 from the draft' }));
  await waitFor(() => expect(server.draft().operations).toEqual([{ ...sort, sheet: 'b.css' }]));
  await barSays('1 operation');
});

test('saved, the site stands at the next revision and the draft is empty', async () => {
  server.changeElsewhere([sort]);
  openAt('survey');
  await barSaysAfterOpening('1 operation');
  await userEvent.keyboard('{Control>}{Enter}{/Control}');
  await screen.findByRole('button', { name: 'Revision r2' });
  await barSays(/^DraftThe draft is empty/);
  expect(server.written()).toEqual(['POST revisions {"base":1,"version":1}']);
});

test('what another window did first is told; mine is done again on top, or left', async () => {
  server.changeElsewhere([sort]);
  openAt('survey');
  await barSaysAfterOpening('1 operation');
  server.changeElsewhere([sort, { ...sort, sheet: 'b.css' }]);
  await userEvent.keyboard('{Control>}z{/Control}');
  await barSays('Not done. In another window 1 operation was put in meanwhile.');
  await userEvent.click(within(draftBar()).getByRole('button', { name: 'Redo mine on top' }));
  await barSays('3 operations');
  expect(server.written().at(-1)).toBe('POST draft/redo {"redo":"late-1"}');
});

test('a save that is refused says why, and the draft stays', async () => {
  server.changeElsewhere([sort]);
  server.says[`POST ${at}/revisions`] = () => [422, { detail: 'css/site.css was changed since. Plan it again.' }];
  openAt('survey');
  await barSaysAfterOpening('1 operation');
  await userEvent.click(within(draftBar()).getByRole('button', { name: /Save as r2/ }));
  await barSays('css/site.css was changed since. Plan it again.');
  await barSays('1 operation');
});

test.each([
  ['survey?open=nix.html', /nix\.html/],
  ['sheets?open=css/nix.css', /css\/nix\.css/],
  ['nowhere', /nowhere/],
])('%s: what the address names and is not there is said, with a way back', async (place, words) => {
  openAt(place);
  expect((await screen.findByRole('alert')).textContent).toMatch(words);
  expect(screen.getAllByRole('link').length).toBeGreaterThan(7);
});

test('a site that is not there, and a server that fails, say so', async () => {
  server.says[`GET ${at}`] = () => [404, { detail: 'There is no such site.' }];
  openAt('survey');
  expect(await screen.findByText(/There is no such site/)).toBeTruthy();
});

test('a page is found by a part of its name', async () => {
  openAt('links');
  await heading(/3 pages/);
  await userEvent.keyboard('{Control>}k{/Control}');
  await userEvent.type(await screen.findByRole('combobox'), 'pric');
  await userEvent.keyboard('{Enter}');
  await waitFor(() => expect(address()).toContain('prices.html'));
});

test('the keys are told', async () => {
  openAt('survey');
  await heading(/3 pages/);
  await userEvent.keyboard('?');
  expect((await screen.findByRole('dialog')).textContent).toContain('save the draft');
});

async function barSaysAfterOpening(words: string): Promise<void> {
  await heading(/3 pages/);
  await barSays(words);
}

test('what was found in a revision is asked for once: a save asks for nothing of the one before', async () => {
  server.changeElsewhere([sort]);
  openAt('gather');
  await screen.findByRole('heading', { level: 1, name: /families/ });
  await barSays('1 operation');
  const before = server.asked.length;
  await userEvent.keyboard('{Control>}{Enter}{/Control}');
  await screen.findByRole('button', { name: 'Revision r2' });
  await waitFor(() => expect(server.asked).toContain(`GET ${at}/revisions/2/families`));
  const asked = server.asked.slice(before);
  expect(asked.filter((one) => one.includes('/revisions/1/'))).toEqual([]);
  expect(new Set(asked).size).toBe(asked.length);
});

test('another draft is looked at anew, the revision it is on is not', async () => {
  server.changeElsewhere([sort]);
  openAt('gather');
  await screen.findByRole('heading', { level: 1, name: /families/ });
  await barSays('1 operation');
  const before = server.asked.length;
  await userEvent.keyboard('{Control>}z{/Control}');
  await barSays('The draft is empty');
  await waitFor(() => expect(server.asked.slice(before)).toContain(`GET ${at}/revisions/1/survey`));
  expect(server.asked.slice(before)).not.toContain(`GET ${at}/revisions/1/families`);
});
