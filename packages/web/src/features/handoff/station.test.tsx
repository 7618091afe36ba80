import { expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { OutsideChangesReply } from '@syndeton/contract';
import { at, openAt, recordedSite } from '../../testing/recordedSite.tsx';

const server = recordedSite();
const outside: OutsideChangesReply = { same: 3, changed: [], fresh: [], gone: [], moved: [], older: [] };
const recipe = { recipe: 1, name: 'Whale oil', steps: [] };

async function handoff(): Promise<void> {
  server.stand();
  openAt('hand-off');
  await screen.findByRole('heading', { level: 1, name: /leave together/ });
}
const bringBack = async (): Promise<void> => {
  const zip = new File(['PK'], 'lamp.zip', { type: 'application/zip' });
  await userEvent.upload(screen.getByLabelText('A zip of the site as it is outside'), zip);
};
const applies = async (text: string): Promise<void> => {
  const file = new File([text], 'recipe.json', { type: 'application/json' });
  await userEvent.upload(screen.getByLabelText('A recipe'), file);
};

test('what leaves, how it was checked, and the ways out', async () => {
  await handoff();
  expect(screen.getByRole('heading', { level: 1 }).textContent).toContain('leave together');
  const ways = screen.getAllByRole('link').map((one) => one.getAttribute('href') ?? '');
  expect(ways.some((href) => href.includes('/revisions/2/archive'))).toBe(true);
  expect(ways.some((href) => href.includes('/revisions/2/patch'))).toBe(true);
});

test('the site as it is outside: what changed is shown, taken, and said to be saved', async () => {
  server.says[`POST ${at}/files/compare`] = () => [200, { ...outside, fresh: ['new.html'] }];
  server.says[`POST ${at}/files/outside`] = () => [
    200,
    { number: 3, added: ['new.html'], replaced: [], removed: [], lacking: [], leftOut: [] },
  ];
  await handoff();
  await bringBack();
  const box = within(await screen.findByRole('dialog', { name: 'What changed outside, against r2 of Lamp oil' }));
  await userEvent.click(box.getByRole('button', { name: /^Take/ }));
  expect((await box.findByRole('status')).textContent).toContain('Saved as r3: 1 file put in (new).');
  await userEvent.click(box.getByRole('button', { name: 'Close' }));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
});

test('a zip that cannot be read is refused with its reason, and nothing opens', async () => {
  server.says[`POST ${at}/files/compare`] = () => [422, { detail: 'lamp.zip is no zip: it ends after 2 bytes.' }];
  await handoff();
  await bringBack();
  expect((await screen.findByRole('alert')).textContent).toBe('lamp.zip is no zip: it ends after 2 bytes.');
  expect(screen.queryByRole('dialog')).toBeNull();
});

test('a recipe: what of it fits and what does not is told before it is put in the draft', async () => {
  const operation = { kind: 'sort-rules', sheet: 'css/site.css' };
  server.says[`POST ${at}/draft/recipe`] = () => [
    200,
    {
      operations: [operation],
      fits: ['Sort css/site.css'],
      misfits: [{ step: 1, why: 'there is no sheet css/x.css' }],
    },
  ];
  await handoff();
  await applies(JSON.stringify(recipe));
  const box = within(await screen.findByRole('dialog', { name: 'The recipe of Whale oil on this site' }));
  expect(box.getAllByRole('listitem').map((one) => one.textContent)).toEqual([
    'Sort css/site.css',
    'Step 2: there is no sheet css/x.css',
  ]);
  await userEvent.click(box.getByRole('button', { name: 'Put it into the draft' }));
  await waitFor(() => expect(server.draft().operations).toEqual([operation]));
});

test.each([
  ['{', /it is not JSON/],
  ['{"steps":[]}', /^This file is no recipe. A recipe is downloaded here/],
])('a file that is no recipe is told from one: %s', async (text, words) => {
  await handoff();
  await applies(text);
  expect((await screen.findByRole('alert')).textContent).toMatch(words);
});

test('where nothing of a recipe fits there is nothing to put in the draft', async () => {
  server.says[`POST ${at}/draft/recipe`] = () => [200, { operations: [], fits: [], misfits: [] }];
  await handoff();
  await applies(JSON.stringify(recipe));
  const box = within(await screen.findByRole('dialog'));
  expect(box.getByText('Nothing of it fits this site.')).toBeTruthy();
  expect(box.queryByRole('button', { name: 'Put it into the draft' })).toBeNull();
});
