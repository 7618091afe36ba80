import { expect, type Page } from '@playwright/test';

/** A fresh copy of the demo, opened at a station. */
export async function openDemo(page: Page, station = 'survey'): Promise<string> {
  const reply = await page.request.post('/api/sites/demo');
  const { id } = (await reply.json()) as { id: string };
  await page.goto(`/sites/${id}/${station}`);
  await expect(page.getByRole('navigation', { name: 'Stations' })).toContainText('26 pages');
  return id;
}

export const draftBar = (page: Page) => page.getByRole('region', { name: 'Draft' });

/** The question before a change of look, or before something an author left a note at: it is taken all the same. */
export async function agree(page: Page): Promise<void> {
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Put it in the draft/ })
    .click();
}
