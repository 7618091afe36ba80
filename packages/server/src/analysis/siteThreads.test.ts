import { Worker } from 'node:worker_threads';
import { afterEach, expect, test } from '@jest/globals';
import { SiteThreads, Stopped, type ThreadLimits } from './siteThreads.ts';

/** A thread that waits, works until it is told to stop, fills its memory, ends itself, or says what it was asked. */
const script = `
const { parentPort } = require('node:worker_threads');
let served = [];
parentPort.on('message', ({ id, site, name, input, stop }) => {
  served.push(site);
  const say = (report) => parentPort.postMessage({ id, ...report });
  if (name === 'echo') say({ kind: 'done', value: { input, served } });
  if (name === 'heap') say({ kind: 'done', value: { input, served }, heap: input });
  if (name === 'wait') setTimeout(() => say({ kind: 'done', value: Date.now() }), input);
  if (name === 'refuse') say({ kind: 'refused', code: 'operation-refused', message: 'no' });
  if (name === 'throw') say({ kind: 'error', error: new Error('a fault of ours') });
  if (name === 'exit') process.exit(3);
  if (name === 'fill') { const held = []; for (;;) held.push(new Array(1000).fill(id)); }
  if (name === 'hang') for (;;);
  if (name === 'getting-on' || name === 'getting-nowhere') {
    let done = 0;
    const total = name === 'getting-on' ? 60 : 2000;
    const timer = setInterval(() => {
      say({ kind: 'progress', progress: { done: ++done, total } });
      if (done === total) { clearInterval(timer); say({ kind: 'done', value: { input } }); }
    }, 40);
  }
  if (name === 'pages') {
    const stopped = new Int32Array(stop);
    const started = Date.now();
    say({ kind: 'progress', progress: { done: 1, total: 2 } });
    while (Atomics.load(stopped, 0) === 0 && Date.now() - started < 20_000);
    say({ kind: 'stopped' });
  }
});`;

const limits: ThreadLimits = {
  threads: 2,
  heap: 40,
  slow: 60_000,
  seconds: (name) => (name === 'hang' ? 0.3 : 60),
  longest: 2,
  grace: 0.2,
  idle: 60,
  idleLarge: 60,
  large: Infinity,
};
let threads: SiteThreads;
function start(given: Partial<ThreadLimits> = {}): SiteThreads {
  threads = new SiteThreads(
    (heap) => new Worker(script, { eval: true, resourceLimits: { maxOldGenerationSizeMb: heap } }),
    { ...limits, ...given },
  );
  return threads;
}
afterEach(() => threads.close());

test('all tasks of one site run on one thread, in the order they were asked', async () => {
  const { run } = { run: start().run.bind(threads) };
  const replies = await Promise.all([1, 2, 3].map((n) => run('a', 'echo', n)));
  expect(replies.map((reply) => (reply as { input: number }).input)).toEqual([1, 2, 3]);
  expect(replies.at(-1)).toEqual({ input: 3, served: ['a', 'a', 'a'] });
});

test('a site never waits for another one as long as there are threads', async () => {
  start();
  const slow = threads.run('a', 'wait', 400) as Promise<number>;
  const behind = threads.run('a', 'echo', 'behind');
  await threads.run('b', 'echo', 'quick');
  const quickAt = Date.now();
  expect(await slow).toBeGreaterThanOrEqual(quickAt);
  await behind;
});

test('with fewer threads than sites they take turns: many tasks of one do not keep another from its first', async () => {
  start({ threads: 1 });
  const order: string[] = [];
  const ask = (site: string, n: number): Promise<void> =>
    threads.run(site, 'wait', 20).then(() => void order.push(`${site}${n}`));
  await Promise.all([ask('a', 1), ask('a', 2), ask('a', 3), ask('b', 1)]);
  expect(order).toEqual(['a1', 'b1', 'a2', 'a3']);
});

test.each([
  ['refuses', 'refuse', { code: 'operation-refused', message: 'no' }],
  ['has a fault', 'throw', { message: 'a fault of ours' }],
  ['ends', 'exit', { message: 'the thread ended' }],
  ['fills its memory', 'fill', { code: 'too-much', message: expect.stringContaining('more than 40 MB') }],
  ['takes too long', 'hang', { code: 'too-much', message: expect.stringContaining('longer than 0.3 seconds') }],
])('a task that %s is told so; the site can be asked again', async (_shows, name, error) => {
  start();
  await expect(threads.run('a', name, 0)).rejects.toMatchObject(error);
  expect(await threads.run('a', 'echo', 1)).toMatchObject({ input: 1 });
});

test('a large site may take longer as long as it gets on, and not for ever', async () => {
  // longer than two seconds in all, and never so long without a word, however busy the machine is
  start({ seconds: () => 2, longest: 60 });
  await threads.run('a', 'echo', 'the thread is there');
  expect(await threads.run('a', 'getting-on', 1)).toEqual({ input: 1 });
  await threads.close();
  start({ seconds: () => 0.5, longest: 2 });
  await expect(threads.run('a', 'getting-nowhere', 1)).rejects.toMatchObject({ code: 'too-much' });
});

test('a task nobody waits for any more stops where it looks, or its thread is ended; one that waits is dropped', async () => {
  start();
  for (const name of ['pages', 'wait']) {
    const stop = new AbortController();
    const begun = new Promise<void>((resolve) => (name === 'pages' ? (seen = resolve) : setTimeout(resolve, 100)));
    const task = threads.run('a', name, 20_000, { signal: stop.signal, onProgress: () => seen() });
    const waiting = new AbortController();
    const behind = threads.run('a', 'wait', 20_000, { signal: waiting.signal });
    waiting.abort();
    await expect(behind).rejects.toBeInstanceOf(Stopped);
    await begun;
    const asked = Date.now();
    stop.abort();
    await expect(task).rejects.toBeInstanceOf(Stopped);
    expect(Date.now() - asked).toBeLessThan(10_000);
  }
  expect(await threads.run('a', 'echo', 1)).toMatchObject({ input: 1 });
});
let seen: () => void = () => undefined;

test('sites that take long leave one thread to the others, however many they are', async () => {
  start({ slow: 50 });
  await Promise.all(['x', 'y'].map((site) => threads.run(site, 'wait', 80)));
  const slow = ['x', 'y', 'x', 'y'].map((site) => threads.run(site, 'wait', 300) as Promise<number>);
  const began = Date.now();
  await threads.run('quick', 'echo', 'quick');
  await threads.run('another', 'echo', 'quick');
  // neither waited for one of the slow ones to end, and these are all done in the end
  const quick = Date.now();
  expect(await slow[0]).toBeGreaterThan(quick - 1);
  expect((await Promise.all(slow)).every((at) => at > began)).toBe(true);
});

test('closing waits for what runs and refuses what waits', async () => {
  start();
  const running = threads.run('a', 'wait', 200);
  const waiting = threads.run('a', 'echo', 1);
  const refused = expect(waiting).rejects.toMatchObject({ code: 'stopping' });
  await Promise.all([threads.close(5), refused]);
  expect(typeof (await running)).toBe('number');
  await expect(threads.run('b', 'echo', 1)).rejects.toMatchObject({ code: 'stopping' });
});

test('a thread whose heap has grown is let go sooner: that alone gives memory back', async () => {
  start({ idleLarge: 0.05, large: 1000 });
  await threads.run('a', 'heap', 2000);
  await new Promise((done) => setTimeout(done, 300));
  expect(await threads.run('a', 'echo', 2)).toEqual({ input: 2, served: ['a'] });
  await new Promise((done) => setTimeout(done, 300));
  expect(await threads.run('a', 'echo', 3)).toEqual({ input: 3, served: ['a', 'a'] });
});

test('a thread with nothing to do is let go', async () => {
  start({ idle: 0.05 });
  await threads.run('a', 'echo', 1);
  await new Promise((done) => setTimeout(done, 300));
  expect(await threads.run('a', 'echo', 2)).toEqual({ input: 2, served: ['a'] });
});
