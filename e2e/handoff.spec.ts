import { expect, test, type Page } from '@playwright/test';
import { unzipSync, zipSync } from 'fflate';
import fs from 'node:fs';
import { startSftpServer } from '../packages/server/src/testing/sftpServer.ts';
import { draftBar, openDemo } from './demoSite.ts';

/** The demo gathered and saved, at Hand-off. */
async function gathered(page: Page): Promise<string> {
  const id = await openDemo(page, 'gather');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('families');
  await page.keyboard.press('p');
  await expect(draftBar(page)).toContainText('All 26 pages look the same.', { timeout: 200_000 });
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('button', { name: 'Revision r2' })).toBeVisible();
  await page.keyboard.press('7');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('leave together');
  return id;
}

test('what leaves goes onto a server, after a look at its key; the report says so, the recipe does it again elsewhere', async ({
  page,
}, info) => {
  const root = info.outputPath('server');
  fs.mkdirSync(root, { recursive: true });
  const server = await startSftpServer(root, 'ferry', 'tide');
  const first = await gathered(page);

  const [report] = await Promise.all([
    page.context().waitForEvent('page'),
    page.getByRole('link', { name: 'Print' }).click(),
  ]);
  await expect(report.locator('body')).toContainText('26');
  await expect(report.locator('body')).toContainText('css/shared.css');
  expect(await report.evaluate(() => document.scripts.length)).toBe(0);
  await report.close();

  await page.getByRole('button', { name: 'Upload', exact: true }).click();
  const box = page.getByRole('dialog');
  await box.getByLabel('Machine').fill('127.0.0.1');
  await box.getByLabel('Port').fill(String(server.port));
  await box.getByLabel(/^The folder there/).fill('/');
  await box.getByLabel('Name').fill('ferry');
  await box.getByLabel(/^Password/).fill('tide');
  await box.getByRole('button', { name: 'Ask for its key' }).click();
  await expect(box).toContainText('SHA256:');
  expect(fs.readdirSync(root)).toEqual([]);
  await box.getByRole('button', { name: 'It is the right one: upload' }).click();
  await expect(page.getByRole('main')).toContainText('on the server, byte for byte.', { timeout: 60_000 });
  const put = (await (await page.request.get(`/api/sites/${first}/revisions/2/changes?since=1`)).json()) as {
    changes: { path: string; change: string }[];
  };
  const wanted = put.changes.filter(({ change }) => change !== 'deleted').map(({ path }) => path);
  expect(wanted.filter((path) => !fs.existsSync(`${root}/${path}`))).toEqual([]);
  await server.close();

  const [recipe] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('row', { name: /A recipe/ })
      .getByRole('link', { name: 'Download' })
      .click(),
  ]);
  const file = info.outputPath('recipe.json');
  await recipe.saveAs(file);
  await openDemo(page, 'hand-off');
  await page.getByLabel('A recipe').setInputFiles(file);
  await expect(page.getByRole('dialog')).toContainText('can be done here', { timeout: 100_000 });
  await page.getByRole('dialog').getByRole('button', { name: 'Put it into the draft' }).click();
  await expect(draftBar(page)).toContainText('All 26 pages look the same.', { timeout: 100_000 });
});

test('a trade is one act; what it changes stands as chosen; another site shows the rest', async ({ page }) => {
  await openDemo(page, 'gather');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('families');
  await page.keyboard.press('p');
  await expect(draftBar(page)).toContainText('All 26 pages look the same.', { timeout: 200_000 });
  await page.getByRole('button', { name: 'The sheet' }).click();
  const main = page.getByRole('main');
  await main.locator('summary', { hasText: 'trades make it simpler' }).click();
  const follow = main.locator('li', { hasText: 'as 23 other pages do: 1 class fewer' });
  await expect(follow).toContainText('carrow-slip');
  await follow.getByRole('button', { name: 'Take it' }).click();
  await expect(draftBar(page)).toContainText('3 pages look as you chose', { timeout: 100_000 });
  await expect(draftBar(page)).toContainText('23 pages look the same');
  // against a site brought in beside it, which nobody changed
  await page.request.post('/api/sites/demo');
  await page.keyboard.press('6');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('3 look as you chose');
  await page.getByRole('button', { name: 'r1', exact: true }).click();
  await page
    .getByRole('menuitem', { name: /another site, r1/ })
    .first()
    .click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('3 differ', { timeout: 60_000 });
  await expect(page).toHaveURL(/other=/);
  // hovered, the menu is underlined on both sides
  await page
    .getByRole('complementary', { name: 'Pages' })
    .getByRole('option', { name: /carrow-slip/ })
    .click();
  await page.getByRole('button', { name: 'at rest' }).click();
  await page.getByRole('menuitem', { name: 'hovered' }).click();
  const line = (title: string): Promise<string> =>
    page
      .frameLocator(`iframe[title="news/2024/carrow-slip.html ${title}"]`)
      .locator('nav a, #nav a')
      .first()
      .evaluate((a) => getComputedStyle(a).textDecorationLine);
  await expect.poll(() => line('after')).toBe('underline');
  expect(await line('before')).toBe('none');
});

test('one operation is taken out of the past, and the files are as if it had never been', async ({ page }) => {
  const id = await openDemo(page);
  const text = async (state: string): Promise<string> =>
    ((await (await page.request.get(`/api/sites/${id}/files/${state}/css/site.css`)).json()) as { text: string }).text;
  const rule = (selector: string) => ({
    kind: 'add-rule',
    sheet: 'css/site.css',
    selector,
    declarations: [{ property: 'top', value: '0' }],
  });
  const save = async (base: number, version: number, operation: object): Promise<void> => {
    await page.request.put(`/api/sites/${id}/draft`, { data: { base, version, operations: [operation] } });
    expect(
      (await page.request.post(`/api/sites/${id}/revisions`, { data: { base, version: version + 1 } })).status(),
    ).toBe(201);
  };
  await save(1, 0, rule('.first'));
  await save(2, 2, rule('.second'));
  await page.reload();
  await page.getByRole('button', { name: 'Revision r3' }).click();
  const box = page.getByRole('dialog');
  await box.locator('details', { hasText: '.first' }).locator('summary').click();
  await box.getByRole('button', { name: /^Undo .* of r2$/ }).click();
  await expect(box).toContainText('as it were without');
  await box.getByRole('button', { name: 'Save r4 so' }).click();
  await expect(box.getByRole('listitem').first()).toContainText('Without “Add a rule for .first');
  const now = await text('r4');
  expect(now).not.toContain('.first');
  expect(now).toContain('.second');
});

test('coming back: what changed outside is shown, then taken as a revision', async ({ page }) => {
  const id = await gathered(page);
  const files = unzipSync(
    new Uint8Array(await (await page.request.get(`/api/sites/${id}/revisions/2/archive`)).body()),
  );
  const crew = Object.keys(files).find((name) => name.endsWith('crew.html'))!;
  const text = Buffer.from(files[crew]!).toString('latin1').replace('</body>', '<p>New mate.</body>');
  // somebody made a new page out of one as it was before
  const old = unzipSync(new Uint8Array(await (await page.request.get(`/api/sites/${id}/revisions/1/archive`)).body()));
  const fresh = crew.replace('crew', 'mates');
  const buffer = Buffer.from(zipSync({ ...files, [crew]: Buffer.from(text, 'latin1'), [fresh]: old[crew]! }));
  await page
    .getByLabel('A zip of the site as it is outside')
    .setInputFiles({ name: 'live.zip', mimeType: 'application/zip', buffer });
  const box = page.getByRole('dialog');
  await expect(box).toContainText('crew.html');
  await expect(box.getByRole('heading', { name: /Changed there/ })).toContainText('1');
  await box.getByRole('button', { name: 'Take all 2 changes' }).click();
  await expect(box).toContainText('Saved as r3');
  await expect(box).toContainText('against r2 of');
  await box.getByRole('button', { name: 'Do with what is new as was done with the rest' }).click();
  await expect(page.getByRole('button', { name: 'Revision r3' })).toBeVisible();
  await expect(page).toHaveURL(/proof/);
  await expect(draftBar(page)).toContainText('look', { timeout: 60_000 });
  const mates = (await (await page.request.get(`/api/sites/${id}/files/draft/mates.html`)).json()) as { text: string };
  expect(mates.text).not.toContain('<style');
});
