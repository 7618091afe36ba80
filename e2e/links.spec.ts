import { expect, test } from '@playwright/test';
import { agree, draftBar, openDemo } from './demoSite.ts';

const proved = { timeout: 120_000 };

test('all links of the demo are mended, and the pages that were forgotten are named before', async ({ page }) => {
  await openDemo(page, 'links');
  const grid = page.getByRole('table', { name: 'Pages and the sheets they link' });
  await expect(grid.getByRole('row', { name: /^islands\/tarn/ })).toContainText('missing');
  await expect(grid.getByRole('row', { name: /^history/ })).toContainText('missing');
  await expect(grid.getByRole('row', { name: /^contact/ })).toContainText('wrong case');
  await expect(grid.getByRole('row', { name: /^news\/2023\/summer/ })).toContainText('inside a comment');
  await page.getByRole('button', { name: 'Mend the 7 with one right answer' }).click();
  // asked first: what its author wrote at the link in a comment, and which pages will look different
  await expect(page.getByRole('dialog')).toContainText('new look, switch on in May', proved);
  await expect(page.getByRole('dialog')).toContainText(/pages will look different: .*contact/);
  await agree(page);
  await expect(draftBar(page)).toContainText('7 operations', proved);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('1 link', proved);
  await expect(grid.getByRole('row', { name: /^history/ })).toContainText('no such file there');
  await page.getByRole('button', { name: 'css/history.css' }).click();
  await page.getByRole('button', { name: 'Take the link out' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('every page has its links', proved);
});

test('a sheet: its place, path, medium and name, by keyboard; each said in the draft and undone', async ({ page }) => {
  const id = await openDemo(page, 'links');
  const textOf = async (path: string): Promise<string> =>
    ((await (await page.request.get(`/api/sites/${id}/files/draft/${path}`)).json()) as { text: string }).text;
  await page.getByRole('button', { name: 'css/site.css' }).focus();
  await page.keyboard.press('Enter');
  const panel = page.getByRole('complementary', { name: 'Links to css/site.css' });
  await expect(panel).toContainText('12 pages one folder down');
  await expect(panel).toContainText('<link rel="stylesheet" href="../css/site.css">');
  await panel.getByText('from the site root').click();
  await expect(draftBar(page)).toContainText('1 operation', proved);
  await expect.poll(() => textOf('timetable.html')).toContain('href="/css/site.css"');
  await expect(panel.getByRole('radio', { name: 'from the site root' })).toBeChecked(proved);
  await panel.getByRole('button', { name: 'all', exact: true }).click();
  await page.getByRole('menuitem', { name: 'screen' }).click();
  await expect.poll(() => textOf('timetable.html')).toContain('href="/css/site.css" media="screen"');
  await page.keyboard.press('Control+z');
  await expect.poll(() => textOf('timetable.html')).not.toContain('media="screen"');
  await panel.getByLabel('Name and folder of the sheet').fill('css/a b');
  await panel.getByRole('button', { name: 'Rename' }).click();
  await expect(panel.getByRole('alert')).toContainText('a space');
  await panel.getByLabel('Name and folder of the sheet').fill('css/ferry');
  await panel.getByRole('button', { name: 'Rename' }).click();
  await expect(page.getByRole('button', { name: 'css/ferry.css' })).toBeVisible(proved);
  expect(await textOf('timetable.html')).toContain('href="/css/ferry.css"');
});

test('a column is moved by keyboard and by mouse', async ({ page }) => {
  await openDemo(page, 'links');
  const review = async (): Promise<string> => {
    await page.getByRole('button', { name: 'Review' }).click();
    const text = await page.getByRole('dialog').innerText();
    await page.keyboard.press('Escape');
    return text;
  };
  await page.getByRole('button', { name: 'css/print.css' }).focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(draftBar(page)).toContainText('1 operation', proved);
  expect(await review()).toContain('Move the link to css/print.css before css/site.css on timetable.html');
  // the columns change places once the pages are read again
  const heads = () => page.getByRole('columnheader').allInnerTexts();
  const place = async (name: string): Promise<number> => (await heads()).findIndex((text) => text.includes(name));
  await expect.poll(async () => (await place('css/print.css')) < (await place('css/site.css')), proved).toBe(true);
  await page.getByRole('button', { name: 'css/site.css' }).dragTo(page.getByRole('button', { name: 'css/base.css' }));
  await expect(draftBar(page)).toContainText('2 operations', proved);
  expect(await review()).toContain('Move the link to css/site.css before css/base.css on');
});

test('chosen pages get the links of another page, and a baseline goes first', async ({ page }) => {
  await openDemo(page, 'links?page=islands%2Ftarn.html');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('1 of 26 pages');
  await page.getByRole('button', { name: 'Link what another page links' }).click();
  await page.getByRole('menuitem', { name: 'timetable' }).click();
  await expect(draftBar(page)).toContainText('1 operation', proved);
  const row = page.getByRole('row', { name: /^islands\/tarn/ });
  await expect(row).toContainText('print', proved);
  await page.getByRole('button', { name: 'Put a baseline first' }).click();
  await expect(page.getByRole('button', { name: 'css/baseline.css' })).toBeVisible(proved);
});

test('a tag is copied also where the browser gives no clipboard, as over plain http', async ({ page }) => {
  await page.addInitScript(() => Object.defineProperty(navigator, 'clipboard', { value: undefined }));
  await openDemo(page);
  await page.keyboard.press('4');
  await page
    .getByRole('button', { name: /css\/site\.css/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Copy' }).first().click();
  await expect(page.getByText('Copied')).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.keyboard.press('Control+v');
  await expect(page.getByPlaceholder(/^Find a page/)).toHaveValue(/^<link rel="stylesheet" href=".*css\/site\.css">$/);
});
