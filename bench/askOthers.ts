import { pagesOf, type Site } from '@syndeton/core';
import { JSDOM } from 'jsdom';
import { serve } from '../oracle/serve.ts';
import { launchChromium } from '../scripts/chromium.mjs';

/** Wall milliseconds a page: Chromium loads it and reads every computed style; jsdom's getComputedStyle, scaled up from 30 elements. */
export async function askOthers(site: Site): Promise<{ readonly chromium: number; readonly jsdom: number }> {
  const server = await serve((path) => site.files.get(path)?.bytes);
  const browser = await launchChromium();
  try {
    const tab = await browser.newPage();
    const pages = pagesOf(site);
    const load = async (path: string): Promise<void> => {
      await tab.goto(`${server.origin}/${path}`);
      await tab.evaluate(() => {
        let length = 0;
        for (const element of document.querySelectorAll('*')) {
          const style = getComputedStyle(element);
          for (const name of style) length += style.getPropertyValue(name).length;
        }
        return length;
      });
    };
    await load(pages[0]!.path);
    const started = performance.now();
    for (const page of pages) await load(page.path);
    return { chromium: (performance.now() - started) / pages.length, jsdom: jsdomTime(site) };
  } finally {
    await browser.close();
    server.close();
  }
}

function jsdomTime(site: Site): number {
  const sheets = [...site.files.values()].filter((f) => f.kind === 'sheet').map((f) => `<style>${f.text!}</style>`);
  const { window } = new JSDOM(
    pagesOf(site)[0]!
      .text!.replace(/<link[^>]*>/g, '')
      .replace('<style>', `${sheets.join('')}<style>`),
  );
  const all = [...window.document.querySelectorAll('*')];
  const some = all.filter((_, i) => i % Math.ceil(all.length / 30) === 0);
  window.getComputedStyle(all[0]!);
  const started = performance.now();
  for (const element of some) window.getComputedStyle(element).getPropertyValue('color');
  return ((performance.now() - started) / some.length) * all.length;
}
