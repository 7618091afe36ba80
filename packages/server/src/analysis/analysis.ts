import os from 'node:os';
import { setFlagsFromString } from 'node:v8';
import type { BlobPlace } from '../stores/blobBytes.ts';
import { startThread } from './startThread.ts';
import { SiteThreads, type TaskOptions, type ThreadLimits } from './siteThreads.ts';
import type { AnalysisTasks } from './tasks.ts';

type TaskName = keyof AnalysisTasks;
type InputOf<Name extends TaskName> = Parameters<AnalysisTasks[Name]>[0];
type ReplyOf<Name extends TaskName> = ReturnType<AnalysisTasks[Name]>;

/** Everything that is computed about sites, away from the thread that answers requests. */
export interface Analysis {
  /**
   * Runs a task on the thread that holds this site. Rejects with a Refusal when the task refuses, runs too long or needs too much
   * memory, and with `Stopped` when the signal told it to stop.
   */
  run<Name extends TaskName>(site: string, name: Name, input: InputOf<Name>, options?: TaskOptions): ReplyOf<Name>;
  /** How many tasks run, and how many wait for a thread. */
  load(): { readonly running: number; readonly waiting: number };
  /** The sites whose pages threads of this process hold. */
  held(): readonly string[];
  /** Waits for what runs, `seconds` at most. */
  close(seconds?: number): Promise<void>;
}

/** Tasks about one page or element, which nobody waits minutes for. */
const small = new Set<string>(['page', 'element', 'value'] satisfies TaskName[]);

export const usualLimits: ThreadLimits = {
  threads: Math.min(8, Math.max(3, os.availableParallelism())),
  heap: 2048,
  slow: 1500,
  seconds: (name) => (small.has(name) ? 60 : 300),
  longest: 1800,
  grace: 5,
  idle: 600,
  idleLarge: 30,
  large: 400_000_000,
};

/** Where things are. */
export interface Places {
  readonly databaseUrl: string;
  readonly blobs?: BlobPlace | undefined;
}

/** What a thread is started with that answers what is asked about sites; `heap`: megabytes it may use. */
export interface ThreadData extends Places {
  readonly heap: number;
}

export function startAnalysis(places: Places, limits: ThreadLimits = usualLimits): Analysis {
  // between two collections heaps may grow by so much; with a limit of 2 GB V8 would let them grow fourfold
  setFlagsFromString('--heap-growing-percent=40');
  const threads = new SiteThreads((heap) => startThread(heap, { ...places, heap } satisfies ThreadData), limits);
  return {
    run: <Name extends TaskName>(site: string, name: Name, input: InputOf<Name>, options?: TaskOptions) =>
      threads.run(site, name, input, options) as ReplyOf<Name>,
    load: () => threads.load(),
    held: () => threads.held(),
    close: (seconds) => threads.close(seconds),
  };
}
