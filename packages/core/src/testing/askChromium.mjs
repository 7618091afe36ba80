// Reads questions as JSON from standard input, answers as JSON on standard output. See chromium.ts.
import http from 'node:http';
import { launchChromium } from '../../../../scripts/chromium.mjs';

let input = '';
for await (const part of process.stdin) input += part;
const questions = JSON.parse(input);
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
const browser = await launchChromium();
const page = await browser.newPage();
const answers = [];
for (const question of questions) {
  current = question;
  await page.setViewportSize({ width: question.width ?? 1280, height: 800 });
  await page.emulateMedia({ media: question.media ?? 'screen' });
  await page.goto(`http://127.0.0.1:${server.address().port}/${question.path ?? ''}`, { waitUntil: 'load' });
  answers.push((await page.evaluate(question.ask)) ?? null);
}
await browser.close();
server.close();
process.stdout.write(JSON.stringify(answers));
