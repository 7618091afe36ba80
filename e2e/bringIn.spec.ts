import { expect, test, type Page } from '@playwright/test';
import { zipSync } from 'fflate';
import { fileURLToPath } from 'node:url';
import { draftBar } from './demoSite.ts';

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
  const said = page.getByRole('status').filter({ hasText: '1 file was left out' });
  await said.getByRole('link', { name: 'walks' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('1 rule');
});

const linked = text('<!DOCTYPE html><title>t</title><link rel="stylesheet" href="s.css"><p>x</p>');

async function bring(page: Page, name: string, files: Record<string, Uint8Array>): Promise<void> {
  await page.goto('/');
  const buffer = Buffer.from(zipSync(files));
  await page.getByLabel('Zip or files').setInputFiles({ name: `${name}.zip`, mimeType: 'application/zip', buffer });
}

test('pages put in later are compared with the others, and one action links them alike', async ({ page }) => {
  await bring(page, 'later', { 'a.html': linked, 'b.html': linked, 's.css': text('p{color:red}') });
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Nothing is left inside 2 pages');
  await page.getByRole('button', { name: 'Files of the site' }).click();
  const box = page.getByRole('dialog');
  await expect(box).toContainText('2 pages, 1 sheet and 0 other files as of r1');
  await page.getByLabel('Files to put in').setInputFiles({
    name: 'new.html',
    mimeType: 'text/html',
    buffer: Buffer.from('<!DOCTYPE html><title>t</title><p>x</p>'),
  });
  await expect(box).toContainText('Saved as r2: 1 file put in (new).');
  await expect(box).toContainText('new does not link s.css, as the pages beside it do.');
  await box.getByRole('button', { name: 'Link it alike' }).click();
  await expect(draftBar(page)).toContainText('1 operation changes 1 file.');
  await expect(draftBar(page)).toContainText('new looks different');
  await draftBar(page).getByRole('button', { name: 'Discard' }).click();
  await page.getByRole('complementary', { name: 'Pages' }).getByRole('option', { name: /^new/ }).click();
  await page.getByRole('button', { name: 'Files of the site' }).click();
  await box.getByRole('button', { name: 'Take the 1 chosen page out' }).click();
  await expect(box).toContainText('Saved as r3: 1 file taken out (new).');
});

test('what was left out is taken in after all', async ({ page }) => {
  await bring(page, 'left', { 'a.html': linked, 's.css': text('p{}'), 'Thumbs.db': text('x') });
  await page.getByRole('button', { name: 'Take it in' }).click();
  await expect(page.getByRole('button', { name: 'Take it in' })).toHaveCount(0);
  await expect(page.getByRole('row', { name: /^left/ })).toContainText('r2');
});

test('stopped while it is read; renamed; removed and brought back', async ({ page }) => {
  const many = Object.fromEntries(
    Array.from({ length: 1500 }, (_, i) => [`${i}.html`, text('<style>p{top:0}</style><p>x</p>'.repeat(40))]),
  );
  await bring(page, 'stopped', many);
  await page.getByRole('button', { name: 'Stop reading' }).click();
  await expect(page.getByRole('row', { name: /stopped/ })).toHaveCount(0);
  await bring(page, 'names', { 'a.html': linked, 's.css': text('p{}') });
  await expect(page.getByRole('heading', { level: 1 })).toContainText('inside 1 page');
  await page.goto('/');
  await page.getByRole('button', { name: 'More for names' }).click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.getByRole('textbox', { name: 'Name of the site' }).fill('Marsh walks');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: 'Marsh walks' })).toBeVisible();
  await page.getByRole('button', { name: 'More for Marsh walks' }).click();
  await page.getByRole('menuitem', { name: 'Remove' }).click();
  await expect(page.getByRole('link', { name: 'Marsh walks' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(page.getByRole('link', { name: 'Marsh walks' })).toBeVisible();
});

test('a folder opened to work in gets the changed files back, unless someone changed them there', async ({ page }) => {
  await page.goto('/');
  // the browser's own chooser cannot be worked by a test: a folder of the origin's private file system stands in
  await page.evaluate(async () => {
    const root = await navigator.storage.getDirectory();
    const folder = await root.getDirectoryHandle('walks', { create: true });
    const put = async (name: string, content: string): Promise<void> => {
      const file = await (await folder.getFileHandle(name, { create: true })).createWritable();
      await file.write(content);
      await file.close();
    };
    await put('a.html', '<!DOCTYPE html><title>t</title><style>p{color:red}</style><p>x</p>\n');
    await put('b.html', '<!DOCTYPE html><title>t</title><p>x</p>\n');
    Object.assign(window, { showDirectoryPicker: () => Promise.resolve(folder) });
  });
  await page.getByRole('button', { name: 'Open a folder to work in' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('1 rule');
  await page.getByRole('button', { name: /Propose a plan/ }).click();
  await expect(draftBar(page)).toContainText('All 2 pages look the same.');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('button', { name: 'Revision r2' })).toBeVisible();
  await page.keyboard.press('7');
  const there = (name: string): Promise<string> =>
    page.evaluate(async (path) => {
      let at = await (await navigator.storage.getDirectory()).getDirectoryHandle('walks');
      const parts = path.split('/');
      for (const part of parts.slice(0, -1)) at = await at.getDirectoryHandle(part);
      return (await (await at.getFileHandle(parts.at(-1)!)).getFile()).text();
    }, name);
  await page.evaluate(async () => {
    const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle('walks');
    const file = await (await folder.getFileHandle('a.html')).createWritable();
    await file.write('changed');
    await file.close();
  });
  await page.getByRole('button', { name: 'Write into it' }).click();
  await expect(page.getByRole('alert')).toContainText('Nothing was written: a.html changed in the folder meanwhile');
  expect(await there('a.html')).toBe('changed');
  await page.evaluate(async () => {
    const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle('walks');
    const file = await (await folder.getFileHandle('a.html')).createWritable();
    await file.write('<!DOCTYPE html><title>t</title><style>p{color:red}</style><p>x</p>\n');
    await file.close();
  });
  await page.getByRole('button', { name: 'Write into it' }).click();
  await expect(page.getByText('2 files written into walks.')).toBeVisible();
  expect(await there('a.html')).toContain('<link rel="stylesheet" href="css/site.css">');
  expect(await there('css/site.css')).toContain('color:red');
});

test('a folder by the chooser', async ({ page }) => {
  await page.goto('/');
  await page.getByLabel('Folder').setInputFiles(fileURLToPath(new URL('../demo', import.meta.url)));
  await expect(page.getByRole('heading', { level: 1 })).toContainText('inside 26 pages');
});

for (const { shows, buffer, says } of [
  { shows: 'what is no zip', buffer: Buffer.from('hello'), says: 'no zip we can read' },
  {
    shows: 'a zip cut short',
    buffer: Buffer.from(zipSync({ 'a.html': text('<p>x</p>'.repeat(100)), 'b.html': text('<p>') })).subarray(0, 90),
    says: 'no zip we can read',
  },
  {
    shows: 'a zip that climbs out of the site',
    buffer: Buffer.from(zipSync({ '../../a.html': text('<p>') })),
    says: 'climbs out of the site',
  },
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
