import type { Answer, Question } from './answers.ts';

/** What the worker says: an answer, or that there is none. */
export type Reply =
  | { readonly id: number; readonly answer: unknown }
  | { readonly id: number; readonly problem: string };

interface Waiting {
  readonly resolve: (answer: never) => void;
  readonly reject: (problem: Error) => void;
}

const startWorker = (): Worker => new Worker(new URL('./writing.worker.ts', import.meta.url), { type: 'module' });

/**
 * Language work in a thread of its own, so that typing never waits for it. A question that it cannot answer is rejected; a thread that
 * ended, or whose program could not be fetched, is begun again with the next question.
 */
export class WritingHelp {
  private worker: Worker | undefined;
  private readonly waiting = new Map<number, Waiting>();
  private readonly start: () => Worker;
  private last = 0;

  constructor(start: () => Worker = startWorker) {
    this.start = start;
  }

  async ask<Asked extends Question>(question: Asked): Promise<Answer<Asked>> {
    const worker = (this.worker ??= this.begin());
    const id = ++this.last;
    worker.postMessage({ id, question });
    return new Promise((resolve, reject) => this.waiting.set(id, { resolve, reject }));
  }

  close(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.waiting.clear();
  }

  private begin(): Worker {
    const worker = this.start();
    worker.onmessage = ({ data }: MessageEvent<Reply>) => {
      const one = this.waiting.get(data.id);
      this.waiting.delete(data.id);
      if ('problem' in data) one?.reject(new Error(data.problem));
      else one?.resolve(data.answer as never);
    };
    worker.onerror = () => {
      if (this.worker !== worker) return;
      worker.terminate();
      this.worker = undefined;
      const all = [...this.waiting.values()];
      this.waiting.clear();
      for (const { reject } of all) reject(new Error('the thread ended'));
    };
    return worker;
  }
}
