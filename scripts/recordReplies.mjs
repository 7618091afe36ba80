// node scripts/recordReplies.mjs: asks the built server about a small site and keeps what it says, for the tests of the interface:
// packages/web/src/testing/recorded.json. To be run again when the contract changes; recorded.test.ts tells when.
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';
import { strToU8, zipSync } from 'fflate';

const port = 18_097;
const origin = `http://127.0.0.1:${port}`;
const shownId = '11111111-1111-4111-8111-111111111111';
const shownTime = '2026-01-05T09:30:00.000Z';

const head = (rules, links = '<link rel="stylesheet" href="css/site.css">') =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Lamp oil</title>${links}<style>\n${rules}\n</style></head>`;
const notice = '.notice { border: 1px solid #c9962b; padding: 4px }';
const pages = {
  'index.html': `${head(`${notice}\nh2 { color: #0b5563 }`)}<body><h1>Lamp oil</h1><h2>Hours</h2><p class="notice">Open late</p></body></html>`,
  'prices.html': `${head(`${notice}\nh2 { color: #0b5563 }`)}<body><h2>Prices</h2><p class="notice">New</p><p style="color: #84306f">From May</p></body></html>`,
  'old.html': `${head('.notice { border: 1px solid #c9962b; padding: 6px }', '<link rel="stylesheet" href="css/sit.css">')}<body><p class="notice">Closed</p></body></html>`,
  'css/site.css': 'body { margin: 0 }\nh2 { color: #222; font-size: 18px }\n',
};

const server = spawn(process.execPath, [fileURLToPath(new URL('../e2e/server.mjs', import.meta.url)), String(port)], {
  stdio: ['ignore', 'ignore', 'inherit'],
  env: { ...process.env, SYNDETON_NO_DEMO: '1' },
});
const wait = (ms) => new Promise((done) => setTimeout(done, ms));
const ask = async (method, path, body) => {
  const form = body instanceof FormData;
  const reply = await fetch(`${origin}${path}`, {
    method,
    ...(body === undefined ? {} : { body: form ? body : JSON.stringify(body) }),
    ...(body === undefined || form ? {} : { headers: { 'content-type': 'application/json' } }),
  });
  if (!reply.ok) throw new Error(`${method} ${path}: ${reply.status} ${await reply.text()}`);
  return reply.json();
};

try {
  for (let i = 0; i < 300 && !(await fetch(`${origin}/api/health`).catch(() => undefined))?.ok; i++) await wait(200);
  const form = new FormData();
  form.set('name', 'Lamp oil');
  const zip = zipSync(Object.fromEntries(Object.entries(pages).map(([path, text]) => [path, strToU8(text)])));
  form.set('archive', new Blob([zip]), 'lamp.zip');
  let made = await ask('POST', '/api/imports', form);
  while (made.status !== 'done' && made.status !== 'failed') {
    await wait(100);
    made = await ask('GET', `/api/imports/${made.id}`);
  }
  const site = `/api/sites/${made.siteId}`;
  const replies = {};
  const keep = async (method, path, body) => {
    const reply = await ask(method, path, body);
    replies[`${method} ${path}`] = reply;
    return reply;
  };
  const proved = async (path) => {
    while ((await ask('GET', path)).status === 'running') await wait(100);
    await keep('GET', path);
  };
  for (const path of ['/api/who', '/api/sites', site, `${site}/draft`]) await keep('GET', path);
  for (const name of ['survey', 'families', 'attributes', 'overrides'])
    await keep('GET', `${site}/revisions/1/${name}`);
  await keep('GET', `${site}/revisions/1/page?path=index.html`);
  await keep('GET', `${site}/revisions/1/sheet?path=css/site.css`);
  await keep('GET', `${site}/revisions/1/question?selector=h2&property=color`);
  await keep('POST', `${site}/draft/effect`, {
    base: 1,
    version: 0,
    operations: [{ kind: 'gather-rules', sheet: 'css/site.css', rules: [{ family: 'h2' }] }],
  });
  const { operations } = await keep('POST', `${site}/proposal`, { base: 1, sheet: 'css/shared.css' });
  await keep('PUT', `${site}/draft`, { base: 1, version: 0, operations });
  await proved(`${site}/draft/proof`);
  await keep('POST', `${site}/revisions`, { base: 1, version: 1 });
  for (const name of ['changes', 'report', 'recipe', 'proof']) await keep('GET', `${site}/revisions/2/${name}`);
  const text = JSON.stringify(replies, null, 1)
    .replaceAll(made.siteId, shownId)
    .replace(/\d{4}-\d\d-\d\dT[\d:.]+Z/g, shownTime)
    .replace(/"seconds": [\d.e-]+/g, '"seconds": 0.2');
  fs.writeFileSync(new URL('../packages/web/src/testing/recorded.json', import.meta.url), `${text}\n`);
} finally {
  server.kill('SIGTERM');
}
