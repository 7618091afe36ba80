import { Worker } from 'node:worker_threads';

const spin =
  'let x = 0; for (let i = 0; i < 4e8; i++) x = (x * 31 + i) | 0; require("node:worker_threads").parentPort.postMessage(x)';

/** How much two threads get done together, counted in what one does alone. */
export async function spinCapacity(): Promise<number> {
  const run = (): Promise<void> =>
    new Promise((resolve, reject) => {
      new Worker(spin, { eval: true }).once('message', () => resolve()).once('error', reject);
    });
  await run();
  const started = performance.now();
  await run();
  const alone = performance.now() - started;
  const together = performance.now();
  await Promise.all([run(), run()]);
  return (2 * alone) / (performance.now() - together);
}
