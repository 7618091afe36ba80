import type { Analysis } from '../analysis/analysis.ts';
import { Stopped, type Progress, type TaskOptions } from '../analysis/siteThreads.ts';
import type { Processes } from '../db/processes.ts';
import type { Job } from '../db/queue.ts';
import type { Signals } from '../db/signals.ts';
import { databaseTrouble } from '../db/databaseTrouble.ts';
import { Refusal } from '../http/refusal.ts';
import type { AnalysisTasks } from '../analysis/tasks.ts';
import type { AskedTask, SiteTaskStore } from '../stores/siteTaskStore.ts';
import { holding, newsFor, packed, unpacked, unwanted, type TaskAnswer, type TaskNews } from './siteTaskMessages.ts';

interface Parts {
  readonly store: SiteTaskStore;
  readonly signals: Signals;
  readonly processes: Pick<Processes, 'id' | 'all'>;
  /** The threads of this process. */
  readonly analysis: Analysis;
  /** So many tasks are taken at once. */
  readonly atOnce: number;
  readonly warn: (error: unknown) => void;
}

/** Tasks that other processes ask for, done here. */
export interface SiteTaskWork {
  readonly job: Job;
  /** Sites whose pages another process holds, and that has room for them. */
  readonly heldElsewhere: () => readonly string[];
}

export function makeSiteTaskWork({ store, signals, processes, analysis, atOnce, warn }: Parts): SiteTaskWork {
  const running = new Map<string, AbortController>();
  signals.on(unwanted, (told) => {
    if (told !== undefined) running.get(told)?.abort();
    else for (const id of running.keys()) void stopWhereUnwanted(id);
  });
  const { announce, heldElsewhere } = keepTies({
    signals,
    processes,
    held: () => (running.size < atOnce ? analysis.held() : []),
    warn,
  });

  async function stopWhereUnwanted(id: string): Promise<void> {
    if ((await store.find(id).catch(() => undefined)) === undefined) running.get(id)?.abort();
  }

  async function job(id: string): Promise<void> {
    const task = await store.find(id);
    if (!task) return;
    const stop = new AbortController();
    running.set(id, stop);
    const tell = (news: TaskNews): void => void signals.tell(newsFor(task.asker), JSON.stringify(news)).catch(warn);
    tell({ id, kind: 'begun' });
    try {
      const onProgress = (progress: Progress): void => tell({ id, kind: 'progress', progress });
      const done = runAny(analysis, task, { signal: stop.signal, onProgress });
      announce();
      const answer = await done.then((value): TaskAnswer => ({ kind: 'done', value }), answerOf);
      if (answer === undefined) return;
      await store.answer(id, packed(answer));
      tell({ id, kind: 'answered' });
    } finally {
      running.delete(id);
      announce();
    }
  }
  return { job, heldElsewhere };
}

/** Its name and input come from a process that is of the same make. */
const runAny = (analysis: Analysis, { site, name, input }: AskedTask, options: TaskOptions): Promise<unknown> =>
  analysis.run(site, name as 'page', unpacked(input) as Parameters<AnalysisTasks['page']>[0], options);

/** Undefined: nobody wants it. What this process cannot finish because it ends is left for another. */
function answerOf(error: unknown): TaskAnswer | undefined | Promise<never> {
  if (error instanceof Stopped) return undefined;
  const refusal = error instanceof Refusal ? error : databaseTrouble(error);
  if (refusal?.code === 'stopping') return new Promise<never>(() => undefined);
  if (refusal) return { kind: 'refused', code: refusal.code, message: refusal.message };
  return { kind: 'error', message: error instanceof Error ? (error.stack ?? error.message) : String(error) };
}

/** Milliseconds until one that has just come must be among all that are there. */
const unknownFor = 5000;

/**
 * Processes leave sites to the one that holds their pages. It is told of with each change; what is missed costs only that pages are read
 * once more.
 */
function keepTies({
  signals,
  processes,
  held,
  warn,
}: {
  readonly signals: Signals;
  readonly processes: Pick<Processes, 'id' | 'all'>;
  readonly held: () => readonly string[];
  readonly warn: (error: unknown) => void;
}): { readonly announce: () => void; readonly heldElsewhere: () => readonly string[] } {
  const others = new Map<number, { readonly sites: readonly string[]; readonly at: number }>();
  let last = '';
  const announce = (): void => {
    const sites = held();
    if (sites.join() === last) return;
    last = sites.join();
    signals.tell(holding, JSON.stringify({ process: processes.id, sites })).catch(warn);
  };
  signals.on(holding, (told) => {
    if (told === undefined) return;
    const { process, sites } = JSON.parse(told) as { process: number; sites: readonly string[] };
    if (process !== processes.id) others.set(process, { sites, at: Date.now() });
  });
  return {
    announce,
    heldElsewhere() {
      const all = processes.all();
      for (const [id, { at }] of others) if (!all.has(id) && Date.now() - at > unknownFor) others.delete(id);
      return [...others.values()].flatMap(({ sites }) => sites);
    },
  };
}
