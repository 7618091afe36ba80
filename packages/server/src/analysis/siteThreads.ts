import type { Worker } from 'node:worker_threads';
import { Refusal, type RefusalCode } from '../http/refusal.ts';

/** What a thread is told to do. `stop` holds one number: not 0 when nobody wants the answer any more. */
export interface Order {
  readonly id: number;
  readonly site: string;
  readonly name: string;
  readonly input: unknown;
  readonly stop: SharedArrayBuffer;
}

/**
 * What a thread says: how far it is, what came of an order, or why it is refused; `error` is a fault of ours. `heap`: bytes it holds
 * at the end of an order.
 */
export type Report = { readonly heap?: number } & (
  | { readonly id: number; readonly kind: 'progress'; readonly progress: Progress }
  | { readonly id: number; readonly kind: 'done'; readonly value: unknown }
  | { readonly id: number; readonly kind: 'refused'; readonly code: RefusalCode; readonly message: string }
  | { readonly id: number; readonly kind: 'stopped' }
  | { readonly id: number; readonly kind: 'error'; readonly error: Error }
);

export interface Progress {
  readonly done: number;
  readonly total: number;
  /** Rules found in pages so far, for inventories. */
  readonly rules?: number;
  /** Of a plan: its pages are read, and it is being proved. */
  readonly proving?: boolean;
}

export interface TaskOptions {
  readonly signal?: AbortSignal | undefined;
  readonly onProgress?: (progress: Progress) => void;
}

/** What threads may use. */
export interface ThreadLimits {
  /** What takes more milliseconds is slow. */
  readonly slow: number;
  readonly threads: number;
  /** Megabytes of heap, each. */
  readonly heap: number;
  /** Seconds one task may take, unless it tells that it gets on. */
  readonly seconds: (name: string) => number;
  /** Seconds it may take in all as long as it tells that it gets on. */
  readonly longest: number;
  /** Seconds a task that was told to stop may go on before its thread is ended. */
  readonly grace: number;
  /** Seconds after which a thread with nothing to do is let go, with all it holds. */
  readonly idle: number;
  /** The same for a thread whose heap has grown beyond `large` bytes: memory is given back only when it ends. */
  readonly idleLarge: number;
  readonly large: number;
}

/** So many sites are remembered as slow. */
const mostSlow = 1000;

/** The task was told to stop by the one who asked. */
export class Stopped extends Error {
  constructor() {
    super('stopped');
  }
}

interface Task extends TaskOptions {
  readonly id: number;
  readonly name: string;
  readonly input: unknown;
  readonly stop: SharedArrayBuffer;
  readonly resolve: (value: unknown) => void;
  readonly reject: (error: Error) => void;
}

interface Thread {
  readonly worker: Worker;
  /** The site whose pages it holds; undefined for one that holds nothing yet. */
  site: string | undefined;
  task: Task | undefined;
  /** When it last ended a task, in turns. */
  used: number;
  /** When its task began, in milliseconds. */
  since: number;
  /** How far its task is, by its own word. */
  progress: Progress | undefined;
  timer: NodeJS.Timeout | undefined;
}

/**
 * Threads tied to sites: all tasks of one site run one after the other on the thread that holds its pages, another site's never
 * wait for them as long as there are threads. When there are more sites with something to do than threads, they take turns, and the
 * thread used longest ago goes over to the next site; one thread is left to sites that are quickly served.
 *
 * A task that runs out of memory or time, or whose thread dies, is refused for the one who asked; the site can be asked again.
 */
export class SiteThreads {
  private readonly threads = new Set<Thread>();
  /** Waiting tasks by site; the site served longest ago comes first. */
  private readonly waiting = new Map<string, Task[]>();
  private readonly start: () => Worker;
  private readonly limits: ThreadLimits;
  /** Sites whose last task took long: they leave one thread to the others. */
  private readonly slow = new Set<string>();
  private turn = 0;
  private closed = false;

  constructor(start: (heap: number) => Worker, limits: ThreadLimits) {
    this.start = () => start(limits.heap);
    this.limits = limits;
  }

  run(site: string, name: string, input: unknown, options: TaskOptions = {}): Promise<unknown> {
    if (this.closed) return Promise.reject(stopping());
    return new Promise((resolve, reject) => {
      const { signal, onProgress } = options;
      if (signal?.aborted) {
        reject(new Stopped());
        return;
      }
      const stop = new SharedArrayBuffer(4);
      const task: Task = { ...(onProgress ? { onProgress } : {}), id: ++this.turn, name, input, stop, resolve, reject };
      signal?.addEventListener('abort', () => this.abandon(site, task), { once: true });
      const queue = this.waiting.get(site);
      if (queue) queue.push(task);
      else this.waiting.set(site, [task]);
      this.next();
    });
  }

  load(): { readonly running: number; readonly waiting: number } {
    return {
      running: [...this.threads].filter(({ task }) => task).length,
      waiting: [...this.waiting.values()].reduce((sum, queue) => sum + queue.length, 0),
    };
  }

  /** The sites whose pages threads hold. */
  held(): readonly string[] {
    return [...this.threads].flatMap(({ site }) => site ?? []);
  }

  /** Waits for what runs, `seconds` at most; what waits is refused. */
  async close(seconds = 0): Promise<void> {
    this.closed = true;
    for (const queue of this.waiting.values()) for (const task of queue) task.reject(stopping());
    this.waiting.clear();
    const until = Date.now() + seconds * 1000;
    while ([...this.threads].some(({ task }) => task) && Date.now() < until)
      await new Promise((done) => setTimeout(done, 20));
    await Promise.all([...this.threads].map((thread) => this.end(thread, stopping())));
  }

  /** Gives every waiting task a thread that it may have. */
  private next(): void {
    // a site without a thread was served longest ago, if ever
    const served = new Map([...this.threads].map(({ site, used }) => [site, used]));
    const byTurn = [...this.waiting].sort(([a], [b]) => (served.get(a) ?? 0) - (served.get(b) ?? 0));
    for (const [site, queue] of byTurn) {
      if (this.slow.has(site) && this.slowRunning() >= Math.max(1, this.limits.threads - 1)) continue;
      const thread = this.threadFor(site);
      if (!thread) continue;
      const task = queue.shift()!;
      // the others come first next time
      this.waiting.delete(site);
      if (queue.length > 0) this.waiting.set(site, queue);
      this.give(thread, site, task);
    }
  }

  /** Threads that are, or have been for long, at what takes long. */
  private slowRunning(): number {
    const now = Date.now();
    return [...this.threads].filter(
      ({ site, task, since }) => task && (this.slow.has(site!) || now - since > this.limits.slow),
    ).length;
  }

  private threadFor(site: string): Thread | undefined {
    const all = [...this.threads];
    const own = all.find((thread) => thread.site === site);
    if (own) return own.task ? undefined : own;
    if (all.length < this.limits.threads) return this.add();
    const idle = all.filter((thread) => !thread.task);
    return idle.sort((a, b) => a.used - b.used)[0];
  }

  private add(): Thread {
    const thread: Thread = {
      worker: this.start(),
      site: undefined,
      task: undefined,
      used: 0,
      since: 0,
      progress: undefined,
      timer: undefined,
    };
    this.threads.add(thread);
    thread.worker.on('message', (report: Report) => this.hear(thread, report));
    thread.worker.on('error', (error) => this.died(thread, error));
    thread.worker.on('exit', () => this.died(thread, new Error('the thread ended')));
    return thread;
  }

  private give(thread: Thread, site: string, task: Task): void {
    thread.site = site;
    thread.task = task;
    thread.since = Date.now();
    thread.progress = undefined;
    thread.worker.ref();
    this.watch(thread, task);
    const { id, name, input, stop } = task;
    thread.worker.postMessage({ id, site, name, input, stop } satisfies Order);
  }

  /** Ends it when it has had its time; a large site that has got on meanwhile goes on. */
  private watch(thread: Thread, task: Task): void {
    const seconds = this.limits.seconds(task.name);
    const before = thread.progress;
    const look = (): void => {
      const taken = (Date.now() - thread.since) / 1000;
      if (thread.progress !== before && taken < this.limits.longest) this.watch(thread, task);
      else void this.end(thread, tooLong(taken));
    };
    clearTimeout(thread.timer);
    thread.timer = setTimeout(look, seconds * 1000);
  }

  private hear(thread: Thread, report: Report): void {
    const { task } = thread;
    if (!task || report.id !== task.id) return;
    if (report.kind === 'progress') {
      thread.progress = report.progress;
      task.onProgress?.(report.progress);
      return;
    }
    this.free(thread, report.heap);
    if (report.kind === 'done') task.resolve(report.value);
    else if (report.kind === 'refused') task.reject(new Refusal(report.code, report.message));
    else task.reject(report.kind === 'stopped' ? new Stopped() : report.error);
    this.next();
  }

  private free(thread: Thread, heap = 0): void {
    clearTimeout(thread.timer);
    if (this.slow.size >= mostSlow) this.slow.clear();
    if (Date.now() - thread.since > this.limits.slow) this.slow.add(thread.site!);
    else this.slow.delete(thread.site!);
    thread.task = undefined;
    thread.used = ++this.turn;
    // a thread that has nothing to do keeps no process alive
    thread.worker.unref();
    thread.timer = setTimeout(() => void this.end(thread, new Stopped()), this.idleFor(heap) * 1000).unref();
  }

  private idleFor(heap: number): number {
    return heap > this.limits.large ? this.limits.idleLarge : this.limits.idle;
  }

  private abandon(site: string, task: Task): void {
    const queue = this.waiting.get(site);
    if (queue?.includes(task)) {
      const rest = queue.filter((one) => one !== task);
      if (rest.length > 0) this.waiting.set(site, rest);
      else this.waiting.delete(site);
      task.reject(new Stopped());
      return;
    }
    const thread = [...this.threads].find((one) => one.task === task);
    if (!thread) return;
    Atomics.store(new Int32Array(task.stop), 0, 1);
    clearTimeout(thread.timer);
    thread.timer = setTimeout(() => void this.end(thread, new Stopped()), this.limits.grace * 1000);
  }

  private died(thread: Thread, error: Error): void {
    if (!this.threads.delete(thread)) return;
    const { task } = thread;
    clearTimeout(thread.timer);
    thread.task = undefined;
    task?.reject(isOutOfMemory(error) ? tooMuch(this.limits.heap) : error);
    if (!this.closed) this.next();
  }

  /** Ends a thread in the middle of what it does; what it held is read again when it is asked for. */
  private async end(thread: Thread, reason: Error): Promise<void> {
    this.died(thread, reason);
    await thread.worker.terminate();
  }
}

const isOutOfMemory = (error: Error): boolean => 'code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY';

const stopping = (): Refusal =>
  new Refusal('stopping', 'The server is being stopped. Nothing of this was kept; ask again when it is there.');

const tooLong = (seconds: number): Refusal =>
  new Refusal(
    'too-much',
    `This took longer than ${Math.floor(seconds * 10) / 10} seconds, the most it may take. Nothing was kept of it.`,
  );

const tooMuch = (heap: number): Refusal =>
  new Refusal(
    'too-much',
    `This needs more than ${heap} MB of memory, the most one site may take. Choose fewer pages, or take the largest ones out.`,
  );
