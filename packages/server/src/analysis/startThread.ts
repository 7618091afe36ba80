import { setFlagsFromString } from 'node:v8';
import { Worker, type Transferable } from 'node:worker_threads';

// What a page is parsed into lives as long as it is looked at. Now and then V8 takes that for long, in one process of seven, and makes all
// trees among what is old from then on: all takes half as long again, and a third more memory.
setFlagsFromString('--no-allocation-site-pretenuring');

/**
 * From dist a plain module; from source one that was made of it (`SYNDETON_THREAD`), or a loader before it can be read. `heap`:
 * megabytes.
 */
export function startThread(heap: number, workerData: object, transferList: readonly Transferable[] = []): Worker {
  const options = { workerData, transferList: [...transferList], resourceLimits: { maxOldGenerationSizeMb: heap } };
  if (!import.meta.url.endsWith('.ts')) return new Worker(new URL('./worker.js', import.meta.url), options);
  const made = process.env['SYNDETON_THREAD'];
  if (made !== undefined) return new Worker(made, options);
  const worker = JSON.stringify(new URL('./worker.ts', import.meta.url).href);
  const text = `import('tsx/esm/api').then(({ register }) => { register(); return import(${worker}); })`;
  return new Worker(text, { ...options, eval: true, execArgv: ['--conditions=@syndeton/source'] });
}
