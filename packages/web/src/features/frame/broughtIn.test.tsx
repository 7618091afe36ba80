import { expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { SiteDetailReply } from '@syndeton/contract';
import { at, openAt, recordedSite, replies } from '../../testing/recordedSite.tsx';

const server = recordedSite();
const changed = { number: 2, added: [], replaced: [], removed: [], lacking: [], leftOut: [] };

async function files(place = 'links'): Promise<ReturnType<typeof within>> {
  openAt(place);
  await userEvent.click(await screen.findByRole('button', { name: 'Files of the site' }));
  return within(await screen.findByRole('dialog', { name: 'What Lamp oil holds' }));
}
const asked = (start: string) => server.asked.filter((one) => one.startsWith(start));

test('what the site holds; one file is taken out', async () => {
  server.says[`POST ${at}/files/remove`] = () => [200, { ...changed, removed: ['old.html'] }];
  const box = await files();
  await userEvent.click(box.getByText('All 4 files'));
  const row = box.getAllByRole('listitem').find((one: HTMLElement) => one.textContent.includes('old.html'))!;
  await userEvent.click(within(row).getByRole('button', { name: 'Remove from the site' }));
  expect((await box.findByText(/file taken out/)).textContent).toContain('Saved as r2: 1 file taken out (old).');
  expect(asked(`POST ${at}/files/remove`)).toEqual([`POST ${at}/files/remove {"base":1,"paths":["old.html"]}`]);
});

test('the pages chosen are taken out together', async () => {
  server.says[`POST ${at}/files/remove`] = () => [409, { detail: 'The site was changed in another window.' }];
  const box = await files('links?page=old.html&page=index.html');
  await userEvent.click(box.getByRole('button', { name: 'Take the 2 chosen pages out' }));
  expect((await box.findByRole('alert')).textContent).toBe('The site was changed in another window.');
});

test('files put in that lack the links of those beside them are offered them', async () => {
  server.says[`POST ${at}/files`] = () => [
    200,
    { ...changed, added: ['new.html'], lacking: [{ page: 'new.html', sheets: ['css/site.css'] }] },
  ];
  const box = await files();
  await userEvent.upload(box.getByLabelText('Files to put in'), new File(['<p>'], 'new.html', { type: 'text/html' }));
  await userEvent.click(await box.findByRole('button', { name: 'Link it alike' }));
  await waitFor(() => expect(server.draft().operations).toEqual([{ kind: 'link-alike', pages: ['new.html'] }]));
});

test('what was left out says why, and may be taken in', async () => {
  const site = replies[`GET ${at}`] as SiteDetailReply;
  server.says[`GET ${at}`] = () => [
    200,
    { ...site, leftOut: [{ path: 'raw/photo.tif', bytes: 9_000_000, reason: 'too-large', takeable: true }] },
  ];
  server.says[`POST ${at}/files/take`] = () => [200, { ...changed, added: ['raw/photo.tif'] }];
  const box = await files();
  expect(box.getByText(/left out/).textContent).toContain('1 file was left out');
  expect(box.getByText('raw/photo.tif')).toBeTruthy();
});
