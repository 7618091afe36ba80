import { expect, test } from '@playwright/test';
import { zipSync } from 'fflate';
import { fileURLToPath } from 'node:url';

const text = (content: string): Uint8Array => new TextEncoder().encode(content);

test('a zip by the chooser, with what was left out', async ({ page }) => {
  await page.goto('/');
  const zip = zipSync({
    'walks/index.html': text('<!DOCTYPE html><title>t</title><style>p{color:red}</style><p>x</p>'),
    'walks/.DS_Store': text('x'),
  });
  await page
    .getByLabel('Zip or files')
    .setInputFiles({ name: 'walks.zip', mimeType: 'application/zip', buffer: Buffer.from(zip) });
  await expect(page.getByRole('status')).toContainText('1 file was left out');
  await page.getByRole('status').getByRole('link', { name: 'walks' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('1 rule');
});

test('a folder by the chooser', async ({ page }) => {
  await page.goto('/');
  await page.getByLabel('Folder').setInputFiles(fileURLToPath(new URL('../demo', import.meta.url)));
  await expect(page.getByRole('heading', { level: 1 })).toContainText('inside 26 pages');
});

for (const { shows, buffer, says } of [
  { shows: 'what is no zip', buffer: Buffer.from('hello'), says: 'no zip we can read' },
  {
    shows: 'a zip without a page',
    buffer: Buffer.from(zipSync({ 'a.txt': text('a') })),
    says: 'There is no page in it',
  },
])
  test(`refused in words, and nothing kept: ${shows}`, async ({ page }) => {
    await page.goto('/');
    const count = ((await (await page.request.get('/api/sites')).json()) as { sites: unknown[] }).sites.length;
    await page.getByLabel('Zip or files').setInputFiles({ name: 'x.zip', mimeType: 'application/zip', buffer });
    await expect(page.getByRole('alert')).toContainText(says);
    expect(((await (await page.request.get('/api/sites')).json()) as { sites: unknown[] }).sites).toHaveLength(count);
  });
