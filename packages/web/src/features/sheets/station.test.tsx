import { beforeEach, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { EffectReply } from '@syndeton/contract';
import { at, openAt, recordedSite, replies } from '../../testing/recordedSite.tsx';

const server = recordedSite();
const effect = replies[`POST ${at}/draft/effect`] as EffectReply;
const text = 'body { margin: 0 }\nh2 { color: #0b5563; font-size: 18px }\nh3 { color: #0b5563 }\n';

// without a text there is no editor: what is done to the whole sheet is there all the same
beforeEach(() => {
  server.says[`GET ${at}/files/draft/css/site.css`] = () => [
    200,
    { path: 'css/site.css', hash: 'h1', encoding: 'utf-8', text: null },
  ];
});
const opened = async (): Promise<void> => {
  openAt('sheets');
  await screen.findByRole('heading', { level: 1, name: /css\/site\.css has 2 rules for 2 pages/ });
};
const more = async (words: RegExp): Promise<void> => {
  await userEvent.click(await screen.findByRole('button', { name: 'This sheet …' }));
  await userEvent.click(await screen.findByRole('menuitem', { name: words }));
};
const box = async (name: RegExp) => within(await screen.findByRole('dialog', { name }));
const becomes = (operation: object) => waitFor(() => expect(server.draft().operations.at(-1)).toEqual(operation));
const put = (dialog: ReturnType<typeof within>) =>
  userEvent.click(dialog.getByRole('button', { name: 'Put it into the draft' }));

test('a sheet that does not encode back is said to be carried along', async () => {
  await opened();
  expect(await screen.findByText(/does not encode back to its own bytes/)).toBeTruthy();
});

test('a new sheet begins with nothing or a short set, and is linked first or last', async () => {
  await opened();
  await userEvent.click(screen.getByRole('button', { name: 'New sheet' }));
  const dialog = await box(/New sheet/);
  await userEvent.type(dialog.getByRole('textbox'), 'css/forms.css');
  await userEvent.click(dialog.getByRole('radio', { name: /a short set/ }));
  await put(dialog);
  await waitFor(() =>
    expect(server.draft().operations[0]).toMatchObject({
      kind: 'new-sheet',
      sheet: 'css/forms.css',
      pages: ['index.html', 'old.html', 'prices.html'],
      place: { at: 'first' },
    }),
  );
});

test('renamed; what is refused stays in the box', async () => {
  await opened();
  await more(/Rename or move it/);
  const dialog = await box(/Rename or move css\/site\.css/);
  const field = dialog.getByRole('textbox');
  await userEvent.clear(field);
  await userEvent.type(field, 'style/all.css');
  server.says[`POST ${at}/draft/effect`] = () => [422, { detail: 'There is already a file style/all.css.' }];
  await put(dialog);
  expect((await dialog.findByRole('alert')).textContent).toBe('There is already a file style/all.css.');
  expect(server.draft().operations).toEqual([]);
  server.says[`POST ${at}/draft/effect`] = () => [200, effect];
  await put(dialog);
  await becomes({ kind: 'rename-sheet', sheet: 'css/site.css', to: 'style/all.css' });
});

test('what would change a look is asked about first', async () => {
  await opened();
  server.says[`POST ${at}/draft/effect`] = () => [200, { ...effect, differing: ['index.html'], unsure: ['old.html'] }];
  await more(/Delete it/);
  const dialog = await box(/Delete css\/site\.css\?/);
  expect(dialog.getByText(/will look different/).textContent).toBe('1 page will look different: index.');
  expect(dialog.getByText(/cannot be told/).textContent).toBe('Of 1 page it cannot be told: old.');
  await userEvent.click(dialog.getByRole('button', { name: 'Put it in the draft all the same' }));
  await becomes({ kind: 'delete-sheet', sheet: 'css/site.css' });
});

test.each([
  [/Sort its rules/, { kind: 'sort-rules', sheet: 'css/site.css' }],
  [/Drop what never wins/, { kind: 'drop-beaten', sheet: 'css/site.css' }],
  [/as #rrggbb/, { kind: 'colour-notation', sheet: 'css/site.css', to: 'hex' }],
])('%s goes into the draft at once where it changes no look', async (words, operation) => {
  await opened();
  await more(words);
  await becomes(operation);
});

test('the rules of one page go to a sheet of its own', async () => {
  await opened();
  await more(/Take one page’s rules out/);
  const dialog = await box(/out|page/i);
  await userEvent.selectOptions(dialog.getByRole('combobox'), 'prices.html');
  await put(dialog);
  await becomes({ kind: 'part-page', sheet: 'css/site.css', page: 'prices.html', to: 'prices.css' });
});

test('a name is renamed by what it is the name of', async () => {
  await opened();
  await userEvent.click(await screen.findByRole('button', { name: 'Rename a class or ID' }));
  const dialog = await box(/Rename/);
  const [is, gets] = dialog.getAllByRole('textbox');
  await userEvent.type(is!, '#wrap');
  expect((dialog.getByRole('radio', { name: 'an ID' }) as HTMLInputElement).getAttribute('aria-checked')).toBe('true');
  await userEvent.type(gets!, '#frame');
  await put(dialog);
  await becomes({ kind: 'rename-name', of: 'id', from: 'wrap', to: 'frame' });
});

test('colours that are there twice get names; those without one stay', async () => {
  server.says[`GET ${at}/files/draft/css/site.css`] = () => [
    200,
    { path: 'css/site.css', hash: 'h1', encoding: 'utf-8', text },
  ];
  await opened();
  await more(/Give colours and fonts names/);
  const dialog = await box(/names|values/i);
  await userEvent.type(dialog.getByRole('textbox'), 'sea');
  await put(dialog);
  await becomes({ kind: 'values-to-properties', sheet: 'css/site.css', values: [{ value: '#0b5563', name: '--sea' }] });
});
