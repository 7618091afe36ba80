// What Chromium answers to the questions of chromium.ts, one page after the other.
import http from 'node:http';
import { launchChromium } from '../../../../scripts/chromium.mjs';

// a frame made anew for each document would cost a fifth
export const launch = () => launchChromium(['--disable-features=RenderDocument,HttpsUpgrades,PaintHolding,Translate']);

export async function answerQuestions(browser, questions) {
  let current = questions[0];
  const server = http.createServer((request, response) => {
    const path = new URL(request.url, 'http://x').pathname.slice(1);
    if (current.bytes !== undefined && path === current.path)
      response.writeHead(200, { 'content-type': 'text/html' }).end(Buffer.from(current.bytes, 'base64'));
    else if (path === (current.path ?? ''))
      response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(current.html);
    else if (current.fileBytes?.[path] !== undefined)
      response.writeHead(200, { 'content-type': 'text/css' }).end(Buffer.from(current.fileBytes[path], 'base64'));
    else if (current.files?.[path] !== undefined)
      response.writeHead(200, { 'content-type': 'text/css' }).end(current.files[path]);
    else response.writeHead(404).end();
  });
  await new Promise((done) => server.listen(0, '127.0.0.1', done));
  const context = await browser.newContext();
  try {
    const page = await context.newPage();
    const answers = [];
    let set = {};
    for (const question of questions) {
      current = question;
      const { width = 1280, media = 'screen' } = question;
      if (set.width !== width) await page.setViewportSize({ width, height: 800 });
      if (set.media !== media) await page.emulateMedia({ media });
      set = { width, media };
      await page.goto(`http://127.0.0.1:${server.address().port}/${question.path ?? ''}`, { waitUntil: 'load' });
      answers.push((await page.evaluate(question.ask)) ?? null);
    }
    return answers;
  } finally {
    await context.close();
    server.closeAllConnections();
    server.close();
  }
}
