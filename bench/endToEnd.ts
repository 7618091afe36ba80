import { chromium, type Page } from '@playwright/test';
import { zipSync } from 'fflate';
import { chromiumArgs, chromiumPath } from '../scripts/chromium.mjs';
import { bringIn, origin, peakOf, startServer } from './builtServer.ts';
import { makeFiles } from './makeSite.ts';

export interface EndToEnd {
  /** From the upload of the zip to the survey kept with the revision. */
  readonly seconds: number;
  readonly megabytes: number;
  /** Most memory the server process had, its worker threads included. */
  readonly peakMegabytes: number;
  /** Longest time between two frames while a person does this, in milliseconds. */
  readonly frames: Readonly<Record<string, number>>;
  /** Pages a second that the browser measures in two states. */
  readonly measured: number;
}

/** As many lines as a sheet may have and typing still not wait. */
const longSheet = {
  path: 'css/long.css',
  text: Array.from({ length: 1250 }, (_, i) => `.r${i} {\n  color: #0b5563;\n  margin: ${i}px 0;\n}\n`).join(''),
};

/** Brings a generated site in through the built server, then uses its survey in Chromium. */
export async function endToEnd(pages: number): Promise<EndToEnd> {
  const files = new Map(makeFiles(pages, 'embedded')).set(longSheet.path, new TextEncoder().encode(longSheet.text));
  const zip = zipSync(Object.fromEntries(files), { level: 1 });
  const bytes = [...files.values()].reduce((sum, content) => sum + content.length, 0);
  const server = await startServer();
  try {
    const started = performance.now();
    const siteId = await bringIn(zip);
    const seconds = (performance.now() - started) / 1000;
    const { frames, measured } = await inBrowser(siteId);
    return { seconds, megabytes: bytes / 1e6, peakMegabytes: peakOf(server), frames, measured };
  } finally {
    server.kill('SIGTERM');
    await new Promise((done) => server.once('exit', done));
  }
}

async function inBrowser(siteId: string): Promise<Pick<EndToEnd, 'frames' | 'measured'>> {
  const browser = await chromium.launch({ executablePath: chromiumPath, args: chromiumArgs });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    return { frames: await useSurvey(page, siteId), measured: await measuring(page, siteId) };
  } finally {
    await browser.close();
  }
}

async function useSurvey(page: Page, siteId: string): Promise<Record<string, number>> {
  await page.goto(`${origin}/sites/${siteId}/survey`);
  await page.getByRole('region', { name: 'Findings' }).getByRole('listitem').first().waitFor();
  await page.waitForTimeout(1500);
  const rail = page.getByRole('listbox', { name: /^Choose pages/ }).locator('..');
  return {
    'showing the survey': await firstFrames(page, siteId),
    'scrolling the rail': await longestFrame(page, async () => {
      for (let i = 1; i <= 30; i++) {
        await rail.evaluate((list, to) => list.scrollTo(0, (list.scrollHeight * to) / 30), i);
        await page.waitForTimeout(40);
      }
    }),
    'filtering pages': await longestFrame(page, async () => {
      await page.keyboard.press('/');
      await page.keyboard.type('page29', { delay: 60 });
    }),
    'opening a page': await longestFrame(page, async () => {
      await page.evaluate(() => {
        history.pushState(null, '', `${location.pathname}?open=part0/page0.html`);
        dispatchEvent(new PopStateEvent('popstate'));
      });
      await page.getByRole('group', { name: 'The page’s own text' }).waitFor();
    }),
    'typing in a sheet of 5,000 lines': await typing(page, siteId),
  };
}

/** In the middle of it, a rule of a person who writes fast. */
async function typing(page: Page, siteId: string): Promise<number> {
  await page.goto(`${origin}/sites/${siteId}/sheets?open=${encodeURIComponent(longSheet.path)}`);
  const editor = page.locator('.cm-content');
  await editor.waitFor();
  await page.waitForTimeout(3000);
  await editor.click();
  return longestFrame(page, () => page.keyboard.type('\n.new { color: red; margin: 0 }\n', { delay: 50 }));
}

/** So long is measured; the rate is what counts. */
const measuredFor = 20;

/** Pages a second whose two states are compared by computed values and boxes, with the rules gathered in the draft. */
async function measuring(page: Page, siteId: string): Promise<number> {
  const at = `${origin}/api/sites/${siteId}/draft`;
  const { base, version } = (await (await fetch(at)).json()) as { base: number; version: number };
  const operations = [{ kind: 'gather-rules', sheet: 'css/gathered.css' }];
  const body = JSON.stringify({ base, version, operations });
  await fetch(at, { method: 'PUT', headers: { 'content-type': 'application/json' }, body });
  await page.goto(`${origin}/sites/${siteId}/proof`);
  const region = page.getByRole('region', { name: 'Measured in this browser' });
  await region.getByRole('button', { name: /^Measure/ }).click({ timeout: 300_000 });
  const started = performance.now();
  await page.waitForTimeout(measuredFor * 1000);
  const said = await region.getByRole('status').innerText();
  return Number(/^[\d,]+/.exec(said)![0].replaceAll(',', '')) / ((performance.now() - started) / 1000);
}

/** From the navigation on: the reply is read, and everything is drawn for the first time. */
async function firstFrames(page: Page, siteId: string): Promise<number> {
  await page.addInitScript(watchFrames);
  await page.goto(`${origin}/sites/${siteId}/survey`);
  await page.getByRole('region', { name: 'Findings' }).getByRole('listitem').first().waitFor();
  await page.waitForTimeout(1000);
  return page.evaluate<number>('window.longest');
}

async function longestFrame(page: Page, act: () => Promise<void>): Promise<number> {
  await startFrames(page);
  await act();
  await page.waitForTimeout(300);
  return page.evaluate<number>('window.longest');
}

/** As text: a loader may wrap functions in helpers the page does not have. */
const watchFrames = `
  window.longest = 0;
  cancelAnimationFrame(window.watching ?? 0);
  {
    let last = performance.now();
    const frame = (now) => {
      window.longest = Math.max(window.longest, now - last);
      last = now;
      window.watching = requestAnimationFrame(frame);
    };
    window.watching = requestAnimationFrame(frame);
  }`;

const startFrames = (page: Page): Promise<unknown> => page.evaluate(watchFrames);
