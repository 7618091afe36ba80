import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { draftBar, openDemo } from './demoSite.ts';

/** In both themes; the dark one differs in colours alone. */
async function violations(page: Page): Promise<string[]> {
  // the author's own pages are theirs
  const axe = (): AxeBuilder =>
    new AxeBuilder({ page })
      .setLegacyMode()
      .options({ resultTypes: ['violations'] })
      .exclude('iframe')
      .exclude('.sample');
  const wear = (theme: string): Promise<void> =>
    page.evaluate((name) => void (document.documentElement.dataset['theme'] = name), theme);
  await wear('light');
  const light = await axe().analyze();
  await wear('dark');
  const dark = await axe().withRules(['color-contrast']).analyze();
  return [...light.violations, ...dark.violations].flatMap((v) =>
    v.nodes.map((n) => `${v.id}: ${n.target.join(' ')} ${n.failureSummary?.split('\n')[1] ?? ''}`),
  );
}

const heading = encodeURIComponent('html>body:nth-child(2)>div:nth-child(1)>div:nth-child(3)>h2:nth-child(4)');

test('no axe violation in any view, light and dark', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('button', { name: 'Choose a folder' })).toBeVisible();
  await page.getByRole('button', { name: 'Dark theme' }).click();
  await page.reload();
  // worn again
  await expect(page.getByRole('button', { name: 'Light theme' })).toBeVisible();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  await page.getByRole('button', { name: 'Light theme' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'light');
  expect(await violations(page)).toEqual([]);
  const id = await openDemo(page);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('rules');
  expect(await violations(page)).toEqual([]);
  await page.goto(`/sites/${id}/survey?open=timetable.html`);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('takes its look from');
  expect(await violations(page)).toEqual([]);
  const gather = { kind: 'gather-rules', sheet: 'css/site.css', rules: [{ family: 'body' }, { family: '.notice' }] };
  await page.request.put(`/api/sites/${id}/draft`, { data: { base: 1, version: 0, operations: [gather] } });
  for (const [station, shows] of [
    ['gather?open=.notice.cancelled', 'families'],
    ['sheets?open=css/site.css', 'css/site.css'],
    ['links?open=css/site.css', 'The tag each page gets'],
    [`precedence?open=timetable.html&element=${heading}`, 'The embedded block wins.'],
    ['precedence?way=question&selector=h1', 'One strand is one page'],
    ['precedence?way=overrides', 'beat shared ones'],
    ['precedence?way=value&value=%230b5563', 'declarations in'],
    ['proof?open=notices.html', 'differ'],
    ['hand-off', 'Nothing has changed'],
  ] as const) {
    await page.goto(`/sites/${id}/${station}`);
    await expect(page.getByRole('main')).toContainText(shows);
    await expect(draftBar(page)).toContainText('1 operation');
    await page.waitForTimeout(500);
    expect({ station, found: await violations(page) }).toEqual({ station, found: [] });
  }
  await page.goto(`/sites/${id}/gather`);
  await page.getByRole('button', { name: /^Style attributes/ }).click();
  await expect(page.getByRole('textbox', { name: /^Class name/ }).first()).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await page.getByRole('button', { name: 'Settings' }).click();
  await expect(page.getByRole('dialog')).toContainText('How plans are made');
  expect(await violations(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('Ctrl Enter');
  expect(await violations(page)).toEqual([]);
});

// WCAG 2.2, "Reflow": 1280 px looked at four times as large is 320 px wide; tables of data may be pushed sideways in their place
test('on a narrow screen nothing stands beside it', async ({ page }) => {
  const id = await openDemo(page);
  for (const width of [320, 640]) {
    await page.setViewportSize({ width, height: 800 });
    for (const station of ['survey', 'gather', 'sheets', 'links', 'precedence', 'proof', 'hand-off']) {
      await page.goto(`/sites/${id}/${station}`);
      await expect(
        page.getByRole('heading', { level: 1 }).or(page.getByRole('main').getByRole('group').first()).first(),
      ).toBeVisible();
      await expect(page.getByRole('navigation', { name: 'Stations' }).locator('[aria-current]')).toBeInViewport();
      expect({ station, beside: await beside(page) }).toEqual({ station, beside: [] });
    }
    await page.goto('/');
    await expect(page.getByRole('button', { name: 'Choose a folder' })).toBeVisible();
    expect(await beside(page)).toEqual([]);
  }
});

/** What sticks out of the window and is in nothing that can be pushed. */
const beside = (page: Page): Promise<readonly string[]> =>
  page.evaluate(() => {
    const isHeld = (element: Element): boolean => {
      for (let at = element.parentElement; at; at = at.parentElement)
        if (getComputedStyle(at).overflowX !== 'visible')
          return at !== document.body && at !== document.documentElement;
      return false;
    };
    return [...document.querySelectorAll('body *')]
      .filter((one) => one.getBoundingClientRect().right > innerWidth + 1 && one.getBoundingClientRect().width > 0)
      .filter((one) => !isHeld(one))
      .map((one) => `${one.localName}.${one.getAttribute('class')}`);
  });
