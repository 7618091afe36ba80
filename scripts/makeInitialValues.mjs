// Writes packages/core/src/values/initialValues.ts: the initial value of every longhand as Debian's Chromium computes it.
// Run by hand when Chromium changes: node scripts/makeInitialValues.mjs
import fs from 'node:fs';
import { launchChromium } from './chromium.mjs';

const browser = await launchChromium();
const page = await browser.newPage();
await page.setContent('<!doctype html><body><p id=p style="all: initial; display: none">');
const values = await page.evaluate(() => {
  const style = getComputedStyle(document.getElementById('p'));
  return Object.fromEntries([...style].map((name) => [name, style.getPropertyValue(name)]));
});
await browser.close();
values.display = 'inline';
const rows = Object.entries(values)
  .sort(([a], [b]) => (a < b ? -1 : 1))
  .map(([name, value]) => `  ${JSON.stringify(name)}: ${JSON.stringify(value)},`);
fs.writeFileSync(
  new URL('../packages/core/src/values/initialValues.ts', import.meta.url),
  `// Made by scripts/makeInitialValues.mjs from Chromium. Do not edit by hand.

/** The initial value of each longhand, as Chromium computes it. */
export const initialValues: Readonly<Record<string, string>> = {
${rows.join('\n')}
};
`,
);
