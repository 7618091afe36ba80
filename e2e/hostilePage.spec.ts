import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { zipSync } from 'fflate';
import { expect, test, type Page } from '@playwright/test';

/** Another site: it must never hear of us. */
const heard: string[] = [];
const outside = http.createServer((request, response) => {
  heard.push(`${request.method} ${request.url}`);
  response.end('<script>parent.ran = 1</script>');
});
let away = '';
test.beforeAll(async () => {
  await new Promise<void>((done) => outside.listen(0, '127.0.0.1', done));
  away = `http://127.0.0.1:${(outside.address() as AddressInfo).port}`;
});
test.afterAll(() => new Promise((done) => outside.close(done)));

/** Whatever of a page could run, reach outside, lead away or read the application. */
const body = (): string => `
<script>top.ran = 1; parent.ran = 1; fetch('${away}/script')</script>
<img src=x onerror="top.ran = 1"><svg onload="top.ran = 1"><script>top.ran = 1</script><image href="${away}/svg"/></svg>
<img src="${away}/img"><img srcset="${away}/srcset 2x"><video poster="${away}/poster" src="${away}/video"></video>
<iframe src="${away}/frame"></iframe><iframe srcdoc="<script>top.ran = 1</script>"></iframe><iframe src="javascript:top.ran = 1"></iframe>
<object data="${away}/object"></object><embed src="${away}/embed"><audio src="${away}/audio"></audio>
<form action="${away}/form" name=querySelector><input name=children><input name=parentElement></form><form action="${away}/go"><input type=submit value=Go></form>
<img name=querySelectorAll><img name=body><img name=defaultView><img name=elementFromPoint><img name=styleSheets>
<div><template shadowrootmode=open><script>top.ran = 1</script><link rel=stylesheet href="${away}/shadow"></template></div>
<p><a id=leave href="${away}/link" target=_top style="display:block;background:#eee">Leave</a></p>
<p><a id=run href="javascript:top.ran = 1" style="display:block;background:#ddd">Run</a></p>
<h2 style="color: red">A heading</h2>`;
const head = (): string => `<!DOCTYPE html><html><head><title>t</title>
<meta http-equiv=refresh content="0;url=${away}/refresh"><link rel=stylesheet href="${away}/sheet"><link rel=icon href="${away}/icon">
<link rel=prefetch href="${away}/prefetch"><link rel=preload as=image href="${away}/preload"><link rel=modulepreload href="${away}/module">
<style>@import "${away}/import"; @font-face { font-family: f; src: url(${away}/font) } h1 { color: red; background: url(${away}/picture) } body { font-family: f; cursor: url(${away}/cursor), auto }</style>
</head><body>`;

async function bringIn(page: Page): Promise<string> {
  const text = `${head()}<h1>Harm</h1>${body()}</body></html>`;
  const zip = zipSync({ 'a.html': new TextEncoder().encode(text), 'b.html': new TextEncoder().encode(text) });
  const archive = { name: 'x.zip', mimeType: 'application/zip', buffer: Buffer.from(zip) };
  const reply = await page.request.post('/api/sites', { multipart: { name: 'Harm', archive } });
  return ((await reply.json()) as { id: string }).id;
}

test('a page that means harm: nothing runs, nothing is fetched from outside, nothing leads away, at any station', async ({
  page,
}) => {
  const id = await bringIn(page);
  const { base, version } = (await (await page.request.get(`/api/sites/${id}/draft`)).json()) as {
    base: number;
    version: number;
  };
  const plan = await page.request.post(`/api/sites/${id}/proposal`, { data: { base, sheet: 'css/s.css' } });
  const { operations } = (await plan.json()) as { operations: unknown[] };
  const put = await page.request.put(`/api/sites/${id}/draft`, { data: { base, version, operations } });
  expect([operations.length > 0, put.ok()]).toEqual([true, true]);
  const visit = async (address: string): Promise<void> => {
    await page.goto(address);
    await page.waitForTimeout(1500);
    const ran = await page.evaluate(() => (globalThis as { ran?: number }).ran);
    expect([address, ran, new URL(page.url()).pathname]).toEqual([
      address,
      undefined,
      new URL(address, page.url()).pathname,
    ]);
  };
  for (const station of [
    'survey?open=a.html',
    'gather',
    'links',
    'precedence?open=a.html',
    'sheets',
    'hand-off',
    'proof?open=a.html',
  ])
    await visit(`/sites/${id}/${station}`);
  const seen = page.frameLocator('iframe[title$="before"]');
  for (const link of ['#leave', '#run', 'input[type=submit]']) {
    await seen.locator(link).click();
    await expect(seen.locator('h1')).toHaveText('Harm');
  }
  // alone, by its own address
  for (const path of ['draft/a.html', 'r1/b.html']) await visit(`/preview/${id}/${path}`);
  expect(heard).toEqual([]);
});

test('elements named like what documents have are picked like others', async ({ page }) => {
  const id = await bringIn(page);
  await page.goto(`/sites/${id}/precedence?open=a.html`);
  const heading = page.frameLocator('iframe').locator('h2');
  await heading.scrollIntoViewIfNeeded();
  const box = (await heading.boundingBox())!;
  await page.mouse.click(box.x + 8, box.y + box.height / 2);
  await expect(page.getByRole('region', { name: 'Who decides' }).getByRole('heading', { level: 1 })).toContainText(
    'h2 “A heading”',
  );
});
