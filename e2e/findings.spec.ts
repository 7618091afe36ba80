import { expect, test, type Page } from '@playwright/test';
import { agree, draftBar, openDemo } from './demoSite.ts';

interface Finding {
  readonly id: string;
  readonly sentence: string;
  readonly action: { readonly does: string; readonly label: string };
}

const heading = (page: Page) => page.getByRole('heading', { level: 1 });
const column = (page: Page) => page.getByRole('region', { name: 'Findings' });

async function showAll(page: Page): Promise<void> {
  await expect(column(page).getByRole('listitem').first()).toBeVisible();
  while (
    (await column(page)
      .getByRole('button', { name: /^\d+ more$/ })
      .count()) > 0
  )
    await column(page)
      .getByRole('button', { name: /^\d+ more$/ })
      .first()
      .click();
}

const item = (page: Page, { sentence }: Finding) =>
  column(page)
    .getByRole('listitem')
    .filter({ hasText: sentence.replaceAll('`', '') })
    .first();

test('every finding of the demo is there, and its one action starts', async ({ page }) => {
  const id = await openDemo(page);
  const reply = await page.request.get(`/api/sites/${id}/revisions/1/survey`);
  const { findings } = (await reply.json()) as { findings: Finding[] };
  expect(findings.length).toBeGreaterThan(30);
  await showAll(page);
  await expect(column(page).getByRole('listitem')).toHaveCount(findings.length);
  // what is looked at or compared first: it changes nothing
  for (const finding of findings.filter((f) => f.action.does !== 'mend')) {
    await item(page, finding).getByRole('button', { name: finding.action.label, exact: true }).click();
    if (finding.action.does === 'compare') await expect(page, finding.id).toHaveURL(/\/gather\?.*open=/);
    else {
      await expect(page, finding.id).toHaveURL(/open=/);
      await expect(page.getByRole('main')).toContainText(/takes its look from|css\//);
    }
    await page.goBack();
    await showAll(page);
  }
  // mends go into the draft one after the other; each takes its finding off the list
  let lined = 0;
  for (const finding of findings.filter((f) => f.action.does === 'mend')) {
    await showAll(page);
    const row = item(page, finding);
    // an earlier mend may have settled this one too
    if ((await row.count()) === 0) continue;
    await row.getByRole('button', { name: finding.action.label, exact: true }).click();
    lined++;
    const done = draftBar(page).getByText(`${lined} operation${lined === 1 ? '' : 's'}`);
    const question = page.getByRole('dialog');
    await expect(done.or(question)).toBeVisible({ timeout: 20_000 });
    // asked where a page would look different
    if (await question.isVisible()) await agree(page);
    await expect(done).toBeVisible();
    await expect(row).toHaveCount(0);
  }
  expect(lined).toBeGreaterThan(8);
  await draftBar(page).getByRole('button', { name: 'Review' }).click();
  await expect(page.getByRole('dialog')).toContainText('Take the tag out: css/site.css holds');
});

test('one page opened: bands, strands, lit text, the next page by key', async ({ page }) => {
  await openDemo(page, 'survey?open=timetable.html');
  await expect(heading(page)).toContainText('timetable.html takes its look from 11 sources');
  const where = page.getByRole('button', { name: 'Where' });
  await where.click();
  const chosen = page.locator('section button[aria-pressed=true]');
  await expect(chosen).toContainText('#wrap h2');
  await expect(page.locator('[data-current]')).toContainText('#wrap h2 {');
  await expect(page.locator('path[data-hot]')).toHaveCount(1);
  await page.getByRole('button', { name: 'lines 45–65: no styling' }).click();
  await expect(page.locator('#line-50')).toBeVisible();
  await page.keyboard.press('k');
  await expect(heading(page)).toContainText('notices.html');
  await page.keyboard.press('j');
  await expect(heading(page)).toContainText('timetable.html');
  await page.keyboard.press('j');
  await expect(heading(page)).toContainText('cy/index.html');
  await page.getByRole('button', { name: /^All 26 pages/ }).click();
  await expect(heading(page)).toContainText('still sit inside 26 pages');
  // names in sentences lead home
  await column(page).getByRole('link', { name: 'routes/night-boat' }).first().click();
  await expect(heading(page)).toContainText('routes/night-boat.html');
});

test('scope narrows every figure; the numbers leave as CSV', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('option', { name: 'routes/', exact: true }).click();
  await expect(heading(page)).toContainText('5 of 26 pages');
  expect(page.url()).toContain('folder=routes%2F');
  await showAll(page);
  await expect(column(page)).toContainText('routes/winter links css/base.css');
  await expect(column(page)).not.toContainText('crew says');
  const table = page.getByRole('table', { name: 'Bytes of styling by page' });
  await expect(table.getByRole('row')).toHaveCount(6);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'The numbers as CSV' }).click();
  const text = await (await download).createReadStream().then(async (stream) => {
    let out = '';
    for await (const part of stream) out += String(part);
    return out;
  });
  expect(text.split('\r\n')).toHaveLength(7);
  await page.getByRole('button', { name: /Look at all 26 pages/ }).click();
  await page.getByRole('button', { name: 'name', exact: true }).click();
  await expect(table.getByRole('row').nth(1)).toContainText('booking');
});
