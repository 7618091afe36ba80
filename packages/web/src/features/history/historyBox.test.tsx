import { expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { SiteDetailReply } from '@syndeton/contract';
import { at, openAt, recordedSite, replies } from '../../testing/recordedSite.tsx';

const server = recordedSite();
const site = replies[`GET ${at}`] as SiteDetailReply;
const [first] = site.revisions;
const two: SiteDetailReply = {
  ...site,
  revision: 2,
  revisions: [{ ...first!, number: 2, message: 'One sheet', steps: ['Gather 3 rules', 'Sort css/site.css'] }, first!],
};

async function history(): Promise<ReturnType<typeof within>> {
  server.says[`GET ${at}`] = () => [200, two];
  openAt('links');
  await userEvent.click(await screen.findByRole('button', { name: 'Revision r2' }));
  return within(await screen.findByRole('dialog', { name: '2 revisions of Lamp oil' }));
}
const asked = (start: string) => server.asked.filter((one) => one.startsWith(start));

test('back to an earlier one: asked first, then saved as a new one', async () => {
  server.says[`POST ${at}/revisions/1/restore`] = () => [201, { number: 3 }];
  const box = await history();
  await userEvent.click(box.getByRole('button', { name: 'Go back to r1' }));
  expect(box.getByText(/r3 would be what/).textContent).toContain('r3 would be what r1 was.');
  expect(asked(`POST ${at}/revisions/1`)).toEqual([]);
  await userEvent.click(box.getByRole('button', { name: 'Save r3 so' }));
  await waitFor(() =>
    expect(asked(`POST ${at}/revisions/1/restore`)).toEqual([`POST ${at}/revisions/1/restore {"base":2}`]),
  );
  await waitFor(() => expect(box.getByRole('list', { name: /Revisions/ })).toBeTruthy());
});

test('one operation of a revision is undone; where that cannot be, the reason is said', async () => {
  server.says[`POST ${at}/revisions/2/without`] = () => [
    422,
    { detail: 'css/site.css is written by what came after.' },
  ];
  const box = await history();
  await userEvent.click(box.getByText('2 operations'));
  await userEvent.click(box.getByRole('button', { name: 'Undo “Sort css/site.css” of r2' }));
  expect(box.getByText(/without/).textContent).toContain('without Sort css/site.css');
  await userEvent.click(box.getByRole('button', { name: 'Save r3 so' }));
  expect((await box.findByRole('alert')).textContent).toBe('css/site.css is written by what came after.');
  // the reason is of that question alone
  await userEvent.click(box.getByRole('button', { name: 'Cancel' }));
  await userEvent.click(box.getByRole('button', { name: 'Go back to r1' }));
  expect(box.queryByRole('alert')).toBeNull();
});

test('with something in the draft nothing is done over it', async () => {
  server.changeElsewhere([{ kind: 'sort-rules', sheet: 'css/site.css' }]);
  const box = await history();
  await userEvent.click(box.getByRole('button', { name: 'Go back to r1' }));
  expect(box.getByText(/1 operation of the draft is not saved/)).toBeTruthy();
  expect((box.getByRole('button', { name: 'Save r3 so' }) as HTMLButtonElement).disabled).toBe(true);
});

test('two revisions are compared at Proof', async () => {
  const box = await history();
  await userEvent.click(box.getByRole('button', { name: 'Compare r1 with r2' }));
  await waitFor(() => expect(window.location.pathname).toMatch(/\/proof$/));
  expect(window.location.search).toBe('?from=1&to=2');
});

test('a name is given and asked for at once', async () => {
  server.says[`PATCH ${at}/revisions/2`] = () => [204];
  const box = await history();
  await userEvent.click(box.getByRole('button', { name: 'Name r2' }));
  await userEvent.keyboard('{Control>}a{/Control}All in one{Enter}');
  await waitFor(() => expect(asked('PATCH')).toEqual([`PATCH ${at}/revisions/2 {"message":"All in one"}`]));
});
