import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import type { AnalysisTasks } from './tasks.ts';

export interface Analysis {
  run<Name extends keyof AnalysisTasks>(
    name: Name,
    input: Parameters<AnalysisTasks[Name]>[0],
  ): ReturnType<AnalysisTasks[Name]>;
  /** A proof that reports how far it is. */
  prove(
    input: Omit<Parameters<AnalysisTasks['proof']>[0], 'port'>,
    onProgress: (done: number, total: number) => void,
  ): ReturnType<AnalysisTasks['proof']>;
  close(): Promise<void>;
}

/** Worker threads that keep the parsed files of the last revisions warm. */
export function startAnalysis(databaseUrl: string, threads = 2): Analysis {
  // .js in dist; from source the file is .ts and the thread needs a loader
  const fromSource = import.meta.url.endsWith('.ts');
  const pool = new Piscina({
    filename: new URL(fromSource ? './worker.ts' : './worker.js', import.meta.url).href,
    minThreads: 1,
    maxThreads: threads,
    idleTimeout: 600_000,
    workerData: { databaseUrl },
    ...(fromSource ? { execArgv: ['--import', 'tsx', '--conditions=@syndeton/source'] } : {}),
  });
  const run: Analysis['run'] = (name, input) => pool.run({ name, input }) as never;
  return {
    run,
    prove(input, onProgress) {
      const { port1, port2 } = new MessageChannel();
      port1.on('message', ({ done, total }: { done: number; total: number }) => onProgress(done, total));
      const result = pool.run(
        { name: 'proof', input: { ...input, port: port2 } },
        { transferList: [port2] },
      ) as ReturnType<AnalysisTasks['proof']>;
      return result.finally(() => port1.close());
    },
    close: () => pool.destroy(),
  };
}
