import { beforeEach, expect, test } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { openAddress, recordedSite, replies, siteId } from '../../testing/recordedSite.tsx';

const server = recordedSite();
const [site] = (replies['GET /api/sites'] as { sites: { name: string }[] }).sites;
const running = {
  id: 'i1',
  name: 'lamp',
  status: 'reading',
  files: 2,
  done: 1,
  total: 2,
  rules: 0,
  leftOut: [],
  detail: '',
  siteId: null,
};

beforeEach(() => {
  server.says['GET /api/imports'] = () => [200, { imports: [] }];
});
const open = () => openAddress('/');
const asked = (start: string) => server.asked.filter((one) => one.startsWith(start));

test('the demo is brought in and opened', async () => {
  server.says['POST /api/sites/demo'] = () => [201, { id: siteId }];
  open();
  await userEvent.click(await screen.findByRole('button', { name: 'Load the demo' }));
  await waitFor(() => expect(window.location.pathname).toBe(`/sites/${siteId}/survey`));
  expect(await screen.findByRole('heading', { level: 1, name: /3 pages/ })).toBeTruthy();
});

test('a site is renamed in place, removed, and brought back', async () => {
  server.says[`PATCH /api/sites/${siteId}`] = () => [204];
  server.says[`DELETE /api/sites/${siteId}`] = () => [204];
  server.says[`POST /api/sites/${siteId}/restore`] = () => [204];
  open();
  await screen.findByRole('link', { name: site!.name });
  await userEvent.click(screen.getByRole('button', { name: `More for ${site!.name}` }));
  await userEvent.click(await screen.findByRole('menuitem', { name: /Rename/ }));
  await userEvent.keyboard('{Control>}a{/Control}Whale oil{Enter}');
  await waitFor(() => expect(asked('PATCH')).toEqual([`PATCH /api/sites/${siteId} {"name":"Whale oil"}`]));
  await userEvent.click(screen.getByRole('button', { name: `More for ${site!.name}` }));
  await userEvent.click(await screen.findByRole('menuitem', { name: /Remove/ }));
  await userEvent.click(await screen.findByRole('button', { name: /Bring it back/ }));
  await waitFor(() => expect(asked(`POST /api/sites/${siteId}/restore`)).toHaveLength(1));
  expect(asked('DELETE')).toEqual([`DELETE /api/sites/${siteId}`]);
});

test('files are sent, the import is shown, and a refusal of it is said', async () => {
  let imports: object[] = [];
  server.says['GET /api/imports'] = () => [200, { imports }];
  server.says['POST /api/imports'] = () => {
    imports = [{ ...running, status: 'failed', detail: 'The zip holds no page.' }];
    return [202, running];
  };
  open();
  const input = await screen.findByLabelText<HTMLInputElement>('Zip or files');
  await userEvent.upload(input, new File(['PK'], 'lamp.zip', { type: 'application/zip' }));
  expect(await screen.findByText(/lamp was not brought in. The zip holds no page./)).toBeTruthy();
});

test('a server that is away is said, in words that help', async () => {
  server.says['GET /api/sites'] = () => [503, { detail: 'The database is away for a moment. Ask again.' }];
  open();
  expect(await screen.findByText(/database is away for a moment/)).toBeTruthy();
});
