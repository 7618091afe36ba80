import { expect, test, type Download, type Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import fs from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { compareSites } from '../scripts/compareSites.mjs';
import { draftBar, openDemo } from './demoSite.ts';

const demo = fileURLToPath(new URL('../demo', import.meta.url));

async function unpack(download: Download, folder: string): Promise<string[]> {
  const files = unzipSync(fs.readFileSync(await download.path()));
  for (const [name, content] of Object.entries(files)) {
    fs.mkdirSync(path.dirname(path.join(folder, name)), { recursive: true });
    fs.writeFileSync(path.join(folder, name), content);
  }
  return Object.keys(files);
}

test('the whole way by mouse; then the browser alone finds no difference on any page', async ({ page }, info) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Load the demo' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('still sit inside 26 pages');
  await page.getByRole('button', { name: /Propose a plan/ }).click();
  await expect(page).toHaveURL(/\/gather/);
  await expect(draftBar(page)).toContainText('All 26 pages look the same.', { timeout: 200_000 });
  await expect(page.getByRole('heading', { level: 1 })).toContainText('all decided');
  await draftBar(page)
    .getByRole('button', { name: /Save as r2/ })
    .click();
  await expect(page.getByRole('button', { name: 'Revision r2' })).toBeVisible();
  await page.getByRole('link', { name: /Hand-off/ }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('leave together');
  const whole = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Download zip' }).first().click();
  const folder = info.outputPath('after');
  const names = await unpack(await whole, folder);
  expect(names.length).toBeGreaterThan(48);
  const result = await compareSites(demo, folder, { media: ['screen', 'print'] });
  expect(result.differing).toEqual([]);
  expect(result.pages).toBe(26);
  expect(result.boxes).toBeGreaterThan(2000);
});

test('the whole way by keyboard', async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press('2');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('families');
  // the first three rules, as a run, to a new sheet
  await page.keyboard.press('j');
  await page.keyboard.press('x');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('m');
  const field = page.getByLabel(/File, from the site/);
  await expect(field).toBeFocused();
  await field.fill('css/my sheet');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('holds a space');
  await field.fill('css/frame');
  await page.keyboard.press('Enter');
  await expect(draftBar(page)).toContainText('1 operation changes');
  await expect(page.getByRole('complementary', { name: 'Sheets' })).toContainText('css/frame.css');
  await expect(draftBar(page)).toContainText(/look/, { timeout: 150_000 });
  // take it back, let a plan be made instead, save and look at what leaves
  await page.keyboard.press('Control+z');
  await expect(draftBar(page)).toContainText('The draft is empty');
  await page.keyboard.press('p');
  await expect(draftBar(page)).toContainText('All 26 pages look the same.', { timeout: 200_000 });
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('button', { name: 'Revision r2' })).toBeVisible();
  await page.keyboard.press('7');
  await expect(page.getByRole('link', { name: /Download the \d+ files/ })).toBeVisible();
});

test('a colour changed once, seen on every page before it is saved', async ({ page }) => {
  const id = await openDemo(page, 'sheets');
  await page.getByRole('button', { name: /css\/base\.css/ }).click();
  const line = page.locator('.cm-line', { hasText: '#banner i' });
  await line.click();
  await page.keyboard.press('End');
  await page.keyboard.type(' #banner i { color: #ffe9a8; }');
  const effect = page.getByRole('region', { name: 'What the edit does' });
  await expect(effect).toContainText('24 elements on 24 pages change', { timeout: 150_000 });
  await page.getByRole('button', { name: 'Put it into the draft' }).click();
  await expect(page.getByRole('region', { name: 'Draft' })).toContainText('24 pages look', { timeout: 150_000 });
  await page.goto(`/sites/${id}/proof?open=crew.html`);
  await expect(page.getByRole('region', { name: 'Differences' })).toContainText('#cfe3e6');
  await expect(page.getByRole('region', { name: 'Differences' })).toContainText('in css/base.css');
  // before and after are really rendered, scripts shut out
  const [before, after] = [page.frameLocator('iframe').first(), page.frameLocator('iframe').last()];
  await expect(before.locator('#banner i')).toHaveCSS('color', 'rgb(207, 227, 230)');
  await expect(after.locator('#banner i')).toHaveCSS('color', 'rgb(255, 233, 168)');
  const edge = page.getByRole('slider', { name: 'Edge between before and after' });
  await edge.focus();
  await page.keyboard.press('ArrowRight');
  await expect(edge).toHaveAttribute('aria-valuenow', '52');
});

test('back to an earlier revision', async ({ page }) => {
  const id = await openDemo(page, 'gather');
  const gather = { kind: 'gather-rules', sheet: 'css/x.css', rules: [{ family: '#wrap' }] };
  await page.request.put(`/api/sites/${id}/draft`, { data: { base: 1, version: 0, operations: [gather] } });
  await page.request.post(`/api/sites/${id}/revisions`, { data: { base: 1, version: 1 } });
  await page.reload();
  await page.getByRole('button', { name: 'Revision r2' }).click();
  const history = page.getByRole('dialog', { name: /2 revisions/ });
  await history.getByRole('button', { name: 'Name r2' }).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('The frame, gathered');
  await page.keyboard.press('Enter');
  await expect(history.getByText('The frame, gathered')).toBeVisible();
  await history.getByRole('button', { name: 'Go back to r1' }).click();
  await history.getByRole('button', { name: 'Save r3 so' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Revision r3' })).toBeVisible();
  await expect(page.getByRole('complementary', { name: 'Sheets' })).not.toContainText('css/x.css');
});

/** Sends the rules of one selector to the sheet suggested. */
async function sendRule(page: Page, selector: string): Promise<void> {
  await page.getByRole('checkbox', { name: `Choose ${selector}`, exact: true }).click();
  await page.keyboard.press('m');
  await page.keyboard.press('Enter');
}

/** Once it is proved; what looks different on some page is asked about, and saved without a word. */
async function saveByKeys(page: Page): Promise<void> {
  await expect(draftBar(page)).toContainText(/looks? the same/);
  const isAsked = (await draftBar(page).getByRole('button', { name: /look/ }).count()) > 0;
  await page.keyboard.press('Control+Enter');
  if (!isAsked) return;
  await expect(page.getByRole('dialog', { name: /Save as/ })).toBeVisible();
  await page.keyboard.press('Control+Enter');
}

test('two windows: the second is told what happened, and redoes its own on top', async ({ page, context }) => {
  // what the other window does is not heard of: a bad connection, or both at the same moment
  await context.route('**/draft/events', (route) => route.abort());
  const id = await openDemo(page, 'gather');
  const other = await context.newPage();
  await other.goto(`/sites/${id}/gather`);
  await expect(other.getByRole('checkbox', { name: 'Choose #wrap', exact: true })).toBeVisible();
  await sendRule(page, '#wrap');
  await expect(draftBar(page)).toContainText('1 operation');
  // the other window still shows an empty draft
  await sendRule(other, '#banner');
  await expect(draftBar(other)).toContainText('In another window 1 operation was put in meanwhile');
  await other.keyboard.press('Escape');
  await draftBar(other).getByRole('button', { name: 'Redo mine on top' }).click();
  await expect(draftBar(other)).toContainText('2 operations');
  // what this window shows is not what is there any more: it saves nothing and says so
  await saveByKeys(page);
  await expect(draftBar(page)).toContainText('Not done.');
  await draftBar(page).getByRole('button', { name: 'Look at it as it is now' }).click();
  await expect(draftBar(page)).toContainText('2 operations');
  await saveByKeys(page);
  await expect(page.getByRole('button', { name: 'Revision r2' })).toBeVisible();
});

test('two windows: what is done in one shows in the other', async ({ page, context }) => {
  const id = await openDemo(page, 'gather');
  const other = await context.newPage();
  await other.goto(`/sites/${id}/gather`);
  await expect(other.getByRole('checkbox', { name: 'Choose #wrap', exact: true })).toBeVisible();
  await sendRule(page, '#wrap');
  await expect(draftBar(other)).toContainText('1 operation');
  await sendRule(other, '#banner');
  await expect(draftBar(other)).toContainText('2 operations');
  await expect(draftBar(page)).toContainText('2 operations');
  await saveByKeys(page);
  await expect(other.getByRole('button', { name: 'Revision r2' })).toBeVisible();
  await expect(draftBar(other)).toContainText('The draft is empty');
});

test('choices in Gather survive a look at another station; a quick second undo drops nothing else', async ({
  page,
}) => {
  await openDemo(page, 'gather');
  await page.getByRole('checkbox', { name: 'Choose #wrap', exact: true }).click();
  await page.keyboard.press('4');
  await expect(page.getByRole('heading', { level: 1 })).not.toContainText('families');
  await page.keyboard.press('2');
  await expect(page.getByRole('checkbox', { name: 'Choose #wrap', exact: true })).toBeChecked();
  for (const selector of ['#wrap', '#banner', 'body']) {
    if (selector !== '#wrap') await page.getByRole('checkbox', { name: `Choose ${selector}`, exact: true }).click();
    await page.keyboard.press('m');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('dialog')).toBeHidden();
  }
  await expect(draftBar(page)).toContainText('3 operations');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(draftBar(page)).toContainText('1 operation');
});

test('the address says the whole state, and Back works', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('option', { name: /^contact/ }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('1 of 26 pages');
  await page.keyboard.press('2');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('1 of 26 pages');
  expect(page.url()).toContain('page=contact.html');
  await page.goBack();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('12 rules');
  await page.reload();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('1 of 26 pages');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('choose all');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('inside 26 pages');
});

test('a station that cannot be fetched says so and what is safe; the window loads it anew', async ({ page }) => {
  const part = /\/assets\/ProofStation[^/]*\.js/;
  await page.route(part, (route) => route.abort());
  await openDemo(page, 'proof');
  const notice = page.getByRole('main').getByRole('alert');
  await expect(notice).toContainText('could not be fetched');
  await expect(notice).toContainText('What is in the draft is kept');
  // the other stations are there
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link').first().click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('rules');
  await page.goBack();
  await page.unroute(part);
  await notice.getByRole('button', { name: 'Load the window anew' }).click();
  await expect(page.getByRole('main')).toContainText('there is nothing to compare');
});

test('Ctrl+Enter saves from a ticked box; a window whose stream was refused hears of it all the same', async ({
  page,
  context,
}) => {
  const id = await openDemo(page, 'gather');
  const sort = { kind: 'sort-rules', sheet: 'css/base.css' };
  await page.request.put(`/api/sites/${id}/draft`, { data: { base: 1, version: 0, operations: [sort] } });
  await page.reload();
  const other = await context.newPage();
  // as a proxy does whose server is just starting
  await other.route('**/draft/events', (route) => route.fulfill({ status: 503 }), { times: 1 });
  const refused = other.waitForResponse((reply) => reply.status() === 503);
  await other.goto(`/sites/${id}/links`);
  await refused;
  await expect(draftBar(page)).toContainText(/looks? the same/);
  await page.getByRole('checkbox', { name: 'Choose #wrap', exact: true }).click();
  await expect(page.getByRole('checkbox', { name: 'Choose #wrap', exact: true })).toBeFocused();
  await saveByKeys(page);
  await expect(page.getByRole('button', { name: 'Revision r2' })).toBeVisible();
  await expect(other.getByRole('button', { name: 'Revision r2' })).toBeVisible();
});
