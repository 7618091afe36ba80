import { randomUUID } from 'node:crypto';
import type { Analysis } from '../analysis/analysis.ts';
import { Stopped, type TaskOptions } from '../analysis/siteThreads.ts';
import type { Processes } from '../db/processes.ts';
import { attempts } from '../db/queue.ts';
import type { Signals } from '../db/signals.ts';
import { Refusal } from '../http/refusal.ts';
import type { SiteTaskStore } from '../stores/siteTaskStore.ts';
import { newsFor, packed, unpacked, unwanted, type TaskAnswer, type TaskNews } from './siteTaskMessages.ts';

interface Open {
  readonly options: TaskOptions;
  begun: boolean;
  readonly ask: () => Promise<void>;
  readonly resolve: (value: unknown) => void;
  readonly reject: (error: unknown) => void;
  /** The database is asked about it; `again`: something was told meanwhile. */
  busy: boolean;
  again: boolean;
}

interface Parts {
  readonly store: SiteTaskStore;
  readonly signals: Signals;
  readonly processes: Processes;
  readonly warn: (error: unknown) => void;
  /** Milliseconds after which it is asked whether what was asked may still be done. */
  readonly patience?: number;
}

/**
 * Everything that is computed about sites, by whichever process takes it from the queue. What a process that ended had begun is begun
 * again by another.
 */
export function makeQueuedAnalysis({ store, signals, processes, warn, patience = 5000 }: Parts): Analysis {
  const open = new Map<string, Open>();
  let closed = false;
  const stopListening = signals.on(newsFor(processes.id), hear);
  const timer = setInterval(() => void refuseHopeless().catch(warn), patience).unref();

  function hear(told: string | undefined): void {
    if (told === undefined) {
      // some may have been missed, or lost with the database
      for (const id of open.keys()) void collect(id);
      return;
    }
    const news = JSON.parse(told) as TaskNews;
    const one = open.get(news.id);
    if (!one) return;
    one.begun = true;
    if (news.kind === 'progress') one.options.onProgress?.(news.progress);
    if (news.kind === 'answered') void collect(news.id);
  }

  async function collect(id: string): Promise<void> {
    const one = open.get(id);
    if (!one) return;
    one.again = true;
    if (one.busy) return;
    one.busy = true;
    try {
      while (one.again && open.has(id)) {
        one.again = false;
        await look(id, one);
      }
    } catch (error) {
      settle(id)?.reject(error);
    } finally {
      one.busy = false;
    }
  }

  async function look(id: string, { ask }: Open): Promise<void> {
    const found = await store.collect(id);
    if (found === 'waiting') return;
    if (found === undefined) return ask();
    const answer = unpacked(found) as TaskAnswer;
    if (answer.kind === 'done') settle(id)?.resolve(answer.value);
    else settle(id)?.reject(errorOf(answer));
  }

  function settle(id: string): Open | undefined {
    const one = open.get(id);
    return open.delete(id) ? one : undefined;
  }

  async function refuse(ids: readonly string[], refusal: Refusal): Promise<void> {
    for (const id of ids) {
      settle(id)?.reject(refusal);
      await store.drop(id);
    }
  }

  async function withdraw(id: string): Promise<void> {
    await store.drop(id);
    await signals.tell(unwanted, id);
  }

  async function refuseHopeless(): Promise<void> {
    if (open.size === 0) return;
    await refuse(await store.lost(processes.id), endedInIt());
    const waiting = [...open].flatMap(([id, one]) => (one.begun ? [] : [id]));
    if (waiting.length > 0 && !(await processes.someWork())) await refuse(waiting, nobodyWorks());
  }

  function begin(id: string, one: Open): void {
    open.set(id, one);
    one.ask().then(
      () => {
        one.busy = false;
        if (one.again) void collect(id);
      },
      (error: unknown) => settle(id)?.reject(error),
    );
    const giveUp = (): void => {
      if (settle(id) !== one) return;
      one.reject(new Stopped());
      withdraw(id).catch(warn);
    };
    one.options.signal?.addEventListener('abort', giveUp, { once: true });
  }

  async function run(site: string, name: string, input: unknown, options: TaskOptions = {}): Promise<unknown> {
    if (closed) throw stopping();
    if (options.signal?.aborted) throw new Stopped();
    const task = { id: randomUUID(), asker: processes.id, site, name, input: packed(input) };
    const ask = (): Promise<void> => store.ask(task);
    return new Promise((resolve, reject) => {
      begin(task.id, { options, begun: false, ask, resolve, reject, busy: true, again: false });
    });
  }

  return {
    run: run as Analysis['run'],
    load: () => loadOf(open),
    held: () => [],
    async close(seconds = 0) {
      closed = true;
      await emptied(open, seconds);
      for (const id of [...open.keys()]) settle(id)?.reject(stopping());
      clearInterval(timer);
      stopListening();
    },
  };
}

function loadOf(open: ReadonlyMap<string, Open>): ReturnType<Analysis['load']> {
  const running = [...open.values()].filter(({ begun }) => begun).length;
  return { running, waiting: open.size - running };
}

const nobodyWorks = (): Refusal =>
  new Refusal('busy', 'Nobody is there to compute this. Start a worker: npm run worker');

const endedInIt = (): Refusal =>
  new Refusal('too-much', `What computes this ended ${attempts} times in the middle. Nothing was kept of it.`);

const stopping = (): Refusal =>
  new Refusal('stopping', 'The server is being stopped. Nothing of this was kept; ask again when it is there.');

function errorOf(answer: Exclude<TaskAnswer, { kind: 'done' }>): Error {
  return answer.kind === 'refused' ? new Refusal(answer.code, answer.message) : new Error(answer.message);
}

async function emptied(open: ReadonlyMap<string, Open>, seconds: number): Promise<void> {
  const until = Date.now() + seconds * 1000;
  while (open.size > 0 && Date.now() < until) await new Promise((done) => setTimeout(done, 20));
}
