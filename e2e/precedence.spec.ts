import { expect, test, type Page } from '@playwright/test';
import { agree, draftBar, openDemo } from './demoSite.ts';

const proved = { timeout: 120_000 };
const table = (page: Page) => page.getByRole('region', { name: 'Who decides' });

/** Clicks an element of the page as it is shown: its place in the frame, made smaller as the frame is. */
async function pick(page: Page, selector: string): Promise<void> {
  const paper = page.getByRole('group', { name: /as it looks/ });
  await expect(paper).toBeVisible();
  const element = page.frameLocator('iframe').locator(selector).first();
  // it moves until the page has its size
  let box = { x: 0, y: 0, width: 0, height: 0 };
  const rests = async (): Promise<boolean> => {
    const last = box;
    box = (await element.boundingBox()) ?? last;
    return box.width > 0 && box.x === last.x && box.y === last.y && box.height === last.height;
  };
  await expect.poll(rests, { intervals: [200] }).toBe(true);
  await page.mouse.click(box.x + 12, box.y + box.height / 2);
}

test('why is this heading brown: picked, peeled, and dropped from the page', async ({ page }) => {
  const id = await openDemo(page, 'precedence?open=timetable.html');
  await pick(page, 'h2');
  await expect(table(page).getByRole('heading')).toContainText('h2 “Monday to Friday”');
  const colour = table(page).getByRole('row', { name: /^color/ });
  await expect(colour).toContainText('#7a3b12');
  await expect(colour).toContainText('(0,0,1) is less');
  await expect(table(page)).toContainText('Its #wrap h2 is (1,0,1), more than h2');
  // the reason opens what the standard says of it
  await colour.getByRole('button', { name: '(0,0,1) is less' }).first().click();
  await expect(page.getByText('The more specific selector wins')).toBeVisible();
  await expect(page.getByText(/Calculating a selector’s specificity/)).toBeVisible();
  await page.keyboard.press('Escape');
  const heading = page.frameLocator('iframe').locator('h2').first();
  const seen = () => heading.evaluate((e) => getComputedStyle(e).color);
  expect(await seen()).toBe('rgb(122, 59, 18)');
  // peel the declaration: table and page follow
  await colour.getByRole('button', { name: 'Peel #7a3b12' }).click();
  await expect(table(page)).toContainText('wins next', proved);
  await expect.poll(seen).toBe('rgb(11, 85, 99)');
  await expect(table(page)).toContainText('1 thing peeled.');
  await table(page)
    .getByRole('button', { name: /^Drop it from timetable/ })
    .click();
  await expect(draftBar(page)).toContainText('timetable looks different', proved);
  const { text } = await (await page.request.get(`/api/sites/${id}/files/draft/timetable.html`)).json();
  expect(text).not.toContain('color: #7a3b12');
});

test('by keyboard: found by its text, peeled with E, put back, the next page with J', async ({ page }) => {
  await openDemo(page, 'precedence?open=timetable.html');
  await page.getByLabel('Find an element by selector or text').fill('Monday to Friday');
  await page.keyboard.press('Enter');
  await expect(table(page).getByRole('heading')).toContainText('h2', proved);
  await page.getByRole('button', { name: 'div#wrap' }).focus();
  await page.keyboard.press('e');
  await expect(table(page)).toContainText('1 thing peeled.');
  await expect(page.frameLocator('iframe').locator('h2').first()).not.toHaveAttribute('style', /./);
  await table(page).getByRole('button', { name: 'Put it back' }).click();
  await expect(page.frameLocator('iframe').locator('h2').first()).toHaveAttribute('style', 'background: #eef4f5');
  await page.keyboard.press('j');
  await expect(page.getByText('page 9 of 26')).toBeVisible();
});

test('one heading is another colour: asked over all pages, the copies dropped', async ({ page }) => {
  await openDemo(page, 'precedence?way=question');
  await expect(page.getByText('history', { exact: true }).first()).toBeVisible(proved);
  await expect(page.getByRole('main')).toContainText('history stands alone');
  await page.getByRole('button', { name: 'margins of the body' }).click();
  await expect(page.getByLabel('Property')).toHaveValue('margin');
  await expect(page.getByRole('main')).toContainText('All pages look alike', proved);
  await page.getByRole('button', { name: 'Drop the copies' }).first().click();
  await expect(draftBar(page)).toContainText('look the same', proved);
  await expect(page.getByRole('main')).toContainText('css/base.css', proved);
  // asked before, and back
  await page.getByLabel('Property').fill('colour');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('no property "colour"');
});

test('overrides: the copies go, told where that could change a look; one is shared, one is kept with a note', async ({
  page,
}) => {
  await openDemo(page, 'precedence?way=overrides');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('declarations in pages beat shared ones', proved);
  await page.getByRole('button', { name: /^Drop the \d+ copies/ }).click();
  // two pages ask for a sheet that is not here: it could beat what comes next
  await expect(page.getByRole('dialog')).toContainText(
    '2 pages will look different: contact, islands/little-hesk',
    proved,
  );
  await agree(page);
  await expect(draftBar(page)).toContainText('look the same', proved);
  await expect(page.getByText('Says what the sheet says')).toBeHidden(proved);
  const row = page.getByRole('row', { name: /#wrap h2 .*color/ }).first();
  await row.getByRole('button', { name: '#wrap h2' }).click();
  await expect(page.getByRole('row', { name: /^pages that change/ })).toBeVisible();
  await page.getByRole('button', { name: 'Keep it, with a note' }).click();
  await page.getByLabel('Why it is kept').fill('the fair asked for it');
  await page.keyboard.press('Enter');
  await expect(page.getByText('“the fair asked for it”')).toBeVisible(proved);
});

test('where a value stands', async ({ page }) => {
  await openDemo(page, 'precedence?way=value');
  await page.getByLabel('Value').fill('rgb(11, 85, 99)');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('main')).toContainText(/\d+ declarations in \d+ files/, proved);
  await expect(page.getByRole('row', { name: /css\/site\.css line/ }).first()).toBeVisible();
});
