import { expect, test, type Page } from '@playwright/test';
import { draftBar, openDemo } from './demoSite.ts';

/** Goes on by Tab until the element with this name has the focus: whoever uses no mouse gets there. */
async function tabTo(page: Page, name: RegExp, most = 120): Promise<void> {
  const seen: string[] = [];
  for (let i = 0; i < most; i++) {
    await page.keyboard.press('Tab');
    const text = await page.evaluate(() => {
      const { activeElement: at } = document;
      return at instanceof HTMLElement ? (at.getAttribute('aria-label') ?? at.innerText ?? '') : '';
    });
    if (name.test(text)) return;
    seen.push(text.slice(0, 30));
  }
  throw new Error(`no ${name} by Tab: ${seen.join(' | ')}`);
}

test('all seven stations by keyboard alone: looked through, planned, read, linked, asked, proved, saved and handed off', async ({
  page,
}) => {
  await openDemo(page);
  const heading = page.getByRole('heading', { level: 1 });
  await expect(heading).toContainText('rules');
  // 1: a page is found by its name and opened; back by the station's key
  await page.keyboard.press('Control+k');
  await page.keyboard.type('timetable');
  await page.keyboard.press('Enter');
  await expect(heading).toContainText('takes its look from');
  await page.keyboard.press('1');
  // 2: planned
  await page.keyboard.press('2');
  await expect(heading).toContainText('families');
  await page.keyboard.press('p');
  await expect(draftBar(page)).toContainText('All 26 pages look the same.', { timeout: 200_000 });
  // 3: a sheet opened and its text reached
  await page.keyboard.press('3');
  await tabTo(page, /css\/shared\.css/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Text of css/shared.css' })).toBeVisible();
  // 4: a mend of links
  await page.locator('body').press('4');
  await expect(page.getByRole('navigation', { name: 'Stations' }).getByText('Links')).toBeVisible();
  await tabTo(page, /^(Correct|Mend|Move|Link)/);
  // 5: who decides on another page
  await page.keyboard.press('5');
  await expect(page).toHaveURL(/precedence/);
  // 6: the edge between before and after
  await page.keyboard.press('6');
  await expect(heading).toContainText('look the same');
  await tabTo(page, /Edge between before and after/);
  await page.keyboard.press('Home');
  await expect(page.getByRole('slider', { name: /Edge/ })).toHaveAttribute('aria-valuenow', '0');
  // saved, and 7: what leaves
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('button', { name: 'Revision r2' })).toBeVisible();
  await page.keyboard.press('7');
  await expect(heading).toContainText('leave together');
  await tabTo(page, /^Download the \d+ files/);
  const [download] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Enter')]);
  expect(download.suggestedFilename()).toMatch(/\.zip$/);
});

test('pages are chosen by keys: one, a run of them, a folder; each says its place in the list', async ({ page }) => {
  await openDemo(page);
  const rail = page.getByRole('listbox', { name: /^Choose pages/ });
  const chosen = rail.getByRole('option', { selected: true });
  await page.keyboard.press('/');
  await page.keyboard.press('Tab');
  const at = (): Promise<string | null | undefined> =>
    page.evaluate(() => document.activeElement?.getAttribute('aria-posinset'));
  expect(await at()).toBe('1');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(chosen).toHaveCount(1);
  await expect(chosen).toHaveAttribute('aria-posinset', '2');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(chosen).toHaveCount(3);
  await page.keyboard.press('Shift+ArrowUp');
  await expect(chosen).toHaveCount(2);
  // what saves everywhere chooses nothing here
  await page.keyboard.press('Control+Enter');
  await expect(chosen).toHaveCount(2);
  await page.keyboard.press('End');
  const last = rail.getByRole('option').last();
  await expect(last).toBeFocused();
  expect(await last.getAttribute('aria-posinset')).toBe(await last.getAttribute('aria-setsize'));
  // Enter on a folder chooses its pages
  const folder = rail.getByRole('option', { name: 'islands/', exact: true });
  await page.keyboard.press('Home');
  for (let i = 1; i < Number(await folder.getAttribute('aria-posinset')); i++) await page.keyboard.press('ArrowDown');
  await expect(folder).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(folder).toHaveAttribute('aria-selected', 'true');
});
