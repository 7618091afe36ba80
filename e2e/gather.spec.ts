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
  const sheets = page.getByRole('complementary', { name: 'Sheets' });
  await expect(sheets).toContainText('.notice differs on');
  await family(page, '.notice').click();
  const becomes = page.getByRole('radiogroup', { name: 'What becomes of version C' });
  await expect(becomes.getByRole('radio', { name: 'its own sheet' })).toBeChecked();
  await becomes.getByText('take A; it looks different').click();
  await expect(draftBar(page)).toContainText('history looks different', proved);
  await expect(becomes.getByRole('radio', { name: 'take A; it looks different' })).toBeChecked();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('all decided');
  await becomes.getByText('its own sheet').click();
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
  await page.getByRole('button', { name: 'Line it up' }).click();
  await expect(draftBar(page)).toContainText('1 operation');
  await expect(row).toContainText('base.css');
});

test('plan settings: presentational attributes as well; then one version in the shared sheet for its pages only', async ({
  page,
}) => {
  const id = await openDemo(page, 'gather');
  await page.getByRole('button', { name: 'Settings' }).click();
  await page.getByRole('checkbox', { name: 'Presentational attributes and elements as well' }).click();
  await page.getByRole('button', { name: 'Use these' }).click();
  await proposePlan(page);
  await expect(page.getByRole('complementary', { name: 'Sheets' })).toContainText('css/markup.css');
  await family(page, '.notice').click();
  const becomes = page.getByRole('radiogroup', { name: 'What becomes of version B' });
  await becomes.getByText('shared sheet, for these only').click();
  await expect(page.getByText(/css\/notice\.css, below \.notices-pages/)).toBeVisible(proved);
  await expect(draftBar(page)).toContainText('All 26 pages look the same.', proved);
  const { text } = await (await page.request.get(`/api/sites/${id}/files/draft/css/notice.css`)).json();
  expect(text).toContain(':where(.notices-pages) .notice');
});
