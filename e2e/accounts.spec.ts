import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Browser, type Page } from '@playwright/test';
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { fileURLToPath } from 'node:url';
import { draftBar } from './demoSite.ts';

/** Where people sign in: a server of its own. */
const port = Number(process.env['E2E_ACCOUNTS_PORT'] ?? 18097);
const origin = `http://127.0.0.1:${port}`;
const password = 'salt and rope 9';
let server: ChildProcess;

test.beforeAll(async () => {
  const script = fileURLToPath(new URL('server.mjs', import.meta.url));
  server = spawn(process.execPath, [script, String(port), 'Mara', 'Joss', 'Ines'], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, PASSWORD: password },
  });
  for (let i = 0; ; i++) {
    if (
      await fetch(`${origin}/api/health`).then(
        (reply) => reply.ok,
        () => false,
      )
    )
      return;
    if (i > 300) throw new Error('the server did not start');
    await new Promise((f) => setTimeout(f, 200));
  }
});
test.afterAll(async () => {
  server.kill('SIGTERM');
  await once(server, 'exit');
});

async function signedIn(browser: Browser, name: string): Promise<Page> {
  const page = await (await browser.newContext({ baseURL: origin, viewport: { width: 1280, height: 800 } })).newPage();
  await page.goto('/');
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('Password').fill(password);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: `Signed in as ${name}` })).toBeVisible();
  return page;
}

test('people sign in, share a site, see each other change it, and what they may not do is said', async ({
  browser,
}) => {
  const door = await (await browser.newContext({ baseURL: origin })).newPage();
  await door.goto('/sites/x/survey');
  await expect(door.getByRole('heading', { name: 'Who are you?' })).toBeVisible();
  expect((await new AxeBuilder({ page: door }).setLegacyMode().analyze()).violations).toEqual([]);
  await door.getByLabel('Name').fill('Joss');
  await door.getByLabel('Password').fill('nonsense');
  await door.keyboard.press('Enter');
  await expect(door.getByRole('alert')).toHaveText('This name and password do not belong together.');

  // Joss brings the demo in; nobody else but the administrator sees it
  const joss = await signedIn(browser, 'Joss');
  await joss.getByRole('button', { name: 'Load the demo' }).click();
  await expect(joss).toHaveURL(/survey/);
  const id = /sites\/([^/]+)/.exec(joss.url())![1]!;
  const ines = await signedIn(browser, 'Ines');
  await ines.goto(`/sites/${id}/survey`);
  await expect(ines.locator('body')).toContainText('There is no site');

  // to look at, then to change
  const give = async (right: string): Promise<void> => {
    await joss.getByRole('button', { name: 'Signed in as Joss' }).click();
    await joss.getByRole('menuitem', { name: /Who may see/ }).click();
    const box = joss.getByRole('dialog');
    await expect(box).toContainText('Joss');
    if ((await box.getByLabel('What Ines may do').count()) > 0)
      await box.getByLabel('What Ines may do').selectOption(right);
    else {
      await box.getByLabel(/Name of somebody/).fill('Ines');
      await box.getByLabel('What they may do').selectOption(right);
      await box.getByRole('button', { name: 'Give it' }).click();
    }
    await expect(box.getByLabel('What Ines may do')).toHaveValue(right);
    await joss.keyboard.press('Escape');
  };
  await give('read');
  await ines.goto(`/sites/${id}/links`);
  await expect(ines.getByRole('navigation', { name: 'Stations' })).toContainText('26 pages');
  await expect(draftBar(ines)).toContainText('You may look at this site, not change it.');
  const put = { base: 1, version: 0, operations: [{ kind: 'gather-rules', sheet: 'css/all.css' }] };
  expect((await ines.request.put(`/api/sites/${id}/draft`, { data: put })).status()).toBe(403);
  await give('edit');

  // Joss plans; Ines sees it without doing anything, and saves it
  await ines.goto(`/sites/${id}/proof`);
  await expect(draftBar(ines)).toContainText('The draft is empty');
  await joss.goto(`/sites/${id}/gather`);
  await expect(joss.getByRole('heading', { level: 1 })).toContainText('families');
  await joss.keyboard.press('p');
  await expect(draftBar(joss)).toContainText('All 26 pages look the same.', { timeout: 200_000 });
  await expect(draftBar(ines)).toContainText('All 26 pages look the same.', { timeout: 60_000 });
  await ines.keyboard.press('Control+Enter');
  await expect(ines.getByRole('button', { name: 'Revision r2' })).toBeVisible();
  await expect(joss.getByRole('button', { name: 'Revision r2' })).toBeVisible();
  await joss.getByRole('button', { name: 'Revision r2' }).click();
  await expect(joss.getByRole('dialog')).toContainText('by Ines');
  await joss.keyboard.press('Escape');

  // previews are the site's as well
  expect((await ines.request.get(`/preview/${id}/r2/index.html`)).status()).toBe(200);
  await joss.getByRole('button', { name: 'Signed in as Joss' }).click();
  await joss.getByRole('menuitem', { name: 'Sign out' }).click();
  await expect(joss.getByRole('heading', { name: 'Who are you?' })).toBeVisible();
  expect((await joss.request.get(`/preview/${id}/r2/index.html`)).status()).toBe(401);
});
