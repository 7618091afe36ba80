import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import type { AnalysisTasks } from './tasks.ts';

/** Tasks that take a port. */
export type Followed = 'proof' | 'inventory' | 'inventoryOfFiles' | 'inventoryOfChange';

export interface Progress {
  readonly done: number;
  readonly total: number;
  /** Rules found in pages so far, for inventories. */
  readonly rules?: number;
}

export interface Analysis {
  run<Name extends keyof AnalysisTasks>(
    name: Name,
    input: Parameters<AnalysisTasks[Name]>[0],
  ): ReturnType<AnalysisTasks[Name]>;
  /** A task that reports how far it is, and can be stopped. */
  follow<Name extends Followed>(
    name: Name,
    input: Omit<Parameters<AnalysisTasks[Name]>[0], 'port'>,
    onProgress: (progress: Progress) => void,
    signal?: AbortSignal,
  ): ReturnType<AnalysisTasks[Name]>;
  close(): Promise<void>;
}

/** Worker threads that keep the parsed files of the last revisions warm. */
export function startAnalysis(databaseUrl: string, threads = 2): Analysis {
  // .js in dist; from source the file is .ts and the thread needs a loader
  const fromSource = import.meta.url.endsWith('.ts');
  const makePool = (maxThreads: number): Piscina =>
    new Piscina({
      filename: new URL(fromSource ? './worker.ts' : './worker.js', import.meta.url).href,
      minThreads: 1,
      maxThreads,
      idleTimeout: 600_000,
      workerData: { databaseUrl },
      ...(fromSource ? { execArgv: ['--import', 'tsx', '--conditions=@syndeton/source'] } : {}),
    });
  const pool = makePool(threads);
  // drafts and their proofs go on from the ones before, which one thread keeps warm
  const drafts = makePool(1);
  // questions go on from one reading of all pages
  const questions = makePool(1);
  const poolFor = (name: keyof AnalysisTasks): Piscina => {
    if (name === 'draft' || name === 'proof') return drafts;
    return name === 'question' || name === 'overrides' ? questions : pool;
  };
  const run: Analysis['run'] = (name, input) => poolFor(name).run({ name, input }) as never;
  return {
    run,
    follow(name, input, onProgress, signal) {
      const { port1, port2 } = new MessageChannel();
      port1.on('message', onProgress);
      const options = { transferList: [port2], ...(signal ? { signal } : {}) };
      const result = poolFor(name).run({ name, input: { ...input, port: port2 } }, options) as Promise<unknown>;
      return result.finally(() => port1.close()) as never;
    },
    close: async () => {
      await Promise.all([pool.destroy(), drafts.destroy(), questions.destroy()]);
    },
  };
}
