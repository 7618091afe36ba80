// Takes docs/screenshots/*.png from a running server, on fresh copies of the demo: node scripts/takeScreenshots.mjs [http://127.0.0.1:4870] [NAME …]; all of them without names
import { launchChromium } from './chromium.mjs';

const origin = process.argv[2] ?? 'http://127.0.0.1:4870';
const wanted = process.argv.slice(3);
const browser = await launchChromium();
const made = [];

async function shot(name, { theme = 'light', prepare, path, act }) {
  if (wanted.length > 0 && !wanted.includes(name)) return;
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    reducedMotion: 'reduce',
    baseURL: origin,
  });
  await context.addInitScript((t) => localStorage.setItem('syndeton-theme', t), theme);
  const page = await context.newPage();
  const { id } = await (await page.request.post('/api/sites/demo')).json();
  made.push(id);
  await prepare?.(page, id);
  await page.goto(path.replace(':id', id));
  await page.waitForTimeout(2500);
  await act?.(page);
  await page.waitForTimeout(2500);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
  await context.close();
}

const lineUp = (operations) => async (page, id) => {
  await page.request.put(`/api/sites/${id}/draft`, { data: { base: 1, version: 0, operations } });
};
const propose = async (page, id) => {
  const reply = await page.request.post(`/api/sites/${id}/proposal`, {
    data: { base: 1, sheet: 'css/shared.css' },
    timeout: 120_000,
  });
  await lineUp((await reply.json()).operations)(page, id);
};
const red = async (page) => {
  const line = page.locator('.cm-line', { hasText: 'a { color' }).first();
  await line.getByText('#0b5563').dblclick();
  await page.keyboard.type('1d4f8a');
  // the whole effect, with its samples
  await page.waitForTimeout(15_000);
};

await shot('survey', { path: '/sites/:id/survey' });
await shot('survey-dark', { theme: 'dark', path: '/sites/:id/survey?folder=routes%2F' });
await shot('page', {
  path: '/sites/:id/survey?open=timetable.html',
  act: (page) => page.getByRole('button', { name: 'Where' }).click(),
});
const proposeHere = async (page) => {
  await page.getByRole('button', { name: /Propose a plan/ }).click();
  await page.getByText(/look the same/).waitFor({ timeout: 120_000 });
};
const openNotice = async (page) => {
  await proposeHere(page);
  await page.getByRole('button', { name: '.notice', exact: true }).click();
};
const brown = encodeURIComponent('html>body:nth-child(2)>div:nth-child(1)>div:nth-child(3)>h2:nth-child(4)');
await shot('links', { path: '/sites/:id/links?open=css%2Fsite.css' });
await shot('precedence-element', { path: `/sites/:id/precedence?open=timetable.html&element=${brown}&peel=attribute` });
await shot('precedence-element-dark', {
  theme: 'dark',
  path: `/sites/:id/precedence?open=timetable.html&element=${brown}`,
});
await shot('precedence-question', { path: '/sites/:id/precedence?way=question&selector=a&property=color' });
await shot('precedence-overrides', {
  path: '/sites/:id/precedence?way=overrides',
  act: (page) => page.getByRole('button', { name: '#wrap h2' }).nth(1).click(),
});
await shot('gather', { path: '/sites/:id/gather', act: openNotice });
await shot('gather-attributes', {
  path: '/sites/:id/gather',
  act: async (page) => {
    await proposeHere(page);
    await page.getByRole('button', { name: /^Style attributes/ }).click();
  },
});
await shot('gather-sheet', {
  path: '/sites/:id/gather',
  act: async (page) => {
    await proposeHere(page);
    await page.getByRole('button', { name: /^The sheet/ }).click();
  },
});
await shot('gather-dark', { theme: 'dark', path: '/sites/:id/gather', act: openNotice });
await shot('sheets', { path: '/sites/:id/sheets?open=css/base.css', act: red });
await shot('proof', {
  prepare: lineUp([
    { kind: 'gather-rules', sheet: 'css/notices.css', rules: [{ family: '.notice' }, { family: '#wrap h2' }] },
  ]),
  path: '/sites/:id/proof?open=notices.html',
  act: (page) => page.getByRole('region', { name: 'Measured in this browser' }).waitFor({ timeout: 120_000 }),
});
await shot('handoff', {
  prepare: async (page, id) => {
    await propose(page, id);
    await page.request.post(`/api/sites/${id}/revisions`, { data: { base: 1, version: 1 } });
  },
  path: '/sites/:id/hand-off',
});
await shot('history', {
  prepare: async (page, id) => {
    await propose(page, id);
    await page.request.post(`/api/sites/${id}/revisions`, { data: { base: 1, version: 1 } });
    await page.request.patch(`/api/sites/${id}/revisions/2`, { data: { message: 'One sheet for all pages' } });
    const { version } = await (await page.request.get(`/api/sites/${id}/draft`)).json();
    const warmer = {
      kind: 'change-rule',
      sheet: 'css/base.css',
      rule: { selector: '#banner' },
      set: [{ property: 'color', value: '#fffbe6' }],
    };
    const operations = [warmer, { kind: 'sort-rules', sheet: 'css/base.css' }];
    await page.request.put(`/api/sites/${id}/draft`, { data: { base: 2, version, operations } });
    const note = 'A warmer white, as the harbour office asked.';
    await page.request.post(`/api/sites/${id}/revisions`, { data: { base: 2, version: version + 1, note } });
  },
  path: '/sites/:id/hand-off',
  act: async (page) => {
    await page.getByRole('button', { name: 'Revision r3' }).click();
    await page.getByText('2 operations').click();
  },
});
const [kept, ...others] = made.splice(0, made.length - 1);
for (const id of others) await fetch(`${origin}/api/sites/${id}`, { method: 'DELETE' });
await shot('sites', { path: '/' });
for (const id of [kept, ...made]) await fetch(`${origin}/api/sites/${id}`, { method: 'DELETE' });
await browser.close();
