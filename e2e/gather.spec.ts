import { expect, test, type Page } from '@playwright/test';
import { draftBar, openDemo } from './demoSite.ts';

const family = (page: Page, name: string) => page.getByRole('button', { name, exact: true });
const proved = { timeout: 200_000 };

async function proposePlan(page: Page): Promise<void> {
  await page.getByRole('button', { name: /Propose a plan/ }).click();
  await expect(draftBar(page)).toContainText('All 26 pages look the same.', proved);
}

test('a plan, and one decision changed: said which page looks different, and taken back', async ({ page }) => {
  await openDemo(page, 'gather');
  await proposePlan(page);
  await family(page, '.notice').click();
  const becomes = page.getByRole('radiogroup', { name: 'What becomes of version C' });
  await expect(becomes.getByRole('radio', { name: 'in the sheet, for this page' })).toBeChecked();
  await becomes.getByText('take A; it looks different').click();
  await expect(draftBar(page)).toContainText('history looks as you chose', proved);
  await expect(becomes.getByRole('radio', { name: 'take A; it looks different' })).toBeChecked();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('all decided');
  await becomes.getByText('in the sheet, for this page').click();
  await expect(draftBar(page)).toContainText('All 26 pages look the same.', proved);
});

test('what a plan leaves is named with the reason', async ({ page }) => {
  await openDemo(page, 'gather');
  await proposePlan(page);
  await page.getByText('14 things stay in the pages, and why').click();
  await expect(page.getByText(/on contact: the page asks for css\/Site\.css, which cannot be read here/)).toBeVisible();
});

test('style attributes: named, sent by keyboard, and the page has the class', async ({ page }) => {
  const id = await openDemo(page, 'gather');
  await page.getByRole('button', { name: /^Style attributes/ }).click();
  const row = page.getByRole('row', { name: /size 11px, color/ }).first();
  const field = row.getByRole('textbox');
  await field.fill('small print');
  await field.press('Enter');
  await expect(row.getByRole('alert')).toContainText('a space would part it into two classes');
  await field.fill('small-print');
  await field.press('Enter');
  await row.getByRole('checkbox').click();
  await page.keyboard.press('m');
  await page.getByLabel(/File, from the site/).fill('css/small');
  await page.keyboard.press('Enter');
  await expect(draftBar(page)).toContainText('look the same', proved);
  await expect(row).toContainText('small.css');
  const { text } = await (await page.request.get(`/api/sites/${id}/files/draft/css/small.css`)).json();
  expect(text).toContain('.small-print {');
});

test('a family is dragged to a sheet', async ({ page }) => {
  await openDemo(page, 'gather');
  const row = page.getByRole('row', { name: /^Choose #wrap/ }).first();
  await row.dragTo(page.getByRole('button', { name: /css\/base\.css/ }));
  await expect(page.getByLabel(/File, from the site/)).toHaveValue('css/base.css');
  await page.getByRole('button', { name: 'Put it in the draft' }).click();
  await expect(draftBar(page)).toContainText('1 operation');
  await expect(row).toContainText('base.css');
});

test('plan settings: presentational attributes as well; then one version in the shared sheet for its pages only', async ({
  page,
}) => {
  const id = await openDemo(page, 'gather');
  await page.getByRole('button', { name: 'Settings' }).click();
  await page.getByRole('checkbox', { name: 'Presentational attributes and elements as well' }).click();
  await page.getByText('in sheets of their own, without such classes').click();
  await page.getByRole('button', { name: 'Use these' }).click();
  await proposePlan(page);
  await expect(page.getByRole('complementary', { name: 'Sheets' })).toContainText('css/markup.css');
  await family(page, '.notice').click();
  const becomes = page.getByRole('radiogroup', { name: 'What becomes of version B' });
  await becomes.getByText('in the sheet, for these pages').click();
  await expect(page.getByText(/css\/notice\.css, below \.notices-pages/)).toBeVisible(proved);
  await expect(draftBar(page)).toContainText('All 26 pages look the same.', proved);
  const { text } = await (await page.request.get(`/api/sites/${id}/files/draft/css/notice.css`)).json();
  expect(text).toContain(':where(.notices-pages) .notice');
});

test('a plan bargained with: its sheet read, a mark renamed, a trade taken, a version given to another, all of it taken back and saved', async ({
  page,
}) => {
  const id = await openDemo(page, 'gather');
  await proposePlan(page);
  await page.getByRole('button', { name: 'All are nowhere, on the server too' }).click();
  await expect(page.getByText(/things stay in the pages/)).toBeHidden(proved);
  await expect(draftBar(page)).toContainText('All 26 pages look the same.', proved);
  await expect(page.getByRole('complementary', { name: 'Sheets' }).locator('[data-new]')).toHaveCount(1);
  await page.getByRole('button', { name: 'The sheet', exact: true }).click();
  const sheet = page.getByRole('table', { name: /as it will be written/ });
  await expect(sheet).toContainText('.history h2{font-size:18px');
  const field = page.getByRole('textbox', { name: 'Class of history.html' });
  await field.fill('old-page');
  await field.press('Enter');
  await expect(sheet).toContainText('.old-page h2{font-size:18px', proved);
  await expect(draftBar(page)).toContainText('All 26 pages look the same.', proved);
  await page.getByText(/trades make it simpler/).click();
  await page.getByRole('listitem').filter({ hasText: 'night-boat' }).getByRole('button', { name: 'Take it' }).click();
  await expect(draftBar(page)).toContainText('5 operations', proved);
  await expect(draftBar(page)).toContainText('routes/night-boat looks as you chose', proved);
  await page.getByRole('button', { name: 'All', exact: false }).first().click();
  await family(page, '.notice').click();
  await page.getByRole('radiogroup', { name: 'What becomes of version C' }).getByText('take A').click();
  await expect(draftBar(page)).toContainText('6 operations', proved);
  await expect(draftBar(page)).toContainText('2 pages look as you chose', proved);
  // the plan is one step, and so is what was settled before it
  await page.keyboard.press('Control+z');
  await expect(draftBar(page)).toContainText('3 operations', proved);
  await page.keyboard.press('Control+y');
  await expect(draftBar(page)).toContainText('6 operations', proved);
  await expect(draftBar(page)).toContainText('2 pages look as you chose', proved);
  await draftBar(page).getByRole('button', { name: 'Discard' }).click();
  await page.getByRole('button', { name: 'Discard them' }).click();
  await expect(draftBar(page)).toContainText('The draft is empty');
  await draftBar(page).getByRole('button', { name: 'Put back' }).click();
  await expect(draftBar(page)).toContainText('6 operations', proved);
  await expect(draftBar(page)).toContainText('2 pages look as you chose', proved);
  await draftBar(page)
    .getByRole('button', { name: /Save as r2/ })
    .click();
  // looks were changed: why, stays with the revision
  const box = page.getByRole('dialog', { name: 'Save as r2?' });
  await box.getByLabel(/^Why, if it is meant so/).fill('The night boat looks like the others now');
  await box.getByRole('button', { name: 'Save as r2' }).click();
  await expect(page.getByRole('button', { name: 'Revision r2' })).toBeVisible();
  const history = await (await page.request.get(`/api/sites/${id}`)).json();
  expect(JSON.stringify(history)).toContain('The night boat looks like the others now');
  const { text } = await (await page.request.get(`/api/sites/${id}/files/r2/css/shared.css`)).json();
  expect(text).not.toContain('.night-boat');
});
