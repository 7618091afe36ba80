// One process that keeps a browser for each of Jest's workers: starting one for each question takes more than most answers do.
// Listens on a socket given as argument; ends when standard input does.
import net from 'node:net';
import { answerQuestions, launch } from './answerQuestions.mjs';

const browsers = new Map();

function browserOf(worker) {
  let browser = browsers.get(worker);
  if (!browser) {
    browsers.set(worker, (browser = launch()));
    browser.then(
      (one) => one.on('disconnected', () => browsers.delete(worker)),
      () => browsers.delete(worker),
    );
  }
  return browser;
}

/** What came, and what goes back. */
async function reply(text) {
  try {
    const { worker, questions } = JSON.parse(text);
    return { answers: await answerQuestions(await browserOf(worker), questions) };
  } catch (error) {
    return { error: String(error?.stack ?? error) };
  }
}

const server = net.createServer({ allowHalfOpen: true }, (socket) => {
  let text = '';
  socket.setEncoding('utf8');
  socket.on('error', () => undefined);
  socket.on('data', (part) => (text += part));
  socket.on('end', async () => socket.end(JSON.stringify(await reply(text))));
});
server.listen(process.argv[2], () => process.stdout.write('ready\n'));

process.stdin.resume();
process.stdin.on('end', async () => {
  await Promise.allSettled([...browsers.values()].map(async (browser) => (await browser).close()));
  process.exit(0);
});
