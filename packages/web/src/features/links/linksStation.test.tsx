import { expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { EffectReply } from '@syndeton/contract';
import { at, openAt, recordedSite, replies } from '../../testing/recordedSite.tsx';

const server = recordedSite();

const opened = async (place = 'links'): Promise<void> => {
  openAt(place);
  await screen.findByRole('table', { name: 'Pages and the sheets they link' });
};
const last = () => server.draft().operations.at(-1);
const becomes = (operation: object) => waitFor(() => expect(last()).toEqual(operation));
const click = (name: string | RegExp) => userEvent.click(screen.getByRole('button', { name }));
const panel = async () => within(await screen.findByRole('complementary', { name: /^Links to/ }));
const effect = replies[`POST ${at}/draft/effect`] as EffectReply;

test('how many links need mending, and what has one right answer', async () => {
  await opened();
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe(
    '3 pages, 1 sheet: 2 links need mending before every page has its links.',
  );
  const [head] = screen.getAllByRole('columnheader', { name: /css\/site\.css/ });
  expect(head!.textContent).toContain('2 of 3');
});

test('a mend that changes a look is asked about first; left, nothing is in the draft', async () => {
  await opened();
  server.says[`POST ${at}/draft/effect`] = () => [200, { ...effect, differing: ['old.html'] }];
  await click('Mend the one with one right answer');
  const box = await screen.findByRole('dialog');
  expect(box.textContent).toContain('1 page will look different: old.');
  await userEvent.click(within(box).getByRole('button', { name: 'Cancel' }));
  expect(server.draft().operations).toEqual([]);
  await click('Mend the one with one right answer');
  await userEvent.click(await screen.findByRole('button', { name: 'Put it in the draft all the same' }));
  await waitFor(() => expect(last()?.kind).toBe('mend'));
});

test('a mend that changes nothing goes in at once', async () => {
  await opened();
  await click('Mend the one with one right answer');
  await waitFor(() => expect(last()).toMatchObject({ kind: 'mend' }));
  expect(screen.queryByRole('dialog')).toBeNull();
});

test('in the panel of a sheet: its place, how it is named, its medium, its name', async () => {
  await opened('links?open=css/site.css');
  const side = await panel();
  await userEvent.click(side.getByRole('radio', { name: /last in the head/ }));
  await becomes({ kind: 'move-link', sheet: 'css/site.css', place: { at: 'last' } });
  await userEvent.click(side.getByRole('radio', { name: 'from the site root' }));
  await becomes({ kind: 'set-link', sheet: 'css/site.css', paths: 'root' });
  await userEvent.click(side.getByRole('radio', { name: 'with the host name' }));
  await becomes({ kind: 'set-link', sheet: 'css/site.css', paths: { host: 'https://www.example.org' } });
  await userEvent.click(side.getByRole('button', { name: 'all' }));
  await userEvent.click(await screen.findByRole('menuitem', { name: 'print' }));
  await becomes({ kind: 'set-link', sheet: 'css/site.css', media: 'print' });
  await userEvent.click(side.getByRole('button', { name: 'Turn links into imports' }));
  await becomes({ kind: 'link-to-import', sheet: 'css/site.css' });
  await userEvent.click(side.getByRole('button', { name: 'Unlink from 2 pages' }));
  await becomes({ kind: 'unlink-sheet', sheet: 'css/site.css' });
  const name = side.getByRole('textbox', { name: /Name and folder/ });
  expect((side.getByRole('button', { name: 'Rename' }) as HTMLButtonElement).disabled).toBe(true);
  await userEvent.clear(name);
  await userEvent.type(name, 'css/all.css{Enter}');
  await becomes({ kind: 'rename-sheet', sheet: 'css/site.css', to: 'css/all.css' });
  // the sheet of that name is not there any more: its panel closes
  await waitFor(() => expect(screen.queryByRole('complementary', { name: /^Links to/ })).toBeNull());
});

test('a medium that is typed is looked at while it is typed', async () => {
  await opened('links?open=css/site.css');
  const side = await panel();
  await userEvent.click(side.getByRole('button', { name: 'all' }));
  await userEvent.click(await screen.findByRole('menuitem', { name: /a media query/ }));
  const field = side.getByRole('textbox', { name: 'Media query' });
  await userEvent.type(field, '(min-widht: 40em)');
  expect(field.getAttribute('aria-invalid')).toBe('true');
  await userEvent.clear(field);
  await userEvent.type(field, 'print{Enter}');
  await becomes({ kind: 'set-link', sheet: 'css/site.css', media: 'print' });
});

test('of the chosen pages only; they may get what another page links', async () => {
  await opened('links?page=old.html');
  await click('Link what another page links');
  await userEvent.click(await screen.findByRole('menuitem', { name: 'index' }));
  await becomes({ kind: 'copy-links', from: 'index.html', pages: ['old.html'] });
  await click('Put a baseline first');
  await becomes({ kind: 'add-baseline', sheet: 'css/baseline.css', pages: ['old.html'] });
});

test('what is refused is said, and the draft stays what it was', async () => {
  await opened('links?open=css/site.css');
  server.says[`PUT ${at}/draft`] = () => [422, { detail: 'There is already a file css/all.css. Choose another name.' }];
  const side = await panel();
  const name = side.getByRole('textbox', { name: /Name and folder/ });
  await userEvent.clear(name);
  await userEvent.type(name, 'css/all.css{Enter}');
  await waitFor(() => expect(side.getByRole('alert').textContent).toContain('There is already a file css/all.css'));
  expect(server.draft().operations).toEqual([]);
});
