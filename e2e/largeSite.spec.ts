import { expect, test } from '@playwright/test';
import { zipSync, type Zippable } from 'fflate';

const pages = 3000;

/** A site of three thousand small pages in thirty folders, all but one linking the sheet. */
function largeSite(): Buffer {
  const files: Zippable = { 'marsh/css/site.css': bytes('p { color: red }\n') };
  for (let i = 0; i < pages; i++) {
    const link = i === 1234 ? '' : '<link rel="stylesheet" href="../css/site.css">';
    const rule = `<style>p { margin: ${i % 7}px } .c${i % 60} { top: 0 }</style>`;
    files[`marsh/walk${i % 30}/page${i}.html`] = bytes(
      `<!DOCTYPE html><title>Walk ${i}</title>${link}${rule}<p class="c${i % 60}" style="left:${i}px">Walk</p>\n`,
    );
  }
  return Buffer.from(zipSync(files, { level: 1 }));
}

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

test('three thousand pages: brought in with live figures, surveyed, scrolled, filtered, opened', async ({ page }) => {
  await page.goto('/');
  await page
    .getByLabel('Zip or files')
    .setInputFiles({ name: 'marsh.zip', mimeType: 'application/zip', buffer: largeSite() });
  const row = page.getByRole('row', { name: /marsh/ });
  await expect(row).toContainText(/of 3,0\d\d (files|pages)/);
  const heading = page.getByRole('heading', { level: 1 });
  await expect(heading).toContainText('3,000 style attributes still sit inside 3,000 pages', { timeout: 240_000 });
  await expect(page.getByRole('region', { name: 'Findings' })).toContainText(
    'walk4/page1234 does not link css/site.css; the other 2,999 pages do',
  );
  // the rail holds no more rows than fit, and reaches the last page
  const rail = page.getByRole('listbox', { name: /^Choose pages/ }).locator('..');
  expect(await rail.getByRole('option').count()).toBeLessThan(120);
  await rail.evaluate((list) => list.scrollTo(0, list.scrollHeight));
  await expect(rail.getByRole('option', { name: /^page999/ })).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type('page29');
  await expect(page.getByRole('complementary', { name: 'Pages' })).toContainText('111 of 3,000');
  // the chart shares rows among neighbours; a row chosen becomes the scope
  await expect(page.getByText('each row is the average of 75 pages')).toBeVisible();
  await page.getByRole('img', { name: /Bytes of styling/ }).click({ position: { x: 400, y: 30 } });
  await expect(heading).toContainText('75 of 3,000 pages');
  await expect(page.getByText(/each row is the average/)).toHaveCount(0);
  await page.reload();
  await expect(heading).toContainText('75 of 3,000 pages');
  await page.getByRole('img', { name: /Bytes of styling/ }).click({ position: { x: 400, y: 30 } });
  await expect(heading).toContainText('takes its look from 3 sources');
});
