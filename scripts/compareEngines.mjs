// The question of compareSites.mjs, asked of two other engines: Gecko (Debian's firefox-esr, by WebDriver BiDi) and WebKit (Debian's
// webkit2gtk-driver, by W3C WebDriver, under Xvfb where there is no display). On screen only; scripts of files are not served.
//   node scripts/compareEngines.mjs BEFORE AFTER [--limit N] [--engine firefox,webkit]
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import puppeteer from 'puppeteer-core';
import { launchChromium } from './chromium.mjs';
import { differences, readStyles, samplePages, serveFolder } from './compareSites.mjs';

const firefoxPath = '/usr/bin/firefox-esr';
const webkitDriver = '/usr/bin/WebKitWebDriver';

const pause = (ms) => new Promise((done) => setTimeout(done, ms));

/** A browser as two tabs that load addresses and run functions in them. */
async function firefox() {
  const browser = await puppeteer.launch({ browser: 'firefox', executablePath: firefoxPath, headless: true });
  const tabs = await Promise.all([browser.newPage(), browser.newPage()]);
  for (const tab of tabs) await tab.setViewport({ width: 1280, height: 800 });
  return { tabs, close: () => browser.close() };
}

/** One session a tab: its script calls run one after the other. */
async function webkit() {
  const display = process.env.DISPLAY ?? ':97';
  const started = [];
  if (process.env.DISPLAY === undefined)
    started.push(spawn('Xvfb', [display, '-screen', '0', '1400x1000x24'], { stdio: 'ignore' }));
  const port = 18_000 + (process.pid % 1000);
  const env = { ...process.env, DISPLAY: display, WEBKIT_FORCE_SANDBOX: '0' };
  started.push(spawn(webkitDriver, [`--port=${port}`], { stdio: 'ignore', env }));
  await pause(2000);
  const ask = async (method, path, body) => {
    const reply = await fetch(`http://127.0.0.1:${port}${path}`, { method, body: body && JSON.stringify(body) });
    const { value } = await reply.json();
    if (!reply.ok) throw new Error(value.message || value.error);
    return value;
  };
  const browserOptions = { binary: '/usr/lib/x86_64-linux-gnu/webkit2gtk-4.1/MiniBrowser', args: ['--automation'] };
  const options = fs.existsSync(browserOptions.binary) ? { 'webkitgtk:browserOptions': browserOptions } : {};
  const sessions = [];
  const open = async () => {
    const { sessionId } = await ask('POST', '/session', { capabilities: { alwaysMatch: options } });
    sessions.push(sessionId);
    await ask('POST', `/session/${sessionId}/window/rect`, { width: 1280, height: 900 });
    return {
      goto: (url) => ask('POST', `/session/${sessionId}/url`, { url }),
      evaluate: (run, given) =>
        ask('POST', `/session/${sessionId}/execute/sync`, {
          script: `return (${run})(arguments[0] ?? undefined)`,
          args: [given ?? null],
        }),
    };
  };
  // the driver holds one session at a time: both states are read in the same tab, one after the other
  const tab = await open();
  return {
    tabs: [tab, tab],
    close: async () => {
      for (const id of sessions) await ask('DELETE', `/session/${id}`).catch(() => undefined);
      for (const one of started) one.kill();
    },
  };
}

/** For questions beside the comparison of folders. */
async function chromium() {
  const browser = await launchChromium();
  return { tabs: [await browser.newPage()], close: () => browser.close() };
}

export const engines = { chromium, firefox, webkit };

/** Pages that differ in an engine: `{ page, found }`, and how many boxes were compared. */
export async function compareInEngine(name, beforeFolder, afterFolder, limit) {
  const servers = await Promise.all([beforeFolder, afterFolder].map((folder) => serveFolder(folder, /\.m?js$/i)));
  const { tabs, close } = await engines[name]();
  const differing = [];
  let boxes = 0;
  const sample = samplePages(beforeFolder, limit);
  try {
    for (const page of sample) {
      const url = page.split('/').map(encodeURIComponent).join('/');
      const read = [];
      for (const [i, tab] of tabs.entries()) {
        await tab.goto(`${servers[i].origin}/${url}`);
        read.push(await tab.evaluate(readStyles, undefined));
      }
      boxes += read[0].boxes.length;
      const at = tabs.map((tab, i) => ({
        evaluate: async (run, given) => {
          await tab.goto(`${servers[i].origin}/${url}`);
          return tab.evaluate(run, given);
        },
      }));
      // one after the other, since both may be the same tab
      let turn = Promise.resolve();
      const inTurn = at.map((one) => ({ evaluate: (...given) => (turn = turn.then(() => one.evaluate(...given))) }));
      const found = await differences(inTurn, read[0], read[1]);
      if (found.length > 0) differing.push({ page, found });
    }
  } finally {
    await close();
    for (const server of servers) server.close();
  }
  return { pages: sample.length, boxes, differing };
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: { limit: { type: 'string' }, engine: { type: 'string' } },
  });
  let wrong = 0;
  for (const name of (values.engine ?? 'firefox,webkit').split(',')) {
    const { pages, boxes, differing } = await compareInEngine(
      name,
      positionals[0],
      positionals[1],
      values.limit && Number(values.limit),
    );
    for (const { page, found } of differing) console.log(`${name}: ${page}\n  ${found.join('\n  ')}`);
    console.log(`${name}: ${pages} pages, ${boxes} boxes compared on screen, ${differing.length} pages differ`);
    wrong += differing.length;
  }
  process.exit(wrong > 0 ? 1 : 0);
}
