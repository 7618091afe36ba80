// One place that knows how Debian's Chromium is found and started; used by scripts and by tests.
import { chromium } from '@playwright/test';
import fs from 'node:fs';
import { chromiumPath } from './chromium-path.mjs';

export { chromiumPath };

export const chromiumArgs = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--font-render-hinting=none',
];

/** Starts headless Chromium; fails with what to install when it is not there. */
export async function launchChromium(moreArgs = []) {
  if (!fs.existsSync(chromiumPath))
    throw new Error(`No Chromium at ${chromiumPath}. As root: apt-get install chromium`);
  return chromium.launch({ executablePath: chromiumPath, args: [...chromiumArgs, ...moreArgs] });
}
