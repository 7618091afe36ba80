import { launchChromium } from './scripts/chromium.mjs';
const origin = 'http://127.0.0.1:18777';
const browser = await launchChromium();
const made = [];
export async function shot(name, { theme = 'light', width = 1280, path, act }) {
  const context = await browser.newContext({ viewport: { width, height: 800 }, reducedMotion: 'reduce', baseURL: origin });
  await context.addInitScript((t) => localStorage.setItem('syndeton-theme', t), theme);
  const page = await context.newPage();
  page.on('console', (m) => m.type() === 'error' && console.log(name, m.text().slice(0, 300)));
  const { id } = await (await page.request.post('/api/sites/demo')).json(); made.push(id);
  await page.goto(path.replace(':id', id));
  await page.waitForTimeout(2000);
  try { await act?.(page, (n) => page.screenshot({ path: `/tmp/shots/${name}-${n}.png` })); } catch (e) { console.log(name, String(e).slice(0, 600)); }
  await page.waitForTimeout(1200);
  await page.screenshot({ path: `/tmp/shots/${name}.png` });
  await context.close();
}
const propose = async (page, snap) => {
  await page.getByRole('button', { name: /Propose a plan/ }).click();
  await page.waitForTimeout(700); await snap?.('making');
  await page.getByText(/look the same/).waitFor({ timeout: 120000 });
};
const which = process.argv.slice(2);
const all = {
  survey: () => shot('survey', { path: '/sites/:id/survey' }),
  correct: () => shot('correct', { path: '/sites/:id/gather', act: async (p) => { await propose(p); await p.getByRole('button', { name: 'Correct the path' }).first().click(); await p.getByRole('dialog').waitFor({ timeout: 20000 }); } }),
  linkit: () => shot('linkit', { path: '/sites/:id/survey', act: async (p) => { await p.getByRole('button', { name: 'Link it' }).first().click(); await p.getByRole('dialog').waitFor({ timeout: 30000 }); } }),
  trade: () => shot('trade', { path: '/sites/:id/gather', act: async (p) => { await propose(p); await p.getByRole('button', { name: /^The sheet/ }).click(); await p.getByText(/trades make it simpler/).click(); await p.getByRole('button', { name: /^(Take|Let)/ }).first().click().catch(() => {}); await p.waitForTimeout(9000); await p.getByRole('link', { name: /Proof/ }).click(); await p.waitForTimeout(2500); } }),
  mend: () => shot('mend', { path: '/sites/:id/survey', act: async (p) => { await p.getByRole('button', { name: 'Link it' }).first().click(); await p.getByRole('dialog').waitFor({ timeout: 20000 }); } }),
  comment: () => shot('comment', { path: '/sites/:id/survey', act: async (p) => { await p.getByRole('button', { name: 'Take it out' }).first().click(); await p.getByRole('dialog').waitFor({ timeout: 20000 }); } }),
  gather: () => shot('gather', { path: '/sites/:id/gather', act: propose }),
  sheetdark: () => shot('sheetdark', { theme: 'dark', path: '/sites/:id/gather', act: async (p) => { await propose(p); await p.getByRole('button', { name: /^The sheet/ }).click(); } }),
  sheet1024: () => shot('sheet1024', { width: 1024, path: '/sites/:id/gather', act: async (p) => { await propose(p); await p.getByRole('button', { name: /^The sheet/ }).click(); } }),
  settings: () => shot('settings', { path: '/sites/:id/gather', act: async (p) => { await p.getByRole('button', { name: /How to plan|Settings|settings/ }).first().click(); } }),
  overrides: () => shot('overrides', { path: '/sites/:id/precedence?way=overrides', act: async (p) => { await p.waitForTimeout(1500); await p.getByRole('button', { name: '#wrap h2' }).nth(1).click(); await p.waitForTimeout(2500); } }),
};
import fs from 'node:fs'; fs.mkdirSync('/tmp/shots', { recursive: true });
for (const n of which.length ? which : Object.keys(all)) await all[n]();
await browser.close();
