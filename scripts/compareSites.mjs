// An independent check, by the browser alone: computed style and box of every element, ::before and ::after, on every page of two folders.
//   node scripts/compareSites.mjs BEFORE AFTER [--width 1280,480] [--limit N]
import fs from 'node:fs';
import http from 'node:http';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { launchChromium } from './chromium.mjs';

const types = {
  '.html': 'text/html',
  '.htm': 'text/html',
  '.shtml': 'text/html',
  '.xhtml': 'text/html',
  '.css': 'text/css',
  '.png': 'image/png',
  '.gif': 'image/gif',
  '.jpg': 'image/jpeg',
  '.svg': 'image/svg+xml',
  '.js': 'text/javascript',
};

/** Serves a folder on loopback, without charset, as plain servers do. `without`: files it has not got. */
export async function serveFolder(given, without = /(?!)/) {
  const folder = path.resolve(given);
  const server = http.createServer((request, response) => {
    const wanted = decodeURIComponent(new URL(request.url, 'http://x').pathname);
    const file = path.join(folder, path.normalize(wanted));
    if (
      !file.startsWith(folder + path.sep) ||
      without.test(file) ||
      !fs.existsSync(file) ||
      !fs.statSync(file).isFile()
    ) {
      response.writeHead(404).end();
      return;
    }
    response.writeHead(200, { 'content-type': types[path.extname(file).toLowerCase()] ?? 'application/octet-stream' });
    response.end(fs.readFileSync(file));
  });
  await new Promise((done) => server.listen(0, '127.0.0.1', done));
  return { origin: `http://127.0.0.1:${server.address().port}`, close: () => server.close() };
}

/**
 * Runs in the page: per element and pseudo-element its name and a fingerprint of all computed values, addresses counted from the
 * origin. With `wanted`, the values themselves of those boxes instead.
 */
export function readStyles(wanted) {
  for (const animation of document.getAnimations()) {
    animation.pause();
    animation.currentTime = 300;
  }
  const names = [...getComputedStyle(document.documentElement)];
  const elements = [...document.querySelectorAll('*')].filter(
    (e) => e.localName !== 'style' && !(e.localName === 'link' && /\bstylesheet\b/i.test(e.rel)),
  );
  const boxes = [];
  const values = {};
  for (const element of elements) {
    for (const pseudo of [null, '::before', '::after']) {
      const style = getComputedStyle(element, pseudo);
      if (pseudo && style.content === 'none') continue;
      const list = names.map((name) => style.getPropertyValue(name).replaceAll(location.origin, ''));
      if (!pseudo) {
        const { x, y, width, height } = element.getBoundingClientRect();
        list.push(`${x} ${y} ${width} ${height}`);
      }
      if (wanted?.includes(boxes.length)) values[boxes.length] = list;
      let a = 0x811c9dc5;
      let b = 7;
      for (const char of list.join('\n')) {
        const code = char.codePointAt(0);
        a = Math.imul(a ^ code, 0x01000193);
        b = Math.imul(b ^ code, 0x5bd1e995) ^ (b >>> 13);
      }
      boxes.push(`${element.localName}${pseudo ?? ''} ${a} ${b}`);
    }
  }
  return { names: [...names, 'box'], boxes, values };
}

/** The differences of one page: `element property: before → after`, at most ten. */
export async function differences(tabs, before, after) {
  if (before.boxes.length !== after.boxes.length)
    return [`${before.boxes.length} → ${after.boxes.length} boxes to compare`];
  const wanted = before.boxes.flatMap((box, i) => (box === after.boxes[i] ? [] : [i])).slice(0, 10);
  if (wanted.length === 0) return [];
  const read = await Promise.all(tabs.map((tab) => tab.evaluate(readStyles, wanted)));
  return wanted.map((i) => {
    const j = read[0].values[i].findIndex((value, k) => value !== read[1].values[i][k]);
    return `${before.boxes[i].split(' ')[0]} #${i} ${before.names[j]}: ${read[0].values[i][j]} → ${read[1].values[i][j]}`;
  });
}

/** Undefined for a page that sends the browser elsewhere before it can be read. */
async function readPage(tab, url) {
  try {
    await tab.goto(url, { waitUntil: 'load' });
    return await tab.evaluate(readStyles, undefined);
  } catch (error) {
    if (/navigation|interrupted|destroyed/.test(error.message)) return undefined;
    throw error;
  }
}

/** Media and window widths a page is looked at in. */
const viewsOf = ({ media = ['screen', 'print'], widths = [1280] }) =>
  media.flatMap((medium) => widths.map((width) => [medium, width]));

/** The pages of a folder that lead nowhere else, or so many of them, spread over all. */
export function samplePages(folder, limit) {
  const pages = fs
    .readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && /\.(html?|xhtml|shtml)$/i.test(entry.name))
    .map((entry) => path.relative(folder, path.join(entry.parentPath, entry.name)))
    .filter((page) => !/http-equiv=["']?refresh/i.test(fs.readFileSync(path.join(folder, page), 'latin1')))
    .sort();
  const step = limit && pages.length > limit ? pages.length / limit : 1;
  return step === 1 ? pages : Array.from({ length: limit }, (_, i) => pages[Math.floor(i * step)]);
}

export async function compareSites(beforeFolder, afterFolder, options = {}) {
  const servers = await Promise.all([serveFolder(beforeFolder), serveFolder(afterFolder)]);
  const browser = await launchChromium();
  const sample = samplePages(beforeFolder, options.limit);
  const results = [];
  const skipped = new Set();
  let boxes = 0;
  try {
    for (const [medium, width] of viewsOf(options)) {
      // scripts off: what they do is no part of the pages' own styling
      const context = await browser.newContext({
        viewport: { width, height: 800 },
        javaScriptEnabled: true,
        reducedMotion: 'reduce',
      });
      await context.route('**/*', (route) =>
        route.request().resourceType() === 'script' || !servers.some((s) => route.request().url().startsWith(s.origin))
          ? route.abort()
          : route.continue(),
      );
      const tabs = await Promise.all([context.newPage(), context.newPage()]);
      for (const tab of tabs) await tab.emulateMedia({ media: medium });
      for (const page of sample) {
        const url = page.split('/').map(encodeURIComponent).join('/');
        const read = await Promise.all(tabs.map((tab, i) => readPage(tab, `${servers[i].origin}/${url}`)));
        if (!read[0] || !read[1]) {
          skipped.add(page);
          continue;
        }
        boxes += read[0].boxes.length;
        const found = await differences(tabs, read[0], read[1]);
        if (found.length) results.push({ page, medium: `${medium}, ${width} px`, found });
      }
      await context.close();
    }
  } finally {
    await browser.close();
    for (const server of servers) server.close();
  }
  return { pages: sample.length - skipped.size, boxes, differing: results, skipped: [...skipped] };
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: { width: { type: 'string' }, limit: { type: 'string' } },
  });
  const result = await compareSites(positionals[0], positionals[1], {
    ...(values.width ? { widths: values.width.split(',').map(Number) } : {}),
    limit: values.limit ? Number(values.limit) : undefined,
  });
  for (const { page, medium, found } of result.differing) console.log(`${page} (${medium})\n  ${found.join('\n  ')}`);
  console.log(
    `${result.pages} pages, ${result.boxes} boxes compared on screen and in print, ${result.differing.length} pages differ`,
  );
  process.exitCode = result.differing.length ? 1 : 0;
}
