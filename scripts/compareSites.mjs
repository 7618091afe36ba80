// An independent check, by the browser alone: computed style of every element, ::before and ::after, on every page of two folders.
//   node scripts/compareSites.mjs BEFORE AFTER [--width 1280] [--limit N]
import fs from 'node:fs';
import http from 'node:http';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { launchChromium } from './chromium.mjs';

const types = {
  '.html': 'text/html', '.htm': 'text/html', '.shtml': 'text/html', '.xhtml': 'text/html', '.css': 'text/css', '.png': 'image/png',
  '.gif': 'image/gif', '.jpg': 'image/jpeg', '.svg': 'image/svg+xml', '.js': 'text/javascript',
}; // prettier-ignore

/** Serves a folder on loopback, without charset, as plain servers do. */
export async function serveFolder(folder) {
  const server = http.createServer((request, response) => {
    const wanted = decodeURIComponent(new URL(request.url, 'http://x').pathname);
    const file = path.join(folder, path.normalize(wanted));
    if (!file.startsWith(path.resolve(folder)) || !fs.existsSync(file) || !fs.statSync(file).isFile()) {
      response.writeHead(404).end();
      return;
    }
    response.writeHead(200, { 'content-type': types[path.extname(file).toLowerCase()] ?? 'application/octet-stream' });
    response.end(fs.readFileSync(file));
  });
  await new Promise((done) => server.listen(0, '127.0.0.1', done));
  return { origin: `http://127.0.0.1:${server.address().port}`, close: () => server.close() };
}

/** Runs in the page: one line of computed values per element and pseudo-element. */
function readStyles() {
  const names = [...getComputedStyle(document.documentElement)];
  const elements = [...document.querySelectorAll('*')].filter(
    (e) => e.localName !== 'style' && !(e.localName === 'link' && /\bstylesheet\b/i.test(e.rel)),
  );
  const out = [];
  for (const element of elements) {
    for (const pseudo of [null, '::before', '::after']) {
      const style = getComputedStyle(element, pseudo);
      if (pseudo && style.content === 'none') continue;
      out.push([`${element.localName}${pseudo ?? ''}`, names.map((name) => style.getPropertyValue(name))]);
    }
  }
  return { names, out };
}

/** The differences of one page: `element property: before → after`, at most ten. */
function differences(before, after, origins) {
  const strip = (text) => text.replaceAll(origins[0], '').replaceAll(origins[1], '');
  const found = [];
  if (before.out.length !== after.out.length) found.push(`${before.out.length} → ${after.out.length} boxes to compare`);
  before.out.forEach(([name, values], i) => {
    const other = after.out[i];
    if (!other || other[0] !== name) return;
    values.forEach((value, j) => {
      if (strip(value) !== strip(other[1][j]) && found.length < 10) found.push(`${name} #${i} ${before.names[j]}: ${value} → ${other[1][j]}`);
    });
  });
  return found;
}

export async function compareSites(beforeFolder, afterFolder, options = {}) {
  const servers = await Promise.all([serveFolder(beforeFolder), serveFolder(afterFolder)]);
  const browser = await launchChromium();
  const pages = fs.readdirSync(beforeFolder, { recursive: true }).map(String).filter((p) => /\.(html?|xhtml|shtml)$/i.test(p)).sort();
  const step = options.limit && pages.length > options.limit ? pages.length / options.limit : 1;
  const sample = step === 1 ? pages : Array.from({ length: options.limit }, (_, i) => pages[Math.floor(i * step)]);
  const results = [];
  let boxes = 0;
  try {
    for (const medium of options.media ?? ['screen', 'print']) {
      // scripts off: what they do is no part of the pages' own styling
      const context = await browser.newContext({ viewport: { width: options.width ?? 1280, height: 800 }, javaScriptEnabled: true, reducedMotion: 'reduce' });
      await context.route('**/*', (route) => (route.request().resourceType() === 'script' || !servers.some((s) => route.request().url().startsWith(s.origin)) ? route.abort() : route.continue()));
      const tabs = await Promise.all([context.newPage(), context.newPage()]);
      for (const tab of tabs) await tab.emulateMedia({ media: medium });
      for (const page of sample) {
        const url = page.split('/').map(encodeURIComponent).join('/');
        const read = await Promise.all(
          tabs.map(async (tab, i) => {
            await tab.goto(`${servers[i].origin}/${url}`, { waitUntil: 'load' });
            return tab.evaluate(readStyles);
          }),
        );
        boxes += read[0].out.length;
        const found = differences(read[0], read[1], servers.map((s) => s.origin));
        if (found.length) results.push({ page, medium, found });
      }
      await context.close();
    }
  } finally {
    await browser.close();
    for (const server of servers) server.close();
  }
  return { pages: sample.length, boxes, differing: results };
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const { values, positionals } = parseArgs({ allowPositionals: true, options: { width: { type: 'string' }, limit: { type: 'string' } } });
  const result = await compareSites(positionals[0], positionals[1], {
    width: values.width ? Number(values.width) : undefined,
    limit: values.limit ? Number(values.limit) : undefined,
  });
  for (const { page, medium, found } of result.differing) console.log(`${page} (${medium})\n  ${found.join('\n  ')}`);
  console.log(`${result.pages} pages, ${result.boxes} boxes compared on screen and in print, ${result.differing.length} pages differ`);
  process.exitCode = result.differing.length ? 1 : 0;
}
